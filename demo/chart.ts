import { escapeXml, namespaces } from '../core/package/new-package'

/*
 * Charts as objects with styles of their own. Their labels are set in Skerrow, which the house has retired: nobody
 * looks for it in a chart.
 */

/** What a chart of the demo shows. Sizes as the file writes them. */
export interface DemoChart {
  readonly kind: 'bar' | 'line' | 'circle'
  readonly title: string
  readonly across: string
  readonly up: string
  readonly width: string
  readonly height: string
  readonly categories: readonly string[]
  readonly series: readonly { readonly name: string; readonly values: readonly number[]; readonly color: string }[]
  readonly stacked?: boolean
  /** Values run across. */
  readonly sideways?: boolean
  readonly labels?: 'value' | 'percentage'
  readonly legend?: 'end' | 'bottom'
  /** Sizes of labels, title and small labels, in points. */
  readonly sizes: readonly [number, number, number]
}

const head = '<?xml version="1.0" encoding="UTF-8"?>\n'
const faces =
  '<office:font-face-decls><style:font-face style:name="Skerrow" svg:font-family="Skerrow" ' +
  'style:font-family-generic="swiss" style:font-pitch="variable"/>' +
  '</office:font-face-decls>'
const cell = (text: string, value?: number) =>
  `<table:table-cell office:value-type="${value === undefined ? 'string' : 'float'}"` +
  `${value === undefined ? '' : ` office:value="${value}"`}>` +
  `<text:p>${escapeXml(text)}</text:p></table:table-cell>`
const column = (at: number) => String.fromCharCode(66 + at)

/** The content part of a chart. */
export function chartPart(chart: DemoChart): string {
  const { categories, series, sizes } = chart
  const last = categories.length + 1
  const styles = [
    `<style:style style:name="ch1" style:family="chart"><style:graphic-properties ` +
      `draw:fill="none" draw:stroke="none"/><style:text-properties style:font-name="Skerrow" ` +
      `fo:font-family="Skerrow" fo:font-size="${sizes[0]}pt"/></style:style>`,
    `<style:style style:name="ch2" style:family="chart"><style:text-properties fo:font-size="${sizes[1]}pt" ` +
      `fo:font-weight="bold"/></style:style>`,
    `<style:style style:name="ch3" style:family="chart"><style:chart-properties chart:display-label="true"/>` +
      `<style:graphic-properties svg:stroke-color="#5b6470"/><style:text-properties fo:font-size="${sizes[2]}pt"/>` +
      `</style:style>`,
    `<style:style style:name="ch4" style:family="chart"><style:chart-properties chart:vertical="${chart.sideways ?? false}" ` +
      `chart:stacked="${chart.stacked ?? false}" chart:gap-width="60"/></style:style>`,
    '<style:style style:name="ch5" style:family="chart"><style:graphic-properties svg:stroke-color="#d9d4c7"/></style:style>',
    ...series.map(
      ({ color }, at) =>
        `<style:style style:name="s${at}" style:family="chart"><style:chart-properties` +
        `${chart.labels ? ` chart:data-label-number="${chart.labels}"` : ''} ` +
        `chart:symbol-type="automatic"/><style:graphic-properties draw:fill="solid" draw:fill-color="${color}" ` +
        `svg:stroke-color="${color}" svg:stroke-width="0.06cm"/></style:style>`,
    ),
    ...(chart.kind === 'circle'
      ? categories.map(
          (_, at) =>
            `<style:style style:name="d${at}" style:family="chart"><style:graphic-properties ` +
            `draw:fill-color="${['#1f6f6b', '#564fa0', '#9a6412', '#b4361e', '#5b6470'][at % 5]}"/>` +
            `</style:style>`,
        )
      : []),
  ].join('')
  const axis = (dimension: 'x' | 'y', title: string) =>
    `<chart:axis chart:dimension="${dimension}" chart:name="primary-${dimension}" ` +
    (`chart:style-name="ch3">${
      title ? `<chart:title chart:style-name="ch3"><text:p>${escapeXml(title)}</text:p>` + `</chart:title>` : ''
    }` +
      `${
        dimension === 'x'
          ? `<chart:categories table:cell-range-address="local-table.$A$2:.$A$${last}"/>`
          : '<chart:grid chart:style-name="ch5" chart:class="major"/>'
      }</chart:axis>`)
  const drawn = series
    .map(
      (_, at) =>
        `<chart:series chart:style-name="s${at}" chart:values-cell-range-address="local-table.$${column(at)}$2:.$${column(at)}$${last}" ` +
        (`chart:label-cell-address="local-table.$${column(at)}$1" chart:class="chart:` +
          `${chart.kind}">${
            chart.kind === 'circle'
              ? categories.map((__, index) => `<chart:data-point chart:style-name="d${index}"/>`).join('')
              : `<chart:data-point chart:repeated="${categories.length}"/>`
          }</chart:series>`),
    )
    .join('')
  const rows = categories
    .map(
      (name, row) =>
        `<table:table-row>${cell(name)}${series.map(({ values }) => cell(String(values[row]), values[row])).join('')}</table:table-row>`,
    )
    .join('')
  return (
    `${head}<office:document-content${namespaces} office:version="1.3">` +
    `${faces}<office:automatic-styles>${styles}</office:automatic-styles>` +
    `<office:body><office:chart>` +
    (`<chart:chart chart:class="chart:${chart.kind}" chart:style-name="ch1" svg:width="${chart.width}" ` +
      `svg:height="${chart.height}"><chart:title chart:style-name="ch2"><text:p>${escapeXml(chart.title)}</text:p>` +
      `</chart:title>`) +
    (chart.legend ? `<chart:legend chart:legend-position="${chart.legend}" chart:style-name="ch3"/>` : '') +
    `<chart:plot-area chart:style-name="ch4">${axis('x', chart.across)}${axis('y', chart.up)}${drawn}</chart:plot-area>` +
    (`<table:table table:name="local-table"><table:table-header-rows>` +
      `<table:table-row>${cell('')}${series.map(({ name }) => cell(name)).join('')}</table:table-row>` +
      `</table:table-header-rows><table:table-rows>${rows}</table:table-rows></table:table>`) +
    '</chart:chart></office:chart></office:body></office:document-content>'
  )
}

/** Passengers by month, as the sailing guide shows them. */
export const chartContent = chartPart({
  kind: 'bar',
  title: 'Passengers by month',
  across: 'Month',
  up: 'People',
  width: '11cm',
  height: '5.6cm',
  sizes: [8, 10, 7],
  categories: ['Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct'],
  series: [{ name: 'Passengers', values: [310, 540, 880, 1190, 1620, 1710, 960, 430], color: '#1f6f6b' }],
})

export const chartStyles =
  `${head}<office:document-styles${namespaces} office:version="1.3">${faces}<office:styles>` +
  `<style:default-style style:family="chart"><style:text-properties style:font-name="Skerrow" ` +
  `fo:font-size="9pt"/></style:default-style></office:styles></office:document-styles>`
