/*
 * npm run corpus:finished FOLDER: finished PDFs, each opened and counted, a text added and a line put right, and the result held
 * against programs that nobody here wrote: pdffonts for the fonts, qpdf for its soundness, pdftotext for the words, pdftoppm for
 * what the rest of the page looks like.
 */
import { spawnSync } from 'node:child_process'
import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { PNG } from 'pngjs'
import { addText } from '../core/format/finished/add-text'
import { finishedCensus } from '../core/format/finished/census'
import { openPdf } from '../core/format/finished/open'
import { correctionOf, putRight } from '../core/format/finished/put-right'
import { Shaper } from '../core/typeset/shaper'
import { Typesetter } from '../core/typeset/look'
import { projectFolder } from '../server/library/files'
import { startHarfBuzz, startSubsetter } from '../server/library/harfbuzz'
import { shippedLibrary } from '../server/library/shipped'

const folder = process.argv[2] ?? join(projectFolder(), '.morphene', 'finished')
const out = join(projectFolder(), '.morphene', 'corpus-finished')
mkdirSync(out, { recursive: true })
const { library, load } = shippedLibrary()
const tools = {
  typesetter: new Typesetter(library, new Shaper(startHarfBuzz(), load)),
  load,
  subsetter: startSubsetter(),
}
const run = (program: string, ...args: string[]) => spawnSync(program, args, { encoding: 'utf8', maxBuffer: 1 << 28 })
let failures = 0
const fail = (file: string, what: string) => {
  failures++
  console.log(`FAILED  ${file}: ${what}`)
}
const plain = (text: string) => text.normalize('NFKC').replace(/\s+/g, '')

function raster(path: string, page: number): PNG {
  run('pdftoppm', '-r', '60', '-png', '-f', String(page), '-l', String(page), '-singlefile', path, `${path}-picture`)
  return PNG.sync.read(readFileSync(`${path}-picture.png`))
}

/** Rows of pixels of two pictures that differ, as shares of the height from the top. */
function rowsApart(one: PNG, other: PNG): number[] {
  const rows: number[] = []
  const height = Math.min(one.data.length, other.data.length) / (one.width * 4)
  for (let y = 0; y < height; y++) {
    const from = y * one.width * 4
    if (!one.data.subarray(from, from + one.width * 4).equals(other.data.subarray(from, from + one.width * 4)))
      rows.push(y / height)
  }
  return rows
}

let own = 0
let standIns = 0
let refused = 0
const words = 'Seen at the quay office'
for (const file of readdirSync(folder)
  .filter(each => /\.pdf$/i.test(each))
  .sort()) {
  const path = join(folder, file)
  const bytes = new Uint8Array(readFileSync(path))
  try {
    const finished = await openPdf(bytes)
    const census = finishedCensus(finished)
    const theirs = run('pdffonts', path).stdout.trim().split('\n').slice(2).length
    if (census.fonts.length !== theirs) fail(file, `${census.fonts.length} fonts here, ${theirs} by pdffonts`)

    const text = {
      text: words,
      family: 'Spectral',
      size: 11,
      leading: null,
      weight: 400,
      italic: false,
      color: '#1f6f6b',
      width: null,
      height: null,
      language: 'en-GB',
    }
    const added = await addText(finished, { ...text, page: 1, x: 40, y: 20 }, tools)
    const addedPath = join(out, `${file}-added.pdf`)
    writeFileSync(addedPath, added.bytes)
    if (Buffer.compare(added.bytes.subarray(0, bytes.length), bytes) !== 0)
      fail(file, 'what was there is not as it was')
    const before = run('qpdf', '--check', path).status
    if ((run('qpdf', '--check', addedPath).status ?? 9) > (before ?? 0))
      fail(file, `qpdf after adding: ${run('qpdf', '--check', addedPath).stdout.slice(-200)}`)
    if (!plain(run('pdftotext', '-raw', '-l', '1', addedPath, '-').stdout).includes(plain(words)))
      fail(file, 'the added words are not found')
    if (!/Spectral/.test(run('pdffonts', '-l', '1', addedPath).stdout))
      fail(file, 'the added words are not in their face')
    const low = rowsApart(raster(path, 1), raster(addedPath, 1)).filter(row => row > 0.12)
    if (low.length > 0) fail(file, `the page looks different at ${Math.round(low[0]! * 100)} % of its height`)

    // The first word of seven letters and more on a page is put right: two of its letters change their places.
    let done = ''
    for (let page = 1; page <= Math.min(finished.pages.length, 5) && done === ''; page++) {
      const again = await openPdf(bytes)
      const read = run('pdftotext', '-f', String(page), '-l', String(page), path, '-').stdout
      const found = /(?<!\p{L})\p{L}\p{Ll}{6,}(?!\p{L})/u.exec(read)?.[0]
      if (!found) continue
      const right = found.slice(0, 2) + found[3]! + found[2]! + found.slice(4)
      try {
        const made = await putRight(again, correctionOf(again, page, found, right), tools)
        const rightPath = join(out, `${file}-right.pdf`)
        writeFileSync(rightPath, made.bytes)
        if (Buffer.compare(made.bytes.subarray(0, bytes.length), bytes) !== 0)
          fail(file, 'what was there is not as it was')
        if ((run('qpdf', '--check', rightPath).status ?? 9) > (before ?? 0)) fail(file, 'qpdf after putting right')
        if (
          !plain(run('pdftotext', '-f', String(page), '-l', String(page), rightPath, '-').stdout).includes(plain(right))
        )
          fail(file, `“${right}” is not found`)
        if (made.plan.standIn === null) own++
        done = `“${found}” is “${right}” ${made.plan.standIn === null ? 'in its own font' : `in ${made.plan.standIn}`}`
        // Letters that hardly any font of a finished file has: the whole line is set in what stands for its font.
        const third = await openPdf(bytes)
        const foreign = await putRight(third, correctionOf(third, page, found, `${right}ẑ`), tools)
        if (foreign.plan.standIn !== null) standIns++
        writeFileSync(rightPath, foreign.bytes)
        if (
          !plain(run('pdftotext', '-raw', '-f', String(page), '-l', String(page), rightPath, '-').stdout).includes(
            plain(`${right}ẑ`),
          )
        )
          fail(file, `“${right}ẑ” is not found`)
        done += `, with a letter more in ${foreign.plan.standIn ?? 'its own font'}`
      } catch (error) {
        refused++
        done = `refused: ${(error as Error).message.slice(0, 100)}`
      }
    }
    if (done === '') {
      refused++
      done = 'no word whose font tells its letters'
    }
    console.log(
      `ok      ${file}: ${census.document.pages} pages, ${census.fonts.length} fonts, ${census.characters} characters; ${done}`,
    )
  } catch (error) {
    fail(file, (error as Error).message)
  }
}
console.log(`${own} put right in their own font, ${standIns} in a stand-in, ${refused} not; ${failures} failures`)
process.exitCode = failures > 0 ? 1 : 0
