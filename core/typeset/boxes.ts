import type { BoxSetter, FrameBox, Stacked, TableLayout } from './box-setter'
import type { Block, Frame, Paragraph, Story, Table } from '../document/story-model'
import { Balances } from './balancing'
import { BoxStyles } from './box-styles'
import { points } from '../document/lengths'
import { percent } from '../style/properties'
import { framePlace, openColumn, type Column, type Exclusion, type Rectangle } from './columns'
import { Flow } from './flow'
import { itemsOf, partOfBlocks } from './flow-items'
import { drawnFor, frameMark, inlineFrames, shifted, type Fragment, type FrameFill } from './fragments'
import type { FrameChains } from './frame-chains'
import { frameColumns } from './frame-columns'
import { FrameFilling, type Filled } from './frame-filling'
import { borderColor, borderWidths, edges, lengthOf } from './geometry'
import type { Measure } from './lines'
import { ShapeComposer, type PlacedShape } from './shapes'
import { layoutParagraph } from './paragraph'
import type { ParagraphLayout, Workshop } from './paragraph-model'
import type { InlineSize } from './setting'
import { layoutTable } from './tables'

/** Embedded objects: what they are called, and what is drawn of them; null where nothing can be. */
export interface ObjectHost {
  readonly title: (href: string) => string
  readonly compose: (href: string, width: number, height: number) => readonly Fragment[] | null
  /** Whether a picture of the package can be shown. */
  readonly isShown: (href: string) => boolean
}

const nestingLimit = 24

/**
 * Composes what stands in boxes: cells, frames, headers, notes. Boxes grow with their text; frames of fixed height
 * may run over.
 */
export class BoxComposer implements BoxSetter {
  private depth = 0
  private readonly frames = new Map<string, FrameBox>()
  private readonly tables = new Map<Table, { readonly width: number; readonly layout: TableLayout }>()
  /** How text frames are filled, in the order they were composed. */
  readonly fills = new Map<string, FrameFill>()

  readonly balances = new Balances()
  readonly styles: BoxStyles
  private readonly shapes = new ShapeComposer(this)
  private readonly filling = new FrameFilling(this)

  /** @param shared fills the chains that go over several pages, where pages are composed one by one */
  constructor(
    readonly workshop: Workshop,
    private readonly objects: ObjectHost,
    private readonly chains: FrameChains,
    private readonly shared: BoxComposer | null = null,
  ) {
    this.styles = new BoxStyles(workshop.cascade)
  }

  paragraph(
    paragraph: Paragraph,
    role: Story['role'],
    width: number,
    shape: Measure['shape'] = null,
    citation: string | null = null,
  ): ParagraphLayout {
    return layoutParagraph(
      paragraph,
      role,
      width,
      this.workshop,
      frame => this.inline(frame, role, width),
      shape,
      citation,
    )
  }

  table(table: Table, role: Story['role'], width: number): TableLayout {
    const known = this.tables.get(table)
    if (known && known.width === width) return known.layout
    const layout = layoutTable(table, role, width, this)
    this.tables.set(table, { width, layout })
    return layout
  }

  /** Stacks blocks in a column that is as long as it needs to be. `citation` is put in front of the first paragraph. */
  stack(blocks: readonly Block[], role: Story['role'], width: number, citation: string | null = null): Stacked {
    if (++this.depth > nestingLimit) {
      this.depth--
      this.workshop.unlaid('frames or tables nested very deeply', partOfBlocks(blocks) ?? '')
      return { height: 0, after: 0, fragments: [] }
    }
    const column = openColumn(width)
    const part = partOfBlocks(blocks)
    const items = itemsOf(blocks, name => (part === null ? null : this.styles.columnsOf(part, 'section', name)))
    const first = items[0]
    if (citation !== null && first?.kind === 'paragraph') items[0] = { ...first, citation }
    const flow = new Flow(this, role, items, column, { next: () => null })
    flow.run()
    this.depth--
    // Headers and footers are as high as their text: pictures anchored there hang over the page.
    const frames = /^(header|footer)/.test(role)
      ? 0
      : column.ground.exclusions.reduce((most, each) => Math.max(most, each.y + each.height), 0)
    return {
      height: Math.max(flow.lowest + flow.after, frames),
      after: Math.max(Math.min(flow.after, flow.lowest + flow.after - frames), 0),
      fragments: column.ground.fragments,
    }
  }

  /** Space between two paragraphs. */
  gap(after: number, before: number): number {
    return this.workshop.spacingAdds ? after + before : Math.max(after, before)
  }

  /** What stands in a paragraph's lines as characters. */
  inlined(
    layout: ParagraphLayout,
    from: number,
    to: number,
    role: Story['role'],
    width: number,
    x: number,
    y: number,
  ): Fragment[] {
    return inlineFrames(layout, from, to).flatMap(each => {
      const box = this.frame(each.frame, role, width)
      const margin = edges(this.styles.graphic(each.frame), 'fo:margin')
      return shifted(box.fragments, x + each.x + margin.left, y + each.foot - margin.bottom - box.height)
    })
  }

