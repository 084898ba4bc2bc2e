import { z } from 'zod'
import { settingSchema } from '../../house/house'
import { chartTexts } from '../../document/chart-texts'
import { roleIdSchema } from '../../document/rules'

const chartTextSchema = z.strictObject({
  of: z.enum(chartTexts),
  /** What is not said stays. */
  setting: settingSchema.pick({ family: true, weight: true, italic: true, size: true, case: true }),
  color: z
    .string()
    .regex(/^#[0-9a-f]{6}$/)
    .optional(),
  /** What it does in all charts of the document; null for what is proposed. Houses set it by that. */
  role: roleIdSchema.nullable().optional(),
})
export type ChartTextSetting = z.infer<typeof chartTextSchema>

/** Sets text of charts anew: titles, axes, legends, values; of one chart, or of all. */
export const chartTextWishSchema = z.strictObject({
  type: z.literal('chart-text'),
  /** The part that holds the chart; null for all charts of the document. */
  chart: z.string().min(1).max(500).nullable().default(null),
  texts: z.array(chartTextSchema).min(1).max(chartTexts.length),
})
export type ChartTextWish = z.infer<typeof chartTextWishSchema>
