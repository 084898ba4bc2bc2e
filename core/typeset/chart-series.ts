import { isRound, type ChartSeries } from '../document/chart'
import { points } from '../document/lengths'
import type { ChartPen } from './chart-pen'
import type { Plot, PlotSeries } from './chart-plots'
import type { Scale } from './chart-scale'
import { shifted } from './fragments'

/** Fills for series that name none. */
const palette = ['#2b5c8a', '#c1622d', '#5b8c5a', '#8a4f7d', '#b08d2e', '#4f8f99', '#8c4a43', '#6b6b8f']

/** How the series of a chart look, and the labels beside their values. */
export class SeriesLooks {
  constructor(private readonly pen: ChartPen) {}

  /** The fill of a series, or of one of its points; -1 for the series itself. */
  color(series: ChartSeries | undefined, index: number): string {
    if (!series) return palette[0]!
    const round = isRound(this.pen.chart.kind)
    const own = this.pen.properties('graphic', [round ? null : series.styleName, series.points.get(index) ?? null])
    const lines = series.kind === 'line' || series.kind === 'scatter' || series.kind === 'radar'
    const named = lines
      ? (own['svg:stroke-color'] ?? own['draw:fill-color'])
      : own['draw:fill'] === 'none'
        ? undefined
        : own['draw:fill-color']
    return named && /^#[0-9a-f]{6}$/i.test(named)
      ? named
      : palette[(round ? Math.max(index, 0) : this.pen.chart.series.indexOf(series)) % palette.length]!
  }

  /** A series ready to be drawn on a scale. */
  plotted(series: ChartSeries, scale: Scale): PlotSeries {
    const { chart } = this.pen
    const names = [chart.styleName, chart.plot.styleName, series.styleName]
    const properties = this.pen.properties('chart', names)
    const graphic = this.pen.properties('graphic', [series.styleName])
    const symbols = properties['chart:symbol-type'] ?? (series.kind === 'scatter' ? 'automatic' : 'none')
    const whole = series.values.reduce((sum: number, value) => sum + Math.abs(value ?? 0), 0) || 1
    const dataStyle = this.pen.dataStyle(series.styleName)
    const labelOf = (index: number): string => {
      const own = { ...properties, ...this.pen.properties('chart', [series.points.get(index) ?? null]) }
      const value = series.values[index] ?? 0
      const texts: string[] = []
      if (own['chart:data-label-text'] === 'true')
        texts.push(
          chart.categories[index]?.blocks
            .map(block =>
              block.kind === 'paragraph'
                ? block.inlines.map(each => (each.kind === 'text' ? each.text : '')).join('')
                : '',
            )
            .join(' ') ?? '',
        )
      if (/value/.test(own['chart:data-label-number'] ?? '')) texts.push(this.pen.number(value, dataStyle))
      if (/percentage/.test(own['chart:data-label-number'] ?? ''))
        texts.push(`${Math.round((Math.abs(value) / whole) * 100)}%`)
      return texts.filter(Boolean).join(' ')
    }
    const labelled = series.values.some((_, index) => labelOf(index) !== '')
    return {
      kind: series.kind,
      values: series.values,
      across: series.across,
      scale,
      color: index => this.color(series, index),
      lineColor: this.color(series, -1),
      lineWidth: points(graphic['svg:stroke-width']) || 1.5,
      line: graphic['draw:stroke'] !== 'none' && properties['chart:lines'] !== 'false' && series.kind !== 'bubble',
      symbol:
        symbols !== 'none' ||
        series.kind === 'bubble' ||
        (series.kind === 'scatter' && graphic['draw:stroke'] === 'none'),
      label: labelled ? labelOf : null,
    }
  }

  /** Writes the labels of a plot beside its values. */
  valueLabels(plot: Plot): void {
    const { chart } = this.pen
    for (const { series, text, x, y, side } of plot.labels) {
      if (text === '') continue
      const set = this.pen.label(text, [chart.styleName, chart.plot.styleName, chart.series[series]?.styleName ?? null])
      const dx = side === 'right' ? 3 : side === 'left' ? -set.width - 3 : -set.width / 2
      const dy = side === 'above' ? -set.height - 1.5 : side === 'below' ? 1.5 : -set.height / 2
      this.pen.draw(shifted(set.fragments, x + dx, y + dy))
    }
  }
}
