import { contrast } from '../colour/contrast'
import { isInside } from './fills'
import type { Fragment } from './fragments'
import { boundsOf } from './matrix'

interface Ground {
  /** How many things lie below it. */
  readonly index: number
  readonly dark: boolean
  readonly covers: (place: { readonly x: number; readonly y: number }) => boolean
}

/**
 * Whether a colour is dark. The standard leaves that open (style:use-window-font-color, ODF 1.4 part 3, 20.395): here it is
 * what black has a contrast below 3:1 with, the least that large text may have (WCAG 2.2, 1.4.3).
 */
export const isDark = (color: string): boolean => color !== '' && contrast('#000000', color) < 3

/** What lies under the text of a page, as far as it fills: boxes and outlines in plain colours, and the page itself. */
export class Grounds {
  private readonly list: readonly Ground[]
  private readonly page: boolean

  /** @param shapes in the order in which they are drawn */
  constructor(shapes: readonly Fragment[], page: string) {
    this.page = isDark(page)
    const list = shapes.flatMap((shape, index): Ground[] => {
      if (shape.kind === 'box' && shape.fill !== '') {
        const box = shape.matrix ? boundsOf(shape.matrix, shape) : shape
        const covers: Ground['covers'] = ({ x, y }) =>
          x >= box.x && x <= box.x + box.width && y >= box.y && y <= box.y + box.height
        return [{ index, dark: isDark(shape.fill), covers }]
      }
      return shape.kind === 'path' && shape.fill !== '' && shape.fillOpacity > 0.5
        ? [{ index, dark: isDark(shape.fill), covers: ({ x, y }) => isInside(shape, x, y) }]
        : []
    })
    // Nearly no page has dark ones: nothing need be looked for then.
    this.list = this.page || list.some(each => each.dark) ? list : []
  }

  /** Whether a place lies on something dark, among the first things of the page, as many as are said. */
  isDark(place: { readonly x: number; readonly y: number }, below = Infinity): boolean {
    return this.list.findLast(each => each.index < below && each.covers(place))?.dark ?? this.page
  }
}
