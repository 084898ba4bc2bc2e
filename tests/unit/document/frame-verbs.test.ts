import { describe, expect, it } from 'vitest'
import { applyAll } from '../../../core/document/apply'
import { Change } from '../../../core/document/draft'
import { copyFrame, followsPlaceholder, growFrame, setFrameStyle } from '../../../core/document/frame-verbs'
import { openDocument, saveDocument } from '../../../core/document/open'
import { writeElement } from '../../../core/xml/write'
import { makeDrawing, textFrame } from '../../support/fixtures'

/** A drawn page, open to be changed. */
function open(shapes: string) {
  const bytes = makeDrawing({ pages: `<draw:page draw:name="1" draw:master-page-name="M">${shapes}</draw:page>` })
  const change = new Change(openDocument(bytes))
  const draft = change.on('content.xml')
  const page = [...draft.part.descendants()].find(each => each.name === 'draw:page')!.id
  const shape = (index = 0) => [...draft.part.elements(draft.part.element(page))][index]!.id
  return {
    change,
    draft,
    shape,
    count: () => draft.part.element(page).children.length,
    written: (index = 0) => writeElement(draft.part, shape(index)),
    isUndone: () => Buffer.compare(saveDocument(applyAll(change.document, [...change.inverse]).document), bytes) === 0,
  }
}

describe('a frame that grows', () => {
  it('keeps its width, and lets go of a height that hung on something else', () => {
    const own = open(
      textFrame(
        'svg:width="2cm" svg:height="100pt"',
        '<text:p>x</text:p>',
        'style:rel-height="20%"',
        ' fo:min-height="50pt"',
      ),
    )
    growFrame(own.draft, own.shape(), 12.5)
    expect(own.written()).toBe(
      '<draw:frame svg:width="2cm" svg:height="112.5pt"><draw:text-box fo:min-height="62.5pt">' +
        '<text:p>x</text:p></draw:text-box></draw:frame>',
    )
    expect(own.isUndone()).toBe(true)
  })

  it('is never lower than a point, and one without a height gets none', () => {
    const own = open(
      textFrame('svg:width="2cm" svg:height="1in"', '<text:p/>') +
        textFrame('svg:width="2cm"', '<text:p/>', '', ' fo:min-height="10%"'),
    )
    growFrame(own.draft, own.shape(0), -100)
    expect(own.draft.part.element(own.shape(0)).attributes['svg:height']).toBe('1pt')
    const { length } = own.change.operations
    growFrame(own.draft, own.shape(1), 20)
    expect(own.change.operations).toHaveLength(length)
  })
})

describe('a copy of a frame', () => {
  const chained = textFrame(
    'svg:width="2cm" svg:height="2cm"',
    '<text:p xml:id="p">one <text:span text:style-name="S">two</text:span></text:p>',
    'draw:name="Box 3" draw:id="d"',
    ' draw:chain-next-name="Other"',
  )

  it('stands behind it with a name of its own, ends where it ends, and no id is said twice', () => {
    const own = open(`${chained}<draw:rect draw:name="Box 1"/>`)
    copyFrame(own.draft, own.shape())
    expect(own.count()).toBe(3)
    expect(own.written(1)).toBe(
      '<draw:frame svg:width="2cm" svg:height="2cm" draw:name="Box 2"><draw:text-box>' +
        '<text:p>one <text:span text:style-name="S">two</text:span></text:p></draw:text-box></draw:frame>',
    )
    expect(own.written(0)).toContain('draw:chain-next-name="Other"')
    expect(own.written(2)).toContain('draw:rect')
    expect(own.isUndone()).toBe(true)
  })

  it('says which of its nodes came of which', () => {
    const own = open(chained)
    const twins = copyFrame(own.draft, own.shape())
    expect(twins.get(own.shape(0))).toBe(own.shape(1))
    for (const [from, to] of twins) {
      const [one, other] = [own.draft.part.node(from), own.draft.part.node(to)]
      expect(other.kind).toBe(one.kind)
      if (one.kind === 'element' && other.kind === 'element') expect(other.name).toBe(one.name)
      if (one.kind === 'text' && other.kind === 'text') expect(other.text).toBe(one.text)
    }
    expect(twins.size).toBe([...own.draft.part.descendants(own.draft.part.element(own.shape(0)))].length + 2)
  })

  it('of a frame without a name is called after what it is', () => {
    const own = open(textFrame('svg:width="2cm"', '<text:p/>'))
    copyFrame(own.draft, own.shape())
    expect(own.draft.part.element(own.shape(1)).attributes['draw:name']).toBe('Text frame 1')
  })
})

describe('what a frame says of its text', () => {
  it('is the style that is written in later', () => {
    const own = open(textFrame('svg:width="2cm"', '<text:p/>'))
    setFrameStyle(own.draft, own.shape(), 'Caption')
    expect(own.draft.part.element(own.shape()).attributes['draw:text-style-name']).toBe('Caption')
    const paragraph = [...own.draft.part.descendants()].find(each => each.name === 'text:p')!.id
    const { length } = own.change.operations
    setFrameStyle(own.draft, paragraph, 'Caption')
    expect(own.change.operations).toHaveLength(length)
  })

  it('may come from a placeholder of its master', () => {
    const own = open(
      textFrame('svg:width="2cm"', '<text:p/>', 'presentation:class="title"') +
        textFrame('svg:width="2cm"', '<text:p/>', 'presentation:style-name="M-outline1"') +
        textFrame('svg:width="2cm"', '<text:p/>', 'draw:style-name="gr1"'),
    )
    expect([0, 1, 2].map(index => followsPlaceholder(own.draft.part, own.shape(index)))).toEqual([true, true, false])
  })
})
