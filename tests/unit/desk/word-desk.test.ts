import { describe, expect, it } from 'vitest'
import { WordDesk } from '../../../core/desk/word-desk'
import { paragraphsOf } from '../../../core/document/stories'
import { paragraphText } from '../../../core/style/runs'
import {
  drawingOf,
  drawnPage,
  paragraphStyle,
  sessionOf,
  shapeAt,
  standardMaster,
  textFrame,
  textStyle,
} from '../../support/fixtures'

const boats =
  '<text:h text:style-name="Head" text:outline-level="1">Boats</text:h>' +
  '<text:p text:style-name="Body">The <text:span text:style-name="Strong">morning</text:span> boat</text:p>' +
  '<text:p text:style-name="Body">leaves at six</text:p>'
const styles =
  '<style:default-style style:family="paragraph"><style:text-properties fo:font-family="Spectral" fo:font-size="12pt"/>' +
  '</style:default-style>' +
  paragraphStyle('Head', 'fo:font-size="20pt"') +
  paragraphStyle('Body', 'fo:font-size="10pt"') +
  textStyle('Strong', 'fo:font-weight="bold"')
const deskOf = (body = boats, masters = standardMaster()) => new WordDesk(sessionOf({ body, styles, masters }), 1)
const words = (desk: WordDesk) =>
  desk.session.reading.stories.flatMap(story => paragraphsOf(story.blocks).map(paragraphText))
const nodes = (desk: WordDesk) =>
  desk.session.reading.stories.flatMap(story => paragraphsOf(story.blocks).map(({ part, node }) => ({ part, node })))

describe('edits', () => {
  it('are made one on the other, with ids by which they can be repeated', () => {
    const desk = deskOf()
    const before = desk.session.document
    const [, second] = nodes(desk)
    const { edits, made } = desk.edit([
      { type: 'split', ...second!, at: 3 },
      { type: 'text', ...second!, from: 0, to: 3, text: 'Every' },
    ])
    expect(words(desk)).toEqual(['Boats', 'Every', ' morning boat', 'leaves at six'])
    expect(edits.map(({ firstId }) => firstId)).toEqual([
      before.parts.get(second!.part)!.nextId,
      expect.any(Number) as number,
    ])
    expect(edits[1]!.firstId).toBeGreaterThan(edits[0]!.firstId)
    expect(made).toBe(nodes(desk)[2]!.node)
    const other = deskOf()
    expect(other.edit(edits.map(({ edit }) => edit)).edits).toEqual(edits)
  })

  it('are made all or none', () => {
    const desk = deskOf()
    const [first] = nodes(desk)
    const before = desk.session
    expect(() =>
      desk.edit([
        { type: 'text', ...first!, from: 0, to: 0, text: 'New ' },
        { type: 'text', ...first!, from: 0, to: 4000, text: '' },
      ]),
    ).toThrow()
    expect(desk.session).toBe(before)
  })
})

describe('states at hand', () => {
  it('are gone back to, and the oldest of many are let go of', () => {
    const desk = deskOf()
    const [first] = nodes(desk)
    for (let state = 2; state <= 14; state++) {
      desk.edit([{ type: 'text', ...first!, from: 0, to: 0, text: 'x' }])
      desk.keep(state)
    }
    expect(words(desk)[0]).toBe(`${'x'.repeat(13)}Boats`)
    expect(desk.back(1)).toBe(false)
    expect(desk.back(2)).toBe(false)
    expect(words(desk)[0]).toBe(`${'x'.repeat(13)}Boats`)
    expect(desk.back(3)).toBe(true)
    expect(words(desk)[0]).toBe('xxBoats')
    expect(desk.walk.find(first!.part, first!.node)?.paragraph).toBeDefined()
  })
})

