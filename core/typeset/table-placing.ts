import type { SetRow, TableLayout } from './box-setter'
import type { Column } from './columns'
import type { Position } from './flow-items'
import { shifted } from './fragments'
import { splitRow } from './tables'

/** What a table asks of the flow that it stands in. */
interface TableFlow {
  y: number
  after: number
  fresh: boolean
  readonly forced: boolean
  position: Position
  readonly column: Column
  readonly bottom: number
  turn(): boolean
}

/** Rows that need more room than this (points) may begin where they do not end. */
const leastRoom = 24

/** Puts a table's rows into columns, with its headings anew in each; false where columns ended before it did. */
export function placeTable(flow: TableFlow, set: (width: number) => TableLayout): boolean {
  let layout = set(flow.column.width)
  const { rest } = flow.position
  let row = flow.position.line
  if (row === 0 && rest === null && !begin(flow, layout)) return false
  let pending: SetRow | null = rest
  while (row < layout.rows.length) {
    let next = pending ?? layout.rows[row]!
    const room = flow.bottom - flow.y
    if (next.height > room + 0.01) {
      const taller = next.height > flow.bottom - flow.column.top
      const split = (next.mayBreak || taller) && room > leastRoom ? splitRow(next, room) : null
      if (split) {
        putRow(flow, split.head, layout)
        pending = split.tail
      }
      if (!flow.fresh) {
        flow.position = { ...flow.position, line: row, rest: pending }
        if (!flow.turn()) return false
        layout = set(flow.column.width)
        if (!layout.rows[row]!.heading) putHeadings(flow, layout)
        next = pending ?? layout.rows[row]!
        if (
          next.height > flow.bottom - flow.y + 0.01 &&
          (next.mayBreak || next.height > flow.bottom - flow.column.top) &&
          splitRow(next, flow.bottom - flow.y)
        ) {
          pending = next
          flow.fresh = false
          continue
        }
      }
    }
    putRow(flow, next, layout)
    pending = null
    row++
    flow.position = { ...flow.position, line: row, rest: null }
  }
  flow.after = layout.spaceAfter
  return true
}

/** Where the first row stands: below what stands beside, and in the next column where the table is not to be parted. */
function begin(flow: TableFlow, layout: TableLayout): boolean {
  const { column } = flow
  flow.y += flow.fresh ? (flow.forced ? layout.spaceBefore : 0) : Math.max(flow.after, layout.spaceBefore)
  // Tables do not share their height with what stands beside.
  for (const each of column.ground.exclusions)
    if (
      each.y <= flow.y + 0.5 &&
      each.y + each.height > flow.y &&
      each.x < column.x + column.width &&
      each.x + each.width > column.x
    )
      flow.y = Math.max(flow.y, each.y + each.height)
  if (layout.mayBreak || flow.fresh) return true
  const whole = layout.rows.reduce((sum, each) => sum + each.height, 0)
  return flow.y + whole <= flow.bottom || whole > flow.bottom - column.top || flow.turn()
}

/** Headings come again where they leave half of the column to the rows. */
function putHeadings(flow: TableFlow, layout: TableLayout): void {
  const headings = layout.rows.filter(each => each.heading)
  const height = headings.reduce((sum, each) => sum + each.height, 0)
  if (height < (flow.bottom - flow.column.top) / 2) for (const heading of headings) putRow(flow, heading, layout)
}

function putRow(flow: TableFlow, row: SetRow, layout: TableLayout): void {
  flow.column.ground.fragments.push(...shifted(row.fragments, flow.column.x + layout.x, flow.y))
  flow.column.ground.notes?.add(row.notes)
  flow.y += row.height
  flow.fresh = false
}
