import { PDFDocument } from '@cantoo/pdf-lib'
import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { PNG } from 'pngjs'
import { afterAll, describe, expect, it } from 'vitest'
import { compareDocuments } from '../../../core/compare/compare'
import { comparisonPdf } from '../../../core/format/pdf/comparison-report'
import { proofPdf } from '../../../core/format/pdf/proof-report'
import { proofOf } from '../../../core/proof/proof'
import { displayPage } from '../../../core/typeset/display'
import { startSubsetter } from '../../../server/library/harfbuzz'
import { shippedLibrary } from '../../../server/library/shipped'
import { makeOdt, session, typesetter } from '../../support/fixtures'

const folder = mkdtempSync(join(tmpdir(), 'morphene-reports-'))
afterAll(() => rmSync(folder, { recursive: true }))
const works = {
  typesetter,
  load: shippedLibrary().load,
  subsetter: startSubsetter(),
  made: Date.UTC(2026, 2, 1, 9, 30),
}

/** What a reader reads in a PDF, its pages, and whether it is sound. */
async function read(bytes: Uint8Array) {
  const path = join(folder, 'report.pdf')
  writeFileSync(path, bytes)
  expect(spawnSync('qpdf', ['--check', path]).status).toBe(0)
  const text = spawnSync('pdftotext', ['-layout', path, '-'], { encoding: 'utf8' }).stdout
  const pages = (await PDFDocument.load(bytes)).getPages()
  return {
    text,
    plain: text.replace(/\s+/g, ' '),
    sheets: pages.filter(page => page.getWidth() > page.getHeight()),
    path,
  }
}
/** The colour of points of the second page, which is a sheet: as it is drawn by another program. */
function sheetPixels(path: string) {
  expect(spawnSync('pdftoppm', ['-png', '-r', '72', '-f', '2', '-l', '2', path, join(folder, 'sheet')]).status).toBe(0)
  const image = PNG.sync.read(readFileSync(join(folder, 'sheet-2.png')))
  return (x: number, y: number) => {
    const at = (Math.round(y) * image.width + Math.round(x)) * 4
    return [...image.data.subarray(at, at + 3)] as [number, number, number]
  }
}
const text = (...paragraphs: string[]) =>
  session(
    makeOdt({
      body: paragraphs.map(each => `<text:p>${each}</text:p>`).join(''),
      faces: '<style:font-face style:name="Spectral" svg:font-family="Spectral"/>',
      styles:
        '<style:default-style style:family="paragraph"><style:text-properties fo:font-family="Spectral" fo:font-size="12pt" ' +
        'fo:language="en" fo:country="GB"/></style:default-style>',
    }),
  )

describe('a proof as PDF', () => {
  const open = text('"Wait" for the boat', 'It  comes', 'at nine')
  const own = proofOf(open)
  const of = { fileName: 'Boats.odt', version: 3, by: 'the checklist of the desk' }

  it('tells every finding with its number, and shows the pages with the numbers where they are', async () => {
    const bytes = await proofPdf(own, of, open, works)
    const { text: said, plain, sheets, path } = await read(bytes)
    expect(plain).toContain('Proof of Boats.odt Version 3, 2026-03-01, 09:30 UTC, by the checklist of the desk:')
    for (const finding of own.findings) expect(plain).toContain(finding.title.split(' ')[0]!)
    const numbers = [...said.matchAll(/^ *(\d+) +\d* +\S/gm)].map(match => Number(match[1]))
    expect(numbers).toEqual(own.findings.map((_, at) => at + 1))
    expect(sheets).toHaveLength(1)
    // A disc stands before the line of the first finding: where nothing of the page is drawn.
    const pixel = sheetPixels(path)
    const page = displayPage(open.composition.pages[0]!)
    const run = page.runs[0]!
    const scale = Math.min((595.28 - 72) / page.height, (841.89 - 72 - 24) / 2 / page.width)
    const [red, green, blue] = pixel(36 + run.x * scale - 11, 36 + (run.y - (run.ascent - run.descent) / 2) * scale)
    expect([red > 130, blue < 60, red > green]).toEqual([true, true, true])
    expect(pixel(60, 500)).toEqual([255, 255, 255])
  })

  it('tells what was accepted and why, and shows no page where nothing is found on one', async () => {
    const accepted = own.findings.map(each => ({ ...each, accepted: 'It is meant so' }))
    const { plain, sheets } = await read(await proofPdf({ findings: accepted, more: [] }, of, open, works))
    expect(plain).toContain(`nothing found; ${accepted.length} accepted.`)
    expect(plain).toContain('It is meant so')
    expect(sheets).toHaveLength(0)
  })

  it('says how many more there are of a check that found very many', async () => {
    const more = [{ check: own.findings[0]!.check, count: 1200 }]
    const { plain } = await read(await proofPdf({ ...own, more }, of, open, works))
    expect(plain).toContain(`${own.findings[0]!.title}: 1200 more.`)
  })
})

describe('a comparison as PDF', () => {
  it('tells what differs, and shows the pages of both side by side', async () => {
    const [before, after] = [text('Two boats a day', 'at nine'), text('Three boats a day', 'at nine')]
    const bytes = await comparisonPdf(compareDocuments(before, after), ['version 1', 'version 2'], before, after, works)
    const { plain, sheets, path } = await read(bytes)
    expect(plain).toContain('Compared 2026-03-01, 09:30 UTC: one place differs; 1 page before, 1 after.')
    expect(plain).toContain('Two')
    expect(plain).toContain('Three')
    expect(plain).toContain('Pages that look different: 1. It follows')
    expect(sheets).toHaveLength(1)
    // The pages are seen, on the left and on the right: their ground is white.
    const pixel = sheetPixels(path)
    expect([pixel(60, 500), pixel(500, 500)]).toEqual([
      [255, 255, 255],
      [255, 255, 255],
    ])
  })

  it('says that nothing differs', async () => {
    const [before, after] = [text('Two boats'), text('Two boats')]
    const bytes = await comparisonPdf(compareDocuments(before, after), ['one', 'other'], before, after, works)
    const { plain, sheets } = await read(bytes)
    expect(plain).toContain('no place differs')
    expect(plain).toContain('No page looks different.')
    expect(sheets).toHaveLength(0)
  })
})
