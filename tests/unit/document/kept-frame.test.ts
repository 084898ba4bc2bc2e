import { describe, expect, it } from 'vitest'
import { applyAll } from '../../../core/document/apply'
import { Change } from '../../../core/document/draft'
import {
  emptyFrame,
  holdsFrames,
  putFrame,
  putStyle,
  takeFrame,
  takeStyle,
  type StyleNames,
  type TakenFrame,
} from '../../../core/document/kept-frame'
import { openDocument, saveDocument } from '../../../core/document/open'
import { readScopes } from '../../../core/document/styles'
import { writeElement } from '../../../core/xml/write'
import { face, graphicStyle, makeDrawing, makeOdt, paragraphStyle, textFrame, textStyle } from '../../support/fixtures'

function open(bytes: Uint8Array) {
  const document = openDocument(bytes)
  const change = new Change(document)
  const draft = change.on('content.xml')
  const find = (name: string) => [...draft.part.descendants()].find(each => each.name === name)!.id
  return {
    change,
    draft,
    find,
    scope: readScopes(document, document.subdocuments[0]!).content!,
    isUndone: () => Buffer.compare(saveDocument(applyAll(change.document, [...change.inverse]).document), bytes) === 0,
  }
}
const drawing = (shapes: string, automatic = '') =>
  open(makeDrawing({ pages: `<draw:page draw:name="1" draw:master-page-name="M">${shapes}</draw:page>`, automatic }))
const asTheyAre: StyleNames = (_, name) => name

