import { z } from 'zod'
import { remarkFindingSchema, remarkPlaceSchema, remarkTextSchema } from '../core/remarks/remark'
import type { RemarkFinding, RemarkPlace } from '../core/remarks/remark'

/*
 * Remarks at places of documents, as server and browser say them to each other.
 */

export interface RemarkAnswer {
  readonly id: string
  readonly author: string
  readonly text: string
  readonly created: Date
}

/** What somebody said of a document or a place in it, and what came of it. People are told by their ids. */
export interface Remark {
  readonly id: string
  /** The version that was looked at. */
  readonly version: number
  /** Null where it is about the whole document. */
  readonly place: RemarkPlace | null
  readonly text: string
  /** The finding of a proof that it hands on; null where somebody wrote it by themselves. */
  readonly finding: RemarkFinding | null
  readonly author: string
  /** Whom it is given to; null where nobody is asked in particular. */
  readonly to: string | null
  readonly created: Date
  /** Who settled it, and when; null while it is open. */
  readonly settled: { readonly person: string; readonly at: Date } | null
  readonly answers: readonly RemarkAnswer[]
}

/** An open remark that is given to whoever asks. */
export interface GivenRemark {
  readonly id: string
  readonly document: string
  readonly fileName: string
  readonly author: string
  readonly text: string
  readonly created: Date
}

const person = z.string().min(1).max(36)

export const remarkBodySchema = z.strictObject({
  version: z.int().min(1),
  place: remarkPlaceSchema.nullable(),
  text: remarkTextSchema,
  finding: remarkFindingSchema.nullable().default(null),
  to: person.nullable().default(null),
})
export type RemarkBody = z.infer<typeof remarkBodySchema>

/** What is done with a remark that is there. */
export const remarkActSchema = z.discriminatedUnion('act', [
  z.strictObject({ act: z.literal('answer'), text: remarkTextSchema }),
  z.strictObject({ act: z.literal('settle') }),
  z.strictObject({ act: z.literal('reopen') }),
  z.strictObject({ act: z.literal('give'), to: person.nullable() }),
])
export type RemarkAct = z.infer<typeof remarkActSchema>
