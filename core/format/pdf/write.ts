import { PDFDict, PDFDocument, PDFHexString, PDFName, PDFString } from '@cantoo/pdf-lib'
import type { Composition } from '../../typeset/compose'
import { displayPage, type DisplayPage } from '../../typeset/display'
import type { Typesetter } from '../../typeset/look'
import { identifierOf, mainLanguage } from '../identity'
import { Anchors } from '../structure/anchors'
import { readStructure } from '../structure/read'
import { writeBookmarks } from './bookmarks'
import { PrintColours, screenColours, type Colours, type PrintInk } from './colours'
import { writeLinks } from './links'
import { metadataPacket } from './metadata'
import { PageWriter } from './page-writer'
import { markGap, markLength } from './paths'
import { RunPainter } from './run-painter'
import type { Subsetter } from './subset'
import { Tagging } from './tags'

/** How a PDF is printed. */
export interface PrintOptions {
  /** The printing condition that it is made for. */
  readonly intent: {
    /** What it is called, for instance in a registry of them. */
    readonly condition: string
    /** What it is, in words. */
    readonly description: string
    /** An ICC profile of an output device. */
    readonly profile: Uint8Array
  }
  /** What colours mean that the document gives for a screen: an ICC profile of sRGB. */
  readonly screen: Uint8Array
  readonly inks: readonly PrintInk[]
}

export interface PdfOptions {
  /**
   * Room beyond the trimmed page on every side, in points; pictures and boxes that reach the edge go on into it as
   * far as they are drawn.
   */
  readonly bleed: number
  /** Crop marks at the corners, outside the bleed. */
  readonly cropMarks: boolean
  /** Go on without embedding faces whose licence bits forbid it; they are then only named. */
  readonly leaveOut: boolean
  /** The pages of speaker notes too, after the pages. */
  readonly notes: boolean
  /** When it is said to have been made: milliseconds since 1970. */
  readonly made: number
  /** What it is called where the document has no title of its own. */
  readonly name?: string
  /** Pages are put into it afterwards: it does not say what it is built to. */
  readonly goesOn?: boolean
  /** For print; without it, for reading on a screen. */
  readonly print?: PrintOptions
}

/** A PDF, and what it does not hold. */
export interface Pdf {
  readonly bytes: Uint8Array
  readonly pages: number
  /** Faces that are named and not embedded. */
  readonly notEmbedded: readonly string[]
  /** Pictures of kinds that are not written: grey boxes stand for them. */
  readonly pictures: readonly string[]
  /** How many things lie wholly beside their pages: they are not written. */
  readonly offPage: number
  /** Why it does not say that it is built to PDF/UA-1 or, for print, to PDF/X-4; empty where it does. */
  readonly lacks: readonly string[]
}

/** A PDF cannot be made as asked. Nothing was written. */
export class PdfError extends Error {}
/** A face may not be embedded, by its licence. */
export class MayNotEmbed extends PdfError {}

/**
 * Writes the pages as PDF 1.7 (ISO 32000): the engine's own glyph positions at true size, faces subset and embedded,
 * text with its Unicode, tagged with the document's structure in reading order, with language, bookmarks, links and title.
 * It says that it is built to PDF/UA-1 (ISO 14289-1), or for print to PDF/X-4 (ISO 15930-7), where it is; whether it is was
 * not judged by anybody but the tests here.
 * @throws MayNotEmbed when a face may not be embedded and `leaveOut` is not set, PdfError when a profile is none of an output
 * device
 */
export async function writePdf(
  composition: Composition,
  typesetter: Typesetter,
  load: (hash: string) => Uint8Array | undefined,
  subsetter: Subsetter,
  options: PdfOptions,
): Promise<Pdf> {
  const drawn = [...composition.pages, ...(options.notes ? composition.notes : [])]
  const pages = drawn.map(displayPage)
  const restricted = restrictedFaces(pages, typesetter)
  if (restricted.length > 0 && !options.leaveOut)
    throw new MayNotEmbed(
      `The licence of ${restricted.join(' and ')} does not allow embedding it in a PDF. ` +
        `Nothing was written. Swap it for another face, or say that it may be left out: ` +
        `it is then named in the file and shown in whatever face the reader has.`,
    )
  const pdf = await PDFDocument.create({ updateMetadata: false })
  const { document, cascade } = composition.reading
  const language = mainLanguage(composition.reading)
  const structure = readStructure(composition.reading, options.notes)
  const tagging = new Tagging(structure, composition, language)
  const colours = options.print ? printColours(pdf, options.print) : screenColours
  const around = options.bleed + (options.cropMarks ? markLength + markGap : 0)
  const sheet = { bleed: options.bleed, around, cropMarks: options.cropMarks }

  const painter = new RunPainter(pdf.context, typesetter, colours)
  const writer = new PageWriter(pdf, document.container, painter, sheet, colours, tagging)
  for (const page of pages) await writer.page(page)
  for (const font of painter.fonts.values()) font.write(load, subsetter)
  writeBookmarks(pdf, composition, writer.pages, around)
  // Nothing but what is printed may stand on a page for print (ISO 15930-7, 6.11).
  const anchors = new Anchors(structure, part => cascade.scope(part).part)
  const links = options.print ? [] : writeLinks(pdf.context, tagging, writer.pages, drawn, anchors, around)
  pdf.catalog.set(PDFName.of('StructTreeRoot'), tagging.write(pdf.context, writer.pages, links))
  pdf.catalog.set(PDFName.of('MarkInfo'), pdf.context.obj({ Marked: true }))
  const lacks = lacking(options, tagging, restricted, language, [...writer.pictures.left])
  describe(pdf, composition, options, language, lacks.length === 0 && !options.goesOn)
  return {
    bytes: await pdf.save({ useObjectStreams: true }),
    pages: pages.length,
    notEmbedded: restricted,
    pictures: [...writer.pictures.left],
    offPage: pages.reduce((sum, page) => sum + page.offPage, 0),
    lacks,
  }
}

