import { PNG } from 'pngjs'
import { describe, expect, it } from 'vitest'
import { galleyMenu } from '../../../demo/galley-menu'
import { harbourNotice } from '../../../demo/harbour-notice'
import { sailingGuide } from '../../../demo/sailing-guide'
import { seasonReview } from '../../../demo/season-review'
import {
  drawnPage,
  face,
  makeDrawing,
  makeOdt,
  shapeAt,
  standardMaster,
  textFrame,
  textStyle,
  type Fixture,
} from '../../support/fixtures'
import { madePdf } from '../../support/made-pdf'
import { outlineOf, outlineOfText, tagsOf, untagged, type Tagged } from '../../support/tagged-pdf'

const small = (fixture: Fixture) =>
  makeOdt({
    faces: face('Spectral'),
    stylesFaces: face('Spectral'),
    styles:
      '<style:default-style style:family="paragraph"><style:text-properties style:font-name="Spectral" ' +
      'fo:font-size="12pt" fo:language="en" fo:country="GB"/></style:default-style>',
    ...fixture,
  })
const bare =
  '<style:default-style style:family="paragraph"><style:text-properties style:font-name="Spectral"/></style:default-style>'
const made = async (fixture: Fixture) => {
  const pdf = await madePdf(small(fixture), { name: 'Notice' })
  expect(pdf.check()).toBe(0)
  expect(untagged(pdf.path)).toEqual([])
  return { ...pdf, tags: tagsOf(pdf.path) }
}
/** Elements as they nest, with their text: “P(one Span(deux))”. */
const shape = (element: Tagged | string): string =>
  typeof element === 'string' ? element : `${element.type}(${element.children.map(shape).join('')})`
const shapeOf = ({ tags }: { readonly tags: Tagged }) => (tags.children[0] as Tagged).children.map(shape)
const h = (level: number, text: string) => `<text:h text:outline-level="${level}">${text}</text:h>`
const p = (text: string) => `<text:p>${text}</text:p>`
const picture = (): Uint8Array => {
  const png = new PNG({ width: 4, height: 4 })
  png.data.fill(180)
  return new Uint8Array(PNG.sync.write(png))
}

