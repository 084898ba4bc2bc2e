import { PDFArray, PDFDict, PDFName, type PDFPage, type PDFRef } from '@cantoo/pdf-lib'
import { licenceOf } from '../../font/licence'
import type { Typesetter } from '../../typeset/look'
import { screenColours } from '../pdf/colours'
import { RunPainter } from '../pdf/run-painter'
import type { Subsetter } from '../pdf/subset'
import type { DisplayPage } from '../../typeset/display'
import { after, scaling, translation } from '../../typeset/matrix'
import { hasStructure, tagAdded } from './added-tag'
import { setText, type AddedText } from './drawn-text'
import { facesFor } from './faces-for'
import { resourcesOf } from './page-text'
import { lookOf, type PagePoint } from './page-view'
import { FinishedPdfError, type FinishedPdf } from './open'

/** Text, and where it goes: the page from 1, and the top left of its first line in points from the page's top left. */
export interface TextAt extends AddedText {
  readonly page: number
  readonly x: number
  readonly y: number
  /** How much room it has from there down; null where it may go on to the page's foot. */
  readonly height: number | null
}

/** How added text came out: lengths in points. */
export interface AddedLook {
  readonly lines: number
  /** Its longest line. */
  readonly width: number
  readonly height: number
  /** So many lines stand below the room that it has. */
  readonly over: number
}

/** What text is set with. */
export interface SettingTools {
  readonly typesetter: Typesetter
  readonly load: (hash: string) => Uint8Array | undefined
  readonly subsetter: Subsetter
}

/** What came of a change: the whole file, which begins with the bytes that were there, and what is to be said of it. */
export interface FinishedChange {
  readonly bytes: Uint8Array
  readonly said: readonly string[]
}

/** The page of a number. @throws FinishedPdfError */
export function pageOf({ pages }: FinishedPdf, number: number): PDFPage {
  const page = pages[number - 1]
  if (!page)
    throw new FinishedPdfError(
      `This PDF has ${pages.length} ${pages.length === 1 ? 'page' : 'pages'}; there is no page ${number}. Nothing was changed.`,
    )
  return page
}

/**
 * Adds text to a page, set and embedded as in any PDF that is made here. What was there stays byte for byte.
 * @throws FinishedPdfError where the page, the family or a letter is not there, or the face may not be embedded
 */
export async function addText(
  finished: FinishedPdf,
  at: TextAt,
  tools: SettingTools,
): Promise<FinishedChange & { readonly look: AddedLook }> {
  const { look, said } = await drawAdded(finished, at, tools)
  return { bytes: await finished.pdf.commit(), said: [...said, ...saidOf(finished)], look }
}

/** The same, without the file being written: several may follow one another. @throws FinishedPdfError, nothing changed */
export async function drawAdded(
  finished: FinishedPdf,
  at: TextAt,
  tools: SettingTools,
): Promise<{ readonly look: AddedLook; readonly said: readonly string[] }> {
  const page = pageOf(finished, at.page)
  if (at.text.trim() === '') throw new FinishedPdfError('There are no words to be added. Nothing was changed.')
  const drawn = await settled(at, tools)
  draw(finished, page, drawn, { x: at.x, y: at.y }, tools)
  const look = addedLook(drawn, at, lookOf(page).height)
  return {
    said: [
      ...(look.over > 0
        ? [`${look.over === 1 ? 'a line stands' : `${look.over} lines stand`} below the room that it has`]
        : []),
    ],
    look,
  }
}

/** How drawn text came out in the room it has. */
function addedLook({ lines }: DisplayPage, { y, height }: TextAt, pageHeight: number): AddedLook {
  const room = height ?? pageHeight - y
  const foot = ({ baseline, descent }: DisplayPage['lines'][number]) => baseline + descent
  const shown = (value: number) => Math.round(value * 100) / 100
  return {
    lines: lines.length,
    width: shown(Math.max(0, ...lines.map(line => line.width))),
    height: shown(Math.max(0, ...lines.map(foot))),
    over: lines.filter(line => foot(line) > room + 0.01).length,
  }
}

/** What everybody should know who changes a finished PDF. */
export function saidOf(finished: FinishedPdf): string[] {
  const { signed, tagged } = finished
  return [
    ...(signed
      ? ['It is signed: the signature holds for what was there before, and readers say that it was changed since.']
      : []),
    ...(tagged
      ? [
          hasStructure(finished)
            ? 'It is tagged for reading aloud: what was added is read at its end.'
            : 'It says that it is tagged for reading aloud, and has no structure: what was added stands outside of it.',
        ]
      : []),
  ]
}

