import { z } from 'zod'
import { roleIdSchema } from '../../document/rules'
import { houseSchema } from '../../house/house'

const styleKeySchema = z.strictObject({
  family: z.enum(['paragraph', 'graphic', 'presentation', 'table-cell']),
  name: z.string().min(1).max(500),
})

/** Brings a document to a house: the styles of each role are set as the house says. */
export const dressSchema = z.strictObject({
  type: z.literal('dress'),
  /** Its frames aside: dressing puts none in, and plans that are kept stay small. */
  house: houseSchema.overwrite(house => ({ ...house, frames: [] })),
  /** Which house of the desk it is, and which version: the document keeps it. */
  of: z.strictObject({ house: z.uuid(), version: z.int().min(0) }).optional(),
  /** What styles do, where it is said by hand: null leaves a style as it is. All others go by their roles. */
  roles: z
    .array(z.strictObject({ style: styleKeySchema, role: roleIdSchema.nullable() }))
    .max(2_000)
    .default([]),
  /** Whether a text whose own styles say too little is drawn up first. */
  drawUp: z.boolean().default(false),
  /** Roles whose text keeps its look. */
  keep: z.array(roleIdSchema).max(60).default([]),
  /** Whether styles of a role take the name that the house has for it. */
  names: z.enum(['own', 'house']).default('own'),
  /** What was set by hand on text of dressed styles: goes but for emphasis, or stays. */
  strays: z.enum(['settle', 'keep']).default('settle'),
})
export type DressWish = z.infer<typeof dressSchema>
