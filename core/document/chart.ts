import type { XmlElement, XmlPart } from '../xml/tree'
import { StoryReader } from './story-reader'
import type { Block, Holder, Paragraph } from './story-model'

/** Kinds of charts that can be told apart (chart:class, ODF 1.4 part 3, 19.15). */
export type ChartKind =
  | 'bar'
  | 'line'
  | 'area'
  | 'circle'
  | 'ring'
  | 'scatter'
  | 'bubble'
  | 'radar'
  | 'filled-radar'
  | 'stock'
  | 'surface'
  | 'gantt'
  | 'other'

/** Text of a chart with what owns its look: names of chart styles, outermost first. */
export interface ChartText {
  readonly node: number
  readonly styleNames: readonly string[]
  readonly blocks: readonly Block[]
  readonly at: { readonly x: string; readonly y: string } | null
}

export interface ChartAxis {
  readonly node: number
  readonly dimension: 'x' | 'y' | 'z'
  readonly name: string
  readonly styleName: string | null
  readonly title: ChartText | null
  readonly grids: readonly { readonly minor: boolean; readonly styleName: string | null }[]
}

export interface ChartSeries {
  readonly node: number
  readonly kind: ChartKind
  readonly styleName: string | null
  /** The name of the y axis it is measured against. */
  readonly axis: string
  readonly values: readonly (number | null)[]
  /** Of scatter and bubble charts: where its points stand along x. */
  readonly across: readonly (number | null)[] | null
  readonly label: ChartText | null
  /** Styles of single points, by their index. */
  readonly points: ReadonlyMap<number, string>
}

/** A chart, read: what it says and what it measures. */
export interface Chart {
  readonly part: string
  readonly node: number
  readonly kind: ChartKind
  readonly styleName: string | null
  /** As the file has them, in any unit. */
  readonly width: string
  readonly height: string
  readonly titles: readonly (ChartText & { readonly which: 'title' | 'subtitle' | 'footer' })[]
  readonly legend: { readonly node: number; readonly styleName: string | null; readonly position: string } | null
  readonly plot: {
    readonly node: number
    readonly styleName: string | null
    readonly x: string
    readonly y: string
    readonly width: string
    readonly height: string
    readonly wall: string | null
  }
  readonly axes: readonly ChartAxis[]
  readonly series: readonly ChartSeries[]
  readonly categories: readonly ChartText[]
}

interface CellRange {
  readonly fromColumn: number
  readonly fromRow: number
  readonly toColumn: number
  readonly toRow: number
}

/** A chart keeps no more data than this: cells of its own table. */
const cellLimit = 100_000
const repeatLimit = 1024
const kinds: ReadonlySet<string> = new Set([
  'bar',
  'line',
  'area',
  'circle',
  'ring',
  'scatter',
  'bubble',
  'radar',
  'filled-radar',
  'stock',
  'surface',
  'gantt',
])

const kindOf = (value: string | undefined, fallback: ChartKind): ChartKind => {
  const name = value?.replace(/^.*:/, '') ?? ''
  return value === undefined ? fallback : kinds.has(name) ? (name as ChartKind) : 'other'
}

function column(letters: string): number {
  let number = 0
  for (const letter of letters) number = number * 26 + letter.charCodeAt(0) - 64
  return number - 1
}

/**
 * A range of the chart's own table, such as “local-table.$B$2:.$B$9” (cellRangeAddress, ODF 1.4 part 3, 18.3.3);
 * null for all others.
 */
function readRange(address: string | undefined): CellRange | null {
  const found = /^(?:'?local-table'?)\.\$?([A-Z]+)\$?(\d+)(?::(?:'?local-table'?)?\.?\$?([A-Z]+)\$?(\d+))?$/.exec(
    address?.trim() ?? '',
  )
  if (!found) return null
  const [, fromColumn, fromRow, toColumn = fromColumn!, toRow = fromRow!] = found
  return {
    fromColumn: column(fromColumn!),
    fromRow: Number(fromRow) - 1,
    toColumn: column(toColumn),
    toRow: Number(toRow) - 1,
  }
}

/** Whether a chart's categories stand in its legend, not along an axis. */
export const isRound = (kind: ChartKind): boolean => kind === 'circle' || kind === 'ring'

class ChartReader {
  private readonly reader: StoryReader
  private readonly table: XmlElement[][] = []
  private headRows = 0

