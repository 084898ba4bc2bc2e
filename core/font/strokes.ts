/**
 * Thickness of strokes, and what ends them: what tells serif from sans and a fat face from a fine one. Thousandths
 * of an em.
 */
export interface Strokes {
  /** Stem of the capital I, half way up; 0 where the face has none. */
  readonly stem: number
  /** The thin part of o, at its top; against the stem it is the face's contrast. */
  readonly hairline: number
  /** Width of the foot of I over its stem: 1 for a face without serifs. */
  readonly foot: number
}

interface Point {
  readonly x: number
  readonly y: number
}
/** Steps of a curve: fine enough for a stroke's width. */
const steps = 12

/** An outline as closed polygons: path data of M, L, Q, C and Z, absolute. */
function polygonsOf(path: string): Point[][] {
  const polygons: Point[][] = []
  let own: Point[] = []
  let at: Point = { x: 0, y: 0 }
  for (const [, command, rest] of path.matchAll(/([MLQCZ])([^MLQCZ]*)/g)) {
    const numbers = (rest!.match(/-?[\d.]+/g) ?? []).map(Number)
    const points = Array.from({ length: numbers.length / 2 }, (_, index): Point => ({
      x: numbers[index * 2]!,
      y: numbers[index * 2 + 1]!,
    }))
    if (command === 'M') {
      if (own.length > 2) polygons.push(own)
      own = [points[0]!]
    } else if (command === 'L') own.push(points[0]!)
    else if (command === 'Q' || command === 'C') {
      const all = [at, ...points]
      for (let step = 1; step <= steps; step++) own.push(onCurve(all, step / steps))
    }
    if (points.length > 0) at = points.at(-1)!
  }
  if (own.length > 2) polygons.push(own)
  return polygons
}

/** A point of a Bézier curve, by de Casteljau's construction. */
function onCurve(points: readonly Point[], t: number): Point {
  let level = [...points]
  while (level.length > 1)
    level = level.slice(1).map((point, index) => ({
      x: level[index]!.x + (point.x - level[index]!.x) * t,
      y: level[index]!.y + (point.y - level[index]!.y) * t,
    }))
  return level[0]!
}

/** Where a straight line crosses an outline, in order: along x at a height, or along y at a place. */
function crossings(polygons: readonly (readonly Point[])[], along: 'x' | 'y', at: number): number[] {
  const other = along === 'x' ? 'y' : 'x'
  const found: number[] = []
  for (const polygon of polygons) {
    for (let index = 0; index < polygon.length; index++) {
      const one = polygon[index]!
      const next = polygon[(index + 1) % polygon.length]!
      if (one[other] > at === next[other] > at) continue
      found.push(one[along] + ((next[along] - one[along]) * (at - one[other])) / (next[other] - one[other]))
    }
  }
  return found.sort((a, b) => a - b)
}

/**
 * Measures strokes on the outlines of I and o. `outline` gives path data in font units, y upward.
 * @param upem font units per em
 */
export function measureStrokes(outline: (character: string) => string, upem: number, capHeight: number): Strokes {
  const thousandths = (units: number) => Math.round(((units * 1000) / upem) * 10) / 10
  const height = (capHeight * upem) / 1000
  const capital = polygonsOf(outline('I'))
  const middle = crossings(capital, 'x', height / 2)
  const foot = crossings(capital, 'x', height * 0.02)
  const round = polygonsOf(outline('o'))
  const xs = round.flat().map(point => point.x)
  const thin = crossings(round, 'y', xs.length > 0 ? (Math.min(...xs) + Math.max(...xs)) / 2 : 0)
  const stem = middle.length >= 2 ? middle[1]! - middle[0]! : 0
  const width = foot.length >= 2 ? foot.at(-1)! - foot[0]! : stem
  return {
    stem: thousandths(stem),
    hairline: thin.length >= 2 ? thousandths(thin.at(-1)! - thin.at(-2)!) : 0,
    foot: stem > 0 ? Math.round((width / stem) * 100) / 100 : 1,
  }
}
