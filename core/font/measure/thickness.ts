import type { Letter } from './letters'
import type { Edges, Point } from './outline'

/** A place on an outline, with how thick the stroke is there, straight inward. Font units. */
export interface Thickness {
  readonly at: Point
  readonly thick: number
}

/** How often contours go around a point. */
function windingAt(edges: Edges, x: number, y: number): number {
  let winding = 0
  for (let index = 0; index < edges.length; index += 4) {
    const from = edges[index + 1]!
    const to = edges[index + 3]!
    if (from > y === to > y) continue
    const start = edges[index]!
    if (start + ((edges[index + 2]! - start) * (y - from)) / (to - from) < x) winding += from > y ? -1 : 1
  }
  return winding
}

interface Ray {
  readonly x: number
  readonly y: number
  readonly dx: number
  readonly dy: number
}

/**
 * Where a ray meets the edges: how far that is, and which way and how squarely it crosses (1 at a right angle, -1
 * likewise from the other side).
 */
function alongRay(edges: Edges, { x, y, dx, dy }: Ray, meets: (way: number, crossing: number) => void): void {
  for (let index = 0; index < edges.length; index += 4) {
    const ex = edges[index + 2]! - edges[index]!
    const ey = edges[index + 3]! - edges[index + 1]!
    const cross = dx * ey - dy * ex
    if (cross === 0) continue
    const sx = edges[index]! - x
    const sy = edges[index + 1]! - y
    const share = (sx * dy - sy * dx) / cross
    if (share < 0 || share >= 1) continue
    const way = (sx * ey - sy * ex) / cross
    if (way > 0) meets(way, cross / Math.hypot(ex, ey))
  }
}

/** The other side of a stroke lies across it, within 45 degrees; what a ray meets more slantwise is the next side of a corner. */
const squarely = Math.SQRT1_2

/** How far it is to the other side of the stroke; null where there is none. Where nothing overlaps that is the next edge. */
function wayAcross(edges: Edges, ray: Ray, overlaps: boolean): number | null {
  const hits: { readonly way: number; readonly crossing: number }[] = []
  if (!overlaps) {
    let nearest = Infinity
    let how = 0
    alongRay(edges, ray, (way, crossing) => {
      if (way < nearest) {
        nearest = way
        how = crossing
      }
    })
    return Math.abs(how) >= squarely ? nearest : null
  }
  let winding = windingAt(edges, ray.x, ray.y)
  if (winding === 0) return null
  alongRay(edges, ray, (way, crossing) => hits.push({ way, crossing }))
  for (const { way, crossing } of hits.sort((a, b) => a.way - b.way)) {
    winding += Math.sign(crossing)
    if (winding === 0) return Math.abs(crossing) >= squarely ? way : null
  }
  return null
}

/** How far inside the edge a ray starts, so that it does not meet its own edge. Font units. */
const inset = 0.5

/**
 * Thickness of a letter's strokes: at places spread evenly over its outline, straight inward to the other side. What
 * lies inside other contours is no edge of the ink and is left out.
 * @param places about as many are looked at
 */
export function thicknesses({ edges, inkSide, overlaps }: Letter, places = 96): Thickness[] {
  const lengths = new Float64Array(edges.length / 4)
  let whole = 0
  for (let edge = 0; edge < lengths.length; edge++) {
    const at = edge * 4
    lengths[edge] = Math.hypot(edges[at + 2]! - edges[at]!, edges[at + 3]! - edges[at + 1]!)
    whole += lengths[edge]!
  }
  const step = whole / places
  const found: Thickness[] = []
  let until = step / 2
  for (let edge = 0; edge < lengths.length; edge++) {
    const length = lengths[edge]!
    const [x, y] = [edges[edge * 4]!, edges[edge * 4 + 1]!]
    const alongX = (edges[edge * 4 + 2]! - x) / length
    const alongY = (edges[edge * 4 + 3]! - y) / length
    const [dx, dy] = [-alongY * inkSide, alongX * inkSide]
    for (; until < length; until += step) {
      const at = { x: x + alongX * until, y: y + alongY * until }
      if (overlaps && windingAt(edges, at.x - dx * inset, at.y - dy * inset) !== 0) continue
      const way = wayAcross(edges, { x: at.x + dx * inset, y: at.y + dy * inset, dx, dy }, overlaps)
      if (way !== null) found.push({ at, thick: way + inset })
    }
    until -= length
  }
  return found
}

const known = new WeakMap<Letter, readonly Thickness[]>()
/** The same, worked out once for each letter. */
export function thicknessesOf(letter: Letter): readonly Thickness[] {
  const own = known.get(letter) ?? thicknesses(letter)
  known.set(letter, own)
  return own
}
