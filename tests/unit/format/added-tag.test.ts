import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { PDFArray, PDFDict, PDFDocument, PDFName } from '@cantoo/pdf-lib'
import { afterAll, describe, expect, it } from 'vitest'
import { addText, type TextAt } from '../../../core/format/finished/add-text'
import { hasStructure, tagAdded } from '../../../core/format/finished/added-tag'
import { openPdf } from '../../../core/format/finished/open'
import { harbourNotice } from '../../../demo/harbour-notice'
import { startSubsetter } from '../../../server/library/harfbuzz'
import { shippedLibrary } from '../../../server/library/shipped'
import { typesetter } from '../../support/fixtures'
import { madePdf } from '../../support/made-pdf'
import { outlineOf, tagsOf } from '../../support/tagged-pdf'

const folder = mkdtempSync(join(tmpdir(), 'morphene-tags-'))
afterAll(() => rmSync(folder, { recursive: true }))
const tools = { typesetter, load: shippedLibrary().load, subsetter: startSubsetter() }
const at = (page: number, text: string): TextAt => ({
  ...{ page, x: 40, y: 20, text, family: 'Spectral', size: 11, leading: null, weight: 400, italic: false },
  ...{ color: '#1f6f6b', width: null, height: null, language: 'en-GB' },
})
/** The structure of a file, as pdfinfo reads it; it is sound to qpdf. */
function outline(bytes: Uint8Array): string[] {
  const path = join(folder, 'read.pdf')
  writeFileSync(path, bytes)
  expect(spawnSync('qpdf', ['--check', path]).status).toBe(0)
  return outlineOf(tagsOf(path))
}
const added = async (bytes: Uint8Array, ...texts: TextAt[]) => {
  let now = bytes
  for (const text of texts) now = (await addText(await openPdf(now), text, tools)).bytes
  return now
}

describe('text that is added to a tagged PDF', () => {
  it('is read at the end of its structure, paragraph by paragraph, and nothing else is read otherwise', async () => {
    const { bytes } = await madePdf(harbourNotice(), { leaveOut: true })
    const before = outline(bytes)
    const after = await added(bytes, at(1, 'Paid in full'), at(1, 'Seen by the harbour office'))
    expect(Buffer.compare(after.subarray(0, bytes.length), bytes)).toBe(0)
    const read = outline(after)
    expect(read.slice(0, before.length)).toEqual(before)
    expect(read.slice(before.length).map(line => line.replace(/\s/g, ''))).toEqual([
      expect.stringMatching(/paidinfull$/),
      expect.stringMatching(/seenbytheharbouroffice$/),
    ])
  })

  it('is read on a page that had no marks, too, whether the tree of numbers has branches or not', async () => {
    const { bytes } = await madePdf(harbourNotice(), { leaveOut: true })
    for (const branched of [false, true]) {
      const pdf = await PDFDocument.load(bytes)
      pdf.addPage([300, 200])
      const root = pdf.catalog.lookup(PDFName.of('StructTreeRoot'), PDFDict)
      const tree = root.lookup(PDFName.of('ParentTree'), PDFDict)
      if (branched) {
        const nums = tree.lookup(PDFName.of('Nums'), PDFArray)
        const leaf = { Limits: [0, nums.size() / 2 - 1], Nums: nums }
        root.set(PDFName.of('ParentTree'), pdf.context.obj({ Kids: [pdf.context.register(pdf.context.obj(leaf))] }))
      }
      const made = await pdf.save({ useObjectStreams: false })
      const after = await added(made, at(pdf.getPageCount(), 'On a new page'), at(pdf.getPageCount(), 'And once more'))
      const words = outline(after).map(line => line.replace(/\s/g, ''))
      expect(words.at(-2), String(branched)).toMatch(/onanewpage$/)
      expect(words.at(-1), String(branched)).toMatch(/andoncemore$/)
    }
  })

  it('stays outside where a file only says that it is tagged, or names marks that it has not', async () => {
    const pdf = await PDFDocument.create()
    pdf.addPage([300, 200])
    pdf.catalog.set(PDFName.of('MarkInfo'), pdf.context.obj({ Marked: true }))
    const bare = await openPdf(await pdf.save({ useObjectStreams: false }))
    expect([bare.tagged, hasStructure(bare)]).toEqual([true, false])
    const { said } = await addText(bare, at(1, 'Alone'), tools)
    expect(said.join()).toContain('has no structure: what was added stands outside of it')

    const { bytes } = await madePdf(harbourNotice(), { leaveOut: true })
    const finished = await openPdf(bytes)
    const [page] = finished.pages
    page!.node.set(PDFName.of('StructParents'), finished.pdf.context.obj(9_999))
    expect(tagAdded(finished, page!)).toBeNull()
  })
})
