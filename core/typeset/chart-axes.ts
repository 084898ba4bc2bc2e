import type { ChartAxis, ChartSeries } from '../document/chart'
import { percent } from '../style/properties'
import type { ChartPen, SetBlock } from './chart-pen'
import { plotOnAxes, stackValues, type Area, type Plot } from './chart-plots'
import { scaleFor, type Scale } from './chart-scale'
import type { SeriesLooks } from './chart-series'
import { shifted } from './fragments'

/** A number on an axis, with its label. */
interface Tick {
  readonly tick: number
  readonly set: SetBlock
}

/** How the names along the category axis stand: turned where they are too long, and then not each of them. */
interface NameRow {
  readonly turned: boolean
  readonly every: number
}

/** Titles of the axes, and the middle of the lower one from the top. */
interface AxisTitles {
  readonly left: SetBlock | null
  readonly right: SetBlock | null
  readonly bottom: SetBlock | null
  readonly bottomAt: number
}

const widest = (sets: readonly SetBlock[]) => Math.max(0, ...sets.map(each => each.width))
const tallest = (sets: readonly SetBlock[]) => Math.max(0, ...sets.map(each => each.height))
const setsOf = (ticks: readonly Tick[]) => ticks.map(each => each.set)
const unit = scaleFor([0, 1], {}, 2, true)

/** A chart whose values stand on axes: bars, lines, areas, points. Lengths in points. */
export class AxesChart {
  private readonly sideways: boolean
  private readonly percentage: boolean
  private readonly stacked: boolean
  private readonly categoryAxis: ChartAxis | undefined
  private readonly valueAxes: readonly ChartAxis[]
  private readonly primary: Scale
  private readonly secondary: Scale | null
  /** The scale of the x axis where it has numbers. */
  private readonly across: Scale | null
  /** Categories. */
  private readonly count: number
  private readonly values: readonly Tick[]
  private readonly others: readonly Tick[]
  private readonly names: readonly SetBlock[]

  constructor(
    private readonly pen: ChartPen,
    private readonly looks: SeriesLooks,
    private readonly area: Area,
  ) {
    const { chart } = pen
    const properties = pen.properties('chart', [chart.styleName, chart.plot.styleName])
    this.sideways = properties['chart:vertical'] === 'true'
    this.percentage = properties['chart:percentage'] === 'true'
    this.stacked = this.percentage || properties['chart:stacked'] === 'true'
    if (chart.kind === 'surface' || chart.kind === 'stock' || chart.kind === 'gantt' || chart.kind === 'other')
      pen.unlaid(`charts of the kind ${chart.kind} (drawn as lines or bars)`)
    this.categoryAxis = chart.axes.find(axis => axis.dimension === 'x')
    this.valueAxes = chart.axes.filter(axis => axis.dimension === 'y')
    this.primary = this.scaleOf(this.valueAxes[0])
    this.secondary = this.valueAxes[1] ? this.scaleOf(this.valueAxes[1]) : null
    this.count = Math.max(chart.categories.length, ...chart.series.map(each => each.values.length), 1)
    this.across = chart.kind === 'scatter' || chart.kind === 'bubble' ? this.acrossScale() : null
    this.values = this.numberLabels(this.valueAxes[0], this.primary)
    this.others = this.secondary ? this.numberLabels(this.valueAxes[1], this.secondary) : []
    this.names = !this.shows(this.categoryAxis)
      ? []
      : this.across
        ? setsOf(this.numberLabels(this.categoryAxis, this.across))
        : chart.categories.map(each => pen.set(each.blocks))
  }

  /** Draws everything; nothing where there is no room for values. */
  draw(): void {
    const titles = this.titles()
    const { inner, row } = this.room(titles)
    if (inner.width < 8 || inner.height < 8) return
    this.pen.rectangle(inner, this.pen.properties('graphic', [this.pen.chart.plot.wall]), false)
    this.grid(inner)
    const plot = this.plot(inner)
    this.pen.draw(plot.fragments)
    this.lines(inner)
    this.valueTicks(inner)
    this.nameTicks(inner, row)
    this.looks.valueLabels(plot)
    this.drawTitles(titles, inner)
  }

  private axisOf(series: ChartSeries): ChartAxis | undefined {
    return this.valueAxes.find(axis => axis.name === series.axis) ?? this.valueAxes[0]
  }

