import { describe, expect, it } from 'vitest'
import { applyAll } from '../../../core/document/apply'
import { Change } from '../../../core/document/draft'
import { openDocument, saveDocument } from '../../../core/document/open'
import {
  replaceStyleValues,
  setDropCap,
  setLabelStyle,
  setStyleValues,
  setTabStops,
} from '../../../core/document/style-verbs'
import { writeElement } from '../../../core/xml/write'
import { makeOdt, paragraphStyle } from '../../support/fixtures'

describe('a change', () => {
  it('gives new nodes ids that no operation with ids of its own has taken', () => {
    const change = new Change(openDocument(makeOdt({ body: '<text:p>x</text:p>' })))
    const [first] = change.newIds('content.xml', 1)
    const [head] = [...change.part('content.xml').descendants()].filter(each => each.name === 'office:text')
    const taken = first! + 5
    change.do({
      type: 'restore-node',
      part: 'content.xml',
      parent: head!.id,
      index: 1,
      source: '<text:p/>',
      ids: [taken],
    })
    expect(change.newIds('content.xml', 2)).toEqual([taken + 1, taken + 2])
    expect(change.newIds('content.xml', 1)).toEqual([taken + 3])
  })
})

/** A style of the document's, open to be changed; what becomes of it as markup, without the style's own tag. */
function open(style: string, name = 'style:style') {
  const bytes = makeOdt({ styles: style, body: '<text:p>x</text:p>' })
  const document = openDocument(bytes)
  const change = new Change(document)
  const draft = change.on('styles.xml')
  const node = [...draft.part.descendants()].find(
    each => each.name === name && ['Box', 'Bullets'].includes(each.attributes['style:name'] ?? ''),
  )!.id
  return {
    bytes,
    change,
    draft,
    node,
    inside: () => writeElement(draft.part, node).replace(/^<style:style[^>]*?(\/>|>)|<\/style:style>$/g, ''),
    /** The document with everything taken back. */
    undone: () => saveDocument(applyAll(change.document, [...change.inverse]).document),
  }
}

describe('values of a style', () => {
  it('are set and taken away where the style has some, and all else stays', () => {
    const own = open(paragraphStyle('Box', 'fo:color="#112233" fo:font-size="10pt"'))
    setStyleValues(own.draft, own.node, 'text', { 'fo:font-size': '12pt', 'fo:color': null, 'fo:font-weight': 'bold' })
    expect(own.inside()).toBe('<style:text-properties fo:font-size="12pt" fo:font-weight="bold"/>')
    expect(own.undone()).toEqual(own.bytes)
  })

  it('make the element they stand in, paragraph before text; letting go of nothing makes nothing', () => {
    const own = open(paragraphStyle('Box', 'fo:color="#112233"'))
    setStyleValues(own.draft, own.node, 'paragraph', { 'fo:margin-top': null })
    expect(own.change.operations).toEqual([])
    setStyleValues(own.draft, own.node, 'paragraph', { 'fo:margin-top': '3pt', 'fo:margin-left': null })
    expect(own.inside()).toBe(
      '<style:paragraph-properties fo:margin-top="3pt"/><style:text-properties fo:color="#112233"/>',
    )
  })

  it('that are said already change nothing', () => {
    const own = open(paragraphStyle('Box', 'fo:color="#112233"'))
    setStyleValues(own.draft, own.node, 'text', { 'fo:color': '#112233', 'fo:font-size': null })
    expect(own.change.operations).toEqual([])
  })

  it('can be replaced: what is not among them goes', () => {
    const own = open(paragraphStyle('Box', 'fo:color="#112233" fo:font-size="10pt"'))
    replaceStyleValues(own.draft, own.node, 'text', { 'fo:font-size': '11pt' })
    expect(own.inside()).toBe('<style:text-properties fo:font-size="11pt"/>')
    replaceStyleValues(own.draft, own.node, 'paragraph', { 'fo:margin-top': '3pt' })
    expect(own.inside()).toContain('<style:paragraph-properties fo:margin-top="3pt"/>')
  })
})

