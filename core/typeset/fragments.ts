import type { Frame } from '../document/stories'
import type { ParagraphLayout } from './paragraph'

/** Something placed: x and y in points from the top left of the box or page that holds it. */
export type Fragment =
  | { readonly kind: 'lines', readonly layout: ParagraphLayout, readonly from: number, readonly to: number, readonly x: number, readonly y: number }
  | { readonly kind: 'image', readonly href: string, readonly x: number, readonly y: number, readonly width: number, readonly height: number }
  | { readonly kind: 'object', readonly title: string, readonly href: string, readonly x: number, readonly y: number, readonly width: number, readonly height: number }
  | { readonly kind: 'box', readonly fill: string, readonly stroke: string, readonly strokeWidth: number, readonly x: number, readonly y: number, readonly width: number, readonly height: number }
  /** A frame whose text does not fit. */
  | { readonly kind: 'overset', readonly frame: OversetFrame, readonly x: number, readonly y: number, readonly width: number }

/** How much of a frame's text has no room. */
export interface OversetFrame { readonly part: string, readonly node: number, readonly name: string, readonly lines: number, readonly characters: number }

/** Things stacked in a box of some height. */
export interface Box { readonly height: number, readonly fragments: readonly Fragment[] }

/** The same fragments, shifted. */
export function shifted(fragments: readonly Fragment[], dx: number, dy: number): Fragment[] {
  return fragments.map(fragment => ({ ...fragment, x: fragment.x + dx, y: fragment.y + dy }))
}

/** Frames that stand in lines as characters: where each one's left edge and foot are, from the paragraph's column and top. */
export function inlineFrames(layout: ParagraphLayout, from = 0, to = layout.lines.length): { readonly frame: Frame, readonly x: number, readonly foot: number }[] {
  const found: { frame: Frame, x: number, foot: number }[] = []
  let y = 0
  for (let index = from; index < to; index++) {
    const line = layout.lines[index]!
    if (line.objectWidths.size > 0) {
      let x = layout.x + line.x
      let tab = 0
      line.units.forEach((unit) => {
        if (unit.frame) found.push({ frame: unit.frame, x, foot: y + line.baseline })
        x += unit.kind === 'tab' ? line.tabs[tab++]!.width : unit.frame ? line.objectWidths.get(unit)! : unit.width
        x += unit.spaceWidth + unit.spaceCount * line.stretch
      })
    }
    y += line.height
  }
  return found
}

/** Height of some lines of a paragraph. */
export function linesHeight(layout: ParagraphLayout, from = 0, to = layout.lines.length): number {
  let height = 0
  for (let index = from; index < to; index++) height += layout.lines[index]!.height
  return height
}
