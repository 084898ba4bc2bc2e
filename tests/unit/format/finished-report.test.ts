import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { degrees, PDFDocument, StandardFonts } from '@cantoo/pdf-lib'
import { afterAll, describe, expect, it } from 'vitest'
import { openPdf } from '../../../core/format/finished/open'
import { finishedProofPdf } from '../../../core/format/finished/proof-report'
import { proofOfFinished } from '../../../core/format/finished/proof'
import { FinishedReader } from '../../../core/format/finished/reader'
import { startSubsetter } from '../../../server/library/harfbuzz'
import { shippedLibrary } from '../../../server/library/shipped'
import { typesetter } from '../../support/fixtures'

const folder = mkdtempSync(join(tmpdir(), 'morphene-finished-report-'))
afterAll(() => {
  rmSync(folder, { recursive: true })
})
const { library, load } = shippedLibrary()
const works = { typesetter, load, subsetter: startSubsetter(), made: Date.UTC(2026, 10, 30) }

/** A PDF of pages with small words, each turned by so many degrees. */
async function pdfOf(...turns: readonly number[]): Promise<Uint8Array> {
  const pdf = await PDFDocument.create()
  const font = await pdf.embedFont(StandardFonts.Helvetica)
  for (const turn of turns) {
    const page = pdf.addPage([400, 300])
    page.setRotation(degrees(turn))
    page.drawText(`Dues turned by ${turn}`, { x: 40, y: 200, size: 5, font })
    page.drawText('The berth is let until spring, and the dues are paid in advance', { x: 40, y: 150, size: 12, font })
  }
  return pdf.save({ useObjectStreams: false })
}

async function reported(bytes: Uint8Array, name: string) {
  const reader = new FinishedReader(await openPdf(bytes))
  const findings = proofOfFinished({ reader, library, house: null })
  const of = { fileName: 'Berth contract.pdf', version: 2, by: 'the checklist of the desk' }
  const path = join(folder, name)
  writeFileSync(path, await finishedProofPdf(findings, of, { bytes, reader }, works))
  const run = (program: string, ...args: string[]) => spawnSync(program, args, { encoding: 'utf8', maxBuffer: 1 << 26 })
  return { findings, check: run('qpdf', '--check', path).status, text: run('pdftotext', '-layout', path, '-').stdout }
}

describe('a proof of a finished PDF as a PDF', () => {
  it('tells every finding with its number and words, and shows the pages', async () => {
    const { findings, check, text } = await reported(await pdfOf(0), 'plain.pdf')
    expect(check).toBe(0)
    expect(findings.length).toBeGreaterThan(2)
    expect(text).toContain('Proof of Berth contract.pdf')
    expect(text).toMatch(/Version 2, 2026-11-30, 00:00 UTC, by the checklist of the desk: \d+ error/)
    for (const words of ['Errors', 'Warnings', 'Font that is not', 'The pages with findings follow'])
      expect(text).toContain(words)
    // What the page says is there twice: in the table, and on the page itself.
    expect(text.match(/Dues turned by 0/g)!.length).toBeGreaterThanOrEqual(2)
  })

  it.each([90, 180, 270])('shows pages that are turned by %s as they are looked at', async turn => {
    const { check, text } = await reported(await pdfOf(turn), `turned-${turn}.pdf`)
    expect(check).toBe(0)
    // In the table, and upright on the page: text that lies on its side is no line to the reader.
    expect(text.match(new RegExp(`Dues turned by ${turn}`, 'g'))!.length).toBeGreaterThanOrEqual(2)
  })
})
