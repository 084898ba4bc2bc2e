import { points } from '../document/lengths'
import type { XmlElement } from '../xml/tree'
import { after, boundsOf, readTransform, translation, type Matrix } from './matrix'

/** Where a shape stands: the box it is drawn in, and how that box lies on what holds it. Lengths in points. */
export interface ShapePlace {
  readonly width: number
  readonly height: number
  /** From the box's own top left to what holds it. */
  readonly matrix: Matrix
  /** Only moved: neither turned nor stretched. */
  readonly upright: boolean
  /** The smallest upright rectangle around it. */
  readonly bounds: { readonly x: number; readonly y: number; readonly width: number; readonly height: number }
}

const isLine = (name: string) => name === 'draw:line' || name === 'draw:connector' || name === 'draw:measure'

/** Where an element of the drawing namespace stands. `fallback` is its size where it says none. */
export function shapePlace(
  element: XmlElement,
  fallback: { readonly width: number; readonly height: number } = { width: 0, height: 0 },
): ShapePlace {
  const { attributes, name } = element
  const length = (attribute: string) => points(attributes[attribute])
  let x = length('svg:x') ?? 0
  let y = length('svg:y') ?? 0
  let width = length('svg:width') ?? fallback.width
  let height = length('svg:height') ?? fallback.height
  if (isLine(name)) {
    const [x1, y1, x2, y2] = ['svg:x1', 'svg:y1', 'svg:x2', 'svg:y2'].map(each => length(each) ?? 0) as [
      number,
      number,
      number,
      number,
    ]
    x = Math.min(x1, x2)
    y = Math.min(y1, y2)
    width = Math.abs(x2 - x1)
    height = Math.abs(y2 - y1)
  } else if (attributes['svg:cx'] !== undefined && attributes['svg:x'] === undefined) {
    const rx = length('svg:rx') ?? length('svg:r') ?? 0
    const ry = length('svg:ry') ?? length('svg:r') ?? 0
    x = (length('svg:cx') ?? 0) - rx
    y = (length('svg:cy') ?? 0) - ry
    width = rx * 2
    height = ry * 2
  }
  const transform = readTransform(attributes['draw:transform'])
  const matrix = transform ? after(transform, translation(x, y)) : translation(x, y)
  const upright =
    Math.abs(matrix[0] - 1) < 1e-6 &&
    Math.abs(matrix[1]) < 1e-6 &&
    Math.abs(matrix[2]) < 1e-6 &&
    Math.abs(matrix[3] - 1) < 1e-6
  return { width, height, matrix, upright, bounds: boundsOf(matrix, { x: 0, y: 0, width, height }) }
}
