/*
 * Runs real OpenDocument files through the desk: copied unchanged, counted against a counter on another parser,
 * settled, and swapped family by family.   npm run corpus [FOLDER]   Without a folder, files are fetched from Debian packages first.
 */
import { execFileSync, spawnSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { extname, join } from 'node:path'
import { applyAll } from '../core/document/apply'
import { applyEdit } from '../core/document/edits'
import { saveDocument } from '../core/document/open'
import { openParagraph } from '../core/document/paragraph-spots'
import { EditRefusal, whyNotEdit } from '../core/document/refusals'
import { DocumentSession } from '../core/session'
import { registry } from '../core/change/registry'
import { compareCompositions, type Effects } from '../core/change/effects'
import { paragraphExtents } from '../core/typeset/compose'
import { NothingToPlan } from '../core/change/plan'
import { checkDrawUp } from './corpus-draw-up'
import { checkStyles } from './corpus-styles'
import { flatten, foundAgain } from './flatten'
import { Shaper } from '../core/typeset/shaper'
import { Typesetter } from '../core/typeset/look'
import { projectFolder } from '../server/library/files'
import { startHarfBuzz } from '../server/library/harfbuzz'
import { shippedLibrary } from '../server/library/shipped'
import { countCharacters, familiesIn, otherDifferences, parts, xmlParts } from '../tests/support/independent'

let folder = process.argv[2]
if (folder === undefined) {
  folder = join(projectFolder(), '.morphene', 'corpus')
  mkdirSync(folder, { recursive: true })
  if (readdirSync(folder).length === 0)
    execFileSync('bash', [join(projectFolder(), 'scripts', 'fetch-corpus.sh'), folder], { stdio: 'inherit' })
}

const equal = (a: Uint8Array, b: Uint8Array) => Buffer.compare(a, b) === 0
const { library, load } = shippedLibrary()
const typesetter = new Typesetter(library, new Shaper(startHarfBuzz(), load))
const standIns = new Typesetter(
  library.withStandIns([{ family: '', script: 'any', to: 'Literata' }]),
  typesetter.shaper,
)
const work = mkdtempSync(join(tmpdir(), 'morphene-corpus-'))
const reader = join(projectFolder(), 'scripts', 'independent_reader.py')
const python = '/usr/bin/python3'
const hasReader = spawnSync(python, ['-c', 'import odf.opendocument']).status === 0
if (!hasReader)
  console.log(
    'python3-odf is not installed: files are not opened by an independent reader (apt-get install python3-odf)',
  )

let failures = 0
let files = 0
let swaps = 0
let edits = 0
let effects = 0
const fail = (file: string, what: string) => {
  failures++
  console.log(`FAILED  ${file}: ${what}`)
}

function readerText(path: string): string | null {
  const read = spawnSync(python, [reader, path], { encoding: 'utf8', maxBuffer: 1 << 28 })
  return read.status === 0 ? read.stdout : null
}

/** A plan of one wish. */
const planned = (session: DocumentSession, wish: object, effects = true) =>
  registry.plan(session, registry.schema.parse({ wishes: [wish] }), { effects })

function checkSwap(
  file: string,
  bytes: Uint8Array,
  session: DocumentSession,
  family: string,
  original: string | null,
  reads: boolean,
): void {
  const to = family.toLowerCase() === 'literata' ? 'Spectral' : 'Literata'
  // Without composition: what a swap does to pages is another test's matter.
  const wish = { type: 'swap', from: { family }, to: { family: to }, symbols: true }
  const written = saveDocument(planned(session, wish, false).after.document)
  const old = parts(bytes)
  const now = parts(written)
  for (const path of xmlParts(now))
    if (familiesIn(now[path]!).has(family.toLowerCase()))
      fail(file, `${family} is still named in ${path} after its swap`)
  for (const path of Object.keys(old)) {
    if (!now[path]) {
      if (!/^(ObjectReplacements\/|Thumbnails\/|layout-cache|Fonts\/)/.test(path))
        fail(file, `${path} is gone after the swap of ${family}`)
    } else if (path === 'META-INF/manifest.xml') continue
    else if (xmlParts(old).includes(path))
      for (const difference of otherDifferences(old[path]!, now[path]!).slice(0, 3))
        fail(file, `swap of ${family}, ${path}: ${difference}`)
    else if (!equal(old[path]!, now[path]!)) fail(file, `${path} changed in the swap of ${family}`)
  }
  swaps++
  if (original !== null && reads) {
    const path = join(work, `swapped${extname(file)}`)
    writeFileSync(path, written)
    if (readerText(path) !== original) fail(file, `the independent reader reads other text after the swap of ${family}`)
  }
}

/**
 * What a plan says is what the pages show after it: the file that comes of it is read and set anew, and compared to
 * the line.
 */
async function checkEffects(
  file: string,
  session: DocumentSession,
  what: string,
  planned: { readonly plan: { readonly effects: Effects | null }; readonly after: DocumentSession },
): Promise<void> {
  const said = planned.plan.effects!
  const again = await DocumentSession.start(saveDocument(planned.after.document), typesetter)
  const shown = compareCompositions(session.composition, planned.after.composition)
  const lines = [...paragraphExtents(again.composition).values()].map(extent => extent.lines)
  const total = lines.reduce((sum, each) => sum + each, 0)
  if (again.composition.pages.length !== said.pagesAfter || total !== said.linesAfter)
    fail(
      file,
      `${what}: the plan says ${said.pagesAfter} pages and ${said.linesAfter} lines, ` +
        `the pages show ${again.composition.pages.length} and ${total}`,
    )
  if (
    JSON.stringify(again.composition.overset.map(frame => [frame.page, frame.name, frame.lines])) !==
    JSON.stringify(said.overset.map(frame => [frame.page, frame.name, frame.lines]))
  )
    fail(file, `${what}: other frames run over than the plan says`)
  if (shown.paragraphsChanged !== said.paragraphsChanged)
    fail(file, `${what}: other paragraphs change than the plan says`)
  effects++
}

/** Draws a text up as it is, and as somebody would have it who sets everything by hand. */
async function checkDrawn(
  file: string,
  bytes: Uint8Array,
  session: DocumentSession,
  original: string | null,
): Promise<void> {
  try {
    const drawn = await checkDrawUp(bytes, session)
    for (const problem of drawn.problems) fail(file, problem)
    const path = join(work, `drawn${extname(file)}`)
    writeFileSync(path, drawn.written)
    if (original !== null && readerText(path) !== original)
      fail(file, 'the independent reader reads other text after drawing up')
    console.log(
      `${file}: drawn up, ${(drawn.before * 100).toFixed(1)} % settled before, ${(drawn.after * 100).toFixed(2)} % after, ` +
        `${drawn.styles} paragraph styles of ${drawn.voices} voices, ${drawn.wordStyles} character styles of ${drawn.wordVoices} looks`,
    )
  } catch (error) {
    if (!(error instanceof NothingToPlan)) throw error
    console.log(`${file}: nothing to draw up`)
  }
  const { session: flat, was } = flatten(session)
  try {
    const found = foundAgain(was, planned(flat, { type: 'draw-up', headings: 'all' }, false).after)
    console.log(
      `${file}: flattened and drawn up again, ${(found.grouped * 100).toFixed(1)} % of paragraphs group as they did, ` +
        `${(found.headings * 100).toFixed(1)} % of headings are at their level`,
    )
  } catch (error) {
    if (!(error instanceof NothingToPlan)) throw error
  }
}

/** Types a word into a paragraph in the middle: one stretch of one part differs, and undoing it gives the file back. */
function checkEdit(file: string, bytes: Uint8Array, session: DocumentSession): void {
  const { document } = session
  const path = document.subdocuments[0]!.content!
  const part = document.parts.get(path)!
  const candidates = [...part.descendants()].filter(
    each =>
      (each.name === 'text:p' || each.name === 'text:h') &&
      part.textOf(each.id).trim().length > 3 &&
      whyNotEdit(document, part, each.id) === null,
  )
  const paragraph = candidates[Math.floor(candidates.length / 2)]
  if (!paragraph) return
  const { text } = openParagraph(part, paragraph.id)
  const at = Math.floor(text.length / 2)
  let edited
  try {
    edited = applyEdit(
      document,
      { type: 'text', part: path, node: paragraph.id, from: at, to: at, text: 'herring & cod' },
      part.nextId,
    )
  } catch (error) {
    if (!(error instanceof EditRefusal)) throw error
    return
  }
  edits++
  if (
    openParagraph(edited.document.parts.get(path)!, paragraph.id).text !==
    `${text.slice(0, at)}herring & cod${text.slice(at)}`
  )
    fail(file, 'an edit is not what is shown')
  const [old, now] = [parts(bytes), parts(saveDocument(edited.document))]
  for (const each of Object.keys(old))
    if (each !== path && !equal(old[each]!, now[each] ?? new Uint8Array()))
      fail(file, `${each} changed with an edit of ${path}`)
  const [a, b] = [new TextDecoder().decode(old[path]), new TextDecoder().decode(now[path])]
  let start = 0
  while (start < a.length && a[start] === b[start]) start++
  let end = 0
  while (end < a.length - start && a[a.length - 1 - end] === b[b.length - 1 - end]) end++
  if (b.length - a.length !== 'herring &amp; cod'.length || a.length - start - end > 0)
    fail(file, `an edit changed ${a.length - start - end} characters around it`)
  if (!equal(saveDocument(applyAll(edited.document, edited.inverse).document), bytes))
    fail(file, 'undoing an edit does not give the file back')
}

for (const file of readdirSync(folder)
  .filter(each => /\.od[tpg]$/.test(each))
  .sort()) {
  files++
  try {
    const bytes = new Uint8Array(readFileSync(join(folder, file)))
    const session = await DocumentSession.start(bytes, typesetter)
    const copied = saveDocument(session.document)
    const old = parts(bytes)
    const now = parts(copied)
    if (Object.keys(old).join('\n') !== Object.keys(now).join('\n'))
      fail(file, 'the copy has other parts or another order')
    for (const path of Object.keys(old)) if (!equal(old[path]!, now[path]!)) fail(file, `${path} differs in the copy`)
    checkEdit(file, bytes, session)
    const styled = checkStyles(bytes, session)
    for (const problem of styled.problems) fail(file, problem)
    const { census } = session.detail
    const counted = countCharacters(bytes)
    if (counted !== census.characters)
      fail(file, `the census counts ${census.characters} characters, the other counter ${counted}`)
    const original = hasReader ? readerText(join(folder, file)) : null
    if (original !== null) {
      const path = join(work, `settled${extname(file)}`)
      writeFileSync(path, styled.written)
      if (readerText(path) !== original)
        fail(file, 'the independent reader reads other text after settling and folding')
    }
    if (session.document.kind === 'text') await checkDrawn(file, bytes, session, original)
    const families = new Set([...census.faces.map(face => face.family), ...census.unused.map(each => each.family)])
    families.delete('no font named')
    // The independent reader is slow: it opens the first two files written from each original.
    ;[...families].forEach((family, index) => checkSwap(file, bytes, session, family, original, index < 2))
    const [most] = census.faces.filter(face => face.status !== 'unnamed' && !face.symbols)
    if (most) {
      const to = most.family.toLowerCase() === 'literata' ? 'Spectral' : 'Literata'
      const wish = { type: 'swap', from: { family: most.family }, to: { family: to } }
      await checkEffects(file, session, `swap of ${most.family}`, planned(session, wish))
      await checkEffects(
        file,
        session,
        `swap of ${most.family} at equal x-height`,
        planned(session, { ...wish, size: { mode: 'x-height' }, leading: 'follow' }),
      )
      const recast = planned(session, {
        type: 'recast',
        find: { look: { family: most.family } },
        change: { size: { percent: 104 }, tracking: 5 },
      })
      await checkEffects(file, session, `recast of ${most.family}`, recast)
      if (original !== null) {
        const path = join(work, `recast${extname(file)}`)
        writeFileSync(path, saveDocument(recast.after.document))
        if (readerText(path) !== original)
          fail(file, 'the independent reader reads other text after a recast of the look')
      }
    }
    // Whoever stands in for what is absent: not a byte of the file changes.
    const shownOtherwise = await DocumentSession.start(bytes, standIns)
    void shownOtherwise.composition
    if (!equal(saveDocument(shownOtherwise.document), bytes)) fail(file, 'opening and saving with stand-ins changed it')
    console.log(
      `ok      ${file}: ${census.characters} characters, ${census.document.pages} pages, ${families.size} ` +
        `families; settled ${(styled.before * 100).toFixed(1)} % to ${(styled.after * 100).toFixed(1)} ` +
        `%, ${styled.automaticBefore} automatic styles to ${styled.automaticAfter}, ${styled.folded} ` +
        `folded${original === null ? ', not read by the independent reader' : ''}`,
    )
  } catch (error) {
    fail(file, error instanceof Error ? (error.stack ?? error.message) : String(error))
  }
}
rmSync(work, { recursive: true })
console.log(
  `${files} files, ${swaps} swaps, ${edits} edits, ${effects} plans held against their pages, ${failures} failures`,
)
process.exitCode = failures > 0 ? 1 : 0
