import type { Block, Frame, Paragraph, Story, Table } from '../document/stories'
import { findStyle, withParents, type Properties } from '../document/styles'
import { points, percent } from '../style/properties'
import { inlineFrames, linesHeight, shifted, type Box, type Fragment, type OversetFrame } from './fragments'
import { borderColor, borderWidths, edges, lengthOf } from './geometry'
import { layoutParagraph, type ParagraphLayout, type Workshop } from './paragraph'

/** A table set in rows. Lengths in points, fragments from each row's top left. */
export interface TableLayout {
  readonly x: number
  readonly width: number
  readonly rows: readonly { readonly height: number, readonly heading: boolean, readonly fragments: readonly Fragment[] }[]
  readonly spaceBefore: number
  readonly spaceAfter: number
  readonly properties: Properties
  readonly masterPage: string | null
}

export interface FrameBox { readonly width: number, readonly height: number, readonly fragments: readonly Fragment[], readonly overset: OversetFrame | null }

const nestingLimit = 24

/** Composes what stands in boxes: cells, frames, headers. Boxes grow with their text; frames of fixed height may run over. */
export class BoxComposer {
  private depth = 0
  private readonly frames = new Map<string, FrameBox>()

  constructor(readonly workshop: Workshop, private readonly objectTitle: (href: string) => string) {}

  /** Properties of an automatic or common style with those of its parents below. */
  properties(part: string, family: string, name: string | null, kind: 'graphic' | 'cell' | 'paragraph'): Properties {
    const scope = this.workshop.cascade.scope(part)
    const style = name === null ? undefined : findStyle(scope, family, name)
    return style ? Object.assign({}, ...withParents(scope, style).map(each => each[kind])) as Properties : {}
  }

  /** Other properties elements hang on the style's nodes and are read where they are needed. */
  propertiesElement(part: string, family: string, name: string | null, element: string): Properties {
    const scope = this.workshop.cascade.scope(part)
    const style = name === null ? undefined : findStyle(scope, family, name)
    if (!style) return {}
    return Object.assign({}, ...withParents(scope, style).map((each) => {
      const node = each.propertyNodes[element]
      return node === undefined ? {} : this.workshop.cascade.scope(each.part).part.element(node).attributes
    })) as Properties
  }

  paragraph(paragraph: Paragraph, role: Story['role'], width: number): ParagraphLayout {
    return layoutParagraph(paragraph, role, width, this.workshop, frame => this.frame(frame, role, width))
  }

  /** Stacks blocks in a column that is as long as it needs to be. */
  stack(blocks: readonly Block[], role: Story['role'], width: number): Box {
    const fragments: Fragment[] = []
    let y = 0
    let before = 0
    if (++this.depth > nestingLimit) { this.depth--; this.workshop.unlaid('frames or tables nested very deeply'); return { height: 0, fragments: [] } }
    const visit = (list: readonly Block[]): void => {
      for (const block of list) {
        if (block.kind === 'section') { visit(block.blocks); continue }
        if (block.kind === 'frame') {
          const frame = this.frame(block, role, width)
          fragments.push(...shifted(frame.fragments, this.frameX(block, frame.width, width), this.frameY(block)))
          continue
        }
        if (block.kind === 'table') {
          const table = this.table(block, role, width)
          y += Math.max(before, table.spaceBefore)
          for (const row of table.rows) { fragments.push(...shifted(row.fragments, table.x, y)); y += row.height }
          before = table.spaceAfter
          continue
        }
        const layout = this.paragraph(block, role, width)
        y += y === 0 ? layout.spaceBefore : this.gap(before, layout.spaceBefore)
        const reserved = this.anchored(layout, role, width, fragments, 0, y)
        y += reserved + layout.padding.top
        fragments.push({ kind: 'lines', layout, from: 0, to: layout.lines.length, x: 0, y }, ...this.inlined(layout, 0, layout.lines.length, role, width, 0, y))
        y += linesHeight(layout) + layout.padding.bottom
        before = layout.spaceAfter
      }
    }
    visit(blocks)
    this.depth--
    return { height: y + before, fragments }
  }

