import { describe, expect, it } from 'vitest'
import { applyAll, OperationError } from '../../../core/document/apply'
import { partOf, saveDocument, type OdfDocument } from '../../../core/document/open'
import type { Operation } from '../../../core/document/operations'
import { writeXml } from '../../../core/xml/write'
import { face, openOdt, paragraphStyle } from '../../support/fixtures'

const part = 'content.xml'
const before = openOdt({
  faces: face('Jost'),
  automatic:
    paragraphStyle('P1', '', 'fo:margin="1cm"') +
    '<style:style style:name="P2" style:family="paragraph"><style:text-properties fo:color="#112233"/>' +
    '<style:map style:condition="x" style:apply-style-name="P1"/></style:style>' +
    '<style:style style:name="P3" style:family="paragraph"/>',
  body: '<text:p text:style-name="P1">one <text:span>two</text:span><text:span/></text:p><text:p/>',
  parts: [
    { path: 'Pictures/a.png', type: 'image/png', content: 'a' },
    { path: 'Pictures/b.png', type: 'image/png', content: 'b' },
  ],
})
const content = (document: OdfDocument) => writeXml(partOf(document, part))
/** The nth element of a name. */
const at = (document: OdfDocument, name: string, index = 0): number => {
  const xml = partOf(document, part)
  const found: number[] = []
  const walk = (id: number) => {
    const node = xml.node(id)
    if (node.kind !== 'element') return
    if (node.name === name) found.push(id)
    node.children.forEach(walk)
  }
  walk(xml.rootElement.id)
  return found[index]!
}
const style = (index: number) => at(before, 'style:style', index)
const span = at(before, 'text:span')
const paragraph = at(before, 'text:p')

