import { describe, expect, it } from 'vitest'
import { openParagraph, isParagraph } from '../../../core/document/paragraph-spots'
import {
  extentOf,
  isSpan,
  isWithin,
  reachesBeyond,
  saysOnly,
  spansAround,
  spansBy,
  spansWithin,
  stretchesOutsideSpans,
  styledWithin,
  styleNameAt,
} from '../../../core/document/span-places'
import { partOf } from '../../../core/document/open'
import { openOdt } from '../../support/fixtures'

const span = (style: string, inside: string) => `<text:span text:style-name="${style}">${inside}</text:span>`

/** A paragraph, and its spans by the name of their style. */
function open(inside: string) {
  const document = openOdt({ body: `<text:p text:style-name="P">${inside}</text:p>` })
  const part = partOf(document, 'content.xml')
  const elements = [...part.descendants()]
  const paragraph = elements.find(each => each.name === 'text:p')!.id
  const named = (style: string) => elements.find(each => each.attributes['text:style-name'] === style)!.id
  const names = (ids: readonly number[]) => ids.map(id => styleNameAt(part, id))
  return { part, paragraph, named, names, laid: openParagraph(part, paragraph) }
}

describe('the spans of a paragraph', () => {
  // ab | A: cd B: ef | gh
  const own = open(`ab${span('A', `cd${span('B', 'ef')}`)}gh`)

  it('around a piece of text come from the outside in', () => {
    const piece = own.laid.pieces.find(each => each.text === 'ef')!
    expect(own.names(spansAround(own.laid, piece))).toEqual(['A', 'B'])
    expect(spansAround(own.laid, own.laid.pieces[0]!)).toEqual([])
  })

  it('around a field are those around its element', () => {
    const field = open(span('A', `<text:title>Title</text:title>`))
    expect(field.names(spansAround(field.laid, field.laid.pieces[0]!))).toEqual(['A'])
  })

  it('within a stretch are those with no text outside of it, outer ones first', () => {
    expect(own.names(spansWithin(own.part, own.paragraph, 2, 6))).toEqual(['A', 'B'])
    expect(own.names(spansWithin(own.part, own.paragraph, 3, 6))).toEqual(['B'])
    expect(spansWithin(own.part, own.paragraph, 2, 5)).toEqual([])
    // An empty span holds no text that could be meant.
    const hollow = open(`a${span('E', '')}b`)
    expect(spansWithin(hollow.part, hollow.paragraph, 0, 2)).toEqual([])
  })

  it('reach beyond a stretch where they hold text outside of it', () => {
    expect(reachesBeyond(own.laid, own.named('A'), 2, 6)).toBe(false)
    expect(reachesBeyond(own.laid, own.named('A'), 2, 5)).toBe(true)
    expect(reachesBeyond(own.laid, own.named('A'), 3, 6)).toBe(true)
    expect(reachesBeyond(own.laid, own.named('B'), 4, 6)).toBe(false)
  })

  it('say what they hold, as a stretch of their paragraph', () => {
    expect(extentOf(own.part, own.named('B'))).toEqual({ paragraph: own.paragraph, from: 4, to: 6 })
    expect(extentOf(own.part, own.named('A'))).toEqual({ paragraph: own.paragraph, from: 2, to: 6 })
    const hollow = open(`a${span('E', '')}b`)
    expect(extentOf(hollow.part, hollow.named('E'))).toBeNull()
  })

  it('are found by their style, in one element or in the whole part', () => {
    expect(own.names(spansBy(own.part, name => name === 'B'))).toEqual(['B'])
    expect(own.names(spansBy(own.part, () => true, own.paragraph))).toEqual(['A', 'B'])
    // The paragraph itself is no span, and a span without a style goes by none.
    expect(spansBy(own.part, name => name === 'P')).toEqual([])
    const bare = open('<text:span>x</text:span>')
    expect(spansBy(bare.part, name => name === '')).toHaveLength(1)
  })
})

describe('text outside of spans', () => {
  it('comes in stretches, the last first, so that it can be wrapped from the end', () => {
    const own = open(`ab${span('A', 'cd')}ef${span('B', 'gh')}`)
    expect(stretchesOutsideSpans(own.part, own.paragraph, 0, 8)).toEqual([
      { from: 4, to: 6 },
      { from: 0, to: 2 },
    ])
  })

  it('of spans that reach beyond the range counts as bare: the span says nothing of the range alone', () => {
    const own = open(`ab${span('A', 'cd')}ef`)
    expect(stretchesOutsideSpans(own.part, own.paragraph, 0, 3)).toEqual([{ from: 0, to: 3 }])
  })

  it('is joined over pieces that touch', () => {
    const own = open('ab<text:tab/>cd')
    expect(stretchesOutsideSpans(own.part, own.paragraph, 1, 4)).toEqual([{ from: 1, to: 4 }])
  })
})

describe('what bears a style in a stretch', () => {
  it('are spans and links around text that lies wholly in it, from the inside out', () => {
    const own = open(`a<text:a xlink:href="x" text:style-name="L">${span('A', 'bc')}</text:a>d${span('B', 'e')}`)
    expect(styledWithin(own.part, own.paragraph, 0, 5).map(each => each.name)).toEqual(['A', 'L', 'B'])
    expect(styledWithin(own.part, own.paragraph, 1, 3).map(each => each.name)).toEqual(['A', 'L'])
    // Half of a piece is not meant.
    expect(styledWithin(own.part, own.paragraph, 2, 3)).toEqual([])
  })

  it('leaves out what names none', () => {
    const own = open('<text:span>ab</text:span>')
    expect(styledWithin(own.part, own.paragraph, 0, 2)).toEqual([])
  })
})

describe('elements', () => {
  const own = open(`${span('A', span('B', 'x'))}<text:a xlink:href="x" text:style-name="L">y</text:a>`)

  it('stand in themselves and in what is around them', () => {
    expect(isWithin(own.part, own.named('B'), own.named('A'))).toBe(true)
    expect(isWithin(own.part, own.named('A'), own.named('A'))).toBe(true)
    expect(isWithin(own.part, own.named('A'), own.named('B'))).toBe(false)
  })

  it('are spans or not, paragraphs or not', () => {
    expect([isSpan(own.part, own.named('A')), isSpan(own.part, own.named('L'))]).toEqual([true, false])
    expect(isParagraph(own.part, own.paragraph)).toBe(true)
    expect(isParagraph(own.part, own.named('A'))).toBe(false)
    expect(isParagraph(own.part, 1_000_000)).toBe(false)
  })

  it('say one thing only, or more', () => {
    expect(saysOnly(own.part, own.named('A'), 'text:style-name')).toBe(true)
    expect(saysOnly(own.part, own.named('L'), 'text:style-name')).toBe(false)
  })
})
