import { isRound, type Chart } from '../document/chart'
import { points } from '../document/lengths'
import type { BoxComposer } from './boxes'
import { AxesChart } from './chart-axes'
import { drawLegend } from './chart-legend'
import { ChartPen } from './chart-pen'
import { plotNet, plotRound, type Area } from './chart-plots'
import { scaleFor } from './chart-scale'
import { SeriesLooks } from './chart-series'
import { shifted, turned, type Fragment } from './fragments'
import { scaling } from './matrix'

const gap = 5

/** Draws one chart: titles, legend, axes with their labels, and the values. */
export class ChartDrawing {
  private readonly pen: ChartPen
  private readonly looks: SeriesLooks

  constructor(
    private readonly chart: Chart,
    boxes: BoxComposer,
  ) {
    this.pen = new ChartPen(chart, boxes)
    this.looks = new SeriesLooks(this.pen)
  }

  /** Everything, in a box of this size in points. */
  draw(width: number, height: number): readonly Fragment[] {
    const own = { width: points(this.chart.width) || width, height: points(this.chart.height) || height }
    this.inside(own.width, own.height)
    const { fragments } = this.pen
    if (Math.abs(own.width - width) < 1 && Math.abs(own.height - height) < 1) return fragments
    // The frame shows the chart larger or smaller than it is: its type grows or shrinks with it.
    return turned(fragments, scaling(width / own.width, height / own.height))
  }

  private inside(width: number, height: number): void {
    const { chart } = this.pen
    const ground = this.pen.properties('graphic', [chart.styleName])
    this.pen.rectangle({ x: 0, y: 0, width, height }, ground, false)
    let area: Area = { x: gap, y: gap, width: width - 2 * gap, height: height - 2 * gap }
    for (const title of chart.titles) {
      const set = this.pen.set(title.blocks, area.width, true)
      const x = (width - set.width) / 2
      if (title.which === 'footer') {
        this.pen.place(set, title.at, x, area.y + area.height - set.height)
        area = { ...area, height: area.height - set.height - gap }
      } else {
        this.pen.place(set, title.at, x, area.y)
        area = { ...area, y: area.y + set.height + gap, height: area.height - set.height - gap }
      }
    }
    area = drawLegend(this.pen, this.looks, area, width)
    const { plot } = chart
    const stated = { x: points(plot.x), y: points(plot.y), width: points(plot.width), height: points(plot.height) }
    if (stated.x !== null && stated.y !== null && stated.width && stated.height) area = stated as Area
    if (area.width < 8 || area.height < 8) return
    if (this.pen.properties('chart', [plot.styleName])['chart:three-dimensional'] === 'true')
      this.pen.unlaid('charts in three dimensions (drawn flat)')
    if (isRound(chart.kind)) this.round(area)
    else if (chart.kind === 'radar' || chart.kind === 'filled-radar') this.net(area)
    else new AxesChart(this.pen, this.looks, area).draw()
  }

  private round(area: Area): void {
    const scale = scaleFor([0, 1], {}, 2, true)
    const start =
      Number.parseFloat(this.pen.properties('chart', [this.pen.chart.plot.styleName])['chart:angle-offset'] ?? '') || 90
    const plot = plotRound(
      this.pen.chart.series.map(each => this.looks.plotted(each, scale)),
      area,
      start,
    )
    this.pen.draw(plot.fragments)
    this.looks.valueLabels(plot)
  }

  private net(area: Area): void {
    const { chart } = this.pen
    const names = chart.categories.map(each => this.pen.set(each.blocks))
    const side = Math.max(0, ...names.map(each => each.width)) + gap
    const tall = Math.max(0, ...names.map(each => each.height)) + gap
    const axis = chart.axes.find(each => each.dimension === 'y')
    const scale = scaleFor(
      chart.series.flatMap(each => each.values.filter(value => value !== null)),
      this.pen.properties('chart', [axis?.styleName ?? null]),
      5,
      true,
    )
    const inner = {
      x: area.x + side,
      y: area.y + tall,
      width: Math.max(area.width - 2 * side, 8),
      height: Math.max(area.height - 2 * tall, 8),
    }
    const plot = plotNet(
      chart.series.map(each => this.looks.plotted(each, scale)),
      inner,
      Math.max(chart.categories.length, ...chart.series.map(each => each.values.length)),
    )
    this.pen.draw(plot.fragments)
    const centre = inner.x + inner.width / 2
    names.forEach((set, index) => {
      const [x, y] = plot.spokes[index] ?? [centre, inner.y]
      const dx = Math.abs(x - centre) < 1 ? -set.width / 2 : x < centre ? -set.width - 3 : 3
      this.pen.draw(shifted(set.fragments, x + dx, y < inner.y + 2 ? y - set.height - 2 : y - set.height / 2))
    })
    this.looks.valueLabels(plot)
  }
}
