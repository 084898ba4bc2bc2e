import { describe, expect, it } from 'vitest'
import { applyAll } from '../../../core/document/apply'
import { applyEdit, editSchema, type Edit } from '../../../core/document/edits'
import { openDocument, partOf, saveDocument, type OdfDocument } from '../../../core/document/open'
import { EditRefusal } from '../../../core/document/refusals'
import { writeXml } from '../../../core/xml/write'
import { drawnPage, makeDrawing, makeOdt, paragraphStyle, shapeAt, smallPage, textFrame } from '../../support/fixtures'

const xml = (document: OdfDocument, path = 'content.xml') => writeXml(partOf(document, path))
const inside = (document: OdfDocument) =>
  /<office:(?:text|presentation)>(.*)<\/office:(?:text|presentation)>/s.exec(xml(document))![1]!
const node = (document: OdfDocument, name: string, at = 0, path = 'content.xml') =>
  [...partOf(document, path).descendants()].filter(each => each.name === name)[at]!.id
const text = (body: string, more: object = {}) => openDocument(makeOdt({ body, ...more }))
const deck = (pages: string) => openDocument(makeDrawing({ pages }))

/** Makes an edit as the door takes it; undoing it gives the bytes back. */
function edited(document: OdfDocument, wish: object): { document: OdfDocument; made: number | null } {
  const edit: Edit = editSchema.parse({ part: 'content.xml', ...wish })
  const done = applyEdit(document, edit, partOf(document, edit.part).nextId)
  expect(Buffer.compare(saveDocument(applyAll(done.document, done.inverse).document), saveDocument(document))).toBe(0)
  return done
}
const refused = (document: OdfDocument, wish: object) => {
  expect(() => edited(document, wish)).toThrow(EditRefusal)
  try {
    edited(document, wish)
  } catch (error) {
    return (error as Error).message
  }
  return 'done'
}
const box = { x: 72, y: 36, width: 144, height: 18 }

describe('a shape', () => {
  it('is put at a paragraph, before its text, or on a page, before its notes', () => {
    const one = text('<text:p>a</text:p>')
    expect(inside(edited(one, { type: 'add-shape', node: node(one, 'text:p'), place: box }).document)).toBe(
      '<text:p><draw:rect draw:name="Shape 1" text:anchor-type="paragraph" svg:x="72pt" svg:y="36pt" ' +
        'svg:width="144pt" svg:height="18pt"><text:p/></draw:rect>a</text:p>',
    )
    const heading = text('<text:h>a</text:h>')
    expect(edited(heading, { type: 'add-shape', node: node(heading, 'text:h'), place: box }).made).not.toBeNull()
    const page = deck(drawnPage('<draw:rect draw:name="Shape 1"/><presentation:notes/>'))
    const { document, made } = edited(page, { type: 'add-shape', node: node(page, 'draw:page'), place: box })
    expect(inside(document)).toContain('<draw:rect draw:name="Shape 1"/><draw:rect draw:name="Shape 2" svg:x')
    expect(inside(document)).toContain('</draw:rect><presentation:notes/>')
    expect(partOf(document, 'content.xml').element(made!).name).toBe('draw:rect')
    const bare = deck(drawnPage(''))
    expect(inside(edited(bare, { type: 'add-shape', node: node(bare, 'draw:page'), place: box }).document)).toMatch(
      /<text:p\/><\/draw:rect><\/draw:page>$/,
    )
  })

  it('is put nowhere else', () => {
    const list = text('<text:list><text:list-item><text:p>a</text:p></text:list-item></text:list>')
    expect(refused(list, { type: 'add-shape', node: node(list, 'text:list'), place: box })).toBe(
      'A shape is put on a page or at a paragraph. Nothing was changed.',
    )
    expect(
      refused(list, {
        type: 'add-frame',
        node: node(list, 'text:list'),
        place: box,
        text: { columns: 1, gap: 0, inset: 0 },
      }),
    ).toBe('A frame is put on a page or at a paragraph. Nothing was changed.')
  })
})

