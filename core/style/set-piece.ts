import { z } from 'zod'
import { styleChangesSchema } from './style-changes'

const name = z.string().min(1).max(500)

/** A set piece: a frame with its columns, insets and styles, kept for re-use in any document. Lengths in points. */
export const setPieceSchema = z.strictObject({
  /** The frame, as XML that stands by itself. */
  frame: z.string().min(1).max(400_000),
  width: z.number().min(1).max(20_000),
  height: z.number().min(1).max(20_000),
  /** Its styles by hand, with their graphic, paragraph and text properties. */
  automatic: z.array(z.strictObject({ family: name, name, markup: z.string().max(50_000) })).max(500),
  /** Named styles that it goes by: made where a document lacks them. */
  styles: z
    .array(
      z.strictObject({
        family: z.enum(['paragraph', 'text']),
        name,
        displayName: z.string().min(1).max(200),
        changes: styleChangesSchema,
      }),
    )
    .max(500),
})
export type SetPiece = z.infer<typeof setPieceSchema>
