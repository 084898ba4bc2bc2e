import { addText, type AddedLook, type FinishedChange, type SettingTools } from './add-text'
import { openPdf } from './open'
import { putRight, type CorrectionPlan } from './put-right'
import type { WishedChange } from './wish'

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
