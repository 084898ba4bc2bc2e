import {
  EncryptedPDFError,
  PDFArray,
  PDFDict,
  PDFDocument,
  PDFHexString,
  PDFName,
  PDFNumber,
  PDFString,
  type PDFPage,
} from '@cantoo/pdf-lib'
import { defaultLimits } from '../../package/limits'
import { isPdf } from './sections'

/** A finished PDF cannot be opened or changed as asked. The message says what happened and what was kept. */
export class FinishedPdfError extends Error {}

/** A PDF that somebody else finished. */
export interface FinishedPdf {
  readonly pdf: PDFDocument
  readonly bytes: Uint8Array
  readonly pages: readonly PDFPage[]
  readonly title: string
  /** BCP 47, as the file says of itself; '' where it does not. */
  readonly language: string
  /** It is signed: whatever is added to it is seen as added after the signature. */
  readonly signed: boolean
  /** It has a structure for reading aloud: what is added stands outside of it. */
  readonly tagged: boolean
}

/** More pages are not read. */
const pageLimit = 5_000

/**
 * Opens a finished PDF so that changes can be put behind its bytes (ISO 32000-2, 7.5.6).
 * @throws FinishedPdfError where it is none, is damaged, locked or too large
 */
export async function openPdf(bytes: Uint8Array): Promise<FinishedPdf> {
  if (bytes.length > defaultLimits.fileSize)
    throw new FinishedPdfError(
      `This PDF is larger than ${Math.round(defaultLimits.fileSize / 1048576)} MB, the most that is opened. Nothing was kept.`,
    )
  if (!isPdf(bytes)) throw new FinishedPdfError('This is no PDF: it does not begin as one. Nothing was kept.')
  try {
    const pdf = await PDFDocument.load(bytes, {
      forIncrementalUpdate: true,
      updateMetadata: false,
      throwOnInvalidObject: false,
    })
    const pages = pdf.getPages()
    if (pages.length > pageLimit)
      throw new FinishedPdfError(`This PDF has ${pages.length} pages; ${pageLimit} are read. Nothing was kept.`)
    const marked = pdf.catalog.lookupMaybe(PDFName.of('MarkInfo'), PDFDict)?.get(PDFName.of('Marked'))
    return {
      pdf,
      bytes,
      pages,
      title: pdf.getTitle()?.trim() ?? '',
      language: languageOf(pdf),
      signed: isSigned(pdf),
      tagged: String(marked) === 'true',
    }
  } catch (error) {
    if (error instanceof FinishedPdfError) throw error
    if (error instanceof EncryptedPDFError)
      throw new FinishedPdfError(
        'This PDF is locked: its text cannot be read and nothing can be added to it. Ask for a copy without a password. Nothing was kept.',
      )
    const why = error instanceof Error ? error.message.split('\n')[0]!.slice(0, 120) : ''
    throw new FinishedPdfError(`This PDF is damaged and cannot be read${why ? ` (${why})` : ''}. Nothing was kept.`)
  }
}

/** The language of the whole (14.9.2.1). */
function languageOf(pdf: PDFDocument): string {
  const said = pdf.catalog.lookup(PDFName.of('Lang'))
  return said instanceof PDFString || said instanceof PDFHexString ? said.decodeText().trim().slice(0, 35) : ''
}

/** SigFlags says so (ISO 32000-2, 12.7.3), or a field of the kind has a value. */
function isSigned(pdf: PDFDocument): boolean {
  const form = pdf.catalog.lookupMaybe(PDFName.of('AcroForm'), PDFDict)
  if (!form) return false
  const flags = form.lookupMaybe(PDFName.of('SigFlags'), PDFNumber)?.asNumber() ?? 0
  if ((flags & 1) === 0) return false
  const fields = form.lookupMaybe(PDFName.of('Fields'), PDFArray)
  for (let index = 0; fields && index < Math.min(fields.size(), 1000); index++) {
    const field = fields.lookupMaybe(index, PDFDict)
    if (field && String(field.get(PDFName.of('FT'))) === '/Sig' && field.has(PDFName.of('V'))) return true
  }
  return false
}
