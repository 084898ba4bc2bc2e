import { answerLimit, remarkLimit, type RemarkOutcome } from '../store/remarks'
import { refusal } from './answer'

/** Why nothing came of what was asked of a remark, as a sentence. */
export function remarkRefusal(outcome: Exclude<RemarkOutcome, 'done'>) {
  switch (outcome) {
    case 'gone':
      return refusal(404, 'This remark is not there any more. Nothing was changed.')
    case 'not yours':
      return refusal(
        403,
        'A remark is settled and given on by who wrote it, whom it is given to, and who changes documents; it is taken away by ' +
          'who wrote it, as long as nobody else answered. Nothing was changed.',
      )
    case 'nobody':
      return refusal(
        422,
        'Whoever it is given to does not work at this studio, or does not see this document. Nothing was changed.',
      )
    case 'full':
      return refusal(
        422,
        `A document keeps ${remarkLimit} remarks at most, and a remark ${answerLimit} answers. Nothing was kept.`,
      )
  }
}
