import { weightBeyond } from '../../font/named-weight'
import { check, type Found } from '../check'
import { seenRuns, type Subject } from '../subject'

/** Weights nearer than this are taken for one another. */
const near = 150

function* lacking(subject: Subject): Generator<Found> {
  for (const text of subject.texts)
    for (const { run, values } of seenRuns(text)) {
      const { face, status } = subject.resolution(run.style, run.slot)
      if (status !== 'present' && status !== 'alias') continue
      const italic = values.posture !== 'normal'
      // “Jost Medium” is asked for by its name, whatever weight is said beside it.
      const named = weightBeyond(values.font.family, face.family) === face.weight
      const weight =
        !named && Math.abs(face.weight - values.weight) > near && !face.axes.some(axis => axis.tag === 'wght')
      const slant =
        italic && face.slant !== 'italic' && !face.axes.some(axis => axis.tag === 'slnt' || axis.tag === 'ital')
      if (!weight && !slant) continue
      const lacks = [
        weight ? `no weight of ${values.weight} (${face.weight} is nearest)` : '',
        slant ? 'no italic' : '',
      ]
      yield {
        says: `${face.family} has ${lacks.filter(Boolean).join(' and ')}: programs fake it`,
        at: { text, from: run.start, to: run.end },
      }
    }
}

export const missingWeight = check({
  id: 'missing-weight',
  group: 'faces',
  title: 'Weight or slant that the family lacks',
  severity: 'warning',
  looksFor: 'Bold, light or italic text whose family has no such face: most programs smear or slant the one they have.',
  source: 'Weight and slant of the faces of the library (OpenType 1.9, OS/2).',
  stage: 'swap',
  unseen: 'Faces that another machine has and this desk has not.',
  find: lacking,
})
