import type { Fragment } from './fragments'
import type { Scale } from './chart-scale'

/** A series ready to be drawn: looks are resolved, values are final. */
export interface PlotSeries {
  readonly kind: string
  readonly values: readonly (number | null)[]
  readonly across: readonly (number | null)[] | null
  readonly scale: Scale
  readonly color: (index: number) => string
  readonly lineColor: string
  readonly lineWidth: number
  readonly line: boolean
  readonly symbol: boolean
  readonly label: ((index: number) => string) | null
}

export interface Area {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
}

/** A label beside a value: `anchor` is the point it belongs to and the side it stands on. */
export interface ValueLabel {
  readonly series: number
  readonly text: string
  readonly x: number
  readonly y: number
  readonly side: 'above' | 'below' | 'right' | 'left' | 'centre'
}

export interface Plot {
  readonly fragments: readonly Fragment[]
  readonly labels: readonly ValueLabel[]
}

export interface PlotOptions {
  readonly area: Area
  /** Values run across and categories down. */
  readonly sideways: boolean
  readonly stacked: boolean
  readonly percent: boolean
  /** Between bars of neighbouring categories, and how far bars of one category lie over each other: shares of a bar. */
  readonly gap: number
  readonly overlap: number
  readonly categories: number
  /** The x axis of scatter charts. */
  readonly acrossScale: Scale | null
  /** Lines and areas begin on the axis, not in the middle of their category. */
  readonly fromEdge: boolean
}

const number = (value: number) => String(Math.round(value * 1000) / 1000)
const shape = (data: string, fill: string, stroke: string, strokeWidth: number): Fragment => ({
  kind: 'path',
  data,
  fill,
  fillOpacity: 1,
  stroke,
  strokeWidth,
  strokeOpacity: 1,
  dash: [],
  x: 0,
  y: 0,
  width: 0,
  height: 0,
})
const polygon = (points: readonly (readonly [number, number])[], close: boolean) =>
  points.length === 0 ? '' : `M${points.map(([x, y]) => `${number(x)} ${number(y)}`).join(' L')}${close ? ' Z' : ''}`

/** A round dot, as four curves. */
export function dot(x: number, y: number, radius: number, fill: string): Fragment {
  const k = radius * 0.5523
  const at = (dx: number, dy: number) => `${number(x + dx)} ${number(y + dy)}`
  return shape(
    `M${at(radius, 0)} C${at(radius, k)} ${at(k, radius)} ${at(0, radius)} C${at(-k, radius)} ${at(-radius, k)} ${at(-radius, 0)} ` +
      `C${at(-radius, -k)} ${at(-k, -radius)} ${at(0, -radius)} C${at(k, -radius)} ${at(radius, -k)} ${at(radius, 0)} Z`,
    fill,
    '',
    0,
  )
}

/** What stacking makes of values: from where to where each one reaches. */
export function stackValues(
  series: readonly PlotSeries[],
  percent: boolean,
): { readonly from: number; readonly to: number }[][] {
  const count = Math.max(0, ...series.map(each => each.values.length))
  const up = new Float64Array(count)
  const down = new Float64Array(count)
  const whole = Array.from(
    { length: count },
    (_, at) => series.reduce((sum, each) => sum + Math.abs(each.values[at] ?? 0), 0) || 1,
  )
  return series.map(each =>
    Array.from({ length: count }, (_, at) => {
      const value = (each.values[at] ?? 0) / (percent ? whole[at]! : 1)
      const side = value < 0 ? down : up
      const from = side[at]!
      side[at] = from + value
      return { from, to: from + value }
    }),
  )
}

