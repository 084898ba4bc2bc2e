/*
 * npm run bench: ratios within one run, medians of nine alternating rounds, on the code as it ships (bundled). R is plain
 * HarfBuzz (WASM), paragraph by paragraph; C is headless Chromium laying out the same text in the same faces and measure.
 * Hyphenation is off on both sides. It prints and never fails. Options: --words N (250000), --rounds N (9).
 */
import { spawnSync } from 'node:child_process'
import { writeFileSync, rmSync, mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { Blob, Buffer, Face, Font, shape } from 'harfbuzzjs'
import { applyEdit } from '../core/document/edits'
import { registry } from '../core/change/registry'
import { DocumentSession } from '../core/session'
import { crewHandbook } from '../demo/crew-handbook'
import { compose, type Composition } from '../core/typeset/compose'
import { readDocument } from '../core/style/reading'
import { displayPage } from '../core/typeset/display'
import { Typesetter } from '../core/typeset/look'
import { Shaper } from '../core/typeset/shaper'
import { projectFolder } from '../server/library/files'
import { startHarfBuzz } from '../server/library/harfbuzz'
import { shippedLibrary } from '../server/library/shipped'
import { houseRows } from './house'
import { typeRows } from './type'
import { benchDocument, benchParagraphs } from './text'
import { chromiumLayout } from './browser'

const option = (name: string, fallback: number) => {
  const at = process.argv.indexOf(`--${name}`)
  return at < 0 ? fallback : Number(process.argv[at + 1])
}
const words = option('words', 250_000)
const rounds = option('rounds', 9)
const ranked = (values: readonly number[], share: number) =>
  [...values].sort((a, b) => a - b)[Math.min(Math.floor(values.length * share), values.length - 1)]!
const median = (values: readonly number[]) => ranked(values, 0.5)
const timed = <T>(work: () => T): [number, T] => {
  const start = performance.now()
  const result = work()
  return [performance.now() - start, result]
}

const paragraphs = benchParagraphs(words)
const distinct = new Set(paragraphs.flatMap(text => text.toLowerCase().replace('.', '').split(' '))).size
const { library, load } = shippedLibrary()
const from = library.named('Spectral', 'Regular')!
const to = library.named('Literata', 'Regular')!
const bytes = benchDocument(paragraphs, 'Spectral')
console.log(
  `${words} words, ${distinct} distinct, ${paragraphs.length} paragraphs, ` +
    `package of ${Math.round(bytes.length / 1024)} KB; ${rounds} rounds`,
)

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
const cold = () =>
  Number(
    spawnSync(process.execPath, [join(projectFolder(), '.morphene/build/cold.mjs'), file], {
      encoding: 'utf8',
      env: { ...process.env, MORPHENE_FOLDER: projectFolder() },
    }).stdout.trim(),
  )

const browser = await chromiumLayout(paragraphs, { Spectral: load(from.hash)!, Literata: load(to.hash)! })
const engine = startHarfBuzz()
const typesetter = new Typesetter(library, new Shaper(engine, load))
const session = await DocumentSession.start(bytes, typesetter)
const detail = session.detail
/** A plan of wishes; without `effects` nothing about its pages is worked out. */
const plan = (of: DocumentSession, wish: object, effects: boolean) =>
  registry.plan(of, registry.schema.parse({ wishes: [wish] }), { effects })
const wish = (family: string) => ({ type: 'swap', from: { family: 'Spectral' }, to: { family } })
const swapped = plan(session, wish('Literata'), true).after.document
const times = {
  plain: [] as number[],
  chromium: [] as number[],
  greedy: [] as number[],
  fit: [] as number[],
  plan: [] as number[],
  warm: [] as number[],
  cold: [] as number[],
  preview: [] as number[],
}
let pages: Composition['pages'] = []

/** The open document after the swap, as the desk has it: text taken apart, of the new face nothing set. */
function afterSwap(): { reading: ReturnType<typeof readDocument>; fresh: Typesetter } {
  const fresh = typesetter.withoutShapes()
  const reading = readDocument(swapped, session.reading)
  return { reading, fresh }
}

for (let round = 0; round < rounds; round++) {
  times.plain.push(timed(plainHarfBuzz)[0])
  await browser.layout('Spectral')
  times.chromium.push(await browser.layout('Literata'))
  for (const totalFit of [false, true]) {
    const { reading, fresh } = afterSwap()
    const [time, composition] = timed(() => compose(reading, fresh, { totalFit }))
    times[totalFit ? 'fit' : 'greedy'].push(time)
    pages = composition.pages
  }
  // The plan on the open document, its new face's words as cold as above; and typesetting alone beside it.
  const open = new DocumentSession(session.document, typesetter.withoutShapes(), session)
  void open.detail
  times.plan.push(timed(() => plan(open, wish('Literata'), true))[0])
  times.cold.push(cold())
  // Preview: the visible pages in another face, its file loaded.
  const other = library.family(
    ['Alegreya', 'Bitter', 'Domine', 'PT Serif', 'Newsreader', 'Zilla Slab', 'Crimson Pro', 'Work Sans', 'Archivo'][
      round % 9
    ]!,
  )[0]!
  typesetter.shaper.font(other.hash)
  times.preview.push(
    timed(() => {
      const previewed = plan(session, wish(other.family), false).after
      return [0, 1].map(index => displayPage(previewed.page(index)!))
    })[0],
  )
  const shown = Object.entries(times).map(([name, all]) => `${name} ${Math.round(all[round] ?? 0)} ms`)
  console.log(`  round ${round + 1}: ${shown.join(', ')}`)
}
await browser.close()
rmSync(file)

// Keystrokes: letters typed into a paragraph in the middle of the document; its page drawn, then all the rest set.
const typedAt = session.composition.pages[Math.floor(session.composition.pages.length / 2)]!
const typedIn = typedAt.fragments.find(
  fragment => fragment.kind === 'lines' && fragment.from === 0 && fragment.layout.lines.length > 3,
)
const inline = typedIn?.kind === 'lines' ? typedIn.layout.paragraph.inlines[0] : undefined
if (inline?.kind !== 'text') throw new Error('there is no paragraph to type in')
const keys: number[] = []
const rest: number[] = []
let at = session
const paragraphOf = typedIn!.kind === 'lines' ? typedIn!.layout.paragraph.node : -1
for (let key = 0; key < 200; key++) {
  const [time, next] = timed(() => {
    const letter = 'abcdefgh '[key % 9]!
    const { document } = applyEdit(
      at.document,
      { type: 'text', part: 'content.xml', node: paragraphOf, from: 40 + key, to: 40 + key, text: letter },
      at.document.parts.get('content.xml')!.nextId,
    )
    const after = new DocumentSession(document, typesetter, at)
    displayPage(after.page(typedAt.index)!)
    return after
  })
  keys.push(time)
  rest.push(timed(() => next.composition)[0])
  at = next
}

// A style changed in the demo's handbook: planned, and the page that is looked at, in the middle, drawn anew.
const handbook = await DocumentSession.start(crewHandbook(), typesetter)
const lookedAt = Math.floor(handbook.composition.pages.length / 2)
const styleChanges: number[] = []
for (let round = 0; round < rounds; round++) {
  const edit = {
    type: 'edit',
    family: 'paragraph',
    name: 'Body',
    changes: { text: { 'fo:font-size': `${9 + round * 0.1}pt` } },
  }
  styleChanges.push(timed(() => displayPage(plan(handbook, edit, false).after.page(lookedAt)!))[0])
}

// Growth: time for each page from ten pages to two thousand; the documents open, their words shaped, no line of them set.
const growing: {
  readonly count: number
  readonly opened: DocumentSession
  readonly perPage: number[]
  pages: number
}[] = []
for (const count of [7_250, 36_000, 250_000, 725_000, 1_450_000].filter(each => each <= Math.max(words * 6, 7_250))) {
  const made = benchDocument(benchParagraphs(count), 'Literata')
  const opened = await DocumentSession.start(made, typesetter)
  void opened.reading
  compose(opened.reading, typesetter)
  growing.push({ count, opened, perPage: [], pages: 0 })
}
for (let round = 0; round < rounds; round++) {
  for (const each of growing) {
    globalThis.gc?.()
    // Small documents are set several times over: a millisecond is too short to be measured.
    const repeats = Math.max(1, Math.round(250_000 / each.count))
    const [time, last] = timed(() => {
      let composed = compose(each.opened.reading, new Typesetter(library, typesetter.shaper))
      for (let again = 1; again < repeats; again++)
        composed = compose(each.opened.reading, new Typesetter(library, typesetter.shaper))
      return composed
    })
    each.pages = last.pages.length
    each.perPage.push(time / each.pages / repeats)
  }
}
const growth = growing.map(each => ({ pages: each.pages, perPage: median(each.perPage) }))
const used = () => {
  globalThis.gc?.()
  globalThis.gc?.()
  const memory = process.memoryUsage()
  return memory.heapUsed + memory.arrayBuffers
}
const before = used()
const kept = compose(session.reading, new Typesetter(library, typesetter.shaper))
const perPage = (used() - before) / kept.pages.length / 1024

const R = median(times.plain)
const C = median(times.chromium)
const ratio = (value: number, of: number) => (value / of).toFixed(2)
const ms = (value: number) => `${value.toFixed(1)} ms`
const rows: readonly (readonly [string, string, string?])[] = [
  ['row', 'measured', 'target'],
  [
    'typesetting after a swap, greedy (new face cold)',
    `${ratio(median(times.greedy), C)} C, ${ratio(median(times.greedy), R)} R`,
    '0.33 C, 0.35 R',
  ],
  ['the same, total fit', `${ratio(median(times.fit), C)} C`, '1.00 C'],
  ['open to the first page drawn (fonts, WASM, code cold)', `${ratio(median(times.cold), R)} R`, '0.70 R'],
  [
    'plan of a swap with its page effects (new face cold)',
    `${ratio(median(times.plan), median(times.fit))} × typesetting`,
    '1.50 × typesetting',
  ],
  ['keystroke to the visible page redrawn', `${ms(median(keys))}, 99th ${ms(ranked(keys, 0.99))}`, '16 ms, 50 ms'],
  ['and all later pages', `${ms(Math.max(...rest))} at most`, '1000 ms'],
  [
    `style change in the handbook (${handbook.composition.pages.length} pages), its page ${lookedAt + 1}`,
    ms(median(styleChanges)),
    '100 ms',
  ],
  ['preview of a face on two pages, face loaded', ms(median(times.preview)), '100 ms'],
  ['time per page', growth.map(each => `${each.pages} pages ${(each.perPage * 1000).toFixed(0)} µs`).join(', ')],
  [
    'memory per page kept',
    Number.isFinite(perPage) && globalThis.gc ? `${perPage.toFixed(0)} KB` : 'needs --expose-gc',
  ],
  ...typeRows(rounds),
  ...(await houseRows(rounds, typesetter)),
]
console.log(`
${pages.length} pages, ${detail.census.characters} characters; R ${Math.round(R)} ms, C ${Math.round(C)} ms
${rows.map(([row, measured, target = '']) => `${row.padEnd(60)}${measured.padEnd(20)}${target}`.trimEnd()).join('\n')}
Warm in rows 1, 2 and 4: the open document, its text taken apart. Cold: everything of the new face. Chromium's own
caches of the text are warm likewise.`)
