import { paragraphsOf } from '../document/stories'
import { paragraphText } from '../style/runs'
import type { Inline, Paragraph } from '../document/story-model'
import type { OdfDocument } from '../document/open'
import { statedPages, type Composition } from './compose'

/*
 * Files carry where every page ended when they were saved: `text:soft-page-break` (OpenDocument 1.4 part 3, 5.6). Held
 * against our pages they tell how true those are.
 */

/** A place in the text: a paragraph by its node, and the offset in its text. */
export interface TextPlace {
  readonly node: number
  readonly offset: number
}

/** How our pages stand to those a file was saved with. */
export interface BreakMatch {
  /** Pages that the file says it has, and ours. */
  readonly pagesSaved: number
  readonly pages: number
  /** Places where a page ended when it was saved, and how many of our pages begin exactly there. */
  readonly breaks: number
  readonly met: number
  /**
   * By how much one page is longer or shorter here than there, in lines, on average: the change from break to break of
   * where the saved break stands on our page.
   */
  readonly drift: number
  /** The first saved break where none of our pages begins. */
  readonly first: { readonly page: number; readonly words: string; readonly lines: number } | null
}

const lengthOf = (inline: Inline): number =>
  inline.kind === 'annotation' ? 0 : inline.kind === 'frame' || inline.kind === 'note' ? 1 : inline.text.length
const nodeOf = (inline: Inline): number => (inline.kind === 'frame' ? inline.frame.node : inline.node)

/** Where the saved pages of a document's body begin, in reading order. The document must be as it was read. */
export function savedBreaks(document: OdfDocument, body: readonly Paragraph[]): TextPlace[] {
  const part = document.parts.get('content.xml')
  if (!part) return []
  const places: TextPlace[] = []
  // Nodes are numbered in the order of the file: a break stands behind whatever has a lower number.
  let next = 0
  for (const element of part.descendants()) {
    if (element.name !== 'text:soft-page-break') continue
    while (next < body.length && body[next]!.node < element.id) next++
    const before = body[next - 1]
    const place =
      before && isWithin(part.node(element.id).parent, before.node, id => part.node(id).parent)
        ? offsetIn(before, element.id)
        : body[next] && { node: body[next]!.node, offset: 0 }
    if (place) places.push(place)
  }
  return places
}

function isWithin(from: number, ancestor: number, parentOf: (id: number) => number): boolean {
  for (let id = from; id >= 0; id = parentOf(id)) if (id === ancestor) return true
  return false
}

function offsetIn(paragraph: Paragraph, node: number): TextPlace {
  let offset = 0
  for (const inline of paragraph.inlines) if (nodeOf(inline) < node) offset += lengthOf(inline)
  return { node: paragraph.node, offset }
}

/** Whether a paragraph holds nothing but frames that stand beside its line. */
const holdsFrames = ({ inlines }: Paragraph): boolean =>
  inlines.length > 0 && inlines.every(inline => inline.kind === 'frame' && inline.frame.anchor !== 'as-char')

/**
 * Paragraphs of the body by which a page may begin though its mark stands behind them, by the paragraph with the mark: of a
 * page that begins with nothing but a figure the mark is in the next paragraph, as files show whose lists of figures say
 * where each of these is. With each the paragraph in front of it, if there is one.
 */
function figuresBefore(document: OdfDocument, body: readonly Paragraph[]): Map<number, [Paragraph, Paragraph | null]> {
  const part = document.parts.get('content.xml')
  const isText = (id: number) => /^text:(p|h)$/.test(part!.element(id).name)
  const inText = ({ node }: Paragraph) => {
    for (let id = part!.node(node).parent; id >= 0; id = part!.node(id).parent) if (isText(id)) return true
    return false
  }
  const found = new Map<number, [Paragraph, Paragraph | null]>()
  const outer = part ? body.filter(paragraph => !inText(paragraph)) : []
  for (const [at, { node }] of outer.entries()) {
    const figure = outer[at - 1]
    if (figure && holdsFrames(figure)) found.set(node, [figure, outer[at - 2] ?? null])
  }
  return found
}

