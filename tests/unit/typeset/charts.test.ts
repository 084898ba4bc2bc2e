import { describe, expect, it } from 'vitest'
import { readChart } from '../../../core/document/chart'
import { chartPart, chartStyles, type DemoChart } from '../../../demo/chart'
import { stackValues, type PlotSeries } from '../../../core/typeset/chart-plots'
import { scaleFor, writeNumber } from '../../../core/typeset/chart-scale'
import { displayPage, type DisplayPage } from '../../../core/typeset/display'
import { mapped } from '../../../core/typeset/matrix'
import { drawingOf, drawnPage, shapeAt } from '../../support/fixtures'
import { quickly, swap } from '../../support/planning'

const base: DemoChart = {
  kind: 'bar',
  title: 'Catch',
  across: 'Month',
  up: 'Crates',
  width: '8cm',
  height: '6cm',
  sizes: [8, 12, 7],
  categories: ['Mar', 'Apr', 'May'],
  series: [
    { name: 'Herring', values: [10, 20, 40], color: '#ff0000' },
    { name: 'Cod', values: [30, 10, 5], color: '#0000ff' },
  ],
  legend: 'end',
}
const open = (chart: DemoChart, change = (content: string) => content) =>
  drawingOf({
    pages: drawnPage(`<draw:frame ${shapeAt(1, 1, 8, 6)}><draw:object xlink:href="./Object 1"/></draw:frame>`),
    parts: [
      { path: 'Object 1/content.xml', type: 'text/xml', content: change(chartPart(chart)) },
      { path: 'Object 1/styles.xml', type: 'text/xml', content: chartStyles },
    ],
    objects: [{ path: 'Object 1/', type: 'application/vnd.oasis.opendocument.chart' }],
  })
const page = (chart: Partial<DemoChart> = {}): DisplayPage =>
  displayPage(open({ ...base, ...chart }).composition.pages[0]!)
/** The upright box around a filled outline, on the page. */
function boxes(shown: DisplayPage, fill: string) {
  return shown.shapes.flatMap(shape => {
    if (shape.kind !== 'path' || shape.fill !== fill) return []
    const points = [...shape.data.matchAll(/(-?[\d.]+) (-?[\d.]+)/g)].map(match =>
      mapped(shape.matrix ?? [1, 0, 0, 1, 0, 0], Number(match[1]) + shape.x, Number(match[2]) + shape.y),
    )
    const [xs, ys] = [points.map(point => point.x), points.map(point => point.y)]
    return [
      {
        x: Math.min(...xs),
        y: Math.min(...ys),
        width: Math.max(...xs) - Math.min(...xs),
        height: Math.max(...ys) - Math.min(...ys),
        foot: Math.max(...ys),
      },
    ]
  })
}

