import type { Frame } from '../document/stories'
import type { ParagraphLayout } from './paragraph'
import { placedSegments } from './placed'

/** Something placed: x and y in points from the top left of the box or page that holds it. */
export type Fragment =
  | { readonly kind: 'lines', readonly layout: ParagraphLayout, readonly from: number, readonly to: number, readonly x: number, readonly y: number }
  | { readonly kind: 'image', readonly href: string, readonly x: number, readonly y: number, readonly width: number, readonly height: number }
  | { readonly kind: 'object', readonly title: string, readonly href: string, readonly x: number, readonly y: number, readonly width: number, readonly height: number }
  | { readonly kind: 'box', readonly fill: string, readonly stroke: string, readonly strokeWidth: number, readonly x: number, readonly y: number, readonly width: number, readonly height: number }
  /** A frame whose text does not fit. */
  | { readonly kind: 'overset', readonly frame: OversetFrame, readonly x: number, readonly y: number, readonly width: number }

/** How much of a frame's text has no room; of chained frames the last one runs over. */
export interface OversetFrame { readonly part: string, readonly node: number, readonly name: string, readonly lines: number, readonly characters: number }

/** How a text frame is filled: room left in points, or what runs over. */
export interface FrameFill { readonly part: string, readonly node: number, readonly name: string, readonly room: number, readonly over: OversetFrame | null }

/** The same fragments, shifted. */
export function shifted(fragments: readonly Fragment[], dx: number, dy: number): readonly Fragment[] {
  return dx === 0 && dy === 0 ? fragments : fragments.map(fragment => ({ ...fragment, x: fragment.x + dx, y: fragment.y + dy }))
}

/** Frames that stand in lines as characters: where each one's left edge and foot are, from the paragraph's column and top. */
export function inlineFrames(layout: ParagraphLayout, from = 0, to = layout.lines.length): { readonly frame: Frame, readonly x: number, readonly foot: number }[] {
  if (!layout.hasObjects) return []
  const found: { frame: Frame, x: number, foot: number }[] = []
  let y = 0
  const { analysis } = layout.set
  for (let index = from; index < to; index++) {
    const line = layout.lines[index]!
    y += line.above
    for (const { segment, x } of placedSegments(layout, line)) {
      const { inline } = analysis.runs[analysis.run[segment]!]!
      if (inline.kind === 'frame' && inline.frame.anchor === 'as-char') found.push({ frame: inline.frame, x: layout.x + x, foot: y + line.baseline })
    }
    y += line.height
  }
  return found
}

/** Height of some lines of a paragraph. */
export function linesHeight(layout: ParagraphLayout, from = 0, to = layout.lines.length): number {
  let height = 0
  for (let index = from; index < to; index++) height += layout.lines[index]!.height + layout.lines[index]!.above
  return height
}