describe('a table', () => {
  it('is put behind a paragraph or a heading, of as many cells as are asked for', () => {
    const one = text('<text:p>a</text:p><text:h>b</text:h>')
    const cell = '<table:table-cell office:value-type="string"><text:p/></table:table-cell>'
    const { document, made } = edited(one, { type: 'add-table', node: node(one, 'text:p'), rows: 2, columns: 3 })
    expect(inside(document)).toBe(
      '<text:p>a</text:p><table:table table:name="Table1"><table:table-column table:number-columns-repeated="3"/>' +
        `<table:table-row>${cell.repeat(3)}</table:table-row>`.repeat(2) +
        '</table:table><text:h>b</text:h>',
    )
    expect(partOf(document, 'content.xml').element(made!).name).toBe('table:table')
    expect(
      inside(edited(document, { type: 'add-table', node: node(document, 'text:h'), rows: 1, columns: 1 }).document),
    ).toMatch(/<text:h>b<\/text:h><table:table table:name="Table2"><table:table-column\/><table:table-row>/)
  })

  it('is put into no list, and behind nothing but a paragraph', () => {
    const item = (name: string) =>
      text(`<text:list><text:${name}><text:p>a</text:p></text:${name}></text:list><text:section/>`)
    for (const name of ['list-item', 'list-header'])
      expect(refused(item(name), { type: 'add-table', node: node(item(name), 'text:p'), rows: 1, columns: 1 })).toMatch(
        /^A table does not stand in a list/,
      )
    const section = item('list-item')
    expect(refused(section, { type: 'add-table', node: node(section, 'text:section'), rows: 1, columns: 1 })).toBe(
      'A table is put behind a paragraph. Nothing was changed.',
    )
  })
})

describe('a note', () => {
  const note = (sign: string, kind = 'footnote', label = '') =>
    `<text:note text:id="${kind === 'footnote' ? 'ftn' : 'edn'}9" text:note-class="${kind}"><text:note-citation${label}>${sign}` +
    `</text:note-citation><text:note-body><text:p>n</text:p></text:note-body></text:note>`
  const made = (number: string, kind = 'footnote', id = 'ftn1') =>
    `<text:note text:id="${id}" text:note-class="${kind}"><text:note-citation>${number}</text:note-citation>` +
    '<text:note-body><text:p/></text:note-body></text:note>'
  const put = (body: string, at: number, endnote = false) => {
    const one = text(body)
    return inside(edited(one, { type: 'add-note', node: node(one, 'text:p'), at, endnote }).document)
  }

  it('stands where it is put: between letters, at either end, in an empty paragraph, in the span before', () => {
    expect(put('<text:p>abcd</text:p>', 2)).toBe(`<text:p>ab${made('1')}cd</text:p>`)
    expect(put('<text:p>abcd</text:p>', 0)).toBe(`<text:p>${made('1')}abcd</text:p>`)
    expect(put('<text:p>abcd</text:p>', 4)).toBe(`<text:p>abcd${made('1')}</text:p>`)
    expect(put('<text:p></text:p>', 0)).toBe(`<text:p>${made('1')}</text:p>`)
    expect(put('<text:p>a<text:span>b</text:span>c</text:p>', 2)).toBe(
      `<text:p>a<text:span>b${made('1')}</text:span>c</text:p>`,
    )
    expect(put('<text:p><text:span>b</text:span>c</text:p>', 0)).toBe(
      `<text:p><text:span>${made('1')}b</text:span>c</text:p>`,
    )
    expect(put('<text:p>a<text:s/>b</text:p>', 2)).toBe(`<text:p>a<text:s/>${made('1')}b</text:p>`)
  })

  it('stands beside a field, not in it', () => {
    expect(put('<text:p><text:date>today</text:date> b</text:p>', 3)).toBe(
      `<text:p><text:date>today</text:date>${made('1')} b</text:p>`,
    )
    expect(put('<text:p><text:date>today</text:date> b</text:p>', 0)).toBe(
      `<text:p>${made('1')}<text:date>today</text:date> b</text:p>`,
    )
  })

  it('is numbered with those of its kind, and none that has a label of its own is', () => {
    expect(put(`<text:p>a${note('1')}b</text:p>`, 0)).toBe(`<text:p>${made('1')}a${note('2')}b</text:p>`)
    expect(put(`<text:p>a${note('1')}b</text:p>`, 3)).toBe(`<text:p>a${note('1')}b${made('2')}</text:p>`)
    expect(put(`<text:p>a${note('1', 'endnote')}b</text:p>`, 0)).toBe(
      `<text:p>${made('1')}a${note('1', 'endnote')}b</text:p>`,
    )
    expect(put(`<text:p>a${note('*', 'footnote', ' text:label="*"')}b</text:p>`, 0)).toBe(
      `<text:p>${made('1')}a${note('*', 'footnote', ' text:label="*"')}b</text:p>`,
    )
    expect(put(`<text:p>a${note('1')}b</text:p>`, 0, true)).toBe(
      `<text:p>${made('1', 'endnote', 'edn1')}a${note('1')}b</text:p>`,
    )
    expect(put(`<text:p>a<text:note text:note-class="footnote"><text:note-body/></text:note></text:p>`, 0)).toContain(
      made('1'),
    )
  })

  it('has none of its own, and stands in text that is there', () => {
    const one = text(`<text:p>a${note('1')}</text:p>`)
    expect(refused(one, { type: 'add-note', node: node(one, 'text:p', 1), at: 0, endnote: false })).toBe(
      'A note has no notes of its own. Nothing was changed.',
    )
    expect(refused(one, { type: 'add-note', node: node(one, 'text:p'), at: 3, endnote: false })).toBe(
      'This place is no longer in the text. Nothing was changed.',
    )
  })

  it('of a margin says who wrote it, and when, in as many lines', () => {
    const one = text('<text:p>ab</text:p>')
    const wish = {
      type: 'add-annotation',
      node: node(one, 'text:p'),
      at: 1,
      author: ' A.  Pilot ',
      date: '2026-03-01T10:00:00Z',
      text: 'why  <this>\n\nand that',
    }
    expect(inside(edited(one, wish).document)).toBe(
      '<text:p>a<office:annotation><dc:creator>A. Pilot</dc:creator><dc:date>2026-03-01T10:00:00Z</dc:date>' +
        '<text:p>why &lt;this&gt;</text:p><text:p/><text:p>and that</text:p></office:annotation>b</text:p>',
    )
  })
})

