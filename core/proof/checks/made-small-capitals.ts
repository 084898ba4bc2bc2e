import { check, type Found } from '../check'
import { betterLook } from '../style-wish'
import { seenRuns, type Subject } from '../subject'

function* made(subject: Subject): Generator<Found> {
  const { typesetter } = subject.session
  for (const text of subject.texts)
    for (const { run, words } of seenRuns(text)) {
      if (run.style.effective.shared['fo:font-variant'] !== 'small-caps' || !/\p{Ll}/u.test(words)) continue
      const look = typesetter.look(run.style, run.slot)
      if (!look.madeSmallCaps) continue
      yield {
        says: `${look.face.family} has no small capitals: smaller capitals stand in, too thin beside their neighbours`,
        at: { text, from: run.start, to: run.end },
        repair: betterLook(text, run.start, run.end, run.style.effective.layers, {
          attribute: 'fo:font-variant',
          on: 'text',
          value: 'normal',
          local: { case: 'none' },
        }),
      }
    }
}

export const madeSmallCapitals = check({
  id: 'made-small-capitals',
  group: 'setting',
  title: 'Fake small capitals',
  severity: 'warning',
  looksFor: 'Small capitals in a face that has none: programs make them of capitals.',
  source: 'The features of the face (OpenType 1.9, smcp).',
  unseen: 'Capitals that were typed in a smaller size. Put right as plain letters.',
  find: made,
})
