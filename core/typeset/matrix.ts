import { points } from '../document/lengths'

/** An affine map (x, y) → (a·x + c·y + e, b·x + d·y + f), as in SVG 1.1 section 7.4; lengths in points, y down. */
export type Matrix = readonly [a: number, b: number, c: number, d: number, e: number, f: number]

export const identity: Matrix = [1, 0, 0, 1, 0, 0]
export const translation = (x: number, y: number): Matrix => [1, 0, 0, 1, x, y]
export const scaling = (x: number, y: number): Matrix => [x, 0, 0, y, 0, 0]

/** The map that does `first`, then `then`. */
export function after(then: Matrix, first: Matrix): Matrix {
  const [a, b, c, d, e, f] = then
  const [p, q, r, s, t, u] = first
  return [a * p + c * q, b * p + d * q, a * r + c * s, b * r + d * s, a * t + c * u + e, b * t + d * u + f]
}

export const mapped = (
  [a, b, c, d, e, f]: Matrix,
  x: number,
  y: number,
): { readonly x: number; readonly y: number } => ({ x: a * x + c * y + e, y: b * x + d * y + f })

/** Turned anticlockwise on the page, in radians. */
export const rotation = (angle: number): Matrix => [
  Math.cos(angle),
  -Math.sin(angle),
  Math.sin(angle),
  Math.cos(angle),
  0,
  0,
]

/** The way back; null where there is none. */
export function inverted([a, b, c, d, e, f]: Matrix): Matrix | null {
  const determinant = a * d - b * c
  if (Math.abs(determinant) < 1e-12) return null
  return [
    d / determinant,
    -b / determinant,
    -c / determinant,
    a / determinant,
    (c * f - d * e) / determinant,
    (b * e - a * f) / determinant,
  ]
}

/** The smallest upright rectangle around a rectangle that is mapped. */
export function boundsOf(
  matrix: Matrix,
  rectangle: { readonly x: number; readonly y: number; readonly width: number; readonly height: number },
): { x: number; y: number; width: number; height: number } {
  const { x, y, width, height } = rectangle
  const corners = [
    mapped(matrix, x, y),
    mapped(matrix, x + width, y),
    mapped(matrix, x, y + height),
    mapped(matrix, x + width, y + height),
  ]
  const left = Math.min(...corners.map(each => each.x))
  const top = Math.min(...corners.map(each => each.y))
  return {
    x: left,
    y: top,
    width: Math.max(...corners.map(each => each.x)) - left,
    height: Math.max(...corners.map(each => each.y)) - top,
  }
}

/**
 * draw:transform (ODF 1.4 part 3, 19.228): a list of maps applied one after the other, the first one first. Angles are
 * radians, turning anticlockwise, as files have them; lengths have units. Null where it says nothing or cannot be read.
 */
export function readTransform(value: string | undefined): Matrix | null {
  if (!value) return null
  let matrix = identity
  let read = false
  for (const [, name, inside] of value.matchAll(/([a-zA-Z]+)\s*\(([^)]*)\)/g)) {
    const words = inside!.trim().split(/[\s,]+/)
    const lengths = words.map(word => points(word) ?? Number.parseFloat(word))
    if (lengths.some(each => !Number.isFinite(each))) return null
    const [one = 0, two = 0] = lengths
    let next: Matrix
    switch (name) {
      case 'rotate':
        next = rotation(one)
        break
      case 'translate':
        next = translation(one, two)
        break
      case 'scale':
        next = scaling(one, lengths.length > 1 ? two : one)
        break
      case 'skewX':
        next = [1, 0, -Math.tan(one), 1, 0, 0]
        break
      case 'skewY':
        next = [1, -Math.tan(one), 0, 1, 0, 0]
        break
      case 'matrix':
        if (lengths.length !== 6) return null
        next = lengths as unknown as Matrix
        break
      default:
        return null
    }
    matrix = after(next, matrix)
    read = true
  }
  return read ? matrix : null
}
