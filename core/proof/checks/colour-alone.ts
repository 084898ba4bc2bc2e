import { colorOf } from '../../census/matching'
import { check, type Found } from '../check'
import { seenRuns, visibleCount, type Subject } from '../subject'

function* alone(subject: Subject): Generator<Found> {
  for (const text of subject.texts) {
    const runs = [...seenRuns(text)]
    if (runs.length < 2) continue
    const own = text.own.effective
    for (const { run, words, values, color } of runs) {
      const plain = own.slots[run.slot]
      const { shared } = run.style.effective
      const same =
        values.font.family === plain.font.family &&
        values.size === plain.size &&
        values.weight === plain.weight &&
        values.posture === plain.posture &&
        (['fo:text-transform', 'fo:font-variant', 'style:text-underline-style', 'fo:background-color'] as const).every(
          name => shared[name] === own.shared[name],
        )
      if (same && color !== colorOf(text.own) && visibleCount(words) >= 3)
        yield { says: `Told from its neighbours by ${color} alone`, at: { text, from: run.start, to: run.end } }
    }
  }
}

export const colourAlone = check({
  id: 'colour-alone',
  group: 'reading',
  title: 'Difference by colour alone',
  severity: 'note',
  looksFor: 'Words inside a paragraph that differ from it in nothing but their colour.',
  source: 'WCAG 2.2, 1.4.1.',
  unseen: 'Whether the colour means anything; colours of charts.',
  find: alone,
})
