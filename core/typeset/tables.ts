import type { SetCell, SetRow, TableLayout, BoxSetter } from './box-setter'
import type { Cell, Inline, Story, Table } from '../document/story-model'
import { findStyle } from '../document/styles'
import { points } from '../document/lengths'
import { percent } from '../style/properties'
import { heightOf, shifted, type Fragment } from './fragments'
import { borderColor, borderWidths, edges, type Edges } from './geometry'

/** Sets a table: columns by their styles' widths, rows as high as their fullest cell (ODF 1.4 part 3, 17.15 ff.). */
export function layoutTable(table: Table, role: Story['role'], columnWidth: number, boxes: BoxSetter): TableLayout {
  const properties = boxes.styles.propertiesElement(table.part, 'table', table.styleName, 'style:table-properties')
  const margin = edges(properties, 'fo:margin')
  const relative = percent(properties['style:rel-width'])
  const stated = relative === null ? points(properties['style:width']) : relative * columnWidth
  const aligned = properties['table:align']
  const width =
    aligned === undefined || aligned === 'margins'
      ? columnWidth - margin.left - margin.right
      : Math.min(stated ?? columnWidth, columnWidth)
  const columns = table.columns.map(column =>
    boxes.styles.propertiesElement(table.part, 'table-column', column.styleName, 'style:table-column-properties'),
  )
  const count = Math.max(columns.length, ...table.rows.map(row => row.cells.length), 1)
  const weights = Array.from(
    { length: count },
    (_, index) =>
      points(columns[index]?.['style:column-width']) ??
      (Number.parseFloat(columns[index]?.['style:rel-column-width'] ?? '') || width / count),
  )
  const total = weights.reduce((sum, each) => sum + each, 0) || 1
  const widths = weights.map(each => (each * width) / total)
  const starts: number[] = []
  widths.reduce((sum, each, index) => {
    starts[index] = sum
    return sum + each
  }, 0)

  // Of borders that collapse, one stands between two cells (table:border-model, OpenDocument 1.4 part 3, 20.272).
  const collapsing = properties['table:border-model'] === 'collapsing'
  const borders = collapsing
    ? table.rows.map(row =>
        row.cells.map(cell => borderWidths(boxes.styles.properties(table.part, 'table-cell', cell.styleName, 'cell'))),
      )
    : []
  const cellsKeepSpace = boxes.workshop.cascade.settings.AddParaSpacingToTableCells
  const cellsByRow: SetCell[][] = []
  const heights: number[] = []
  const spanning: { from: number; to: number; height: number }[] = []
  const fixed: boolean[] = []
  table.rows.forEach((row, at) => {
    const own = boxes.styles.propertiesElement(table.part, 'table-row', row.styleName, 'style:table-row-properties')
    const exact = points(own['style:row-height'])
    fixed[at] =
      own['fo:keep-together'] === 'always' || (exact !== null && own['style:use-optimal-row-height'] !== 'true')
    let height = Math.max(points(own['style:min-row-height']) ?? 0, exact ?? 0)
    const cells: SetCell[] = []
    row.cells.forEach((cell, index) => {
      if (cell.covered || index >= count) return
      const span = widths.slice(index, index + cell.columnSpan).reduce((sum, each) => sum + each, 0)
      const style = boxes.styles.properties(table.part, 'table-cell', cell.styleName, 'cell')
      const padding = edges(style, 'fo:padding')
      const border = collapsing ? shared(borders, at, index, cell) : borderWidths(style)
      const inner = boxes.stack(
        cell.blocks,
        role,
        Math.max(span - padding.left - padding.right - border.left - border.right, 5),
      )
      const high = cellsKeepSpace ? inner.height : inner.height - inner.after
      const needed = high + padding.top + padding.bottom + border.top + border.bottom
      const rows = Math.min(cell.rowSpan, table.rows.length - at)
      if (rows > 1) spanning.push({ from: at, to: at + rows, height: needed })
      else height = Math.max(height, needed)
      cells.push({
        x: starts[index]!,
        width: span,
        padding,
        border,
        properties: style,
        fragments: inner.fragments,
        height: high,
        spans: rows - 1,
      })
    })
    cellsByRow.push(cells)
    heights.push(height)
  })
  // A cell over several rows asks the last of them for what the others did not give.
  for (const { from, to, height } of spanning) {
    const given = heights.slice(from, to).reduce((sum, each) => sum + each, 0)
    if (given < height) heights[to - 1]! += height - given
  }
  const mayBreakRows = properties['style:may-break-between-rows'] !== 'false'
  const rows = cellsByRow.map((cells, at) =>
    setRow(
      cells,
      heights[at]!,
      table.rows[at]!.heading,
      !fixed[at] && cells.every(cell => cell.spans === 0),
      heights.slice(at + 1),
    ),
  )
  const style =
    table.styleName === null ? undefined : findStyle(boxes.workshop.cascade.scope(table.part), 'table', table.styleName)
  const x = aligned === 'center' ? (columnWidth - width) / 2 : aligned === 'right' ? columnWidth - width : margin.left
  return {
    x,
    width,
    rows,
    mayBreak: mayBreakRows,
    spaceBefore: margin.top,
    spaceAfter: margin.bottom,
    properties,
    masterPage: style?.attributes['style:master-page-name'] || null,
  }
}

