import { z } from 'zod'

const place = { part: z.string().min(1).max(500), node: z.int().nonnegative() }
const offset = z.int().nonnegative().max(10_000_000)
const words = z.string().max(2_000)

/** What is put right at one place. Offsets count UTF-16 units of the paragraph's text. */
export const mendSchema = z.discriminatedUnion('kind', [
  /** Other words for some that stand there: nothing is written where they are no longer the same. */
  z.strictObject({ kind: z.literal('words'), ...place, from: offset, to: offset, before: words, after: words }),
  /** An empty paragraph goes. */
  z.strictObject({ kind: z.literal('empty'), ...place }),
  /** A paragraph becomes a heading of a level, in the style of that level where one is named; null: it is none. */
  z.strictObject({
    kind: z.literal('level'),
    ...place,
    level: z.int().min(1).max(10).nullable(),
    style: z.string().min(1).max(500).optional(),
  }),
])
export type Mend = z.infer<typeof mendSchema>

/** As many places are put right in one wish: what one change takes. */
export const mendLimit = 5_000

export const mendWishSchema = z.strictObject({
  type: z.literal('mend'),
  places: z.array(mendSchema).min(1).max(mendLimit),
})
export type MendWish = z.infer<typeof mendWishSchema>
