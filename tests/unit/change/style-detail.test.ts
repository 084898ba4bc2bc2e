import { describe, expect, it } from 'vitest'
import { styleDetail } from '../../../core/change/styles/style-detail'
import { drawingOf, drawnPage, face, graphicStyle, paragraphStyle, sessionOf, textStyle } from '../../support/fixtures'
import { quickly } from '../../support/planning'

const of = sessionOf({
  stylesFaces: face('Spectral') + face('Jost'),
  styles:
    '<style:default-style style:family="paragraph"><style:paragraph-properties fo:widows="2" fo:orphans="2"/>' +
    '<style:text-properties style:font-name="Spectral" fo:font-size="10pt" fo:color="#111111"/></style:default-style>' +
    paragraphStyle('Base', 'fo:font-size="12pt"', 'fo:margin-left="1cm" fo:widows="3"') +
    paragraphStyle(
      'Part',
      'fo:font-size="150%" fo:color="#222222"',
      '',
      ' style:parent-style-name="Base" style:display-name="The part"',
    ) +
    paragraphStyle(
      'Leaf',
      'style:font-name="Jost" fo:font-size="50%"',
      'fo:margin-left="2cm"',
      ' style:parent-style-name="Part"',
    ) +
    paragraphStyle('Loose', 'fo:font-size="200%"') +
    paragraphStyle('Under', '', '', ' style:parent-style-name="Loose"') +
    textStyle('Words', 'fo:font-style="italic"') +
    textStyle('More', 'fo:font-weight="bold"', ' style:parent-style-name="Words"'),
  body: '<text:p text:style-name="Leaf">text</text:p>',
})
const detail = (name: string, family: 'paragraph' | 'text' = 'paragraph') => styleDetail(of.reading, family, name)!

describe('a style laid open', () => {
  it('says what it says itself, and what it has from whom', () => {
    const leaf = detail('Leaf')
    expect(leaf).toMatchObject({
      family: 'paragraph',
      name: 'Leaf',
      parent: 'Part',
      text: { 'fo:font-size': '50%' },
      paragraph: { 'fo:margin-left': '2cm' },
      author: '',
      role: null,
      tabs: null,
      dropCap: null,
      listLabel: null,
    })
    expect(leaf.inheritedText['fo:color']).toEqual({ value: '#222222', from: 'The part' })
    expect(leaf.inheritedParagraph).toEqual({
      'fo:widows': { value: '3', from: 'Base' },
      'fo:orphans': { value: '2', from: 'what text starts with' },
      'fo:margin-left': { value: '1cm', from: 'Base' },
    })
    expect(leaf.fonts.western).toEqual({ own: 'Jost', inherited: { value: 'Spectral', from: 'what text starts with' } })
  })

  it('reckons sizes in percent of what is above, down to points', () => {
    expect(detail('Leaf').inheritedText['fo:font-size']).toEqual({ value: '18pt', from: 'The part' })
    expect(detail('Leaf').size).toBe(9)
    expect(detail('Under').inheritedText['fo:font-size']).toEqual({ value: '20pt', from: 'Loose' })
    expect(detail('Base').inheritedText['fo:font-size']).toEqual({ value: '10pt', from: 'what text starts with' })
  })

  it('of words has nothing from what text starts with', () => {
    const more = detail('More', 'text')
    expect(more.inheritedText).toEqual({ 'fo:font-style': { value: 'italic', from: 'Words' } })
    expect(more.inheritedParagraph).toEqual({})
    expect(more.fonts.western).toEqual({ own: null, inherited: null })
  })

  it('reckons from twelve points where nobody says a size', () => {
    const bare = sessionOf({
      styles: paragraphStyle('A', 'fo:font-size="150%"') + paragraphStyle('B', '', '', ' style:parent-style-name="A"'),
    })
    expect(styleDetail(bare.reading, 'paragraph', 'B')!.inheritedText['fo:font-size']).toEqual({
      value: '18pt',
      from: 'A',
    })
  })

  it('of a frame has what frames start with', () => {
    const deck = drawingOf({
      pages: drawnPage(''),
      styles:
        graphicStyle('Box', 'draw:fill="solid"', 'fo:font-size="14pt"') +
        graphicStyle('Inner', 'fo:padding="1cm"', '', '', ' style:parent-style-name="Box"'),
    })
    const inner = styleDetail(deck.reading, 'graphic', 'Inner')!
    expect(inner.holder).toMatchObject({ 'fo:padding': '1cm' })
    expect(inner.inheritedHolder['draw:fill']).toEqual({ value: 'solid', from: 'Box' })
    expect(inner.inheritedHolder['draw:stroke']).toEqual({ value: 'none', from: 'what text starts with' })
    expect(inner.inheritedText['fo:font-size']).toEqual({ value: '14pt', from: 'Box' })
  })

  it('is nothing where there is none of that name', () => {
    expect(styleDetail(of.reading, 'paragraph', 'Nobody')).toBeNull()
    expect(styleDetail(of.reading, 'text', 'Base')).toBeNull()
  })

  it('has its own rules, its tab stops and its drop cap, with lengths in points', () => {
    const rule = { id: 'r', title: 'Figures', on: true, style: 'Base', character: 'Words', pattern: '\\d' }
    const lead = { id: 'l', title: 'Start', style: 'Part', character: 'Words', what: { kind: 'words', count: 2 } }
    const { after } = quickly(
      of,
      { type: 'rules', style: 'Base', patterns: [rule], leadIns: [] },
      { type: 'rules', style: 'Part', patterns: [], leadIns: [lead] },
    )
    const own = (name: string, family: 'paragraph' | 'text' = 'paragraph') => {
      const { patterns, leadIns } = styleDetail(after.reading, family, name)!
      return [...patterns, ...leadIns].map(each => each.id)
    }
    expect([own('Base'), own('Part'), own('Leaf'), own('Words', 'text')]).toEqual([['r'], ['l'], [], []])
    const set = sessionOf({
      styles:
        '<style:style style:name="Tabbed" style:family="paragraph"><style:paragraph-properties><style:tab-stops>' +
        '<style:tab-stop style:position="1in" style:type="right"/></style:tab-stops>' +
        '<style:drop-cap style:lines="3" style:length="2" style:distance="0.5in"/></style:paragraph-properties></style:style>',
    })
    const tabbed = styleDetail(set.reading, 'paragraph', 'Tabbed')!
    expect(tabbed.tabs).toMatchObject([{ position: 72, type: 'right' }])
    expect(tabbed.dropCap).toMatchObject({ lines: 3, length: 2, distance: 36 })
  })
})
