import { describe, expect, it } from 'vitest'
import { applyAll } from '../../../core/document/apply'
import { AutomaticStyles } from '../../../core/document/automatic-styles'
import { Change } from '../../../core/document/draft'
import { openDocument, saveDocument } from '../../../core/document/open'
import { referencesToStyle } from '../../../core/document/style-references'
import { adoptedMarkup, canonicalMarkup } from '../../../core/xml/canonical'
import { parseXml } from '../../../core/xml/parse'
import { writeElement } from '../../../core/xml/write'
import { makeOdt, openOdt, paragraphStyle, textStyle } from '../../support/fixtures'

const automatic =
  paragraphStyle('P1', 'fo:font-size="9pt"', 'fo:break-before="page"', ' style:parent-style-name="Body"') +
  paragraphStyle('P2', 'fo:font-size="9pt"', '', ' style:parent-style-name="Body"') +
  textStyle('T1', 'fo:color="#ff0000"')
const open = () => {
  const change = new Change(
    openOdt({
      styles: paragraphStyle('Body', 'fo:font-size="10pt"'),
      automatic,
      body: '<text:p text:style-name="P1">a</text:p><text:p text:style-name="P2">b<text:span text:style-name="T1">c</text:span></text:p>',
    }),
  )
  return { change, styles: new AutomaticStyles(change.on('content.xml')) }
}

describe('automatic styles', () => {
  it('are shared where they say the same, and made where they do not', () => {
    const { change, styles } = open()
    expect(styles.derive('paragraph', 'P1', { paragraph: { 'fo:break-before': null } })).toBe('P2')
    expect(styles.derive('paragraph', 'P2', { text: { 'fo:font-size': null } })).toBe('Body')
    expect(styles.derive('text', 'T1', { text: { 'fo:color': null } })).toBeNull()
    expect(change.operations).toEqual([])
    const made = styles.derive('paragraph', 'P1', { text: { 'fo:font-size': '8pt' } })!
    expect(made).toBe('P3')
    expect(styles.derive('paragraph', 'P1', { text: { 'fo:font-size': '8pt' } })).toBe(made)
    expect(writeElement(change.part('content.xml'), styles.find('paragraph', made)!.id)).toBe(
      '<style:style style:name="P3" style:family="paragraph" style:parent-style-name="Body">' +
        '<style:paragraph-properties fo:break-before="page"/><style:text-properties fo:font-size="8pt"/>' +
        '</style:style>',
    )
    expect(styles.derive('paragraph', 'Body', { paragraph: { 'fo:text-align': 'end' } })).toBe('P4')
  })

  it('are stripped where they stand, and swept only when nothing names them', () => {
    const { change, styles } = open()
    expect(styles.strip('paragraph', 'P1', { text: { 'fo:font-size': null } })).toBe(false)
    expect(styles.strip('text', 'T1', { text: { 'fo:color': null } })).toBe(true)
    expect(styles.strip('text', 'Gone', {})).toBe(false)
    styles.release('paragraph', 'P2')
    styles.sweep()
    expect(styles.find('paragraph', 'P2')).toBeDefined()
    const draft = change.on('content.xml')
    const second = [...draft.part.descendants()].filter(each => each.name === 'text:p')[1]!
    draft.setAttributes(second.id, { 'text:style-name': 'Body' })
    styles.release('paragraph', 'P2')
    styles.sweep()
    expect(styles.find('paragraph', 'P2')).toBeUndefined()
    expect(saveDocument(applyAll(change.document, change.inverse).document)).toEqual(
      makeOdt({
        styles: paragraphStyle('Body', 'fo:font-size="10pt"'),
        automatic,
        body: '<text:p text:style-name="P1">a</text:p><text:p text:style-name="P2">b<text:span text:style-name="T1">c</text:span></text:p>',
      }),
    )
  })
})

