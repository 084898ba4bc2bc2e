import { namespaces } from '../core/package/new-package'

/*
 * Passengers by month, as a chart object with styles of its own. Its labels are set in Skerrow, which the house has
 * retired: nobody looks for it in a chart.
 */

const head = '<?xml version="1.0" encoding="UTF-8"?>\n'
const faces = '<office:font-face-decls><style:font-face style:name="Skerrow" svg:font-family="Skerrow" style:font-family-generic="swiss" style:font-pitch="variable"/></office:font-face-decls>'
const months: readonly (readonly [string, number])[] = [['Mar', 310], ['Apr', 540], ['May', 880], ['Jun', 1190], ['Jul', 1620], ['Aug', 1710], ['Sep', 960], ['Oct', 430]]

const cell = (text: string, value?: number) => `<table:table-cell office:value-type="${value === undefined ? 'string' : 'float'}"${value === undefined ? '' : ` office:value="${value}"`}><text:p>${text}</text:p></table:table-cell>`

export const chartContent = `${head}<office:document-content${namespaces} office:version="1.3">${faces}<office:automatic-styles>`
  + '<style:style style:name="ch1" style:family="chart"><style:text-properties style:font-name="Skerrow" fo:font-family="Skerrow" fo:font-size="8pt"/></style:style>'
  + '<style:style style:name="ch2" style:family="chart"><style:text-properties fo:font-size="10pt" fo:font-weight="bold"/></style:style>'
  + '<style:style style:name="ch3" style:family="chart"><style:text-properties fo:font-size="7pt"/></style:style>'
  + '</office:automatic-styles><office:body><office:chart><chart:chart chart:class="chart:bar" chart:style-name="ch1" svg:width="11cm" svg:height="5.6cm">'
  + '<chart:title chart:style-name="ch2"><text:p>Passengers by month</text:p></chart:title>'
  + '<chart:plot-area><chart:axis chart:dimension="x" chart:name="primary-x" chart:style-name="ch3"><chart:title chart:style-name="ch3"><text:p>Month</text:p></chart:title></chart:axis>'
  + '<chart:axis chart:dimension="y" chart:name="primary-y" chart:style-name="ch3"><chart:title chart:style-name="ch3"><text:p>People</text:p></chart:title></chart:axis></chart:plot-area>'
  + `<table:table table:name="local-table"><table:table-header-rows><table:table-row>${cell('')}${cell('Passengers')}</table:table-row></table:table-header-rows><table:table-rows>${months.map(([name, people]) => `<table:table-row>${cell(name)}${cell(String(people), people)}</table:table-row>`).join('')}</table:table-rows></table:table>`
  + '</chart:chart></office:chart></office:body></office:document-content>'

export const chartStyles = `${head}<office:document-styles${namespaces} office:version="1.3">${faces}<office:styles><style:default-style style:family="chart"><style:text-properties style:font-name="Skerrow" fo:font-size="9pt"/></style:default-style></office:styles></office:document-styles>`