  /** Space between two paragraphs. */
  gap(after: number, before: number): number { return this.workshop.spacingAdds ? after + before : Math.max(after, before) }

  /** Places frames anchored to a paragraph; returns the height they take from its text. */
  anchored(layout: ParagraphLayout, role: Story['role'], width: number, into: Fragment[], x: number, y: number): number {
    let reserved = 0
    for (const frame of layout.frames) {
      const box = this.frame(frame, role, width)
      const properties = this.graphic(frame)
      const wrap = properties['style:wrap'] ?? 'none'
      const top = this.frameY(frame)
      if (wrap === 'run-through' || /^page/.test(properties['style:vertical-rel'] ?? '')) {
        into.push(...shifted(box.fragments, x + this.frameX(frame, box.width, width), y + top))
        continue
      }
      if (wrap !== 'none') this.workshop.unlaid('text beside frames (it is set below them)')
      into.push(...shifted(box.fragments, x + this.frameX(frame, box.width, width), y + reserved + top))
      reserved += Math.max(top, 0) + box.height
    }
    return reserved
  }

  /** What stands in a paragraph's lines as characters. */
  inlined(layout: ParagraphLayout, from: number, to: number, role: Story['role'], width: number, x: number, y: number): Fragment[] {
    return inlineFrames(layout, from, to).flatMap((each) => {
      const box = this.frame(each.frame, role, width)
      return shifted(box.fragments, x + each.x, y + each.foot - box.height)
    })
  }

  private graphic(frame: Frame): Properties { return this.properties(frame.part, 'graphic', frame.graphicStyle, 'graphic') }

  private attribute(frame: Frame, name: string): string | undefined {
    return this.workshop.cascade.scope(frame.part).part.element(frame.node).attributes[name]
  }

  private frameX(frame: Frame, own: number, width: number): number {
    switch (this.graphic(frame)['style:horizontal-pos']) {
      case 'center': return (width - own) / 2
      case 'right': case 'outside': return width - own
      case 'left': case 'inside': return 0
      default: return points(this.attribute(frame, 'svg:x')) ?? 0
    }
  }

  private frameY(frame: Frame): number {
    const where = this.graphic(frame)['style:vertical-pos']
    return where === undefined || where === 'from-top' ? points(this.attribute(frame, 'svg:y')) ?? 0 : 0
  }

  /** A frame or shape with what is in it. */
  frame(frame: Frame, role: Story['role'], columnWidth: number): FrameBox {
    const key = `${frame.part}|${frame.node}|${columnWidth}`
    let box = this.frames.get(key)
    if (!box) this.frames.set(key, box = this.composeFrame(frame, role, columnWidth))
    return box
  }

