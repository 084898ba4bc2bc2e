import { z } from 'zod'
import { addText, type AddedLook, type FinishedChange, type SettingTools } from './add-text'
import { openPdf } from './open'
import { putRight, type CorrectionPlan } from './put-right'

const page = z.int().min(1).max(100_000)
/** Points; pages may be large, and things may lie a little off them. */
const length = z.number().min(-20_000).max(20_000)

/** Text that is added to a page: where (from the page's top left, in points) and in what. */
export const addTextSchema = z.strictObject({
  type: z.literal('add-text'),
  page,
  x: length,
  y: length,
  width: z.number().min(1).max(20_000).nullable(),
  height: z.number().min(1).max(20_000).nullable(),
  text: z.string().min(1).max(20_000),
  family: z.string().trim().min(1).max(200),
  size: z.number().min(0.1).max(2000),
  leading: z.number().min(0.1).max(5000).nullable(),
  weight: z.int().min(1).max(1000),
  italic: z.boolean(),
  color: z.string().regex(/^#[0-9a-f]{6}$/i),
  language: z.string().max(35),
})

/** Words of a line that are put right, by where they stand. */
export const putRightSchema = z.strictObject({
  type: z.literal('put-right'),
  page,
  line: z.int().min(0).max(200_000),
  from: z.int().min(0).max(1_000_000),
  to: z.int().min(0).max(1_000_000),
  words: z.string().max(2_000),
})

/** What may be done to a finished PDF. */
export const finishedChangeSchema = z.discriminatedUnion('type', [addTextSchema, putRightSchema])
export type WishedChange = z.infer<typeof finishedChangeSchema>

/** What came of it, with a name for it; how the text came out, or how the line was put right. */
export interface FinishedOutcome extends FinishedChange {
  readonly title: string
  readonly added: AddedLook | null
  readonly corrected: CorrectionPlan | null
}

const short = (text: string) => {
  const plain = text.replace(/\s+/g, ' ').trim()
  return plain.length > 60 ? `${plain.slice(0, 59)}…` : plain
}

/**
 * Carries a change out on a finished PDF. What was there stays byte for byte: the result begins with it.
 * @throws FinishedPdfError with the reason
 */
export async function changeFinished(
  bytes: Uint8Array,
  change: WishedChange,
  tools: SettingTools,
): Promise<FinishedOutcome> {
  const finished = await openPdf(bytes)
  if (change.type === 'add-text') {
    const { look, ...made } = await addText(finished, change, tools)
    return { ...made, title: `Added “${short(change.text)}” on page ${change.page}`, added: look, corrected: null }
  }
  const { plan, ...made } = await putRight(finished, change, tools)
  return {
    ...made,
    title: `Put right “${short(plan.line)}” to “${short(plan.becomes)}” on page ${change.page}`,
    added: null,
    corrected: plan,
  }
}