  constructor(
    private readonly part: XmlPart,
    private readonly chart: XmlElement,
  ) {
    this.reader = new StoryReader(part)
    const table = part.first(chart, 'table:table')
    if (table) this.rows(table, false)
  }

  private rows(parent: XmlElement, heading: boolean): void {
    let count = this.table.reduce((sum, row) => sum + row.length, 0)
    for (const child of this.part.elements(parent)) {
      if (child.name !== 'table:table-row') {
        this.rows(child, heading || child.name === 'table:table-header-rows')
        continue
      }
      const row: XmlElement[] = []
      for (const cell of this.part.elements(child)) {
        const repeat = Math.max(
          1,
          Math.min(Number.parseInt(cell.attributes['table:number-columns-repeated'] ?? '1', 10) || 1, repeatLimit),
        )
        for (let at = 0; at < repeat && count < cellLimit; at++, count++) row.push(cell)
      }
      if (heading) this.headRows++
      this.table.push(row)
    }
  }

  text(element: XmlElement, styleNames: readonly (string | null | undefined)[]): ChartText {
    const names = styleNames.filter(name => name !== null && name !== undefined)
    const holder: Holder = { kind: 'chart-text', node: element.id, styleNames: names, parent: null }
    const { 'svg:x': x, 'svg:y': y } = element.attributes
    return {
      node: element.id,
      styleNames: names,
      blocks: this.reader.blocks(element, { place: 'chart', holder, list: null }),
      at: x !== undefined && y !== undefined ? { x, y } : null,
    }
  }

  private numbers(range: CellRange | null): (number | null)[] {
    return this.cells(range).map(cell => {
      const value = Number.parseFloat(cell?.attributes['office:value'] ?? '')
      return Number.isFinite(value) ? value : null
    })
  }

  private cells(range: CellRange | null): (XmlElement | undefined)[] {
    if (!range) return []
    const found: (XmlElement | undefined)[] = []
    for (let row = range.fromRow; row <= Math.min(range.toRow, this.table.length - 1); row++)
      for (let at = range.fromColumn; at <= range.toColumn && found.length < cellLimit; at++)
        found.push(this.table[row]?.[at])
    return found
  }

  read(): Chart {
    const { part, chart } = this
    const { attributes } = chart
    const kind = kindOf(attributes['chart:class'], 'bar')
    const base = attributes['chart:style-name'] ?? null
    const plot = part.first(chart, 'chart:plot-area')
    const legend = part.first(chart, 'chart:legend')
    const legendNames = [base, legend?.attributes['chart:style-name']]
    const axes = plot ? [...part.elements(plot, 'chart:axis')] : []
    const across = axes.find(axis => axis.attributes['chart:dimension'] === 'x')
    const height = this.table.length
    const columnRange = (at: number): CellRange => ({
      fromColumn: at,
      toColumn: at,
      fromRow: this.headRows,
      toRow: height - 1,
    })
    const categories = across && part.first(across, 'chart:categories')
    const categoryRange = readRange(categories?.attributes['table:cell-range-address']) ?? columnRange(0)
    const categoryNames = isRound(kind) ? legendNames : [base, across?.attributes['chart:style-name']]
    const series = plot ? [...part.elements(plot, 'chart:series')] : []
    const columns = Math.max(0, ...this.table.map(row => row.length))
    const made =
      series.length > 0
        ? series.map((element, at) => this.series(element, at, kind, legendNames))
        : Array.from({ length: Math.max(columns - 1, 0) }, (_, at): ChartSeries => ({
            node: chart.id,
            kind,
            styleName: null,
            axis: '',
            values: this.numbers(columnRange(at + 1)),
            across: null,
            points: new Map(),
            label: this.headRows > 0 && this.table[0]?.[at + 1] ? this.text(this.table[0][at + 1]!, legendNames) : null,
          }))
    const titles = (['title', 'subtitle', 'footer'] as const).flatMap(which => {
      const element = part.first(chart, `chart:${which}`)
      return element ? [{ which, ...this.text(element, [base, element.attributes['chart:style-name']]) }] : []
    })
    const wall = plot && part.first(plot, 'chart:wall')
    return {
      part: part.path,
      node: chart.id,
      kind,
      styleName: base,
      width: attributes['svg:width'] ?? '',
      height: attributes['svg:height'] ?? '',
      titles,
      legend: legend
        ? {
            node: legend.id,
            styleName: legend.attributes['chart:style-name'] ?? null,
            position: legend.attributes['chart:legend-position'] ?? 'end',
          }
        : null,
      plot: {
        node: plot?.id ?? chart.id,
        styleName: plot?.attributes['chart:style-name'] ?? null,
        wall: wall?.attributes['chart:style-name'] ?? null,
        x: plot?.attributes['svg:x'] ?? '',
        y: plot?.attributes['svg:y'] ?? '',
        width: plot?.attributes['svg:width'] ?? '',
        height: plot?.attributes['svg:height'] ?? '',
      },
      axes: axes.map(axis => this.axis(axis, base)),
      series: made,
      categories: this.cells(categoryRange).flatMap(cell => (cell ? [this.text(cell, categoryNames)] : [])),
    }
  }

