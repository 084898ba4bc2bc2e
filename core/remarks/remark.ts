import { z } from 'zod'

/*
 * Remarks: what people say of a place in a document. They are kept beside it and never change it. The word “note” is taken:
 * notes stand at the foot of a page.
 */

const part = z.string().min(1).max(500)
const node = z.int().nonnegative()
const offset = z.int().nonnegative().max(10_000_000)
/** So much is kept of the words that a remark is about: enough to find them again. */
export const quoteLength = 300

/**
 * What a remark is about. Nodes keep their numbers from version to version; `text` is what stood there, so that the place
 * is found again where the words moved.
 */
export const remarkPlaceSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('text'),
    part,
    node,
    from: offset,
    to: offset,
    text: z.string().max(quoteLength),
  }),
  /** A place on a page, from 0, as shares of its width and height from its top left: of a picture, a finished PDF. */
  z.strictObject({
    kind: z.literal('page'),
    page: z.int().nonnegative().max(100_000),
    x: z.number().min(0).max(1),
    y: z.number().min(0).max(1),
  }),
])
export type RemarkPlace = z.infer<typeof remarkPlaceSchema>
export type TextPlace = Extract<RemarkPlace, { kind: 'text' }>

/** What a remark says; several lines may be written. */
export const remarkTextSchema = z.string().trim().min(1).max(4_000)

/** The finding of a proof that a remark hands to somebody. */
export const remarkFindingSchema = z.strictObject({ check: z.string().min(1).max(60), says: z.string().max(500) })
export type RemarkFinding = z.infer<typeof remarkFindingSchema>
