import { escapeXml, namespaces, writePackage } from '../core/package/new-package'
import { document, face, page, paragraph, style, text } from '../core/format/odf/pieces'

/*
 * Winter tariff: a leaflet of two small pages, typed by somebody who never opened a list of styles. Every look is set by
 * hand, some of them twice with a hair's difference; sizes jump, a word came with its formatting from elsewhere.
 */

const faces = ['Jost', 'Spectral', 'Work Sans', 'Skerrow']
  .map(name => face(name, name === 'Spectral' ? 'roman' : 'swiss'))
  .join('')

/** Formatting by hand: a paragraph's own, and that of words. */
const looks = {
  P1: [
    paragraph('fo:margin-bottom="0.1cm"'),
    'style:font-name="Jost" fo:font-size="27pt" fo:font-weight="bold" fo:color="#1f6f6b"',
  ],
  P2: [
    paragraph('fo:margin-bottom="0.5cm" fo:line-height="15pt"'),
    'style:font-name="Spectral" fo:font-size="12.5pt" fo:font-style="italic"',
  ],
  P3: [
    paragraph('fo:margin-top="0.35cm" fo:margin-bottom="0.1cm" fo:keep-with-next="always"'),
    'style:font-name="Jost" fo:font-size="15pt" fo:font-weight="bold" fo:color="#1f6f6b"',
  ],
  P4: [paragraph('fo:line-height="13pt" fo:text-align="justify"'), 'style:font-name="Spectral" fo:font-size="10pt"'],
  P5: [
    paragraph('fo:line-height="13pt" fo:text-align="justify" fo:text-indent="0.4cm"'),
    'style:font-name="Spectral" fo:font-size="10pt"',
  ],
  P6: [
    paragraph('fo:line-height="13pt" fo:text-align="justify" fo:text-indent="0.4cm"'),
    'style:font-name="Spectral" fo:font-size="10.2pt"',
  ],
  P7: [paragraph('fo:line-height="12pt"'), 'style:font-name="Work Sans" fo:font-size="8.5pt"'],
  P8: [paragraph('fo:line-height="12pt"'), 'style:font-name="Work Sans" fo:font-size="8.5pt" fo:font-weight="bold"'],
  P9: [paragraph('fo:line-height="12pt" fo:text-align="end"'), 'style:font-name="Work Sans" fo:font-size="8.5pt"'],
  P10: [
    paragraph('fo:margin-top="0.1cm" fo:margin-bottom="0.3cm"'),
    'style:font-name="Work Sans" fo:font-size="7.5pt" fo:color="#5b6470"',
  ],
  P11: [
    paragraph('fo:margin-left="0.5cm" fo:text-indent="-0.5cm" fo:line-height="13pt"'),
    'style:font-name="Spectral" fo:font-size="10pt"',
  ],
  P12: [
    paragraph('fo:margin-top="0.3cm" fo:keep-with-next="always"'),
    'style:font-name="Jost" fo:font-size="11.5pt" fo:font-weight="bold"',
  ],
  T1: ['', 'fo:font-weight="bold"'],
  T2: ['', 'fo:font-style="italic"'],
  T3: ['', 'style:font-name="Skerrow" fo:font-size="10pt"'],
  T4: ['', 'style:font-name="Jost" fo:font-size="15pt" fo:font-weight="bold" fo:color="#1f6f6b"'],
  T5: ['', 'fo:font-weight="bold" fo:font-size="10pt"'],
  T6: ['', 'fo:color="#b4361e" fo:font-weight="bold"'],
} as const satisfies Readonly<Record<string, readonly [string, string]>>
type Look = keyof typeof looks

const automatic = [
  ...Object.entries(looks).map(([name, [own, words]]) =>
    style(name, name.startsWith('P') ? 'paragraph' : 'text', own + text(words)),
  ),
  style('Fares', 'table', '<style:table-properties style:width="10.8cm" table:align="left"/>'),
  style('Fares.A', 'table-column', '<style:table-column-properties style:column-width="5.4cm"/>'),
  style('Fares.B', 'table-column', '<style:table-column-properties style:column-width="2.7cm"/>'),
  style(
    'Fares.1',
    'table-cell',
    '<style:table-cell-properties fo:padding="0.06cm" fo:border-bottom="0.4pt solid #1b2430"/>',
  ),
].join('')

const p = (look: Look | '', inside: string) =>
  look === '' ? `<text:p>${inside}</text:p>` : `<text:p text:style-name="${look}">${inside}</text:p>`
const words = (look: Look, inside: string) => `<text:span text:style-name="${look}">${inside}</text:span>`

function table(rows: readonly (readonly [string, string, string])[]): string {
  const cell = (look: Look, inside: string) =>
    `<table:table-cell table:style-name="Fares.1" office:value-type="string">${p(look, inside)}</table:table-cell>`
  return (
    `<table:table table:name="Fares" table:style-name="Fares"><table:table-column table:style-name="Fares.A"/>` +
    `<table:table-column table:style-name="Fares.B" table:number-columns-repeated="2"/>` +
    rows
      .map(([to, out, back], at) => {
        const fares = [out, back].map(fare => cell(at === 0 ? 'P8' : 'P9', fare)).join('')
        return `<table:table-row>${cell(at === 0 ? 'P8' : 'P7', to)}${fares}</table:table-row>`
      })
      .join('') +
    `</table:table>`
  )
}

