import { plainNumber } from '../../style/describe'
import { check, type Found } from '../check'
import { betterLook, together } from '../style-wish'
import { firstOfEach, type ProofText, type Subject } from '../subject'

interface Tight {
  readonly text: ProofText
  readonly leading: number
  readonly size: number
  readonly needed: number
}

/**
 * The least leading of a face: what its ascenders and descenders take, and a little more where the x-height is large, since
 * then the white between the lines is what is missing.
 */
const leastLeading = (
  size: number,
  { ascender, descender, xHeight }: { ascender: number; descender: number; xHeight: number },
) => (size * (ascender + descender + Math.max(0, xHeight - 450) * 0.6)) / 1000

function* tight(subject: Subject): Generator<Tight> {
  for (const text of subject.texts) {
    const lines = subject.linesOf(text)[0]?.layout.lines ?? []
    if (lines.length < 3 || text.isCode) continue
    const { size } = text.own.effective.slots.western
    if (text.runs.some(run => run.style.effective.slots[run.slot].size > size + 0.01)) continue
    const { face, status } = subject.resolution(text.own, 'western')
    if (status === 'absent' || status === 'unnamed') continue
    const leading = lines[1]!.height
    const needed = leastLeading(size, face.measures)
    if (leading < needed - 0.05) yield { text, leading, size, needed: Math.ceil(needed * 10) / 10 }
  }
}

export const tightLeading = check({
  id: 'tight-leading',
  group: 'setting',
  title: 'Leading tight for the x-height',
  severity: 'warning',
  looksFor: 'Three lines and more so near that ascenders meet descenders; told once for each style.',
  source:
    'Ascender, descender and x-height of the face, measured; Bringhurst, 2.2.1: large x-heights ask for more lead.',
  unseen: 'Words in capitals alone could stand nearer.',
  *find(subject): Generator<Found> {
    for (const { text, leading, size, needed, all } of firstOfEach(
      tight(subject),
      each => `${each.size} ${each.leading}`,
    ))
      yield {
        says:
          `${plainNumber(size)} / ${plainNumber(leading)} pt; ${plainNumber(needed)} pt would do` +
          (all.length > 1 ? `, in ${all.length} paragraphs` : ''),
        at: { text, from: 0, to: text.text.length },
        repair: together(
          all.map(each =>
            betterLook(each.text, 0, each.text.text.length, each.text.own.effective.layers, {
              attribute: 'fo:line-height',
              on: 'paragraph',
              value: `${plainNumber(each.needed)}pt`,
              local: { leading: { points: each.needed } },
            }),
          ),
        ),
      }
  },
})
