import { document, face, page, paragraph, style, text } from '../core/format/odf/pieces'
import { writePackage } from '../core/package/new-package'

/*
 * Safety card: two sides of A5, all shapes: steps in boxes, arrows between them, a ring, and words that stand
 * on their sides.
 */

const faces = face('Jost', 'swiss') + face('Jost Medium', 'swiss') + face('Skerrow', 'swiss')
const graphic = (attributes: string) => `<style:graphic-properties ${attributes}/>`
const styles = [
  `<style:default-style style:family="graphic">${graphic(
    'draw:fill-color="#ffffff" svg:stroke-color="#1b2430" svg:stroke-width="0.05cm"',
  )}` +
    `${paragraph('style:tab-stop-distance="1cm"')}${text(
      'style:font-name="Jost" fo:font-size="11pt" fo:language="en" fo:country="GB"',
    )}</style:default-style>`,
  '<draw:marker draw:name="Arrow" svg:viewBox="0 0 20 30" svg:d="M10 0L0 30h20z"/>',
  style(
    'standard',
    'graphic',
    graphic('draw:textarea-vertical-align="middle" draw:textarea-horizontal-align="center" fo:padding="0.15cm"') +
      paragraph('fo:text-align="center"'),
  ),
  style(
    'Step',
    'graphic',
    graphic('draw:fill="solid" draw:fill-color="#f3d9a4" draw:stroke="none"') +
      text('style:font-name="Jost Medium" fo:font-size="12pt"'),
    'standard',
  ),
  style(
    'Warning',
    'graphic',
    graphic('draw:fill="solid" draw:fill-color="#b4361e" draw:stroke="none"') +
      text('style:font-name="Jost Medium" fo:font-size="15pt" fo:color="#ffffff"'),
    'standard',
  ),
].join('')
const automatic = [
  style(
    'arrow',
    'graphic',
    graphic('draw:fill="none" svg:stroke-width="0.07cm" draw:marker-end="Arrow" draw:marker-end-width="0.4cm"'),
    'standard',
  ),
  style('plain', 'graphic', graphic('draw:fill="none" draw:stroke="none"'), 'standard'),
  style(
    'ring',
    'graphic',
    graphic('draw:fill="solid" draw:fill-color="#ffffff" svg:stroke-color="#b4361e" svg:stroke-width="0.9cm"') +
      text('style:font-name="Skerrow" fo:font-size="10pt"'),
    'standard',
  ),
  style(
    'glass',
    'graphic',
    graphic('draw:fill="solid" draw:fill-color="#1f6f6b" draw:opacity="35%" draw:stroke="none"'),
    'standard',
  ),
  style('T1', 'text', text('style:font-name="Skerrow"')),
].join('')
const at = (x: number, y: number, width: number, height: number) =>
  `svg:x="${x}cm" svg:y="${y}cm" svg:width="${width}cm" svg:height="${height}cm"`
const rect = (name: string, place: string, words: string, more = '') =>
  `<draw:rect draw:style-name="${name}" ${place}${more}>${words
    .split('|')
    .map(each => `<text:p>${each}</text:p>`)
    .join('')}</draw:rect>`
const arrow = (x1: number, y1: number, x2: number, y2: number) =>
  `<draw:line draw:style-name="arrow" svg:x1="${x1}cm" svg:y1="${y1}cm" svg:x2="${x2}cm" svg:y2="${y2}cm"/>`
const octagon =
  '<draw:regular-polygon draw:style-name="Warning" draw:corners="8" svg:x="10.6cm" svg:y="1cm" ' +
  'svg:width="3.2cm" svg:height="3.2cm"><text:p>Stop</text:p></draw:regular-polygon>'

