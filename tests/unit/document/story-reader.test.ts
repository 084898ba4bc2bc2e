import { describe, expect, it } from 'vitest'
import type { Block, Cell, Inline, Paragraph } from '../../../core/document/story-model'
import { openOdt } from '../../support/fixtures'
import { paragraphsOf, readStories } from '../../../core/document/stories'

const read = (body: string): readonly Block[] => {
  const document = openOdt({ body })
  return readStories(document.parts.get('content.xml')!).find(story => story.role === 'body')!.blocks
}
const inlineWords = (inline: Inline): string => {
  switch (inline.kind) {
    case 'text':
      return (inline.field === null ? '' : `{${inline.field}}`) + inline.text
    case 'space':
    case 'tab':
    case 'break':
      return JSON.stringify(inline.text)
    case 'note':
      return `[${inline.endnote ? 'endnote' : 'note'} ${inline.citation}: ${outline(inline.blocks).join(' / ')}]`
    case 'annotation':
      return `[remark: ${outline(inline.blocks).join(' / ')}]`
    case 'frame':
      return `[${outline([inline.frame]).join(' / ')}]`
  }
}
const words = (paragraph: Paragraph) => paragraph.inlines.map(inlineWords).join('|')
/** Blocks, one line each, with what lies in them behind. */
function outline(blocks: readonly Block[]): string[] {
  return blocks.flatMap(block => {
    switch (block.kind) {
      case 'paragraph':
        return [`${block.heading === null ? 'p' : `h${block.heading}`} ${block.place}: ${words(block)}`]
      case 'section':
        return [`section ${block.styleName ?? ''}`.trim(), ...outline(block.blocks).map(each => `  ${each}`)]
      case 'table':
        return block.rows.map(
          row =>
            `row${row.heading ? ', head' : ''}: ${row.cells
              .map(cell => `${cell.covered ? '(covered) ' : ''}${outline(cell.blocks).join(' / ')}`)
              .join(' | ')}`,
        )
      case 'frame':
        return [`${block.shape} ${block.content}`, ...outline(block.blocks).map(each => `  ${each}`)]
    }
  })
}
const only = (body: string) => outline(read(body))

describe('what stands in a text', () => {
  it.each<[string, string, readonly string[]]>([
    [
      'paragraphs and headings',
      '<text:p>a</text:p><text:h text:outline-level="3">b</text:h><text:h>c</text:h>',
      ['p body: a', 'h3 body: b', 'h1 body: c'],
    ],
    [
      'a heading of no level',
      '<text:h text:outline-level="x">b</text:h><text:h text:outline-level="0">c</text:h>',
      ['h1 body: b', 'h1 body: c'],
    ],
    ['a section', '<text:section text:style-name="S"><text:p>a</text:p></text:section>', ['section S', '  p body: a']],
    [
      'contents, without where they come from',
      '<text:table-of-content><text:table-of-content-source><text:p>no</text:p></text:table-of-content-source>' +
        '<text:index-body><text:index-title><text:p>Contents</text:p>' +
        '</text:index-title><text:p>a</text:p></text:index-body></text:table-of-content>',
      ['section', '  p body: Contents', '  p body: a'],
    ],
    [
      'an index and a list of books',
      '<text:alphabetical-index><text:index-body><text:p>a</text:p></text:index-body></text:alphabetical-index>' +
        '<text:bibliography><text:bibliography-source><text:p>no</text:p></text:bibliography-source>' +
        '<text:index-body><text:p>b</text:p></text:index-body></text:bibliography>',
      ['section', '  p body: a', 'section', '  p body: b'],
    ],
    ['a numbered paragraph', '<text:numbered-paragraph><text:p>a</text:p></text:numbered-paragraph>', ['p body: a']],
    [
      'a remark between paragraphs',
      '<office:annotation><dc:creator>Pilot</dc:creator><text:p>why</text:p></office:annotation>',
      ['p annotation: why'],
    ],
    [
      'what changed, as blocks alone',
      '<text:change-start text:change-id="c"/><text:p>a</text:p><text:change-end text:change-id="c"/>',
      ['p body: a'],
    ],
  ])('%s', (_, body, expected) => {
    expect(only(body)).toEqual(expected)
  })
})