/** Bars, lines, areas and points over two axes. */
export function plotOnAxes(series: readonly PlotSeries[], options: PlotOptions): Plot {
  const { area, sideways, stacked, percent } = options
  const fragments: Fragment[] = []
  const labels: ValueLabel[] = []
  const isBar = (each: PlotSeries) => each.kind === 'bar' || each.kind === 'gantt'
  const bars = series.filter(isBar)
  const rest = series.filter(each => !isBar(each))
  const slot = (sideways ? area.height : area.width) / Math.max(options.categories, 1)
  const along = (category: number) =>
    options.fromEdge && options.categories > 1
      ? ((sideways ? area.height : area.width) * category) / (options.categories - 1)
      : slot * (category + 0.5)
  const place = (category: number, share: number): [number, number] =>
    sideways
      ? [area.x + area.width * share, area.y + area.height - category]
      : [area.x + category, area.y + area.height * (1 - share)]
  const clamp = (share: number) => Math.max(0, Math.min(1, share))

  const extents = stacked
    ? stackValues(bars, percent)
    : bars.map(each => each.values.map(value => ({ from: 0, to: value ?? 0 })))
  const abreast = stacked ? 1 : Math.max(bars.length, 1)
  const overlap = stacked ? 0 : Math.max(-1, Math.min(1, options.overlap))
  const thick = slot / (abreast - (abreast - 1) * overlap + Math.max(options.gap, 0))
  bars.forEach((each, index) => {
    extents[index]!.forEach(({ from, to }, category) => {
      if (each.values[category] === null || each.values[category] === undefined) return
      const start =
        slot * category +
        (slot - thick * (abreast - (abreast - 1) * overlap)) / 2 +
        (stacked ? 0 : index * thick * (1 - overlap))
      const low = clamp(each.scale.at(from))
      const high = clamp(each.scale.at(to))
      fragments.push(
        shape(
          polygon([place(start, low), place(start, high), place(start + thick, high), place(start + thick, low)], true),
          each.color(category),
          '',
          0,
        ),
      )
      if (!each.label) return
      const [x, y] = place(start + thick / 2, stacked ? (low + high) / 2 : high)
      labels.push({
        series: series.indexOf(each),
        text: each.label(category),
        x,
        y,
        side: stacked ? 'centre' : sideways ? (high < low ? 'left' : 'right') : high < low ? 'below' : 'above',
      })
    })
  })

  const areas = rest.filter(each => each.kind === 'area')
  const stackedRest = stacked ? stackValues(rest, percent) : null
  const points = (each: PlotSeries): ([number, number] | null)[] =>
    each.values.map((value, at) => {
      if (value === null || value === undefined) return null
      const share = clamp(each.scale.at(stackedRest ? stackedRest[rest.indexOf(each)]![at]!.to : value))
      if (!options.acrossScale) return place(along(at), share)
      const x = each.across ? each.across[at] : at + 1
      return x === null || x === undefined
        ? null
        : [area.x + area.width * clamp(options.acrossScale.at(x)), area.y + area.height * (1 - share)]
    })
  for (const each of [...areas].reverse()) {
    const top = points(each).filter(point => point !== null)
    if (top.length === 0) continue
    const under = stackedRest
      ? each.values
          .map((_, at) => place(along(at), clamp(each.scale.at(stackedRest[rest.indexOf(each)]![at]!.from))))
          .reverse()
      : [place(along(each.values.length - 1), clamp(each.scale.at(0))), place(along(0), clamp(each.scale.at(0)))]
    fragments.push(shape(polygon([...top, ...under], true), each.color(-1), '', 0))
  }
  for (const each of rest) {
    const at = points(each)
    if (each.kind !== 'area' && each.line) {
      let open: [number, number][] = []
      const close = () => {
        if (open.length > 1) fragments.push(shape(polygon(open, false), '', each.lineColor, each.lineWidth))
        open = []
      }
      for (const point of at) {
        if (point) open.push(point)
        else close()
      }
      close()
    }
    at.forEach((point, index) => {
      if (!point) return
      if (each.kind !== 'area' && each.symbol)
        fragments.push(dot(point[0], point[1], Math.max(each.lineWidth * 1.6, 2.4), each.color(index)))
      if (each.label)
        labels.push({
          series: series.indexOf(each),
          text: each.label(index),
          x: point[0],
          y: point[1],
          side: each.kind === 'area' ? 'centre' : 'above',
        })
    })
  }
  return { fragments, labels }
}

/**
 * Slices of a whole: a pie, or rings one in another. Slices go on from the start angle, degrees anticlockwise from
 * three o'clock; charts turn clockwise.
 */
