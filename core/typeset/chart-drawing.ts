import { isRound, type Chart, type ChartAxis, type ChartSeries, type ChartText } from '../document/chart'
import type { Block, Paragraph } from '../document/story-model'
import { findStyle, type Properties } from '../document/styles'
import { points } from '../document/lengths'
import { percent } from '../style/properties'
import type { BoxComposer } from './boxes'
import { plotNet, plotOnAxes, plotRound, stackValues, type Area, type Plot, type PlotSeries } from './chart-plots'
import { scaleFor, writeNumber, type Scale } from './chart-scale'
import { shifted, turned, type Fragment } from './fragments'
import { after, scaling, translation, type Matrix } from './matrix'
import { Paints } from './paint'
import { longestLine } from './shapes'

/** Text set in one block, as wide as it is. */
interface SetBlock {
  readonly width: number
  readonly height: number
  readonly fragments: readonly Fragment[]
}

/** Fills for series that name none. */
const palette = ['#2b5c8a', '#c1622d', '#5b8c5a', '#8a4f7d', '#b08d2e', '#4f8f99', '#8c4a43', '#6b6b8f']
/** A line that may be as long as it likes, in points. */
const endless = 20_000
const gap = 5

/** Draws one chart: titles, legend, axes with their labels, and the values. */
export class ChartDrawing {
  private readonly paints: Paints
  private readonly fragments: Fragment[] = []

  constructor(
    private readonly chart: Chart,
    private readonly boxes: BoxComposer,
  ) {
    this.paints = new Paints(boxes.workshop.cascade, boxes.workshop.unlaid)
  }

  /** Everything, in a box of this size in points. */
  draw(width: number, height: number): readonly Fragment[] {
    const own = { width: points(this.chart.width) || width, height: points(this.chart.height) || height }
    this.inside(own.width, own.height)
    if (Math.abs(own.width - width) < 1 && Math.abs(own.height - height) < 1) return this.fragments
    // The frame shows the chart larger or smaller than it is: its type grows or shrinks with it.
    return turned(this.fragments, scaling(width / own.width, height / own.height))
  }

  private properties(kind: 'chart' | 'graphic', names: readonly (string | null)[]): Properties {
    const { part } = this.chart
    return Object.assign(
      {},
      ...names.map(name =>
        kind === 'chart'
          ? this.boxes.propertiesElement(part, 'chart', name, 'style:chart-properties')
          : this.boxes.properties(part, 'chart', name, 'graphic'),
      ),
    ) as Properties
  }

  private inside(width: number, height: number): void {
    const { chart } = this
    const ground = this.properties('graphic', [chart.styleName])
    this.rectangle({ x: 0, y: 0, width, height }, ground, false)
    let area: Area = { x: gap, y: gap, width: width - 2 * gap, height: height - 2 * gap }
    for (const title of chart.titles) {
      const set = this.set(title.blocks, area.width, true)
      const x = (width - set.width) / 2
      if (title.which === 'footer') {
        this.place(set, title.at, x, area.y + area.height - set.height)
        area = { ...area, height: area.height - set.height - gap }
      } else {
        this.place(set, title.at, x, area.y)
        area = { ...area, y: area.y + set.height + gap, height: area.height - set.height - gap }
      }
    }
    area = this.legend(area, width)
    const { plot } = chart
    const stated = { x: points(plot.x), y: points(plot.y), width: points(plot.width), height: points(plot.height) }
    if (stated.x !== null && stated.y !== null && stated.width && stated.height) area = stated as Area
    if (area.width < 8 || area.height < 8) return
    if (this.properties('chart', [plot.styleName])['chart:three-dimensional'] === 'true')
      this.boxes.workshop.unlaid('charts in three dimensions (drawn flat)', chart.node)
    if (isRound(chart.kind)) this.round(area)
    else if (chart.kind === 'radar' || chart.kind === 'filled-radar') this.net(area)
    else this.axes(area)
  }

