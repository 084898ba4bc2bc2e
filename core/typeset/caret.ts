import type { DisplayPage, TextLine } from './display'
import type { GlyphRun } from './glyph-runs'
import { boundsOf, inverted, mapped, type Matrix } from './matrix'

/** A place between two characters of a paragraph; `offset` counts UTF-16 units of its text. */
export interface Spot {
  readonly part: string
  readonly node: number
  readonly offset: number
}

/** A stretch of a paragraph's text. `through`: its end is selected too, with the break behind it. */
export interface TextRange {
  readonly part: string
  readonly node: number
  readonly from: number
  readonly to: number
  readonly through: boolean
}

/** A box on a page, in points; `matrix` maps it where it is turned. */
export interface PageBox {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
  readonly matrix?: Matrix
}

/** Characters that are drawn as one, with the edge of their beginning and of their end. */
interface Cell {
  readonly from: number
  readonly to: number
  readonly start: number
  readonly end: number
}

/** How wide a selected break is drawn, in points. */
const breakWidth = 4

function cellsOf(page: DisplayPage, line: TextLine): Cell[] {
  const cells: Cell[] = []
  for (const index of line.runs) {
    const run = page.runs[index]!
    if (run.style < 0 || run.part !== line.part || run.node !== line.node || run.end <= run.start) continue
    if (!run.own || run.glyphs.length === 0)
      cells.push({ from: run.start, to: run.end, start: run.x, end: run.x + run.width })
    else cells.push(...runCells(run))
  }
  return cells
}

function runCells(run: GlyphRun): Cell[] {
  const left = new Map<number, number>()
  run.glyphs.forEach((_glyph, at) => {
    const x = run.xs[at]!
    const cluster = run.clusters[at]!
    left.set(cluster, Math.min(left.get(cluster) ?? Infinity, x))
  })
  const length = run.end - run.start
  // From left to right as seen: clusters go up in text that runs to the right, and down in text that runs to the left.
  const seen = [...left].sort((a, b) => a[1] - b[1])
  const inOrder = [...left.keys()].sort((a, b) => a - b)
  return seen.map(([cluster, x], at): Cell => {
    const right = at + 1 < seen.length ? seen[at + 1]![1] : run.width
    const to = inOrder[inOrder.indexOf(cluster) + 1] ?? length
    const [start, end] = run.rightToLeft ? [right, x] : [x, right]
    return { from: run.start + cluster, to: run.start + to, start: run.x + start, end: run.x + end }
  })
}

const isLineOf = (line: TextLine, { part, node }: { readonly part: string; readonly node: number }) =>
  line.part === part && line.node === node

/** The line that shows a place, by its index; -1 where the page has none. */
export function lineOf(page: DisplayPage, spot: Spot): number {
  let last = -1
  for (let index = 0; index < page.lines.length; index++) {
    const line = page.lines[index]!
    if (!isLineOf(line, spot)) continue
    if (spot.offset >= line.start && spot.offset < line.end) return index
    if (spot.offset === line.end || (spot.offset >= line.contentEnd && spot.offset <= line.end)) last = index
    // A drop cap stands beside lines that begin behind it.
    if (
      line.runs.some(run => {
        const own = page.runs[run]!
        return own.own && own.start <= spot.offset && own.end > spot.offset && isLineOf(line, own)
      })
    )
      return index
  }
  return last
}

function edgeAt(line: TextLine, cells: readonly Cell[], offset: number): number {
  const inside = cells.find(cell => cell.from <= offset && cell.to > offset)
  if (inside) return inside.start + ((inside.end - inside.start) * (offset - inside.from)) / (inside.to - inside.from)
  const before = cells.filter(cell => cell.to <= offset).sort((a, b) => b.to - a.to)[0]
  return before ? before.end : line.x
}

/** Where the caret stands for a place: a box without width; null where the page does not show it. */
export function caretBox(page: DisplayPage, spot: Spot): (PageBox & { readonly line: number }) | null {
  const index = lineOf(page, spot)
  if (index < 0) return null
  const line = page.lines[index]!
  const x = edgeAt(line, cellsOf(page, line), spot.offset)
  return {
    line: index,
    x,
    y: line.baseline - line.ascent,
    width: 0,
    height: line.ascent + line.descent,
    ...(line.matrix ? { matrix: line.matrix } : {}),
  }
}

const graphemes = new Intl.Segmenter('und', { granularity: 'grapheme' })

