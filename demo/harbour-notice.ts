import { escapeXml, namespaces, writePackage } from '../core/package/new-package'
import { document, face, page, paragraph, style, text } from '../core/format/odf/pieces'

/*
 * Harbour notice: a letter on the line's letterhead, one side of A4. Its first page has the house's head and foot, the
 * one after it a plain one; the address stands in a frame, and the list of closed piers runs beside the small print.
 */

const faces =
  face('Spectral', 'roman') + face('Jost', 'swiss') + face('Jost Medium', 'swiss') + face('Newsreader', 'roman')
const p = (styleName: string, inside: string) => `<text:p text:style-name="${styleName}">${inside}</text:p>`

const named = [
  `<style:default-style style:family="paragraph">${paragraph('style:tab-stop-distance="1.25cm"')}` +
    `${text(
      'style:font-name="Spectral" fo:font-size="11pt" fo:language="en" fo:country="GB" style:letter-kerning="true"',
    )}</style:default-style>`,
  style('Standard', 'paragraph', ''),
  style(
    'Letter',
    'paragraph',
    paragraph('fo:line-height="15pt" fo:margin-bottom="0.25cm" fo:widows="2" fo:orphans="2"'),
    'Standard',
  ),
  style(
    'Subject',
    'paragraph',
    paragraph('fo:margin-top="0.4cm" fo:margin-bottom="0.3cm" fo:keep-with-next="always"') +
      text('style:font-name="Jost Medium" fo:font-size="14pt"'),
    'Standard',
  ),
  style(
    'Address',
    'paragraph',
    paragraph('fo:line-height="14pt"') + text('style:font-name="Jost" fo:font-size="10pt"'),
    'Standard',
  ),
  style(
    'Small print',
    'paragraph',
    paragraph('fo:line-height="11pt" fo:text-align="justify"') +
      text('style:font-name="Jost" fo:font-size="8pt" fo:color="#5b6470" fo:hyphenate="true"'),
    'Standard',
  ),
  style(
    'Head',
    'paragraph',
    '<style:paragraph-properties fo:border-bottom="1.2pt solid #1f6f6b" fo:padding-bottom="0.15cm">' +
      '<style:tab-stops><style:tab-stop style:position="16.5cm" style:type="right"/>' +
      '</style:tab-stops></style:paragraph-properties>' +
      text('style:font-name="Newsreader" fo:font-size="20pt" fo:color="#1f6f6b"'),
    'Standard',
  ),
  style(
    'Head next',
    'paragraph',
    '<style:paragraph-properties><style:tab-stops><style:tab-stop style:position="16.5cm" ' +
      'style:type="right"/></style:tab-stops></style:paragraph-properties>' +
      text('style:font-name="Jost" fo:font-size="8pt" fo:color="#5b6470"'),
    'Standard',
  ),
  style(
    'Head small',
    'text',
    text('style:font-name="Jost" fo:font-size="8.5pt" fo:letter-spacing="0.4pt" fo:text-transform="uppercase"'),
  ),
  style(
    'Times',
    'paragraph',
    '<style:paragraph-properties fo:line-height="15pt"><style:tab-stops>' +
      '<style:tab-stop style:position="5.5cm"/><style:tab-stop style:position="9.5cm" style:type="char" ' +
      'style:char="."/><style:tab-stop style:position="12cm" style:type="right" style:leader-style="dotted" ' +
      'style:leader-text="."/></style:tab-stops></style:paragraph-properties>',
    'Standard',
  ),
  style('Strong', 'text', text('fo:font-weight="bold"')),
  style('Frame', 'graphic', ''),
].join('')

const automatic = [
  style('P1', 'paragraph', text('fo:font-weight="bold"'), 'Letter', ' style:master-page-name="First"'),
  style('T1', 'text', text('fo:font-size="11.2pt"')),
  style(
    'fr1',
    'graphic',
    '<style:graphic-properties style:wrap="none" style:vertical-pos="from-top" style:vertical-rel="paragraph" ' +
      'style:horizontal-pos="left" style:horizontal-rel="paragraph" fo:padding="0cm" fo:border="none"/>',
    'Frame',
  ),
  style(
    'fr2',
    'graphic',
    '<style:graphic-properties style:wrap="left" style:vertical-pos="from-top" style:vertical-rel="paragraph" ' +
      'style:horizontal-pos="right" style:horizontal-rel="paragraph" fo:padding="0.25cm" fo:border="0.8pt ' +
      'solid #1b2430" fo:margin-left="0.5cm"/>',
    'Frame',
  ),
].join('')

const frame = (name: string, styleName: string, size: string, inside: string) =>
  `<draw:frame draw:name="${name}" draw:style-name="${styleName}" text:anchor-type="paragraph" ` +
  `svg:x="0cm" svg:y="0cm" ${size}><draw:text-box>${inside}</draw:text-box></draw:frame>`
