import { document, face, page, paragraph, style, text } from '../core/format/odf/pieces'
import { escapeXml, writePackage, type Part } from '../core/package/new-package'
import { chartPart, chartStyles, type DemoChart } from './chart'
import { seasonSlides, type SeasonSlide } from './season-slides'

/*
 * Season review: fourteen slides for the board. The house has retired Skerrow, and here it hides where a swap by eye
 * misses it: in the charts, in the speaker notes' style, in the handout, and in what new shapes start with.
 */

const faces =
  face('Spectral', 'roman') +
  face('Spectral SemiBold', 'roman') +
  face('Jost', 'swiss') +
  face('Jost Medium', 'swiss') +
  face('Skerrow', 'swiss')
const graphic = (attributes: string, inside = '') =>
  `<style:graphic-properties ${attributes}${inside ? `>${inside}</style:graphic-properties>` : '/>'}`
const bullets = `<text:list-style style:name="Saltmere-outline-list">${[1, 2, 3, 4, 5, 6, 7, 8, 9]
  .map(
    level =>
      `<text:list-level-style-bullet text:level="${level}" text:bullet-char="` +
      `${level % 2 === 1 ? '–' : '·'}">` +
      (`<style:list-level-properties text:space-before="${(level - 1) * 0.7}cm" ` + `text:min-label-width="0.7cm"/>`) +
      `</text:list-level-style-bullet>`,
  )
  .join('')}</text:list-style>`

const outline = (level: number) =>
  style(
    `Saltmere-outline${level}`,
    'presentation',
    (level === 1
      ? graphic(
          'draw:stroke="none" draw:fill="none" draw:auto-grow-height="false" draw:fit-to-size="shrink-to-fit" fo:padding="0.1cm"',
          bullets,
        )
      : '') +
      paragraph(`fo:margin-top="${level === 1 ? 0.25 : 0.1}cm"`) +
      text(
        `style:font-name="Spectral" fo:font-size="${[20, 17, 15, 14, 13, 13, 13, 13, 13][level - 1]}pt" fo:color="#1b2430"`,
      ),
    level === 1 ? '' : `Saltmere-outline${level - 1}`,
  )

const styles = [
  // What new shapes start with: the retired face.
  `<style:default-style style:family="graphic">${graphic(
    'draw:fill-color="#dfe7e6" svg:stroke-color="#1f6f6b" svg:stroke-width="0.03cm"',
  )}` +
    `${paragraph('style:tab-stop-distance="1.25cm"')}${text(
      'style:font-name="Skerrow" fo:font-size="16pt" fo:language="en" fo:country="GB"',
    )}</style:default-style>`,
  '<draw:stroke-dash draw:name="Fold" draw:style="rect" draw:dots1="1" draw:dots1-length="0.2cm" draw:distance="0.15cm"/>',
  '<draw:marker draw:name="Arrow" svg:viewBox="0 0 20 30" svg:d="M10 0L0 30h20z"/>',
  style(
    'standard',
    'graphic',
    graphic(
      'draw:fill="solid" draw:stroke="solid" draw:textarea-vertical-align="middle" draw:textarea-horizontal-align="center" ' +
        'fo:padding="0.15cm"',
    ) +
      paragraph('fo:text-align="center"') +
      text('style:font-name="Jost" fo:font-size="14pt" fo:color="#1b2430"'),
  ),
  style(
    'Plain text',
    'graphic',
    graphic('draw:fill="none" draw:stroke="none" draw:textarea-vertical-align="top"') +
      paragraph('fo:text-align="left"'),
    'standard',
  ),
  style(
    'Saltmere-title',
    'presentation',
    graphic(
      'draw:stroke="none" draw:fill="none" draw:textarea-vertical-align="bottom" draw:auto-grow-height="false" fo:padding="0.1cm"',
    ) +
      paragraph('fo:text-align="left"') +
      text('style:font-name="Spectral SemiBold" fo:font-size="32pt" fo:color="#1f6f6b"'),
  ),
  style(
    'Saltmere-subtitle',
    'presentation',
    graphic('draw:stroke="none" draw:fill="none" draw:textarea-vertical-align="top" fo:padding="0.1cm"') +
      text('style:font-name="Jost" fo:font-size="18pt" fo:color="#5b6470"'),
  ),
  ...[1, 2, 3, 4, 5, 6, 7, 8, 9].map(outline),
  style(
    'Saltmere-notes',
    'presentation',
    graphic('draw:stroke="none" draw:fill="none" fo:padding="0.1cm"') +
      paragraph('fo:margin-bottom="0.2cm"') +
      text('style:font-name="Skerrow" fo:font-size="13pt"'),
  ),
  style(
    'Saltmere-backgroundobjects',
    'presentation',
    graphic('draw:stroke="none" draw:fill="none" draw:textarea-vertical-align="middle"') +
      text('style:font-name="Jost" fo:font-size="11pt" fo:color="#5b6470"'),
  ),
  style('Number', 'paragraph', ''),
].join('')

const pageStyle = (name: string, fill: string) =>
  style(
    name,
    'drawing-page',
    `<style:drawing-page-properties draw:fill="${fill ? 'solid' : 'none'}"${fill ? ` draw:fill-color="${fill}"` : ''} ` +
      `presentation:background-visible="true" presentation:background-objects-visible="true" ` +
      `presentation:display-footer="true" presentation:display-page-number="true" presentation:display-date-time="true"/>`,
  )
const placeholder = (kind: string, styleName: string, place: string, inside: string, more = '') =>
  `<draw:frame presentation:class="${kind}" presentation:style-name="${styleName}" ${place}${more}>` +
  `<draw:text-box>${inside}</draw:text-box></draw:frame>`
const at = (x: number, y: number, width: number, height: number) =>
  `svg:x="${x}cm" svg:y="${y}cm" svg:width="${width}cm" svg:height="${height}cm"`
const foot = [
  `<draw:rect draw:style-name="bar" draw:layer="backgroundobjects" ${at(0, 13.6, 25.4, 0.12)}/>`,
  placeholder('footer', 'foot', at(1.4, 13.72, 12, 0.5), '<text:p><presentation:footer/></text:p>'),
  placeholder(
    'page-number',
    'footRight',
    at(20, 13.72, 4, 0.5),
    '<text:p text:style-name="R"><text:page-number>&lt;number&gt;</text:page-number></text:p>',
  ),
].join('')
const notesPage = (inside: string) =>
  `<presentation:notes style:page-layout-name="notes">${inside}</presentation:notes>`
const masterNotes = notesPage(
  `<draw:page-thumbnail presentation:class="page" ${at(3, 2, 15, 8.44)}/>` +
    `${placeholder('notes', 'notesBox', at(3, 11.4, 15, 14), '', ' presentation:placeholder="true"')}`,
)

const stylesPart = document(
  'styles',
  `<office:styles>${styles}</office:styles><office:automatic-styles>` +
    page('wide', 'fo:page-width="25.4cm" fo:page-height="14.29cm" fo:margin="0cm"') +
    page('notes', 'fo:page-width="21cm" fo:page-height="29.7cm" fo:margin="0cm"') +
    page('handout', 'fo:page-width="29.7cm" fo:page-height="21cm" fo:margin="0cm"') +
    pageStyle('mp', '') +
    pageStyle('cover', '#1b2430') +
    style('bar', 'graphic', graphic('draw:fill="solid" draw:fill-color="#1f6f6b" draw:stroke="none"'), 'standard') +
    style(
      'foot',
      'presentation',
      graphic('draw:stroke="none" draw:fill="none" fo:padding="0cm"'),
      'Saltmere-backgroundobjects',
    ) +
    style(
      'footRight',
      'presentation',
      graphic('draw:stroke="none" draw:fill="none" fo:padding="0cm"'),
      'Saltmere-backgroundobjects',
    ) +
    style('R', 'paragraph', paragraph('fo:text-align="right"')) +
    style('notesBox', 'presentation', graphic('fo:min-height="14cm"'), 'Saltmere-notes') +
    style(
      'hand',
      'graphic',
      graphic('draw:fill="none" draw:stroke="none"') + text('style:font-name="Skerrow" fo:font-size="11pt"'),
      'standard',
    ) +
    `</office:automatic-styles><office:master-styles>` +
    (`<style:handout-master style:page-layout-name="handout"><draw:page-thumbnail ${at(2, 3, 12, 6.75)}/>` +
      `<draw:page-thumbnail ${at(15.5, 3, 12, 6.75)}/><draw:frame draw:style-name="hand" ${at(2, 1, 20, 1)}>` +
      `<draw:text-box><text:p>Saltmere Line, for the board, not for the pier</text:p>` +
      `</draw:text-box></draw:frame></style:handout-master>`) +
    (`<style:master-page style:name="Saltmere" style:page-layout-name="wide" ` +
      (`draw:style-name="mp">${placeholder(
        'title',
        'Saltmere-title',
        at(1.4, 0.8, 22.6, 1.9),
        '<text:p>Title</text:p>',
        ' presentation:placeholder="true"',
      )}` +
        `${placeholder(
          'outline',
          'Saltmere-outline1',
          at(1.4, 3.2, 22.6, 9.8),
          '<text:p>Text</text:p>',
          ' presentation:placeholder="true"',
        )}` +
        `${foot}${masterNotes}</style:master-page>`)) +
    (`<style:master-page style:name="Cover" style:page-layout-name="wide" ` +
      (`draw:style-name="cover">${placeholder(
        'title',
        'Saltmere-title',
        at(1.4, 4.4, 22.6, 2.4),
        '<text:p>Title</text:p>',
        ' presentation:placeholder="true"',
      )}` +
        `${masterNotes}</style:master-page>`)) +
    '</office:master-styles>',
  faces,
)

const automatic = [
  pageStyle('dp1', ''),
  style(
    'dpCover',
    'drawing-page',
    '<style:drawing-page-properties presentation:background-visible="true" presentation:background-objects-visible="true"/>',
  ),
  style('onDark', 'presentation', graphic('draw:fill="none"') + text('fo:color="#ffffff"'), 'Saltmere-title'),
  style('onDarkSub', 'presentation', graphic('draw:fill="none"') + text('fo:color="#d9d4c7"'), 'Saltmere-subtitle'),
  style('outline', 'presentation', graphic('draw:fill="none"'), 'Saltmere-outline1'),
  style('title', 'presentation', graphic('draw:fill="none"'), 'Saltmere-title'),
  style('notesText', 'presentation', graphic('fo:min-height="14cm"'), 'Saltmere-notes'),
  style('box', 'graphic', graphic('draw:fill="solid" draw:fill-color="#e3ecec"'), 'standard'),
  style(
    'dark',
    'graphic',
    graphic('draw:fill="solid" draw:fill-color="#1f6f6b" draw:stroke="none"') + text('fo:color="#ffffff"'),
    'standard',
  ),
  style(
    'line',
    'graphic',
    graphic('draw:fill="none" svg:stroke-width="0.05cm" draw:marker-end="Arrow" draw:marker-end-width="0.3cm"'),
    'standard',
  ),
  style(
    'stamp',
    'graphic',
    graphic('draw:fill="none" draw:stroke="solid" svg:stroke-color="#b4361e" svg:stroke-width="0.06cm"') +
      text('style:font-name="Jost Medium" fo:color="#b4361e" fo:font-size="15pt"'),
    'standard',
  ),
  style(
    'quote',
    'graphic',
    graphic(
      'draw:fill="none" draw:stroke="none" draw:fit-to-size="shrink-to-fit" draw:auto-grow-height="false" ' +
        'draw:textarea-vertical-align="top"',
    ) +
      paragraph('fo:text-align="left"') +
      text('style:font-name="Spectral" fo:font-size="18pt" fo:font-style="italic"'),
    'Plain text',
  ),
  style(
    'column',
    'graphic',
    graphic('draw:fill="none" draw:stroke="none" draw:auto-grow-height="true" fo:min-height="8cm"') +
      paragraph('fo:text-align="left"') +
      text('style:font-name="Spectral" fo:font-size="15pt"'),
    'Plain text',
  ),
  style(
    'new',
    'graphic',
    graphic('draw:fill="solid" draw:fill-color="#f3d9a4" draw:stroke="none" draw:textarea-vertical-align="middle"'),
  ),
  style(
    'head',
    'table-cell',
    '<style:table-cell-properties fo:padding="0.12cm" fo:border-bottom="1pt solid #1b2430"/>' +
      text('style:font-name="Jost Medium" fo:font-size="13pt"'),
  ),
  style(
    'cell',
    'table-cell',
    '<style:table-cell-properties fo:padding="0.12cm" fo:border-bottom="0.5pt solid #d9d4c7"/>' +
      text('style:font-name="Spectral" fo:font-size="14pt"'),
  ),
  style('wide', 'table-column', '<style:table-column-properties style:column-width="8cm"/>'),
  style('narrow', 'table-column', '<style:table-column-properties style:column-width="4.7cm"/>'),
  style('chart', 'graphic', graphic('draw:fill="none" draw:stroke="none"'), 'standard'),
  style('T1', 'text', text('style:font-name="Skerrow"')),
  style('T2', 'text', text('fo:font-style="italic"')),
].join('')

function list(items: SeasonSlide['outline'] & {}): string {
  let out = ''
  let depth = 0
  for (const [level, words] of items) {
    while (depth > level) {
      out += '</text:list-item></text:list>'
      depth--
    }
    if (depth === level) out += '</text:list-item><text:list-item>'
    while (depth < level) {
      out += '<text:list><text:list-item>'
      depth++
    }
    out += `<text:p>${words}</text:p>`
  }
  return out + '</text:list-item></text:list>'.repeat(depth)
}

function slide(each: SeasonSlide, number: number, charts: DemoChart[]): string {
  const cover = each.cover === true
  const inside: string[] = [
    placeholder(
      'title',
      cover ? 'onDark' : 'title',
      cover ? at(1.4, 4.4, 22.6, 2.4) : at(1.4, 0.8, 22.6, 1.9),
      `<text:p>${escapeXml(each.title)}</text:p>`,
    ),
  ]
  if (each.subtitle)
    inside.push(
      placeholder('subtitle', 'onDarkSub', at(1.4, 6.9, 20, 1.6), `<text:p>${escapeXml(each.subtitle)}</text:p>`),
    )
  if (each.outline)
    inside.push(
      placeholder(
        'outline',
        'outline',
        each.chart ? at(1.4, 3.2, 8.6, 9.8) : at(1.4, 3.2, 22.6, 9.8),
        list(each.outline),
      ),
    )
  if (each.chart) {
    charts.push(each.chart)
    inside.push(
      `<draw:frame draw:style-name="chart" draw:name="Chart ${charts.length}" ` +
        `${each.outline ? at(10.4, 3.2, 13.6, 9.6) : at(1.4, 3.2, 22.6, 9.8)}>` +
        `<draw:object xlink:href="./Object ${charts.length}" xlink:type="simple"/></draw:frame>`,
    )
  }
  if (each.table) {
    const [first, ...rows] = each.table
    const row = (cells: readonly string[], name: string) =>
      `<table:table-row>${cells
        .map(
          cell =>
            `<table:table-cell table:style-name="${name}"><text:p>${escapeXml(cell)}</text:p>` + `</table:table-cell>`,
        )
        .join('')}</table:table-row>`
    inside.push(
      `<draw:frame ${at(1.4, 3.4, 8 + 4.7 * (first!.length - 1), 8)}><table:table><table:table-column ` +
        (`table:style-name="wide"/><table:table-column table:style-name="narrow" ` +
          (`table:number-columns-repeated="${first!.length - 1}"/>${row(first!, 'head')}` +
            `${rows.map(cells => row(cells, 'cell')).join('')}</table:table>`)) +
        `</draw:frame>`,
    )
  }
  if (each.drawing) inside.push(each.drawing)
  const notes = notesPage(
    `<draw:page-thumbnail presentation:class="page" draw:page-number="` +
      `${number}" ${at(3, 2, 15, 8.44)}/>${placeholder(
        'notes',
        'notesText',
        at(3, 11.4, 15, 14),
        each.notes.map(words => `<text:p>${words}</text:p>`).join(''),
      )}`,
  )
  return (
    `<draw:page draw:name="${number}" draw:style-name="${cover ? 'dpCover' : 'dp1'}" ` +
    (`draw:master-page-name="${cover ? 'Cover' : 'Saltmere'}"${cover ? '' : ' presentation:use-footer-name="ftr1"'}>` +
      `${inside.join('')}${notes}</draw:page>`)
  )
}