  /**
   * How a frame stands in a line as a character: on the baseline, or where its style puts it by the baseline or by the text
   * beside it (style:vertical-pos and -rel, OpenDocument 1.4 part 3, 20.399 f.).
   */
  private inline(frame: Frame, role: Story['role'], columnWidth: number): InlineSize {
    const box = this.frame(frame, role, columnWidth)
    const properties = this.styles.graphic(frame)
    const margin = edges(properties, 'fo:margin')
    const height = box.height + margin.top + margin.bottom
    const where = properties['style:vertical-pos'] ?? 'top'
    const byText = /^(char|text|line)$/.test(properties['style:vertical-rel'] ?? 'baseline')
    const y = points(this.attribute(frame, 'svg:y'))
    return {
      width: box.width + margin.left + margin.right,
      height,
      below: (ascent, descent) => {
        switch (where) {
          case 'from-top':
            // From the baseline, or from the top of the text, to the top of the frame.
            return y === null ? 0 : (byText ? y - ascent : y) + height
          case 'middle':
            return height / 2 - (byText ? (ascent - descent) / 2 : 0)
          case 'bottom':
            return byText ? descent : height
          default:
            return byText ? height - ascent : 0
        }
      },
    }
  }

  /** A shape or frame of a drawing, where the file puts it. */
  placed(frame: Frame, role: Story['role']): PlacedShape {
    return this.shapes.place(frame, role)
  }

  /** What is drawn of an embedded object. */
  object(frame: Frame, width: number, height: number): readonly Fragment[] {
    const drawn = this.objects.compose(frame.href ?? '', width, height)
    if (drawn) return drawn
    const title = this.objects.title(frame.href ?? '')
    const { part } = this.workshop.cascade.scope(frame.part)
    const href = part.first(part.element(frame.node), 'draw:image')?.attributes['xlink:href'] ?? ''
    if (href && this.objects.isShown(href)) {
      this.workshop.unlaid(`${title.toLowerCase()}s (shown by the picture that the file has of them)`, frame.node)
      return [{ kind: 'image', href, name: frame.name || title, opacity: 1, x: 0, y: 0, width, height }]
    }
    this.workshop.unlaid(`${title.toLowerCase()}s (shown as an empty box)`, frame.node)
    return [{ kind: 'object', title, href: frame.href ?? '', x: 0, y: 0, width, height }]
  }

  wrapOf(frame: Frame): string {
    return this.styles.graphic(frame)['style:wrap'] ?? 'none'
  }

  /** What the element of a frame says itself. */
  attribute(frame: Frame, name: string): string | undefined {
    return this.workshop.cascade.scope(frame.part).part.element(frame.node).attributes[name]
  }

  /** Where the file puts a frame: svg:x and svg:y, in points. */
  stated(frame: Frame): { readonly x: number; readonly y: number } {
    if (frame.shape !== 'draw:frame') return this.shapes.place(frame, 'body').bounds
    return { x: points(this.attribute(frame, 'svg:x')) ?? 0, y: points(this.attribute(frame, 'svg:y')) ?? 0 }
  }

  /** Where a frame that is anchored to its page stands. */
  placeOnPage(frame: Frame, size: FrameBox, column: Column): { readonly x: number; readonly y: number } {
    const place = { x: column.x, y: column.top, width: column.width, height: 0 }
    return framePlace(frame, this.styles.graphic(frame), size, this.stated(frame), column, place, place)
  }

  /** What text keeps clear of for a frame's sake; null where it runs through (style:wrap, ODF 1.4 part 3, 20.403). */
  exclusionOf(frame: Frame, place: Rectangle, column: Column): Exclusion | null {
    const properties = this.styles.graphic(frame)
    const wrap = properties['style:wrap'] ?? 'none'
    if (wrap === 'run-through' || place.height <= 0) return null
    if (properties['style:wrap-contour'] === 'true')
      this.workshop.unlaid('text around the outlines of pictures (it keeps clear of their whole box)', frame.node)
    const margin = edges(properties, 'fo:margin')
    const around = {
      x: place.x - margin.left,
      y: place.y - margin.top,
      width: place.width + margin.left + margin.right,
      height: place.height + margin.top + margin.bottom,
    }
    if (wrap === 'none')
      return { ...around, x: Math.min(around.x, column.x), width: Math.max(around.width, column.width), side: 'none' }
    return { ...around, side: wrap === 'left' ? 'left' : wrap === 'right' ? 'right' : 'both' }
  }

  /** A frame or shape with what is in it. */
  frame(frame: Frame, role: Story['role'], columnWidth: number): FrameBox {
    const key = `${frame.part}|${frame.node}|${columnWidth}`
    let box = this.frames.get(key)
    if (!box) {
      const { fragments, ...size } = this.composeFrame(frame, role, columnWidth)
      this.frames.set(key, (box = { ...size, fragments: drawnFor(frame, fragments) }))
    }
    return box
  }

