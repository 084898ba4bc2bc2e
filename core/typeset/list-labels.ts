import type { Paragraph } from '../document/story-model'
import type { ParagraphStyle } from '../style/cascade'
import { spanLayers } from '../style/layers'
import type { Look } from './look'
import { readLevelFor, type ListLevel } from './numbering'
import type { ParagraphLook } from './paragraph-look'
import type { SetLabel, Workshop } from './paragraph-model'
import type { SetText } from './setting'

/** What says how a paragraph begins: its style, and the label in front of it. */
export interface LabelParts {
  readonly style: ParagraphStyle
  readonly look: ParagraphLook
  readonly level: ListLevel | null
  readonly labelText: string
  readonly labelLook: Look | null
  /** A note's own number, in place of a label; null for other text. */
  readonly citation: string | null
}

/** Where the text begins, and the label in front of it (ODF 1.4 part 3, 17.19 and 17.20). */
export function startOfText(
  paragraph: Paragraph,
  parts: LabelParts,
  set: SetText,
  empty: Look,
  ignoresIndent: boolean,
): { left: number; firstIndent: number; label: SetLabel | null } {
  const { style, look, level, labelText, labelLook: ownLook, citation } = parts
  const { margin } = look
  const labelSet = (at: number): { label: SetLabel; end: number } => {
    const pieces = set.setString(labelText, ownLook!, 0, 0)
    return { label: { pieces, x: at, text: labelText }, end: at + pieces.reduce((sum, piece) => sum + piece.width, 0) }
  }
  if (citation !== null && labelText !== '') {
    const { label, end } = labelSet(Math.max(margin.left + look.indent, 0))
    return {
      left: margin.left,
      firstIndent: Math.max(end + empty.size * 0.25 - margin.left, look.indent < 0 ? 0 : look.indent),
      label,
    }
  }
  if (!level) return { left: margin.left, firstIndent: look.indent, label: null }
  // Where labels have the old attributes, the paragraph's own first line counts on top of them.
  const ownIndent = level.labelAlignment || ignoresIndent ? 0 : look.indent
  let left = margin.left
  if (paragraph.list)
    left = level.labelAlignment
      ? style.properties['fo:margin-left'] !== undefined && style.listStyle !== null
        ? margin.left
        : level.indent
      : margin.left + level.indent
  else if (labelText !== '') left = margin.left || level.indent
  const shown = paragraph.list && !paragraph.list.labelled ? '' : labelText
  if (shown === '') return { left, firstIndent: paragraph.list ? ownIndent : look.indent, label: null }
  const start = Math.max(level.labelAlignment ? level.labelIndent : left - level.minWidth + ownIndent, 0)
  const { label, end } = labelSet(start)
  const after = end + level.minDistance
  let firstIndent: number
  if (level.followedBy === 'space') firstIndent = after + empty.size * 0.25 - left
  else if (level.followedBy === 'listtab')
    firstIndent =
      Math.max(
        after > left
          ? Math.max(level.tabAt ?? 0, after + 2)
          : Math.max(level.tabAt !== null && level.tabAt > after ? Math.min(level.tabAt, left) : left, after),
        left,
      ) - left
  else firstIndent = Math.max(after - left, ownIndent)
  return { left, firstIndent, label }
}

/** The level of a list or of headings whose label a paragraph has; null where it has none. */
export function levelOf(paragraph: Paragraph, style: ParagraphStyle, workshop: Workshop): ListLevel | null {
  if (paragraph.list) return readLevelFor(paragraph, style, workshop.cascade, paragraph.list.level)
  return paragraph.heading === null ? null : readLevelFor(paragraph, style, workshop.cascade, paragraph.heading)
}

/** Labels take the paragraph's type, with the level's character style and then its own properties on top. */
export function labelLook(level: ListLevel, style: ParagraphStyle, workshop: Workshop): Look {
  const { cascade, typesetter } = workshop
  const scope = cascade.scope(level.part)
  const own = scope.part.first(level.element, 'style:text-properties')
  const layers = spanLayers(scope, { node: -1, styleName: level.textStyle, classNames: [], parent: null })
  if (own)
    layers.push({
      from: 'list',
      local: false,
      text: own.attributes,
      paragraph: {},
      style: {
        part: level.part,
        node: level.element.id,
        family: 'list',
        name: '',
        displayName: 'list label',
        parentName: null,
        origin: 'common',
        text: own.attributes,
        paragraph: {},
        graphic: {},
        cell: {},
        propertyNodes: {},
        attributes: {},
        maps: [],
      },
    })
  return typesetter.look(cascade.label(style.text, `${level.part} ${level.element.id}`, layers), 'western')
}