/** The place in a line nearest to some x, in the line's own coordinates. */
export function spotInLine(page: DisplayPage, index: number, x: number): Spot {
  const line = page.lines[index]!
  const stops: { offset: number; x: number }[] = []
  for (const cell of cellsOf(page, line)) {
    stops.push({ offset: cell.from, x: cell.start }, { offset: cell.to, x: cell.end })
    if (cell.to - cell.from < 2) continue
    // A ligature: between its letters too.
    const run = line.runs
      .map(each => page.runs[each]!)
      .find(each => each.own && each.start <= cell.from && each.end >= cell.to)
    for (const { index: at } of graphemes.segment(run?.text.slice(cell.from - run.start, cell.to - run.start) ?? ''))
      if (at > 0)
        stops.push({ offset: cell.from + at, x: cell.start + ((cell.end - cell.start) * at) / (cell.to - cell.from) })
  }
  const wraps =
    page.lines[index + 1] !== undefined &&
    isLineOf(page.lines[index + 1]!, line) &&
    page.lines[index + 1]!.start === line.end
  // The end of a line that goes on is shown at the next one's start: here it is before the space that hangs over.
  const last = wraps
    ? Math.max(line.contentEnd < line.end ? line.contentEnd : line.end - 1, line.start)
    : line.contentEnd < line.end
      ? Math.max(line.contentEnd, line.start)
      : line.end
  const usable = stops.filter(stop => stop.offset <= (wraps ? last : line.end))
  const best = usable.reduce<{ offset: number; x: number } | null>(
    (found, stop) => (found === null || Math.abs(stop.x - x) < Math.abs(found.x - x) ? stop : found),
    null,
  )
  return { part: line.part, node: line.node, offset: best?.offset ?? Math.min(line.start, last) }
}

function away(line: TextLine, x: number, y: number): { readonly cost: number; readonly x: number } {
  const back = line.matrix ? inverted(line.matrix) : null
  const at = back ? mapped(back, x, y) : { x, y }
  const dy = Math.max(line.y - at.y, at.y - line.y - line.height, 0)
  const dx = Math.max(line.x - at.x, at.x - line.x - line.width, 0)
  return { cost: dy * 3 + dx, x: at.x }
}

/** The place nearest to a point of the page; null on a page without text. `within` limits the paragraphs. */
export function spotAt(page: DisplayPage, x: number, y: number, within?: (line: TextLine) => boolean): Spot | null {
  let best = -1
  let cost = Infinity
  let along = 0
  page.lines.forEach((line, index) => {
    if (line.node < 0 || (within && !within(line))) return
    const found = away(line, x, y)
    // Of lines that lie over one another the upper one is meant.
    if (found.cost <= cost) {
      best = index
      cost = found.cost
      along = found.x
    }
  })
  return best < 0 ? null : spotInLine(page, best, along)
}

/** The boxes that a selection covers on a page. */
export function rangeBoxes(page: DisplayPage, ranges: readonly TextRange[]): PageBox[] {
  const boxes: PageBox[] = []
  const byNode = new Map(ranges.map(range => [`${range.part}#${range.node}`, range]))
  for (const line of page.lines) {
    const range = byNode.get(`${line.part}#${line.node}`)
    if (!range) continue
    const from = Math.max(range.from, line.start)
    const to = Math.min(range.to, line.end)
    const cells = cellsOf(page, line)
    const place = (start: number, end: number) => {
      boxes.push({
        x: Math.min(start, end),
        y: line.y,
        width: Math.abs(end - start),
        height: line.height,
        ...(line.matrix ? { matrix: line.matrix } : {}),
      })
    }
    const drop = cells.filter(cell => cell.to <= line.start && cell.from < range.to && cell.to > range.from)
    for (const cell of drop) place(cell.start, cell.end)
    if (to > from) {
      if (cells.every(cell => cell.end >= cell.start)) place(edgeAt(line, cells, from), edgeAt(line, cells, to))
      else for (const cell of cells) if (cell.from < to && cell.to > from) place(cell.start, cell.end)
    }
    if (range.through && range.to >= line.end && (line.end === line.start ? true : lastLineOf(page, line))) {
      const edge = edgeAt(line, cells, line.end)
      place(edge, edge + breakWidth)
    }
  }
  return boxes
}

function lastLineOf(page: DisplayPage, line: TextLine): boolean {
  return !page.lines.some(each => isLineOf(each, line) && each.start >= line.end && each !== line)
}

/** The line above or below a place on its page that is nearest to some x; -1 where there is none. */
export function lineBeside(
  page: DisplayPage,
  from: PageBox,
  direction: 'up' | 'down',
  x: number,
  within: (line: TextLine) => boolean,
): number {
  const own = from.matrix ? boundsOf(from.matrix, from) : from
  const middle = own.y + own.height / 2
  let best = -1
  let cost = Infinity
  page.lines.forEach((line, index) => {
    if (line.node < 0 || !within(line)) return
    const box = line.matrix ? boundsOf(line.matrix, line) : line
    const gap = direction === 'down' ? box.y + box.height / 2 - middle : middle - box.y - box.height / 2
    if (gap <= own.height * 0.3) return
    const beside = Math.max(box.x - x, x - box.x - box.width, 0)
    if (gap + beside * 2 < cost) {
      cost = gap + beside * 2
      best = index
    }
  })
  return best
}