  private axis(element: XmlElement, base: string | null): ChartAxis {
    const { attributes } = element
    const title = this.part.first(element, 'chart:title')
    const dimension = attributes['chart:dimension']
    return {
      node: element.id,
      dimension: dimension === 'y' || dimension === 'z' ? dimension : 'x',
      name: attributes['chart:name'] ?? '',
      styleName: attributes['chart:style-name'] ?? null,
      title: title
        ? this.text(title, [
            base,
            this.part.element(element.parent).attributes['chart:style-name'],
            attributes['chart:style-name'],
            title.attributes['chart:style-name'],
          ])
        : null,
      grids: [...this.part.elements(element, 'chart:grid')].map(grid => ({
        minor: grid.attributes['chart:class'] === 'minor',
        styleName: grid.attributes['chart:style-name'] ?? null,
      })),
    }
  }

  private series(
    element: XmlElement,
    at: number,
    kind: ChartKind,
    legendNames: readonly (string | null | undefined)[],
  ): ChartSeries {
    const { attributes } = element
    const height = this.table.length
    const values = readRange(attributes['chart:values-cell-range-address']) ?? {
      fromColumn: at + 1,
      toColumn: at + 1,
      fromRow: this.headRows,
      toRow: height - 1,
    }
    const label =
      readRange(attributes['chart:label-cell-address']) ??
      (this.headRows > 0 ? { fromColumn: values.fromColumn, toColumn: values.fromColumn, fromRow: 0, toRow: 0 } : null)
    const domain = this.part.first(element, 'chart:domain')
    const cell = this.cells(label)[0]
    const points = new Map<number, string>()
    let index = 0
    for (const point of this.part.elements(element, 'chart:data-point')) {
      const repeat = Math.max(
        1,
        Math.min(Number.parseInt(point.attributes['chart:repeated'] ?? '1', 10) || 1, cellLimit),
      )
      const name = point.attributes['chart:style-name']
      if (name !== undefined)
        for (let each = 0; each < Math.min(repeat, repeatLimit); each++) points.set(index + each, name)
      index += repeat
    }
    return {
      node: element.id,
      kind: kindOf(attributes['chart:class'], kind),
      styleName: attributes['chart:style-name'] ?? null,
      axis: attributes['chart:attached-axis'] ?? '',
      values: this.numbers(values),
      across: domain ? this.numbers(readRange(domain.attributes['table:cell-range-address'])) : null,
      label: cell ? this.text(cell, legendNames) : null,
      points,
    }
  }
}

/** Reads a chart from its content part; null where there is none. */
export function readChart(part: XmlPart): Chart | null {
  const body = part.first(part.rootElement, 'office:body')
  const holder = body && part.first(body, 'office:chart')
  const chart = holder && part.first(holder, 'chart:chart')
  return chart ? new ChartReader(part, chart).read() : null
}

/** Words that a chart shows and the file does not hold, such as the numbers of an axis, in the look of the styles named. */
export const shownByChart = (
  { part, node }: Pick<Chart, 'part' | 'node'>,
  text: string,
  styleNames: readonly string[],
): Paragraph => ({
  kind: 'paragraph',
  part,
  node: -1,
  place: 'chart',
  styleName: null,
  classNames: [],
  heading: null,
  list: null,
  holder: { kind: 'chart-text', node, styleNames, parent: null },
  inlines: [{ kind: 'text', node: -1, text, span: null, field: 'chart:label' }],
  mark: null,
})