const body = [
  p('P1', 'Winter tariff'),
  p(
    'P2',
    'From the first frost on the quay to the last, two boats keep the islands in bread, post and company. This is what they ask for it.',
  ),
  p('P3', 'Passengers'),
  p(
    'P4',
    `A crossing is paid on board, in coin or by stub. ${words('T1', 'Children under seven')} sail with ` +
      `whoever holds their hand; those over seventy sail with whoever they please. A stub that was bought ` +
      `in the summer is good until the ice.`,
  ),
  p(
    'P5',
    `The ${words('T2', 'Grey Plover')} sails on Mondays, Wednesdays and Fridays, the ${words('T2', 'Sanderling')} ` +
      `when the Plover cannot. Nobody is left on a pier after dark: the last boat waits for the last light, ` +
      `and the lamp room has hot bricks${words('T3', ' ')}for the asking.`,
  ),
  table([
    ['From Saltmere Quay to', 'single', 'return'],
    ['Cormorant Point', '3.20', '5.60'],
    ['Tern Holm', '4.10', '7.20'],
    ['Great Ossay', '6.80', '11.90'],
    ['Skerrow light, by launch', '9.00', '16.00'],
  ]),
  p('P10', 'Fares in shillings of the line. Dogs as children, goats as bicycles.'),
  p('P3', 'Freight'),
  p(
    'P4',
    'Parcels are weighed on the quay scale, which is right, whatever the post office says. What one ' +
      'person can lift goes at the single rate, what two can lift at the double; for anything heavier ' +
      'there is the derrick, and the derrick is on holiday in the lantern weeks.',
  ),
  p(
    'P6',
    `Hay, peat and coal go on Thursdays only, with the hatch open and the passengers forewarned. ${words('T5', 'Nothing that smokes')} ` +
      `is carried below deck, be it cargo or crew.`,
  ),
  p('P12', 'What is carried for nothing'),
  p('P11', '– letters to the lighthouse, and answers'),
  p('P11', '– library books, if they are read on the way'),
  p('P11', '– one Christmas tree for each island'),
  p('', words('T4', 'Livestock')),
  p(
    'P5',
    `Sheep sail at the rate of a parcel, since they are carried as one. A ram pays for the deck he clears. ` +
      `${words('T6', 'No geese')} between the first of December and Twelfth Night, as agreed after the ` +
      `winter of the geese.`,
  ),
  p('P12', 'Straw and water'),
  p('P5', 'Both are found by the line from two hours out. Whoever brings their own takes it home again, used or not.'),
  p('P3', 'Delays'),
  p(
    'P4',
    `In fog the boats sail by the bell, in ice by the pole, and in an easterly not at all. A ${words('T1', 'white board')} ` +
      `at the quay mast means that nothing sails; a lantern beneath it means that soup is served in the ` +
      `waiting room until something does.`,
  ),
  p('P6', 'Money is given back for a crossing that was not made, less the soup.'),
  p('P10', 'Saltmere Line, at the sign of the plover. In force from the first frost.'),
].join('\n')

/** The Winter tariff as an OpenDocument text. */
export function winterTariff(): Uint8Array {
  const styles = document(
    'styles',
    `<office:styles><style:default-style style:family="paragraph">` +
      `${text('style:font-name="Spectral" fo:font-size="12pt" fo:language="en" fo:country="GB"')}</style:default-style>` +
      `${style('Standard', 'paragraph', '')}</office:styles><office:automatic-styles>` +
      page(
        'pm1',
        'fo:page-width="14.8cm" fo:page-height="21cm" fo:margin-top="1.6cm" fo:margin-bottom="1.5cm" ' +
          'fo:margin-left="2cm" fo:margin-right="2cm"',
      ) +
      `</office:automatic-styles><office:master-styles>` +
      `<style:master-page style:name="Standard" style:page-layout-name="pm1"/></office:master-styles>`,
    faces,
  )
  const meta =
    `<?xml version="1.0" encoding="UTF-8"?>\n<office:document-meta${namespaces} office:version="1.3">` +
    `<office:meta><dc:title>Winter tariff</dc:title><dc:creator>${escapeXml('R. Tolley')}</dc:creator></office:meta></office:document-meta>`
  return writePackage('application/vnd.oasis.opendocument.text', [
    {
      path: 'content.xml',
      type: 'text/xml',
      content: document(
        'content',
        `<office:automatic-styles>${automatic}</office:automatic-styles><office:body><office:text>\n${body}\n</office:text></office:body>`,
        faces,
      ),
    },
    { path: 'styles.xml', type: 'text/xml', content: styles },
    { path: 'meta.xml', type: 'text/xml', content: meta },
  ])
}