/** As many characters are added at once. */
const longest = 20_000
/** No text is set larger than this, in points. */
const largest = 2_000

/** Sets text in faces that are at hand, have its letters and may be embedded. @throws FinishedPdfError */
export async function settled(added: AddedText, { typesetter }: SettingTools): Promise<DisplayPage> {
  if (added.text.length > longest)
    throw new FinishedPdfError(`At most ${longest} characters are set at once. Nothing was changed.`)
  if (!(added.size > 0 && added.size <= largest))
    throw new FinishedPdfError(`Text is set from 0 to ${largest} pt. Nothing was changed.`)
  if (!/^#[0-9a-f]{6}$/i.test(added.color))
    throw new FinishedPdfError(`“${added.color}” is no colour: it takes six digits, as #1f6f6b. Nothing was changed.`)
  const { stretches, faces } = facesFor(added, typesetter.library)
  for (const face of faces)
    if (
      face.embedding === 'restricted' ||
      licenceOf(face).uses.some(each => each.use === 'PDF' && each.right === 'not allowed')
    )
      throw new FinishedPdfError(
        `The licence of ${face.fullName} does not allow embedding it in a PDF. Nothing was changed.`,
      )
  return setText(added, stretches, typesetter)
}

/**
 * Draws set text on a page, behind everything that is there.
 * @param place of the text's top left, in points from the page's top left as it is looked at
 */
export function draw(
  finished: FinishedPdf,
  page: PDFPage,
  drawn: DisplayPage,
  place: PagePoint,
  { typesetter, load, subsetter }: SettingTools,
): void {
  const { context } = finished.pdf
  const resources = ownResources(page)
  const painter = new RunPainter(context, typesetter, screenColours, freePrefix(resources))
  const operators: string[] = []
  for (const run of drawn.runs) {
    if (run.glyphs.length === 0) continue
    const font = painter.font(run)
    font.note(run)
    painter.run(run, font, 0, operators)
  }
  // The page may be shown turned: text stands upright for who looks at it, and is drawn with y upwards.
  const matrix = after(after(lookOf(page).toPage, translation(place.x, place.y)), scaling(1, -1))
  const fonts = resources.lookup(PDFName.of('Font'), PDFDict)
  for (const font of painter.fonts.values()) {
    font.write(load, subsetter)
    fonts.set(PDFName.of(font.name), font.reference)
  }
  const before = context.register(context.flateStream('q'))
  const mark = finished.tagged ? tagAdded(finished, page) : null
  const shown = mark === null ? operators : [`/P <</MCID ${mark}>> BDC`, ...operators, 'EMC']
  const content = `Q q ${matrix.map(value => String(Math.round(value * 1000) / 1000)).join(' ')} cm\n${shown.join('\n')}\nQ`
  setContents(page, [before, ...contentsOf(page), context.register(context.flateStream(content))])
}

/** The streams of a page's content, by their references. */
export function contentsOf(page: PDFPage): PDFRef[] {
  const key = PDFName.of('Contents')
  const value = page.node.lookup(key)
  if (value instanceof PDFArray) return Array.from({ length: value.size() }, (_, at) => value.get(at) as PDFRef)
  const own = page.node.get(key)
  return own ? [own as PDFRef] : []
}

export function setContents(page: PDFPage, streams: readonly PDFRef[]): void {
  page.node.set(PDFName.of('Contents'), page.node.context.obj([...streams]))
}

/** The page's resources as a dictionary of its own: those of other pages stay as they are. */
function ownResources(page: PDFPage): PDFDict {
  const { node } = page
  const shared = resourcesOf(page)
  const own = shared ? shared.clone(node.context) : node.context.obj({})
  const fonts = shared?.lookup(PDFName.of('Font'))
  own.set(PDFName.of('Font'), fonts instanceof PDFDict ? fonts.clone(node.context) : node.context.obj({}))
  node.set(PDFName.of('Resources'), own)
  return own
}

/** What added fonts are called by: nothing that the page has begins so. */
function freePrefix(resources: PDFDict): string {
  const names = resources
    .lookup(PDFName.of('Font'), PDFDict)
    .keys()
    .map(key => key.decodeText())
  let prefix = 'Added'
  for (let count = 2; names.some(name => name.startsWith(prefix)); count++) prefix = `Added${count}x`
  return prefix
}
