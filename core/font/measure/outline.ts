/** A place on a letter's outline, in font units, y upward. */
export interface Point {
  readonly x: number
  readonly y: number
}
/** A closed contour, its last point joined to its first. */
export type Polygon = readonly Point[]
/** A stretch of a straight line that lies in the ink, or between two places. */
export interface Span {
  readonly from: number
  readonly to: number
}

/** Straight pieces that a quadratic curve and a cubic one are cut into: within half a thousandth of an em of the curve. */
const steps = { Q: 6, C: 12 } as const

/** An outline as closed polygons: path data of M, L, Q, C and Z, absolute. */
export function polygonsOf(path: string): Polygon[] {
  const polygons: Polygon[] = []
  let own: Point[] = []
  let [x, y] = [0, 0]
  for (const [, command, rest] of path.matchAll(/([MLQC])([^MLQCZ]*)/g)) {
    const [a, b, c, d, e, f] = rest!.split(/[ ,]+/).map(Number) as [number, number, number, number, number, number]
    if (command === 'M') {
      if (own.length > 2) polygons.push(own)
      own = []
    }
    if (command === 'Q') {
      // Quadratic and cubic Bézier curves, in Bernstein's form.
      for (let step = 1; step <= steps.Q; step++) {
        const t = step / steps.Q
        const s = 1 - t
        own.push({ x: s * s * x + 2 * s * t * a + t * t * c, y: s * s * y + 2 * s * t * b + t * t * d })
      }
      ;[x, y] = [c, d]
    } else if (command === 'C') {
      for (let step = 1; step <= steps.C; step++) {
        const t = step / steps.C
        const s = 1 - t
        const [w0, w1, w2, w3] = [s * s * s, 3 * s * s * t, 3 * s * t * t, t * t * t]
        own.push({ x: w0 * x + w1 * a + w2 * c + w3 * e, y: w0 * y + w1 * b + w2 * d + w3 * f })
      }
      ;[x, y] = [e, f]
    } else {
      own.push({ x: a, y: b })
      ;[x, y] = [a, b]
    }
  }
  if (own.length > 2) polygons.push(own)
  return polygons
}

/** Edges of closed contours, four numbers each: x and y where one begins and where it ends. */
export type Edges = Float64Array
export function edgesOf(polygons: readonly Polygon[]): Edges {
  const edges = new Float64Array(polygons.reduce((sum, polygon) => sum + polygon.length * 4, 0))
  let at = 0
  for (const polygon of polygons) {
    let from = polygon.at(-1)!
    for (const to of polygon) {
      edges[at++] = from.x
      edges[at++] = from.y
      edges[at++] = to.x
      edges[at++] = to.y
      from = to
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
    for (const { x, y } of polygon) {
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
  for (let index = 0; index < polygon.length; index++) {
    const one = polygon[index]!
    const next = polygon[(index + 1) % polygon.length]!
    sum += one.x * next.y - next.x * one.y
  }
  return sum / 2
}

/**
 * The stretches of ink along a straight line: along x at a height, or along y at a place. By the non-zero winding rule,
 * as fonts are filled (OpenType 1.9, glyf), so that contours that overlap are one.
 */
export function inkAlong(edges: Edges, along: 'x' | 'y', at: number): Span[] {
  const other = along === 'x' ? 1 : 0
  const places: { readonly place: number; readonly turn: number }[] = []
  for (let index = 0; index < edges.length; index += 4) {
    const from = edges[index + other]!
    const to = edges[index + 2 + other]!
    const above = from > at
    if (above === to > at) continue
    const start = edges[index + 1 - other]!
    const place = start + (edges[index + 3 - other]! - start) * ((at - from) / (to - from))
    places.push({ place, turn: above ? -1 : 1 })
  }
  places.sort((a, b) => a.place - b.place)
  const spans: Span[] = []
  let winding = 0
  let from = 0
  for (const { place, turn } of places) {
    if (winding === 0) from = place
    winding += turn
    if (winding === 0 && place > from) spans.push({ from, to: place })
  }
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
