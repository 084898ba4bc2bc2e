import { drawUpSchema } from '../../change/draw-up/wish'
import { check, type Found } from '../check'
import { seenRuns, stretchOf, visibleCount, type ProofText, type Subject } from '../subject'

/** Under this share of settled text a text has no styles to go back to. */
const mostlySettled = 0.5

/** Neighbouring strays of a paragraph, as one. */
interface StrayStretch {
  from: number
  to: number
  /** Something of it is said by the paragraph as a whole, or by the frame or cell around it. */
  byParagraph: boolean
  byHolder: boolean
}

function stretchesOf(text: ProofText): StrayStretch[] {
  const found: StrayStretch[] = []
  let open: StrayStretch | null = null
  for (const { run } of seenRuns(text)) {
    if (run.style.pair || run.style.settled(run.slot)) {
      open = null
      continue
    }
    if (!open) found.push((open = { from: run.start, to: run.end, byParagraph: false, byHolder: false }))
    open.to = run.end
    for (const { local, from } of run.style.effective.layers) {
      if (local && from === 'paragraph') open.byParagraph = true
      if (local && (from === 'frame' || from === 'cell')) open.byHolder = true
    }
  }
  return found
}

function* stray({ texts, session, medium }: Subject): Generator<Found> {
  // Where most text is set by hand, settling would flatten it: its looks become styles instead.
  const unsettled = medium === 'text' && session.detail.census.settled < mostlySettled
  for (const text of texts)
    for (const { from, to, byParagraph, byHolder } of stretchesOf(text)) {
      const count = visibleCount(text.text.slice(from, to))
      const letters = `${count} ${count === 1 ? 'letter' : 'letters'}`
      const style = text.owner?.displayName ?? 'any style'
      if (byHolder)
        yield {
          says: `${letters} as the frame around them was set by hand, not as ${style} says`,
          at: { text, from, to },
          severity: 'note',
        }
      else
        yield {
          says: `${letters} set by hand, not as ${style} says`,
          at: { text, from, to },
          repair: unsettled
            ? { wishes: [drawUpSchema.parse({ type: 'draw-up' })] }
            : { settle: [byParagraph ? stretchOf(text, 0, text.text.length) : stretchOf(text, from, to)] },
        }
    }
}

export const strays = check({
  id: 'stray',
  group: 'consistency',
  title: 'Text set by hand',
  severity: 'warning',
  looksFor: 'Text whose look departs from what its named styles say.',
  source: 'The cascade of styles (ODF 1.4 part 3, 16.2), with and without automatic styles.',
  unseen:
    'Why it was set so. Settling keeps emphasis and the faces of code, in character styles; ' +
    'a text set by hand throughout is drawn up.',
  find: stray,
})