describe('a header', () => {
  const styles = 'styles.xml'
  const masters = (inside_: string) =>
    `<style:master-page style:name="Standard" style:page-layout-name="pm">${inside_}</style:master-page>`
  const put = (which: string, inside_: string, layout = smallPage) => {
    const one = text('<text:p>a</text:p>', { masters: masters(inside_), stylesAutomatic: layout })
    return xml(
      edited(one, { type: 'add-header', part: styles, node: node(one, 'style:master-page', 0, styles), which })
        .document,
      styles,
    )
  }
  const footer = '<style:footer><text:p>f</text:p></style:footer>'
  const header = '<style:header><text:p>h</text:p></style:header>'
  const left = '<style:header-left><text:p>l</text:p></style:header-left>'

  it('stands before all else of its master page, a footer behind headers', () => {
    expect(put('header', footer)).toContain(`<style:header><text:p/></style:header>${footer}</style:master-page>`)
    expect(put('footer', header + left)).toContain(
      `${header}${left}<style:footer><text:p/></style:footer></style:master-page>`,
    )
    expect(put('footer', `${header}<draw:rect/>`)).toContain(
      `${header}<style:footer><text:p/></style:footer><draw:rect/>`,
    )
    expect(put('header', '')).toContain('<style:header><text:p/></style:header></style:master-page>')
  })

  it('gets room on the page, where the page says nothing of it yet', () => {
    const room = (which: string, margin: string) =>
      `<style:${which}-style><style:header-footer-properties fo:min-height="0.5cm" fo:margin-${margin}="0.4cm"/></style:${which}-style>`
    expect(put('header', '')).toContain(`${room('header', 'bottom')}</style:page-layout>`)
    expect(put('footer', '')).toContain(`${room('footer', 'top')}</style:page-layout>`)
    const withFooter = smallPage.replace('</style:page-layout>', '<style:footer-style/></style:page-layout>')
    expect(put('header', '', withFooter)).toContain(
      `${room('header', 'bottom')}<style:footer-style/></style:page-layout>`,
    )
    const both = smallPage.replace(
      '</style:page-layout>',
      '<style:header-style/><style:footer-style/></style:page-layout>',
    )
    expect(put('footer', '', both)).toContain('<style:header-style/><style:footer-style/></style:page-layout>')
  })

  it('is there once, and on master pages alone', () => {
    const one = text('<text:p>a</text:p>', { masters: masters(header) })
    const master = node(one, 'style:master-page', 0, styles)
    expect(refused(one, { type: 'add-header', part: styles, node: master, which: 'header' })).toBe(
      'This master page has a header already. Nothing was changed.',
    )
    expect(
      refused(one, {
        type: 'add-header',
        part: styles,
        node: node(one, 'style:page-layout', 0, styles),
        which: 'footer',
      }),
    ).toBe('Headers and footers belong to master pages. Nothing was changed.')
  })
})

