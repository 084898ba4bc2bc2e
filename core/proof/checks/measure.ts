import { check, type Found } from '../check'
import { firstOfEach, type ProofText, type Subject } from '../subject'

interface Measured {
  readonly text: ProofText
  readonly from: number
  readonly to: number
  readonly letters: number
}

function* measured(subject: Subject, least: number, most: number): Generator<Measured> {
  for (const text of subject.texts) {
    const layout = subject.linesOf(text)[0]?.layout
    if (!layout || layout.lines.length < 4 || text.isCode || text.paragraph.heading !== null) continue
    if (text.paragraph.place !== 'body' && text.paragraph.place !== 'frame') continue
    const full = layout.lines.slice(0, -1).map(line => line.contentEnd - line.start)
    const letters = Math.round(full.reduce((sum, each) => sum + each, 0) / full.length)
    if (letters < least || letters > most) yield { text, from: 0, to: layout.lines.at(-1)!.contentEnd, letters }
  }
}

export const measure = check({
  id: 'measure',
  group: 'setting',
  title: 'Lines too long or too short',
  severity: 'note',
  looksFor: 'Running text with too many or too few letters in a line; told once for each style.',
  source:
    'Bringhurst, The Elements of Typographic Style, 2.1.2: 45 to 75 letters are satisfactory; 40 to 90 are told here.',
  stage: 'styles',
  unseen: 'Whether leading makes up for it. A house’s own limits hold where it has some.',
  limits: {
    least: { title: 'Letters at least', usual: 30, least: 5, most: 200 },
    most: { title: 'Letters at most', usual: 90, least: 20, most: 500 },
  },
  *find(subject, { least, most }): Generator<Found> {
    const house = subject.house?.limits.measure
    const places = measured(subject, house?.least ?? least, house?.most ?? most)
    for (const { text, from, to, letters, all } of firstOfEach(places, each => String(each.letters > most)))
      yield {
        says: `${letters} letters in a line${all.length > 1 ? `, and ${all.length - 1} more paragraphs like it` : ''}`,
        at: { text, from, to },
      }
  },
})
