import { kinds } from '../../typeset/analysis'
import { placedSegments } from '../../typeset/placed'
import { check, type Found } from '../check'
import type { SetLines, Subject } from '../subject'

/** The gaps between words of a line: from where to where, in points from the paragraph's left. */
function gapsOf({ layout }: SetLines, at: number): { readonly from: number; readonly to: number }[] {
  const line = layout.lines[at]!
  const { kind } = layout.set.analysis
  return placedSegments(layout, line)
    .filter(({ segment, to }) => kind[segment] === kinds.space && to < line.contentEnd)
    .map(({ x, width }) => ({ from: x, to: x + width }))
}

/** How far a river reaches that begins in a gap: lines in which a gap lies under that of the line above. */
function reach(rows: readonly { readonly from: number; readonly to: number }[][], row: number, gap: number): number {
  let above = rows[row]![gap]!
  let end = row + 1
  for (; end < rows.length; end++) {
    const under = rows[end]!.find(
      each =>
        Math.min(each.to, above.to) - Math.max(each.from, above.from) >
        Math.min(each.to - each.from, above.to - above.from) * 0.5,
    )
    if (!under) break
    above = under
  }
  return end
}

function* rivered(subject: Subject, { lines, width }: Readonly<Record<'lines' | 'width', number>>): Generator<Found> {
  for (const text of subject.texts)
    for (const stretch of subject.linesOf(text)) {
      const { layout, from, to } = stretch
      if (layout.look.measure.alignment !== 'justify' || to - from < lines) continue
      const em = text.own.effective.slots.western.size
      // A word space is a quarter of an em: only lines that are pulled apart enough have wide ones.
      const wide = layout.lines.slice(from, to).filter(line => line.stretch >= em * (width - 0.3))
      if (wide.length < lines) continue
      const rows = Array.from({ length: to - from }, (_, at) =>
        gapsOf(stretch, from + at).filter(gap => gap.to - gap.from >= em * width),
      )
      for (let row = 0; row < rows.length; row++) {
        const end = Math.max(0, ...rows[row]!.map((_, gap) => reach(rows, row, gap)))
        if (end - row < lines) continue
        yield {
          says: `A river through ${end - row} lines`,
          at: { text, from: layout.lines[from + row]!.start, to: layout.lines[from + end - 1]!.contentEnd },
        }
        row = end
      }
    }
}

export const rivers = check({
  id: 'river',
  group: 'setting',
  title: 'River',
  severity: 'note',
  looksFor: 'Wide word spaces of justified text that lie under one another through many lines.',
  source: 'Gaps of neighbouring lines that overlap by more than half of the narrower one.',
  unseen: 'Rivers that bend faster, and those through ragged text.',
  limits: {
    lines: { title: 'Lines at least', usual: 5, least: 3, most: 30 },
    width: { title: 'Spaces at least, em', usual: 0.35, least: 0.1, most: 3 },
  },
  find: rivered,
})
