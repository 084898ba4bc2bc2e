import type { XmlPart } from '../xml/tree'
import { openParagraph, type OpenParagraph, type TextPiece } from './paragraph-spots'

/*
 * Where the spans of a paragraph stand, and over which of its text. Offsets are those of paragraph-spots.ts.
 */

/** The element or text node that stands for a piece: a field goes as a whole. */
export const outermostOf = (piece: TextPiece): number => piece.field ?? piece.node

/** Whether a node stands in another one, or is it. */
export function isWithin(part: XmlPart, node: number, ancestor: number): boolean {
  for (let id = node; id >= 0; id = part.node(id).parent) if (id === ancestor) return true
  return false
}

/** The name of the style that a span, link or paragraph goes by; null where it names none. */
export const styleNameAt = (part: XmlPart, node: number): string | null =>
  part.element(node).attributes['text:style-name'] ?? null

/** Whether an element is a span: links, fields and ruby are not. */
export const isSpan = (part: XmlPart, node: number): boolean => part.element(node).name === 'text:span'

/** The spans around a piece of text, outer ones first. */
export function spansAround({ part, element }: OpenParagraph, piece: TextPiece): number[] {
  const spans: number[] = []
  for (let id = part.node(outermostOf(piece)).parent; id !== element.id && id >= 0; id = part.node(id).parent)
    if (isSpan(part, id)) spans.unshift(id)
  return spans
}

/** Whether a span also holds text outside of a stretch. */
export function reachesBeyond({ part, pieces }: OpenParagraph, span: number, from: number, to: number): boolean {
  return pieces.some(
    piece => (piece.start < from || piece.end > to) && piece.end !== piece.start && isWithin(part, piece.node, span),
  )
}

/** Spans all of whose text lies in a stretch of a paragraph, outer ones first. */
export function spansWithin(part: XmlPart, paragraph: number, from: number, to: number): number[] {
  const extents = new Map<number, { from: number; to: number }>()
  for (const piece of openParagraph(part, paragraph).pieces) {
    for (let id = part.node(piece.node).parent; id !== paragraph && id >= 0; id = part.node(id).parent) {
      if (!isSpan(part, id)) continue
      const known = extents.get(id)
      extents.set(id, { from: Math.min(known?.from ?? Infinity, piece.start), to: Math.max(known?.to ?? 0, piece.end) })
    }
  }
  return [...extents]
    .filter(([, extent]) => extent.from >= from && extent.to <= to && extent.to > extent.from)
    .map(([id]) => id)
    .sort((a, b) => depth(part, a) - depth(part, b))
}

function depth(part: XmlPart, id: number): number {
  let levels = 0
  for (let at = id; at >= 0; at = part.node(at).parent) levels++
  return levels
}

/** A stretch of a paragraph's text. */
export interface Extent {
  from: number
  to: number
}

/** Stretches of a range that stand in no span of the range, from the end to the beginning. */
export function stretchesOutsideSpans(part: XmlPart, paragraph: number, from: number, to: number): Extent[] {
  const inside = new Set(spansWithin(part, paragraph, from, to))
  const found: Extent[] = []
  for (const piece of openParagraph(part, paragraph).pieces) {
    const start = Math.max(piece.start, from)
    const end = Math.min(piece.end, to)
    if (start >= end) continue
    let spanned = false
    for (let id = part.node(piece.node).parent; id !== paragraph && id >= 0 && !spanned; id = part.node(id).parent)
      spanned = inside.has(id)
    if (spanned) continue
    const last = found.at(-1)
    if (last?.to === start) last.to = end
    else found.push({ from: start, to: end })
  }
  return found.reverse()
}

/** The spans and links with a style of their own, of all text that lies wholly in a stretch; from the inside out. */
export function styledWithin(
  part: XmlPart,
  paragraph: number,
  from: number,
  to: number,
): { readonly node: number; readonly name: string }[] {
  const found = new Map<number, string>()
  for (const piece of openParagraph(part, paragraph).pieces) {
    if (piece.start < from || piece.end > to || piece.end === piece.start) continue
    for (let id = piece.node; id !== paragraph && id >= 0; id = part.node(id).parent) {
      const node = part.node(id)
      if (node.kind !== 'element' || (node.name !== 'text:span' && node.name !== 'text:a')) continue
      const name = node.attributes['text:style-name']
      if (name) found.set(id, name)
    }
  }
  return [...found].map(([node, name]) => ({ node, name }))
}

/** The text that a span holds, as a stretch of its paragraph; null where it holds none. */
export function extentOf(part: XmlPart, span: number): (Extent & { readonly paragraph: number }) | null {
  let { name, id, parent } = part.element(span)
  while (name !== 'text:p' && name !== 'text:h') ({ name, id, parent } = part.element(parent))
  const within = openParagraph(part, id).pieces.filter(
    piece => piece.end > piece.start && isWithin(part, piece.node, span),
  )
  return within.length === 0 ? null : { paragraph: id, from: within[0]!.start, to: within.at(-1)!.end }
}

/** Spans of a part, or of one element of it, that go by a style. */
export function spansBy(part: XmlPart, is: (styleName: string) => boolean, within?: number): number[] {
  return [...part.descendants(within === undefined ? undefined : part.element(within))]
    .filter(each => each.name === 'text:span' && is(each.attributes['text:style-name'] ?? ''))
    .map(({ id }) => id)
}

/** Whether an attribute is all that an element says. */
export const saysOnly = (part: XmlPart, node: number, attribute: string): boolean =>
  Object.keys(part.element(node).attributes).every(each => each === attribute)
