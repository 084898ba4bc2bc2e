import type { Column, SectionColumns } from './columns'
import type { Position } from './flow-items'

/** No column is longer, in points. */
export const longest = 1e6

/** The least height that fits, to half a point, of those up to a limit; null where none does. */
export function leastOf(fits: (height: number) => boolean, limit: number): number | null {
  if (limit !== Infinity && !fits(limit)) return null
  let low = 0
  let high = limit
  if (limit === Infinity) {
    high = 64
    while (high < longest && !fits(high)) {
      low = high
      high *= 2
    }
  }
  for (let step = 0; step < 24 && high - low > 0.5; step++) {
    const middle = (low + high) / 2
    if (fits(middle)) high = middle
    else low = middle
  }
  return high
}

/** A name for a position; null where a row was cut in two, which no name tells apart. */
export function placeName(position: Position): string | null {
  for (let at: Position | null = position; at; at = at.inner) if (at.rest !== null) return null
  return JSON.stringify(position)
}

export function sectionColumns(column: Column, columns: SectionColumns, top: number, bottom: number): Column[] {
  const width = column.width - columns.left - columns.right
  const total = columns.widths.reduce((sum, each) => sum + each, 0)
  let x = column.x + columns.left
  return columns.widths.map(share => {
    // Relative widths hold the gaps half and half, but for the outer edges (ODF 1.4 part 3, 17.15 and 17.16).
    const room =
      columns.gap > 0 ? ((width - columns.gap * (columns.count - 1)) * share) / total : (width * share) / total
    const made: Column = { ground: column.ground, x, width: room, top, bottom }
    x += room + columns.gap
    return made
  })
}
