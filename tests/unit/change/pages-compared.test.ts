import { describe, expect, it } from 'vitest'
import { changedLines, countLines } from '../../../core/change/effects'
import { drawingOf, drawnPage, face, paragraphStyle, sessionOf, shapeAt, textFrame } from '../../support/fixtures'
import { planned } from '../../support/planning'

const cell = (text: string, more = '') =>
  `<table:table-cell${more}><text:p text:style-name="Cell">${text}</text:p></table:table-cell>`
const row = (cells: string) => `<table:table-row>${cells}</table:table-row>`
const table = (rows: string) => `<table:table><table:table-column/><table:table-column/>${rows}</table:table>`
const body =
  '<text:p text:style-name="Body">Body text that takes some words to fill a line or two of this page, and goes on.</text:p>'
const text = (inside: string) =>
  sessionOf({
    stylesFaces: face('Spectral'),
    styles:
      '<style:default-style style:family="paragraph"><style:text-properties style:font-name="Spectral" fo:font-size="10pt"/>' +
      '</style:default-style>' +
      paragraphStyle('Body', '', 'fo:line-height="12pt"') +
      paragraphStyle('Cell', '', 'fo:line-height="12pt"') +
      paragraphStyle('Head', 'fo:font-size="14pt"'),
    body: inside,
  })
const edit = (name: string, values: object, paragraph: object = {}) => ({
  type: 'edit',
  family: 'paragraph',
  name,
  changes: { text: values, paragraph },
})
const effects = (of: ReturnType<typeof text>, ...wishes: object[]) => planned(of, wishes).plan.effects!
const taller = edit('Cell', {}, { 'fo:line-height': '17pt' })

describe('what a plan says of tables', () => {
  it('is how high their text was and is, row by row: as high as the tallest cell', () => {
    // One cell of the first row has two lines: 12 points each, and 17 then.
    const of = text(
      body + table(row(cell('Pier') + cell('one two three four five six seven')) + row(cell('a') + cell('b'))),
    )
    expect(effects(of, taller).tables).toMatchObject([
      { page: 0, heightBefore: 36, heightAfter: 51, rows: 2, opening: 'Pier', part: 'content.xml' },
    ])
  })

  it('leaves cells aside that are covered or go over several rows, and rows that stay', () => {
    const of = text(
      body +
        table(
          row(
            cell('Pier', ' table:number-rows-spanned="2"') +
              '<table:table-cell><text:p text:style-name="Body">x</text:p></table:table-cell>',
          ) +
            row(
              '<table:covered-table-cell><text:p text:style-name="Cell">no</text:p></table:covered-table-cell>' +
                cell('b'),
            ),
        ),
    )
    expect(effects(of, taller).tables).toMatchObject([{ heightBefore: 24, heightAfter: 29, rows: 1, opening: 'Pier' }])
    expect(effects(of, edit('Head', { 'fo:font-size': '15pt' })).tables).toEqual([])
    // Half a point is no change that anyone sees.
    expect(effects(of, edit('Cell', {}, { 'fo:line-height': '12.5pt' })).tables).toEqual([])
    expect(effects(of, edit('Cell', {}, { 'fo:line-height': '12.6pt' })).tables).toHaveLength(1)
  })

  it('finds them in cells and in frames', () => {
    const inner = table(row(cell('inner')))
    const of = text(
      body +
        table(row(`<table:table-cell>${inner}</table:table-cell>`)) +
        `<text:p>${textFrame('svg:width="5cm" svg:height="2cm"', table(row(cell('framed'))))}</text:p>`,
    )
    expect(
      effects(of, taller)
        .tables.map(each => each.opening)
        .sort(),
    ).toEqual(['framed', 'inner', 'inner'])
  })
})