  private place(set: SetBlock, at: ChartText['at'], x: number, y: number): void {
    this.fragments.push(...shifted(set.fragments, at ? (points(at.x) ?? x) : x, at ? (points(at.y) ?? y) : y))
  }

  private rectangle(area: Area, properties: Properties, stroked: boolean): void {
    const fill = this.paints.fill(properties, false, this.chart.node)
    const stroke = this.paints.stroke(properties, stroked)
    if (!fill?.color && !stroke) return
    const data = `M0 0 L${area.width} 0 L${area.width} ${area.height} L0 ${area.height} Z`
    this.fragments.push({
      kind: 'path',
      data,
      fill: fill?.color ?? '',
      fillOpacity: fill?.opacity ?? 1,
      stroke: stroke?.color ?? '',
      strokeWidth: stroke?.width ?? 0,
      strokeOpacity: stroke?.opacity ?? 1,
      dash: stroke?.dash ?? [],
      x: area.x,
      y: area.y,
      width: area.width,
      height: area.height,
    })
  }

  private rule(x1: number, y1: number, x2: number, y2: number, properties: Properties, fallback: string): void {
    if (properties['draw:stroke'] === 'none') return
    const stroke = this.paints.stroke(properties, true)!
    const color = properties['svg:stroke-color'] ? stroke.color : fallback
    this.fragments.push({
      kind: 'path',
      data: `M${x1} ${y1} L${x2} ${y2}`,
      fill: '',
      fillOpacity: 1,
      stroke: color,
      strokeWidth: stroke.width || 0.5,
      strokeOpacity: stroke.opacity,
      dash: stroke.dash,
      x: 0,
      y: 0,
      width: 0,
      height: 0,
    })
  }

  /** Sets text without a limit to its lines, or within one. */
  private set(blocks: readonly Block[], most = endless, centred = false): SetBlock {
    let width = 0
    let height = 0
    const stacked = blocks.map(block => {
      const free = this.boxes.stack([block], 'chart', endless)
      const own = Math.min(longestLine(free.fragments), most)
      const set =
        own < most
          ? { ...this.boxes.stack([block], 'chart', own + 0.01), own }
          : { ...this.boxes.stack([block], 'chart', most), own: most }
      width = Math.max(width, set.own)
      return set
    })
    const fragments = stacked.flatMap(each => {
      const at = height
      height += each.height
      return [...shifted(each.fragments, centred ? (width - each.own) / 2 : 0, at)]
    })
    return { width, height, fragments }
  }

  /** A number or other text that the chart shows and the file does not hold: it takes the look of its owner. */
  private label(text: string, styleNames: readonly (string | null)[]): SetBlock {
    const paragraph: Paragraph = {
      kind: 'paragraph',
      part: this.chart.part,
      node: -1,
      place: 'chart',
      styleName: null,
      classNames: [],
      heading: null,
      list: null,
      holder: {
        kind: 'chart-text',
        node: this.chart.node,
        styleNames: styleNames.filter(name => name !== null),
        parent: null,
      },
      inlines: [{ kind: 'text', node: -1, text, span: null, field: 'chart:label' }],
    }
    return this.set([paragraph])
  }

  private turnedBy(set: SetBlock, degrees: number, centre: { readonly x: number; readonly y: number }): void {
    const angle = (-degrees * Math.PI) / 180
    const turn: Matrix = [Math.cos(angle), Math.sin(angle), -Math.sin(angle), Math.cos(angle), centre.x, centre.y]
    this.fragments.push(...turned(set.fragments, after(turn, translation(-set.width / 2, -set.height / 2))))
  }