/** The card. */
export function safetyCard(): Uint8Array {
  const front = [
    rect('Warning', at(0.8, 1, 9, 1.6), 'When the bell does not stop'),
    octagon,
    rect('Step', at(0.8, 4.6, 6, 2), '1  Leave your tea|where it is'),
    arrow(3.8, 6.6, 3.8, 7.9),
    rect('Step', at(0.8, 8, 6, 2), '2  Go up, not down'),
    arrow(3.8, 10, 3.8, 11.3),
    rect('Step', at(0.8, 11.4, 6, 2), '3  Coat first,|then the ring'),
    arrow(3.8, 13.4, 3.8, 14.7),
    rect(
      'Step',
      at(0.8, 14.8, 6, 2),
      '4  Count your children|<text:span text:style-name="T1">and other people’s</text:span>',
    ),
    `<draw:ellipse draw:style-name="ring" ${at(8.6, 6.4, 4.6, 4.6)}><text:p>one ring,</text:p><text:p>two people</text:p></draw:ellipse>`,
    `<draw:rect draw:style-name="plain" svg:width="11cm" svg:height="1cm" draw:transform="rotate ` +
      `(1.570796) translate (13.2cm 20cm)"><text:p>Keep this card dry; it is the only ` +
      `dry thing aboard</text:p></draw:rect>`,
    `<draw:custom-shape draw:style-name="Step" ${at(8.2, 12.4, 4.4, 3)}><text:p>To ` +
      `the boats</text:p><draw:enhanced-geometry svg:viewBox="0 0 21600 21600" draw:modifiers="15000 ` +
      `5400" draw:text-areas="0 ?f0 ?f5 ?f2" draw:enhanced-path="M 0 ?f0 L ?f1 ?f0 ?f1 ` +
      `0 21600 10800 ?f1 21600 ?f1 ?f2 0 ?f2 Z N"><draw:equation draw:name="f0" draw:formula="$1 ` +
      `"/><draw:equation draw:name="f1" draw:formula="$0 "/><draw:equation draw:name="f2" ` +
      `draw:formula="21600-$1 "/><draw:equation draw:name="f3" draw:formula="21600-?f1 ` +
      `"/><draw:equation draw:name="f4" draw:formula="?f3 *?f0 /10800"/><draw:equation ` +
      `draw:name="f5" draw:formula="?f1 +?f4 "/></draw:enhanced-geometry></draw:custom-shape>`,
  ].join('')
  const back = [
    `<draw:polygon draw:style-name="plain" ${at(1.4, 3, 12, 7)} svg:viewBox="0 0 12000 ` +
      `7000" draw:points="0,3500 3000,0 9000,0 12000,3500 9000,7000 3000,7000"/>`,
    `<draw:path draw:style-name="glass" ${at(1.4, 3, 12, 7)} svg:viewBox="0 0 12000 ` +
      `7000" svg:d="M0 3500 C 2000 0 10000 0 12000 3500 C 10000 7000 2000 7000 0 3500 Z"/>`,
    rect('Step', at(5, 5.6, 4.8, 1.6), 'You sit here'),
    `<draw:g draw:name="Boats">${rect('Warning', at(1.6, 1, 3.4, 1.4), 'Boat A')}` +
      `${rect('Warning', at(9.8, 1, 3.4, 1.4), 'Boat B')}</draw:g>`,
    `<draw:connector draw:style-name="arrow" draw:type="line" svg:x1="7.4cm" svg:y1="5.6cm" svg:x2="3.3cm" svg:y2="2.4cm"/>`,
    `<draw:frame draw:name="Small print" draw:style-name="plain" ${at(1.2, 12, 12.4, 6)}>` +
      `<draw:text-box><text:p>Boat A is for those who sit on the left as one looks ahead, ` +
      `Boat B for the others, and the launch for whoever is asleep. The mate calls names ` +
      `from the list at the gangway; whoever is not on it calls their own.</text:p></draw:text-box>` +
      `</draw:frame>`,
  ].join('')
  const content = document(
    'content',
    `<office:automatic-styles>${automatic}</office:automatic-styles><office:body><office:drawing>` +
      `<draw:page draw:name="Front" draw:master-page-name="Card">${front}</draw:page>` +
      `<draw:page draw:name="Back" draw:master-page-name="Card">${back}</draw:page></office:drawing>` +
      `</office:body>`,
    faces,
  )
  const stylesPart = document(
    'styles',
    `<office:styles>${styles}</office:styles><office:automatic-styles>` +
      `${page('card', 'fo:page-width="14.8cm" fo:page-height="21cm" fo:margin="0.8cm"')}</office:automatic-styles>` +
      `<office:master-styles><style:master-page style:name="Card" style:page-layout-name="card"/>` +
      `</office:master-styles>`,
    faces,
  )
  const meta =
    '<?xml version="1.0" encoding="UTF-8"?>\n<office:document-meta xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" ' +
    'xmlns:dc="http://purl.org/dc/elements/1.1/" office:version="1.3">' +
    '<office:meta><dc:title>Safety card</dc:title></office:meta>' +
    '</office:document-meta>'
  return writePackage('application/vnd.oasis.opendocument.graphics', [
    { path: 'content.xml', type: 'text/xml', content },
    { path: 'styles.xml', type: 'text/xml', content: stylesPart },
    { path: 'meta.xml', type: 'text/xml', content: meta },
  ])
}
