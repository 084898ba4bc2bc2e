import { points } from '../../document/lengths'
import { check, type Found } from '../check'
import { betterLook } from '../style-wish'
import { seenRuns, type Subject } from '../subject'

function* tracked(subject: Subject, { tight, wide }: Readonly<Record<'tight' | 'wide', number>>): Generator<Found> {
  for (const text of subject.texts)
    for (const { run, words, values } of seenRuns(text)) {
      const { shared } = run.style.effective
      const spacing = run.style.pair ? 0 : (points(shared['fo:letter-spacing']) ?? 0)
      const amount = Math.round((spacing / values.size) * 1000)
      if (amount === 0) continue
      const capitals =
        shared['fo:text-transform'] === 'uppercase' ||
        shared['fo:font-variant'] === 'small-caps' ||
        !/\p{Ll}{2}/u.test(words)
      const most = capitals ? wide * 5 : wide
      if (run.slot !== 'western' || (amount <= most && amount >= -tight)) continue
      yield {
        says: `Tracked ${amount}${amount > 0 && !capitals ? ': letterspaced lower case' : ''}`,
        at: { text, from: run.start, to: run.end },
        repair: betterLook(text, run.start, run.end, run.style.effective.layers, {
          attribute: 'fo:letter-spacing',
          on: 'text',
          value: 'normal',
          local: { tracking: 0 },
        }),
      }
    }
}

export const tracking = check({
  id: 'tracking',
  group: 'setting',
  title: 'Tracking out of bounds',
  severity: 'warning',
  looksFor: 'Lower case set apart, and text set so tight that letters touch. Thousandths of an em.',
  source:
    'Bringhurst, The Elements of Typographic Style, 2.1.6 and 2.1.7: capitals are letterspaced, lower case is not.',
  unseen: 'Display sizes may bear more. Scripts other than Latin, Greek and Cyrillic are not looked at.',
  limits: {
    tight: { title: 'Tighter than', usual: 35, least: 1, most: 300 },
    wide: { title: 'Lower case wider than', usual: 40, least: 1, most: 500 },
  },
  find: tracked,
})
