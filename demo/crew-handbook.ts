import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { projectFolder } from '../server/library/files'
import { readSource, type SourceInline } from './markup'
import { escapeXml, namespaces, writePackage } from '../core/package/new-package'
import { document, face, page, paragraph, style, text } from '../core/format/odf/pieces'

/*
 * The Crew handbook of Saltmere Line, two hundred pages of A5: a card for every duty on every boat, filled from the
 * duties in crew-handbook.txt and what is peculiar to each boat. It is the demo's document for length: numbered
 * headings, notes, columns, drop caps, tables with repeated heads, chained frames and running heads with the chapter.
 */

interface Boat {
  readonly name: string
  readonly people: number
  readonly way: number
  readonly place: string
  readonly fitting: string
  readonly side: string
  readonly word: string
}
const boats: readonly Boat[] = [
  {
    name: 'the Grey Plover',
    people: 180,
    way: 4,
    place: 'deck house',
    fitting: 'after bollard',
    side: 'port',
    word:
      'Slow, steady and wide, with a glass deck house that every child wants to see from outside. ' +
      'She was built for the outer islands and has never liked the inner ones.',
  },
  {
    name: 'the Kittiwake',
    people: 40,
    way: 6,
    place: 'saloon roof',
    fitting: 'brass rail',
    side: 'starboard',
    word: 'Faster, smaller and wetter. She turns in her own length and will do it when nobody has asked her to.',
  },
  {
    name: 'the Sanderling',
    people: 64,
    way: 3,
    place: 'foredeck',
    fitting: 'windlass',
    side: 'port',
    word: 'Flat in the bottom and fond of beaches. She takes the carts and the piano, and she has taken the piano twice.',
  },
  {
    name: 'the Turnstone',
    people: 90,
    way: 5,
    place: 'upper deck',
    fitting: 'wheelhouse steps',
    side: 'starboard',
    word: 'The winter boat. Everything on her is double but the kettle, and there are two spare kettles.',
  },
  {
    name: 'the Fulmar',
    people: 24,
    way: 7,
    place: 'cockpit',
    fitting: 'samson post',
    side: 'port',
    word:
      'The launch for the Skerrow light. There is no shelter on her and no need of any, the ' +
      'crossing being short and the weather being what it is.',
  },
  {
    name: 'the Little Tern',
    people: 12,
    way: 8,
    place: 'stern bench',
    fitting: 'tiller head',
    side: 'starboard',
    word:
      'The pilot’s boat and the doctor’s. She has been to every pier at every hour, and most ' +
      'of the islanders first saw the world from her.',
  },
  {
    name: 'the Guillemot',
    people: 110,
    way: 4,
    place: 'promenade deck',
    fitting: 'mast housing',
    side: 'port',
    word: 'The excursion boat: awnings, a bandstand and a bar. She sails when the sun shines and is otherwise used to practise on.',
  },
  {
    name: 'the Phalarope',
    people: 30,
    way: 5,
    place: 'hold coaming',
    fitting: 'derrick post',
    side: 'starboard',
    word: 'Cargo first and people where there is room. She smells of paraffin and apples, and she has never been late by more than a tide.',
  },
]
const ranks = ['Master', 'Mate', 'Second hand', 'Engine', 'Purser', 'Deck', 'Deck', 'Galley']
const watches = ['Forenoon', 'Afternoon', 'First dog', 'Last dog', 'First', 'Middle', 'Morning']

const automatic = [
  style('P1', 'paragraph', paragraph('fo:break-before="page"'), 'Heading 1'),
  style('P4', 'paragraph', paragraph('fo:break-before="page" fo:margin-top="0cm"'), 'Heading 2'),
  style('P2', 'paragraph', text('fo:font-weight="bold"'), 'Heading 3'),
  style('P3', 'paragraph', text('fo:font-size="9.8pt"'), 'Body'),
  style('T1', 'text', text('style:font-name="Skerrow"')),
  style(
    'Columns',
    'section',
    '<style:section-properties text:dont-balance-text-columns="false">' +
      '<style:columns fo:column-count="2" fo:column-gap="0.5cm"><style:column style:rel-width="1*" ' +
      'fo:start-indent="0cm" fo:end-indent="0.25cm"/><style:column style:rel-width="1*" fo:start-indent="0.25cm" ' +
      'fo:end-indent="0cm"/></style:columns></style:section-properties>',
  ),
  style(
    'Bill',
    'table',
    '<style:table-properties style:rel-width="100%" table:align="margins" fo:margin-top="0.2cm" fo:margin-bottom="0.3cm"/>',
  ),
  style('Bill column', 'table-column', '<style:table-column-properties style:rel-column-width="1*"/>'),
  style(
    'Bill cell',
    'table-cell',
    '<style:table-cell-properties fo:padding="0.06cm" fo:border-bottom="0.4pt solid #d9d4c7"/>',
  ),
  style(
    'fr1',
    'graphic',
    '<style:graphic-properties style:wrap="right" style:vertical-pos="from-top" style:vertical-rel="paragraph" ' +
      'style:horizontal-pos="left" style:horizontal-rel="paragraph" fo:padding="0.15cm" fo:border="0.6pt ' +
      'solid #1b2430" fo:margin-right="0.3cm" fo:margin-bottom="0.1cm"/>',
  ),
].join('')

