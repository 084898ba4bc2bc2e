import type { Frame, Paragraph, Story } from '../document/stories'
import type { Cascade, ParagraphStyle, TextStyle } from '../style/cascade'
import { paragraphRuns } from '../style/runs'
import { percent, points } from '../style/properties'
import { edges, borderWidths, type Edges } from './geometry'
import { composeLines, type Alignment, type Leading, type Line, type Measure, type TabStop } from './lines'
import type { Look, Typesetter } from './look'
import { listStyleOf, readLevel, type ListLevel, type Numbering } from './numbering'
import { unitsOf, type Piece } from './units'

/** What everything that composes text works with. */
export interface Workshop {
  readonly cascade: Cascade
  readonly typesetter: Typesetter
  readonly numbering: Numbering
  /** Counts a feature that is kept in the file but not laid out. */
  readonly unlaid: (feature: string) => void
  /** Values of page fields where the text is set again for each page; null where stored text stands. */
  readonly fields: { readonly pageNumber: string, readonly pageCount: string } | null
  /** Paragraph spacing adds up, as some files ask; else the larger of two neighbours counts. */
  readonly spacingAdds: boolean
}

/** A paragraph set in lines. Lengths in points; x from the column's left edge. */
export interface ParagraphLayout {
  readonly paragraph: Paragraph
  readonly role: Story['role']
  readonly style: ParagraphStyle
  /** The text the lines' offsets count in. */
  readonly text: string
  readonly lines: readonly Line[]
  readonly x: number
  readonly width: number
  readonly label: { readonly pieces: readonly Piece[], readonly x: number, readonly text: string } | null
  readonly padding: Edges
  readonly spaceBefore: number
  readonly spaceAfter: number
  /** Frames anchored to it that do not stand in its lines. */
  readonly frames: readonly Frame[]
}

interface Set { readonly measure: Omit<Measure, 'frameSize'>, readonly margin: Edges, readonly padding: Edges, readonly border: Edges, readonly indent: number }
const sets = new WeakMap<ParagraphStyle, Map<number, Set>>()

function leadingOf(style: TextStyle): Leading {
  const { leading } = style.effective
  const height = leading['fo:line-height']
  return {
    factor: height === undefined || height === 'normal' ? 1 : percent(height) ?? 1, fixed: points(height),
    atLeast: points(leading['style:line-height-at-least']) ?? 0, extra: points(leading['style:line-spacing']) ?? 0,
  }
}

function alignmentOf(value: string | undefined, rightToLeft: boolean, fallback: Alignment): Alignment {
  switch (value) {
    case 'start': return rightToLeft ? 'right' : 'left'
    case 'end': return rightToLeft ? 'left' : 'right'
    case 'left': case 'right': case 'center': case 'justify': return value
    default: return fallback
  }
}

function tabStops(cascade: Cascade, style: ParagraphStyle): TabStop[] {
  if (!style.tabsNode) return []
  const { part } = cascade.scope(style.tabsNode.part)
  const holder = part.first(part.element(style.tabsNode.node), 'style:tab-stops')!
  const stops = [...part.elements(holder, 'style:tab-stop')].map(({ attributes }): TabStop => {
    const type = attributes['style:type']
    return { position: points(attributes['style:position']) ?? 0, type: type === 'right' || type === 'center' ? type : type === 'char' ? 'right' : 'left', leader: attributes['style:leader-text'] ?? (attributes['style:leader-style'] && attributes['style:leader-style'] !== 'none' ? '.' : '') }
  })
  return stops.sort((a, b) => a.position - b.position)
}

function setOf(style: ParagraphStyle, width: number, cascade: Cascade): Set {
  let byWidth = sets.get(style)
  if (!byWidth) sets.set(style, byWidth = new Map())
  let set = byWidth.get(width)
  if (!set) {
    const { properties } = style
    const rightToLeft = /^rl/.test(properties['style:writing-mode'] ?? '')
    const alignment = alignmentOf(properties['fo:text-align'], rightToLeft, rightToLeft ? 'right' : 'left')
    const plain = rightToLeft ? 'right' : 'left'
    set = {
      margin: edges(properties, 'fo:margin'), padding: edges(properties, 'fo:padding'), border: borderWidths(properties),
      indent: properties['style:auto-text-indent'] === 'true' ? style.text.effective.slots.western.size : points(properties['fo:text-indent']) ?? 0,
      measure: {
        width, firstIndent: 0, alignment, lastAlignment: alignment === 'justify' ? alignmentOf(properties['fo:text-align-last'], rightToLeft, plain) : alignment,
        rightToLeft, tabs: tabStops(cascade, style), tabDistance: points(properties['style:tab-stop-distance']) || 35.4, leading: leadingOf(style.text),
      },
    }
    byWidth.set(width, set)
  }
  return set
}

/** Which frames stand in the line as characters; all others stand beside or between the paragraphs. */
function standsInLine(frame: Frame): boolean { return frame.anchor === 'as-char' }

