import { z } from 'zod'
import { roleIdSchema } from '../document/rules'

const name = z.string().min(1).max(500)
/** The name of an attribute that a style may set. */
export const attribute = z
  .string()
  .regex(/^[a-z]+:[a-z-]+$/)
  .max(60)
/** A value that an attribute can hold: no markup, no control characters. */
export const value = z
  .string()
  .max(300)
  .regex(/^[^\u0000-\u001F<]*$/)
  .nullable()
const points = z.number().min(-5000).max(5000)
export const displayName = z
  .string()
  .trim()
  .min(1)
  .max(200)
  .regex(/^[^\u0000-\u001F]+$/)

/** A font as a family; null lets go of it. */
export const font = z
  .strictObject({
    family: z.string().trim().min(1).max(200),
    generic: z.string().max(20).optional(),
    pitch: z.string().max(20).optional(),
  })
  .nullable()

/** What changes in a style: values to set, or with null to let go so that the parent's hold. */
export const styleChangesSchema = z.strictObject({
  displayName: displayName.optional(),
  parent: name.nullable().optional(),
  next: name.nullable().optional(),
  outlineLevel: z.int().min(1).max(10).nullable().optional(),
  listStyle: z.string().max(500).nullable().optional(),
  /** The character style of the labels of the style's list, at all its levels; null for the type of the item. */
  listLabel: name.nullable().optional(),
  /** Fonts by slot, as families: the declarations they need are made. */
  fonts: z.strictObject({ western: font.optional(), asian: font.optional(), complex: font.optional() }).optional(),
  text: z.record(attribute, value).optional(),
  paragraph: z.record(attribute, value).optional(),
  /** Of the frame, shape or cell that holds the text: its ground, line, padding. */
  holder: z.record(attribute, value).optional(),
  /** Tab stops, in points; an empty list says that there are none. */
  tabs: z
    .array(
      z.strictObject({
        position: points,
        type: z.enum(['left', 'center', 'right', 'char']),
        char: z.string().max(2).optional(),
        leader: z.string().max(2).optional(),
      }),
    )
    .max(60)
    .nullable()
    .optional(),
  dropCap: z
    .strictObject({
      lines: z.int().min(1).max(20),
      length: z.union([z.int().min(1).max(50), z.literal('word')]),
      distance: points,
      style: name.nullable(),
    })
    .nullable()
    .optional(),
  /** OpenType features by tag, kept in the rules part. */
  features: z
    .record(z.string().regex(/^[\x20-\x7E]{4}$/), z.int().min(0).max(255))
    .nullable()
    .optional(),
  role: roleIdSchema.nullable().optional(),
  author: z.string().trim().max(100).nullable().optional(),
})
export type StyleChanges = z.infer<typeof styleChangesSchema>
