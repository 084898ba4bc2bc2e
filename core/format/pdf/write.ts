import { PDFDocument, PDFHexString, PDFName, type PDFImage, type PDFPage, type PDFRef } from '@cantoo/pdf-lib'
import { partBytes } from '../../package/container'
import { tilePlaces } from '../../typeset/fills'
import type { Shade } from '../../typeset/shades'
import { displayPage, fontKey, type DisplayPage } from '../../typeset/display'
import type { GlyphRun } from '../../typeset/glyph-runs'
import { paragraphsOf } from '../../document/stories'
import type { Composition } from '../../typeset/compose'
import type { Typesetter } from '../../typeset/look'
import type { Matrix } from '../../typeset/matrix'
import { actualText, PdfFont } from './fonts'
import type { Subsetter } from './subset'

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
}

/** A PDF, and what it does not hold. */
export interface Pdf {
  readonly bytes: Uint8Array
  readonly pages: number
  /** Faces that are named and not embedded. */
  readonly notEmbedded: readonly string[]
  /** Pictures of kinds that are not written: grey boxes stand for them. */
  readonly pictures: readonly string[]
}

/** A PDF cannot be made as asked. Nothing was written. */
export class PdfError extends Error {}

const markLength = 14
const markGap = 5
const number = (value: number) => String(Math.round(value * 1000) / 1000)

function rgb(color: string): string {
  const value = Number.parseInt(color.slice(1), 16)
  return [value >> 16, (value >> 8) & 255, value & 255].map(each => number(each / 255)).join(' ')
}

/**
 * Writes the pages as PDF 1.7 (ISO 32000): the engine's own glyph positions at true size, faces subset and embedded,
 * text in reading order with its Unicode, an outline from the headings, title and language.
 * @throws PdfError when a face may not be embedded and `leaveOut` is not set
 */