  private composeFrame(frame: Frame, role: Story['role'], columnWidth: number): FrameBox {
    const { part } = this.workshop.cascade.scope(frame.part)
    const element = part.element(frame.node)
    const properties = this.graphic(frame)
    const relative = percent(element.attributes['style:rel-width'])
    const width = relative === null ? points(element.attributes['svg:width']) ?? points(properties['svg:width']) ?? columnWidth : relative * columnWidth
    const stated = points(element.attributes['svg:height'])
    const fill = properties['draw:fill'] === 'solid' ? properties['draw:fill-color'] : properties['draw:fill'] === 'none' ? '' : properties['fo:background-color']
    const border = borderWidths(properties)
    const stroke = border.top > 0 ? borderColor(properties) : ''
    const outline = (height: number): Fragment[] => {
      const color = /^#[0-9a-f]{6}$/i.test(fill ?? '') ? fill! : ''
      return color || stroke ? [{ kind: 'box', fill: color, stroke, strokeWidth: border.top, x: 0, y: 0, width, height }] : []
    }
    if (frame.content === 'image') {
      const height = stated ?? width * 0.75
      return { width, height, overset: null, fragments: [...outline(height), { kind: 'image', href: frame.href ?? '', x: 0, y: 0, width, height }] }
    }
    if (frame.content === 'object') {
      const height = stated ?? width * 0.6
      const title = this.objectTitle(frame.href ?? '')
      this.workshop.unlaid(`${title.toLowerCase()}s (shown as an empty box)`)
      return { width, height, overset: null, fragments: [{ kind: 'object', title, href: frame.href ?? '', x: 0, y: 0, width, height }] }
    }
    if (frame.content === 'none') {
      if (element.name !== 'draw:a' && element.name !== 'draw:control') this.workshop.unlaid('drawing shapes (their text is set, their outlines are not drawn)')
      return { width, height: stated ?? 0, fragments: [], overset: null }
    }
    if (frame.content === 'group') {
      const inner = this.stack(frame.blocks, role, columnWidth)
      this.workshop.unlaid('grouped shapes (set one below the other)')
      return { width, height: Math.max(stated ?? 0, inner.height), fragments: inner.fragments, overset: null }
    }
    if (element.name !== 'draw:frame') this.workshop.unlaid('drawing shapes (their text is set, their outlines are not drawn)')
    const textBox = part.first(element, 'draw:text-box')
    if (textBox?.attributes['draw:chain-next-name']) this.workshop.unlaid('chained frames')
    const padding = edges(properties, 'fo:padding')
    const inner = this.stack(frame.blocks, role, Math.max(width - padding.left - padding.right - border.left - border.right, 10))
    const around = padding.top + padding.bottom + border.top + border.bottom
    const minimum = lengthOf(textBox?.attributes['fo:min-height'] ?? properties['fo:min-height'], 0)
    const grows = stated === null || minimum !== null || properties['draw:auto-grow-height'] === 'true'
    const height = grows ? Math.max(minimum ?? 0, inner.height + around) : stated
    const inside = shifted(inner.fragments, padding.left + border.left, padding.top + border.top)
    const room = height - padding.bottom - border.bottom
    const over = grows ? null : this.overset(frame, inside, room)
    const shown = over ? clipped(inside, room) : inside
    const band: Fragment[] = over ? [{ kind: 'overset', frame: over, x: 0, y: height, width }] : []
    return { width, height, fragments: [...outline(height), ...shown, ...band], overset: over }
  }

  private overset(frame: Frame, fragments: readonly Fragment[], room: number): OversetFrame | null {
    let lines = 0
    let characters = 0
    for (const fragment of fragments) {
      if (fragment.kind !== 'lines') continue
      let y = fragment.y
      for (let index = fragment.from; index < fragment.to; index++) {
        const line = fragment.layout.lines[index]!
        y += line.height
        if (y > room + 0.5) { lines++; characters += line.end - line.start }
      }
    }
    return lines > 0 && characters > 0 ? { part: frame.part, node: frame.node, name: frame.name, lines, characters } : null
  }