function printColours(pdf: PDFDocument, { intent, screen, inks }: PrintOptions): Colours {
  const { context } = pdf
  const text = (from: number, to: number) => String.fromCharCode(...intent.profile.subarray(from, to))
  const channels = { CMYK: 4, 'RGB ': 3, GRAY: 1 }[text(16, 20)]
  if (intent.profile.length < 132 || text(36, 40) !== 'acsp' || text(12, 16) !== 'prtr' || channels === undefined)
    throw new PdfError(
      `The profile “${intent.condition}” is none of a printing condition: its class has to be an output device's, in ` +
        'CMYK, RGB or grey. Nothing was written.',
    )
  const profile = context.register(context.flateStream(intent.profile, { N: channels }))
  const output = context.obj({
    Type: 'OutputIntent',
    S: 'GTS_PDFX',
    OutputConditionIdentifier: PDFHexString.fromText(intent.condition),
    OutputCondition: PDFHexString.fromText(intent.description),
    Info: PDFHexString.fromText(intent.description),
    RegistryName: PDFString.of('http://www.color.org'),
    DestOutputProfile: profile,
  })
  pdf.catalog.set(PDFName.of('OutputIntents'), context.obj([output]))
  return new PrintColours(context, inks, context.register(context.flateStream(screen, { N: 3 })))
}

/** Why a PDF may not say what it is built to. */
function lacking(
  { print, name }: PdfOptions,
  tagging: Tagging,
  restricted: readonly string[],
  language: string,
  pictures: readonly string[],
): string[] {
  const few = restricted.length === 1 ? 'a face is' : `${restricted.length} faces are`
  const faces = restricted.length > 0 ? [`${few} named and not embedded`] : []
  if (print) return [...faces, ...(pictures.length > 0 ? ['pictures could not be written'] : [])]
  const { undescribed } = tagging
  return [
    ...faces,
    ...(undescribed > 0
      ? [undescribed === 1 ? 'a figure has no description' : `${undescribed} figures have no description`]
      : []),
    ...(tagging.skipsLevels ? ['headings skip a level'] : []),
    ...(language === '' ? ['its text has no language'] : []),
    ...(name === '' ? ['it has no title'] : []),
  ]
}

/** Title, language and what it is built to, in the catalogue, the information dictionary and as metadata. */
function describe(
  pdf: PDFDocument,
  composition: Composition,
  options: PdfOptions,
  language: string,
  complete: boolean,
): void {
  const { context, catalog } = pdf
  const title = composition.reading.document.title || options.name || 'Untitled'
  const made = new Date(options.made)
  pdf.setTitle(title, { showInWindowTitleBar: true })
  pdf.setProducer('Morphene')
  pdf.setCreator('Morphene')
  pdf.setCreationDate(made)
  pdf.setModificationDate(made)
  if (language) pdf.setLanguage(language)
  const { print } = options
  if (print) context.lookup(context.trailerInfo.Info, PDFDict).set(PDFName.of('Trapped'), PDFName.of('False'))
  const identifier = identifierOf(
    `${title}|${options.made}|${composition.pages.length}|${print?.intent.condition ?? ''}`,
  )
  const packet = new TextEncoder().encode(
    metadataPacket({
      title,
      language,
      made: options.made,
      accessible: complete && !print,
      print: complete && print !== undefined,
      identifier,
    }),
  )
  // Read by programs that know nothing of PDF: never packed (ISO 14289-1, 6.2; ISO 32000-2, 14.3.2).
  catalog.set(PDFName.of('Metadata'), context.register(context.stream(packet, { Type: 'Metadata', Subtype: 'XML' })))
  const id = PDFHexString.of(identifier.replaceAll('-', ''))
  context.trailerInfo.ID = context.obj([id, id])
}

function restrictedFaces(pages: readonly DisplayPage[], typesetter: Typesetter): string[] {
  const hashes = new Set(pages.flatMap(page => page.runs.map(run => run.face)))
  return [...hashes]
    .flatMap(hash => {
      const face = typesetter.library.byHash(hash)
      return face?.embedding === 'restricted' ? [face.fullName] : []
    })
    .sort()
}