  /** How wide a frame is that stands in a column. */
  widthOf(frame: Frame, columnWidth: number): number {
    const relative = percent(this.attribute(frame, 'style:rel-width'))
    return relative === null
      ? (points(this.attribute(frame, 'svg:width')) ?? points(this.styles.graphic(frame)['svg:width']) ?? columnWidth)
      : relative * columnWidth
  }

  private composeFrame(frame: Frame, role: Story['role'], columnWidth: number): FrameBox {
    const { part } = this.workshop.cascade.scope(frame.part)
    const element = part.element(frame.node)
    const properties = this.styles.graphic(frame)
    const width = this.widthOf(frame, columnWidth)
    const stated = points(element.attributes['svg:height'])
    const fill =
      properties['draw:fill'] === 'solid'
        ? properties['draw:fill-color']
        : properties['draw:fill'] === 'none'
          ? ''
          : properties['fo:background-color']
    const border = borderWidths(properties)
    const stroke = border.top > 0 ? borderColor(properties) : ''
    const outline = (height: number): Fragment[] => {
      const color = /^#[0-9a-f]{6}$/i.test(fill ?? '') ? fill! : ''
      return color || stroke
        ? [{ kind: 'box', fill: color, stroke, strokeWidth: border.top, x: 0, y: 0, width, height }]
        : []
    }
    if (frame.content === 'image') {
      const height = stated ?? width * 0.75
      return {
        width,
        height,
        fragments: [
          frameMark(frame, width, height),
          ...outline(height),
          { kind: 'image', href: frame.href ?? '', name: frame.name, opacity: 1, x: 0, y: 0, width, height },
        ],
      }
    }
    if (frame.content === 'object') {
      const height = stated ?? width * 0.6
      return { width, height, fragments: [frameMark(frame, width, height), ...this.object(frame, width, height)] }
    }
    if (frame.shape !== 'draw:frame') {
      const { fragments, bounds } = this.shapes.place(frame, role)
      return { width: bounds.width, height: bounds.height, fragments: shifted(fragments, -bounds.x, -bounds.y) }
    }
    if (frame.content === 'none') return { width, height: stated ?? 0, fragments: [] }
    const textBox = part.first(element, 'draw:text-box')
    const inset = edges(properties, 'fo:padding')
    const inside = {
      x: inset.left + border.left,
      y: inset.top + border.top,
      width: Math.max(width - inset.left - inset.right - border.left - border.right, 10),
    }
    const around = inset.top + inset.bottom + border.top + border.bottom
    const minimum = lengthOf(textBox?.attributes['fo:min-height'] ?? properties['fo:min-height'], 0)
    const grows = stated === null || minimum !== null || properties['draw:auto-grow-height'] === 'true'
    const chain = this.chains.of(frame)
    const columns = this.styles.columnsOf(frame.part, 'graphic', frame.graphicStyle)
    if (chain === null && grows && !columns) {
      const inner = this.stack(frame.blocks, role, inside.width)
      // The space below the last paragraph is none of the frame's: so pages of real files come out.
      const needed = inner.height - inner.after + around
      const height = Math.max(minimum ?? 0, needed)
      this.noteFill({
        part: frame.part,
        node: frame.node,
        name: frame.name,
        room: Math.max((minimum ?? 0) - needed, 0),
        over: null,
        shrunk: 1,
      })
      return {
        width,
        height,
        fragments: [
          frameMark(frame, width, height),
          ...outline(height),
          ...shifted(inner.fragments, inside.x, inside.y),
        ],
      }
    }
    const height = stated ?? minimum ?? 0
    const { fragments, over } =
      this.filled(frame, role, { ...inside, height: height - around }, columnWidth) ??
      this.filling.fill(frame, frame.blocks, role, [frameColumns({ ...inside, height: height - around }, columns)])[0]!
    const band: Fragment[] = over ? [{ kind: 'overset', frame: over, x: 0, y: height, width }] : []
    return { width, height, fragments: [frameMark(frame, width, height), ...outline(height), ...fragments, ...band] }
  }

  /**
   * The text of a frame that is chained or has columns; null for others. `columnWidth` is what relative widths go
   * by.
   */
  filled(frame: Frame, role: Story['role'], inside: Rectangle, columnWidth = inside.width): Filled | null {
    const chain = this.chains.of(frame)
    if (chain && this.shared) {
      const filled = this.shared.filled(frame, role, inside, columnWidth)
      for (const [key, fill] of this.shared.fills) this.fills.set(key, fill)
      return filled
    }
    if (chain) return this.filling.chained(chain, role, columnWidth)[chain.indexOf(frame)]!
    const columns =
      this.styles.columnsOf(frame.part, 'graphic', frame.graphicStyle) ??
      this.styles.columnsOf(frame.part, 'presentation', frame.graphicStyle)
    return columns ? this.filling.fill(frame, frame.blocks, role, [frameColumns(inside, columns)])[0]! : null
  }

  /** Keeps how a frame is filled. */
  noteFill(fill: FrameFill): void {
    this.fills.set(`${fill.part}#${fill.node}`, fill)
  }
}
