import { converter, differenceEuclidean, formatHex, toGamut, type Oklch } from 'culori'

/*
 * Colours in OKLCH (CSS Color 4, 9), shown in sRGB. What lies outside of sRGB is brought in by taking chroma away as CSS has
 * it (CSS Color 4, 13.2), and that is said.
 */

/** A colour by lightness (0 to 1), chroma (0 to about 0.37 in sRGB) and hue (degrees, 0 to 360). */
export interface Lch {
  readonly lightness: number
  readonly chroma: number
  readonly hue: number
}

/** A colour as a screen shows it. */
export interface Shown {
  /** “#rrggbb”. */
  readonly color: string
  /** It lies in sRGB; else chroma was taken away until it did. */
  readonly inGamut: boolean
}

const toLch = converter('oklch')
const intoGamut = toGamut('rgb', 'oklch')
const between = differenceEuclidean('oklab')

/** A distance in OKLab that nobody sees: rounding to whole values of sRGB makes as much. */
const unseen = 0.002

const turned = (hue: number): number => ((hue % 360) + 360) % 360

/** A colour “#rrggbb” in OKLCH; a grey has the hue 0. Null where it is none. */
export function lchOf(color: string): Lch | null {
  const found = toLch(color)
  return found ? { lightness: found.l, chroma: found.c, hue: turned(found.h ?? 0) } : null
}

const asColor = ({ lightness, chroma, hue }: Lch): Oklch => ({
  mode: 'oklch',
  l: Math.max(0, Math.min(1, lightness)),
  c: Math.max(0, chroma),
  h: turned(hue),
})

/** A colour as a screen shows it. */
export function shownAt(lch: Lch): Shown {
  const color = asColor(lch)
  const mapped = intoGamut(color)
  return { color: formatHex(mapped), inGamut: between(color, mapped) < unseen }
}

/** How far apart two colours “#rrggbb” look: their distance in OKLab (CSS Color 4, 13.2.1); 0 for alike. */
export const distanceOf = (one: string, other: string): number => between(one, other)
