import { describe, expect, it } from 'vitest'
import { readChart, type Chart, type ChartText } from '../../../core/document/chart'
import { paragraphsOf } from '../../../core/document/stories'
import { paragraphText } from '../../../core/style/runs'
import { namespaces } from '../../../core/package/new-package'
import { openOdt } from '../../support/fixtures'

const read = (chart: string): Chart | null => {
  const content =
    `<office:document-content${namespaces} office:version="1.3"><office:body><office:chart>${chart}</office:chart>` +
    '</office:body></office:document-content>'
  const document = openOdt({
    parts: [{ path: 'Object 1/content.xml', type: 'text/xml', content }],
    objects: [{ path: 'Object 1/', type: 'application/vnd.oasis.opendocument.chart' }],
  })
  return readChart(document.parts.get('Object 1/content.xml')!)
}
const cell = (value: number | string) =>
  typeof value === 'number'
    ? `<table:table-cell office:value-type="float" office:value="${value}"><text:p>${value}</text:p></table:table-cell>`
    : `<table:table-cell><text:p>${value}</text:p></table:table-cell>`
const row = (...values: readonly (number | string)[]) =>
  `<table:table-row>${values.map(cell).join('')}</table:table-row>`
const head = (...values: readonly string[]) => `<table:table-header-rows>${row(...values)}</table:table-header-rows>`
const table = (rows: string) => `<table:table table:name="local-table">${rows}</table:table>`
const chart = (inside: string, rows = '', more = ' chart:class="chart:line" chart:style-name="ch1"') =>
  read(`<chart:chart${more}>${inside}${rows && table(rows)}</chart:chart>`)!
const words = (text: ChartText | null) => text && paragraphsOf(text.blocks).map(paragraphText).join('')
const months = head('', 'Thaw', 'Frost') + row('May', 4, 7) + row('June', 5, 'closed') + row('July', 6, 9)

describe('the table of a chart', () => {
  it('gives series and categories where the plot says nothing of them', () => {
    const { series, categories, kind } = chart('', months)
    expect(kind).toBe('line')
    expect(series.map(each => [words(each.label), each.values])).toEqual([
      ['Thaw', [4, 5, 6]],
      ['Frost', [7, null, 9]],
    ])
    expect(categories.map(words)).toEqual(['May', 'June', 'July'])
    const bare = chart('', row('May', 4) + row('June', 5))
    expect(bare.series.map(each => [each.label, each.values])).toEqual([[null, [4, 5]]])
    expect(bare.categories.map(words)).toEqual(['May', 'June'])
    expect(chart('')).toMatchObject({ series: [], categories: [] })
  })

  it('has cells that stand for several', () => {
    const repeated =
      '<table:table-cell table:number-columns-repeated="3" office:value="2"><text:p>x</text:p></table:table-cell>'
    const { series } = chart('', `<table:table-row>${repeated}</table:table-row>`)
    expect(series.map(each => each.values)).toEqual([[2], [2]])
    const odd = (count: string) =>
      chart(
        '',
        `<table:table-row><table:table-cell table:number-columns-repeated="${count}" office:value="2"/></table:table-row>`,
      ).series.length
    expect([odd('0'), odd('-4'), odd('x'), odd('2'), odd('99999')]).toEqual([0, 0, 0, 1, 1023])
  })

  it('is read no further than a limit', () => {
    const wide =
      '<table:table-row><table:table-cell table:number-columns-repeated="1000" office:value="1"/></table:table-row>'
    const { series } = chart('', wide.repeat(101))
    expect(series).toHaveLength(999)
    // A hundred rows of a thousand cells, and nothing of the one behind them.
    expect(series[0]!.values.filter(each => each !== null)).toHaveLength(100)
  })
})

describe('series', () => {
  const plot = (series: string, axes = '') =>
    `<chart:plot-area chart:style-name="ch2">${axes}${series}</chart:plot-area>`
  const only = (attributes: string, inside = '', rows = months) =>
    chart(plot(`<chart:series${attributes}>${inside}</chart:series>`), rows).series[0]!

  it.each<[string, readonly (number | null)[]]>([
    ['local-table.$C$2:.$C$4', [7, null, 9]],
    ["'local-table'.C2:'local-table'.C3", [7, null]],
    ['local-table.$B$4', [6]],
    ['local-table.B2:local-table.C3', [4, 7, 5, null]],
    ['local-table.B3:.B99', [5, 6]],
    ['local-table.AA2:.AA3', [null, null]],
    ['other.B2:.B3', [4, 5, 6]],
    ['', [4, 5, 6]],
  ])('of %j are %j', (address, values) => {
    expect(only(` chart:values-cell-range-address="${address}"`).values).toEqual(values)
  })

  it('are called by the cell that they name, or by the head of their column', () => {
    expect(words(only(' chart:label-cell-address="local-table.$C$1"').label)).toBe('Frost')
    expect(words(only(' chart:values-cell-range-address="local-table.C2:.C4"').label)).toBe('Frost')
    expect(words(only('').label)).toBe('Thaw')
    expect(only('', '', row('May', 4)).label).toBeNull()
    const second = chart(plot('<chart:series/><chart:series/>'), months).series[1]!
    expect([words(second.label), second.values]).toEqual(['Frost', [7, null, 9]])
  })

  it('have a kind, a style, an axis, places along x, and points with styles', () => {
    const { kind, styleName, axis, across, points } = only(
      ' chart:class="chart:bar" chart:style-name="ch3" chart:attached-axis="secondary-y"',
      '<chart:domain table:cell-range-address="local-table.C2:.C4"/><chart:data-point chart:repeated="2"/>' +
        '<chart:data-point chart:style-name="ch4"/><chart:data-point chart:style-name="ch5" chart:repeated="2"/>' +
        '<chart:data-point chart:repeated="x" chart:style-name="ch6"/>',
    )
    expect({ kind, styleName, axis, across }).toEqual({
      kind: 'bar',
      styleName: 'ch3',
      axis: 'secondary-y',
      across: [7, null, 9],
    })
    expect([...points]).toEqual([
      [2, 'ch4'],
      [3, 'ch5'],
      [4, 'ch5'],
      [5, 'ch6'],
    ])
    expect(only('')).toMatchObject({ kind: 'line', styleName: null, axis: '', across: null })
    expect(only('', '<chart:data-point chart:repeated="9999999" chart:style-name="ch4"/>').points.size).toBe(1024)
  })

  it.each([
    ['chart:circle', 'circle'],
    ['circle', 'circle'],
    ['chart:filled-radar', 'filled-radar'],
    ['own:spiral', 'other'],
    ['', 'other'],
  ])('of the class %j are of the kind %s', (name, kind) => {
    expect(only(` chart:class="${name}"`).kind).toBe(kind)
    expect(chart('', '', ` chart:class="${name}"`).kind).toBe(kind)
  })
})

