import { legibility } from '../../house/legibility'
import { slotAttributes } from '../../style/properties'
import { plainNumber } from '../../style/describe'
import type { TextRun } from '../../style/runs'
import { check, type Found } from '../check'
import { betterLook, together } from '../style-wish'
import { firstOfEach, seenRuns, visibleCount, type ProofText, type Subject } from '../subject'

interface Small {
  readonly text: ProofText
  readonly run: TextRun
  readonly says: string
  /** The size that would do, in points. */
  readonly would: number
}

function* smallRuns(
  subject: Subject,
  { letters, degrees }: Readonly<Record<'letters' | 'degrees', number>>,
): Generator<Small> {
  const { medium, house, session } = subject
  const height = medium === 'deck' ? session.composition.pages[0]?.geometry.height : undefined
  const smallest = house?.limits.smallest[medium]
  for (const text of subject.texts) {
    if (text.story.role === 'notes') continue
    for (const { run, words, values } of seenRuns(text)) {
      const raised = /^(super|sub|-?[1-9])/.test(run.style.effective.shared['style:text-position'])
      const { face, status } = subject.resolution(run.style, run.slot)
      if (visibleCount(words) < letters || raised || status === 'absent') continue
      const seen = legibility(values.size, face.measures.xHeight, medium, house?.room, height)
      const tiny = seen.degrees < degrees / 1000 - 1e-9
      if (!tiny && (smallest === undefined || values.size >= smallest - 0.05)) continue
      const enough = tiny ? Math.ceil(((values.size * degrees) / 1000 / seen.degrees) * 2 - 1e-9) / 2 : 0
      const would = Math.max(enough, smallest ?? 0)
      const own = `${plainNumber(values.size)} pt`
      const says = tiny
        ? `${own} of ${face.family} ${seen.from}; ${plainNumber(would)} pt would do`
        : `${own}; the house has ${plainNumber(smallest!)} pt at the least`
      yield { text, run, says, would }
    }
  }
}

export const smallType = check({
  id: 'small-type',
  group: 'reading',
  title: 'Too small to be read with ease',
  severity: 'warning',
  looksFor:
    'Text whose x-height spans too small an angle from where it is read, or that is under the house’s least size.',
  source: 'Legge and Bigelow 2011, “Does print size matter for reading?”, Journal of Vision 11(5):8: 0.2 degrees.',
  unseen:
    'Who reads it and by what light. Decks are read from the last row of the room, all else at 40 cm. Once a style.',
  limits: {
    letters: { title: 'Letters at least', usual: 3, least: 1, most: 200 },
    degrees: { title: 'Angle at least, thousandths of a degree', usual: 200, least: 50, most: 1000 },
  },
  *find(subject, limits): Generator<Found> {
    for (const { text, run, says, all } of firstOfEach(smallRuns(subject, limits), each => each.says))
      yield {
        says: all.length > 1 ? `${says}, in ${all.length} places` : says,
        at: { text, from: run.start, to: run.end },
        repair: together(
          all.map(each =>
            betterLook(each.text, each.run.start, each.run.end, each.run.style.effective.layers, {
              attribute: slotAttributes[each.run.slot].size,
              on: 'text',
              value: `${plainNumber(each.would)}pt`,
              local: { size: { points: each.would } },
            }),
          ),
        ),
      }
  },
})