describe('lists', () => {
  const items = (body: string) =>
    paragraphsOf(read(body)).map(({ list, inlines }) => {
      const text = inlines.map(inlineWords).join('')
      if (!list) return text
      const { level, labelled, startValue, continues, continuesList, continuesLevel, styleName } = list
      return [
        `${text} ${level} ${styleName ?? '-'}`,
        ...(labelled ? ['labelled'] : []),
        ...(startValue === null ? [] : [`from ${startValue}`]),
        ...(continues ? ['goes on'] : []),
        ...(continuesList === null ? [] : ['goes on with another']),
        ...(continuesLevel ? ['level goes on'] : []),
      ].join(', ')
    })
  const list = (inside: string, more = '') => `<text:list text:style-name="L"${more}>${inside}</text:list>`
  const item = (inside: string, more = '') => `<text:list-item${more}>${inside}</text:list-item>`

  it('label the first paragraph of each item, and none of a heading of the list', () => {
    expect(
      items(
        list(
          '<text:list-header><text:p>head</text:p></text:list-header>' +
            item('<text:p>a</text:p><text:p>b</text:p>') +
            '<text:p>lost</text:p>',
        ),
      ),
    ).toEqual(['head 1 L', 'a 1 L, labelled', 'b 1 L'])
  })

  it('have levels in each other, ten at most, in the style of the outer one where they say none', () => {
    const deep = Array.from({ length: 12 }).reduce<string>(
      inside => `<text:list>${item(`${inside}<text:p>x</text:p>`)}</text:list>`,
      '',
    )
    expect(new Set(items(deep).map(each => Number(each.split(' ')[1])))).toEqual(
      new Set([1, 2, 3, 4, 5, 6, 7, 8, 9, 10]),
    )
    expect(
      items(list(item(`<text:p>a</text:p><text:list>${item('<text:h>b</text:h>')}</text:list><text:p>c</text:p>`))),
    ).toEqual(['a 1 L, labelled', 'b 2 L, labelled', 'c 1 L'])
  })

  it('begin where they say, and go on where they say', () => {
    expect(items(list(item('<text:p>a</text:p>', ' text:start-value="4"'), ' xml:id="one"'))).toEqual([
      'a 1 L, labelled, from 4',
    ])
    expect(items(list(item('<text:p>a</text:p>'), ' text:continue-numbering="true"'))).toEqual([
      'a 1 L, labelled, goes on',
    ])
    expect(
      items(
        list(item('<text:p>a</text:p>'), ' xml:id="one"') +
          list(item('<text:p>b</text:p>'), ' text:continue-list="one"') +
          list(item('<text:p>c</text:p>'), ' text:continue-list="two"'),
      ),
    ).toEqual(['a 1 L, labelled', 'b 1 L, labelled, goes on with another', 'c 1 L, labelled'])
    const inner = (more: string) =>
      list(item(`<text:p>a</text:p><text:list${more}>${item('<text:p>b</text:p>')}</text:list>`))
    expect(items(inner(' text:continue-numbering="true"'))[1]).toBe('b 2 L, labelled, level goes on')
    expect(items(inner(' text:continue-list="one"'))[1]).toBe('b 2 L, labelled, level goes on')
    expect(items(inner(' text:continue-numbering="false"'))[1]).toBe('b 2 L, labelled')
  })
})

