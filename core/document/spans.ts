import { elementMarkup } from '../xml/edit'
import { cloned, closing, cutTail } from './cutting'
import type { Draft } from './draft'
import { openParagraph, rawOffset } from './paragraph-spots'
import { isWithin, outermostOf } from './span-places'

/*
 * Spans over stretches of a paragraph's text. Offsets are those of paragraph-spots.ts. None of this changes what text
 * there is: only which elements stand around it.
 */

/**
 * Cuts the spans that reach over a place of a paragraph in two there. Links, fields and ruby are never cut: spans around
 * them stay whole, and a place inside a field counts as its end.
 */
export function splitSpansAt(draft: Draft, paragraph: number, offset: number): void {
  const { pieces } = openParagraph(draft.part, paragraph)
  const shown = pieces.filter(piece => piece.end > piece.start)
  const inside = shown.find(
    piece => piece.start < offset && piece.end > offset && piece.kind === 'text' && piece.field === null,
  )
  const at = inside ?? shown.find(piece => piece.start >= offset)
  if (!at) return
  const before = inside ?? shown[shown.indexOf(at) - 1]
  if (!before) return
  // Up to the elements that begin at the place, then on through the spans that reach over it.
  let node = outermostOf(at)
  const above = (id: number) => draft.part.node(id).parent
  const isSpan = (id: number) => id !== paragraph && draft.part.element(id).name === 'text:span'
  while (isSpan(above(node)) && !isWithin(draft.part, outermostOf(before), above(node))) node = above(node)
  let top = -1
  for (let id = above(node); isSpan(id); id = above(id)) top = id
  if (top < 0) return
  const element = draft.part.element(top)
  const tail = cutTail(draft, top, { node, raw: inside ? rawOffset(at, offset) : null, before: true })
  const tag = cloned(element)
  draft.place(element.parent, draft.indexOf(top) + 1, `${tag}${tail.source}${closing(tag)}`, [
    ...draft.newIds(1),
    ...tail.ids,
  ])
}

/** What is put into a span together: neighbours in one element, the first and last perhaps in part. */
interface Stretch {
  readonly parent: number
  readonly nodes: number[]
  from: number
  to: number | null
}

/** Neighbouring nodes that hold a stretch of text: in the innermost elements, or among the paragraph's own children. */
function stretches(draft: Draft, paragraph: number, from: number, to: number, outermost: boolean): Stretch[] {
  const found: Stretch[] = []
  for (const piece of openParagraph(draft.part, paragraph).pieces) {
    const start = Math.max(piece.start, from)
    const end = Math.min(piece.end, to)
    if (start >= end || piece.kind === 'frame') continue
    let node = outermostOf(piece)
    const partial = piece.kind === 'text' && piece.field === null
    const whole = start === piece.start && end === piece.end
    // Outermost: spans that lie wholly in the stretch go in as they are.
    if (outermost) {
      for (
        let id = draft.part.node(node).parent;
        id !== paragraph && draft.part.element(id).name === 'text:span' && spanLies(draft, paragraph, id, from, to);
        id = draft.part.node(id).parent
      )
        node = id
    }
    const own = node === piece.node && partial && !whole
    const raw = own
      ? ([
          start === piece.start ? 0 : rawOffset(piece, start, 'after'),
          end === piece.end ? null : rawOffset(piece, end, 'before'),
        ] as const)
      : ([0, null] as const)
    const { parent } = draft.part.node(node)
    const last = found.at(-1)
    const lastNode = last?.nodes.at(-1)
    if (last && lastNode === node) continue
    const siblings = draft.part.element(parent).children
    if (
      last &&
      last.parent === parent &&
      last.to === null &&
      raw[0] === 0 &&
      siblings.indexOf(node) === siblings.indexOf(lastNode!) + 1
    ) {
      last.nodes.push(node)
      last.to = raw[1]
    } else found.push({ parent, nodes: [node], from: raw[0], to: raw[1] })
  }
  return found
}

/** Whether all text of a span lies in a stretch of its paragraph. */
function spanLies(draft: Draft, paragraph: number, span: number, from: number, to: number): boolean {
  return openParagraph(draft.part, paragraph).pieces.every(
    piece => (piece.start >= from && piece.end <= to) || !isWithin(draft.part, outermostOf(piece), span),
  )
}

/**
 * Puts a stretch of text into spans of a text style. The new spans stand innermost, so that their style wins; with
 * `outermost` they stand around the spans that are there, which then win. Frames are left outside. Returns the spans.
 */
export function wrapRange(
  draft: Draft,
  paragraph: number,
  from: number,
  to: number,
  styleName: string,
  outermost = false,
): number[] {
  const made: number[] = []
  // From the end, so that what is still to come stays where it is.
  for (const stretch of stretches(draft, paragraph, from, to, outermost).reverse())
    made.unshift(wrapStretch(draft, stretch, styleName))
  return made
}

function wrapStretch(draft: Draft, { parent, nodes, from, to }: Stretch, styleName: string): number {
  const last = draft.part.node(nodes.at(-1)!)
  if (last.kind === 'text' && to !== null && to < last.text.length) cutText(draft, last.id, to)
  const first = draft.part.node(nodes[0]!)
  let index = draft.indexOf(first.id)
  if (first.kind === 'text' && from > 0) {
    cutText(draft, first.id, from)
    index++
  }
  return draft.wrap(
    parent,
    index,
    nodes.length,
    elementMarkup(draft.part, draft.part.element(parent), 'text:span', { 'text:style-name': styleName }).replace(
      /\/>$/,
      '>',
    ),
  )
}

/** Makes two text nodes of one: something is to come between them. */
export function cutText(draft: Draft, id: number, at: number): void {
  const { parent, text } = draft.textNode(id)
  const rest = draft.slice(id, at, text.length)
  draft.splice(id, at, text.length, '')
  draft.place(parent, draft.indexOf(id) + 1, rest, draft.newIds(1))
}

/** Takes a span away and leaves what is in it. */
export function unwrapSpan(draft: Draft, span: number): void {
  const { parent } = draft.part.node(span)
  draft.unwrap(span)
  draft.mergeTexts(parent)
}
