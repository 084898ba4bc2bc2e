import type { Column, Ground, Rectangle, SectionColumns } from './columns'
import { linesHeight, type Fragment } from './fragments'

/** Frames hold this much more than they are high, in points: nobody sees it, and files round their lengths. */
export const rounding = 0.5

/** Lines below a frame's foot. */
export function tooTall(
  ground: Ground,
  bottom: number,
): { lines: number; characters: number; fragments: Set<Fragment> } {
  let lines = 0
  let characters = 0
  const found = new Set<Fragment>()
  for (const fragment of ground.fragments) {
    if (
      fragment.kind !== 'lines' ||
      fragment.y + linesHeight(fragment.layout, fragment.from, fragment.to) <= bottom + 0.5
    )
      continue
    found.add(fragment)
    lines += fragment.to - fragment.from
    for (let at = fragment.from; at < fragment.to; at++)
      characters += fragment.layout.lines[at]!.end - fragment.layout.lines[at]!.start
  }
  return { lines, characters, fragments: found }
}

/** The columns of a frame of fixed height: one where its style asks for no more. */
export function frameColumns(inside: Rectangle, columns: SectionColumns | null): Column[] {
  const ground: Ground = { fragments: [], exclusions: [], notes: null, outer: inside, inner: inside, mirrored: false }
  const bottom = inside.y + Math.max(inside.height, 0) + rounding
  if (!columns) return [{ ground, x: inside.x, width: inside.width, top: inside.y, bottom }]
  const total = columns.widths.reduce((sum, each) => sum + each, 0)
  let x = inside.x
  return columns.widths.map(share => {
    const width = Math.max(((inside.width - columns.gap * (columns.count - 1)) * share) / total, 5)
    const column: Column = { ground, x, width, top: inside.y, bottom }
    x += width + columns.gap
    return column
  })
}
