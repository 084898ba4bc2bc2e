/*
 * npm run bench: ratios within one run, medians of nine alternating rounds. R is plain HarfBuzz (WASM), paragraph by
 * paragraph; C is headless Chromium laying out the same text in the same faces and measure. Hyphenation is off on both
 * sides. It prints and never fails. Options: --words N (250000), --rounds N (9).
 */
import { spawnSync } from 'node:child_process'
import { writeFileSync, rmSync, mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { Blob, Buffer, Face, Font, shape } from 'harfbuzzjs'
import { swapRequestSchema } from '../core/plan/plan'
import { DocumentSession } from '../core/plan/session'
import { displayPage } from '../core/typeset/display'
import { Typesetter } from '../core/typeset/look'
import { Shaper } from '../core/typeset/shaper'
import { projectFolder } from '../server/library/files'
import { startHarfBuzz } from '../server/library/harfbuzz'
import { shippedLibrary } from '../server/library/shipped'
import { benchDocument, benchParagraphs } from './text'
import { chromiumLayout } from './browser'

const option = (name: string, fallback: number) => { const at = process.argv.indexOf(`--${name}`); return at < 0 ? fallback : Number(process.argv[at + 1]) }
const words = option('words', 250_000)
const rounds = option('rounds', 9)
const median = (values: readonly number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!
const timed = <T>(work: () => T): [number, T] => { const start = performance.now(); const result = work(); return [performance.now() - start, result] }

const paragraphs = benchParagraphs(words)
const distinct = new Set(paragraphs.flatMap(text => text.toLowerCase().replace('.', '').split(' '))).size
const { library, load } = shippedLibrary()
const from = library.named('Spectral', 'Regular')!
const to = library.named('Literata', 'Regular')!
const bytes = benchDocument(paragraphs, 'Spectral')
console.log(`${words} words, ${distinct} distinct, ${paragraphs.length} paragraphs, package of ${Math.round(bytes.length / 1024)} KB; ${rounds} rounds`)

/** R: every paragraph shaped whole, nothing kept. */
const plainFont = new Font(new Face(new Blob(load(to.hash)!)))
const buffer = new Buffer()
function plainHarfBuzz(): number {
  let glyphs = 0
  for (const text of paragraphs) {
    buffer.reset()
    buffer.addText(text)
    buffer.guessSegmentProperties()
    shape(plainFont, buffer)
    glyphs += buffer.getLength()
  }
  return glyphs
}

// Row three runs in processes of its own: fonts and WASM cold, as when a document is first opened.
const folder = join(projectFolder(), '.morphene')
mkdirSync(folder, { recursive: true })
const file = join(folder, 'bench.odt')
writeFileSync(file, bytes)
const cold = () => Number(spawnSync(process.execPath, ['--import', 'tsx', join(projectFolder(), 'bench/cold.ts'), file], { encoding: 'utf8' }).stdout.trim())

const browser = await chromiumLayout(paragraphs, { Spectral: load(from.hash)!, Literata: load(to.hash)! })
const typesetter = new Typesetter(library, new Shaper(startHarfBuzz(), load))
const base = new DocumentSession(DocumentSession.open(bytes, typesetter).document, typesetter)
const request = (family: string) => swapRequestSchema.parse({ wishes: [{ from: { family: 'Spectral' }, to: { family } }] })
const times = { plain: [] as number[], chromium: [] as number[], set: [] as number[], plan: [] as number[], cold: [] as number[] }
const { detail } = base
let pages = 0
for (let round = 0; round < rounds; round++) {
  times.plain.push(timed(plainHarfBuzz)[0])
  await browser.layout('Spectral')
  times.chromium.push(await browser.layout('Literata'))
  // A typesetter of its own: the new face is loaded and no word of it is set yet.
  const fresh = new Typesetter(library, new Shaper(startHarfBuzz(), load))
  const after = new DocumentSession(base.plan(request('Literata')).after.document, fresh)
  const [set, composition] = timed(() => after.composition)
  times.set.push(set)
  pages = composition.pages.length
  displayPage(composition.pages[0]!)
  times.plan.push(timed(() => new DocumentSession(base.document, fresh).plan(request('Literata')))[0])
  times.cold.push(cold())
  console.log(`  round ${round + 1}: R ${Math.round(times.plain[round]!)} ms, C ${Math.round(times.chromium[round]!)} ms, typesetting ${Math.round(set)} ms, plan ${Math.round(times.plan[round]!)} ms, cold open ${Math.round(times.cold[round]!)} ms`)
}
await browser.close()
rmSync(file)
const R = median(times.plain)
const C = median(times.chromium)
const set = median(times.set)
const ratio = (value: number, of: number) => (value / of).toFixed(2)
console.log(`
${pages} pages, ${detail.census.characters} characters
row                                                        measured            target
1 typesetting after a swap, greedy (new face cold)         ${ratio(set, C)} C, ${ratio(set, R)} R      0.33 C, 0.35 R
3 open to the first page drawn (process, fonts, WASM cold)  ${ratio(median(times.cold), R)} R              0.70 R
4 plan of a swap with its page effects (new face warm)      ${ratio(median(times.plan), set)} × row 1        1.50 × row 1
All pages are set, every time; nothing is kept from round to round but the library's index.`)
