import { PDFDocument } from '@cantoo/pdf-lib'
import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { recordPdf } from '../../../core/format/pdf/record'
import { changedPages } from '../../../core/format/pdf/report-file'
import { settleAll } from '../../../core/change/styles/wishes'
import { sailingGuide } from '../../../demo/sailing-guide'
import { startSubsetter } from '../../../server/library/harfbuzz'
import { shippedLibrary } from '../../../server/library/shipped'
import { session, typesetter } from '../../support/fixtures'
import { planned } from '../../support/planning'

describe('the record of a change', () => {
  it('tells its rows, and shows the pages that look different before and after', async () => {
    const open = session(sailingGuide())
    const { plan, after } = planned(open, [settleAll])
    const { shown, all } = changedPages(open.composition, after.composition)
    expect(all).toBeGreaterThan(3)
    expect(all).toBeLessThan(24)
    expect(changedPages(open.composition, session(sailingGuide()).composition)).toEqual({ shown: [], all: 0 })
    const bytes = await recordPdf(plan, { fileName: 'Sailing guide.odt', version: 2 }, open, after, {
      typesetter,
      load: shippedLibrary().load,
      subsetter: startSubsetter(),
      made: Date.UTC(2026, 2, 1, 9, 30),
    })
    const folder = mkdtempSync(join(tmpdir(), 'record-'))
    const path = join(folder, 'record.pdf')
    writeFileSync(path, bytes)
    const text = spawnSync('pdftotext', ['-layout', path, '-'], { encoding: 'utf8' }).stdout
    const check = spawnSync('qpdf', ['--check', path], { encoding: 'utf8' })
    rmSync(folder, { recursive: true })
    expect(text).toContain('Settle local formatting in 17 places')
    expect(text).toContain('Sailing guide.odt, version 2, 2026-03-01, 09:30 UTC')
    expect(text).toContain('tracked -0.1 pt')
    expect(text.replace(/\s+/g, ' ')).toContain(shown.map(index => index + 1).join(', '))
    expect(check.status).toBe(0)
    const pages = (await PDFDocument.load(bytes)).getPages()
    expect(pages.filter(page => page.getWidth() > page.getHeight()).length).toBe(shown.length)
  }, 60_000)
})