/**
 * What a cell has of borders that collapse: its own above and to the left where the table begins, below and to the right the
 * wider of its own and its neighbour's.
 */
function shared(borders: readonly (readonly Edges[])[], row: number, column: number, cell: Cell): Edges {
  const own = borders[row]![column]!
  const below = borders[row + cell.rowSpan]?.[column]
  const beside = borders[row]![column + cell.columnSpan]
  return {
    top: row === 0 ? own.top : 0,
    left: column === 0 ? own.left : 0,
    bottom: Math.max(own.bottom, below?.top ?? 0),
    right: Math.max(own.right, beside?.left ?? 0),
  }
}

function setRow(
  cells: readonly SetCell[],
  height: number,
  heading: boolean,
  mayBreak: boolean,
  below: readonly number[],
): SetRow {
  const fragments: Fragment[] = []
  const notes: Extract<Inline, { kind: 'note' }>[] = []
  for (const cell of cells) {
    const { border, padding, properties } = cell
    const own = height + below.slice(0, cell.spans).reduce((sum, each) => sum + each, 0)
    const fill = properties['fo:background-color'] ?? ''
    if (/^#[0-9a-f]{6}$/i.test(fill))
      fragments.push({ kind: 'box', fill, stroke: '', strokeWidth: 0, x: cell.x, y: 0, width: cell.width, height: own })
    const color = borderColor(properties)
    const edge = (x: number, y: number, width: number, high: number) => {
      if (width > 0 && high > 0)
        fragments.push({ kind: 'box', fill: color, stroke: '', strokeWidth: 0, x, y, width, height: high })
    }
    edge(cell.x, 0, cell.width, border.top)
    edge(cell.x, own - border.bottom, cell.width, border.bottom)
    edge(cell.x, 0, border.left, own)
    edge(cell.x + cell.width - border.right, 0, border.right, own)
    const free = own - cell.height - padding.top - padding.bottom - border.top - border.bottom
    const align = properties['style:vertical-align']
    const down = align === 'middle' ? free / 2 : align === 'bottom' ? free : 0
    fragments.push(
      ...shifted(cell.fragments, cell.x + padding.left + border.left, padding.top + border.top + Math.max(down, 0)),
    )
    for (const fragment of cell.fragments) {
      if (fragment.kind !== 'lines') continue
      const { layout, from, to } = fragment
      for (const each of layout.notes)
        if (!each.note.endnote && each.at >= layout.lines[from]!.start && each.at < layout.lines[to - 1]!.end)
          notes.push(each.note)
    }
  }
  return { height, heading, mayBreak, cells, fragments, notes }
}

/** A row in two: what fits some height, and the rest. Null where not even a line of every cell that has one fits. */
export function splitRow(row: SetRow, room: number): { readonly head: SetRow; readonly tail: SetRow } | null {
  const heads: SetCell[] = []
  const tails: SetCell[] = []
  let tailHeight = 0
  let moved = false
  for (const cell of row.cells) {
    const around = cell.padding.top + cell.padding.bottom + cell.border.top + cell.border.bottom
    const { head, tail, tailHeight: rest, headHeight } = splitFragments(cell.fragments, room - around)
    if (tail.length > 0) {
      if (head.length === 0) return null
      moved = true
    }
    heads.push({ ...cell, fragments: head, height: tail.length > 0 ? headHeight : cell.height })
    tails.push({ ...cell, fragments: tail, height: rest })
    tailHeight = Math.max(tailHeight, rest + around)
  }
  if (!moved) return null
  return {
    head: setRow(heads, room, row.heading, row.mayBreak, []),
    tail: setRow(tails, tailHeight, false, row.mayBreak, []),
  }
}

function splitFragments(
  fragments: readonly Fragment[],
  room: number,
): { head: Fragment[]; tail: Fragment[]; headHeight: number; tailHeight: number } {
  const head: Fragment[] = []
  const over: Fragment[] = []
  let headHeight = 0
  for (const fragment of fragments) {
    if (fragment.kind === 'lines') {
      const { layout, from, to } = fragment
      let y = fragment.y
      let fitting = from
      while (fitting < to && y + layout.lines[fitting]!.above + layout.lines[fitting]!.height <= room + 0.01) {
        y += layout.lines[fitting]!.above + layout.lines[fitting]!.height
        fitting++
      }
      if (fitting > from) {
        head.push({ ...fragment, to: fitting })
        headHeight = Math.max(headHeight, y)
      }
      if (fitting < to) over.push({ ...fragment, from: fitting, y })
    } else {
      const height = heightOf(fragment)
      if (fragment.y + height <= room + 0.01 || (fragment.kind === 'box' && fragment.y < room)) {
        head.push(fragment)
        headHeight = Math.max(headHeight, Math.min(fragment.y + height, room))
      } else over.push(fragment)
    }
  }
  const top = over.reduce((least, each) => Math.min(least, each.y), Infinity)
  const tail = [...shifted(over, 0, -top)]
  const tailHeight = tail.reduce((most, each) => Math.max(most, each.y + heightOf(each)), 0)
  return { head, tail, headHeight, tailHeight }
}