describe('the structure of a PDF', () => {
  it('has headings and paragraphs in reading order', async () => {
    const pdf = await made({
      body: h(1, 'Boats') + p('Three of them.') + h(2, 'Grey Plover') + p('') + p('The oldest.'),
    })
    expect(shapeOf(pdf)).toEqual(['H1(Boats)', 'P(Three of them.)', 'H2(Grey Plover)', 'P(The oldest.)'])
    expect(pdf.lacks).toEqual([])
    expect(pdf.source()).toContain('<pdfuaid:part>1</pdfuaid:part>')
  })

  it('has lists in lists, each item with its label and its body', async () => {
    const styles =
      '<text:list-style style:name="L"><text:list-level-style-number text:level="1" style:num-format="1" style:num-suffix="."/>' +
      '<text:list-level-style-bullet text:level="2" text:bullet-char="–"/></text:list-style>'
    const item = (inside: string) => `<text:list-item>${inside}</text:list-item>`
    const pdf = await made({
      automatic: styles,
      body:
        `<text:list text:style-name="L">${item(p('one') + p('goes on') + `<text:list>${item(p('within'))}</text:list>`)}` +
        `${item(p('two'))}</text:list>${p('after')}`,
    })
    expect(shapeOf(pdf)).toEqual([
      'L(LI(Lbl(1.)LBody(P(one)P(goes on)L(LI(Lbl(–)LBody(P(within))))))LI(Lbl(2.)LBody(P(two))))',
      'P(after)',
    ])
    expect(pdf.source()).toMatch(/\/ListNumbering \/Decimal/)
    expect(pdf.source()).toMatch(/\/ListNumbering \/Disc/)
  })

  it('has tables with header cells, spans, and empty cells in their places', async () => {
    const cell = (text: string, more = '') => `<table:table-cell${more}>${p(text)}</table:table-cell>`
    const pdf = await made({
      body:
        `<table:table><table:table-column table:number-columns-repeated="2"/><table:table-header-rows><table:table-row>` +
        `${cell('Pier')}${cell('Fare')}</table:table-row></table:table-header-rows><table:table-row>${cell('Ossay')}${cell('')}` +
        `</table:table-row><table:table-row>${cell('both', ' table:number-columns-spanned="2"')}<table:covered-table-cell/>` +
        `</table:table-row></table:table>`,
    })
    expect(shapeOf(pdf)).toEqual(['Table(THead(TR(TH(P(Pier))TH(P(Fare))))TBody(TR(TD(P(Ossay))TD())TR(TD(P(both)))))'])
    expect(pdf.source()).toMatch(/\/Scope \/Column/)
    expect(pdf.source()).toMatch(/\/ColSpan 2/)
  })

  it('tells heads of tables once, however often they are drawn', async () => {
    const cell = (text: string) => `<table:table-cell>${p(text)}</table:table-cell>`
    const rows = Array.from({ length: 120 }, (_, at) => `<table:table-row>${cell(`row ${at}`)}</table:table-row>`)
    const pdf = await made({
      body:
        `<table:table><table:table-column/><table:table-header-rows><table:table-row>${cell('Departures')}` +
        `</table:table-row></table:table-header-rows>${rows.join('')}</table:table>`,
    })
    expect(pdf.pages).toBeGreaterThan(1)
    expect(pdf.text().match(/Departures/g)!.length).toBe(pdf.pages)
    expect(
      shapeOf(pdf)
        .join('')
        .match(/Departures/g),
    ).toHaveLength(1)
  })

  it('has figures with what the file says that they show, and tells of those without', async () => {
    const frame = (inside: string) =>
      `<draw:frame text:anchor-type="as-char" svg:width="2cm" svg:height="2cm"><draw:image xlink:href="Pictures/a.png"/>` +
      `${inside}</draw:frame>`
    const parts = [{ path: 'Pictures/a.png', type: 'image/png', content: picture() }]
    const pdf = await made({
      parts,
      body: p(
        `before ${frame('<svg:title>A pier</svg:title><svg:desc>The pier of Ossay at low water</svg:desc>')} after`,
      ),
    })
    expect(shapeOf(pdf)).toEqual(['P(before Figure()after)'])
    const hex = Buffer.from('The pier of Ossay at low water', 'utf16le').swap16().toString('hex')
    expect(pdf.source().toLowerCase()).toContain(`/alt <feff${hex}>`)
    expect(pdf.source()).toMatch(/\/BBox \[\s+[\d.]+\s+[\d.]+/)
    expect(pdf.lacks).toEqual([])
    const without = await made({ parts, body: p(frame('')) + p(frame('')) })
    expect(without.lacks).toEqual(['2 figures have no description'])
    expect(without.source()).not.toContain('pdfuaid:part')
  })

  it('has notes where they are called, and the calls as references', async () => {
    const note =
      '<text:note text:note-class="footnote"><text:note-citation>1</text:note-citation><text:note-body>' +
      `${p('Only in summer.')}</text:note-body></text:note>`
    expect(shapeOf(await made({ body: p(`Daily${note} at nine.`) }))).toEqual([
      'P(DailyReference(1)Note(Lbl(1)P(Only in summer.)) at nine.)',
    ])
  })

  it('has links to the web and into the document, and leaves those to files beside it', async () => {
    const link = (href: string, text: string) => `<text:a xlink:href="${href}">${text}</text:a>`
    const pdf = await made({
      body:
        h(1, '<text:bookmark text:name="piers"/>Piers') +
        p(
          `${link('https://saltmere.example/ti mes', 'the times')}, ${link('#piers', 'up')}, ${link('#Piers|outline', 'there')}, `,
        ) +
        p(link('../other.odt', 'a file')),
    })
    expect(shapeOf(pdf).slice(1)).toEqual(['P(Link(the times), Link(up), Link(there),)', 'P(Link(a file))'])
    const source = pdf.source()
    expect(source.match(/\/Subtype \/Link/g)).toHaveLength(3)
    expect(source).toContain('/URI (https://saltmere.example/ti%20mes)')
    expect(source.match(/\/XYZ\s+null/g)!.length).toBeGreaterThanOrEqual(2)
    expect(source).toContain('/Tabs /S')
    // Every annotation stands in the structure, and says where.
    expect(source.match(/\/Type \/OBJR/g)).toHaveLength(3)
    expect(source.match(/\/StructParent \d/g)).toHaveLength(3)
  })

  it('tells the language of words and of paragraphs that depart from the document’s', async () => {
    const styles = textStyle('F', 'fo:language="fr" fo:country="FR"')
    const pdf = await made({
      automatic: styles,
      body:
        p('This is plainly English, and more of it.') +
        p('Say <text:span text:style-name="F">bon voyage</text:span> now.') +
        p('<text:span text:style-name="F">Tout en français.</text:span>'),
    })
    expect(shapeOf(pdf)).toEqual([
      'P(This is plainly English, and more of it.)',
      'P(Say Span(bon voyage) now.)',
      'P(Tout en français.)',
    ])
    expect(pdf.source()).toContain('/Lang (en-GB)')
    expect(pdf.source().match(/\/Lang \(fr-FR\)/g)).toHaveLength(2)
  })

  it('keeps the order of words where languages take turns in one stretch of text', async () => {
    const styles =
      '<style:default-style style:family="paragraph"><style:text-properties style:font-name="Spectral" fo:language="en" ' +
      'fo:country="GB" style:language-asian="ja" style:country-asian="JP"/></style:default-style>'
    const pdf = await made({ styles, body: p('航路 one 航路 two 航路') })
    expect(
      shapeOf(pdf)
        .join('')
        .replace(/[^一-龥a-z]/g, '')
        .replace(/pan/g, ''),
    ).toBe('航路one航路two航路')
  })

  it('has the number of a heading beside its words', async () => {
    const styles =
      '<text:outline-style style:name="Outline"><text:outline-level-style text:level="1" style:num-format="1" ' +
      'style:num-suffix="."/></text:outline-style>'
    expect(shapeOf(await made({ styles: bare + styles, body: h(1, 'Boats') }))).toEqual(['H1(Lbl(1.)Boats)'])
  })

  it('leaves out heads and feet, lines and grounds', async () => {
    const pdf = await made({
      masters: standardMaster(`<style:header>${p('Saltmere Line')}</style:header>`),
      body: p('the text'),
    })
    expect(pdf.text()).toContain('Saltmere Line')
    expect(shapeOf(pdf)).toEqual(['P(the text)'])
    expect(pdf.source()).toContain('/Artifact <</Type /Pagination>> BDC')
  })

  it('says where headings skip a level, and that a text has no language', async () => {
    expect((await made({ body: h(1, 'One') + h(3, 'Three') })).lacks).toEqual(['headings skip a level'])
    expect((await made({ styles: bare, body: p('words') })).lacks).toEqual(['its text has no language'])
  })

  it('leaves out what lies beside the page: it would not be seen, and be read aloud', async () => {
    const pdf = await madePdf(
      makeDrawing({
        pages: drawnPage(
          textFrame(shapeAt(1, 1, 5, 2), p('on the page')) + textFrame(shapeAt(14, 1, 5, 2), p('old prices')),
        ),
      }),
      { name: 'Card' },
    )
    expect(pdf.offPage).toBe(1)
    expect(pdf.text()).not.toContain('old prices')
    expect(shape((tagsOf(pdf.path).children[0] as Tagged).children[0]!)).toBe('Sect(P(on the page))')
  })

  it('has a part for every page of a presentation, its title as a heading', async () => {
    const place = shapeAt(1, 1, 12, 3)
    const pdf = await madePdf(
      makeDrawing({
        kind: 'presentation',
        pages:
          drawnPage(
            textFrame(place, p('The season'), 'presentation:class="title"') +
              textFrame(shapeAt(1, 6, 12, 3), p('in numbers')),
          ) + drawnPage(textFrame(place, p('Crossings'), 'presentation:class="title"')),
      } as never),
      { name: 'Review' },
    )
    const root = tagsOf(pdf.path).children[0] as Tagged
    expect(root.children.map(shape)).toEqual(['Sect(H1(The season)P(in numbers))', 'Sect(H1(Crossings))'])
    expect(untagged(pdf.path)).toEqual([])
  })
})

describe('the demo’s documents as PDF', () => {
  it.each([
    ['sailing guide', sailingGuide],
    ['harbour notice', harbourNotice],
  ])('%s: as its XML is read by itself', async (_, write) => {
    const bytes = write()
    const pdf = await madePdf(bytes, { name: 'Demo', leaveOut: true })
    expect(untagged(pdf.path)).toEqual([])
    expect(outlineOf(tagsOf(pdf.path))).toEqual(outlineOfText(bytes))
  })

  it.each([
    ['season review', seasonReview],
    ['galley menu', galleyMenu],
  ])('%s: nothing without a place', async (_, write) => {
    const pdf = await madePdf(write(), { name: 'Demo', leaveOut: true, notes: true })
    expect(pdf.check()).toBe(0)
    expect(untagged(pdf.path)).toEqual([])
  })
})
