import { check, type Found } from '../check'
import { seenRuns, stretchOf, visibleCount, type Subject } from '../subject'

function* stray({ texts }: Subject): Generator<Found> {
  for (const text of texts) {
    let from = -1
    let to = -1
    const found = function* (): Generator<Found> {
      if (from < 0) return
      const count = visibleCount(text.text.slice(from, to))
      yield {
        says: `${count} ${count === 1 ? 'letter' : 'letters'} set by hand, not as ${text.owner?.displayName ?? 'any style'} says`,
        at: { text, from, to },
        repair: { settle: [stretchOf(text, from, to)] },
      }
    }
    for (const { run } of seenRuns(text)) {
      if (run.style.pair || run.style.settled(run.slot)) continue
      if (from >= 0 && run.start > to) {
        yield* found()
        from = -1
      }
      if (from < 0) from = run.start
      to = run.end
    }
    yield* found()
  }
}

export const strays = check({
  id: 'stray',
  group: 'consistency',
  title: 'Text set by hand',
  severity: 'warning',
  looksFor: 'Text whose look departs from what its named styles say.',
  source: 'The cascade of styles (ODF 1.4 part 3, 16.2), with and without automatic styles.',
  unseen: 'Why it was set so. Settling keeps real emphasis, in character styles.',
  find: stray,
})
