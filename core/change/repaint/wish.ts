import { z } from 'zod'
import { paintedThings } from '../../document/colours'
import { mostPaints } from '../../house/house-paints'

const colorSchema = z
  .string()
  .toLowerCase()
  .regex(/^#[0-9a-f]{6}$/, 'a colour is “#” and six digits from 0 to f')

/** Colours give way to others wherever the document names them: in shapes, lines, grounds, charts and text, defaults included. */
export const repaintSchema = z.strictObject({
  type: z.literal('repaint'),
  paints: z
    .array(
      z.strictObject({
        from: colorSchema,
        to: colorSchema,
        /** What is painted anew; all else keeps the colour. */
        on: z.array(z.enum(paintedThings)).min(1).max(paintedThings.length),
      }),
    )
    .min(1)
    .max(mostPaints),
})
export type RepaintWish = z.infer<typeof repaintSchema>
export type Paint = RepaintWish['paints'][number]
