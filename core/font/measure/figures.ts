import { lettersIn, type Letters } from './letters'
import { deviation } from './outline'

/**
 * How the figures are that text gets without asking: all of capital height, or with ascenders and descenders; and
 * whether all are of one width.
 */
export interface Figures {
  readonly style: 'lining' | 'old-style'
  readonly tabular: boolean
}

/** Null where the face lacks figures. Old-style are those in which 3, 4, 5, 7 and 9 reach below the baseline and 1 and 0 stay low. */
export function figuresOf(letters: Letters, unitsPerEm: number): Figures | null {
  const all = lettersIn(letters, '0123456789')
  if (all.length < 10) return null
  const low = [3, 4, 5, 7, 9].filter(figure => all[figure]!.box.bottom < -unitsPerEm * 0.06).length
  const short = [0, 1, 2].filter(figure => all[figure]!.box.top < all[6]!.box.top * 0.88).length
  return {
    style: low >= 3 && short >= 2 ? 'old-style' : 'lining',
    tabular: deviation(all.map(each => each.advance)) < unitsPerEm * 0.002,
  }
}
