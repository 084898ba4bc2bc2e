import type { Frame, Inline } from '../document/story-model'
import { linesHeight, type Fragment } from './fragments'
import type { Line } from './lines'
import type { ParagraphLayout } from './paragraph-model'

export function notesIn(layout: ParagraphLayout, line: Line): Extract<Inline, { kind: 'note' }>[] {
  if (layout.notes.length === 0) return []
  return layout.notes
    .filter(each => !each.note.endnote && each.at >= line.start && each.at < line.end)
    .map(each => each.note)
}

/** The line that a frame is anchored in, in the ground's coordinates. */
export function anchorLine(
  layout: ParagraphLayout,
  frame: Frame,
  x: number,
  y: number,
): { x: number; y: number; height: number } {
  const at = layout.set.analysis.runs.find(run => run.inline.kind === 'frame' && run.inline.frame === frame)?.start ?? 0
  let top = y + layout.padding.top
  for (const line of layout.lines) {
    top += line.above
    if (at < line.end || line === layout.lines.at(-1))
      return {
        x: x + layout.x + line.x + (at > line.start ? layout.set.widthOf(line.start, Math.min(at, line.end)) : 0),
        y: top,
        height: line.height,
      }
    top += line.height
  }
  return { x, y: top, height: 0 }
}

/** How a paragraph shares its border with its neighbours, and the space to the one above, points. */
export interface SharedBorder {
  readonly above: boolean
  readonly below: boolean
  readonly gap: number
}

/** The background and border of a paragraph's lines `from` to `to`, the first of which stands at (x, y). */
export function paragraphBox(
  layout: ParagraphLayout,
  from: number,
  to: number,
  shares: SharedBorder,
  x: number,
  y: number,
): Fragment[] {
  const { background, border, padding } = layout.look
  if (!background && border.top + border.right + border.bottom + border.left === 0) return []
  const fragments: Fragment[] = []
  const height = linesHeight(layout, from, to)
  const [begins, ends] = [from === 0 && !shares.above, to === layout.lines.length && !shares.below]
  // What is joined reaches up through the space to its neighbour.
  const top = y - (begins ? padding.top + border.top : from === 0 ? shares.gap : 0)
  const foot = y + height + (ends ? padding.bottom + border.bottom : 0)
  const left = x + layout.x - padding.left - border.left
  const width = layout.width + padding.left + padding.right + border.left + border.right
  if (background)
    fragments.push({
      kind: 'box',
      fill: background,
      stroke: '',
      strokeWidth: 0,
      x: left,
      y: top,
      width,
      height: foot - top,
    })
  const edge = (ex: number, ey: number, w: number, h: number) => {
    if (w > 0 && h > 0)
      fragments.push({
        kind: 'box',
        fill: layout.look.borderColor,
        stroke: '',
        strokeWidth: 0,
        x: ex,
        y: ey,
        width: w,
        height: h,
      })
  }
  if (begins) edge(left, top, width, border.top)
  if (ends) edge(left, foot - border.bottom, width, border.bottom)
  edge(left, top, border.left, foot - top)
  edge(left + width - border.right, top, border.right, foot - top)
  return fragments
}