/** Sets a paragraph in a column of some width. */
export function layoutParagraph(paragraph: Paragraph, role: Story['role'], columnWidth: number, workshop: Workshop, frameSize: Measure['frameSize']): ParagraphLayout {
  const { cascade, typesetter } = workshop
  const style = cascade.paragraph(paragraph, role)
  const set = setOf(style, columnWidth, cascade)
  const frames: Frame[] = []
  let shown = paragraph
  const fields = workshop.fields
  if (paragraph.inlines.some(inline => (inline.kind === 'frame' && !standsInLine(inline.frame)) || (fields && inline.kind === 'text' && inline.field !== null))) {
    shown = {
      ...paragraph,
      inlines: paragraph.inlines.flatMap((inline) => {
        if (inline.kind === 'frame' && !standsInLine(inline.frame)) { frames.push(inline.frame); return [] }
        if (fields && inline.kind === 'text' && inline.field === 'text:page-number') return [{ ...inline, text: fields.pageNumber }]
        if (fields && inline.kind === 'text' && inline.field === 'text:page-count') return [{ ...inline, text: fields.pageCount }]
        return [inline]
      }),
    }
  }
  const { text: whole, runs } = paragraphRuns(shown, cascade, role)
  const empty = typesetter.look(style.text, 'western')
  const units = unitsOf({ text: whole, runs }, typesetter, set.measure.rightToLeft)
  if (style.tabsNode && cascade.scope(style.tabsNode.part).part.first(cascade.scope(style.tabsNode.part).part.element(style.tabsNode.node), 'style:drop-cap')) workshop.unlaid('drop caps')
  if (style.text.effective.shared['fo:font-variant'] === 'small-caps') workshop.unlaid('small capitals')

  const level = levelOf(paragraph, style, workshop)
  const { margin, padding, border } = set
  let left = margin.left
  let firstIndent = set.indent
  let label: ParagraphLayout['label'] = null
  if (level) {
    const text = paragraph.list ? workshop.numbering.label(paragraph.list, level, each => readLevelFor(paragraph, style, workshop, each)) : workshop.numbering.heading(paragraph.heading!, level, each => readLevelFor(paragraph, style, workshop, each))
    if (paragraph.list) left = level.labelAlignment ? (style.properties['fo:margin-left'] !== undefined && style.listStyle !== null ? margin.left : level.indent) : margin.left + level.indent
    else if (text !== '') left = margin.left || level.indent
    const shownLabel = paragraph.list && !paragraph.list.labelled ? '' : text
    const start = level.labelAlignment ? level.labelIndent : left - level.minWidth
    firstIndent = 0
    if (shownLabel !== '') {
      const look = labelLook(level, style, workshop)
      const setLabel = typesetter.withGlyphs(look, shownLabel).map(part => ({ look: part.look, ...typesetter.setter(part.look, false)(part.text) }))
      const labelWidth = setLabel.reduce((sum, part) => sum + part.width, 0)
      const pieces = setLabel.map((part): Piece => ({ look: part.look, shaped: part.shaped, width: part.width, start: 0, end: 0, level: 0, run: { start: 0, end: 0, style: part.look.style, slot: part.look.slot, inline: { kind: 'break', node: paragraph.node, text: '', span: null }, inlineStart: 0, node: paragraph.node } }))
      label = { pieces, x: Math.max(start, 0), text: shownLabel }
      const after = label.x + labelWidth + level.minDistance
      if (level.followedBy === 'space') firstIndent = after + empty.size * 0.25 - left
      else if (level.followedBy === 'listtab') firstIndent = Math.max(after > left ? Math.max(level.tabAt ?? 0, after + 2) : Math.max(level.tabAt !== null && level.tabAt > after ? Math.min(level.tabAt, left) : left, after), left) - left
      else firstIndent = Math.max(after - left, 0)
    }
    else if (level.labelAlignment && paragraph.list?.labelled === false) firstIndent = 0
  }
  const width = Math.max(columnWidth - left - margin.right - padding.left - padding.right - border.left - border.right, 10)
  // Tab stops count from the paragraph's indent, as files are written since ODF 1.2 (19.853).
  const measure: Measure = { ...set.measure, width, firstIndent, frameSize }
  const lines = composeLines(units, empty, measure, typesetter)
  return {
    paragraph: shown, role, style, text: whole, lines, x: left + padding.left + border.left, width, label, frames,
    padding: { top: padding.top + border.top, right: padding.right + border.right, bottom: padding.bottom + border.bottom, left: padding.left + border.left },
    spaceBefore: margin.top, spaceAfter: margin.bottom,
  }
}

function readLevelFor(paragraph: Paragraph, style: ParagraphStyle, workshop: Workshop, level: number): ListLevel | null {
  const scope = workshop.cascade.scope(paragraph.part)
  const named = paragraph.list ? listStyleOf(scope, paragraph.list, style.listStyle) : style.listStyle !== null && scope.lists.has(style.listStyle) ? scope.lists.get(style.listStyle)! : scope.outline
  return named ? readLevel(named.part, named.element, level) : null
}

function levelOf(paragraph: Paragraph, style: ParagraphStyle, workshop: Workshop): ListLevel | null {
  if (paragraph.list) return readLevelFor(paragraph, style, workshop, paragraph.list.level)
  return paragraph.heading === null ? null : readLevelFor(paragraph, style, workshop, paragraph.heading)
}

/** Labels take the paragraph's type with the level's own text style and properties on top. */
function labelLook(level: ListLevel, style: ParagraphStyle, workshop: Workshop): Look {
  const { cascade, typesetter } = workshop
  const { part } = cascade.scope(level.part)
  const own = part.first(level.element, 'style:text-properties')
  const layers = own
    ? [{ from: 'list' as const, local: false, text: own.attributes, paragraph: {}, style: { part: level.part, node: level.element.id, family: 'list', name: '', displayName: 'list label', parentName: null, origin: 'common' as const, text: own.attributes, paragraph: {}, graphic: {}, cell: {}, propertyNodes: {}, attributes: {}, maps: [] } }]
    : []
  return typesetter.look(cascade.label(style.text, `${level.part} ${level.element.id}`, layers), 'western')
}
