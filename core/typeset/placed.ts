import { kinds } from './analysis'
import { visualOrder } from './bidi'
import type { Line } from './lines'
import type { ParagraphLayout } from './paragraph-model'

/** A segment, or part of one, where it stands in its line: x from the paragraph's own left edge. */
export interface PlacedSegment {
  readonly segment: number
  readonly from: number
  readonly to: number
  readonly x: number
  readonly width: number
  readonly level: number
  readonly tab: number
}

/**
 * What stands in a line, from left to right as it is seen (UAX #9: rule L1 for the spaces at its end, L2 for the
 * order).
 */
export function placedSegments(layout: ParagraphLayout, line: Line): PlacedSegment[] {
  const { set } = layout
  const { analysis, widths } = set
  if (
    analysis.simple &&
    line.tabs.length === 0 &&
    line.letterStretch === 0 &&
    !analysis.hasObjects &&
    !analysis.rightToLeft
  )
    return plainSegments(layout, line, widths)
  const { starts, kind, level, segments, rightToLeft } = analysis
  const base = rightToLeft ? 1 : 0
  const found: { segment: number; from: number; to: number; width: number; level: number; tab: number }[] = []
  let tab = 0
  const lastTab = line.tabs.length > 0 ? line.tabs[line.tabs.length - 1]!.at : -1
  for (
    let at = line.end > line.start ? set.segmentAt(line.start) : segments;
    at < segments && starts[at]! < line.end;
    at++
  ) {
    const from = Math.max(line.start, starts[at]!)
    const to = Math.min(line.end, starts[at + 1]!)
    if (kind[at] === kinds.tab) {
      found.push({ segment: at, from, to, width: line.tabs[tab]?.width ?? 0, level: base, tab: tab++ })
      continue
    }
    const hanging = from >= line.contentEnd
    let width =
      from === starts[at] && to === starts[at + 1]
        ? widths[at]!
        : set.glyphsOf(at, from, to, 0).reduce((sum, part) => sum + part.width, 0)
    if (from > lastTab && !hanging) {
      if (kind[at] === kinds.space) width += line.stretch * (to - from)
      if (line.letterStretch !== 0 && kind[at] !== kinds.anchor) width += line.letterStretch * set.glyphsIn(from, to)
    }
    if (to < line.contentEnd) width += set.gapAfter(at)
    found.push({ segment: at, from, to, width, level: hanging ? base : level[at]!, tab: -1 })
  }
  let x = line.x
  if (rightToLeft) {
    // Spaces at the end hang over the left edge.
    for (const each of found) if (each.from >= line.contentEnd) x -= each.width
  }
  const placed: PlacedSegment[] = []
  for (const each of visualOrder(found)) {
    placed.push({
      segment: each.segment,
      from: each.from,
      to: each.to,
      x,
      width: each.width,
      level: each.level,
      tab: each.tab,
    })
    x += each.width
  }
  return placed
}

/** Words and spaces from left to right, and nothing else: most lines. */
function plainSegments({ set }: ParagraphLayout, line: Line, widths: Float64Array): PlacedSegment[] {
  const { starts, kind, segments } = set.analysis
  const placed: PlacedSegment[] = []
  let { x } = line
  for (
    let at = line.end > line.start ? set.segmentAt(line.start) : segments;
    at < segments && starts[at]! < line.end;
    at++
  ) {
    const from = Math.max(line.start, starts[at]!)
    const to = Math.min(line.end, starts[at + 1]!)
    let width =
      from === starts[at] && to === starts[at + 1]
        ? widths[at]!
        : set.glyphsOf(at, from, to, 0).reduce((sum, part) => sum + part.width, 0)
    if (kind[at] === kinds.space && from < line.contentEnd) width += line.stretch * (to - from)
    if (to < line.contentEnd) width += set.gapAfter(at)
    placed.push({ segment: at, from, to, x, width, level: 0, tab: -1 })
    x += width
  }
  return placed
}
