import { z } from 'zod'
import { partBytes } from '../package/container'
import { PackageError } from '../package/errors'
import type { OdfDocument } from './open'

/** The one part that is Morphene's own: what OpenDocument has no place for. Other readers pass it over. */
export const rulesPath = 'Morphene/rules.json'

/** A style by family and name, as style:name has it. */
const styleKeySchema = z.strictObject({ family: z.enum(['paragraph', 'text']), name: z.string().min(1).max(500) })
const tagSchema = z.string().regex(/^[\x20-\x7E]{4}$/)

/** What rules.json holds. Unknown members are kept in the file and passed over here: a newer desk may have written them. */
export const rulesSchema = z.object({
  /** Distance between two characters in one face, in thousandths of an em; without `style` in all faces of the family. */
  kerning: z.array(z.strictObject({ family: z.string().max(200), style: z.string().max(200).optional(), left: z.string().min(1).max(8), right: z.string().min(1).max(8), amount: z.number().min(-1000).max(1000) })).max(5000).default([]),
  /** OpenType features by tag: 0 is off, 1 on, higher numbers choose alternates. */
  features: z.array(z.strictObject({ style: styleKeySchema, features: z.record(tagSchema, z.int().min(0).max(255)) })).max(5000).default([]),
  /** Places on the axes of variable faces, by tag. */
  axes: z.array(z.strictObject({ style: styleKeySchema, axes: z.record(tagSchema, z.number().min(-32768).max(32768)) })).max(5000).default([]),
})
export type Rules = z.infer<typeof rulesSchema>

export const noRules: Rules = { kerning: [], features: [], axes: [] }

/** The rules of a document. @throws PackageError where the part is there and cannot be read */
export function readRules(document: OdfDocument): Rules {
  if (!document.container.byPath.has(rulesPath) || document.dropped.has(rulesPath)) return noRules
  try {
    return rulesSchema.parse(JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(partBytes(document.container, rulesPath))))
  }
  catch (error) {
    if (error instanceof PackageError) throw error
    throw new PackageError('damaged', 'The rules that this document carries for Morphene (Morphene/rules.json) cannot be read. Take that part out of the package to open it without them. Nothing was kept.')
  }
}