describe('tab stops', () => {
  const stops = [
    { position: '28pt', type: 'left' as const },
    { position: '90pt', type: 'char' as const, char: ',', leader: '.' },
    { position: '120pt', type: 'right' as const, leader: '_' },
  ]
  const markup =
    '<style:tab-stops><style:tab-stop style:position="28pt"/>' +
    '<style:tab-stop style:position="90pt" style:type="char" style:char="," style:leader-style="dotted" ' +
    'style:leader-text="."/>' +
    '<style:tab-stop style:position="120pt" style:type="right" style:leader-style="solid" style:leader-text="_"/>' +
    '</style:tab-stops>'

  it('are written into the paragraph properties, which are made before all else', () => {
    const own = open(paragraphStyle('Box', 'fo:color="#112233"'))
    setTabStops(own.draft, own.node, stops)
    expect(own.inside()).toBe(
      `<style:paragraph-properties>${markup}</style:paragraph-properties><style:text-properties fo:color="#112233"/>`,
    )
    expect(own.undone()).toEqual(own.bytes)
  })

  it('take the place of those that are there; none of them and nothing said are two things', () => {
    const own = open(
      '<style:style style:name="Box" style:family="paragraph"><style:paragraph-properties fo:margin-top="1pt">' +
        '<style:tab-stops><style:tab-stop style:position="1pt"/></style:tab-stops><style:drop-cap style:lines="2"/>' +
        '</style:paragraph-properties></style:style>',
    )
    setTabStops(own.draft, own.node, stops.slice(0, 1))
    expect(own.inside()).toBe(
      '<style:paragraph-properties fo:margin-top="1pt"><style:tab-stops><style:tab-stop style:position="28pt"/>' +
        '</style:tab-stops><style:drop-cap style:lines="2"/></style:paragraph-properties>',
    )
    setTabStops(own.draft, own.node, [])
    expect(own.inside()).toContain('<style:tab-stops/><style:drop-cap')
    setTabStops(own.draft, own.node, null)
    expect(own.inside()).toBe(
      '<style:paragraph-properties fo:margin-top="1pt"><style:drop-cap style:lines="2"/></style:paragraph-properties>',
    )
  })

  it('are nothing to let go of where there are none', () => {
    const own = open(paragraphStyle('Box', 'fo:color="#112233"'))
    setTabStops(own.draft, own.node, null)
    expect(own.change.operations).toEqual([])
  })
})

describe('a drop cap', () => {
  it('is given, replaced and taken away', () => {
    const own = open(paragraphStyle('Box', '', 'fo:margin-top="1pt"'))
    setDropCap(own.draft, own.node, { lines: 3, length: 1, distance: '2pt', style: 'Initial' })
    expect(own.inside()).toBe(
      '<style:paragraph-properties fo:margin-top="1pt"><style:drop-cap style:lines="3" style:length="1" ' +
        'style:distance="2pt" style:style-name="Initial"/></style:paragraph-properties>',
    )
    setDropCap(own.draft, own.node, { lines: 2, length: 'word', distance: '0pt', style: null })
    expect(own.inside()).toContain('<style:drop-cap style:lines="2" style:length="word" style:distance="0pt"/>')
    setDropCap(own.draft, own.node, null)
    expect(own.inside()).toBe('<style:paragraph-properties fo:margin-top="1pt"/>')
    expect(own.undone()).toEqual(own.bytes)
  })
})

describe('labels of a list', () => {
  const list =
    '<text:list-style style:name="Bullets">' +
    '<text:list-level-style-bullet text:level="1" text:bullet-char="•"/>' +
    '<text:list-level-style-number text:level="2" style:num-format="1" text:style-name="Old"/>' +
    '</text:list-style>'

  it('take a character style at all levels, or the type of their item', () => {
    const own = open(list, 'text:list-style')
    const said = () =>
      [...own.draft.part.elements(own.draft.part.element(own.node))].map(each => each.attributes['text:style-name'])
    setLabelStyle(own.draft, own.node, 'Figures')
    expect(said()).toEqual(['Figures', 'Figures'])
    setLabelStyle(own.draft, own.node, null)
    expect(said()).toEqual([undefined, undefined])
  })
})
