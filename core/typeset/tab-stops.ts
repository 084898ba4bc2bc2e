import { isTab, mustEnd } from './analysis'
import { slack, type LineMaker, type SetTab, type TabStop } from './lines'
import type { SetText } from './setting'

/** A tab from where the line has got to (from the paragraph's left edge) to its stop. */
export function setTab(maker: LineMaker, unit: number, at: number): SetTab {
  const { text, measure } = maker
  const { analysis } = text
  const offset = analysis.starts[analysis.first[unit]!]!
  const { tabOrigin, tabDistance } = measure
  const from = at - tabOrigin
  const stop = measure.tabs.find(each => each.position > from + slack)
  if (!stop)
    return {
      at: offset,
      width: Math.max((Math.floor((from + slack) / tabDistance) + 1) * tabDistance - from, 0),
      leader: '',
    }
  // A stop beyond the line's end is at its end.
  const position = Math.min(stop.position + tabOrigin, Math.max(measure.width, at))
  const before = stop.type === 'left' ? 0 : following(text, unit, stop)
  return {
    at: offset,
    width: Math.max(position - at - (stop.type === 'center' ? before / 2 : before), 0),
    leader: stop.leader,
  }
}

/** Width of the text behind a tab that stands before its stop: up to the next tab, for `char` up to its character. */
function following(text: SetText, unit: number, stop: TabStop): number {
  const { analysis } = text
  let width = 0
  let hang = 0
  for (let next = unit + 1; next < analysis.units && (analysis.flags[next]! & isTab) === 0; next++) {
    const start = analysis.starts[analysis.first[next]!]!
    const end = analysis.starts[analysis.trailing[next]!]!
    if (stop.type === 'char') {
      const found = analysis.text.slice(start, end).indexOf(stop.char)
      if (found >= 0) return width + hang + text.widthOf(start, start + found)
    }
    width += hang + text.unitWidths[next]!
    hang = text.unitSpaces[next]!
    if ((analysis.flags[next]! & mustEnd) !== 0) break
  }
  return width
}