describe('tables', () => {
  const cell = (text: string, more = '') => `<table:table-cell${more}><text:p>${text}</text:p></table:table-cell>`
  const row = (cells: string, more = '') => `<table:table-row${more}>${cells}</table:table-row>`
  const covered = '<table:covered-table-cell><text:p>d</text:p></table:covered-table-cell>'
  const table = (inside: string, more = '') => `<table:table${more}>${inside}</table:table>`
  const cells = (body: string): Cell[] =>
    read(body).flatMap(block => (block.kind === 'table' ? block.rows.flatMap(each => [...each.cells]) : []))

  it('have rows, those of their head among them, and cells that others cover', () => {
    expect(
      only(
        table(
          `<table:table-header-rows>${row(cell('a') + cell('b'))}</table:table-header-rows>` +
            `<table:table-rows>${row(cell('c', ' table:number-columns-spanned="2"') + covered)}</table:table-rows>` +
            row('<text:p>lost</text:p>' + cell('e')),
        ),
      ),
    ).toEqual(['row, head: p table: a | p table: b', 'row: p table: c | (covered) p table: d', 'row: p table: e'])
    const spans = (more: string) => cells(table(row(cell('a', more)))).map(each => [each.columnSpan, each.rowSpan])[0]
    expect(spans(' table:number-columns-spanned="3" table:number-rows-spanned="2"')).toEqual([3, 2])
    expect(spans(' table:number-columns-spanned="0" table:number-rows-spanned="-1"')).toEqual([1, 1])
    expect(spans(' table:number-columns-spanned="9999" table:number-rows-spanned="99999"')).toEqual([1024, 65_536])
  })

  it('have as many columns as they say, up to a limit', () => {
    const columns = (inside: string) => {
      const [block] = read(table(inside + row(cell('a'))))
      return block!.kind === 'table' ? block!.columns : []
    }
    expect(
      columns('<table:table-column table:style-name="C" table:number-columns-repeated="2"/><table:table-column/>'),
    ).toEqual([
      { styleName: 'C', cellStyle: null },
      { styleName: 'C', cellStyle: null },
      { styleName: null, cellStyle: null },
    ])
    expect(columns('<table:table-column table:number-columns-repeated="900"/>'.repeat(2))).toHaveLength(1024)
  })

  it('style a cell by itself, by its row, or by its column', () => {
    const columns = '<table:table-column table:default-cell-style-name="col"/>'.repeat(2)
    const of = (first: string, more = '') =>
      cells(table(columns + row(first + cell('b') + cell('c'), more))).map(each => each.styleName)
    expect(of(cell('a', ' table:style-name="own"'))).toEqual(['own', 'col', null])
    expect(of(cell('a', ' table:style-name="own"'), ' table:default-cell-style-name="row"')).toEqual([
      'own',
      'row',
      'row',
    ])
  })

  it('know which cells are of the first of several rows', () => {
    const firsts = (body: string) =>
      cells(body).map(each => (paragraphsOf(each.blocks)[0]!.holder as { first: boolean }).first)
    expect(firsts(table(row(cell('a')) + row(cell('b'))))).toEqual([true, false])
    expect(firsts(table(row(cell('a'))))).toEqual([false])
  })

  it('have the parts of their template that they use', () => {
    const parts = (more: string) =>
      cells(
        table(
          '<table:table-column table:number-columns-repeated="3"/>' + row(cell('a') + cell('b') + cell('c')).repeat(3),
          ` table:template-name="T"${more}`,
        ),
      ).map(each => each.template!.parts.slice(1).join(' '))
    const use = (...what: string[]) => what.map(each => ` table:use-${each}-styles="true"`).join('')
    expect(cells(table(row(cell('a')), use('first-row')))[0]!.template).toBeNull()
    expect(cells(table(row(cell('a')), ' table:template-name="T"'))[0]!.template).toEqual({
      name: 'T',
      parts: ['body'],
    })
    const r = (one: string, two: string, three: string) => [one, one, one, two, two, two, three, three, three]
    expect(parts(use('first-row', 'last-row'))).toEqual(r('first-row', '', 'last-row'))
    expect(parts(use('first-column', 'last-column'))).toEqual([
      'first-column',
      '',
      'last-column',
      'first-column',
      '',
      'last-column',
      'first-column',
      '',
      'last-column',
    ])
    expect(parts(use('banding-rows'))).toEqual(r('odd-rows', 'even-rows', 'odd-rows'))
    expect(parts(use('banding-rows', 'first-row'))).toEqual(r('first-row', 'odd-rows', 'even-rows'))
    expect(parts(use('banding-columns')).slice(0, 3)).toEqual(['odd-columns', 'even-columns', 'odd-columns'])
  })
})

describe('frames', () => {
  const frame = (inside: string, more = '') => `<text:p><draw:frame${more}>${inside}</draw:frame></text:p>`
  const found = (body: string) => {
    const [inline] = paragraphsOf(read(body))[0]!.inlines
    if (inline?.kind !== 'frame') throw new Error('no frame')
    return inline.frame
  }

  it.each<[string, string, string, string | null]>([
    ['text', '<draw:text-box><text:p>a</text:p></draw:text-box>', 'text', null],
    ['an object before its picture', '<draw:object xlink:href="./O"/><draw:image xlink:href="P"/>', 'object', './O'],
    ['an object of another kind', '<draw:object-ole xlink:href="./Q"/>', 'object', './Q'],
    ['a picture without a place', '<draw:image/>', 'image', null],
    ['a picture before text', '<draw:image xlink:href="P"/><draw:text-box/>', 'image', 'P'],
    [
      'a table',
      '<table:table><table:table-row><table:table-cell><text:p>a</text:p></table:table-cell></table:table-row></table:table>',
      'text',
      null,
    ],
    ['nothing that is known', '<draw:plugin/>', 'none', null],
  ])('hold %s', (_, inside, content, href) => {
    expect(found(frame(inside))).toMatchObject({ content, href, anchor: 'paragraph', name: '', placeholder: '' })
  })

  it('are named, anchored, styled, and follow a placeholder', () => {
    expect(
      found(
        frame(
          '',
          ' draw:name="N" text:anchor-type="page" draw:style-name="d" presentation:style-name="p" presentation:class="title"',
        ),
      ),
    ).toMatchObject({ name: 'N', anchor: 'page', graphicStyle: 'd', placeholder: 'title' })
    expect(found(frame('', ' presentation:style-name="p"')).graphicStyle).toBe('p')
  })

  it('are shapes with text of their own, and groups of them', () => {
    const shape = (inside: string) => `<text:p>${inside}</text:p>`
    expect(found(shape('<draw:rect><text:p>a</text:p></draw:rect>')).content).toBe('text')
    expect(found(shape('<draw:rect/>')).content).toBe('none')
    expect(found(shape('<draw:g><draw:rect><text:p>a</text:p></draw:rect></draw:g>')).content).toBe('group')
    expect(
      found(shape('<draw:a><draw:frame><draw:text-box><text:p>a</text:p></draw:text-box></draw:frame></draw:a>'))
        .content,
    ).toBe('group')
  })

  it('stand in what holds them: text of a frame in a table is of the frame, in a note of the note', () => {
    const box = '<draw:frame><draw:text-box><text:p>a</text:p></draw:text-box></draw:frame>'
    const places = (body: string) =>
      paragraphsOf(read(body))
        .filter(each => words(each) === 'a')
        .map(each => each.place)
    expect(places(`<text:p>${box}</text:p>`)).toEqual(['frame'])
    expect(
      places(
        `<table:table><table:table-row><table:table-cell><text:p>${box}</text:p></table:table-cell></table:table-row></table:table>`,
      ),
    ).toEqual(['frame'])
    expect(
      places(`<text:p><text:note><text:note-body><text:p>${box}</text:p></text:note-body></text:note></text:p>`),
    ).toEqual(['note'])
    const table =
      '<table:table><table:table-row><table:table-cell><text:p>a</text:p></table:table-cell></table:table-row></table:table>'
    expect(places(`<text:p><draw:frame><draw:text-box>${table}</draw:text-box></draw:frame></text:p>`)).toEqual([
      'frame',
    ])
  })
})