describe('references to a style', () => {
  it('are found in text, in other styles, lists, notes and templates, each by its family', () => {
    const document = openOdt({
      styles:
        paragraphStyle('N') +
        textStyle('N', '') +
        paragraphStyle('Child', '', '', ' style:parent-style-name="N" style:next-style-name="N"') +
        ('<text:list-style style:name="L"><text:list-level-style-number text:level="1" text:style-name="N" ' +
          'style:num-format="1"/></text:list-style><text:notes-configuration text:note-class="footnote" ' +
          'text:default-style-name="N" text:citation-style-name="N"/>') +
        ('<style:style style:name="Cond" style:family="paragraph"><style:map style:condition="table()" ' +
          'style:apply-style-name="N"/></style:style>'),
      body:
        '<text:p text:style-name="N" text:class-names="A N">a<text:span text:style-name="N">b</text:span>' +
        '</text:p><text:h text:style-name="Other" text:outline-level="1">c</text:h>' +
        '<text:p><draw:rect draw:text-style-name="N"/></text:p>',
    })
    const found = (family: string) =>
      referencesToStyle(document, family, 'N')
        .map(each => each.attribute)
        .sort()
    expect(found('paragraph')).toEqual([
      'draw:text-style-name',
      'style:apply-style-name',
      'style:next-style-name',
      'style:parent-style-name',
      'text:class-names',
      'text:default-style-name',
      'text:style-name',
    ])
    expect(found('text')).toEqual(['text:citation-style-name', 'text:style-name', 'text:style-name'])
    const shadowed = openOdt({
      styles: paragraphStyle('N') + paragraphStyle('C', '', '', ' style:parent-style-name="N"'),
      automatic: paragraphStyle('N', 'fo:font-size="1pt"'),
      body: '<text:p text:style-name="N">own</text:p>',
    })
    expect(referencesToStyle(shadowed, 'paragraph', 'N').map(each => each.attribute)).toEqual([
      'style:parent-style-name',
    ])
  })
})

describe('markup away from its part', () => {
  it('carries its namespaces, leaves foreign things behind, and takes the prefixes of where it goes', () => {
    const from = parseXml(
      'a.xml',
      '<o:a xmlns:o="urn:oasis:names:tc:opendocument:xmlns:text:1.0" xmlns:z="urn:z">' +
        '<o:p o:style-name="S" z:x="1" xml:id="i">a &amp; <o:span>b</o:span>' +
        '<!-- c --><z:y/></o:p></o:a>',
    )
    const markup = canonicalMarkup(from, [...from.elements(from.rootElement)][0]!)
    expect(markup).toBe(
      '<text:p xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0" text:style-name="S">a &amp; <text:span>b</text:span></text:p>',
    )
    const into = parseXml('b.xml', '<t:body xmlns:t="urn:oasis:names:tc:opendocument:xmlns:text:1.0"/>')
    expect(
      adoptedMarkup(into, into.rootElement, markup, (_element, name, value) =>
        name === 'text:style-name' ? `${value}2` : value,
      ),
    ).toEqual({ markup: '<t:p t:style-name="S2">a &amp; <t:span>b</t:span></t:p>', count: 4 })
  })
})

describe('putting elements around others', () => {
  it('and taking them away undoes to the byte, tags without content included', () => {
    const bytes = makeOdt({
      body: '<text:p>a<text:span  text:style-name="T1" >b</text:span ><text:span text:style-name=\'T2\'/>c</text:p>',
    })
    const document = openDocument(bytes)
    const part = document.parts.get('content.xml')!
    const spans = [...part.descendants()].filter(each => each.name === 'text:span')
    const paragraph = [...part.descendants()].find(each => each.name === 'text:p')!
    const done = applyAll(document, [
      ...spans.map(span => ({ type: 'unwrap-node' as const, part: 'content.xml', node: span.id })),
      {
        type: 'wrap-nodes',
        part: 'content.xml',
        parent: paragraph.id,
        index: 1,
        count: 2,
        source: '<text:span text:style-name="C"></text:span>',
        id: part.nextId,
      },
    ])
    expect(writeElement(done.document.parts.get('content.xml')!, paragraph.id)).toBe(
      '<text:p>a<text:span text:style-name="C">bc</text:span></text:p>',
    )
    expect(saveDocument(applyAll(done.document, done.inverse).document)).toEqual(bytes)
    expect(() =>
      applyAll(document, [
        {
          type: 'wrap-nodes',
          part: 'content.xml',
          parent: paragraph.id,
          index: 9,
          count: 1,
          source: '<text:span></text:span>',
          id: 9999,
        },
      ]),
    ).toThrow(/has no 1 children at 9/)
    expect(() =>
      applyAll(document, [
        {
          type: 'wrap-nodes',
          part: 'content.xml',
          parent: paragraph.id,
          index: 0,
          count: 1,
          source: '<text:span></text:span>',
          id: paragraph.id,
        },
      ]),
    ).toThrow(/is in use/)
  })
})