describe('frames that go on in each other', () => {
  const frame = (name: string, inside_ = '<text:p/>', next = '') =>
    textFrame(shapeAt(1, 1, 2, 2), inside_, name && `draw:name="${name}"`, next && ` draw:chain-next-name="${next}"`)
  const of = (...frames: string[]) => deck(drawnPage(frames.join('')))
  const chain = (document: OdfDocument, from: number, next: number | null) => ({
    type: 'chain',
    node: node(document, 'draw:frame', from),
    next: next === null ? null : node(document, 'draw:frame', next),
  })
  const nexts = (document: OdfDocument) =>
    [...partOf(document, 'content.xml').descendants()]
      .filter(each => each.name === 'draw:text-box')
      .map(each => each.attributes['draw:chain-next-name'] ?? '-')

  it('are chained to an empty one, which gets a name where it has none, and let go again', () => {
    const two = of(frame('A', '<text:p>a</text:p>'), frame(''))
    const { document } = edited(two, chain(two, 0, 1))
    expect(nexts(document)).toEqual(['Text frame 1', '-'])
    expect(xml(document)).toContain('draw:name="Text frame 1"')
    expect(nexts(edited(document, chain(document, 0, null)).document)).toEqual(['-', '-'])
    const named = of(frame('A'), frame('B'))
    expect(nexts(edited(named, chain(named, 0, 1)).document)).toEqual(['B', '-'])
    // It goes on there already: nothing speaks against that.
    const again = of(frame('A', '<text:p/>', 'B'), frame('B'))
    expect(nexts(edited(again, chain(again, 0, 1)).document)).toEqual(['B', '-'])
  })

  it.each<[string, OdfDocument, number, number, RegExp]>([
    ['to themselves', of(frame('A')), 0, 0, /cannot be chained to itself/],
    ['to one with text', of(frame('A'), frame('B', '<text:p>b</text:p>')), 0, 1, /has text of its own/],
    [
      'to one that another goes on in',
      of(frame('A'), frame('B'), frame('C', '<text:p/>', 'B')),
      0,
      1,
      /Another frame goes on/,
    ],
    ['in a ring', of(frame('A', '<text:p/>', 'B'), frame('B')), 1, 0, /without an end/],
    [
      'in a longer ring',
      of(frame('A', '<text:p/>', 'B'), frame('B', '<text:p/>', 'C'), frame('C')),
      2,
      0,
      /without an end/,
    ],
    ['to a picture', of(frame('A'), '<draw:frame><draw:image/></draw:frame>'), 0, 1, /Only text frames are chained/],
    ['from a picture', of('<draw:frame><draw:image/></draw:frame>', frame('A')), 0, 1, /Only text frames are chained/],
  ])('are not chained %s', (_, document, from, next, message) => {
    expect(refused(document, chain(document, from, next))).toMatch(message)
  })

  it('are healed when one between goes, and end where the last goes', () => {
    const three = of(frame('A', '<text:p/>', 'B'), frame('B', '<text:p/>', 'C'), frame('C'))
    const without = (at: number) =>
      nexts(edited(three, { type: 'remove-frame', node: node(three, 'draw:frame', at) }).document)
    expect(without(1)).toEqual(['C', '-'])
    expect(without(2)).toEqual(['B', '-'])
    expect(without(0)).toEqual(['C', '-'])
    const page = of(frame('A'))
    expect(refused(page, { type: 'remove-frame', node: node(page, 'text:p') })).toBe(
      'This is no frame. Nothing was changed.',
    )
  })
})

