import { isTab, mustEnd, softHyphen } from './analysis'
import { cutWord, divide } from './division'
import { noTabs, roomFor, slack, type FilledLine, type Line, type LineMaker, type LineRoom, type SetTab } from './lines'
import { setTab } from './tab-stops'

/** Composes a paragraph greedily: each line takes what fits (first fit). */
export function composeGreedily(maker: LineMaker): Line[] {
  const { text, measure } = maker
  const { analysis } = text
  const lines: Line[] = []
  if (analysis.units === 0)
    return [
      maker.make(
        { start: 0, end: 0, contentEnd: 0, width: 0, hyphen: false, tabs: noTabs, forced: false },
        0,
        { x: 0, width: measure.width },
        0,
        true,
      ),
    ]
  let unit = 0
  while (unit + 1 < analysis.units && analysis.starts[analysis.first[unit + 1]!]! <= maker.startAt) unit++
  let cut = maker.startAt > analysis.starts[analysis.first[unit]!]! ? maker.startAt : 0
  let y = 0
  let divided = 0
  const whole: LineRoom = { x: 0, width: measure.width }
  while (unit < analysis.units) {
    let room = whole
    let above = 0
    if (measure.shape) {
      const guess = maker.extent(
        analysis.starts[analysis.first[unit]!]!,
        analysis.starts[analysis.first[unit + 1]!]!,
        lines.length === 0,
      ).height
      ;({ room, above } = roomFor(measure, lines.length, y, guess))
    }
    const fill = fillLine(
      maker,
      unit,
      cut,
      room.width - (lines.length === 0 ? measure.firstIndent : 0),
      lines.length === 0 ? measure.firstIndent : 0,
      measure.division.ladder === 0 || divided < measure.division.ladder,
    )
    divided = fill.line.hyphen ? divided + 1 : 0
    unit = fill.unit
    cut = fill.cut
    const line = maker.make(fill.line, lines.length, room, above, unit >= analysis.units)
    y += above + line.height
    lines.push(line)
  }
  // A forced break at the very end opens one more, empty line.
  if ((analysis.flags[analysis.units - 1]! & mustEnd) !== 0)
    lines.push(
      maker.make(
        {
          start: analysis.text.length,
          end: analysis.text.length,
          contentEnd: analysis.text.length,
          width: 0,
          hyphen: false,
          tabs: noTabs,
          forced: false,
        },
        lines.length,
        roomFor(measure, lines.length, y, 0).room,
        0,
        true,
      ),
    )
  return lines
}

function fillLine(
  maker: LineMaker,
  from: number,
  cut: number,
  width: number,
  indent: number,
  mayDivide: boolean,
): { line: FilledLine; unit: number; cut: number } {
  const { text } = maker
  const { analysis, unitWidths, unitSpaces } = text
  const { first, trailing, starts, flags } = analysis
  const start = cut || starts[first[from]!]!
  let tabs = noTabs
  let taken = 0
  let hang = 0
  let unit = from
  const limit = width + slack
  for (; unit < analysis.units; unit++) {
    const flag = flags[unit]!
    let own: number
    let tab: SetTab | null = null
    if ((flag & isTab) !== 0) {
      tab = setTab(maker, unit, taken + hang + indent)
      own = tab.width
    } else own = cut > 0 && unit === from ? text.widthOf(cut, starts[trailing[unit]!]!) : unitWidths[unit]!
    if (taken + hang + own > limit) {
      if (unit > from) {
        if (mayDivide && tab === null) {
          const head = divide(maker, unit, starts[first[unit]!]!, limit - taken - hang)
          if (head)
            return {
              line: {
                start,
                end: head.at,
                contentEnd: head.at,
                width: taken + hang + head.width,
                hyphen: true,
                tabs,
                forced: false,
              },
              unit,
              cut: head.at,
            }
        }
        // A soft hyphen at the line's end needs room for its hyphen.
        while (
          unit - 1 > from &&
          (flags[unit - 1]! & softHyphen) !== 0 &&
          taken + maker.hyphenWidth(starts[first[unit - 1]!]!) > limit
        ) {
          unit--
          taken -= unitWidths[unit]!
          hang = unitSpaces[unit - 1]!
          taken -= hang
        }
        break
      }
      if (tab === null) {
        const rest = cut > 0 ? cut : starts[first[unit]!]!
        const head = (mayDivide ? divide(maker, unit, rest, limit) : null) ?? cutWord(maker, unit, rest, limit)
        if (head)
          return {
            line: {
              start,
              end: head.at,
              contentEnd: head.at,
              width: head.width,
              hyphen: head.hyphen,
              tabs,
              forced: false,
            },
            unit,
            cut: head.at,
          }
      }
    }
    taken += hang + own
    hang = unitSpaces[unit]!
    if (tab) tabs = [...tabs, tab]
    if ((flag & mustEnd) !== 0) {
      unit++
      break
    }
  }
  const last = unit - 1
  const soft = unit < analysis.units && (flags[last]! & softHyphen) !== 0
  return {
    line: {
      start,
      end: starts[first[unit]!]!,
      contentEnd: starts[trailing[last]!]!,
      width: taken + (soft ? maker.hyphenWidth(starts[first[last]!]!) : 0),
      hyphen: soft,
      tabs,
      forced: (flags[last]! & mustEnd) !== 0,
    },
    unit,
    cut: 0,
  }
}