describe('what a chart says', () => {
  const axis = (more: string, inside = '') => `<chart:axis${more}>${inside}</chart:axis>`
  const title = (text: string, more = '') => `<chart:title${more}><text:p>${text}</text:p></chart:title>`

  it('has titles, each with the styles that it goes by, outermost first, and its place', () => {
    const { titles } = chart(
      title('Passengers', ' chart:style-name="t" svg:x="1cm" svg:y="2cm"') +
        '<chart:subtitle svg:x="1cm"><text:p>by month</text:p></chart:subtitle><chart:footer><text:p>counted</text:p></chart:footer>',
    )
    expect(titles.map(each => [each.which, words(each), each.styleNames, each.at])).toEqual([
      ['title', 'Passengers', ['ch1', 't'], { x: '1cm', y: '2cm' }],
      ['subtitle', 'by month', ['ch1'], null],
      ['footer', 'counted', ['ch1'], null],
    ])
  })

  it('has axes with titles and grids', () => {
    const { axes, plot } = chart(
      '<chart:plot-area chart:style-name="ch2" svg:x="1cm" svg:y="2cm" svg:width="3cm" svg:height="4cm">' +
        axis(
          ' chart:dimension="x" chart:style-name="ax" chart:name="primary-x"',
          title('Month', ' chart:style-name="at"') +
            '<chart:grid chart:class="minor" chart:style-name="g"/><chart:grid/>',
        ) +
        axis(' chart:dimension="y"') +
        axis(' chart:dimension="z"') +
        axis(' chart:dimension="q"') +
        '<chart:wall chart:style-name="w"/></chart:plot-area>',
    )
    expect(axes.map(each => each.dimension)).toEqual(['x', 'y', 'z', 'x'])
    expect(axes[0]).toMatchObject({
      name: 'primary-x',
      styleName: 'ax',
      title: { styleNames: ['ch1', 'ch2', 'ax', 'at'] },
      grids: [
        { minor: true, styleName: 'g' },
        { minor: false, styleName: null },
      ],
    })
    expect(axes[1]).toMatchObject({ name: '', styleName: null, title: null, grids: [] })
    expect(plot).toMatchObject({ styleName: 'ch2', wall: 'w', x: '1cm', y: '2cm', width: '3cm', height: '4cm' })
    expect(chart('').plot).toMatchObject({ styleName: null, wall: null, x: '', width: '' })
  })

  it('has a legend with its place', () => {
    expect(chart('<chart:legend chart:style-name="l" chart:legend-position="top"/>').legend).toMatchObject({
      styleName: 'l',
      position: 'top',
    })
    expect(chart('<chart:legend/>').legend).toMatchObject({ styleName: null, position: 'end' })
    expect(chart('').legend).toBeNull()
  })

  it('names categories along its axis, or in the legend of what is round', () => {
    const inside =
      '<chart:legend chart:style-name="l"/><chart:plot-area>' +
      axis(
        ' chart:dimension="x" chart:style-name="ax"',
        '<chart:categories table:cell-range-address="local-table.A3:.A4"/>',
      ) +
      '</chart:plot-area>'
    const of = (kind: string) => chart(inside, months, ` chart:class="chart:${kind}" chart:style-name="ch1"`).categories
    expect(of('line').map(each => [words(each), each.styleNames])).toEqual([
      ['June', ['ch1', 'ax']],
      ['July', ['ch1', 'ax']],
    ])
    for (const kind of ['circle', 'ring']) expect(of(kind)[0]!.styleNames).toEqual(['ch1', 'l'])
  })

  it('is none where a part holds none', () => {
    expect(read('')).toBeNull()
    expect(read('<chart:chart/>')).toMatchObject({
      kind: 'bar',
      styleName: null,
      width: '',
      height: '',
      titles: [],
      axes: [],
    })
  })
})