describe('a chart', () => {
  it('is read from its own table, by the addresses of its series', () => {
    const chart = readChart(open(base).document.parts.get('Object 1/content.xml')!)!
    expect(chart.series.map(series => series.values)).toEqual([
      [10, 20, 40],
      [30, 10, 5],
    ])
    expect(chart.categories).toHaveLength(3)
    expect(chart.axes.map(axis => [axis.dimension, axis.title !== null])).toEqual([
      ['x', true],
      ['y', true],
    ])
    expect(chart.titles.map(title => title.which)).toEqual(['title'])
  })

  it('takes the columns of its table in turn where no address is said, and knows three axes', () => {
    const { document } = open(base, content =>
      content
        .replace(/ chart:values-cell-range-address="[^"]*"/g, '')
        .replace('chart:dimension="y"', 'chart:dimension="z"'),
    )
    const chart = readChart(document.parts.get('Object 1/content.xml')!)!
    expect(chart.series.map(series => series.values)).toEqual([
      [10, 20, 40],
      [30, 10, 5],
    ])
    expect(chart.axes.map(axis => axis.dimension)).toEqual(['x', 'z'])
  })

  it('takes a series’ name from the row that heads its table, and has none where no row does', () => {
    const named = (change: (content: string) => string) =>
      readChart(open(base, change).document.parts.get('Object 1/content.xml')!)!.series.map(each => each.label !== null)
    const nowhere = (content: string) => content.replace(/chart:label-cell-address="[^"]*"/g, '')
    expect(named(nowhere)).toEqual([true, true])
    expect(named(content => nowhere(content).replace(/<\/?table:table-header-rows>/g, ''))).toEqual([false, false])
  })

  it('gives a point’s style to as many points as it is repeated for, behind those before, and to no other', () => {
    const { document } = open(base, content =>
      content.replace(
        /<\/chart:series>/,
        '<chart:data-point chart:repeated="2" chart:style-name="own"/><chart:data-point/></chart:series>',
      ),
    )
    const [first] = readChart(document.parts.get('Object 1/content.xml')!)!.series
    expect([...first!.points]).toEqual([
      [3, 'own'],
      [4, 'own'],
    ])
  })

  it('has bars as high as its values, side by side on one foot', () => {
    const [herring, cod] = [boxes(page(), '#ff0000'), boxes(page(), '#0000ff')]
    expect(herring).toHaveLength(3)
    const unit = herring[0]!.height / 10
    for (const [at, value] of [10, 20, 40].entries()) expect(herring[at]!.height / unit).toBeCloseTo(value, 1)
    expect(cod[0]!.height / unit).toBeCloseTo(30, 1)
    expect(new Set([...herring, ...cod].map(box => Math.round(box.foot)))).toHaveProperty('size', 1)
    expect(cod[0]!.x).toBeCloseTo(herring[0]!.x + herring[0]!.width, 1)
  })

  it('stacks, and turns on its side', () => {
    const stacked = page({ stacked: true })
    const [herring, cod] = [boxes(stacked, '#ff0000'), boxes(stacked, '#0000ff')]
    expect(cod[1]!.foot).toBeCloseTo(herring[1]!.y, 1)
    expect(cod[1]!.x).toBeCloseTo(herring[1]!.x, 1)
    const sideways = boxes(page({ sideways: true }), '#ff0000')
    expect(sideways[2]!.width / sideways[0]!.width).toBeCloseTo(4, 1)
    // The first category is the lowest.
    expect(sideways[0]!.y).toBeGreaterThan(sideways[2]!.y)
  })

  it('sets every word and number in its own type, and says where a face is absent', () => {
    const shown = page()
    const words = shown.runs.map(run => run.text)
    for (const word of ['Catch', 'Month', 'Crates', 'Mar', 'May', 'Herring', 'Cod', '40', '0'])
      expect(words, word).toContain(word)
    expect(shown.runs.every(run => run.status === 'absent')).toBe(true)
    expect(shown.runs.find(run => run.text === 'Catch')!.size).toBe(12)
    expect(shown.runs.find(run => run.text === 'Mar')!.size).toBe(7)
    // Numbers are worked out, not written: they are no text of the document.
    expect(shown.runs.find(run => run.text === '40')).toMatchObject({ own: false })
    expect(shown.runs.find(run => run.text === 'Mar')).toMatchObject({ own: true, part: 'Object 1/content.xml' })
    expect(
      shown.runs
        .find(run => run.text === 'Crates')!
        .matrix!.slice(0, 2)
        .map(value => Math.round(value) + 0),
    ).toEqual([0, -1])
  })

  it('counts with the page it stands on, and is drawn anew in the new face after a swap', () => {
    const session = open(base)
    expect(session.detail.census.faces.filter(face => face.family === 'Skerrow').map(face => face.pages)).toEqual([
      [0],
      [0],
    ])
    const after = displayPage(quickly(session, swap('Skerrow', 'Literata')).after.composition.pages[0]!)
    expect(after.runs.filter(run => run.status === 'absent')).toEqual([])
  })

  it('of a whole has slices whose shares add up, named in the legend', () => {
    const shown = page({
      kind: 'circle',
      series: [{ name: 'All', values: [50, 25, 25], color: '#123456' }],
      labels: 'percentage',
      across: '',
      up: '',
    })
    expect(shown.runs.map(run => run.text)).toEqual(expect.arrayContaining(['50%', '25%', 'Mar', 'Apr', 'May']))
    const half = boxes(shown, '#1f6f6b')[0]!
    expect(half.height / half.width).toBeCloseTo(2, 1)
  })

  it('with lines goes through its values', () => {
    const shown = page({ kind: 'line', series: [{ name: 'Herring', values: [10, 20, 40], color: '#ff0000' }] })
    const line = shown.shapes.find(shape => shape.kind === 'path' && shape.stroke === '#ff0000' && shape.fill === '')!
    const points = [...(line.kind === 'path' ? line.data : '').matchAll(/(-?[\d.]+) (-?[\d.]+)/g)].map(
      match => [Number(match[1]), Number(match[2])] as const,
    )
    expect(points).toHaveLength(3)
    const [a, b, c] = points as [readonly [number, number], readonly [number, number], readonly [number, number]]
    expect((b[1] - c[1]) / (a[1] - b[1])).toBeCloseTo(2, 1)
    expect(boxes(shown, '#ff0000')).toHaveLength(3)
  })

  it('in a frame of another size grows or shrinks with its type', () => {
    const session = drawingOf({
      pages: drawnPage(`<draw:frame ${shapeAt(1, 1, 4, 3)}><draw:object xlink:href="./Object 1"/></draw:frame>`),
      parts: [
        { path: 'Object 1/content.xml', type: 'text/xml', content: chartPart(base) },
        { path: 'Object 1/styles.xml', type: 'text/xml', content: chartStyles },
      ],
      objects: [{ path: 'Object 1/', type: 'application/vnd.oasis.opendocument.chart' }],
    })
    const run = displayPage(session.composition.pages[0]!).runs.find(each => each.text === 'Catch')!
    expect(run.matrix!.slice(0, 4).map(value => Math.round(value * 100) / 100)).toEqual([0.5, 0, 0, 0.5])
  })
})