/** The presentation. */
export function seasonReview(): Uint8Array {
  const charts: DemoChart[] = []
  const slides = seasonSlides.map((each, index) => slide(each, index + 1, charts)).join('')
  const content = document(
    'content',
    `<office:automatic-styles>${automatic}</office:automatic-styles><office:body><office:presentation>` +
      (`<presentation:footer-decl presentation:name="ftr1">Saltmere ` +
        `Line, season review</presentation:footer-decl>${slides}</office:presentation>`) +
      `</office:body>`,
    faces,
  )
  const meta =
    '<?xml version="1.0" encoding="UTF-8"?>\n<office:document-meta xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" ' +
    'xmlns:dc="http://purl.org/dc/elements/1.1/" office:version="1.3">' +
    '<office:meta><dc:title>Season review</dc:title></office:meta>' +
    '</office:document-meta>'
  const objects = charts.flatMap((chart, index): Part[] => [
    { path: `Object ${index + 1}/content.xml`, type: 'text/xml', content: chartPart(chart) },
    { path: `Object ${index + 1}/styles.xml`, type: 'text/xml', content: chartStyles },
  ])
  return writePackage(
    'application/vnd.oasis.opendocument.presentation',
    [
      { path: 'content.xml', type: 'text/xml', content },
      { path: 'styles.xml', type: 'text/xml', content: stylesPart },
      { path: 'meta.xml', type: 'text/xml', content: meta },
      ...objects,
    ],
    charts.map((_, index) => ({ path: `Object ${index + 1}/`, type: 'application/vnd.oasis.opendocument.chart' })),
  )
}