  /** Draws the legend and gives what is left of the area. */
  private legend(area: Area, width: number): Area {
    const { chart } = this
    const { legend } = chart
    if (!legend) return area
    const round = isRound(chart.kind)
    const entries = round
      ? chart.categories.map((category, index) => ({
          set: this.set(category.blocks),
          color: this.color(chart.series[0], index),
        }))
      : chart.series.map(series => ({
          set: series.label ? this.set(series.label.blocks) : this.label('Series', [chart.styleName, legend.styleName]),
          color: this.color(series, -1),
        }))
    if (entries.length === 0) return area
    const key = 8
    const across = /^(top|bottom)/.test(legend.position)
    const wide = entries.map(each => key + 4 + each.set.width)
    const most = Math.max(...wide)
    const row = Math.max(key, ...entries.map(each => each.set.height)) + 1
    const columns = across ? Math.max(1, Math.min(entries.length, Math.floor((area.width + 10) / (most + 10)))) : 1
    const size = { width: columns * (most + 10) - 10, height: Math.ceil(entries.length / columns) * row }
    const element = this.boxes.workshop.cascade.scope(chart.part).part.element(legend.node).attributes
    const middle = { x: (width - size.width) / 2, y: area.y + (area.height - size.height) / 2 }
    const stated = points(element['svg:x']) !== null && points(element['svg:y']) !== null
    const x = stated
      ? points(element['svg:x'])!
      : across
        ? middle.x
        : legend.position.startsWith('start') || legend.position === 'bottom-start' || legend.position === 'top-start'
          ? area.x
          : area.x + area.width - size.width
    const y = stated
      ? points(element['svg:y'])!
      : legend.position.startsWith('top')
        ? area.y
        : legend.position.startsWith('bottom')
          ? area.y + area.height - size.height
          : Math.max(middle.y, area.y)
    this.rectangle(
      { x: x - 3, y: y - 2, width: size.width + 6, height: size.height + 4 },
      this.properties('graphic', [legend.styleName]),
      false,
    )
    entries.forEach(({ set, color }, index) => {
      const left = x + (index % columns) * (most + 10)
      const top = y + Math.floor(index / columns) * row
      this.fragments.push(
        {
          kind: 'box',
          fill: color,
          stroke: '',
          strokeWidth: 0,
          x: left,
          y: top + (row - key) / 2,
          width: key,
          height: key,
        },
        ...shifted(set.fragments, left + key + 4, top + (row - set.height) / 2),
      )
    })
    const room = gap + 4
    if (legend.position.startsWith('top'))
      return { ...area, y: area.y + size.height + room, height: area.height - size.height - room }
    if (legend.position.startsWith('bottom')) return { ...area, height: area.height - size.height - room }
    if (legend.position.startsWith('start'))
      return { ...area, x: area.x + size.width + room, width: area.width - size.width - room }
    return { ...area, width: area.width - size.width - room }
  }

  /** The fill of a series, or of one of its points; -1 for the series itself. */
  private color(series: ChartSeries | undefined, index: number): string {
    if (!series) return palette[0]!
    const round = isRound(this.chart.kind)
    const own = this.properties('graphic', [round ? null : series.styleName, series.points.get(index) ?? null])
    const lines = series.kind === 'line' || series.kind === 'scatter' || series.kind === 'radar'
    const named = lines
      ? (own['svg:stroke-color'] ?? own['draw:fill-color'])
      : own['draw:fill'] === 'none'
        ? undefined
        : own['draw:fill-color']
    return named && /^#[0-9a-f]{6}$/i.test(named)
      ? named
      : palette[(round ? Math.max(index, 0) : this.chart.series.indexOf(series)) % palette.length]!
  }

