import { paragraphsOf } from '../document/stories'
import type { ListItem, Paragraph, Story } from '../document/story-model'
import type { StyleScope } from '../document/styles'
import type { Cascade, ParagraphStyle } from '../style/cascade'
import { points } from '../document/lengths'
import type { XmlElement, XmlPart } from '../xml/tree'

/** How a list level labels its items and where it puts them. Lengths in points. */
export interface ListLevel {
  readonly kind: 'number' | 'bullet' | 'image' | 'none'
  readonly part: string
  readonly element: XmlElement
  readonly bullet: string
  readonly format: string
  readonly prefix: string
  readonly suffix: string
  readonly start: number
  readonly displayLevels: number
  readonly textStyle: string | null
  /** From the text's left edge: where continuation lines and the label begin. */
  readonly indent: number
  readonly labelIndent: number
  readonly tabAt: number | null
  readonly followedBy: 'listtab' | 'space' | 'nothing'
  readonly minWidth: number
  readonly minDistance: number
  /**
   * Legacy positions add to the paragraph's indent, label-alignment ones take its place (ODF 1.4 part 3, 17.19 and
   * 17.20).
   */
  readonly labelAlignment: boolean
}

/** Reads a level of a list or outline style. */
export function readLevel(part: XmlPart, style: XmlElement, level: number): ListLevel | null {
  for (const element of part.elements(style)) {
    if (element.attributes['text:level'] !== String(level)) continue
    const { attributes } = element
    const properties = part.first(element, 'style:list-level-properties')
    const alignment = properties && part.first(properties, 'style:list-level-label-alignment')
    const own = properties?.attributes ?? {}
    const aligned = own['text:list-level-position-and-space-mode'] === 'label-alignment'
    const placed = alignment?.attributes ?? {}
    const spaceBefore = points(own['text:space-before']) ?? 0
    const minWidth = points(own['text:min-label-width']) ?? 0
    const marginLeft = points(placed['fo:margin-left']) ?? 0
    const follows = placed['text:label-followed-by']
    return {
      kind: element.name.endsWith('bullet')
        ? 'bullet'
        : element.name.endsWith('image')
          ? 'image'
          : attributes['style:num-format'] || attributes['style:num-prefix'] || attributes['style:num-suffix']
            ? 'number'
            : 'none',
      part: part.path,
      element,
      bullet: attributes['text:bullet-char'] ?? '•',
      format: attributes['style:num-format'] ?? '',
      prefix: attributes['style:num-prefix'] ?? '',
      suffix: attributes['style:num-suffix'] ?? '',
      start: Number.parseInt(attributes['text:start-value'] ?? '1', 10) || 1,
      displayLevels: Number.parseInt(attributes['text:display-levels'] ?? '1', 10) || 1,
      textStyle: attributes['text:style-name'] ?? null,
      indent: aligned ? marginLeft : spaceBefore + minWidth,
      labelIndent: aligned ? marginLeft + (points(placed['fo:text-indent']) ?? 0) : spaceBefore,
      tabAt: points(placed['text:list-tab-stop-position']),
      followedBy: aligned ? (follows === 'space' || follows === 'nothing' ? follows : 'listtab') : 'nothing',
      minWidth,
      minDistance: points(own['text:min-label-distance']) ?? 0,
      labelAlignment: aligned,
    }
  }
  return null
}

const romans: readonly (readonly [number, string])[] = [
  [1000, 'm'],
  [900, 'cm'],
  [500, 'd'],
  [400, 'cd'],
  [100, 'c'],
  [90, 'xc'],
  [50, 'l'],
  [40, 'xl'],
  [10, 'x'],
  [9, 'ix'],
  [5, 'v'],
  [4, 'iv'],
  [1, 'i'],
]

/** A number in a format of style:num-format (ODF 1.4 part 3, 19.502): 1, a, A, i, I. */
export function formatNumber(value: number, format: string): string {
  if (format === 'a' || format === 'A') {
    let letters = ''
    for (let rest = value; rest > 0; rest = Math.floor((rest - 1) / 26))
      letters = String.fromCharCode(97 + ((rest - 1) % 26)) + letters
    return format === 'A' ? letters.toUpperCase() : letters
  }
  if (format === 'i' || format === 'I') {
    let rest = value
    let written = ''
    for (const [worth, sign] of romans)
      while (rest >= worth) {
        written += sign
        rest -= worth
      }
    return format === 'I' ? written.toUpperCase() : written
  }
  return format === '' ? '' : String(value)
}

/** How far the items of a list, or of lists that go on with one another, are counted. */
interface Counts {
  /** By level from 0: the number of its last item. */
  readonly now: number[]
  /** What levels had counted before a higher one went on: lists may go on with that. */
  readonly before: number[]
  /** By level: the item that was counted last. */
  readonly items: number[]
}

/** Counts list items and headings in reading order. */
export class Numbering {
  private readonly lists = new Map<number, Counts>()
  /** The list of a style that was counted last. */
  private readonly byStyle = new Map<string, Counts>()
  private outline: number[] = []

