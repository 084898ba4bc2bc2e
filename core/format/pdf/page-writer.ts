import { PDFName, type PDFDocument, type PDFPage, type PDFRef } from '@cantoo/pdf-lib'
import type { Container } from '../../package/container'
import type { DisplayPage } from '../../typeset/display'
import { tilePlaces } from '../../typeset/fills'
import type { GlyphRun } from '../../typeset/glyph-runs'
import { boundsOf, type Matrix } from '../../typeset/matrix'
import type { Colours } from './colours'
import { clipTo, flipped, marks, number, pathOf } from './paths'
import { Pictures } from './pictures'
import { actualTextOf, type RunPainter } from './run-painter'
import { shadingOf } from './shadings'
import type { Tag, Tagging } from './tags'

/** What the drawing of a page refers to by name. */
interface PageResources {
  readonly fonts: Map<string, PDFRef>
  readonly pictures: Map<string, PDFRef>
  readonly states: Map<string, { ca: number; CA: number }>
  readonly shadings: Map<string, PDFRef>
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
  states: PageResources['states'],
  colours: Colours,
): void {
  out.push('q')
  if (shape.fillOpacity < 1 || shape.strokeOpacity < 1)
    out.push(`/${opacity(states, shape.fillOpacity, shape.strokeOpacity)} gs`)
  if (shape.fill && !shape.shade) out.push(`${colours.fill(shape.fill)}`)
  if (shape.stroke)
    out.push(
      `${colours.stroke(shape.stroke)} ${number(Math.max(shape.strokeWidth, 0.1))} w [${shape.dash.map(number).join(' ')}] 0 d`,
    )
  out.push(...pathOf(shape.data, shape, height))
  const filled = shape.fill && !shape.shade
  out.push(filled && shape.stroke ? 'B*' : filled ? 'f*' : 'S', 'Q')
}

interface Rectangle {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
}
const runBox = ({ x, y, width, ascent, descent }: GlyphRun): Rectangle => ({
  x,
  y: y - ascent,
  width,
  height: ascent + descent,
})

/** Room around the trimmed page, in points. */
export interface Sheet {
  readonly bleed: number
  /** On every side, with bleed and crop marks. */
  readonly around: number
  readonly cropMarks: boolean
}

/** The operators of a page, in stretches that belong to one element each (ISO 32000-2, 14.6). */
class PageContent {
  readonly operators: string[] = []
  private open: Tag | null = null
  /** Where the run that was drawn last begins in its text. */
  private last = -1
  private depth = 0
  /** Nothing more may stand in the open stretch. */
  private alone = false

  constructor(
    private readonly tagging: Tagging,
    private readonly sheet: PDFPage,
    private readonly height: number,
    private readonly around: number,
  ) {}

  push(...operators: readonly string[]): void {
    this.operators.push(...operators)
  }

  async turned(matrix: Matrix | undefined, draw: () => void | Promise<void>): Promise<void> {
    if (matrix) this.push(`q ${flipped(matrix, this.height)} cm`)
    await draw()
    if (matrix) this.push('Q')
  }

  /** Ends the open stretch and begins another, unless it goes on; null ends it. */
  tag(tag: Tag | null, at = 0, actual: string | null = null, anew = false): void {
    if (tag === this.open && actual === null && !anew) return
    for (; this.depth > 0; this.depth--) this.push('EMC')
    const began = tag === null ? [] : this.tagging.open(tag, this.sheet, at, actual)
    this.push(...began)
    this.depth = began.length
    this.open = tag
    this.alone = actual !== null
  }

  /** @param actual the run's text, as PDF writes it, where its glyphs do not tell */
  run(run: GlyphRun, actual: string | null): void {
    const tag = this.tagging.ofRun(run, this.sheet)
    // What is read in another order than it is drawn in stands by itself, so that it can be put in order.
    const stops = typeof tag !== 'string' && tag.stops.some(at => at >= this.last && at < run.start)
    this.tag(tag, run.start, actual, this.alone || run.rightToLeft || run.start < this.last || stops)
    this.alone ||= run.rightToLeft
    this.last = run.start
    const { around, height } = this
    this.tagging.place(tag, run, this.sheet, (x, y) => [x + around, height - y + around])
    this.surround(tag, run.matrix, runBox(run))
  }

  shape(shape: DisplayPage['shapes'][number]): void {
    const tag = this.tagging.ofShape(shape, this.sheet)
    this.tag(tag)
    if (shape.kind !== 'overset') this.surround(tag, shape.matrix, shape)
  }

  private surround(tag: Tag, matrix: Matrix | undefined, place: Rectangle): void {
    if (typeof tag === 'string' || tag.type !== 'Figure') return
    const box = matrix ? boundsOf(matrix, place) : place
    const { around } = this
    this.tagging.surround(tag, this.sheet, [
      [box.x + around, this.height - box.y + around],
      [box.x + box.width + around, this.height - box.y - box.height + around],
    ])
  }
}

