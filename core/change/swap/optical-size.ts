import { z } from 'zod'
import type { Slot } from '../../document/font-attributes'
import { measuresIn, type FaceRecord } from '../../font/face'
import type { LineHeights } from '../../font/line-heights'
import type { CoveredScript } from '../../font/measure/covered-scripts'
import type { ScriptMeasures } from '../../font/measure/scripts'

/*
 * Equal point sizes are not equally large: what a reader takes for the size of text is the height of its small letters,
 * and how much fits a line is its width. A new face can be given the size at which it looks as large as the old one.
 */

export const sizeModes = ['keep', 'x-height', 'cap-height', 'width', 'lines', 'percent'] as const
export type SizeMode = (typeof sizeModes)[number]

export const sizeWishSchema = z.strictObject({
  mode: z.enum(sizeModes),
  /** Of `percent`: so many percent of the old size. */
  percent: z.number().min(25).max(400).optional(),
  /** Sizes are rounded to this many points. */
  step: z.number().min(0.01).max(2).default(0.1),
  /** Percent of the old size: further it does not go. */
  least: z.number().min(25).max(100).default(75),
  most: z.number().min(100).max(400).default(125),
})
export type SizeWish = z.infer<typeof sizeWishSchema>

/**
 * `as-is` writes nothing; `follow` lets leading in points go with the size; `stay` keeps the distance of the lines
 * as it was.
 */
export const leadingModes = ['as-is', 'follow', 'stay'] as const
export type LeadingMode = (typeof leadingModes)[number]

const measured: Readonly<
  Record<Exclude<SizeMode, 'keep' | 'lines' | 'percent'>, (measures: ScriptMeasures) => number>
> = {
  'x-height': each => each.xHeight,
  'cap-height': each => each.capHeight,
  width: each => each.averageWidth,
}

/**
 * The script that two faces are compared in: that of the text where both have its letters, else the one that both were
 * measured on; null where there is none, since Latin measures say nothing of kana.
 */
export function comparedIn(one: FaceRecord, other: FaceRecord, text: CoveredScript | null): CoveredScript | null {
  if (text !== null && measuresIn(one, text) !== null && measuresIn(other, text) !== null) return text
  const { measuredOn } = one.measures
  return measuredOn === other.measures.measuredOn ? measuredOn : null
}

/**
 * By how much the new face's size differs from the old one's, so that they agree in what the wish names, in the script of
 * the text; within the wish's limits. 1 where the two cannot be compared. Of `lines` this is where the search begins: at
 * equal width.
 */
export function sizeFactor(wish: SizeWish, from: FaceRecord, to: FaceRecord, text: CoveredScript | null): number {
  if (wish.mode === 'percent') return limited(wish, (wish.percent ?? 100) / 100)
  const script = comparedIn(from, to, text)
  if (wish.mode === 'keep' || script === null) return 1
  const of = measured[wish.mode === 'lines' ? 'width' : wish.mode]
  const [one, other] = [of(measuresIn(from, script)!), of(measuresIn(to, script)!)]
  return one > 0 && other > 0 ? limited(wish, one / other) : 1
}

/** By how much sizes change, by slot: scripts look large by their own measures. */
export type SizeFactors = Readonly<Record<Slot, number>>

export const limited = (wish: SizeWish, factor: number): number =>
  Math.min(Math.max(factor, wish.least / 100), wish.most / 100)

/** A size in points, rounded to the wish's step. */
export function roundedSize(points: number, step: number): number {
  return Math.max(step, Math.round(Math.round(points / step) * step * 1000) / 1000)
}

/** Distance of baselines that a face asks for at a size, in points: ascent, descent and gap. */
export const faceLeading = (lines: LineHeights, size: number, gap: boolean): number =>
  ((lines.above + lines.below + (gap ? lines.gap : 0)) * size) / 1000
