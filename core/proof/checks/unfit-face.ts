import { judgedOf } from '../../font/catalogue'
import type { FaceRecord } from '../../font/face'
import type { FitnessUse } from '../../font/fitness'
import { check, type Found } from '../check'
import { firstOfEach, seenRuns, visibleCount, type ProofText, type SeenRun, type Subject } from '../subject'

interface Unfit {
  readonly text: ProofText
  readonly from: number
  readonly to: number
  readonly says: string
}

/** Why a face does not do for a use; null where it does. */
function whyNot(face: FaceRecord, use: FitnessUse): string | null {
  const judged = judgedOf(face).fitness.find(each => each.use === use)
  return judged && !judged.fit ? judged.reason : null
}

/** What a stretch of text asks of its face: to be read when it is small, or for long; null for neither. */
function askedOf({ words, values, run }: SeenRun, text: ProofText, limits: Readonly<Record<'small' | 'long', number>>) {
  const count = visibleCount(words)
  if (values.size <= limits.small) return count >= 20 ? 'small print' : null
  // A slanted passage in upright text is emphasis, code is no reading, and hands have a check of their own.
  const isRead = text.paragraph.place === 'body' && !text.isCode && values.posture === 'normal'
  return isRead && count >= limits.long && run.slot === 'western' ? 'long reading' : null
}

function* unfitRuns(subject: Subject, limits: Readonly<Record<'small' | 'long', number>>): Generator<Unfit> {
  for (const text of subject.texts)
    for (const seen of seenRuns(text)) {
      const use = askedOf(seen, text, limits)
      if (use === null) continue
      const { run, values } = seen
      const { face, status } = subject.resolution(run.style, run.slot)
      if (status === 'absent') continue
      if (use === 'long reading' && !isOfText(face)) continue
      const reason = whyNot(face, use)
      if (reason === null) continue
      const at = use === 'small print' ? ` at ${values.size} pt` : ''
      yield {
        text,
        from: run.start,
        to: run.end,
        says: `${face.family} ${face.style}${at} is not fit for ${use}: ${reason}`,
      }
    }
}

/** A face of text that stands upright: what is none is told by its class, not by single measures. */
const isOfText = (face: FaceRecord): boolean =>
  ['serif', 'slab', 'sans'].includes(judgedOf(face).classed.class) && Math.abs(face.measures.slant) < 5

export const unfitFace = check({
  id: 'unfit-face',
  group: 'faces',
  title: 'Face that is not fit for its use',
  severity: 'note',
  looksFor:
    'Small text in a face whose hairlines, counters or widths do not hold at that size, and long paragraphs in a face whose ' +
    'weight, widths or contrast are not those of reading.',
  source: 'Fitness for small print and for long reading, from measures of the outlines (docs/type.md).',
  stage: 'type',
  unseen: 'Paper, press and screen. Told once for each style.',
  limits: {
    small: { title: 'Small print is up to, pt', usual: 7.5, least: 4, most: 12 },
    long: { title: 'Letters of a paragraph that is read for long', usual: 300, least: 100, most: 5000 },
  },
  *find(subject, limits): Generator<Found> {
    for (const { text, from, to, says } of firstOfEach(unfitRuns(subject, limits), each => each.says))
      yield { says, at: { text, from, to } }
  },
})
