import { points } from '../document/lengths'
import { findStyle, withParents, type StyleScope } from '../document/styles'
import type { FrameText } from '../document/edit-layout'

/** How text stands in a frame, and the name of the frame it goes on in. Lengths in points. */
export interface FrameTextState extends FrameText {
  readonly next: string | null
}

/** Reads a frame's columns and inset off its style and those it descends from, and its chain off its text box. */
export function readFrameText(scope: StyleScope, node: number): FrameTextState {
  const { part } = scope
  const element = part.element(node)
  const name = element.attributes['draw:style-name'] ?? element.attributes['presentation:style-name'] ?? ''
  const style = findStyle(scope, 'presentation', name) ?? findStyle(scope, 'graphic', name)
  let state = { columns: 1, gap: 0, inset: 0 }
  for (const each of style ? withParents(scope, style) : []) {
    const inset = points(each.graphic['fo:padding'] ?? each.graphic['fo:padding-left'])
    if (inset !== null) state = { ...state, inset }
    const holder = each.propertyNodes['style:graphic-properties']
    if (holder === undefined || each.part !== part.path) continue
    const columns = part.first(part.element(holder), 'style:columns')
    if (columns)
      state = {
        ...state,
        columns: Number.parseInt(columns.attributes['fo:column-count'] ?? '1', 10) || 1,
        gap: points(columns.attributes['fo:column-gap']) ?? 0,
      }
  }
  return { ...state, next: part.first(element, 'draw:text-box')?.attributes['draw:chain-next-name'] ?? null }
}