  /** A table: columns by their styles' widths, rows as high as their fullest cell. */
  table(table: Table, role: Story['role'], columnWidth: number): TableLayout {
    const properties = this.propertiesElement(table.part, 'table', table.styleName, 'style:table-properties')
    const margin = edges(properties, 'fo:margin')
    const relative = percent(properties['style:rel-width'])
    const stated = relative === null ? points(properties['style:width']) : relative * columnWidth
    const aligned = properties['table:align']
    const width = aligned === undefined || aligned === 'margins' ? columnWidth - margin.left - margin.right : Math.min(stated ?? columnWidth, columnWidth)
    const columns = table.columns.map(column => this.propertiesElement(table.part, 'table-column', column.styleName, 'style:table-column-properties'))
    const count = Math.max(columns.length, ...table.rows.map(row => row.cells.reduce((sum, cell) => sum + (cell.covered ? 1 : 1), 0)), 1)
    const weights = Array.from({ length: count }, (_, index) => {
      const column = columns[index]
      return points(column?.['style:column-width']) ?? (Number.parseFloat(column?.['style:rel-column-width'] ?? '') || width / count)
    })
    const total = weights.reduce((sum, each) => sum + each, 0) || 1
    const widths = weights.map(each => each * width / total)
    const starts = widths.map((_, index) => widths.slice(0, index).reduce((sum, each) => sum + each, 0))
    const pending: { rows: number, height: number }[] = []
    const rows = table.rows.map((row) => {
      const own = this.propertiesElement(table.part, 'table-row', row.styleName, 'style:table-row-properties')
      let height = points(own['style:min-row-height']) ?? points(own['style:row-height']) ?? 0
      const cells: { fragments: readonly Fragment[], x: number, width: number, properties: Properties, top: number }[] = []
      row.cells.forEach((cell, index) => {
        if (cell.covered || index >= count) return
        const span = widths.slice(index, index + cell.columnSpan).reduce((sum, each) => sum + each, 0)
        const style = this.properties(table.part, 'table-cell', cell.styleName, 'cell')
        const padding = edges(style, 'fo:padding')
        const border = borderWidths(style)
        const inner = this.stack(cell.blocks, role, Math.max(span - padding.left - padding.right - border.left - border.right, 5))
        const needed = inner.height + padding.top + padding.bottom + border.top + border.bottom
        if (cell.rowSpan > 1) pending.push({ rows: cell.rowSpan, height: needed })
        else height = Math.max(height, needed)
        cells.push({ fragments: shifted(inner.fragments, starts[index]! + padding.left + border.left, padding.top + border.top), x: starts[index]!, width: span, properties: style, top: needed })
      })
      // A cell over several rows asks the last of them for what the others did not give.
      for (const spanning of pending) {
        spanning.rows--
        if (spanning.rows === 0) height = Math.max(height, spanning.height)
        spanning.height -= height
      }
      const fragments: Fragment[] = []
      for (const cell of cells) {
        const border = borderWidths(cell.properties)
        const fill = cell.properties['fo:background-color'] ?? ''
        const stroke = border.top + border.bottom + border.left + border.right > 0 ? borderColor(cell.properties) : ''
        if (/^#[0-9a-f]{6}$/i.test(fill)) fragments.push({ kind: 'box', fill, stroke: '', strokeWidth: 0, x: cell.x, y: 0, width: cell.width, height })
        const edge = (x: number, y: number, w: number, h: number) => fragments.push({ kind: 'box', fill: stroke, stroke: '', strokeWidth: 0, x, y, width: w, height: h })
        if (border.top > 0) edge(cell.x, 0, cell.width, border.top)
        if (border.bottom > 0) edge(cell.x, height - border.bottom, cell.width, border.bottom)
        if (border.left > 0) edge(cell.x, 0, border.left, height)
        if (border.right > 0) edge(cell.x + cell.width - border.right, 0, border.right, height)
        const down = cell.properties['style:vertical-align'] === 'middle' ? (height - cell.top) / 2 : cell.properties['style:vertical-align'] === 'bottom' ? height - cell.top : 0
        fragments.push(...shifted(cell.fragments, 0, Math.max(down, 0)))
      }
      return { height, heading: row.heading, fragments }
    })
    const x = aligned === 'center' ? (columnWidth - width) / 2 : aligned === 'right' ? columnWidth - width : margin.left
    const scope = this.workshop.cascade.scope(table.part)
    const style = table.styleName === null ? undefined : findStyle(scope, 'table', table.styleName)
    return { x, width, rows, spaceBefore: margin.top, spaceAfter: margin.bottom, properties, masterPage: style?.attributes['style:master-page-name'] || null }
  }
}

/** Lines that fit; the rest of an overset frame is not drawn. */
function clipped(fragments: readonly Fragment[], room: number): Fragment[] {
  return fragments.flatMap((fragment): Fragment[] => {
    if (fragment.kind !== 'lines') return fragment.y <= room ? [fragment] : []
    let y = fragment.y
    let to = fragment.from
    while (to < fragment.to && y + fragment.layout.lines[to]!.height <= room + 0.5) y += fragment.layout.lines[to++]!.height
    return to > fragment.from ? [{ ...fragment, to }] : []
  })
}
