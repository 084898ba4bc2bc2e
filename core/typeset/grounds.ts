import { contrast } from '../colour/contrast'
import { isInside } from './fills'
import type { Fragment } from './fragments'
import { boundsOf } from './matrix'

interface Ground {
  /** How many things lie below it. */
  readonly index: number
  /** “#rrggbb”; null where it has no one colour: a picture, a gradient. */
  readonly color: string | null
  readonly covers: (place: { readonly x: number; readonly y: number }) => boolean
}

/**
 * Whether a colour is dark. The standard leaves that open (style:use-window-font-color, ODF 1.4 part 3, 20.395): here it is
 * what black has a contrast below 3:1 with, the least that large text may have (WCAG 2.2, 1.4.3).
 */
export const isDark = (color: string): boolean => color !== '' && contrast('#000000', color) < 3

/** What is thinner, in points, is a line: no text stands on it. */
const thinnest = 2

/** Whether a thing on a page makes a ground for what lies over it. */
export const makesGround = (shape: Fragment): boolean =>
  (shape.kind === 'box' && shape.fill !== '' && Math.min(shape.width, shape.height) >= thinnest) ||
  (shape.kind === 'path' && shape.fill !== '' && shape.fillOpacity > 0.5) ||
  (shape.kind === 'image' && shape.opacity > 0.5)

/** The ground that a thing on a page makes; null where it makes none. */
function groundOf(shape: Fragment, index: number): Ground | null {
  if (!makesGround(shape)) return null
  if (shape.kind === 'path')
    return { index, color: shape.shade ? null : shape.fill, covers: ({ x, y }) => isInside(shape, x, y) }
  if (shape.kind !== 'box' && shape.kind !== 'image') return null
  const { x: left, y: top, width, height } = shape.matrix ? boundsOf(shape.matrix, shape) : shape
  return {
    index,
    color: shape.kind === 'box' ? shape.fill : null,
    covers: ({ x, y }) => x >= left && x <= left + width && y >= top && y <= top + height,
  }
}

/** What lies under the text of a page, as far as it fills: boxes, outlines and pictures, and the page itself. */
export class Grounds {
  private readonly list: readonly Ground[]
  private readonly anyDark: boolean

  /**
   * @param shapes in the order in which they are drawn
   * @param page the colour of the page; '' for the paper's
   */
  constructor(
    shapes: readonly Fragment[],
    private readonly page: string,
  ) {
    this.list = shapes.flatMap((shape, index) => groundOf(shape, index) ?? [])
    this.anyDark = isDark(page) || this.list.some(each => each.color !== null && isDark(each.color))
  }

  /**
   * The colour of what a place lies on, among the first things of the page, as many as are said; null where that has no one
   * colour.
   */
  colorAt(place: { readonly x: number; readonly y: number }, below = Infinity): string | null {
    const ground = this.list.findLast(each => each.index < below && each.covers(place))
    return ground ? ground.color : this.page || '#ffffff'
  }

  /** Whether a place lies on something dark. Nearly no page has dark things: nothing need be looked for then. */
  isDark(place: { readonly x: number; readonly y: number }, below = Infinity): boolean {
    if (!this.anyDark) return false
    const plain = this.list.findLast(each => each.color !== null && each.index < below && each.covers(place))
    return isDark(plain ? plain.color! : this.page)
  }
}