  /** The label of a list item, '' where it has none. */
  label(item: ListItem, level: ListLevel, levels: (level: number) => ListLevel | null): string {
    const counts = this.countsOf(item)
    const at = item.level - 1
    if (counts.items[item.level] !== item.item) {
      counts.items[item.level] = item.item
      for (let deeper = item.level; deeper < counts.now.length; deeper++) {
        const counted = counts.now[deeper]
        if (counted !== undefined) counts.before[deeper] = counted
      }
      counts.now.length = Math.min(counts.now.length, item.level)
      const last = counts.now[at] ?? (item.continuesLevel ? counts.before[at] : undefined)
      counts.now[at] = item.startValue ?? (last === undefined ? level.start : last + 1)
    }
    if (level.kind === 'bullet') return level.prefix + level.bullet + level.suffix
    return level.kind === 'number' ? this.written(counts.now, item.level, level, levels) : ''
  }

  /**
   * The counts that an item goes on with: those of its list; of the list that its list names (text:continue-list), or of
   * the one before it of the same style (text:continue-numbering; OpenDocument 1.4 part 3, 19.780 and 19.781).
   */
  private countsOf(item: ListItem): Counts {
    let counts = this.lists.get(item.list)
    if (!counts) {
      if (item.continuesList !== null) counts = this.lists.get(item.continuesList)
      else if (item.continues && item.styleName !== null) counts = this.byStyle.get(item.styleName)
      counts ??= { now: [], before: [], items: [] }
      this.lists.set(item.list, counts)
    }
    if (item.styleName !== null) this.byStyle.set(item.styleName, counts)
    return counts
  }

  /** The number of a heading, '' where its level has none. */
  heading(outlineLevel: number, level: ListLevel, levels: (level: number) => ListLevel | null): string {
    this.outline.length = Math.min(this.outline.length, outlineLevel)
    this.outline[outlineLevel - 1] = (this.outline[outlineLevel - 1] ?? level.start - 1) + 1
    return level.kind === 'number' ? this.written(this.outline, outlineLevel, level, levels) : ''
  }

  /** Makes the next heading of a level bear a number. */
  restart(outlineLevel: number, number: number): void {
    this.outline.length = Math.min(this.outline.length, outlineLevel)
    this.outline[outlineLevel - 1] = number - 1
  }

  private written(
    counts: readonly number[],
    at: number,
    level: ListLevel,
    levels: (level: number) => ListLevel | null,
  ): string {
    const parts: string[] = []
    // Without a format there is no number, of higher levels neither (ODF 1.4 part 3, 19.502).
    if (level.format === '') return level.prefix + level.suffix
    for (let each = Math.max(1, at - level.displayLevels + 1); each <= at; each++) {
      const own = levels(each)
      const text = formatNumber(counts[each - 1] ?? own?.start ?? 1, own?.format ?? '')
      if (text !== '') parts.push(text)
    }
    return level.prefix + parts.join('.') + level.suffix
  }
}

/** The list style a paragraph's label comes from: its own list's, or the one its paragraph style names. */
export function listStyleOf(
  scope: StyleScope,
  item: ListItem | null,
  fromParagraph: string | null,
): { part: XmlPart; element: XmlElement } | null {
  const name = item?.styleName ?? (item ? fromParagraph : null)
  return name === null ? null : (scope.lists.get(name) ?? null)
}

/** The level of the list or outline that a paragraph stands in. */
export function readLevelFor(
  paragraph: Paragraph,
  style: ParagraphStyle,
  cascade: Cascade,
  level: number,
): ListLevel | null {
  const scope = cascade.scope(paragraph.part)
  const named = paragraph.list
    ? listStyleOf(scope, paragraph.list, style.listStyle)
    : style.listStyle !== null && scope.lists.has(style.listStyle)
      ? scope.lists.get(style.listStyle)!
      : scope.outline
  return named ? readLevel(named.part, named.element, level) : null
}

/** Labels of list items and numbers of headings; paragraphs without one are not in it. */
export type Labels = ReadonlyMap<Paragraph, string>

/** Numbers all paragraphs of some stories in reading order, before anything is set: a label does not hang on pages. */
export function numberParagraphs(stories: readonly Story[], cascade: Cascade): Labels {
  const labels = new Map<Paragraph, string>()
  const numbering = new Numbering()
  for (const story of stories) {
    for (const paragraph of paragraphsOf(story.blocks)) {
      if (!paragraph.list && paragraph.heading === null) continue
      const style = cascade.paragraph(paragraph, story.role)
      const levels = (level: number) => readLevelFor(paragraph, style, cascade, level)
      const level = levels(paragraph.list?.level ?? paragraph.heading!)
      if (!level) continue
      const { attributes } = cascade.scope(paragraph.part).part.element(paragraph.node)
      if (!paragraph.list && attributes['text:is-list-header'] === 'true') continue
      if (!paragraph.list && attributes['text:restart-numbering'] === 'true')
        numbering.restart(paragraph.heading!, Number.parseInt(attributes['text:start-value'] ?? '', 10) || level.start)
      const label = paragraph.list
        ? numbering.label(paragraph.list, level, levels)
        : numbering.heading(paragraph.heading!, level, levels)
      if (label !== '') labels.set(paragraph, label)
    }
  }
  return labels
}