export function plotRound(series: readonly PlotSeries[], area: Area, startAngle: number): Plot {
  const fragments: Fragment[] = []
  const labels: ValueLabel[] = []
  const radius = Math.min(area.width, area.height) / 2
  const centre = { x: area.x + area.width / 2, y: area.y + area.height / 2 }
  const isRing = series[0]?.kind === 'ring'
  const shown = isRing ? series : series.slice(0, 1)
  const hole = isRing ? 0.5 : 0
  const at = (angle: number, reach: number): [number, number] => [
    centre.x + Math.cos(angle) * reach,
    centre.y - Math.sin(angle) * reach,
  ]
  const arc = (from: number, to: number, reach: number): string => {
    const steps = Math.max(1, Math.ceil(Math.abs(to - from) / (Math.PI / 4)))
    let data = ''
    for (let step = 0; step < steps; step++) {
      const a = from + ((to - from) * step) / steps
      const b = from + ((to - from) * (step + 1)) / steps
      // The control points of a circular arc (Goldapp 1991, “Approximation of circular arcs by cubic polynomials”).
      const k = (4 / 3) * Math.tan((b - a) / 4) * reach
      const [ax, ay] = at(a, reach)
      const [bx, by] = at(b, reach)
      data +=
        ` C${number(ax - Math.sin(a) * k)} ${number(ay - Math.cos(a) * k)} ` +
        `${number(bx + Math.sin(b) * k)} ${number(by + Math.cos(b) * k)} ` +
        `${number(bx)} ${number(by)}`
    }
    return data
  }
  shown.forEach((each, ring) => {
    const whole = each.values.reduce((sum: number, value) => sum + Math.max(value ?? 0, 0), 0)
    if (whole <= 0) return
    const outer = radius * (1 - ((1 - hole) * ring) / shown.length)
    const inner = isRing ? radius * (1 - ((1 - hole) * (ring + 1)) / shown.length) : 0
    let angle = (startAngle * Math.PI) / 180
    each.values.forEach((value, index) => {
      if (!value || value <= 0) return
      const to = angle - (value / whole) * 2 * Math.PI
      const [x, y] = at(angle, outer)
      const back =
        inner > 0
          ? ` L${at(to, inner).map(number).join(' ')}${arc(to, angle, inner)}`
          : ` L${number(centre.x)} ${number(centre.y)}`
      fragments.push(
        shape(`M${number(x)} ${number(y)}${arc(angle, to, outer)}${back} Z`, each.color(index), '#ffffff', 0.5),
      )
      if (each.label) {
        const [lx, ly] = at((angle + to) / 2, isRing ? (inner + outer) / 2 : outer * 0.68)
        labels.push({ series: ring, text: each.label(index), x: lx, y: ly, side: 'centre' })
      }
      angle = to
    })
  })
  return { fragments, labels }
}

/** Values on spokes around a centre. Gives the spokes' ends too, for the names of the categories. */
export function plotNet(
  series: readonly PlotSeries[],
  area: Area,
  categories: number,
): Plot & { readonly spokes: readonly (readonly [number, number])[] } {
  const radius = Math.min(area.width, area.height) / 2
  const centre = { x: area.x + area.width / 2, y: area.y + area.height / 2 }
  const at = (index: number, share: number): [number, number] => {
    const angle = Math.PI / 2 + (index * 2 * Math.PI) / Math.max(categories, 1)
    return [centre.x + Math.cos(angle) * radius * share, centre.y - Math.sin(angle) * radius * share]
  }
  const fragments: Fragment[] = []
  const labels: ValueLabel[] = []
  const spokes = Array.from({ length: categories }, (_, index) => at(index, 1))
  for (const tick of series[0]?.scale.ticks ?? [])
    fragments.push(
      shape(
        polygon(
          Array.from({ length: categories }, (_, index) => at(index, series[0]!.scale.at(tick))),
          true,
        ),
        '',
        '#b3b3b3',
        0.4,
      ),
    )
  for (const spoke of spokes) fragments.push(shape(polygon([[centre.x, centre.y], spoke], false), '', '#b3b3b3', 0.4))
  series.forEach((each, which) => {
    const points = each.values.map((value, index) => at(index, Math.max(0, Math.min(1, each.scale.at(value ?? 0)))))
    fragments.push(
      shape(
        polygon(points, true),
        each.kind === 'filled-radar' ? each.color(-1) : '',
        each.kind === 'filled-radar' ? '' : each.lineColor,
        each.lineWidth,
      ),
    )
    points.forEach(([x, y], index) => {
      if (each.symbol) fragments.push(dot(x, y, 2.4, each.color(index)))
      if (each.label) labels.push({ series: which, text: each.label(index), x, y, side: 'above' })
    })
  })
  return { fragments, labels, spokes }
}