describe('operations', () => {
  it.each<[string, readonly Operation[], string]>([
    [
      'set properties that are there, and take some away',
      [
        {
          type: 'set-properties',
          part,
          node: style(0),
          properties: 'paragraph',
          set: { 'fo:margin': null, 'fo:text-indent': '2mm' },
        },
      ],
      '<style:style style:name="P1" style:family="paragraph"><style:paragraph-properties fo:text-indent="2mm"/></style:style>',
    ],
    [
      'set properties behind those that the standard has before',
      [
        {
          type: 'set-properties',
          part,
          node: style(0),
          properties: 'text',
          set: { 'fo:color': '#445566', 'fo:hyphenate': null },
          id: 9001,
        },
      ],
      '<style:paragraph-properties fo:margin="1cm"/><style:text-properties fo:color="#445566"/></style:style>',
    ],
    [
      'set properties before those that the standard has behind, and before conditions',
      [
        {
          type: 'set-properties',
          part,
          node: style(1),
          properties: 'paragraph',
          set: { 'fo:margin': '1mm' },
          id: 9001,
        },
      ],
      '<style:paragraph-properties fo:margin="1mm"/><style:text-properties fo:color="#112233"/><style:map',
    ],
    [
      'set the first properties of a style',
      [{ type: 'set-properties', part, node: style(2), properties: 'graphic', set: { 'draw:fill': 'none' }, id: 9001 }],
      '<style:style style:name="P3" style:family="paragraph"><style:graphic-properties draw:fill="none"/></style:style>',
    ],
    [
      'name a font in a declaration',
      [{ type: 'name-font', part, node: at(before, 'style:font-face'), set: { 'svg:font-family': 'Inter' } }],
      '<style:font-face style:name="Jost" svg:font-family="Inter"/>',
    ],
    [
      'name a font in properties',
      [{ type: 'name-font', part, node: at(before, 'style:text-properties'), set: { 'style:font-name': 'Jost' } }],
      'style:font-name="Jost"',
    ],
    [
      'declare a face behind the others',
      [{ type: 'declare-face', part, id: 9001, attributes: { 'style:name': 'Inter', 'svg:font-family': 'Inter' } }],
      'svg:font-family="Jost"/><style:font-face style:name="Inter" svg:font-family="Inter"/></office:font-face-decls>',
    ],
    [
      'drop a face',
      [{ type: 'drop-face', part, node: at(before, 'style:font-face') }],
      '<office:font-face-decls></office:font-face-decls>',
    ],
    ['take an element out', [{ type: 'remove-node', part, node: span }], 'one <text:span/></text:p>'],
    ['take an element away around its text', [{ type: 'unwrap-node', part, node: span }], 'one two<text:span/>'],
    [
      'take an empty one away',
      [{ type: 'unwrap-node', part, node: at(before, 'text:span', 1) }],
      '<text:span>two</text:span></text:p>',
    ],
    [
      'put one around some of a paragraph',
      [{ type: 'wrap-nodes', part, parent: paragraph, index: 0, count: 2, source: '<text:a></text:a>', id: 9001 }],
      '<text:p text:style-name="P1"><text:a>one <text:span>two</text:span></text:a><text:span/></text:p>',
    ],
    [
      'put one into an empty paragraph',
      [{ type: 'restore-node', part, parent: at(before, 'text:p', 1), index: 0, source: '<text:tab/>', ids: [9001] }],
      '<text:p><text:tab/></text:p>',
    ],
    [
      'write other text',
      [{ type: 'name-font-text', part, node: partOf(before, part).element(span).children[0]!, text: 'a < b' }],
      '<text:span>a &lt; b</text:span>',
    ],
    [
      'write a tag',
      [{ type: 'restore-tag', part, node: span, tag: '<text:span text:style-name="T">' }],
      '<text:span text:style-name="T">two',
    ],
  ])('%s, and back to the byte', (_, operations, expected) => {
    const { document, inverse } = applyAll(before, operations)
    expect(content(document)).toContain(expected)
    expect(content(before)).not.toContain(expected)
    const undone = applyAll(document, inverse)
    expect(content(undone.document)).toBe(content(before))
    expect(content(applyAll(undone.document, undone.inverse).document)).toBe(content(document))
  })

  it('declare a face where there are no declarations: behind scripts, before all else', () => {
    const drop: Operation = { type: 'remove-node', part, node: at(before, 'office:font-face-decls') }
    const bare = applyAll(before, [drop]).document
    const attributes = { 'style:name': 'Inter' }
    const { document, inverse } = applyAll(bare, [{ type: 'declare-face', part, id: 9001, holder: 9002, attributes }])
    expect(content(document)).toMatch(
      /-content[^>]*><office:font-face-decls><style:font-face style:name="Inter"\/><\/office:font-face-decls><office:automatic/,
    )
    expect(content(applyAll(document, inverse).document)).toBe(content(bare))
    const root = partOf(bare, part).rootElement.id
    const scripted = applyAll(bare, [
      { type: 'restore-node', part, parent: root, index: 0, source: '<office:scripts/>', ids: [9003] },
    ]).document
    expect(
      content(applyAll(scripted, [{ type: 'declare-face', part, id: 9001, holder: 9002, attributes }]).document),
    ).toContain('<office:scripts/><office:font-face-decls>')
  })

  it('take parts out with their entry, or without, and put them back', () => {
    const drop = (keepEntry: boolean) => applyAll(before, [{ type: 'drop-part', path: 'Pictures/a.png', keepEntry }])
    const entries = (document: OdfDocument) => writeXml(document.parts.get('META-INF/manifest.xml')!)
    expect(entries(drop(false).document)).not.toContain('a.png')
    expect(entries(drop(false).document)).toContain('b.png')
    expect(entries(drop(true).document)).toBe(entries(before))
    for (const keep of [true, false])
      expect(saveDocument(applyAll(drop(keep).document, drop(keep).inverse).document)).toEqual(saveDocument(before))
    expect(() => applyAll(drop(true).document, [{ type: 'drop-part', path: 'Pictures/a.png' }])).toThrow(OperationError)
  })

  it('write the rules of the document, and take them back', () => {
    const first = applyAll(before, [{ type: 'write-rules', text: '<rules/>' }])
    const second = applyAll(first.document, [{ type: 'write-rules', text: '<other/>' }])
    expect(first.inverse).toEqual([{ type: 'write-rules', text: null }])
    expect(second.inverse).toEqual([{ type: 'write-rules', text: '<rules/>' }])
    expect([...applyAll(second.document, second.inverse).document.written.values()]).toEqual(['<rules/>'])
    expect(applyAll(first.document, first.inverse).document.written.size).toBe(0)
  })

  it.each<[string, Operation, RegExp]>([
    [
      'properties of what is no style',
      { type: 'set-properties', part, node: paragraph, properties: 'text', set: {} },
      /text:p is not a style/,
    ],
    [
      'properties that are not there, without an id',
      { type: 'set-properties', part, node: style(2), properties: 'text', set: {} },
      /has no text properties yet, and no id/,
    ],
    [
      'what names no font',
      { type: 'name-font', part, node: paragraph, set: { 'text:style-name': 'P2' } },
      /text:style-name does not name a font/,
    ],
    [
      'an attribute of properties on a declaration',
      { type: 'name-font', part, node: at(before, 'style:font-face'), set: { 'fo:font-family': 'x' } },
      /does not name a font/,
    ],
    [
      'a declaration that says more',
      { type: 'declare-face', part, id: 9001, attributes: { 'fo:color': 'x' } },
      /does not belong to a font declaration/,
    ],
    ['an element where text is meant', { type: 'name-font-text', part, node: span, text: 'x' }, /is not text/],
    ['a face that is none', { type: 'drop-face', part, node: span }, /is not a style:font-face/],
    ['a picture that is none', { type: 'drop-replacement', part, node: span }, /is not a draw:image/],
    [
      'the root, around what is in it',
      { type: 'unwrap-node', part, node: partOf(before, part).rootElement.id },
      /the root element/,
    ],
    ['a part that is read', { type: 'drop-part', path: part }, /cannot be taken out/],
    ['a part that is not there', { type: 'drop-part', path: 'Pictures/c.png' }, /cannot be taken out/],
    ['a part that was not taken out', { type: 'restore-part', path: 'Pictures/a.png' }, /was not taken out/],
  ])('refuse %s', (_, operation, message) => {
    expect(() => applyAll(before, [operation])).toThrow(message)
  })

  it('are refused where there are no declarations and no id is given for them', () => {
    const bare = applyAll(before, [{ type: 'remove-node', part, node: at(before, 'office:font-face-decls') }]).document
    expect(() => applyAll(bare, [{ type: 'declare-face', part, id: 9001, attributes: {} }])).toThrow(
      /no id is given for them/,
    )
  })
})
