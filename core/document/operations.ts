import { z } from 'zod'

/*
 * Operations are the only way a document changes: small, plain data, checked at every door. What undo needs is in the
 * inverses, which hold source slices, so that undoing gives the bytes back.
 */

const part = z.string().min(1).max(500)
const node = z.int().nonnegative()
const name = z
  .string()
  .regex(/^[\w-]+(:[\w.-]+)?$/)
  .max(100)
const values = z.record(name, z.string().max(10_000).nullable())
const ids = z.array(node).min(1).max(100_000)
const markup = z.string().min(1).max(10_000_000)

export const operationSchema = z.discriminatedUnion('type', [
  /**
   * Sets properties of a style (named, automatic or default), or with null takes them away. `id` is for a
   * properties element that is not there yet.
   */
  z.strictObject({
    type: z.literal('set-properties'),
    part,
    node,
    properties: z.enum(['text', 'paragraph', 'graphic', 'table-cell']),
    set: values,
    id: node.optional(),
  }),
  /** Changes attributes that name a font, on any element; only names of font-attributes.ts are taken. */
  z.strictObject({ type: z.literal('name-font'), part, node, set: values }),
  /** Changes a font named by the text of a node, as formula settings do. */
  z.strictObject({ type: z.literal('name-font-text'), part, node, text: z.string().min(1).max(1000) }),
  /** Declares a font face; the declarations element is made with `holder` as its id where there is none. */
  z.strictObject({
    type: z.literal('declare-face'),
    part,
    id: node,
    holder: node.optional(),
    attributes: z.record(name, z.string().max(1000)),
  }),
  z.strictObject({ type: z.literal('drop-face'), part, node }),
  /** Drops a picture that stood in for an object and no longer shows it. */
  z.strictObject({ type: z.literal('drop-replacement'), part, node }),
  /** Takes a part out of the package, and its entry out of the manifest unless another operation does that. */
  z.strictObject({ type: z.literal('drop-part'), path: part, keepEntry: z.boolean().optional() }),
  /**
   * Writes Morphene's own part; null leaves it as the package has it. Its entry in the manifest is another
   * operation.
   */
  z.strictObject({ type: z.literal('write-rules'), text: z.string().max(5_000_000).nullable() }),
  // What edits of text, layout and all inverses are made of.
  z.strictObject({ type: z.literal('restore-tag'), part, node, tag: markup }),
  z.strictObject({ type: z.literal('restore-text'), part, node, text: z.string(), markup: z.string() }),
  z.strictObject({ type: z.literal('restore-node'), part, parent: node, index: node, source: markup, ids }),
  z.strictObject({ type: z.literal('remove-node'), part, node }),
  /** Takes an element away and leaves its children in its place; and puts one around some children. */
  z.strictObject({ type: z.literal('unwrap-node'), part, node }),
  z.strictObject({
    type: z.literal('wrap-nodes'),
    part,
    parent: node,
    index: node,
    count: node,
    source: markup,
    id: node,
  }),
  z.strictObject({ type: z.literal('restore-part'), path: part }),
])

export type Operation = z.infer<typeof operationSchema>

/** At most this many operations make one change. */
export const operationLimit = 50_000
export const operationsSchema = z.array(operationSchema).max(operationLimit)