describe('where the file says that something lies', () => {
  const line = { x: 10, y: 10, width: 50, height: 50 }
  const to = (more: Partial<typeof line>) => ({ ...line, ...more })
  const placed = (shape: string, name: string, target: object, from: object = line) => {
    const one = deck(drawnPage(shape))
    return inside(edited(one, { type: 'place-frame', node: node(one, name), from, to: target }).document)
  }
  const right = { x: 30 }

  it.each<[string, string, string, object, string]>([
    [
      'a frame',
      '<draw:frame svg:x="20pt" svg:y="40pt" svg:width="60pt" svg:height="80pt"/>',
      'draw:frame',
      to(right),
      'svg:x="40pt" svg:y="40pt" svg:width="60pt"',
    ],
    [
      'a frame that says no place',
      '<draw:frame svg:width="60pt"/>',
      'draw:frame',
      to(right),
      'svg:x="20pt" svg:y="0pt"',
    ],
    [
      'a circle by its middle',
      '<draw:circle svg:cx="40pt" svg:cy="60pt" svg:r="20pt"/>',
      'draw:circle',
      to(right),
      '<draw:circle svg:cx="60pt" svg:cy="60pt" svg:r="20pt"/>',
    ],
    [
      'a line by its ends',
      '<draw:line svg:x1="20pt" svg:y1="20pt" svg:x2="40pt" svg:y2="40pt"/>',
      'draw:line',
      to(right),
      'svg:x1="40pt" svg:y1="20pt" svg:x2="60pt" svg:y2="40pt"',
    ],
    [
      'a connector, without its path',
      '<draw:connector svg:x1="20pt" svg:y1="20pt" svg:x2="40pt" svg:y2="40pt" svg:d="M0 0"/>',
      'draw:connector',
      to(right),
      'svg:x2="60pt" svg:y2="40pt"/>',
    ],
    [
      'what is turned, behind its turn',
      '<draw:rect draw:transform="rotate(1)"/>',
      'draw:rect',
      to(right),
      'draw:transform="rotate(1) translate(20pt 0pt)"',
    ],
    [
      'what is in a group',
      '<draw:g><draw:rect svg:x="20pt" svg:y="20pt"/><draw:glue-point svg:x="20pt"/></draw:g>',
      'draw:g',
      to(right),
      '<draw:rect svg:x="40pt" svg:y="20pt"/><draw:glue-point svg:x="20pt"/>',
    ],
    [
      'a frame, by its size',
      '<draw:frame svg:width="20pt" svg:height="20pt" style:rel-width="50%" style:rel-height="50%"/>',
      'draw:frame',
      to({ width: 72 }),
      '<draw:frame svg:width="72pt" svg:height="50pt"/>',
    ],
    [
      'a text frame that is as high at least',
      '<draw:frame svg:width="20pt"><draw:text-box fo:min-height="20pt"/></draw:frame>',
      'draw:frame',
      to({ height: 72 }),
      '<draw:text-box fo:min-height="72pt"/>',
    ],
    [
      'a text frame of no least height',
      '<draw:frame svg:width="20pt"><draw:text-box/></draw:frame>',
      'draw:frame',
      to({ height: 72 }),
      '<draw:text-box/>',
    ],
    [
      'a circle that grows',
      '<draw:circle svg:cx="20pt" svg:cy="20pt" svg:r="20pt"/>',
      'draw:circle',
      to({ width: 90 }),
      '<draw:circle svg:cx="40pt" svg:cy="20pt" svg:rx="45pt" svg:ry="25pt"/>',
    ],
    [
      'a rectangle of round corners',
      '<draw:rect svg:rx="20pt" svg:ry="20pt" svg:width="20pt" svg:height="20pt"/>',
      'draw:rect',
      to({ width: 72 }),
      'svg:rx="20pt" svg:ry="20pt" svg:width="72pt"',
    ],
    [
      'an ellipse with a box of its own',
      '<draw:ellipse svg:rx="20pt" svg:ry="20pt" svg:width="40pt" svg:height="40pt"/>',
      'draw:ellipse',
      to({ width: 72 }),
      'svg:width="72pt" svg:height="50pt" svg:rx="36pt" svg:ry="25pt"',
    ],
  ])('%s', (_, shape, name, target, expected) => {
    const after = placed(shape, name, target)
    for (const attribute of expected.match(/[\w:-]+="[^"]*"|<[\w:-]+/g)!) expect(after).toContain(attribute)
    if (expected.startsWith('<')) expect(after).toContain(expected)
  })

  it('is not changed by being put where it is', () => {
    const shape = '<draw:frame svg:x="20.0pt" svg:width="20.0pt"/>'
    expect(placed(shape, 'draw:frame', line)).toContain(shape)
  })

  it.each([
    ['<draw:frame text:anchor-type="as-char" svg:width="20pt"/>', 'draw:frame', to({ x: 11 }), /like a letter/],
    ['<draw:frame text:anchor-type="as-char" svg:width="20pt"/>', 'draw:frame', to({ y: 11 }), /like a letter/],
    ['<draw:g><draw:rect/></draw:g>', 'draw:g', to({ width: 60 }), /size of a group/],
    ['<draw:g><draw:rect/></draw:g>', 'draw:g', to({ height: 60 }), /size of a group/],
    ['<draw:line/>', 'draw:line', to({ width: 60 }), /A line has ends/],
    ['<draw:measure/>', 'draw:measure', to({ width: 60 }), /A line has ends/],
  ])('is refused: %s', (shape, name, target, message) => {
    const one = deck(drawnPage(shape))
    expect(refused(one, { type: 'place-frame', node: node(one, name), from: line, to: target })).toMatch(message)
  })

  it('of a frame in a line is its size alone', () => {
    expect(
      placed(
        '<draw:frame text:anchor-type="as-char" svg:width="20pt" svg:height="20pt"/>',
        'draw:frame',
        to({ width: 72 }),
      ),
    ).toContain('svg:width="72pt"')
  })
})

describe('columns and insets of a frame', () => {
  const set = (one: OdfDocument, name: string, wish: object) =>
    xml(
      edited(one, { type: 'frame-text', node: node(one, name), text: { columns: 1, gap: 0, inset: 0, ...wish } })
        .document,
    )
  const own = (graphic: string) =>
    openDocument(
      makeDrawing({
        pages: drawnPage('<draw:rect draw:style-name="gr1"/><draw:rect draw:style-name="gr1"/>'),
        automatic: `<style:style style:name="gr1" style:family="graphic">${graphic}</style:style>${paragraphStyle('gr1')}`,
      }),
    )

  it('stand in a copy of the automatic style that it has, for itself alone', () => {
    const after = set(
      own(
        '<style:graphic-properties fo:padding-left="1cm" draw:fill="none"><style:columns fo:column-count="4"/>' +
          '</style:graphic-properties>',
      ),
      'draw:rect',
      { columns: 2, gap: 72, inset: 36 },
    )
    expect(after).toContain(
      '<style:style style:name="MorpheneFrame1" style:family="graphic"><style:graphic-properties draw:fill="none" fo:padding="36pt">' +
        '<style:columns fo:column-count="2" fo:column-gap="72pt"/></style:graphic-properties></style:style>',
    )
    expect(after).toContain('<draw:rect draw:style-name="MorpheneFrame1"/><draw:rect draw:style-name="gr1"/>')
    expect(
      set(
        own('<style:graphic-properties><style:columns fo:column-count="4"/></style:graphic-properties>'),
        'draw:rect',
        {},
      ),
    ).toContain(
      'style:name="MorpheneFrame1" style:family="graphic"><style:graphic-properties fo:padding="0pt"></style:graphic-properties>',
    )
    expect(set(own(''), 'draw:rect', { columns: 2 })).toContain(
      '<style:graphic-properties fo:padding="0pt"><style:columns',
    )
  })

  it('stand in a style of its own that goes back to the named one it has', () => {
    const of = (shape: string) => deck(drawnPage(shape))
    expect(set(of('<draw:rect draw:style-name="Named"/>'), 'draw:rect', { inset: 36 })).toContain(
      '<style:style style:name="MorpheneFrame1" style:family="graphic" style:parent-style-name="Named">' +
        '<style:graphic-properties fo:padding="36pt"/>',
    )
    expect(set(of('<draw:rect presentation:style-name="Named"/>'), 'draw:rect', {})).toContain(
      '<style:style style:name="MorpheneFrame1" style:family="presentation" style:parent-style-name="Named">',
    )
    expect(set(of('<draw:rect/>'), 'draw:rect', {})).toContain(
      '<style:style style:name="MorpheneFrame1" style:family="graphic"><style:graphic',
    )
  })

  it.each(['draw:g', 'draw:line', 'draw:connector', 'draw:measure', 'draw:a'])('are none of a %s', name => {
    const one = deck(drawnPage(`<${name}/>`))
    expect(refused(one, { type: 'frame-text', node: node(one, name), text: { columns: 1, gap: 0, inset: 0 } })).toMatch(
      /room for text/,
    )
  })
})
