import { isRound } from '../document/chart'
import { points } from '../document/lengths'
import type { ChartPen, SetBlock } from './chart-pen'
import type { Area } from './chart-plots'
import type { SeriesLooks } from './chart-series'
import { shifted } from './fragments'

/** The side of a key and what lies around it, in points. */
const key = 8
const between = 10
const room = 9

interface Entry {
  readonly set: SetBlock
  readonly color: string
}

/** What stands in the legend: categories of a round chart, series of all others. */
function entriesOf(pen: ChartPen, looks: SeriesLooks, styleName: string | null): Entry[] {
  const { chart } = pen
  return isRound(chart.kind)
    ? chart.categories.map((category, index) => ({
        set: pen.set(category.blocks),
        color: looks.color(chart.series[0], index),
      }))
    : chart.series.map(series => ({
        set: series.label ? pen.set(series.label.blocks) : pen.label('Series', [chart.styleName, styleName]),
        color: looks.color(series, -1),
      }))
}

/** Where the legend lies: where the file says, else by its side (chart:legend-position). */
function placeOf(pen: ChartPen, node: number, position: string, area: Area, width: number, size: Size) {
  const attributes = pen.attributesOf(node)
  const [x, y] = [points(attributes['svg:x']), points(attributes['svg:y'])]
  if (x !== null && y !== null) return { x, y }
  const middle = { x: (width - size.width) / 2, y: area.y + (area.height - size.height) / 2 }
  return {
    x: /^(top|bottom)/.test(position)
      ? middle.x
      : position.startsWith('start')
        ? area.x
        : area.x + area.width - size.width,
    y: position.startsWith('top')
      ? area.y
      : position.startsWith('bottom')
        ? area.y + area.height - size.height
        : Math.max(middle.y, area.y),
  }
}

interface Size {
  readonly width: number
  readonly height: number
}

/** Draws the legend and gives what is left of the area. `width` is that of the whole chart, in points. */
export function drawLegend(pen: ChartPen, looks: SeriesLooks, area: Area, width: number): Area {
  const { legend } = pen.chart
  if (!legend) return area
  const entries = entriesOf(pen, looks, legend.styleName)
  if (entries.length === 0) return area
  const { position } = legend
  const most = Math.max(...entries.map(each => key + 4 + each.set.width))
  const row = Math.max(key, ...entries.map(each => each.set.height)) + 1
  const columns = /^(top|bottom)/.test(position)
    ? Math.max(1, Math.min(entries.length, Math.floor((area.width + between) / (most + between))))
    : 1
  const size = { width: columns * (most + between) - between, height: Math.ceil(entries.length / columns) * row }
  const { x, y } = placeOf(pen, legend.node, position, area, width, size)
  const ground = { x: x - 3, y: y - 2, width: size.width + 6, height: size.height + 4 }
  pen.rectangle(ground, pen.properties('graphic', [legend.styleName]), false)
  entries.forEach(({ set, color }, index) => {
    const left = x + (index % columns) * (most + between)
    const top = y + Math.floor(index / columns) * row
    const place = { x: left, y: top + (row - key) / 2, width: key, height: key }
    pen.draw([
      { kind: 'box', fill: color, stroke: '', strokeWidth: 0, ...place },
      ...shifted(set.fragments, left + key + 4, top + (row - set.height) / 2),
    ])
  })
  return leftOf(area, position, size)
}

/** What the legend leaves of the area. */
function leftOf(area: Area, position: string, { width, height }: Size): Area {
  if (position.startsWith('top')) return { ...area, y: area.y + height + room, height: area.height - height - room }
  if (position.startsWith('bottom')) return { ...area, height: area.height - height - room }
  if (position.startsWith('start')) return { ...area, x: area.x + width + room, width: area.width - width - room }
  return { ...area, width: area.width - width - room }
}
