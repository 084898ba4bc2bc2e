import type { Classed } from './classify'
import type { FaceMeasures } from './face'

/** What text is read on, and from how far. */
export const readingUses = ['print', 'screen', 'poster', 'slide'] as const
export type ReadingUse = (typeof readingUses)[number]

/** The smallest useful size of a face for a use, and which of its measures asks for it. */
export interface SmallestSize {
  readonly use: ReadingUse
  /** Points; on a slide of 540 points of height, as OpenDocument's screen pages have it at 19.05 cm. */
  readonly size: number
  readonly because: 'x-height' | 'hairline' | 'counter' | 'handwriting'
  /** In words, with the figures. */
  readonly reason: string
}

const degree = Math.PI / 180
/**
 * The x-height has to span this angle for fluent reading: the critical print size of 0.2 degrees (Legge and Bigelow 2011,
 * “Does print size matter for reading?”, Journal of Vision 11(5):8), and a tenth more, since that is a mean of readers.
 */
const angle = 0.22 * degree
const pointsPerCentimetre = 72 / 2.54
const distances: Readonly<Record<Exclude<ReadingUse, 'slide'>, { readonly cm: number; readonly said: string }>> = {
  print: { cm: 40, said: 'at 40 cm' },
  screen: { cm: 60, said: 'at 60 cm' },
  poster: { cm: 200, said: 'at 2 m' },
}
/** The last row sits this many picture heights away. */
const lastRow = 6
const slideHeight = 540
/**
 * Points below which lines break up in print or go grey on a screen; a judgement: printers ask for a quarter to a half,
 * and faces of high contrast were made for 14 points and more.
 */
const thinnest: Readonly<Record<ReadingUse, number>> = { print: 0.35, screen: 0.4, poster: 0.35, slide: 0.6 }
/** Points below which the eye of e fills with ink or blurs; a judgement. */
const narrowest: Readonly<Record<ReadingUse, number>> = { print: 0.75, screen: 0.9, poster: 0.75, slide: 1.5 }
/** Letters that a hand wrote want half as much again: they are read more slowly. A judgement, from the trade's old cases. */
const handsWant = 1.5

/** The x-height that a use asks for, in points. */
function neededXHeight(use: ReadingUse): number {
  if (use === 'slide') return slideHeight * lastRow * Math.tan(angle)
  return distances[use].cm * pointsPerCentimetre * Math.tan(angle)
}

/** The smallest useful size for a use; null where the face has no x-height to go by. */
export function smallestSize(
  { xHeight, hairline, eye }: FaceMeasures,
  { class: typeClass }: Pick<Classed, 'class'>,
  use: ReadingUse,
): SmallestSize | null {
  if (xHeight <= 0) return null
  const needed = neededXHeight(use)
  const bySize = (needed * 1000) / xHeight
  const from = use === 'slide' ? `from ${lastRow} picture heights away` : distances[use].said
  const asks: readonly Omit<SmallestSize, 'use'>[] = [
    {
      size: bySize,
      because: 'x-height',
      reason: `its x-height of ${Math.round(xHeight)} spans 0.22° ${from}`,
    },
    ...(typeClass === 'script'
      ? [
          {
            size: bySize * handsWant,
            because: 'handwriting' as const,
            reason: `its x-height of ${Math.round(xHeight)} ${from}, and half as much again for a hand`,
          },
        ]
      : []),
    ...(hairline > 0
      ? [
          {
            size: (thinnest[use] * 1000) / hairline,
            because: 'hairline' as const,
            reason: `its hairlines of ${Math.round(hairline)} keep ${thinnest[use]} pt`,
          },
        ]
      : []),
    ...(eye !== null && eye > 0
      ? [
          {
            size: (narrowest[use] * 1000) / eye,
            because: 'counter' as const,
            reason: `the eye of e, ${Math.round(eye)} high, stays open by ${narrowest[use]} pt`,
          },
        ]
      : []),
  ]
  const most = asks.reduce((one, other) => (other.size > one.size ? other : one))
  return { ...most, use, size: Math.ceil(most.size * 2) / 2 }
}
