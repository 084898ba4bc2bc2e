/** A place on a letter's outline, in font units, y upward. */
export interface Point {
  readonly x: number
  readonly y: number
}
/** A closed contour, its last point joined to its first: x and y of each point in turn, which is far lighter than objects. */
export type Polygon = readonly number[]
/** A stretch of a straight line that lies in the ink, or between two places. */
export interface Span {
  readonly from: number
  readonly to: number
}

/** Straight pieces that a quadratic curve and a cubic one are cut into: within half a thousandth of an em of the curve. */
const steps = { Q: 6, C: 12 } as const

/** Numbers of path data from a place on, as many as follow one another; `end` is where they end. */
function numbersAt(path: string, from: number, into: number[]): number {
  let at = from
  into.length = 0
  while (at < path.length) {
    const code = path.charCodeAt(at)
    if (code === 44 || code === 32) {
      at++
      continue
    }
    if (code >= 65) break
    let end = at + 1
    while (
      end < path.length &&
      (path.charCodeAt(end) === 46 || (path.charCodeAt(end) >= 48 && path.charCodeAt(end) <= 57))
    )
      end++
    into.push(Number(path.slice(at, end)))
    at = end
  }
  return at
}

/** An outline as closed polygons: path data of M, L, Q, C and Z, absolute. */
export function polygonsOf(path: string): Polygon[] {
  const polygons: number[][] = []
  let own: number[] = []
  const n: number[] = []
  let [x, y] = [0, 0]
  for (let at = 0; at < path.length;) {
    const command = path[at]!
    at = numbersAt(path, at + 1, n)
    if (command === 'M') {
      if (own.length > 4) polygons.push(own)
      own = []
    }
    if (command === 'Q') {
      // Quadratic and cubic Bézier curves, in Bernstein's form.
      for (let step = 1; step <= steps.Q; step++) {
        const t = step / steps.Q
        const s = 1 - t
        own.push(s * s * x + 2 * s * t * n[0]! + t * t * n[2]!, s * s * y + 2 * s * t * n[1]! + t * t * n[3]!)
      }
    } else if (command === 'C') {
      for (let step = 1; step <= steps.C; step++) {
        const t = step / steps.C
        const s = 1 - t
        const [a, b, c, d] = [s * s * s, 3 * s * s * t, 3 * s * t * t, t * t * t]
        own.push(a * x + b * n[0]! + c * n[2]! + d * n[4]!, a * y + b * n[1]! + c * n[3]! + d * n[5]!)
      }
    } else if (n.length >= 2) own.push(n[0]!, n[1]!)
    if (n.length >= 2) [x, y] = [n[n.length - 2]!, n[n.length - 1]!]
  }
  if (own.length > 4) polygons.push(own)
  return polygons
}

/** Edges of closed contours, four numbers each: x and y where one begins and where it ends. */
export type Edges = Float64Array
export function edgesOf(polygons: readonly Polygon[]): Edges {
  const edges = new Float64Array(polygons.reduce((sum, polygon) => sum + polygon.length * 2, 0))
  let at = 0
  for (const polygon of polygons) {
    let x = polygon[polygon.length - 2]!
    let y = polygon[polygon.length - 1]!
    for (let index = 0; index < polygon.length; index += 2) {
      edges[at++] = x
      edges[at++] = y
      edges[at++] = x = polygon[index]!
      edges[at++] = y = polygon[index + 1]!
    }
  }
  return edges
}

/** Smallest box around polygons; null around none. */
export interface Box {
  readonly left: number
  readonly right: number
  readonly bottom: number
  readonly top: number
}
export function boxOf(polygons: readonly Polygon[]): Box | null {
  let [left, right, bottom, top] = [Infinity, -Infinity, Infinity, -Infinity]
  for (const polygon of polygons)
    for (let index = 0; index < polygon.length; index += 2) {
      const x = polygon[index]!
      const y = polygon[index + 1]!
      if (x < left) left = x
      if (x > right) right = x
      if (y < bottom) bottom = y
      if (y > top) top = y
    }
  return left < right && bottom < top ? { left, right, bottom, top } : null
}

/** Area with its sign: positive where a contour runs counter-clockwise (the shoelace formula). */
export function signedArea(polygon: Polygon): number {
  let sum = 0
  let x = polygon[polygon.length - 2]!
  let y = polygon[polygon.length - 1]!
  for (let index = 0; index < polygon.length; index += 2) {
    sum += x * polygon[index + 1]! - polygon[index]! * y
    x = polygon[index]!
    y = polygon[index + 1]!
  }
  return sum / 2
}

/** Length of a closed contour. */
export function perimeter(polygon: Polygon): number {
  let sum = 0
  let x = polygon[polygon.length - 2]!
  let y = polygon[polygon.length - 1]!
  for (let index = 0; index < polygon.length; index += 2) {
    sum += Math.hypot(polygon[index]! - x, polygon[index + 1]! - y)
    x = polygon[index]!
    y = polygon[index + 1]!
  }
  return sum
}

/**
 * The stretches of ink along a straight line: along x at a height, or along y at a place. By the non-zero winding rule,
 * as fonts are filled (OpenType 1.9, glyf), so that contours that overlap are one.
 */
export function inkAlong(edges: Edges, along: 'x' | 'y', at: number): Span[] {
  const other = along === 'x' ? 1 : 0
  const places: number[] = []
  const turns: number[] = []
  for (let index = 0; index < edges.length; index += 4) {
    const from = edges[index + other]!
    const to = edges[index + 2 + other]!
    const above = from > at
    if (above === to > at) continue
    const start = edges[index + 1 - other]!
    const place = start + (edges[index + 3 - other]! - start) * ((at - from) / (to - from))
    // Few edges are met: each is put where it belongs.
    let slot = places.length
    while (slot > 0 && places[slot - 1]! > place) slot--
    places.splice(slot, 0, place)
    turns.splice(slot, 0, above ? -1 : 1)
  }
  const spans: Span[] = []
  let winding = 0
  let from = 0
  places.forEach((place, index) => {
    if (winding === 0) from = place
    winding += turns[index]!
    if (winding === 0 && place > from) spans.push({ from, to: place })
  })
  return spans
}

/** The stretches between stretches of ink. */
export function gapsBetween(spans: readonly Span[]): Span[] {
  return spans.slice(1).map((span, index) => ({ from: spans[index]!.to, to: span.from }))
}

export const lengthOf = ({ from, to }: Span): number => to - from

/** The middle value; of an even number the mean of the two in the middle; null of none. */
export function median(values: readonly number[]): number | null {
  if (values.length === 0) return null
  const sorted = [...values].sort((a, b) => a - b)
  const half = sorted.length >> 1
  return sorted.length % 2 === 1 ? sorted[half]! : (sorted[half - 1]! + sorted[half]!) / 2
}

/** The value that a share of all lies below, from 0 to 1; null of none. */
export function percentile(values: readonly number[], share: number): number | null {
  if (values.length === 0) return null
  const sorted = [...values].sort((a, b) => a - b)
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))]!
}

/** Standard deviation; 0 of fewer than two. */
export function deviation(values: readonly number[]): number {
  if (values.length < 2) return 0
  const mean = values.reduce((sum, value) => sum + value, 0) / values.length
  return Math.sqrt(values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / values.length)
}
