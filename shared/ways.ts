import { z } from 'zod'
import { lengthUnits } from '../core/style/typed'

/*
 * How somebody likes to work: it goes with them to every browser. Server and browser say it to each other.
 */

/** What is pasted: asked each time, as plain text, or with its structure in the document's own styles. */
export const pasteWays = ['ask', 'plain', 'structure'] as const
export type PasteWay = (typeof pasteWays)[number]

/** Ways of one's own, whatever the document. */
export const waysSchema = z.strictObject({
  /** The unit in which places and sizes on pages are told, and that is meant where none is typed. Type is told in points. */
  units: z.enum(lengthUnits).default('mm'),
  /** What is marked on the sheets: findings of the desk, white space, the baseline grid. */
  marks: z.boolean().default(true),
  whiteSpace: z.boolean().default(false),
  grid: z.boolean().default(false),
  paste: z.enum(pasteWays).default('ask'),
})
export type Ways = z.infer<typeof waysSchema>
export const usualWays: Ways = waysSchema.parse({})

/** Keys of one's own in one document: the style that each of the figures 0 to 9 gives. */
export const pinsSchema = z.record(
  z.string().regex(/^\d$/),
  z.strictObject({ family: z.enum(['paragraph', 'text']), name: z.string().min(1).max(1000) }),
)
export type Pins = z.infer<typeof pinsSchema>
