import { edgesOf, inkAlong, polygonsOf, type Edges } from '../measure/outline'

/** How a face's letters are drawn and how far apart it sets them. All in thousandths of an em, y upward. */
export interface PairSource {
  /** Outline of a character's own glyph as path data of M, L, Q, C and Z; '' for what the face lacks or leaves empty. */
  outline(character: string): string
  /** Advance of a character that is set by itself. */
  advance(character: string): number
  /** What the face itself adds between two characters that stand together; null where it ties them into one sign. */
  kern(left: string, right: string): number | null
}

/** Heights at which sides are read are about this far apart, in thousandths of an em: near enough for serifs and crossbars. */
const step = 20

/**
 * The white beside a letter: at each height of a band how far its ink is from the edge of its advance, in thousandths of
 * an em. Infinity where it has no ink at that height.
 */
export interface Sides {
  readonly left: Float64Array
  readonly right: Float64Array
}

/** Edges of a character's ink, or null where it has none. */
export function inkOf(source: PairSource, character: string): Edges | null {
  const polygons = polygonsOf(source.outline(character))
  return polygons.length === 0 ? null : edgesOf(polygons)
}

/** The white on both sides of a letter between two heights. */
export function sidesOf(edges: Edges, advance: number, bottom: number, top: number): Sides {
  const count = Math.max(4, Math.round((top - bottom) / step))
  const left = new Float64Array(count).fill(Infinity)
  const right = new Float64Array(count).fill(Infinity)
  for (let at = 0; at < count; at++) {
    // A little off round figures: a line along an edge would meet both of its ends.
    const ink = inkAlong(edges, 'x', bottom + ((at + 0.5) * (top - bottom)) / count + 0.013)
    if (ink.length === 0) continue
    left[at] = ink[0]!.from
    right[at] = advance - ink.at(-1)!.to
  }
  return { left, right }
}

/** White that is this deep counts half: the eye reads the narrow parts of a gap, and little of what lies deep in a letter. */
const depth = 100
/** Ink that overlaps counts as this much at most, so that one height does not outweigh all others. */
const overlap = 20

/**
 * The white between two letters, in thousandths of an em: the harmonic mean of how far their ink is apart, each made
 * deeper by `depth`, over the heights at which both have ink. So the area between outlines is limited in depth, as those
 * who space letters by eye have it (Tracy, Letters of Credit, 1986, chapter on spacing; Kindersley, Optical Letter
 * Spacing, 1966, who weighted what is near in the same spirit), without a step. `limit` cuts each side's depth: for marks,
 * which meet a letter at few heights. Null where the two meet at none.
 */
export function whiteBetween(left: Sides, right: Sides, kern: number, limit = Infinity): number | null {
  let sum = 0
  let count = 0
  for (let at = 0; at < left.right.length; at++) {
    const [one, other] = [left.right[at]!, right.left[at]!]
    if (one === Infinity || other === Infinity) continue
    sum += 1 / (Math.max(Math.min(one, limit) + Math.min(other, limit) + kern, -overlap) + depth)
    count++
  }
  return count === 0 ? null : count / sum - depth
}
