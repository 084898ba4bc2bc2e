import { z } from 'zod'

const sign = z.string().min(1).max(8)
const node = z.int().nonnegative()
/** Thousandths of an em. */
const amount = z.number().min(-1000).max(1000)

/** A pair of letters in a face, or in all faces of a family, and by how much it is set apart; 0 leaves it to the face. */
const pairSchema = z.strictObject({
  family: z.string().trim().min(1).max(200),
  style: z.string().min(1).max(200).optional(),
  left: sign,
  right: sign,
  amount,
})
export type PairCorrection = z.infer<typeof pairSchema>

/** A pair at one place: `from` is where its left letter begins in the paragraph's text. */
const placeSchema = z.strictObject({
  part: z.string().min(1).max(500),
  node,
  from: z.int().nonnegative().max(10_000_000),
  amount,
})
export type PlaceCorrection = z.infer<typeof placeSchema>

/** Sets pairs of letters nearer together or farther apart: wherever they stand in a face or family, or here only. */
export const kernSchema = z.strictObject({
  type: z.literal('kern'),
  pairs: z.array(pairSchema).max(500),
  places: z.array(placeSchema).max(500).default([]),
})
export type KernWish = z.infer<typeof kernSchema>

const signed = (value: number) => (value < 0 ? `−${-value}` : `+${value}`)

/** By how much a pair is set apart, in thousandths of an em: “−40”; “–” where it is left to the face. */
export const shortAmount = (value: number): string => (value === 0 ? '–' : signed(value))

/** By how much a pair is set apart, in words. */
export const amountWords = (value: number): string => (value === 0 ? 'as the face has it' : `${signed(value)}/1000 em`)

/** A pair in words, with the face that it is corrected in. */
export const pairTitle = ({ family, style, left, right }: Omit<PairCorrection, 'amount'>): string =>
  `“${left}${right}” in ${style === undefined ? `all faces of ${family}` : `${family} ${style}`}`

/** The wish in a few words. */
export function kernTitle({ pairs, places }: KernWish): string {
  const count = pairs.length + places.length
  if (count === 1 && pairs.length === 1) return `Set ${pairTitle(pairs[0]!)} ${amountWords(pairs[0]!.amount)}`
  if (count === 1) return `Set one pair of letters at one place ${amountWords(places[0]!.amount)}`
  return `Correct ${count} pairs of letters`
}