export async function writePdf(
  composition: Composition,
  typesetter: Typesetter,
  load: (hash: string) => Uint8Array | undefined,
  subsetter: Subsetter,
  options: PdfOptions,
): Promise<Pdf> {
  const pages = [...composition.pages, ...(options.notes ? composition.notes : [])].map(displayPage)
  const restricted = restrictedFaces(pages, typesetter)
  if (restricted.length > 0 && !options.leaveOut)
    throw new PdfError(
      `The licence of ${restricted.join(' and ')} does not allow embedding it in a PDF. ` +
        `Nothing was written. Swap it for another face, or say that it may be left out: ` +
        `it is then named in the file and shown in whatever face the reader has.`,
    )
  const pdf = await PDFDocument.create({ updateMetadata: false })
  const { document } = composition.reading
  const title = document.title || 'Untitled'
  pdf.setTitle(title, { showInWindowTitleBar: true })
  pdf.setProducer('Morphene')
  pdf.setCreator('Morphene')
  pdf.setCreationDate(new Date(options.made))
  pdf.setModificationDate(new Date(options.made))
  const language = mainLanguage(composition)
  if (language) pdf.setLanguage(language)

  const writer = new PageWriter(pdf, composition, typesetter, options)
  for (const page of pages) await writer.page(page)
  for (const font of writer.fonts.values()) font.write(load, subsetter)
  writeOutline(pdf, composition, writer.pages, options)
  return {
    bytes: await pdf.save({ useObjectStreams: true }),
    pages: pages.length,
    notEmbedded: restricted,
    pictures: [...writer.leftPictures],
  }
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

/** The language most text is in. */
function mainLanguage({ reading }: Composition): string {
  const counts = new Map<string, number>()
  for (const story of reading.stories) {
    if (story.role !== 'body' && story.role !== 'page') continue
    for (const block of paragraphsOf(story.blocks)) {
      const { language } = reading.cascade.paragraph(block, story.role).text.effective.slots.western
      if (language)
        counts.set(
          language,
          (counts.get(language) ?? 0) +
            block.inlines.reduce((sum, inline) => sum + (inline.kind === 'text' ? inline.text.length : 0), 0),
        )
    }
  }
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? ''
}

class PageWriter {
  readonly fonts = new Map<string, PdfFont>()
  readonly pages: PDFPage[] = []
  readonly leftPictures = new Set<string>()
  private readonly images = new Map<string, PDFImage | null>()

  constructor(
    private readonly pdf: PDFDocument,
    private readonly composition: Composition,
    private readonly typesetter: Typesetter,
    private readonly options: PdfOptions,
  ) {}

  private font(run: GlyphRun): PdfFont {
    const key = fontKey(run)
    let font = this.fonts.get(key)
    if (!font) {
      const face = this.typesetter.library.byHash(run.face)!
      this.fonts.set(
        key,
        (font = new PdfFont(
          `F${this.fonts.size + 1}`,
          face,
          face.embedding !== 'restricted',
          run.axes,
          this.pdf.context,
          this.typesetter.shaper,
        )),
      )
    }
    return font
  }

  async page(page: DisplayPage): Promise<void> {
    const { bleed, cropMarks } = this.options
    const around = bleed + (cropMarks ? markLength + markGap : 0)
    const sheet = this.pdf.addPage([page.width + around * 2, page.height + around * 2])
    this.pages.push(sheet)
    sheet.setTrimBox(around, around, page.width, page.height)
    sheet.setBleedBox(around - bleed, around - bleed, page.width + bleed * 2, page.height + bleed * 2)
    const out: string[] = ['q', `1 0 0 1 ${number(around)} ${number(around)} cm`]
    if (page.background)
      out.push(
        `${rgb(page.background)} rg ${number(-bleed)} ${number(-bleed)} ` +
          `${number(page.width + bleed * 2)} ${number(page.height + bleed * 2)} re f`,
      )
    const fonts = new Map<string, PDFRef>()
    const pictures = new Map<string, PDFRef>()
    const states = new Map<string, { ca: number; CA: number }>()
    const shadings = new Map<string, PDFRef>()
    const turnedIn = async (matrix: Matrix | undefined, draw: () => void | Promise<void>) => {
      if (matrix) out.push(`q ${flipped(matrix, page.height)} cm`)
      await draw()
      if (matrix) out.push('Q')
    }
    for (const layer of page.layers) {
      if (layer.of === 'shapes') {
        for (const shape of page.shapes.slice(layer.from, layer.to))
          await turnedIn(shape.matrix, () => this.shape(shape, page.height, out, { pictures, states, shadings }))
        continue
      }
      const runs = page.runs.slice(layer.from, layer.to)
      for (const run of runs)
        if (run.background)
          await turnedIn(run.matrix, () => {
            out.push(
              `${rgb(run.background)} rg ${number(run.x)} ${number(page.height - run.y - run.descent)} ` +
                `${number(run.width)} ${number(run.ascent + run.descent)} re f`,
            )
          })
      for (const run of runs) {
        if (run.glyphs.length === 0) continue
        const font = this.font(run)
        fonts.set(font.name, font.reference)
        await turnedIn(run.matrix, () => {
          this.run(run, font, page.height, out)
        })
      }
    }
    out.push('Q')
    if (cropMarks) out.push(...marks(page, around, bleed))
    const { context } = this.pdf
    sheet.node.set(PDFName.of('Contents'), context.register(context.flateStream(out.join('\n'))))
    sheet.node.set(
      PDFName.of('Resources'),
      context.obj({
        Font: Object.fromEntries(fonts),
        XObject: Object.fromEntries(pictures),
        ...(states.size > 0 ? { ExtGState: Object.fromEntries(states) } : {}),
        ...(shadings.size > 0 ? { Shading: Object.fromEntries(shadings) } : {}),
      }),
    )
  }

  private async shape(
    shape: DisplayPage['shapes'][number],
    height: number,
    out: string[],
    { pictures, states, shadings }: PageResources,
  ): Promise<void> {
    if (shape.kind === 'overset') return
    if (shape.kind === 'path') {
      if (shape.shade) {
        const { context } = this.pdf
        const name = `S${shadings.size + 1}`
        shadings.set(name, context.register(context.obj(shadingOf(shape.shade))))
        out.push('q', ...clipTo(shape.data, shape, height))
        if (shape.fillOpacity < 1) out.push(`/${opacity(states, shape.fillOpacity, 1)} gs`)
        out.push(`1 0 0 -1 ${number(shape.x)} ${number(height - shape.y)} cm`)
        out.push(`${shape.shade.matrix.map(value => String(Math.round(value * 1e4) / 1e4)).join(' ')} cm /${name} sh Q`)
      }
      if (shape.clip !== undefined) out.push('q', ...clipTo(shape.clip, shape, height))
      if ((shape.fill && !shape.shade) || shape.stroke) outline(shape, height, out, states)
      if (shape.clip !== undefined) out.push('Q')
      return
    }
    const box = `${number(shape.x)} ${number(height - shape.y - shape.height)} ${number(shape.width)} ${number(shape.height)}`
    if (shape.kind === 'box') {
      if (shape.fill) out.push(`${rgb(shape.fill)} rg ${box} re f`)
      if (shape.stroke) out.push(`${rgb(shape.stroke)} RG ${number(Math.max(shape.strokeWidth, 0.1))} w ${box} re S`)
      return
    }
    const image = shape.kind === 'image' ? await this.image(shape.href) : null
    if (!image) {
      out.push(`0.93 0.92 0.89 rg ${box} re f`)
      return
    }
    const name = `I${image.ref.objectNumber}`
    pictures.set(name, image.ref)
    const opaque = shape.kind === 'image' && shape.opacity < 1 ? `/${opacity(states, shape.opacity, 1)} gs ` : ''
    const places =
      shape.kind === 'image' ? tilePlaces(shape) : [{ x: 0, y: 0, width: shape.width, height: shape.height }]
    out.push(`q ${opaque}`)
    if (shape.kind === 'image' && shape.clip !== undefined) out.push(...clipTo(shape.clip, shape, height))
    for (const { x, y, width, height: high } of places)
      out.push(
        `q ${number(width)} 0 0 ${number(high)} ${number(shape.x + x)} ${number(height - shape.y - y - high)} cm /${name} Do Q`,
      )
    out.push('Q')
  }

  private async image(href: string): Promise<PDFImage | null> {
    const path = href.replace(/^\.\//, '')
    const known = this.images.get(path)
    if (known !== undefined) return known
    const { container } = this.composition.reading.document
    let image: PDFImage | null = null
    if (container.byPath.has(path)) {
      try {
        // A copy: pictures that are stored as they are lie within the bytes of the whole package.
        const bytes = partBytes(container, path).slice()
        if (bytes[0] === 0x89 && bytes[1] === 0x50) image = await this.pdf.embedPng(bytes)
        else if (bytes[0] === 0xff && bytes[1] === 0xd8) image = await this.pdf.embedJpg(bytes)
      } catch (error) {
        this.leftPictures.add(`${path} (${error instanceof Error ? error.message.slice(0, 80) : 'it cannot be read'})`)
        this.images.set(path, null)
        return null
      }
    }
    if (!image) this.leftPictures.add(path || 'a picture without a file')
    this.images.set(path, image)
    return image
  }

  private run(run: GlyphRun, font: PdfFont, height: number, out: string[]): void {
    const faithful = font.note(run)
    const y = height - run.y
    // What is no text (the leaders of tabs) says so: an empty text in its place.
    const open =
      !run.own && run.text.trim() === ''
        ? '/Span <</ActualText ()>> BDC'
        : faithful
          ? ''
          : `/Span <</ActualText ${actualText(run.text)}>> BDC`
    if (open) out.push(open)
    if (run.shadow) this.glyphs(run, font, run.x + run.size * 0.05, y - run.size * 0.05, '0.7 0.7 0.7', out)
    this.glyphs(run, font, run.x, y, rgb(run.color), out)
    if (open) out.push('EMC')
    for (const mark of [run.underline, run.strike]) {
      if (!mark) continue
      if (mark.pattern === 'wave') {
        out.push(
          `${rgb(mark.color)} RG ${number(mark.thickness)} w [] 0 d ${wave(run.x, y + mark.middle, run.width, mark.thickness)} S`,
        )
        continue
      }
      const dash =
        mark.pattern === 'dotted'
          ? `[${number(mark.thickness)} ${number(mark.thickness * 1.5)}] 0 d`
          : mark.pattern === 'dashed'
            ? `[${number(mark.thickness * 4)} ${number(mark.thickness * 2)}] 0 d`
            : '[] 0 d'
      for (const offset of mark.pattern === 'double' ? [-mark.thickness, mark.thickness] : [0])
        out.push(
          `${rgb(mark.color)} RG ${number(mark.thickness)} w ${dash} ${number(run.x)} ${number(y + mark.middle + offset)} ` +
            `m ${number(run.x + run.width)} ${number(y + mark.middle + offset)} l S`,
        )
    }
  }

  /** Glyphs at the engine's own places: what a viewer would advance is corrected glyph by glyph. */
  private glyphs(run: GlyphRun, font: PdfFont, x: number, y: number, color: string, out: string[]): void {
    const across = run.size * run.scale
    const hex = (glyph: number) => glyph.toString(16).padStart(4, '0').toUpperCase()
    out.push(
      `BT /${font.name} ${number(run.size)} Tf ${color} rg ${color} RG ${run.outline ? `1 Tr ${number(run.size * 0.02)} w` : '0 Tr'}`,
    )
    let list: string[] = []
    let letters = ''
    let expected = 0
    let level = Number.NaN
    const flush = () => {
      if (letters) list.push(`<${letters}>`)
      letters = ''
      if (list.length > 0) out.push(`[${list.join(' ')}] TJ`)
      list = []
    }
    run.glyphs.forEach((glyph, index) => {
      const at = run.xs[index]!
      const up = -run.ys[index]!
      if (up !== level) {
        flush()
        out.push(`${number(run.scale)} 0 0 1 ${number(x + at)} ${number(y + up)} Tm`)
        level = up
        expected = at
      }
      const off = ((expected - at) * 1000) / across
      if (Math.abs(off) > 0.5) {
        if (letters) list.push(`<${letters}>`)
        letters = ''
        list.push(number(off))
        expected = at
      }
      letters += hex(glyph)
      expected += (font.advance(glyph) * across) / 1000
    })
    flush()
    out.push('ET')
  }
}

/** What the drawing of a page refers to by name. */
interface PageResources {
  readonly pictures: Map<string, PDFRef>
  readonly states: Map<string, { ca: number; CA: number }>
  readonly shadings: Map<string, PDFRef>
}

/** A map of page coordinates, y down, as one of PDF's, y up. */
function flipped([a, b, c, d, e, f]: Matrix, height: number): string {
  return [a, -b, -c, d, e + c * height, height - d * height - f]
    .map(value => String(Math.round(value * 1e6) / 1e6))
    .join(' ')
}

/** The name of a graphics state with some opacity (ISO 32000-2, 11.6.4.4). */
function opacity(states: Map<string, { ca: number; CA: number }>, fill: number, stroke: number): string {
  const name = `G${Math.round(fill * 1000)}_${Math.round(stroke * 1000)}`
  states.set(name, { ca: fill, CA: stroke })
  return name
}

function outline(
  shape: Extract<DisplayPage['shapes'][number], { kind: 'path' }>,
  height: number,
  out: string[],
  states: Map<string, { ca: number; CA: number }>,
): void {
  out.push('q')
  if (shape.fillOpacity < 1 || shape.strokeOpacity < 1)
    out.push(`/${opacity(states, shape.fillOpacity, shape.strokeOpacity)} gs`)
  if (shape.fill && !shape.shade) out.push(`${rgb(shape.fill)} rg`)
  if (shape.stroke)
    out.push(
      `${rgb(shape.stroke)} RG ${number(Math.max(shape.strokeWidth, 0.1))} w [${shape.dash.map(number).join(' ')}] 0 d`,
    )
  out.push(...pathOf(shape.data, shape, height))
  const filled = shape.fill && !shape.shade
  out.push(filled && shape.stroke ? 'B*' : filled ? 'f*' : 'S', 'Q')
}

/** Path data as operators of PDF (ISO 32000-2, 8.5.2). */
function pathOf(data: string, from: { readonly x: number; readonly y: number }, height: number): string[] {
  const out: string[] = []
  for (const [, sign, inside] of data.matchAll(/([MLCZ])([^MLCZ]*)/g)) {
    const values = inside!
      .trim()
      .split(/[\s,]+/)
      .filter(Boolean)
      .map(Number)
    const places = values.map((value, at) => number(at % 2 === 0 ? from.x + value : height - from.y - value)).join(' ')
    out.push(sign === 'Z' ? 'h' : `${places} ${sign === 'M' ? 'm' : sign === 'L' ? 'l' : 'c'}`)
  }
  return out
}

const clipTo = (data: string, from: { readonly x: number; readonly y: number }, height: number): string[] => [
  ...pathOf(data, from, height),
  'W* n',
]

/** A shading of its unit axis or circle (ISO 32000-2, 8.7.4.5), stitched of two colours each (7.10.4). */
function shadingOf({ kind, stops }: Shade) {
  const colour = (color: string) => [1, 3, 5].map(at => Number.parseInt(color.slice(at, at + 2), 16) / 255)
  const ends = [{ at: 0, color: stops[0]!.color }, ...stops, { at: 1, color: stops.at(-1)!.color }]
  const pieces = ends
    .slice(1)
    .flatMap((stop, index) => (stop.at > ends[index]!.at ? [{ from: ends[index]!, to: stop }] : []))
  return {
    ShadingType: kind === 'linear' ? 2 : 3,
    ColorSpace: 'DeviceRGB',
    Coords: kind === 'linear' ? [0, 0, 1, 0] : [0, 0, 0, 0, 0, 1],
    Extend: [true, true],
    Function: {
      FunctionType: 3,
      Domain: [0, 1],
      Bounds: pieces.slice(1).map(piece => piece.from.at),
      Encode: pieces.flatMap(() => [0, 1]),
      Functions: pieces.map(piece => ({
        FunctionType: 2,
        Domain: [0, 1],
        C0: colour(piece.from.color),
        C1: colour(piece.to.color),
        N: 1,
      })),
    },
  }
}

/** A wavy line from left to right, each half wave four times as long as the line is thick. */
function wave(x: number, y: number, width: number, thickness: number): string {
  const half = thickness * 4
  const path = [`${number(x)} ${number(y)} m`]
  for (let at = 0, side = 1; at < width; at += half, side = -side) {
    const end = Math.min(at + half, width)
    const swing = number(y + side * thickness * 1.6)
    path.push(
      `${number(x + at + (end - at) / 3)} ${swing} ${number(x + at + ((end - at) * 2) / 3)} ${swing} ${number(x + end)} ${number(y)} c`,
    )
  }
  return path.join(' ')
}

function marks(page: DisplayPage, around: number, bleed: number): string[] {
  const out = ['q 0 G 0.25 w']
  const far = around - bleed - markGap
  const line = (x1: number, y1: number, x2: number, y2: number) =>
    out.push(`${number(x1)} ${number(y1)} m ${number(x2)} ${number(y2)} l S`)
  for (const x of [around, around + page.width]) {
    line(x, far, x, far - markLength)
    line(x, around * 2 + page.height - far, x, around * 2 + page.height - far + markLength)
  }
  for (const y of [around, around + page.height]) {
    line(far, y, far - markLength, y)
    line(around * 2 + page.width - far, y, around * 2 + page.width - far + markLength, y)
  }
  return [...out, 'Q']
}

interface OutlineNode {
  readonly title: string
  readonly page: PDFPage
  readonly top: number
  readonly children: OutlineNode[]
}

/** Headings, or the titles of drawn pages, as bookmarks, each at its place (ISO 32000-2, 12.3.3). */
function writeOutline(
  pdf: PDFDocument,
  composition: Composition,
  pages: readonly PDFPage[],
  options: PdfOptions,
): void {
  const around = options.bleed + (options.cropMarks ? markLength + markGap : 0)
  const roots: OutlineNode[] = []
  const path: { level: number; node: OutlineNode }[] = []
  composition.pages.forEach((page, index) => {
    // Drawn pages are the chapters themselves.
    if (page.name !== '')
      roots.push({ title: page.name, page: pages[index]!, top: around + page.geometry.height, children: [] })
    for (const fragment of page.fragments) {
      if (fragment.kind !== 'lines' || fragment.from > 0 || fragment.layout.role !== 'body') continue
      const level = fragment.layout.paragraph.heading
      const text = fragment.layout.text.replace(/[\s\uFFFC]+/g, ' ').trim()
      if (level === null || text === '') continue
      const label = fragment.layout.label?.text
      const node: OutlineNode = {
        title: label ? `${label} ${text}` : text,
        page: pages[index]!,
        top: around + page.geometry.height - fragment.y,
        children: [],
      }
      while (path.length > 0 && path[path.length - 1]!.level >= level) path.pop()
      ;(path[path.length - 1]?.node.children ?? roots).push(node)
      path.push({ level, node })
    }
  })
  if (roots.length === 0) return
  const { context } = pdf
  const write = (nodes: readonly OutlineNode[], parent: PDFRef): { first: PDFRef; last: PDFRef; count: number } => {
    const references = nodes.map(() => context.nextRef())
    let count = nodes.length
    nodes.forEach((node, index) => {
      const below = node.children.length > 0 ? write(node.children, references[index]!) : null
      if (below) count += below.count
      context.assign(
        references[index]!,
        context.obj({
          Title: PDFHexString.fromText(node.title),
          Parent: parent,
          Dest: [node.page.ref, 'XYZ', null, Math.round(node.top), null],
          ...(index > 0 ? { Prev: references[index - 1]! } : {}),
          ...(index + 1 < nodes.length ? { Next: references[index + 1]! } : {}),
          ...(below ? { First: below.first, Last: below.last, Count: -below.count } : {}),
        }),
      )
    })
    return { first: references[0]!, last: references[references.length - 1]!, count }
  }
  const root = context.nextRef()
  const { first, last } = write(roots, root)
  context.assign(root, context.obj({ Type: 'Outlines', First: first, Last: last, Count: roots.length }))
  pdf.catalog.set(PDFName.of('Outlines'), root)
  pdf.catalog.set(PDFName.of('PageMode'), PDFName.of('UseOutlines'))
}