describe('what a plan says of paragraphs', () => {
  it('is which gain lines, on which pages, and whether they are titles', () => {
    const of = text(
      `<text:h text:style-name="Head">A heading</text:h>${body}<text:p text:style-name="Body">end</text:p>`,
    )
    const { paragraphs, paragraphsChanged, pages, linesBefore, linesAfter, pagesBefore, pagesAfter } = effects(
      of,
      edit('Body', { 'fo:font-size': '14pt' }),
    )
    expect(paragraphs).toMatchObject([
      {
        page: 0,
        pageAfter: 0,
        linesBefore: 2,
        linesAfter: 3,
        title: false,
        notes: false,
        opening: 'Body text that takes some words to fill a line or two of thi',
      },
    ])
    expect({ paragraphsChanged, pages, linesBefore, linesAfter, pagesBefore, pagesAfter }).toEqual({
      paragraphsChanged: 1,
      pages: [{ page: 0, paragraphs: 1, lines: 1 }],
      linesBefore: 4,
      linesAfter: 5,
      pagesBefore: 1,
      pagesAfter: 1,
    })
    const head = effects(of, edit('Head', { 'fo:font-size': '80pt' }))
    expect(head.paragraphs).toMatchObject([{ opening: 'A heading', title: true, linesBefore: 1 }])
    // Those that change most come first.
    const both = effects(of, edit('Head', { 'fo:font-size': '80pt' }), edit('Body', { 'fo:font-size': '40pt' }))
    const by = both.paragraphs.map(each => Math.abs(each.linesAfter - each.linesBefore))
    expect(by.length).toBeGreaterThan(1)
    expect(by).toEqual([...by].sort((a, b) => b - a))
  })

  it('tells those that change alike page by page, those of notes among them', () => {
    const words = 'one two three four five six seven eight nine'
    const box = (name: string) => textFrame(shapeAt(1, 1, 5, 3), `<text:p>${words}</text:p>`, `draw:name="${name}"`)
    const of = drawingOf({
      pages:
        drawnPage(`${box('A')}<presentation:notes>${box('N')}</presentation:notes>`) +
        drawnPage(box('B')) +
        drawnPage(box('C')),
    })
    const { paragraphs, pages } = planned(of, [
      { type: 'recast', find: { look: { family: 'Spectral' } }, change: { size: { points: 20 } } },
    ]).plan.effects!
    expect(pages.map(each => each.page)).toEqual([0, 1, 2])
    expect(new Set(paragraphs.map(each => each.linesAfter - each.linesBefore)).size).toBe(1)
    expect(paragraphs.map(each => [each.page, each.notes])).toEqual([
      [0, false],
      [0, true],
      [1, false],
      [2, false],
    ])
  })

  it('takes what has the role of a heading for a title, without the element', () => {
    const of = text(
      Array.from({ length: 3 }, () => `<text:p text:style-name="Head">A line that heads</text:p>${body}`).join(''),
    )
    const { paragraphs } = effects(of, edit('Head', { 'fo:font-size': '40pt' }))
    expect(paragraphs.map(each => each.title)).toEqual([true, true, true])
  })

  it('counts lines that hold other words', () => {
    const of = text(body)
    const same = planned(of, [edit('Head', { 'fo:font-size': '15pt' })]).after.composition
    const other = planned(of, [edit('Body', { 'fo:font-size': '14pt' })]).after.composition
    expect(changedLines(of.composition, same)).toBe(0)
    expect(changedLines(of.composition, other)).toBe(2)
    expect([countLines(of.composition), countLines(other)]).toEqual([2, 3])
  })
})

describe('what a plan says of frames', () => {
  const box = (y: number, height: number, name: string, words: string) =>
    textFrame(shapeAt(1, y, 5, height), `<text:p>${words}</text:p>`, `draw:name="${name}"`)
  const deck = drawingOf({
    pages:
      drawnPage(box(1, 1, 'first', 'x')) +
      drawnPage(
        box(1, 3, 'A', 'one two') +
          box(5, 1, 'B', 'three four') +
          `<presentation:notes>${box(1, 2, 'N', 'aside')}</presentation:notes>`,
      ),
  })
  const larger = (points: number) =>
    planned(deck, [{ type: 'recast', find: { look: { family: 'Spectral' } }, change: { size: { points } } }]).plan
      .effects!

  it('is how much room they had and have, which run over, and on which page', () => {
    const { frames, overset } = larger(22)
    // A frame of three centimetres less a line of ten points, and of 22: the lines of the face are 1.522 times its size.
    expect(frames).toMatchObject([
      { name: 'A', page: 1, notes: false, roomBefore: 69.8, roomAfter: 51.5 },
      { name: 'N', page: 1, notes: true, roomBefore: 41.4, roomAfter: 23.2 },
    ])
    expect(overset).toMatchObject([
      { name: 'first', lines: 1, page: 0, linesBefore: 0 },
      { name: 'B', lines: 1, page: 1, linesBefore: 0 },
    ])
  })

  it('leaves aside what changes by less than a tenth of a line', () => {
    // Half a point of type is three quarters of a point of line; one point is one and a half.
    expect(larger(10.5).frames).toEqual([])
    expect(
      larger(11)
        .frames.map(each => each.name)
        .sort(),
    ).toEqual(['A', 'B', 'N', 'first'])
  })

  it('tells those first that change most', () => {
    const { frames } = planned(deck, [
      { type: 'recast', find: { words: { text: 'aside' }, look: {} }, change: { size: { points: 20 } } },
      { type: 'recast', find: { words: { text: 'one' }, look: {} }, change: { size: { points: 14 } } },
    ]).plan.effects!
    expect(frames.map(each => each.name)).toEqual(['N', 'A'])
  })
})
