import { PDFArray, PDFDict, PDFName, type PDFPage, type PDFRef } from '@cantoo/pdf-lib'
import { licenceOf } from '../../font/licence'
import type { Typesetter } from '../../typeset/look'
import { screenColours } from '../pdf/colours'
import { RunPainter } from '../pdf/run-painter'
import type { Subsetter } from '../pdf/subset'
import type { DisplayPage } from '../../typeset/display'
import { setText, type AddedText } from './drawn-text'
import { resourcesOf } from './page-text'
import { FinishedPdfError, type FinishedPdf } from './open'

/** Text, and where it goes: the page from 1, and the top left of its first line in points from the page's top left. */
export interface TextAt extends AddedText {
  readonly page: number
  readonly x: number
  readonly y: number
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
export async function addText(finished: FinishedPdf, at: TextAt, tools: SettingTools): Promise<FinishedChange> {
  const page = pageOf(finished, at.page)
  if (at.text.trim() === '') throw new FinishedPdfError('There are no words to be added. Nothing was changed.')
  const drawn = await settled(at, tools)
  draw(finished, page, drawn, { x: at.x, y: at.y }, tools)
  return { bytes: await finished.pdf.commit(), said: saidOf(finished) }
}

/** What everybody should know who changes a finished PDF. */
export function saidOf({ signed, tagged }: FinishedPdf): string[] {
  return [
    ...(signed
      ? ['It is signed: the signature holds for what was there before, and readers say that it was changed since.']
      : []),
    ...(tagged ? ['It is tagged for reading aloud: what was added stands outside of that structure.'] : []),
  ]
}

/** As many characters are added at once. */
const longest = 20_000
/** No text is set larger than this, in points. */
const largest = 2_000

/** Sets text in a face that is at hand, has its letters and may be embedded. @throws FinishedPdfError */
export async function settled(added: AddedText, { typesetter }: SettingTools): Promise<DisplayPage> {
  if (added.text.length > longest)
    throw new FinishedPdfError(`At most ${longest} characters are set at once. Nothing was changed.`)
  if (!(added.size > 0 && added.size <= largest))
    throw new FinishedPdfError(`Text is set from 0 to ${largest} pt. Nothing was changed.`)
  if (!/^#[0-9a-f]{6}$/i.test(added.color))
    throw new FinishedPdfError(`“${added.color}” is no colour: it takes six digits, as #1f6f6b. Nothing was changed.`)
  const drawn = await setText(added, typesetter)
  for (const run of drawn.runs) {
    if (run.glyphs.length === 0) continue
    const face = typesetter.library.byHash(run.face)!
    if (run.status !== 'present')
      throw new FinishedPdfError(`“${added.family}” is not in the library. Nothing was changed.`)
    if (
      face.embedding === 'restricted' ||
      licenceOf(face).uses.some(each => each.use === 'PDF' && each.right === 'not allowed')
    )
      throw new FinishedPdfError(
        `The licence of ${face.fullName} does not allow embedding it in a PDF. Nothing was changed.`,
      )
    if (run.glyphs.includes(0))
      throw new FinishedPdfError(`${face.fullName} has not all of these letters: “${run.text}”. Nothing was changed.`)
  }
  return drawn
}

/**
 * Draws set text on a page, behind everything that is there.
 * @param place of the sheet's top left, in points from the page's top left as it is looked at
 */
export function draw(
  { pdf }: FinishedPdf,
  page: PDFPage,
  drawn: DisplayPage,
  place: { readonly x: number; readonly y: number },
  { typesetter, load, subsetter }: SettingTools,
): void {
  const { context } = pdf
  const resources = ownResources(page)
  const painter = new RunPainter(context, typesetter, screenColours, freePrefix(resources))
  const box = page.getCropBox()
  const operators: string[] = []
  for (const run of drawn.runs) {
    if (run.glyphs.length === 0) continue
    const font = painter.font(run)
    font.note(run)
    painter.run(run, font, 0, operators)
  }
  // The page may be shown turned (ISO 32000-2, 7.7.3.3): text stands upright for who looks at it.
  const [across, down] = [place.x, place.y]
  const turn = (((page.getRotation().angle % 360) + 360) % 360) as 0 | 90 | 180 | 270
  const matrix = {
    0: [1, 0, 0, 1, box.x + across, box.y + box.height - down],
    90: [0, 1, -1, 0, box.x + down, box.y + across],
    180: [-1, 0, 0, -1, box.x + box.width - across, box.y + down],
    270: [0, -1, 1, 0, box.x + box.width - down, box.y + box.height - across],
  }[turn]
  const fonts = resources.lookup(PDFName.of('Font'), PDFDict)
  for (const font of painter.fonts.values()) {
    font.write(load, subsetter)
    fonts.set(PDFName.of(font.name), font.reference)
  }
  const before = context.register(context.flateStream('q'))
  const content = `Q q ${matrix.map(value => String(Math.round(value * 1000) / 1000)).join(' ')} cm\n${operators.join('\n')}\nQ`
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
