import { z } from 'zod'

const place = { part: z.string().min(1).max(500), node: z.int().nonnegative() }

/** What is mended by hand where a change does not fit: on one paragraph, or on all text of one frame. */
export const repairSchema = z.discriminatedUnion('kind', [
  /** Thousandths of an em, added to what is there. */
  z.strictObject({ kind: z.literal('tracking'), ...place, amount: z.number().min(-200).max(200) }),
  /** Percent of the size, and of the leading. */
  z.strictObject({ kind: z.literal('size'), ...place, amount: z.number().min(50).max(150) }),
  z.strictObject({ kind: z.literal('leading'), ...place, amount: z.number().min(50).max(150) }),
  /** Points, added to the height of a frame. */
  z.strictObject({ kind: z.literal('height'), ...place, amount: z.number().min(-2000).max(2000) }),
])
export type Repair = z.infer<typeof repairSchema>

export const repairWishSchema = z.strictObject({ type: z.literal('repair'), repair: repairSchema })
export type RepairWish = z.infer<typeof repairWishSchema>