describe('taking a frame', () => {
  it('gives XML that stands by itself, its size and the styles it names', () => {
    const own = drawing(
      textFrame(
        'svg:x="1cm" svg:y="2cm" svg:width="72pt" svg:height="1in"',
        '<text:p text:style-name="P1">a <text:span text:style-name="T1">b</text:span></text:p>',
        'draw:name="Box" draw:style-name="gr1"',
      ),
    )
    const taken = takeFrame(own.scope, own.find('draw:frame')) as TakenFrame
    expect(taken).toMatchObject({ width: 72, height: 72 })
    expect(taken.styles).toEqual([
      { family: 'graphic', name: 'gr1' },
      { family: 'paragraph', name: 'P1' },
      { family: 'text', name: 'T1' },
    ])
    expect(taken.markup).toMatch(/^<draw:frame [^>]*xmlns:draw="urn:oasis/)
    expect(own.change.operations).toEqual([])
  })

  it('has the least height of its box where it says none, and none at all for a ring of points', () => {
    const own = drawing(textFrame('svg:width="2cm"', '<text:p/>', '', ' fo:min-height="50pt"'))
    expect(takeFrame(own.scope, own.find('draw:frame'))).toMatchObject({ height: 50 })
    const bare = drawing('<draw:custom-shape><text:p/></draw:custom-shape>')
    expect(takeFrame(bare.scope, bare.find('draw:custom-shape'))).toMatchObject({ width: 0, height: 0 })
  })

  it('is refused for pictures, objects and what is no frame', () => {
    for (const inside of [
      '<draw:image xlink:href="Pictures/a.png"/>',
      '<draw:object xlink:href="./Object 1"/>',
      '<draw:plugin/>',
    ]) {
      const own = drawing(`<draw:frame svg:width="1cm">${inside}</draw:frame>`)
      expect(takeFrame(own.scope, own.find('draw:frame'))).toBe('holds a picture')
    }
    const own = drawing(textFrame('svg:width="2cm"', '<text:p/>'))
    expect(takeFrame(own.scope, own.find('text:p'))).toBe('no frame')
    expect(takeFrame(own.scope, 1_000_000)).toBe('no frame')
  })
})

describe('putting a frame', () => {
  const kept = () => {
    const own = drawing(
      textFrame(
        'svg:x="1cm" svg:y="2cm" svg:width="72pt" svg:height="1in"',
        '<text:p text:style-name="P1">x</text:p>',
        'draw:name="Box 4" draw:style-name="gr1" draw:z-index="3" draw:layer="layout" presentation:class="title"',
        ' draw:chain-next-name="Next"',
      ),
    )
    return (takeFrame(own.scope, own.find('draw:frame')) as TakenFrame).markup
  }

  it('on a page: before the notes, at its place, with a name of its own and nothing of where it was', () => {
    const own = drawing('<draw:rect draw:name="Box 1"/><presentation:notes><draw:page-thumbnail/></presentation:notes>')
    const page = own.find('draw:page')
    expect(holdsFrames(own.draft, page)).toBe(true)
    const frame = putFrame(own.draft, page, kept(), { x: 10, y: 20.5 }, (family, name) => `${family} ${name}`)
    expect(writeElement(own.draft.part, frame)).toBe(
      '<draw:frame svg:width="72pt" svg:height="1in" draw:name="Box 2" draw:style-name="graphic gr1" svg:x="10pt" ' +
        'svg:y="20.5pt"><draw:text-box><text:p text:style-name="paragraph P1">x</text:p></draw:text-box></draw:frame>',
    )
    expect([...own.draft.part.elements(own.draft.part.element(page))].map(each => each.name)).toEqual([
      'draw:rect',
      'draw:frame',
      'presentation:notes',
    ])
    expect(own.isUndone()).toBe(true)
  })

  it('at a paragraph: before its words, and anchored there', () => {
    const own = open(makeOdt({ body: '<text:p>words</text:p>' }))
    const paragraph = own.find('text:p')
    expect(holdsFrames(own.draft, paragraph)).toBe(true)
    putFrame(own.draft, paragraph, kept(), { x: 1, y: 2 }, () => null)
    expect(writeElement(own.draft.part, paragraph)).toMatch(
      /^<text:p><draw:frame [^>]*text:anchor-type="paragraph"[^>]*>.*<\/draw:frame>words<\/text:p>$/,
    )
    // Styles that are not known here are let go.
    expect(writeElement(own.draft.part, paragraph)).not.toContain('style-name')
  })

  it('nowhere else', () => {
    const own = open(makeOdt({ body: '<text:list><text:list-item><text:p>x</text:p></text:list-item></text:list>' }))
    expect(holdsFrames(own.draft, own.find('text:list'))).toBe(false)
    expect(holdsFrames(own.draft, 1_000_000)).toBe(false)
  })

  it('without its words: one empty paragraph in the style of the first', () => {
    const own = drawing(
      textFrame(
        'svg:width="2cm"',
        '<text:list text:style-name="L"><text:list-item><text:p text:style-name="P7">a</text:p></text:list-item></text:list>' +
          '<text:p>b</text:p><table:table/>',
      ),
    )
    const frame = own.find('draw:frame')
    emptyFrame(own.draft, frame)
    expect(writeElement(own.draft.part, own.find('draw:text-box'))).toBe(
      '<draw:text-box><text:p text:style-name="P7"/></draw:text-box>',
    )
    expect(own.isUndone()).toBe(true)
    const shape = drawing('<draw:rect draw:name="r"><text:p>x</text:p></draw:rect>')
    emptyFrame(shape.draft, shape.find('draw:rect'))
    expect(writeElement(shape.draft.part, shape.find('draw:rect'))).toBe(
      '<draw:rect draw:name="r"><text:p/></draw:rect>',
    )
  })
})

describe('a style by hand of a kept frame', () => {
  const there = open(
    makeOdt({
      automatic:
        paragraphStyle(
          'P3',
          'style:font-name="Here" style:font-name-asian="Gone"',
          '',
          ' style:parent-style-name="Body" style:list-style-name="L" style:master-page-name="M"',
        ) +
        textStyle('T1', 'fo:color="#112233"') +
        graphicStyle('gr1', 'draw:fill="none"'),
    }),
  )
  const style = (name: string, family: string) => ({
    family,
    markup: takeStyle(there.scope, there.scope.automatic.get(`${family}\n${name}`)!.node),
  })

  it('gets a name that is free; fonts that are not declared here, lists and masters are let go', () => {
    const own = open(makeOdt({ faces: face('Here'), automatic: paragraphStyle('P1', 'fo:color="#000000"') }))
    const name = putStyle(own.draft, own.scope, style('P3', 'paragraph'), (family, parent) => `${family}: ${parent}`)
    expect(name).toBe('P2')
    const made = [...own.draft.part.descendants()].find(each => each.attributes['style:name'] === 'P2')!
    expect(writeElement(own.draft.part, made.id)).toBe(
      '<style:style style:name="P2" style:family="paragraph" style:parent-style-name="paragraph: Body">' +
        '<style:text-properties style:font-name="Here"/></style:style>',
    )
    expect(own.isUndone()).toBe(true)
  })

  it('is numbered by its family', () => {
    const own = open(makeOdt({}))
    expect(putStyle(own.draft, own.scope, style('T1', 'text'), asTheyAre)).toBe('T1')
    expect(putStyle(own.draft, own.scope, style('gr1', 'graphic'), asTheyAre)).toBe('gr1')
  })
})
