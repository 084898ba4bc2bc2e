import { check, type Found } from '../check'
import { firstOfEach, seenRuns, type ProofText, type Subject } from '../subject'

/** A cell of figures: a number with its separators, and perhaps a unit. */
const number = /^[\s\p{Sc}+−-]*\d[\d.,:\s\u00A0\u202F]*[%\p{Sc}\p{L}]{0,4}\s*$/u

interface Figured {
  readonly text: ProofText
  readonly from: number
  readonly to: number
  readonly family: string
}

function* figured(subject: Subject): Generator<Figured> {
  for (const text of subject.texts) {
    if (
      text.paragraph.place !== 'table' ||
      text.text.length > 40 ||
      !number.test(text.text) ||
      text.text.replace(/\D/g, '').length < 2
    )
      continue
    const [first] = seenRuns(text)
    if (!first) continue
    const { face, status } = subject.resolution(first.run.style, first.run.slot)
    const tabular = first.run.style.ruled.features['tnum'] === 1 || /\btnum\b/.test(first.values.font.features)
    if (status === 'absent' || tabular || face.measures.figures?.tabular !== false) continue
    yield { text, from: first.run.start, to: first.run.end, family: face.family }
  }
}

export const figures = check({
  id: 'figures',
  group: 'setting',
  title: 'Figures that do not line up',
  severity: 'note',
  looksFor: 'Columns of a table whose figures are of different widths; told once for each style.',
  source: 'Widths of the figures, measured on the outlines; OpenType 1.9, tnum.',
  stage: 'styles',
  unseen: 'Columns made with tabs. Where the face has figures of one width, the style editor turns them on.',
  *find(subject): Generator<Found> {
    for (const { text, from, to, family, all } of firstOfEach(figured(subject), each => each.family))
      if (all.length >= 3)
        yield { says: `${family} sets figures of different widths in ${all.length} cells`, at: { text, from, to } }
  },
})
