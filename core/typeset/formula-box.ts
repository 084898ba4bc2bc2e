import type { Operator } from './formula-operators'
import { turned, type Fragment } from './fragments'
import { after, scaling, translation } from './matrix'

/** Something set in a formula. Lengths in points; fragments from the left end of its baseline. */
export interface Box {
  readonly width: number
  readonly ascent: number
  readonly descent: number
  readonly fragments: readonly Fragment[]
  /** The operator that it is, or that it is built on. */
  readonly operator?: { readonly text: string; readonly how: Operator }
}

/** What takes no room and shows nothing. */
export const nothing: Box = { width: 0, ascent: 0, descent: 0, fragments: [] }

const opening = new Set(['(', '[', '{', '⟨', '〈', '⌈', '⌊'])
const closing = new Set([')', ']', '}', '⟩', '〉', '⌉', '⌋'])

/** Which fences of a row belong together, by their places; bars are taken two by two. */
function partners(boxes: readonly Box[]): ReadonlyMap<number, number> {
  const found = new Map<number, number>()
  const open: { readonly text: string; readonly index: number }[] = []
  boxes.forEach((box, index) => {
    const text = box.operator?.how.stretches ? box.operator.text : ''
    const bar = text !== '' && !opening.has(text) && !closing.has(text)
    const last = open.at(-1)
    if (closing.has(text) || (bar && last?.text === text)) {
      const other = open.pop()
      if (other) found.set(index, other.index).set(other.index, index)
    } else if (text !== '') open.push({ text, index })
  })
  return found
}

/** Fences as high as what they hold: what stands between a pair, or where one stands alone all of the row. */
export function stretched(boxes: readonly Box[], axis: number): readonly Box[] {
  const partner = partners(boxes)
  return boxes.map((box, index) => {
    if (!box.operator?.how.stretches || box.fragments.length === 0) return box
    const other = partner.get(index)
    const held = other === undefined ? boxes : boxes.slice(Math.min(index, other) + 1, Math.max(index, other))
    const reach = Math.max(
      0,
      ...held.flatMap(each => (each.operator?.how.stretches ? [] : [each.ascent - axis, each.descent + axis])),
    )
    const half = (box.ascent + box.descent) / 2
    const factor = reach / half
    if (factor <= 1.1) return box
    const middle = half - box.descent
    const matrix = after(translation(0, -axis), after(scaling(1, factor), translation(0, middle)))
    return {
      ...box,
      ascent: axis + half * factor,
      descent: half * factor - axis,
      fragments: turned(box.fragments, matrix),
    }
  })
}
