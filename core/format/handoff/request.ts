import { z } from 'zod'

/** What a document is handed on as. Lengths in points. */
export const handoffSchema = z.discriminatedUnion('as', [
  z.strictObject({
    as: z.literal('pdf'),
    bleed: z.number().min(0).max(72).default(0),
    cropMarks: z.boolean().default(false),
    /** Go on without embedding faces whose licence bits forbid it. */
    leaveOut: z.boolean().default(false),
    /** The pages of speaker notes too. */
    notes: z.boolean().default(false),
    /** For print: the printing condition, by its name here or by a profile of one's own in base64. */
    print: z
      .union([
        z.strictObject({ condition: z.string().trim().min(1).max(100) }),
        z.strictObject({ profile: z.base64().max(6_000_000), name: z.string().trim().min(1).max(100) }),
      ])
      .optional(),
  }),
  z.strictObject({ as: z.literal('epub') }),
  z.strictObject({ as: z.literal('html') }),
  z.strictObject({ as: z.literal('css') }),
  z.strictObject({ as: z.literal('tokens') }),
  z.strictObject({ as: z.literal('template') }),
])
export type Handoff = z.output<typeof handoffSchema>
/** The same as it is asked for: what is not said is as the schema has it. */
export type HandoffRequest = z.input<typeof handoffSchema>
export type PdfHandoff = Extract<Handoff, { as: 'pdf' }>

/** What came of it. */
export interface Handed {
  readonly bytes: Uint8Array
  /** The ending of its file's name, without a dot. */
  readonly ending: string
  readonly type: string
  /** What it is, in sentences. */
  readonly said: readonly string[]
  /** What is not in it, or not as it was, and why. */
  readonly left: readonly string[]
}
