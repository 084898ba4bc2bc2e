import { PDFDocument, rgb, StandardFonts } from '@cantoo/pdf-lib'
import { document, face, page, paragraph, style, text } from '../core/format/odf/pieces'
import { handOff, type HandoffWorks } from '../core/format/handoff/hand-off'
import { handoffSchema } from '../core/format/handoff/request'
import { namespaces, writePackage } from '../core/package/new-package'
import { DocumentSession } from '../core/session'
import type { Typesetter } from '../core/typeset/look'

/*
 * Berth contract: a finished PDF, as it came back from the harbour office. The line set it in its own faces; the office then
 * stamped two lines onto it in a font that is not in the file, and what nobody saw is still in it: a word with a letter too
 * many, and a name without its accent.
 */

const faces = face('Spectral', 'roman') + face('Jost', 'swiss') + face('Newsreader', 'roman')
const p = (styleName: string, inside: string) => `<text:p text:style-name="${styleName}">${inside}</text:p>`

const named = [
  `<style:default-style style:family="paragraph">${paragraph('style:tab-stop-distance="1.25cm"')}` +
    `${text('style:font-name="Spectral" fo:font-size="10.5pt" fo:language="en" fo:country="GB"')}</style:default-style>`,
  style('Standard', 'paragraph', ''),
  style('Clause', 'paragraph', paragraph('fo:line-height="15pt" fo:margin-bottom="0.22cm"'), 'Standard'),
  style(
    'Title',
    'paragraph',
    paragraph('fo:margin-bottom="0.15cm"') +
      text('style:font-name="Newsreader" fo:font-size="26pt" fo:color="#1f6f6b"'),
    'Standard',
  ),
  style(
    'Heading 1',
    'paragraph',
    paragraph('fo:margin-top="0.5cm" fo:margin-bottom="0.15cm" fo:keep-with-next="always"') +
      text('style:font-name="Jost" fo:font-size="12pt" fo:font-weight="bold"'),
    'Standard',
  ),
  style('Small', 'paragraph', text('style:font-name="Jost" fo:font-size="8.5pt" fo:color="#5b6470"'), 'Standard'),
].join('')

/** The heading that begins the second page. */
const overleaf = style('P1', 'paragraph', paragraph('fo:break-before="page"'), 'Heading 1')

const clauses: readonly (readonly [string, readonly string[]])[] = [
  [
    'The berth',
    [
      'The harbour of Great Ossay lets the outer berth of its north quay to Saltmere Line, for ships of up ' +
        'to sixty metres and a draught of three metres and a half at low water.',
      'The berth is let from the first of October untill the last of April. In the other months it goes to ' +
        'visiting boats, and the line moves to the inner quay.',
    ],
  ],
  [
    'Dues',
    [
      'Dues are paid by the quarter and in advance. They are worked out by the length of the ship and the ' +
        'nights that it lies at the quay; nights on which the harbour is closed are not counted.',
      'Water and power are read from the meters at the quay and paid with the dues of the next quarter.',
    ],
  ],
  [
    'Care of the quay',
    [
      'The line keeps the fenders, the ladders and the lamps of the berth in order. The harbour keeps the ' +
        'quay itself and its depth.',
      'Nets, crates and sheep pens stay behind the white line, so that the way to the shelter is free at all hours.',
    ],
  ],
  [
    'Storm',
    [
      'From force nine the harbour master says who lies where. A ship that leaves the berth on the word of ' +
        'the harbour master pays no dues until it is back.',
    ],
  ],
  [
    'Signatures',
    [
      'Signed at Great Ossay in two copies, one for each side.',
      'For the line: M. Aldous. For the harbour: Captain Lukas Dvorak, harbour master.',
    ],
  ],
]

function source(): Uint8Array {
  const body =
    p('Title', 'Berth contract') +
    p('Small', 'Saltmere Line and the harbour of Great Ossay') +
    clauses
      .map(
        ([title, paragraphs], index) =>
          `<text:h text:style-name="${title === 'Storm' ? 'P1' : 'Heading_20_1'}" text:outline-level="1">` +
          `${index + 1} ${title}</text:h>` +
          paragraphs.map(each => p('Clause', each)).join(''),
      )
      .join('')
  return writePackage('application/vnd.oasis.opendocument.text', [
    {
      path: 'content.xml',
      type: 'text/xml',
      content: document(
        'content',
        `<office:automatic-styles>${overleaf}</office:automatic-styles><office:body><office:text>${body}</office:text></office:body>`,
        faces,
      ),
    },
    {
      path: 'styles.xml',
      type: 'text/xml',
      content: document(
        'styles',
        `<office:styles>${named}</office:styles><office:automatic-styles>` +
          page(
            'pm1',
            'fo:page-width="17cm" fo:page-height="24cm" fo:margin-top="2cm" fo:margin-bottom="2.4cm" ' +
              'fo:margin-left="2.2cm" fo:margin-right="2.2cm"',
          ) +
          '</office:automatic-styles><office:master-styles><style:master-page style:name="Standard" ' +
          'style:page-layout-name="pm1"/></office:master-styles>',
        faces,
      ),
    },
    {
      path: 'meta.xml',
      type: 'text/xml',
      content:
        `<?xml version="1.0" encoding="UTF-8"?>\n<office:document-meta${namespaces} office:version="1.3">` +
        `<office:meta><dc:title>Berth contract</dc:title></office:meta></office:document-meta>`,
    },
  ])
}

/** The contract as it lies on the shelf: set here, then stamped by the harbour office with a program of its own. */
export async function berthContract(typesetter: Typesetter, works: HandoffWorks): Promise<Uint8Array> {
  const session = await DocumentSession.start(source(), typesetter)
  const context = { name: 'Berth contract', made: 0, house: null, licences: [] }
  const { bytes } = await handOff(session, handoffSchema.parse({ as: 'pdf' }), context, works)
  const pdf = await PDFDocument.load(bytes, { updateMetadata: false })
  const office = await pdf.embedFont(StandardFonts.Helvetica)
  const last = pdf.getPages().at(-1)!
  const ink = rgb(0.11, 0.14, 0.19)
  last.drawText('Received at the harbour office, quay 4 - berth 2', {
    x: 62,
    y: 420,
    size: 9,
    font: office,
    color: ink,
  })
  last.drawText("The harbour's copy. Dues are paid up to the spring tides.", {
    x: 62,
    y: 408,
    size: 9.3,
    font: office,
    color: ink,
  })
  return pdf.save({ useObjectStreams: false, addDefaultPage: false })
}
