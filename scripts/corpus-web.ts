/*
 * npm run corpus:web [FOLDER]: every real document as a book and as a page for browsers, checked by programs that nobody here
 * wrote: epubcheck for the book, another XML parser for its words, Chromium for what looks come out as and for how lines
 * run while faces are late.
 */
import { spawnSync } from 'node:child_process'
import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { chromium } from '@playwright/test'
import { writeEpub } from '../core/format/epub/write'
import { writeSite } from '../core/format/web/site'
import { DocumentSession } from '../core/session'
import { Typesetter } from '../core/typeset/look'
import { Shaper } from '../core/typeset/shaper'
import { projectFolder } from '../server/library/files'
import { packFace } from '../server/library/font-file'
import { startHarfBuzz, startSubsetter } from '../server/library/harfbuzz'
import { shippedLibrary } from '../server/library/shipped'
import { outlineOfText } from '../tests/support/tagged-pdf'
import { computedLooks, expectedLooks, linesOnPage, paragraphsOfXhtml } from '../tests/support/web-text'
import config from '../playwright.config'

const folder = process.argv[2] ?? join(projectFolder(), '.morphene', 'corpus')
const out = join(projectFolder(), '.morphene', 'corpus-web')
const { library, load } = shippedLibrary()
const typesetter = new Typesetter(library, new Shaper(startHarfBuzz(), load))
const subsetter = startSubsetter()
let failures = 0
const fail = (file: string, what: string) => {
  failures++
  console.log(`FAILED  ${file}: ${what}`)
}
const browser = await chromium.launch(config.use?.launchOptions)

/** What stands in one list and not in the other, each as often as it does. */
function missing(all: readonly string[], from: readonly string[]): string[] {
  const left = new Map<string, number>()
  for (const each of from) left.set(each, (left.get(each) ?? 0) + 1)
  return all.filter(each => {
    const count = left.get(each) ?? 0
    left.set(each, count - 1)
    return count <= 0
  })
}

for (const file of readdirSync(folder)
  .filter(each => /\.od[tp]$/.test(each))
  .sort()) {
  const bytes = new Uint8Array(readFileSync(join(folder, file)))
  const session = await DocumentSession.start(bytes, typesetter)
  const options = { name: file, made: Date.UTC(2026, 0, 1) }
  const book = await writeEpub(session, { load, subsetter }, options)
  mkdirSync(out, { recursive: true })
  writeFileSync(join(out, `${file}.epub`), book.bytes)
  const check = spawnSync('java', ['-jar', '/usr/bin/epubcheck', join(out, `${file}.epub`)], { encoding: 'utf8' })
  if (check.status !== 0) fail(file, `epubcheck: ${check.stderr.split('\n').slice(0, 3).join(' ')}`)
  let paragraphs = 0
  if (file.endsWith('.odt')) {
    const own = outlineOfText(bytes).map(line => line.replace(/^((L|TH|TD|Note) )*(P|H\d) /, ''))
    const its = book.files
      .filter(({ path }) => path.startsWith('chapter'))
      .flatMap(each => paragraphsOfXhtml(new TextDecoder().decode(each.bytes)))
    paragraphs = its.length
    for (const [what, list] of [
      ['not in the book', missing(own, its)],
      ['only in the book', missing(its, own)],
    ] as const)
      if (list.length > 0) fail(file, `${list.length} paragraphs ${what}: “${list[0]!.slice(0, 80)}”`)
  }

  const site = await writeSite(session, { load, subsetter, pack: packFace }, options)
  const place = join(out, file)
  for (const each of site.files) {
    mkdirSync(dirname(join(place, each.path)), { recursive: true })
    writeFileSync(join(place, each.path), each.bytes)
  }
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  await page.goto(`file://${place}/index.html`)
  const wanted = expectedLooks(session, 10)
  const looks = await computedLooks(
    page,
    wanted.map(({ text }) => text),
  )
  wanted.forEach((look, at) => {
    const other = looks[at]
    const same = other && { ...other, size: Math.round(other.size * 100) }
    if (JSON.stringify(same) !== JSON.stringify({ ...look, size: Math.round(look.size * 100) }))
      fail(file, `“${look.text.slice(0, 30)}”: ${JSON.stringify(look)} here, ${JSON.stringify(other)} there`)
  })
  const lines = await linesOnPage(page)
  await page.close()
  const late = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  await late.route('**/fonts/*', route => route.abort())
  await late.goto(`file://${place}/index.html`)
  const without = await linesOnPage(late)
  await late.close()
  const apart = Math.abs(without / lines - 1)
  if (apart > 0.02) fail(file, `${lines} lines with its faces, ${without} without`)
  console.log(
    `ok      ${file}: ${book.files.length} files, ${paragraphs} paragraphs; ${wanted.length} looks; ${lines} lines, ` +
      `${without} without its faces (${book.faces.length} faces and ${book.pictures.length} pictures left)`,
  )
}
await browser.close()
console.log(`${failures} failures`)
process.exitCode = failures > 0 ? 1 : 0