describe('scales', () => {
  it('have round ticks around their values, from nought where bars stand on them', () => {
    expect(scaleFor([3, 47], {}, 5, true).ticks).toEqual([0, 10, 20, 30, 40, 50])
    expect(scaleFor([-12, 30], {}, 5, true)).toMatchObject({ low: -20, high: 30 })
    expect([scaleFor([95, 100], {}, 5, false).low, scaleFor([20, 100], {}, 5, false).low]).toEqual([95, 0])
    expect(scaleFor([], {}, 5, true)).toMatchObject({ low: 0, high: 1 })
    expect(scaleFor([5, 5], {}, 5, true).at(5)).toBeLessThanOrEqual(1)
  })

  it('keep what their axis says', () => {
    const scale = scaleFor(
      [3, 47],
      { 'chart:minimum': '10', 'chart:maximum': '60', 'chart:interval-major': '25' },
      5,
      true,
    )
    expect([scale.low, scale.high, scale.ticks]).toEqual([10, 60, [10, 35, 60]])
    expect(scaleFor([1, 1000], { 'chart:logarithmic': 'true' }, 5, false).at(10)).toBeCloseTo(1 / 3, 5)
    expect(scaleFor([0, 10], { 'chart:reverse-direction': 'true' }, 5, true).at(10)).toBe(0)
  })

  it('write numbers as their data style does', () => {
    const session = open(base)
    const scope = session.cascadeOf('Object 1/content.xml').scope('Object 1/content.xml')
    expect([writeNumber(1234.5, scope, undefined), writeNumber(-3, scope, undefined)]).toEqual(['1234.5', '−3'])
  })

  it('stack upwards and downwards by themselves, to a whole where shares are asked for', () => {
    const series = (values: number[]): PlotSeries => ({
      kind: 'bar',
      values,
      across: null,
      scale: scaleFor([0, 1], {}, 2, true),
      color: () => '',
      lineColor: '',
      lineWidth: 1,
      line: true,
      symbol: false,
      label: null,
    })
    expect(stackValues([series([2, -1]), series([3, -4])], false)).toEqual([
      [
        { from: 0, to: 2 },
        { from: 0, to: -1 },
      ],
      [
        { from: 2, to: 5 },
        { from: -1, to: -5 },
      ],
    ])
    expect(stackValues([series([1]), series([3])], true).map(list => list[0]!.to)).toEqual([0.25, 1])
  })
})