const named = [
  `<style:default-style style:family="paragraph">${paragraph(
    'fo:hyphenation-ladder-count="2" style:tab-stop-distance="1cm" style:writing-mode="page"',
  )}` +
    `${text(
      'style:font-name="Spectral" fo:font-size="10pt" fo:language="en" fo:country="GB" style:letter-kerning="true" ' +
        'fo:hyphenation-remain-char-count="2" fo:hyphenation-push-char-count="3"',
    )}</style:default-style>`,
  style('Standard', 'paragraph', ''),
  style(
    'Body',
    'paragraph',
    paragraph('fo:line-height="14pt" fo:text-align="justify" fo:text-indent="0.4cm" fo:widows="2" fo:orphans="2"') +
      text('fo:hyphenate="true"'),
    'Standard',
  ),
  style(
    'Opening',
    'paragraph',
    '<style:paragraph-properties fo:text-indent="0cm" fo:text-align="justify">' +
      '<style:drop-cap style:lines="3" style:length="1" style:distance="0.1cm"/>' +
      '</style:paragraph-properties>',
    'Body',
  ),
  style('Item', 'paragraph', paragraph('fo:text-align="start" fo:text-indent="0cm"'), 'Body'),
  style(
    'Lead',
    'paragraph',
    paragraph('fo:text-indent="0cm" fo:text-align="start" fo:margin-bottom="0.15cm" fo:keep-with-next="always"') +
      text('fo:font-style="italic" fo:hyphenate="false"'),
    'Body',
  ),
  style(
    'Heading 1',
    'paragraph',
    paragraph('fo:margin-bottom="0.3cm" fo:keep-with-next="always"') +
      text('style:font-name="Jost Medium" fo:font-size="22pt"'),
    'Standard',
    ' style:default-outline-level="1"',
  ),
  style(
    'Heading 2',
    'paragraph',
    paragraph('fo:margin-top="0.5cm" fo:margin-bottom="0.1cm" fo:keep-with-next="always"') +
      text('style:font-name="Jost Medium" fo:font-size="14pt"'),
    'Standard',
    ' style:default-outline-level="2"',
  ),
  style(
    'Heading 3',
    'paragraph',
    paragraph('fo:margin-top="0.3cm" fo:keep-with-next="always"') +
      text('style:font-name="Jost Medium" fo:font-size="10.5pt"'),
    'Standard',
    ' style:default-outline-level="3"',
  ),
  style(
    'Bill text',
    'paragraph',
    paragraph('fo:line-height="12pt"') + text('style:font-name="Jost" fo:font-size="8.5pt"'),
    'Standard',
  ),
  style(
    'Footnote',
    'paragraph',
    paragraph('fo:line-height="10.5pt" fo:margin-left="0.4cm" fo:text-indent="-0.4cm"') + text('fo:font-size="8pt"'),
    'Standard',
  ),
  style(
    'Header',
    'paragraph',
    '<style:paragraph-properties><style:tab-stops><style:tab-stop style:position="11cm" style:type="right"/>' +
      '</style:tab-stops></style:paragraph-properties>' +
      text('style:font-name="Jost" fo:font-size="8pt" fo:color="#5b6470"'),
    'Standard',
  ),
  style(
    'Contents',
    'paragraph',
    '<style:paragraph-properties><style:tab-stops><style:tab-stop style:position="11cm" style:type="right" ' +
      'style:leader-style="dotted" style:leader-text="."/></style:tab-stops>' +
      '</style:paragraph-properties>' +
      text('fo:font-size="9.5pt"'),
    'Standard',
  ),
  style('Small capitals', 'text', text('fo:font-variant="small-caps"')),
  style('Frame', 'graphic', ''),
  `<text:outline-style style:name="Outline">${[1, 2, 3]
    .map(
      level =>
        `<text:outline-level-style text:level="${level}" style:num-format="` +
        `${level === 3 ? '' : '1'}"${level === 2 ? ' text:display-levels="2"' : ''}>` +
        `<style:list-level-properties text:list-level-position-and-space-mode="label-alignment">` +
        (`<style:list-level-label-alignment text:label-followed-by="space"/>` + `</style:list-level-properties>`) +
        `</text:outline-level-style>`,
    )
    .join('')}</text:outline-style>`,
  '<text:list-style style:name="Steps"><text:list-level-style-number text:level="1" style:num-format="1" ' +
    'style:num-suffix="."><style:list-level-properties text:list-level-position-and-space-mode="label-alignment">' +
    '<style:list-level-label-alignment text:label-followed-by="listtab" text:list-tab-stop-position="0.6cm" ' +
    'fo:text-indent="-0.6cm" fo:margin-left="0.6cm"/></style:list-level-properties>' +
    '</text:list-level-style-number></text:list-style>',
  '<text:notes-configuration text:note-class="footnote" style:num-format="1" text:start-value="0" text:footnotes-position="page"/>',
].join('')

let notes = 0
const note = (words: string) =>
  `<text:note text:id="ftn${++notes}" text:note-class="footnote"><text:note-citation>${notes}</text:note-citation>` +
  `<text:note-body><text:p text:style-name="Footnote">${escapeXml(words)}</text:p>` +
  `</text:note-body></text:note>`
const inlines = (parts: readonly SourceInline[]) =>
  parts.map(part => (part.kind === 'note' ? note(part.text) : escapeXml(part.text))).join('')
const filled = (words: string, boat: Boat) =>
  words
    .replaceAll('{boat}', boat.name)
    .replaceAll('{people}', String(boat.people))
    .replaceAll('{way}', String(boat.way))
    .replaceAll('{place}', boat.place)
    .replaceAll('{fitting}', boat.fitting)
    .replaceAll('{side}', boat.side)
const p = (styleName: string, inside: string) => `<text:p text:style-name="${styleName}">${inside}</text:p>`
const h = (level: number, words: string, styleName = `Heading_20_${level}`) =>
  `<text:h text:style-name="${styleName}" text:outline-level="${level}">${escapeXml(words)}</text:h>`

function table(name: string, rows: readonly (readonly string[])[]): string {
  const cell = (words: string) =>
    `<table:table-cell table:style-name="Bill_20_cell">${p('Bill_20_text', escapeXml(words))}</table:table-cell>`
  const row = (cells: readonly string[]) => `<table:table-row>${cells.map(cell).join('')}</table:table-row>`
  return (
    `<table:table table:name="${name}" table:style-name="Bill"><table:table-column ` +
    `table:style-name="Bill_20_column" table:number-columns-repeated="${rows[0]!.length}"/>` +
    `<table:table-header-rows>${row(rows[0]!)}</table:table-header-rows>${rows.slice(1).map(row).join('')}</table:table>`
  )
}

/** Who stands which watch: each hand one place further every week, so that the bill agrees with itself. */
const watchBill = (boat: Boat, weeks: number) => [
  ['Week', ...watches],
  ...Array.from({ length: weeks }, (_, week) => [
    String(week + 1),
    ...watches.map((_, at) => ranks[(week + at + boat.way) % ranks.length]!),
  ]),
]

function card(source: string, boat: Boat, at: number): string {
  const written: string[] = []
  let list: string[] = []
  const close = () => {
    if (list.length > 0)
      written.push(
        `<text:list text:style-name="Steps">${list
          .map(item => `<text:list-item>${p('Item', item)}</text:list-item>`)
          .join('')}</text:list>`,
      )
    list = []
  }
  for (const block of readSource(filled(source, boat))) {
    if (block.kind === 'item') {
      list.push(inlines(block.inlines))
      continue
    }
    close()
    // A card hangs on a nail by itself: it begins a page.
    if (block.kind === 'heading') written.push(h(2, block.text.replace('duty ', ''), 'P4'))
    else if (block.kind === 'lead') written.push(p('Lead', inlines(block.inlines)))
    // Some cards were typed by somebody in a hurry: a size by hand, a word in the old face.
    else if (block.kind === 'body')
      written.push(
        p(
          at % 23 === 7 ? 'P3' : 'Body',
          at % 31 === 5
            ? inlines(block.inlines).replace(/^(\w+)/, '<text:span text:style-name="T1">$1</text:span>')
            : inlines(block.inlines),
        ),
      )
  }
  close()
  return written.join('\n')
}

function chainedCards(): string {
  const words = boats
    .map(boat =>
      p(
        'Bill_20_text',
        escapeXml(`${boat.name.replace('the ', '')}: ${boat.people} people, ${boat.way} lengths of way. ${boat.word}`),
      ),
    )
    .join('')
  const frame = (name: string, next: string, inside: string, beside: string) =>
    p(
      'Body',
      `<draw:frame draw:name="${name}" draw:style-name="fr1" text:anchor-type="paragraph" ` +
        (`svg:x="0cm" svg:y="0cm" svg:width="4.4cm" svg:height="4.6cm">` +
          `<draw:text-box${next ? ` draw:chain-next-name="${next}"` : ''}>${inside}</draw:text-box>`) +
        `</draw:frame>${escapeXml(beside)}`,
    )
  return (
    frame(
      'Fleet 1',
      'Fleet 2',
      words,
      'The boats stand in the box in the order in which they were bought. Every one of them ' +
        'is told in a few lines, so that a hand who changes ships on a wet morning knows what ' +
        'they are getting into; the rest is learned by falling over it. A boat’s people are those ' +
        'she may carry and not those she has carried. Her way is counted in her own lengths, ' +
        'from the engine’s last turn to the moment at which a thrown stick no longer goes astern, ' +
        'on a calm evening at half tide with the hatches shut.',
    ) +
    // The fleet has grown since the boxes were drawn: the second one runs over.
    frame(
      'Fleet 2',
      '',
      p('Bill_20_text', ''),
      'Two boats were added in the last ten years and nobody has had the heart to draw the ' +
        'boxes larger. Whoever sails on the boats that are no longer to be read here should ask ' +
        'aboard. The colours are the same for all of them: green to the rail, white above it, ' +
        'and a black band on the funnel for as long as the old master’s name is remembered, which ' +
        'by the look of things will be some time yet.',
    )
  )
}

/** The Crew handbook as an OpenDocument text. */
export function crewHandbook(): Uint8Array {
  notes = 0
  const duties = readFileSync(join(projectFolder(), 'demo', 'crew-handbook.txt'), 'utf8')
    .split(/^(?=# duty )/m)
    .filter(Boolean)
  const titles = duties.map(duty => /^# duty (.*)$/m.exec(duty)![1]!)
  const opening = [
    h(1, 'About this book'),
    p(
      'Opening',
      'It is kept in the wheelhouse of every boat and read by whoever has a quarter of an hour. ' +
        'There is a chapter for each boat and a card for each duty, and the cards of two boats ' +
        'differ where the boats do. What is said here has been found out by somebody the hard ' +
        'way; where it is wrong, say so to the marine superintendent, who will be pleased and ' +
        'a little surprised.',
    ),
    p(
      'Body',
      'Words in <text:span text:style-name="Small_20_capitals">small capitals</text:span> are ' +
        'orders and are repeated by whoever hears them.',
    ),
    chainedCards(),
    h(2, 'The cards'),
    `<text:section text:style-name="Columns" text:name="The cards">` +
      `${titles.map(title => p('Contents', escapeXml(title))).join('')}</text:section>`,
  ]
  let at = 0
  const chapters = boats.map((boat, index) =>
    [
      h(1, boat.name.replace('the ', 'The '), 'P1'),
      p('Opening', escapeXml(boat.word)),
      h(2, 'Watch bill'),
      table(`Bill ${index + 1}`, watchBill(boat, 34 + index * 9)),
      ...duties.map(duty => card(duty, boat, at++)),
    ].join('\n'),
  )
  const glossary =
    h(1, 'Words', 'P1') +
    `<text:section text:style-name="Columns" text:name="Words">${titles
      .map((title, index) => p('Item', `${escapeXml(title)}: see card ${index + 1} of each boat.`))
      .join('')}</text:section>`
  const body = [...opening, ...chapters, glossary].join('\n')
  const header = p(
    'Header',
    '<text:chapter text:display="name" text:outline-level="1">Chapter</text:chapter>' +
      '<text:tab/><text:page-number text:select-page="current">1</text:page-number>',
  )
  const styles = document(
    'styles',
    `<office:styles>${named}</office:styles><office:automatic-styles>` +
      `${page(
        'pm1',
        'fo:page-width="14.8cm" fo:page-height="21cm" fo:margin-top="1.4cm" fo:margin-bottom="1.5cm" ' +
          'fo:margin-left="2.2cm" fo:margin-right="1.6cm"',
        ' style:page-usage="mirrored"',
        '<style:footnote-sep style:width="0.4pt" style:rel-width="30%" style:color="#1b2430" ' +
          'style:distance-before-sep="0.2cm" style:distance-after-sep="0.1cm"/>',
        '<style:header-style><style:header-footer-properties fo:min-height="1.1cm" fo:margin-bottom="0.6cm"/>' +
          '</style:header-style>',
      )}</office:automatic-styles>` +
      `<office:master-styles><style:master-page style:name="Standard" style:page-layout-name="pm1">` +
      `<style:header>${header}</style:header></style:master-page></office:master-styles>`,
    faces,
  )
  const meta =
    `<?xml version="1.0" encoding="UTF-8"?>\n<office:document-meta${namespaces} office:version="1.3">` +
    `<office:meta><dc:title>Crew handbook</dc:title><dc:creator>Saltmere Line</dc:creator>` +
    `<dc:language>en-GB</dc:language></office:meta></office:document-meta>`
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

const faces =
  face('Spectral', 'roman') + face('Jost', 'swiss') + face('Jost Medium', 'swiss') + face('Skerrow', 'swiss')