describe('what stands in a paragraph', () => {
  it.each<[string, string, string]>([
    ['white space, as one space', 'a \n\t b', 'a b'],
    ['none at its beginning and its end', '  a  ', 'a'],
    ['none behind a space of a span before', 'a <text:span> b</text:span> <text:span/> c', 'a |b| |c'],
    ['spaces that are counted', 'a<text:s text:c="3"/> b', 'a|"   "| b'],
    ['one that is not', '<text:s/>a', '" "|a'],
    ['as many as there are, up to a limit', '<text:s text:c="0"/>', '" "'],
    ['tabs and breaks', 'a<text:tab/> b<text:line-break/> c', 'a|"\\t"| b|"\\n"| c'],
    ['a space at its end that is counted', 'a <text:s/>', 'a |" "'],
    [
      'a remark at its end, and no space before it',
      'a <office:annotation><text:p>why</text:p></office:annotation>',
      'a|[remark: p annotation: why]',
    ],
    [
      'a link, and text with a gloss',
      '<text:a>a</text:a><text:ruby><text:ruby-base>b</text:ruby-base><text:ruby-text>c</text:ruby-text></text:ruby>',
      'a|b|c',
    ],
    [
      'fields, as what they show',
      '<text:date>today</text:date><text:page-number/>',
      '{text:date}today|{text:page-number}',
    ],
    ['nothing for what is not seen', 'a<text:bookmark text:name="b"/><text:unknown/>c', 'a|c'],
    [
      'a note',
      'a<text:note text:note-class="footnote"><text:note-citation> 1 </text:note-citation>' +
        '<text:note-body><text:p>n</text:p></text:note-body></text:note> b',
      'a|[note 1: p note: n]| b',
    ],
    [
      'an endnote',
      '<text:note text:note-class="endnote"><text:note-body><text:p>n</text:p></text:note-body></text:note>',
      '[endnote : p note: n]',
    ],
    ['a note that says nothing', '<text:note/>', '[note : ]'],
  ])('%s', (_, inside, expected) => {
    expect(words(paragraphsOf(read(`<text:p>${inside}</text:p>`))[0]!)).toBe(expected)
  })

  it('has spans in each other, and the first empty one where it has no text', () => {
    const [paragraph] = paragraphsOf(
      read(
        '<text:p><text:span text:style-name="A"><text:span text:style-name="B" text:class-names="c d">x</text:span></text:span></text:p>',
      ),
    )
    const [inline] = paragraph!.inlines
    expect(inline).toMatchObject({
      kind: 'text',
      span: { styleName: 'B', classNames: ['c', 'd'], parent: { styleName: 'A', parent: null } },
    })
    const mark = (body: string) => paragraphsOf(read(body))[0]!.mark?.styleName ?? null
    expect(mark('<text:p><text:span text:style-name="A"/><text:span text:style-name="B"/></text:p>')).toBe('A')
    expect(mark('<text:p><text:span text:style-name="A"/>x</text:p>')).toBeNull()
    expect(mark('<text:p/>')).toBeNull()
  })
})
