import { check, type Found } from '../check'
import { firstOfEach, type ProofText, type Subject } from '../subject'

/** A word space where none is measured: a quarter of an em, as text faces have it. */
const wordSpace = 0.25

interface Loose {
  readonly text: ProofText
  readonly from: number
  readonly to: number
  readonly times: number
}

function* loose(subject: Subject, { times }: Readonly<Record<'times', number>>): Generator<Loose> {
  for (const text of subject.texts) {
    for (const { layout, from, to } of subject.linesOf(text)) {
      if (layout.look.measure.alignment !== 'justify') continue
      const { size } = text.own.effective.slots.western
      for (const line of layout.lines.slice(from, to)) {
        const wide = (wordSpace * size + line.stretch) / (wordSpace * size)
        if (wide > times) yield { text, from: line.start, to: line.contentEnd, times: wide }
      }
    }
  }
}

export const looseLines = check({
  id: 'loose-line',
  group: 'setting',
  title: 'Loose lines',
  severity: 'warning',
  looksFor: 'Justified lines whose word spaces are pulled far apart; told once for each paragraph.',
  source: 'Bringhurst, The Elements of Typographic Style, 2.1.2: a word space of a quarter of an em, up to half.',
  stage: 'styles',
  unseen: 'It takes a word space of a quarter of an em for every face.',
  limits: { times: { title: 'Word spaces at most, times their width', usual: 2.5, least: 1.2, most: 10 } },
  *find(subject, limits): Generator<Found> {
    for (const { text, from, to, times, all } of firstOfEach(loose(subject, limits), ({ text: own }) =>
      String(own.paragraph.node),
    ))
      yield {
        says: `Word spaces ${Math.round(times * 10) / 10} times their width${all.length > 1 ? `, and ${all.length - 1} more lines` : ''}`,
        at: { text, from, to },
      }
  },
})
