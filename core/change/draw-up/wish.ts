import { z } from 'zod'
import { roles } from '../../document/rules'
import { displayName } from '../../style/style-changes'

/** A voice as draw-up names it (`voiceWord`): equal for equal looks, in whatever document. */
const voice = z.string().regex(/^[0-9a-f]{16}$/)

/** What is chosen by hand for one proposed style. */
export const drawUpChoiceSchema = z.strictObject({
  voice,
  family: z.enum(['paragraph', 'text', 'graphic', 'table-cell']),
  /** What it is called, in place of the name that is proposed. */
  name: displayName.optional(),
  /** What its text is for; null for nothing in particular. */
  role: z.enum(roles).nullable().optional(),
  /** Its text takes a named style that is there, or goes with another voice: it then looks as that does. */
  into: z
    .discriminatedUnion('kind', [
      z.strictObject({ kind: z.literal('style'), name: z.string().min(1).max(500) }),
      z.strictObject({ kind: z.literal('voice'), voice }),
    ])
    .optional(),
})
export type DrawUpChoice = z.infer<typeof drawUpChoiceSchema>

/**
 * Makes the named styles that a document lacks, from its voices, so that it looks the same and is settled: paragraph and
 * character styles of a text, graphic styles of the loose frames of a deck or drawing, cell styles of its tables.
 */
export const drawUpSchema = z.strictObject({
  type: z.literal('draw-up'),
  /** Points by which sizes and leading may differ in voices that are drawn up as one. At 0 nothing moves. */
  tolerance: z.number().min(0).max(4).default(0),
  /** Paragraphs that are headings by their look become headings: where no label would appear, all, or none. */
  headings: z.enum(['unlabelled', 'all', 'none']).default('unlabelled'),
  /** Named styles that nothing uses after it go. */
  sweep: z.boolean().default(false),
  choices: z.array(drawUpChoiceSchema).max(2_000).default([]),
})
export type DrawUpWish = z.infer<typeof drawUpSchema>
