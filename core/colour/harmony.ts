import { lchOf, shownAt, type Lch } from './oklch'

/** Relations of hues on the circle, in degrees from the given one (trade; Itten, The Art of Color). */
export const harmonies = [
  { id: 'complementary', title: 'Complementary', turns: [180] },
  { id: 'split', title: 'Split complementary', turns: [150, 210] },
  { id: 'analogous', title: 'Analogous', turns: [-30, 30] },
  { id: 'triadic', title: 'Triadic', turns: [120, 240] },
  { id: 'tetradic', title: 'Tetradic', turns: [90, 180, 270] },
] as const
export type HarmonyId = (typeof harmonies)[number]['id']

/** A colour that stands in a harmony with a given one. */
export interface Harmonic {
  readonly harmony: HarmonyId
  readonly hue: number
  readonly color: string
}

/** The colours that stand in each harmony with a given one, at its lightness and chroma; none for a grey. */
export function harmonicsOf(color: string): Harmonic[] {
  const own = lchOf(color)
  if (!own || own.chroma < 0.01) return []
  return harmonies.flatMap(({ id, turns }) =>
    turns.map(turn => {
      const hue = (own.hue + turn + 360) % 360
      return { harmony: id, hue, color: shownAt({ ...own, hue }).color }
    }),
  )
}

/** Lighter and darker colours of one hue, the lightest first: chroma goes with the room there is. */
export function tintsAndShades(color: string, count = 9): string[] {
  const own = lchOf(color)
  if (!own) return []
  return Array.from({ length: count }, (_, at): string => {
    const lightness = 0.97 - (at / Math.max(count - 1, 1)) * 0.8
    // Towards white and black there is less room for chroma than in the middle.
    const room = 1 - Math.abs(lightness - own.lightness) ** 1.5
    const lch: Lch = { lightness, chroma: own.chroma * Math.max(room, 0.15), hue: own.hue }
    return shownAt(lch).color
  })
}