/** A line on our pages: the stretch of its paragraph's text, its page, and where its top is on it, in points. */
interface LineOnPage {
  readonly start: number
  readonly end: number
  readonly page: number
  readonly y: number
  readonly height: number
}

function linesOn(composition: Composition): { lines: Map<number, LineOnPage[]>; firsts: Map<number, TextPlace> } {
  const lines = new Map<number, LineOnPage[]>()
  const firsts = new Map<number, TextPlace>()
  const tops = new Map<number, number>()
  for (const page of composition.pages)
    for (const fragment of page.fragments) {
      if (fragment.kind !== 'lines' || fragment.layout.role !== 'body' || fragment.matrix) continue
      const { layout } = fragment
      let { y } = fragment
      for (let at = fragment.from; at < fragment.to; at++) {
        const { start, end, above, height } = layout.lines[at]!
        y += above
        const own = lines.get(layout.paragraph.node)
        const line = { start, end, page: page.index, y, height }
        if (own) own.push(line)
        else lines.set(layout.paragraph.node, [line])
        if (y < (tops.get(page.index) ?? Infinity)) {
          tops.set(page.index, y)
          firsts.set(page.index, { node: layout.paragraph.node, offset: start })
        }
        y += height
      }
    }
  return { lines, firsts }
}

/** Holds our pages against those a file was saved with; null where it says nothing of them. */
export function matchBreaks(composition: Composition): BreakMatch | null {
  const { document, stories } = composition.reading
  const body = [...paragraphsOf(stories.find(story => story.role === 'body')?.blocks ?? [])]
  const breaks = savedBreaks(document, body)
  if (breaks.length === 0) return null
  const { lines, firsts } = linesOn(composition)
  const begins = new Set([...firsts.values()].map(each => JSON.stringify([each.node, each.offset])))
  const figures = figuresBefore(document, body)
  const beginsWithFigure = ({ node, offset }: TextPlace, page: number): boolean => {
    const [figure, before] = (offset === 0 && figures.get(node)) || [null, null]
    const last = before && lines.get(before.node)?.at(-1)
    return (
      figure !== null &&
      lines.get(figure.node)?.[0]?.page === page &&
      last !== undefined &&
      last !== null &&
      last.page < page
    )
  }
  const usual = usualHeight(lines)
  let met = 0
  let first: BreakMatch['first'] = null
  let before: number | null = null
  const drifts: number[] = []
  for (const [index, place] of breaks.entries()) {
    const line = lines.get(place.node)?.find(each => place.offset < each.end || each.end === each.start)
    if (!line) {
      before = null
      continue
    }
    const page = composition.pages[line.page]!
    const whole = page.geometry.height - page.geometry.margin.top - page.geometry.margin.bottom
    const starts = begins.has(JSON.stringify([place.node, place.offset])) || beginsWithFigure(place, line.page)
    const down = starts ? 0 : line.y - page.geometry.margin.top
    if (starts) met++
    else
      first ??= {
        page: index + 2,
        words: paragraphText(body.find(each => each.node === place.node)!)
          .slice(place.offset, place.offset + 40)
          .replaceAll('\n', ' ')
          .trim(),
        lines: Math.round((Math.min(down, whole - down) / usual) * 10) / 10,
      }
    if (before !== null) {
      const change = (((down - before) % whole) + whole) % whole
      drifts.push(Math.min(change, whole - change) / usual)
    }
    before = down
  }
  return {
    pagesSaved: statedPages(document),
    pages: composition.pages.length,
    breaks: breaks.length,
    met,
    drift: drifts.length === 0 ? 0 : drifts.reduce((sum, each) => sum + each, 0) / drifts.length,
    first,
  }
}

/** The height of most lines, in points. */
function usualHeight(lines: ReadonlyMap<number, readonly LineOnPage[]>): number {
  const counts = new Map<number, number>()
  for (const list of lines.values()) for (const { height } of list) counts.set(height, (counts.get(height) ?? 0) + 1)
  return [...counts].sort((one, other) => other[1] - one[1])[0]?.[0] ?? 12
}