/** Writes pages one after the other into a PDF. */
export class PageWriter {
  readonly pages: PDFPage[] = []
  readonly pictures: Pictures

  constructor(
    private readonly pdf: PDFDocument,
    container: Container,
    readonly painter: RunPainter,
    private readonly sheet: Sheet,
    private readonly colours: Colours,
    private readonly tagging: Tagging,
  ) {
    this.pictures = new Pictures(pdf, container)
  }

  async page(page: DisplayPage): Promise<void> {
    const { bleed, around, cropMarks } = this.sheet
    const sheet = this.pdf.addPage([page.width + around * 2, page.height + around * 2])
    this.pages.push(sheet)
    sheet.setTrimBox(around, around, page.width, page.height)
    sheet.setBleedBox(around - bleed, around - bleed, page.width + bleed * 2, page.height + bleed * 2)
    const out = new PageContent(this.tagging, sheet, page.height, around)
    out.push('q', `1 0 0 1 ${number(around)} ${number(around)} cm`)
    const resources: PageResources = { fonts: new Map(), pictures: new Map(), states: new Map(), shadings: new Map() }
    if (page.background) {
      out.tag('layout')
      out.push(
        `${this.colours.fill(page.background)} ${number(-bleed)} ${number(-bleed)} ` +
          `${number(page.width + bleed * 2)} ${number(page.height + bleed * 2)} re f`,
      )
    }
    for (const layer of page.layers) {
      if (layer.of === 'shapes') {
        for (const shape of page.shapes.slice(layer.from, layer.to)) {
          if (shape.kind !== 'overset' && this.isOff(page, shape, shape.matrix)) continue
          out.shape(shape)
          await out.turned(shape.matrix, () => this.shape(shape, page.height, out.operators, resources))
        }
        continue
      }
      await this.runs(page, layer.from, layer.to, out, resources)
    }
    out.tag(null)
    out.push('Q')
    if (cropMarks) {
      out.tag('layout')
      out.push(...marks(page, around, bleed, this.colours.marks))
      out.tag(null)
    }
    const { context } = this.pdf
    const { fonts, pictures, states, shadings } = resources
    sheet.node.set(PDFName.of('Contents'), context.register(context.flateStream(out.operators.join('\n'))))
    sheet.node.set(
      PDFName.of('Resources'),
      context.obj({
        Font: Object.fromEntries(fonts),
        XObject: Object.fromEntries(pictures),
        ...(Object.keys(this.colours.spaces).length > 0 ? { ColorSpace: this.colours.spaces } : {}),
        ...(states.size > 0 ? { ExtGState: Object.fromEntries(states) } : {}),
        ...(shadings.size > 0 ? { Shading: Object.fromEntries(shadings) } : {}),
      }),
    )
  }

  /** Whether something lies wholly beside the sheet: it would not be seen, and yet be read aloud and found. */
  private isOff(page: DisplayPage, box: Rectangle, matrix: Matrix | undefined): boolean {
    const { x, y, width, height } = matrix ? boundsOf(matrix, box) : box
    const { around } = this.sheet
    return x > page.width + around || y > page.height + around || x + width < -around || y + height < -around
  }

  private async runs(
    page: DisplayPage,
    from: number,
    to: number,
    out: PageContent,
    resources: PageResources,
  ): Promise<void> {
    const runs = page.runs.slice(from, to)
    for (const run of runs) {
      if (!run.background) continue
      out.tag('layout')
      await out.turned(run.matrix, () => {
        out.push(
          `${this.colours.fill(run.background)} ${number(run.x)} ${number(page.height - run.y - run.descent)} ` +
            `${number(run.width)} ${number(run.ascent + run.descent)} re f`,
        )
      })
    }
    for (const run of runs) {
      if (run.glyphs.length === 0 || this.isOff(page, runBox(run), run.matrix)) continue
      const font = this.painter.font(run)
      resources.fonts.set(font.name, font.reference)
      out.run(run, actualTextOf(run, font))
      await out.turned(run.matrix, () => {
        this.painter.run(run, font, page.height, out.operators)
      })
    }
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
      if ((shape.fill && !shape.shade) || shape.stroke) outline(shape, height, out, states, this.colours)
      if (shape.clip !== undefined) out.push('Q')
      return
    }
    const box = `${number(shape.x)} ${number(height - shape.y - shape.height)} ${number(shape.width)} ${number(shape.height)}`
    if (shape.kind === 'box') {
      if (shape.fill) out.push(`${this.colours.fill(shape.fill)} ${box} re f`)
      if (shape.stroke)
        out.push(`${this.colours.stroke(shape.stroke)} ${number(Math.max(shape.strokeWidth, 0.1))} w ${box} re S`)
      return
    }
    const image = shape.kind === 'image' ? await this.pictures.of(shape.href) : null
    if (!image) {
      out.push(`${this.colours.fill('#edebe3')} ${box} re f`)
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
}
