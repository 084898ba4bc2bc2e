/*
 * npm run corpus:pdf [FOLDER]: every real document as PDF, checked by programs that nobody here wrote: qpdf for its
 * soundness, pdfinfo for its structure, pdffonts for its fonts, pdftotext for its words. Prints page counts beside those the files state.
 */
import { spawnSync } from 'node:child_process'
import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { writePdf } from '../core/format/pdf/write'
import { DocumentSession } from '../core/session'
import { statedPages } from '../core/typeset/compose'
import { displayPage, type DisplayPage } from '../core/typeset/display'
import type { GlyphRun } from '../core/typeset/glyph-runs'
import { mapped } from '../core/typeset/matrix'
import { Typesetter } from '../core/typeset/look'
import { Shaper } from '../core/typeset/shaper'
import { projectFolder } from '../server/library/files'
import { startHarfBuzz, startSubsetter } from '../server/library/harfbuzz'
import { shippedLibrary } from '../server/library/shipped'
import { outlineOf, outlineOfText, tagsOf, untagged } from '../tests/support/tagged-pdf'

const folder = process.argv[2] ?? join(projectFolder(), '.morphene', 'corpus')
const out = join(projectFolder(), '.morphene', 'corpus-pdf')
mkdirSync(out, { recursive: true })
const { library, load } = shippedLibrary()
const typesetter = new Typesetter(library, new Shaper(startHarfBuzz(), load))
const subsetter = startSubsetter()
const words = (text: string) =>
  text
    .normalize('NFKC')
    .toLowerCase()
    .replace(/[\u00AD\uFE00-\uFE0F\u200B-\u200F\u202A-\u202E\u2060-\u2069\uFEFF]/g, '')
    .replace(/\s+/g, '')
let failures = 0
const fail = (file: string, what: string) => {
  failures++
  console.log(`FAILED  ${file}: ${what}`)
}
const rows: string[] = []

/** How often each character occurs: the same words in whatever order have the same. */
function counted(text: string): Map<string, number> {
  const counts = new Map<string, number>()
  for (const character of words(text)) counts.set(character, (counts.get(character) ?? 0) + 1)
  return counts
}

for (const file of readdirSync(folder)
  .filter(each => /\.od[tpg]$/.test(each))
  .sort()) {
  try {
    const bytes = new Uint8Array(readFileSync(join(folder, file)))
    const session = await DocumentSession.start(bytes, typesetter)
    const start = performance.now()
    const { composition } = session
    const pdf = await writePdf(composition, typesetter, load, subsetter, {
      bleed: 0,
      cropMarks: false,
      leaveOut: true,
      notes: true,
      made: 0,
    })
    const path = join(out, `${file}.pdf`)
    writeFileSync(path, pdf.bytes)
    const time = performance.now() - start
    const check = spawnSync('qpdf', ['--check', path], { encoding: 'utf8' })
    if (check.status !== 0)
      fail(file, `qpdf: ${check.stdout.split('\n').slice(0, 3).join(' ')}${check.stderr.slice(0, 300)}`)
    const fonts = spawnSync('pdffonts', [path], { encoding: 'utf8' }).stdout.trim().split('\n').slice(2)
    for (const line of fonts) {
      const embedded = /\s(yes|no)\s+(yes|no)\s+(yes|no)\s+\d+\s+\d+\s*$/.exec(line)
      if (!embedded || embedded[1] !== 'yes' || embedded[2] !== 'yes') fail(file, `pdffonts: ${line.trim()}`)
    }
    const read = spawnSync('pdftotext', ['-raw', path, '-'], { encoding: 'utf8', maxBuffer: 1 << 28 }).stdout
    // What lies off the page is no part of what a reader of the PDF can see.
    const onPage = (page: DisplayPage, run: GlyphRun) => {
      const at = run.matrix ? mapped(run.matrix, run.x, run.y) : run
      return at.x < page.width && at.y < page.height && at.x + run.width > 0 && at.y > 0
    }
    const shown = [...composition.pages, ...composition.notes]
      .map(page => {
        const drawn = displayPage(page)
        return drawn.runs
          .filter(run => onPage(drawn, run))
          .map(run => run.text)
          .join(' ')
      })
      .join(' ')
    const [a, b] = [counted(shown), counted(read)]
    const differing = [...new Set([...a.keys(), ...b.keys()])].filter(
      character => character !== '-' && (a.get(character) ?? 0) !== (b.get(character) ?? 0),
    )
    const off = differing.reduce(
      (sum, character) => sum + Math.abs((a.get(character) ?? 0) - (b.get(character) ?? 0)),
      0,
    )
    const total = [...a.values()].reduce((sum, each) => sum + each, 0)
    if (off > total * 0.002)
      fail(
        file,
        `pdftotext: ${off} of ${total} characters differ: ${differing
          .slice(0, 12)
          .map(character => `${character} ${a.get(character) ?? 0}/${b.get(character) ?? 0}`)
          .join(', ')}`,
      )
    for (const operator of untagged(path).slice(0, 3)) fail(file, `untagged: ${operator}`)
    const structure = outlineOf(tagsOf(path))
    const own = file.endsWith('.odt') ? outlineOfText(bytes) : structure
    const unlike = own.findIndex((line, index) => line !== structure[index])
    if (unlike >= 0 || own.length !== structure.length)
      fail(
        file,
        `structure: ${own.length} and ${structure.length} paragraphs; first unlike: ` +
          `“${own[unlike]?.slice(0, 90)}” and “${structure[unlike]?.slice(0, 90)}”`,
      )
    const absent = new Set(
      session.detail.census.faces.filter(face => face.status === 'absent').map(face => face.family),
    )
    rows.push(
      `| ${file} | ${statedPages(session.document)} | ${composition.pages.length} | ${[...absent].join(', ') || '–'} ` +
        `| ${composition.unlaid.map(each => `${each.feature} ${each.count}`).join('; ') || '–'} |`,
    )
    console.log(
      `ok      ${file}: ${composition.pages.length} pages (file says ${statedPages(session.document)}), ${fonts.length} ` +
        `fonts, ${Math.round(pdf.bytes.length / 1024)} KB, ${Math.round(time)} ms, ${off} characters off, ${own.length} ` +
        `paragraphs tagged${pdf.pictures.length > 0 ? `, ${pdf.pictures.length} pictures left` : ''}`,
    )
  } catch (error) {
    fail(file, error instanceof Error ? (error.stack ?? error.message) : String(error))
  }
}
writeFileSync(
  join(out, 'pages.md'),
  `| file | its own page count | composed | absent faces | not composed |\n|---|---|---|---|---|\n${rows.join('\n')}\n`,
)
console.log(`${failures} failures`)
process.exitCode = failures > 0 ? 1 : 0