  private chartProperties(axis: ChartAxis | undefined) {
    return this.pen.properties('chart', [axis?.styleName ?? null])
  }

  private scaleOf(axis: ChartAxis | undefined): Scale {
    const series = this.pen.chart.series.filter(each => this.axisOf(each) === axis)
    const bars = series.some(each => each.kind === 'bar' || each.kind === 'area')
    const values = this.stacked
      ? stackValues(
          series.map(each => this.looks.plotted(each, unit)),
          this.percentage,
        ).flatMap(each => each.flatMap(({ from, to }) => [from, to]))
      : series.flatMap(each => each.values.filter(value => value !== null))
    const most = Math.max((this.sideways ? this.area.width : this.area.height) / 34, 2)
    return scaleFor(values, this.chartProperties(axis), most, bars || this.stacked)
  }

  private acrossScale(): Scale {
    const values = this.pen.chart.series.flatMap((each): number[] =>
      (each.across ?? each.values.map((_, at) => at + 1)).filter(value => value !== null),
    )
    return scaleFor(values, this.chartProperties(this.categoryAxis), Math.max(this.area.width / 60, 2), false)
  }

  private shows(axis: ChartAxis | undefined): boolean {
    const properties = this.chartProperties(axis)
    return (
      axis !== undefined && properties['chart:display-label'] !== 'false' && properties['chart:visible'] !== 'false'
    )
  }

  private numberLabels(axis: ChartAxis | undefined, scale: Scale): Tick[] {
    if (!axis || !this.shows(axis)) return []
    const dataStyle = this.pen.dataStyle(axis.styleName)
    const inPercent = this.percentage && axis.dimension === 'y' && !dataStyle
    return scale.ticks.map(tick => ({
      tick,
      set: this.pen.label(inPercent ? `${Math.round(tick * 100)}%` : this.pen.number(tick, dataStyle), [
        this.pen.chart.styleName,
        axis.styleName,
      ]),
    }))
  }

  private titles(): AxisTitles {
    const titleOf = (axis: ChartAxis | undefined) => (axis?.title ? this.pen.set(axis.title.blocks) : null)
    const bottom = titleOf(this.sideways ? this.valueAxes[0] : this.categoryAxis)
    return {
      left: titleOf(this.sideways ? this.categoryAxis : this.valueAxes[0]),
      right: titleOf(this.valueAxes[1]),
      bottom,
      bottomAt: bottom ? this.area.y + this.area.height - bottom.height / 2 : 0,
    }
  }

  /** What titles and labels leave for the values: titles stand outermost. */
  private room(titles: AxisTitles): { readonly inner: Area; readonly row: NameRow } {
    const { sideways, names } = this
    let { x, y, width, height } = this.area
    const values = setsOf(this.values)
    if (titles.left) {
      x += titles.left.height + 2
      width -= titles.left.height + 2
    }
    if (titles.right) width -= titles.right.height + 2
    if (titles.bottom) height -= titles.bottom.height + 2
    const leftLabels = widest(sideways ? names : values)
    const row = this.nameRow(width - leftLabels - 4)
    const bottomLabels = row.turned ? widest(names) * 0.72 + tallest(names) * 0.72 : tallest(sideways ? values : names)
    const rightLabels = widest(setsOf(this.others))
    x += leftLabels > 0 ? leftLabels + 4 : 0
    width -= (leftLabels > 0 ? leftLabels + 4 : 0) + (rightLabels > 0 ? rightLabels + 4 : 0)
    height -= bottomLabels > 0 ? bottomLabels + 3 : 0
    // The uppermost label, and sideways the last one, stand out by half of themselves.
    const over = tallest(values) / 2
    y += over
    height -= over
    if (sideways) width -= widest(values) / 2
    return { inner: { x, y, width, height }, row }
  }

  private nameRow(room: number): NameRow {
    const { count, names } = this
    const turns = !this.sideways && !this.across && widest(names) > room / count && count > 1
    return {
      turned: turns,
      every: turns ? Math.max(1, Math.ceil((count * tallest(names)) / Math.max(room, 1))) : 1,
    }
  }

  /** Where a value lies along its axis. */
  private along({ x, y, width, height }: Area, tick: number, scale: Scale): number {
    return this.sideways ? x + width * scale.at(tick) : y + height * (1 - scale.at(tick))
  }

