/** A step of a type scale: what it is for, and how large it is. */
export interface ScaleStep {
  readonly role: 'caption' | 'body' | 'intro' | 'subheading' | 'heading' | 'display'
  /** Points, to a tenth. */
  readonly size: number
}

/** Where the roles stand on the scale, counted from the body. */
const places: readonly (readonly [ScaleStep['role'], number])[] = [
  ['display', 4],
  ['heading', 3],
  ['subheading', 2],
  ['intro', 1],
  ['body', 0],
  ['caption', -1],
]

/** Ratios that are usual, by the intervals that they are named after. */
export const scaleRatios = [
  { name: 'minor third', ratio: 1.2 },
  { name: 'major third', ratio: 1.25 },
  { name: 'perfect fourth', ratio: 4 / 3 },
  { name: 'perfect fifth', ratio: 1.5 },
  { name: 'golden section', ratio: (1 + Math.sqrt(5)) / 2 },
] as const

/**
 * Sizes that grow by one ratio (a geometric scale; Bringhurst, The Elements of Typographic Style, 3.1 sets such scales
 * beside the traditional one).
 * @param body in points
 */
export function typeScale(body: number, ratio: number): ScaleStep[] {
  return places.map(([role, step]) => ({ role, size: Math.round(body * ratio ** step * 10) / 10 }))
}

/** The size at which a second face looks as large as the first at its size, by x-height; its own where it has none. */
export function equalSize(size: number, xHeight: number, otherXHeight: number): number {
  return xHeight > 0 && otherXHeight > 0 ? Math.round(((size * xHeight) / otherXHeight) * 10) / 10 : size
}
