import { contrast } from './contrast'
import { shownAt, type Shown } from './oklch'

/** Which side of a ground a colour lies on. */
export type Side = 'darker' | 'lighter'

/** A colour of a hue and chroma that just reaches a contrast against a ground. */
export interface Reached extends Shown {
  readonly lightness: number
  readonly ratio: number
}

/** Halvings until the lightness is known to a ten thousandth. */
const halvings = 14

/**
 * The lightness, nearest to that of the ground, at which a hue and chroma reach a contrast against it on one side; null
 * where not even black or white do. Contrast grows with the distance in lightness, so it is found by halving.
 */
export function lightnessReaching(
  { hue, chroma }: { readonly hue: number; readonly chroma: number },
  ground: string,
  wanted: number,
  side: Side,
): Reached | null {
  const at = (lightness: number) => {
    const shown = shownAt({ lightness, chroma, hue })
    return { ...shown, lightness, ratio: contrast(shown.color, ground) }
  }
  const end = at(side === 'darker' ? 0 : 1)
  if (end.ratio < wanted) return null
  // `far` reaches it; `near` does not, or is the ground's own lightness.
  let far = end.lightness
  let near = side === 'darker' ? 1 : 0
  for (let step = 0; step < halvings; step++) {
    const middle = (far + near) / 2
    const { ratio, color } = at(middle)
    const beyond =
      side === 'darker'
        ? contrast(color, '#ffffff') >= contrast(ground, '#ffffff')
        : contrast(color, '#000000') >= contrast(ground, '#000000')
    if (ratio >= wanted && beyond) far = middle
    else near = middle
  }
  return at(far)
}

/** Where a colour may lie: one place of the plane over hue and chroma, as it looks at the lightness that is needed. */
export interface PlanePlace {
  readonly hue: number
  readonly chroma: number
  /** null where nothing of this hue and chroma reaches the contrast. */
  readonly reached: Reached | null
}

/** The most chroma that the plane shows: beyond it little of sRGB is left. */
export const mostChroma = 0.26

/** The plane over hue and chroma for a contrast against a ground: rows by chroma, the most colourful first. */
export function planeFor(ground: string, wanted: number, side: Side, hues = 36, chromas = 7): PlanePlace[][] {
  return Array.from({ length: chromas }, (_, row) =>
    Array.from({ length: hues }, (_, column): PlanePlace => {
      const hue = (column / hues) * 360
      const chroma = (1 - row / (chromas - 1)) * mostChroma
      return { hue, chroma, reached: lightnessReaching({ hue, chroma }, ground, wanted, side) }
    }),
  )
}
