import { describe, expect, it } from 'vitest'
import { paragraphsOf } from '../../../core/document/stories'
import type { DocumentSession } from '../../../core/session'
import { paragraphStyle, sessionOf, textStyle } from '../../support/fixtures'
import { quickly } from '../../support/planning'

const parent = (name: string) => ` style:parent-style-name="${name}"`
const paragraphs = (of: DocumentSession) => of.reading.stories.flatMap(story => paragraphsOf(story.blocks))
const ranges = (
  of: DocumentSession,
  ...wanted: readonly (readonly [paragraph: number, from?: number, to?: number])[]
) => ({
  kind: 'ranges' as const,
  ranges: wanted.map(([at, from = 0, to = 1e6]) => ({ part: 'content.xml', node: paragraphs(of)[at]!.node, from, to })),
})
const styleOf = (of: DocumentSession, title: string) =>
  [...[...of.reading.cascade.scopes.values()][0]!.common.values()].find(each => each.displayName === title)!
const names = (of: DocumentSession) => paragraphs(of).map(({ styleName }) => styleName)

const open = () =>
  sessionOf({
    styles:
      paragraphStyle('Body', 'fo:font-family="Spectral" fo:font-size="10pt"') +
      paragraphStyle('Side', 'fo:font-family="Spectral" fo:font-size="8pt"') +
      textStyle('Name', 'fo:font-style="italic"'),
    automatic:
      paragraphStyle(
        'P1',
        'fo:font-size="120%"',
        'fo:break-before="page" style:page-number="5" fo:margin-left="1cm"',
        parent('Body'),
      ) +
      paragraphStyle('P2', 'fo:font-size="120%"', 'fo:margin-left="1cm"', parent('Side')) +
      textStyle('T1', 'fo:font-size="50%"') +
      textStyle('T2', 'fo:color="#ff0000"', parent('Name')),
    body:
      '<text:p text:style-name="P1">first of body</text:p>' +
      '<text:p text:style-name="P2">first of side</text:p>' +
      '<text:p text:style-name="Body">some <text:span text:style-name="T1">tiny</text:span> words, ' +
      '<text:span text:style-name="T2">Skerry</text:span></text:p>' +
      '<text:p>no style</text:p>',
  })

describe('adopting how text looks', () => {
  it('takes sizes as they are, and leaves out what belongs to the place: breaks and page numbers', () => {
    const { after } = quickly(open(), {
      type: 'adopt',
      family: 'paragraph',
      displayName: 'Wide',
      scope: ranges(open(), [0]),
    })
    const made = styleOf(after, 'Wide')
    expect(made.text).toEqual({ 'fo:font-size': '12pt' })
    expect(made.paragraph).toEqual({ 'fo:margin-left': '1cm' })
    expect(made.parentName).toBe('Body')
    const [first] = paragraphs(after)
    const { text } = after.reading.cascade.paragraph(first!, 'body')
    expect(text.effective.slots.western.size).toBe(12)
  })

  it('takes half of the size around it for words whose size was a share', () => {
    const of = open()
    const { after } = quickly(of, { type: 'adopt', family: 'text', displayName: 'Tiny', scope: ranges(of, [2, 5, 9]) })
    expect(styleOf(after, 'Tiny').text).toEqual({ 'fo:font-size': '5pt' })
    expect(styleOf(after, 'Tiny').parentName).toBeNull()
  })

  it('gives the style to paragraphs of the same base alone, and names those that it passes by', () => {
    const of = open()
    const { plan, after } = quickly(of, {
      type: 'adopt',
      family: 'paragraph',
      displayName: 'Wide',
      scope: ranges(of, [0], [1], [2, 0, 4]),
    })
    expect(names(after)[1]).toBe('P2')
    expect(names(after)[2]).toBe('Body')
    expect(plan.left.map(each => [each.what, each.reason])).toEqual([
      ['paragraphs based on Side', 'their indents and spacing would change with another style'],
      ['words inside paragraphs', 'a paragraph style speaks for whole paragraphs'],
    ])
  })

  it.each<[name: string, family: 'paragraph' | 'text', at: readonly [number, number?, number?], word: RegExp]>([
    ['a paragraph style of words alone', 'paragraph', [2, 5, 9], /No whole paragraph looks like this/],
    ['a character style of no words', 'text', [2, 5, 5], /no words here/],
    ['text that its style says already', 'text', [2, 0, 4], /looks as its style “Body” says/],
  ])('refuses %s', (_, family, at, word) => {
    const of = open()
    expect(() => quickly(of, { type: 'adopt', family, displayName: 'X', scope: ranges(of, at) })).toThrow(word)
  })
})

describe('teaching a style how its text looks', () => {
  it('changes the character style of words that have one', () => {
    const of = open()
    const { plan, after } = quickly(of, { type: 'teach', scope: ranges(of, [2, 17, 23]) })
    expect(styleOf(after, 'Name').text).toMatchObject({ 'fo:color': '#ff0000', 'fo:font-style': 'italic' })
    expect(plan.rows.map(({ after: to }) => to).join()).toContain('#ff0000')
  })

  it('changes the paragraph style of whole paragraphs, whose others follow', () => {
    const of = open()
    const { after } = quickly(of, { type: 'teach', scope: ranges(of, [0]) })
    const sizes = paragraphs(after).map(
      paragraph => after.reading.cascade.paragraph(paragraph, 'body').text.effective.slots.western.size,
    )
    expect(sizes[0]).toBe(12)
    expect(sizes[2]).toBe(12)
    // The paragraph's own indent is the style's from now on; a style of words says nothing of indents.
    expect(styleOf(after, 'Body').paragraph['fo:margin-left']).toBe('1cm')
    expect(after.reading.cascade.paragraph(paragraphs(after)[2]!, 'body').properties['fo:margin-left']).toBe('1cm')
    expect(sizes[1]).toBeCloseTo(9.6)
  })

  it.each<[name: string, at: readonly [number, number?, number?], word: RegExp]>([
    ['where nothing is set by hand', [2, 0, 4], /looks as “Body” says already/],
    ['where no named style speaks', [3], /has no named style/],
  ])('is refused %s', (_, at, word) => {
    const of = open()
    expect(() => quickly(of, { type: 'teach', scope: ranges(of, at) })).toThrow(word)
  })
})
