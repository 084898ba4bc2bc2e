import { judgedOf } from '../../font/catalogue'
import { check, type Found } from '../check'
import { seenRuns, visibleCount, type Subject } from '../subject'

function* decorative(subject: Subject, { letters }: Readonly<Record<'letters', number>>): Generator<Found> {
  for (const text of subject.texts) {
    if (visibleCount(text.text) < letters) continue
    /** Stretches of the paragraph by the decorative family that shows them. */
    const families = new Map<string, { kind: string; count: number; from: number; to: number }>()
    for (const { run, words } of seenRuns(text)) {
      const { face, status } = subject.resolution(run.style, run.slot)
      if (status === 'absent') continue
      const { class: kind } = judgedOf(face).classed
      if (kind !== 'script' && kind !== 'display') continue
      const known = families.get(face.family) ?? { kind, count: 0, from: run.start, to: run.end }
      families.set(face.family, { ...known, count: known.count + visibleCount(words), to: run.end })
    }
    for (const [family, { kind, count, from, to }] of families)
      if (count >= letters)
        yield {
          says: `${family} is ${kind === 'script' ? 'a hand' : 'made for display'}, and ${count} letters are set in it`,
          at: { text, from, to },
        }
  }
}

export const decorativeBody = check({
  id: 'decorative-body',
  group: 'faces',
  title: 'Decorative face in running text',
  severity: 'warning',
  looksFor: 'Paragraphs of running text in a hand or a display face.',
  source: 'The class of the face, judged from its outlines (docs/type.md).',
  stage: 'type',
  unseen: 'Whether it is meant: an invitation may be set in a hand.',
  limits: { letters: { title: 'Letters that make running text', usual: 120, least: 20, most: 2000 } },
  find: decorative,
})