describe('places', () => {
  it('are drawn in to the end of text that became shorter, and are none where it is gone', () => {
    const desk = deskOf()
    const [first] = nodes(desk)
    expect(desk.clamp({ ...first!, offset: 3 })).toEqual({ ...first!, offset: 3 })
    expect(desk.clamp({ ...first!, offset: 30 })).toEqual({ ...first!, offset: 5 })
    expect(desk.clamp({ ...first!, node: 9999, offset: 0 })).toBeNull()
  })

  it('go from the first of a text to its last, and to the paragraphs beside', () => {
    const desk = deskOf()
    const [first, second, third] = nodes(desk)
    expect(desk.whole(second!.part, second!.node)).toEqual([
      { ...first!, offset: 0 },
      { ...third!, offset: 13 },
    ])
    expect(desk.beside(second!.part, second!.node, 1)).toEqual({ ...third!, offset: 0 })
    expect(desk.beside(second!.part, second!.node, -1)).toEqual({ ...first!, offset: 5 })
    expect(desk.beside(first!.part, first!.node, -1)).toBeNull()
    expect(desk.beside(third!.part, third!.node, 1)).toBeNull()
  })

  it('are shown on the page where their line is', () => {
    const desk = deskOf(boats + '<text:p text:style-name="Body">line after line of it</text:p>'.repeat(40))
    const list = nodes(desk)
    const where = (at: number, offset = 0) => desk.where({ ...list[at]!, offset }, 'pages', 0)
    expect(where(0)).toEqual({ view: 'pages', page: 0 })
    const last = where(list.length - 1)!
    expect(last.page).toBe(desk.session.composition.pages.length - 1)
    expect(last.page).toBeGreaterThan(0)
    expect(desk.where({ ...list[0]!, node: 9999, offset: 0 }, 'pages', 0)).toBeNull()
  })

  it('are looked for in the masters, too', () => {
    const header = '<style:header><text:p>Saltmere Line</text:p></style:header>'
    const desk = deskOf(boats, standardMaster(header))
    const [found] = desk.find('saltmere', false)
    expect(found).toMatchObject({ from: 0, to: 8 })
    expect(desk.find('saltmere', true)).toEqual([])
    expect(desk.where({ part: found!.part, node: found!.node, offset: 0 }, 'masters', 0)?.view).toBeDefined()
  })
})

describe('what is copied', () => {
  it('comes as plain words and with the names of its styles', () => {
    const desk = deskOf()
    const [, second, third] = nodes(desk)
    const { text, html } = desk.copy([
      { ...second!, from: 4, to: 16, through: false },
      { ...third!, from: 0, to: 6, through: false },
    ])
    expect(text).toBe('morning boat\nleaves')
    expect(html).toContain('morning')
    expect(html).toContain('leaves')
    expect(html).not.toContain('at six')
    expect(desk.copy([{ ...second!, node: 9999, from: 0, to: 1, through: false }]).text).toBe('')
  })
})

describe('what a page and a paragraph belong to', () => {
  it('is the first paragraph on it in a text, with its style and master', () => {
    const desk = deskOf()
    const [first] = nodes(desk)
    expect(desk.holder('pages', 0)).toEqual(first)
    expect(desk.holder('pages', 7)).toBeNull()
    expect(desk.styleAt(first!.part, first!.node)).toBe('Head')
    expect(desk.styleAt(first!.part, 9999)).toBeNull()
    const master = desk.master(0)!
    expect(desk.session.document.parts.get(master.part)!.element(master.node).attributes['style:name']).toBe('Standard')
  })

  it('is the page itself in a drawing, and frames know those that they can be chained with', () => {
    const desk = new WordDesk(
      drawingOf({
        pages: drawnPage(
          textFrame(shapeAt(1, 1, 3, 3), '<text:p>One</text:p>', 'draw:name="First"') +
            textFrame(shapeAt(5, 1, 3, 3), '<text:p>Two</text:p>', 'draw:name="Second"') +
            textFrame(shapeAt(1, 5, 3, 3), '<text:p>Three</text:p>'),
        ),
      }),
      1,
    )
    const page = desk.holder('pages', 0)!
    expect(desk.session.document.parts.get(page.part)!.element(page.node).name).toBe('draw:page')
    const one = nodes(desk)[words(desk).indexOf('One')]!
    const frame = desk.frameOf(one.part, one.node)!
    expect(desk.session.document.parts.get(one.part)!.element(frame).attributes['draw:name']).toBe('First')
    expect(desk.frame(one.part, frame).others.map(({ name }) => name)).toEqual(['Second'])
    expect(desk.frameOf(page.part, page.node)).toBeNull()
  })
})
