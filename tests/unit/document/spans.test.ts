import { describe, expect, it } from 'vitest'
import { applyAll } from '../../../core/document/apply'
import { Change } from '../../../core/document/draft'
import { saveDocument } from '../../../core/document/open'
import { openParagraph } from '../../../core/document/paragraph-spots'
import { splitSpansAt, unwrapSpan, wrapRange } from '../../../core/document/spans'
import { writeElement } from '../../../core/xml/write'
import { makeOdt, openOdt } from '../../support/fixtures'
import { openDocument } from '../../../core/document/open'

const open = (inside: string) => {
  const document = openOdt({ body: `<text:p>${inside}</text:p>` })
  const change = new Change(document)
  const draft = change.on('content.xml')
  const node = [...draft.part.descendants()].find(each => each.name === 'text:p')!.id
  return {
    document,
    change,
    draft,
    node,
    written: () =>
      writeElement(draft.part, node)
        .replace(/^<text:p[^>]*>|<\/text:p>$/g, '')
        .replaceAll('text:style-name', 's')
        .replaceAll('text:span', 'span'),
  }
}

describe('putting words into spans', () => {
  it('takes part of a text, white space and fields with it', () => {
    const { draft, node, written } = open('one two three')
    wrapRange(draft, node, 4, 7, 'C')
    expect(written()).toBe('one <span s="C">two</span> three')
    const field = open('a <text:title>Title</text:title><text:s text:c="2"/>b')
    wrapRange(field.draft, field.node, 1, 9, 'C')
    expect(field.written()).toBe('a<span s="C"> <text:title>Title</text:title><text:s text:c="2"/></span>b')
  })

  it('goes inside the spans that are there, or around those that lie wholly inside', () => {
    const inner = open('ab<text:span text:style-name="T">cd</text:span>ef')
    wrapRange(inner.draft, inner.node, 1, 5, 'C')
    expect(inner.written()).toBe('a<span s="C">b</span><span s="T"><span s="C">cd</span></span><span s="C">e</span>f')
    const outer = open('ab<text:span text:style-name="T">cd</text:span>ef')
    wrapRange(outer.draft, outer.node, 1, 5, 'C', true)
    expect(outer.written()).toBe('a<span s="C">b<span s="T">cd</span>e</span>f')
    const half = open('ab<text:span text:style-name="T">cd</text:span>ef')
    wrapRange(half.draft, half.node, 1, 3, 'C', true)
    expect(half.written()).toBe('a<span s="C">b</span><span s="T"><span s="C">c</span>d</span>ef')
  })

  it('keeps links whole and leaves frames outside', () => {
    const { draft, node, written } = open('a<text:a xlink:href="x">link</text:a>b')
    wrapRange(draft, node, 0, 6, 'C')
    expect(written()).toBe(
      '<span s="C">a</span><text:a xlink:href="x"><span s="C">link</span></text:a><span s="C">b</span>',
    )
    const framed = open(
      'a<draw:frame text:anchor-type="as-char" svg:width="1cm" svg:height="1cm">' +
        '<draw:text-box><text:p>in</text:p></draw:text-box></draw:frame>b',
    )
    expect(wrapRange(framed.draft, framed.node, 0, 3, 'C').length).toBe(2)
  })

  it('cuts spans in two at a place, but no link and no field', () => {
    const { draft, node, written } = open(
      '<text:span text:style-name="A">a<text:span text:style-name="B">bc</text:span>d</text:span>',
    )
    splitSpansAt(draft, node, 2)
    expect(written()).toBe('<span s="A">a<span s="B">b</span></span><span s="A"><span s="B">c</span>d</span>')
    const edge = open('<text:span text:style-name="A">a<text:span text:style-name="B">bc</text:span>d</text:span>')
    splitSpansAt(edge.draft, edge.node, 1)
    expect(edge.written()).toBe('<span s="A">a</span><span s="A"><span s="B">bc</span>d</span>')
    const start = open('x<text:span text:style-name="A">ab</text:span>')
    splitSpansAt(start.draft, start.node, 1)
    expect(start.change.operations).toEqual([])
    // Between two spans nothing is to be cut, nor at the end of all.
    const two = open('<text:span text:style-name="A">ab</text:span><text:span text:style-name="B">cd</text:span>')
    splitSpansAt(two.draft, two.node, 2)
    splitSpansAt(two.draft, two.node, 4)
    expect(two.change.operations).toEqual([])
    const field = open('<text:span text:style-name="A"><text:title>Title</text:title>b</text:span>')
    splitSpansAt(field.draft, field.node, 2)
    expect(field.written()).toBe('<span s="A"><text:title>Title</text:title></span><span s="A">b</span>')
  })

  it('keeps the text and undoes to the byte, whatever is done: a property', () => {
    let seed = 7
    const random = (below: number) => {
      seed = (seed * 1103515245 + 12345) % 2147483648
      return seed % below
    }
    const body =
      '<text:p>The <text:span text:style-name="T1">boat &amp; <text:a xlink:href="u">its <text:span ' +
      'text:style-name="T2">crew</text:span></text:a> sail</text:span>' +
      '<text:s text:c="3"/>at <text:tab/>dawn, <text:title>Guide</text:title>' +
      '<text:line-break/>&#233;t&#xE9; <text:span text:style-name="T3"/>over</text:p>'
    for (let round = 0; round < 40; round++) {
      const bytes = makeOdt({ body })
      const document = openDocument(bytes)
      const change = new Change(document)
      const draft = change.on('content.xml')
      const node = [...draft.part.descendants()].find(each => each.name === 'text:p')!.id
      const { text } = openParagraph(draft.part, node)
      for (let step = 0; step < 8; step++) {
        const from = random(text.length)
        const to = from + random(text.length - from + 1)
        const spans = [...draft.part.descendants(draft.part.element(node))].filter(each => each.name === 'text:span')
        const what = random(4)
        if (what === 0) splitSpansAt(draft, node, from)
        else if (what === 3 && spans.length > 0) unwrapSpan(draft, spans[random(spans.length)]!.id)
        else wrapRange(draft, node, from, to, `C${step}`, what === 1)
        expect(openParagraph(draft.part, node).text).toBe(text)
      }
      const again = openDocument(saveDocument(change.document))
      expect(openParagraph(again.parts.get('content.xml')!, node).text).toBe(text)
      expect(saveDocument(applyAll(change.document, change.inverse).document)).toEqual(bytes)
    }
  })
})