const times = (
  [
    ['Cormorant Point', '7.35', '16.10'],
    ['Tern Holm', '8.10', '16.45'],
    ['Great Ossay, pier', '10.05', '18.40'],
    ['Skerrow light, by launch', '11.20', 'on request'],
  ] as const
)
  .map(([pier, out, back]) => p('Times', `${pier}<text:tab/>out<text:tab/>${out}<text:tab/>${back}`))
  .join('')

const body = [
  p(
    'P1',
    frame(
      'To',
      'fr1',
      'svg:width="8cm" svg:height="2.8cm"',
      ['The householders of Tern Holm', 'by the pier box', 'Tern Holm', 'Saltmere Islands']
        .map(line => p('Address', line))
        .join(''),
    ) + 'From the harbour office, 1 March 2026',
  ),
  p('Subject', 'The pier at Tern Holm is closed from the ninth to the twentieth'),
  p('Letter', `Dear householders,`),
  p(
    'Letter',
    `${frame(
      'Instead',
      'fr2',
      'svg:width="5.6cm" svg:height="3.1cm"',
      p('Address', '<text:span text:style-name="Strong">In its place</text:span>') +
        p('Address', 'The launch calls at the slip below the chapel at ten and at four, tide allowing. Bring boots.'),
    )}` +
      `${escapeXml(
        'The piles on the weather side have been eaten, as piles are, and eleven of them come ' +
          'out and eleven go in. While that is being done nothing can lie there but the barge that ' +
          'does it. The work takes twelve days if it does not blow and longer if it does; the mast ' +
          'at the quay will show a white board for as long as the pier is shut.',
      )}`,
  ),
  p(
    'Letter',
    escapeXml(
      'The mail comes with the launch and is given out from the chapel porch. Sheep, carts ' +
        'and anything heavier than two people can lift wait for the twenty-first, with our regret ' +
        'and at our cost: hay for the days between is at the quay and will be brought over. The ' +
        'school boat is not changed, since it never used the pier.',
    ),
  ),
  p(
    'Letter',
    `The other piers have the hours they always had, which are these <text:span text:style-name="T1">until the lantern weeks</text:span>:`,
  ),
  times,
  p('Letter', ''),
  p(
    'Letter',
    escapeXml(
      'If you have a crossing booked in those days, keep the stub: it is good for any boat ' +
        'until the autumn. If you know of anybody who cannot come down to the slip, tell the ' +
        'launch, and it will come up for them.',
    ),
  ),
  p('Letter', 'Yours, before the mast and behind the counter,'),
  p('Letter', '<text:span text:style-name="Strong">M. Aldous</text:span>, harbour master'),
  p(
    'Small_20_print',
    escapeXml(
      'Times are by the quay clock. The line carries passengers and goods under its conditions ' +
        'of carriage, a copy of which hangs in the quay office, where it has hung since it was ' +
        'last read. Complaints are heard on Wednesdays.',
    ),
  ),
].join('\n')

/** The Harbour notice as an OpenDocument text. */
export function harbourNotice(): Uint8Array {
  const head = p(
    'Head',
    'Saltmere Line<text:tab/><text:span text:style-name="Head_20_small">Harbour office, Saltmere Quay</text:span>',
  )
  const next = p(
    'Head_20_next',
    '<text:title>Harbour notice</text:title><text:tab/>page <text:page-number text:select-page="current">2</text:page-number> ' +
      'of <text:page-count>2</text:page-count>',
  )
  const room =
    '<style:header-style><style:header-footer-properties fo:min-height="1.9cm" fo:margin-bottom="0.9cm"/>' +
    '</style:header-style><style:footer-style><style:header-footer-properties fo:min-height="1cm" ' +
    'fo:margin-top="0.4cm"/></style:footer-style>'
  const styles = document(
    'styles',
    `<office:styles>${named}</office:styles><office:automatic-styles>` +
      `${page(
        'pm1',
        'fo:page-width="21cm" fo:page-height="29.7cm" fo:margin-top="1.6cm" fo:margin-bottom="1.5cm" ' +
          'fo:margin-left="2.5cm" fo:margin-right="2cm"',
        '',
        '',
        room,
      )}</office:automatic-styles>` +
      (`<office:master-styles><style:master-page style:name="Standard" style:page-layout-name="pm1">` +
        `<style:header>${next}</style:header></style:master-page><style:master-page style:name="First" ` +
        `style:page-layout-name="pm1" style:next-style-name="Standard"><style:header>${head}</style:header>` +
        `<style:footer>${p(
          'Small_20_print',
          'Saltmere Line, a company of the islands. Carrying people, post and sheep for ninety summers.',
        )}</style:footer>` +
        `</style:master-page></office:master-styles>`),
    faces,
  )
  const meta =
    `<?xml version="1.0" encoding="UTF-8"?>\n<office:document-meta${namespaces} office:version="1.3">` +
    `<office:meta><dc:title>Harbour notice</dc:title><dc:creator>M. Aldous</dc:creator>` +
    `</office:meta></office:document-meta>`
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