  private grid(inner: Area): void {
    const { x, y, width, height } = inner
    for (const grid of this.valueAxes[0]?.grids ?? []) {
      if (grid.minor) continue
      const properties = this.pen.properties('graphic', [grid.styleName])
      for (const tick of this.primary.ticks) {
        const at = this.along(inner, tick, this.primary)
        if (this.sideways) this.pen.rule(at, y, at, y + height, properties, '#b3b3b3')
        else this.pen.rule(x, at, x + width, at, properties, '#b3b3b3')
      }
    }
  }

  private plot(inner: Area): Plot {
    const { chart } = this.pen
    const { primary, secondary } = this
    const properties = this.chartProperties(this.valueAxes[0])
    const scaleOf = (series: ChartSeries) =>
      this.axisOf(series) === this.valueAxes[1] && secondary ? secondary : primary
    return plotOnAxes(
      chart.series.map(each => this.looks.plotted(each, scaleOf(each))),
      {
        area: inner,
        sideways: this.sideways,
        stacked: this.stacked,
        percent: this.percentage,
        gap: percent(`${properties['chart:gap-width'] ?? '100'}%`) ?? 1,
        overlap: percent(`${properties['chart:overlap'] ?? '0'}%`) ?? 0,
        categories: this.count,
        acrossScale: this.across,
        fromEdge: chart.kind === 'area',
      },
    )
  }

  /** The axes themselves: that of categories stands where values are nought, as far as that is shown. */
  private lines(inner: Area): void {
    const { x, y, width, height } = inner
    const { sideways, primary } = this
    const [values, second] = this.valueAxes
    const line = (axis: ChartAxis | undefined, x1: number, y1: number, x2: number, y2: number) => {
      if (axis && this.chartProperties(axis)['chart:visible'] !== 'false')
        this.pen.rule(x1, y1, x2, y2, this.pen.properties('graphic', [axis.styleName]), '#808080')
    }
    const zero = this.along(inner, Math.max(primary.low, Math.min(primary.high, 0)), primary)
    const floor = sideways ? y + height : zero
    const side = sideways ? zero : x
    line(sideways ? values : this.categoryAxis, x, floor, x + width, floor)
    line(sideways ? this.categoryAxis : values, side, y, side, y + height)
    if (this.secondary) line(second, x + width, y, x + width, y + height)
  }

  private valueTicks(inner: Area): void {
    const { x, y, width, height } = inner
    for (const { tick, set } of this.values) {
      const at = this.along(inner, tick, this.primary)
      this.pen.draw(
        this.sideways
          ? shifted(set.fragments, at - set.width / 2, y + height + 3)
          : shifted(set.fragments, x - 4 - set.width, at - set.height / 2),
      )
    }
    for (const { tick, set } of this.others)
      this.pen.draw(shifted(set.fragments, x + width + 4, this.along(inner, tick, this.secondary!) - set.height / 2))
  }

  private nameTicks({ x, y, width, height }: Area, row: NameRow): void {
    const { across, count } = this
    const edge = this.pen.chart.kind === 'area' && count > 1
    this.names.forEach((set, index) => {
      const share = across ? across.at(across.ticks[index]!) : edge ? index / (count - 1) : (index + 0.5) / count
      const at = (this.sideways ? height : width) * share
      if (this.sideways) this.pen.draw(shifted(set.fragments, x - 4 - set.width, y + height - at - set.height / 2))
      else if (!row.turned) this.pen.draw(shifted(set.fragments, x + at - set.width / 2, y + height + 3))
      else if (index % row.every === 0)
        this.pen.turnedBy(set, 45, {
          x: x + at - set.width * 0.354,
          y: y + height + 3 + set.width * 0.354 + set.height * 0.2,
        })
    })
  }

  private drawTitles({ left, right, bottom, bottomAt }: AxisTitles, { x, y, width, height }: Area): void {
    const { area, pen } = this
    if (bottom) pen.draw(shifted(bottom.fragments, x + (width - bottom.width) / 2, bottomAt - bottom.height / 2))
    if (left) pen.turnedBy(left, 90, { x: area.x + left.height / 2, y: y + height / 2 })
    if (right) pen.turnedBy(right, 90, { x: area.x + area.width - right.height / 2, y: y + height / 2 })
  }
}
