import { judgedOf } from '../../font/catalogue'
import type { FaceRecord } from '../../font/face'
import { notAllowed, withHeld, type MadeFor } from '../../font/held-licence'
import { check, type Found } from '../check'
import { seenRuns } from '../subject'

/** What is wrong with the rights to a family; none where all that is asked for is allowed. */
export function wrongWith(face: FaceRecord, { uses, licences, today }: MadeFor): Omit<Found, 'at'>[] {
  const { family } = face
  const { licence } = judgedOf(face)
  const rights = withHeld(family, licence, licences, today)
  // Of one that has ended, what it allowed need not be told one by one: only what the file itself forbids.
  const wanting =
    rights.ended === null
      ? notAllowed(rights, uses)
      : notAllowed(licence, uses).filter(each => each.right === 'not allowed')
  const wrong = wanting.map(({ use, right, from }): Omit<Found, 'at'> =>
    right === 'not allowed'
      ? { says: `${family} may not be used for: ${use} (${from})` }
      : { says: `${family} is not said to be licensed for: ${use} (${from})`, severity: 'warning' },
  )
  return rights.ended === null ? wrong : [{ says: `the licence of ${family} ended on ${rights.ended}` }, ...wrong]
}

export const unlicensed = check({
  id: 'unlicensed',
  group: 'faces',
  title: 'Face that is not licensed for this',
  severity: 'error',
  looksFor:
    'Faces whose licence does not allow what the document is made for, as it is ticked at the Handoff stage, or has ended.',
  source:
    'The licence in the face’s file, its embedding bits (OpenType, OS/2 fsType), and the licences kept in the library.',
  stage: 'type',
  unseen:
    'Licences that nobody entered, and how many people work with one. What the file leaves open is a warning. Told once for each ' +
    'family, where it is first seen.',
  *find(subject): Generator<Found> {
    const told = new Set<string>()
    for (const text of subject.texts)
      for (const { run } of seenRuns(text)) {
        const { face, status } = subject.resolution(run.style, run.slot)
        if (status === 'absent' || told.has(face.family)) continue
        told.add(face.family)
        for (const found of wrongWith(face, subject.madeFor))
          yield { ...found, at: { text, from: run.start, to: run.end } }
      }
  },
})
