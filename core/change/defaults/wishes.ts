import { z } from 'zod'
import { startKinds } from '../../document/rules'
import { attribute, font, value } from '../../style/style-changes'

/** What new text begins with. */
export const startValuesSchema = z.strictObject({
  fonts: z.strictObject({ western: font.optional(), asian: font.optional(), complex: font.optional() }).optional(),
  text: z.record(attribute, value).optional(),
  paragraph: z.record(attribute, value).optional(),
  /** Of frames: how far text keeps off the edges, in points, and their fill; null for none. */
  inset: z.number().min(0).max(500).optional(),
  fill: z
    .string()
    .regex(/^#[0-9a-f]{6}$/i)
    .nullable()
    .optional(),
})
export type StartValues = z.infer<typeof startValuesSchema>

/** Sets what new text of a kind begins with; what is there keeps its look. */
export const startSchema = z.strictObject({
  type: z.literal('start'),
  kind: z.enum(startKinds),
  values: startValuesSchema,
})
export type StartWish = z.infer<typeof startSchema>

/** The same by example: what the text at a place looks like. */
export const startLikeSchema = z.strictObject({
  type: z.literal('start-like'),
  kind: z.enum(startKinds),
  part: z.string().min(1).max(500),
  node: z.int().nonnegative(),
  offset: z.int().nonnegative().max(10_000_000),
})
export type StartLikeWish = z.infer<typeof startLikeSchema>