  private plotted(series: ChartSeries, scale: Scale): PlotSeries {
    const { chart } = this
    const names = [chart.styleName, chart.plot.styleName, series.styleName]
    const properties = this.properties('chart', names)
    const graphic = this.properties('graphic', [series.styleName])
    const symbols = properties['chart:symbol-type'] ?? (series.kind === 'scatter' ? 'automatic' : 'none')
    const whole = series.values.reduce((sum: number, value) => sum + Math.abs(value ?? 0), 0) || 1
    const scope = this.boxes.workshop.cascade.scope(chart.part)
    const dataStyle =
      series.styleName === null
        ? undefined
        : findStyle(scope, 'chart', series.styleName)?.attributes['style:data-style-name']
    const labelOf = (index: number): string => {
      const own = { ...properties, ...this.properties('chart', [series.points.get(index) ?? null]) }
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
      if (/value/.test(own['chart:data-label-number'] ?? '')) texts.push(writeNumber(value, scope, dataStyle))
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

  private valueLabels(plot: Plot): void {
    const { chart } = this
    for (const { series, text, x, y, side } of plot.labels) {
      if (text === '') continue
      const set = this.label(text, [chart.styleName, chart.plot.styleName, chart.series[series]?.styleName ?? null])
      const dx = side === 'right' ? 3 : side === 'left' ? -set.width - 3 : -set.width / 2
      const dy = side === 'above' ? -set.height - 1.5 : side === 'below' ? 1.5 : -set.height / 2
      this.fragments.push(...shifted(set.fragments, x + dx, y + dy))
    }
  }

  private round(area: Area): void {
    const scale = scaleFor([0, 1], {}, 2, true)
    const start =
      Number.parseFloat(this.properties('chart', [this.chart.plot.styleName])['chart:angle-offset'] ?? '') || 90
    const plot = plotRound(
      this.chart.series.map(each => this.plotted(each, scale)),
      area,
      start,
    )
    this.fragments.push(...plot.fragments)
    this.valueLabels(plot)
  }

  private net(area: Area): void {
    const { chart } = this
    const names = chart.categories.map(each => this.set(each.blocks))
    const side = Math.max(0, ...names.map(each => each.width)) + gap
    const tall = Math.max(0, ...names.map(each => each.height)) + gap
    const axis = chart.axes.find(each => each.dimension === 'y')
    const scale = scaleFor(
      chart.series.flatMap(each => each.values.filter(value => value !== null)),
      this.properties('chart', [axis?.styleName ?? null]),
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
      chart.series.map(each => this.plotted(each, scale)),
      inner,
      Math.max(chart.categories.length, ...chart.series.map(each => each.values.length)),
    )
    this.fragments.push(...plot.fragments)
    const centre = inner.x + inner.width / 2
    names.forEach((set, index) => {
      const [x, y] = plot.spokes[index] ?? [centre, inner.y]
      const dx = Math.abs(x - centre) < 1 ? -set.width / 2 : x < centre ? -set.width - 3 : 3
      this.fragments.push(...shifted(set.fragments, x + dx, y < inner.y + 2 ? y - set.height - 2 : y - set.height / 2))
    })
    this.valueLabels(plot)
  }

  private axes(area: Area): void {
    const { chart } = this
    const plotProperties = this.properties('chart', [chart.styleName, chart.plot.styleName])
    const sideways = plotProperties['chart:vertical'] === 'true'
    const percentage = plotProperties['chart:percentage'] === 'true'
    const stacked = percentage || plotProperties['chart:stacked'] === 'true'
    if (chart.kind === 'surface' || chart.kind === 'stock' || chart.kind === 'gantt' || chart.kind === 'other')
      this.boxes.workshop.unlaid(`charts of the kind ${chart.kind} (drawn as lines or bars)`, chart.node)
    const scattered = chart.kind === 'scatter' || chart.kind === 'bubble'
    const categoryAxis = chart.axes.find(axis => axis.dimension === 'x')
    const valueAxes = chart.axes.filter(axis => axis.dimension === 'y')
    const axisOf = (series: ChartSeries) => valueAxes.find(axis => axis.name === series.axis) ?? valueAxes[0]
    const scaleOf = (axis: ChartAxis | undefined): Scale => {
      const series = chart.series.filter(each => axisOf(each) === axis)
      const bars = series.some(each => each.kind === 'bar' || each.kind === 'area')
      const values = stacked
        ? stackValues(
            series.map(each => this.plotted(each, unit)),
            percentage,
          ).flatMap(each => each.flatMap(({ from, to }) => [from, to]))
        : series.flatMap(each => each.values.filter(value => value !== null))
      return scaleFor(
        values,
        this.properties('chart', [axis?.styleName ?? null]),
        Math.max((sideways ? area.width : area.height) / 34, 2),
        bars || stacked,
      )
    }
    const unit = scaleFor([0, 1], {}, 2, true)
    const primary = scaleOf(valueAxes[0])
    const secondary = valueAxes[1] ? scaleOf(valueAxes[1]) : null
    const count = Math.max(chart.categories.length, ...chart.series.map(each => each.values.length), 1)
    const acrossScale = scattered
      ? scaleFor(
          chart.series.flatMap((each): number[] =>
            (each.across ?? each.values.map((_, at) => at + 1)).filter(value => value !== null),
          ),
          this.properties('chart', [categoryAxis?.styleName ?? null]),
          Math.max(area.width / 60, 2),
          false,
        )
      : null
    const shows = (axis: ChartAxis | undefined) =>
      axis !== undefined &&
      this.properties('chart', [axis.styleName])['chart:display-label'] !== 'false' &&
      this.properties('chart', [axis.styleName])['chart:visible'] !== 'false'
    const scope = this.boxes.workshop.cascade.scope(chart.part)
    const dataStyleOf = (axis: ChartAxis) =>
      axis.styleName === null
        ? undefined
        : findStyle(scope, 'chart', axis.styleName)?.attributes['style:data-style-name']
    const numberLabels = (axis: ChartAxis | undefined, scale: Scale) =>
      shows(axis)
        ? scale.ticks.map(tick => ({
            tick,
            set: this.label(
              percentage && axis!.dimension === 'y' && !dataStyleOf(axis!)
                ? `${Math.round(tick * 100)}%`
                : writeNumber(tick, scope, dataStyleOf(axis!)),
              [chart.styleName, axis!.styleName],
            ),
          }))
        : []
    const values = numberLabels(valueAxes[0], primary)
    const others = secondary ? numberLabels(valueAxes[1], secondary) : []
    const names = !shows(categoryAxis)
      ? []
      : acrossScale
        ? numberLabels(categoryAxis, acrossScale).map(each => each.set)
        : chart.categories.map(each => this.set(each.blocks))
    const widest = (sets: readonly SetBlock[]) => Math.max(0, ...sets.map(each => each.width))
    const tallest = (sets: readonly SetBlock[]) => Math.max(0, ...sets.map(each => each.height))

    // Titles of axes stand outermost.
    let { x, y, width, height } = area
    const foot = (set: SetBlock) => {
      height -= set.height + 2
      return y + height + 2 + set.height / 2
    }
    const left = sideways ? categoryAxis : valueAxes[0]
    const bottom = sideways ? valueAxes[0] : categoryAxis
    const leftTitle = left?.title ? this.set(left.title.blocks) : null
    const bottomTitle = bottom?.title ? this.set(bottom.title.blocks) : null
    const rightTitle = valueAxes[1]?.title ? this.set(valueAxes[1].title.blocks) : null
    if (leftTitle) {
      x += leftTitle.height + 2
      width -= leftTitle.height + 2
    }
    if (rightTitle) width -= rightTitle.height + 2
    const bottomAt = bottomTitle ? foot(bottomTitle) : 0
    const leftLabels = sideways ? widest(names) : widest(values.map(each => each.set))
    const bottomSets = sideways ? values.map(each => each.set) : names
    const room = width - leftLabels - 4
    const turns = !sideways && !acrossScale && widest(names) > room / count && count > 1
    const every = turns ? Math.max(1, Math.ceil((count * tallest(names)) / Math.max(room, 1))) : 1
    const bottomLabels = turns ? widest(names) * 0.72 + tallest(names) * 0.72 : tallest(bottomSets)
    const rightLabels = widest(others.map(each => each.set))
    x += leftLabels > 0 ? leftLabels + 4 : 0
    width -= (leftLabels > 0 ? leftLabels + 4 : 0) + (rightLabels > 0 ? rightLabels + 4 : 0)
    height -= bottomLabels > 0 ? bottomLabels + 3 : 0
    const over = tallest(values.map(each => each.set)) / 2
    y += over
    height -= over
    if (sideways) width -= widest(values.map(each => each.set)) / 2
    if (width < 8 || height < 8) return
    const inner: Area = { x, y, width, height }

    this.rectangle(inner, this.properties('graphic', [chart.plot.wall]), false)
    const along = (tick: number, scale: Scale) =>
      sideways ? x + width * scale.at(tick) : y + height * (1 - scale.at(tick))
    for (const axis of valueAxes.slice(0, 1)) {
      for (const grid of axis.grids) {
        if (grid.minor) continue
        for (const tick of primary.ticks) {
          const at = along(tick, primary)
          if (sideways) this.rule(at, y, at, y + height, this.properties('graphic', [grid.styleName]), '#b3b3b3')
          else this.rule(x, at, x + width, at, this.properties('graphic', [grid.styleName]), '#b3b3b3')
        }
      }
    }
    const properties = this.properties('chart', [valueAxes[0]?.styleName ?? null])
    const plot = plotOnAxes(
      chart.series.map(each => this.plotted(each, axisOf(each) === valueAxes[1] && secondary ? secondary : primary)),
      {
        area: inner,
        sideways,
        stacked,
        percent: percentage,
        gap: percent(`${properties['chart:gap-width'] ?? '100'}%`) ?? 1,
        overlap: percent(`${properties['chart:overlap'] ?? '0'}%`) ?? 0,
        categories: count,
        acrossScale,
        fromEdge: chart.kind === 'area',
      },
    )
    this.fragments.push(...plot.fragments)
    const line = (axis: ChartAxis | undefined, x1: number, y1: number, x2: number, y2: number) => {
      if (axis && this.properties('chart', [axis.styleName])['chart:visible'] !== 'false')
        this.rule(x1, y1, x2, y2, this.properties('graphic', [axis.styleName]), '#808080')
    }
    const zero = along(Math.max(primary.low, Math.min(primary.high, 0)), primary)
    line(
      sideways ? valueAxes[0] : categoryAxis,
      x,
      sideways ? y + height : zero,
      x + width,
      sideways ? y + height : zero,
    )
    line(sideways ? categoryAxis : valueAxes[0], sideways ? zero : x, y, sideways ? zero : x, y + height)
    if (secondary) line(valueAxes[1], x + width, y, x + width, y + height)

    for (const { tick, set } of values) {
      const at = along(tick, primary)
      this.fragments.push(
        ...(sideways
          ? shifted(set.fragments, at - set.width / 2, y + height + 3)
          : shifted(set.fragments, x - 4 - set.width, at - set.height / 2)),
      )
    }
    for (const { tick, set } of others)
      this.fragments.push(...shifted(set.fragments, x + width + 4, along(tick, secondary!) - set.height / 2))
    names.forEach((set, index) => {
      const length = sideways ? height : width
      const share = acrossScale
        ? acrossScale.at(acrossScale.ticks[index]!)
        : chart.kind === 'area' && count > 1
          ? index / (count - 1)
          : (index + 0.5) / count
      const at = length * share
      if (sideways) this.fragments.push(...shifted(set.fragments, x - 4 - set.width, y + height - at - set.height / 2))
      else if (!turns) this.fragments.push(...shifted(set.fragments, x + at - set.width / 2, y + height + 3))
      else if (index % every === 0)
        this.turnedBy(set, 45, {
          x: x + at - set.width * 0.354,
          y: y + height + 3 + set.width * 0.354 + set.height * 0.2,
        })
    })
    this.valueLabels(plot)
    if (bottomTitle)
      this.fragments.push(
        ...shifted(bottomTitle.fragments, x + (width - bottomTitle.width) / 2, bottomAt - bottomTitle.height / 2),
      )
    if (leftTitle) this.turnedBy(leftTitle, 90, { x: area.x + leftTitle.height / 2, y: y + height / 2 })
    if (rightTitle) this.turnedBy(rightTitle, 90, { x: area.x + area.width - rightTitle.height / 2, y: y + height / 2 })
  }
}
