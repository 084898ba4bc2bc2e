import { styleWish } from '../style-wish'
import { check, type Found } from '../check'
import type { Subject } from '../subject'

function* stacked(subject: Subject, { most }: Readonly<Record<'most', number>>): Generator<Found> {
  for (const text of subject.texts)
    for (const { layout, from, to } of subject.linesOf(text)) {
      let first = -1
      for (let at = from; at <= to; at++) {
        if (at < to && layout.lines[at]!.hyphen) {
          if (first < 0) first = at
          continue
        }
        const count = first < 0 ? 0 : at - first
        if (count > most) {
          const repair = styleWish(text, { paragraph: { 'fo:hyphenation-ladder-count': String(most) } })
          yield {
            says: `${count} lines in a row end in hyphens`,
            at: { text, from: layout.lines[first]!.start, to: layout.lines[at - 1]!.contentEnd },
            ...(repair ? { repair } : {}),
          }
        }
        first = -1
      }
    }
}

export const stackedHyphens = check({
  id: 'stacked-hyphens',
  group: 'setting',
  title: 'Stacked hyphens',
  severity: 'warning',
  looksFor: 'Hyphens at the ends of too many lines one after the other.',
  source: 'Bringhurst, The Elements of Typographic Style, 2.4.2: not more than three.',
  unseen: 'Hyphens that are part of a word at the end of its line. Put right in the style.',
  limits: { most: { title: 'Hyphens in a row at most', usual: 3, least: 1, most: 10 } },
  find: stacked,
})
