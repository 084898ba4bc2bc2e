import { judgedOf } from '../../font/catalogue'
import { check, type Found } from '../check'
import { firstOfEach, seenRuns, visibleCount, type ProofText, type Subject } from '../subject'

interface Unfit {
  readonly text: ProofText
  readonly from: number
  readonly to: number
  readonly says: string
}

function* unfitRuns(subject: Subject, { small }: Readonly<Record<'small', number>>): Generator<Unfit> {
  for (const text of subject.texts)
    for (const { run, words, values } of seenRuns(text)) {
      if (values.size > small || visibleCount(words) < 20) continue
      const { face, status } = subject.resolution(run.style, run.slot)
      if (status === 'absent') continue
      const judged = judgedOf(face).fitness.find(each => each.use === 'small print')
      if (judged && !judged.fit)
        yield {
          text,
          from: run.start,
          to: run.end,
          says: `${face.family} ${face.style} at ${values.size} pt is not fit for small print: ${judged.reason}`,
        }
    }
}

export const unfitFace = check({
  id: 'unfit-face',
  group: 'faces',
  title: 'Face that is not fit for small print',
  severity: 'note',
  looksFor: 'Small text in a face whose hairlines, counters or widths do not hold at that size.',
  source: 'Fitness for small print, from measures of the outlines (docs/type.md).',
  stage: 'type',
  unseen: 'Paper, press and screen. Told once for each style.',
  limits: { small: { title: 'Small print is up to, pt', usual: 7.5, least: 4, most: 12 } },
  *find(subject, limits): Generator<Found> {
    for (const { text, from, to, says } of firstOfEach(unfitRuns(subject, limits), each => each.says))
      yield { says, at: { text, from, to } }
  },
})
