import { describe, expect, it } from 'vitest'
import { applyAll } from '../../../core/document/apply'
import { Change } from '../../../core/document/draft'
import { openDocument, saveDocument } from '../../../core/document/open'
import { assignParagraph, assignStyle, isSpareParagraph, setOutlineLevel } from '../../../core/document/paragraph-verbs'
import { writeElement } from '../../../core/xml/write'
import { makeOdt } from '../../support/fixtures'

/** A body, open to be changed, with its paragraphs in order. */
function open(body: string) {
  const bytes = makeOdt({ body })
  const change = new Change(openDocument(bytes))
  const draft = change.on('content.xml')
  const paragraphs = () =>
    [...draft.part.descendants()].filter(each => each.name === 'text:p' || each.name === 'text:h')
  return {
    change,
    draft,
    paragraphs,
    at: (index: number) => paragraphs()[index]!.id,
    written: (index = 0) => writeElement(draft.part, paragraphs()[index]!.id),
    isUndone: () => Buffer.compare(saveDocument(applyAll(change.document, [...change.inverse]).document), bytes) === 0,
  }
}

describe('a paragraph’s style', () => {
  it('is given, and with it goes one that only held under a condition', () => {
    const own = open('<text:p text:style-name="A" text:cond-style-name="B">x</text:p>')
    assignParagraph(own.draft, own.at(0), 'C')
    expect(own.written()).toBe('<text:p text:style-name="C">x</text:p>')
    expect(own.isUndone()).toBe(true)
  })

  it('is taken away', () => {
    const own = open('<text:p text:style-name="A">x</text:p>')
    assignStyle(own.draft, own.at(0), null)
    expect(own.written()).toBe('<text:p>x</text:p>')
  })

  it('that it has already changes nothing', () => {
    const own = open('<text:p text:style-name="A">x</text:p>')
    assignParagraph(own.draft, own.at(0), 'A')
    assignStyle(own.draft, own.at(0), 'A')
    expect(own.change.operations).toEqual([])
  })
})

describe('the outline level', () => {
  it('makes a heading of a paragraph, with all that is in it and the same nodes', () => {
    const own = open(
      '<text:p text:style-name="A" xml:id="i">a <text:span text:style-name="S">b</text:span>&#233;</text:p>',
    )
    const before = own.at(0)
    const inside = [...own.draft.part.element(before).children]
    setOutlineLevel(own.draft, before, 2)
    expect(own.written()).toBe(
      '<text:h text:style-name="A" xml:id="i" text:outline-level="2">a <text:span text:style-name="S">b</text:span>&#233;</text:h>',
    )
    expect(own.at(0)).toBe(before)
    expect(own.draft.part.element(before).children).toEqual(inside)
    expect(own.isUndone()).toBe(true)
  })

  it('makes a paragraph of a heading: what only headings say goes', () => {
    const own = open(
      '<text:h text:style-name="A" text:outline-level="1" text:is-list-header="true" text:restart-numbering="true">x</text:h>',
    )
    setOutlineLevel(own.draft, own.at(0), null)
    expect(own.written()).toBe('<text:p text:style-name="A">x</text:p>')
    expect(own.isUndone()).toBe(true)
  })

  it('of a heading is set where it stands; a paragraph without one is let be', () => {
    const own = open('<text:h text:outline-level="1">x</text:h><text:p>y</text:p>')
    setOutlineLevel(own.draft, own.at(0), 3)
    expect(own.written(0)).toBe('<text:h text:outline-level="3">x</text:h>')
    const { length } = own.change.operations
    setOutlineLevel(own.draft, own.at(1), null)
    setOutlineLevel(own.draft, own.at(0), 3)
    expect(own.change.operations).toHaveLength(length)
  })

  it('keeps the place among its neighbours', () => {
    const own = open('<text:p>one</text:p><text:p>two</text:p><text:p>three</text:p>')
    setOutlineLevel(own.draft, own.at(1), 1)
    expect(own.paragraphs().map(({ name, id }) => [name, own.draft.part.textOf(id)])).toEqual([
      ['text:p', 'one'],
      ['text:h', 'two'],
      ['text:p', 'three'],
    ])
  })
})

describe('a spare paragraph', () => {
  it('holds nothing, and is not the only one where it stands', () => {
    const own = open('<text:p/><text:p>x</text:p><text:p><text:s/></text:p>')
    expect([0, 1, 2].map(index => isSpareParagraph(own.draft.part, own.at(index)))).toEqual([true, false, false])
    const alone = open('<text:p/><text:section text:name="s"><text:p/></text:section>')
    // Each is the only one of what it stands in.
    expect([0, 1].map(index => isSpareParagraph(alone.draft.part, alone.at(index)))).toEqual([false, false])
  })
})
