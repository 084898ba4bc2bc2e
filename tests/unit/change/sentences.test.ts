import { describe, expect, it } from 'vitest'
import { levelStyles } from '../../../core/change/levels/level-list'
import { criteriaWords, scopeWords } from '../../../core/change/recast/wish'
import { registry } from '../../../core/change/registry'
import { drawnLook } from '../../../core/change/styles/style-list'
import { paragraphsOf } from '../../../core/document/stories'
import { describeHolder, describeValues } from '../../../core/style/describe'
import { typeGroups } from '../../../core/style/groups'
import { paragraphRuns } from '../../../core/style/runs'
import { seasonReview } from '../../../demo/season-review'
import { graphicStyle, drawingOf, library, session, sessionOf, textStyle } from '../../support/fixtures'
import { request } from '../../support/planning'

describe('what is looked for, in words', () => {
  it.each([
    [{ slot: 'western' }, 'text in western script'],
    [{ slot: 'asian' }, 'text in East Asian script'],
    [{ slot: 'complex' }, 'text in a complex script'],
    [{ place: 'body' }, 'text in the body'],
    [{ place: 'header' }, 'text in headers, footers and masters'],
    [{ place: 'table' }, 'text in tables'],
    [{ size: { least: 9, most: 9 } }, 'text at 9 pt'],
    [{ size: { least: 9, most: 10 } }, 'text at 9 to 10 pt'],
    [{ weight: { least: 600 } }, 'text of weight 600 or more'],
    [{ tracking: { most: 10 } }, 'text tracked 10 or less'],
    [{ role: 'intro' }, 'text that is an intro'],
    [{ role: 'body', stray: true }, 'text that is a body, set by hand'],
    [{ case: 'small-caps', underlined: false }, 'text in small capitals, not underlined'],
    [{ case: 'uppercase', raised: true }, 'text in uppercase, raised or lowered'],
    [{}, 'all text'],
  ])('%j', (look, words) => {
    expect(criteriaWords({ look } as never)).toBe(words)
  })

  it('with where it is looked for, pages counted from 1', () => {
    expect(scopeWords({ scope: { kind: 'pages', from: 2, to: 2 } } as never)).toBe('on page 3')
    expect(scopeWords({ scope: { kind: 'pages', from: 0, to: 4 } } as never)).toBe('on pages 1 to 5')
    expect(scopeWords({ scope: { kind: 'ranges', ranges: [] } } as never)).toBe('in what is selected')
  })
})

describe('what is wished, in sentences', () => {
  const settle = (groups: readonly string[], more: object = {}) =>
    registry.sentences(request([{ type: 'settle', scope: { kind: 'document' }, groups, ...more }]))[0]!
  it('names up to six groups of formatting, and more as local formatting', () => {
    expect(settle(['face', 'size'])).toMatch(/^Settle face, size /)
    expect(settle(typeGroups.slice(0, 6))).not.toContain('local formatting')
    expect(settle(typeGroups.slice(0, 7))).toMatch(/^Settle local formatting /)
    expect(settle(['size'], { idleOnly: true })).toMatch(/^Sweep out size that changes nothing, /)
  })
})

describe('what a style says, in words', () => {
  it.each([
    [
      { 'style:text-underline-style': 'none', 'style:text-line-through-style': 'solid' },
      'not underlined, struck through',
    ],
    [
      { 'style:text-underline-style': 'solid', 'style:text-line-through-style': 'none' },
      'underlined, not struck through',
    ],
    [{ 'style:text-outline': 'true', 'fo:text-shadow': 'none' }, 'outlined, no shadow'],
    [{ 'style:text-outline': 'false', 'fo:text-shadow': '1pt 1pt' }, 'not outlined, with a shadow'],
    [{ 'style:letter-kerning': 'false', 'style:text-scale': '90%' }, 'not kerned, 90 % wide'],
    [{ 'fo:letter-spacing': 'normal', 'fo:background-color': 'transparent' }, 'not tracked, no background'],
    [{ 'style:text-position': '-33% 58%' }, 'lowered'],
    [{ 'style:text-position': '0% 100%' }, 'on the baseline'],
    [{ 'fo:language': 'none', 'fo:hyphenate': 'false', 'text:display': 'none' }, 'no language, not hyphenated, hidden'],
    [{ 'fo:language': 'de', 'fo:country': 'none' }, 'language de'],
  ])('of text: %j', (values, words) => {
    expect(describeValues(values as Record<string, string>, {}, null).join(', ')).toBe(words)
  })

  it.each([
    [
      'fo:line-height',
      { normal: 'leading of the face', '100%': 'set solid', '120%': 'leading 120 %', '14pt': 'leading 14 pt' },
    ],
    ['style:line-height-at-least', { '14pt': 'leading at least 14 pt' }],
    ['style:line-spacing', { '2pt': '2 pt between lines' }],
    ['fo:text-align', { start: 'set left', right: 'set right', center: 'centred', justify: 'justified', own: 'own' }],
    ['fo:text-indent', { '0cm': 'no first-line indent', '1in': 'first line 72 pt' }],
    ['fo:margin-left', { '1in': '72 pt from the left', '0cm': '0 pt from the left' }],
    ['fo:margin-right', { '1in': '72 pt from the right' }],
    ['fo:margin-top', { '0cm': 'no space before', '6pt': '6 pt before' }],
    ['fo:margin-bottom', { '0cm': 'no space after', '6pt': '6 pt after' }],
    ['fo:keep-with-next', { always: 'kept with the next', auto: 'not kept with the next' }],
    ['fo:keep-together', { always: 'kept whole', auto: 'may be divided' }],
    ['fo:widows', { 2: 'widows 2' }],
    ['fo:orphans', { 3: 'orphans 3' }],
    ['fo:break-before', { page: 'on a new page', column: 'in a new column', auto: 'no break before' }],
  ])('of paragraphs: %s', (name, values) => {
    for (const [value, words] of Object.entries(values))
      expect(describeValues({}, { [name]: value }, null)).toEqual([words])
  })

  it.each([
    ['fo:font-size', { '10.25pt': '10.25 pt', '80%': '80 %', large: 'large' }],
    ['style:font-size-rel', { '2pt': '2 pt more' }],
    ['fo:font-weight', { bold: 'bold', normal: 'regular weight', 650: 'weight 650', 300: 'light' }],
    ['fo:font-style', { normal: 'upright', italic: 'italic', oblique: 'oblique' }],
    ['fo:font-variant', { 'small-caps': 'small capitals', normal: 'no small capitals' }],
    [
      'fo:text-transform',
      { uppercase: 'capitals', lowercase: 'lower case', capitalize: 'initial capitals', none: 'case as written' },
    ],
    ['fo:letter-spacing', { normal: 'not tracked', '0.5pt': 'tracked 0.5 pt' }],
    ['style:letter-kerning', { true: 'kerned', false: 'not kerned' }],
    ['fo:color', { '#123456': '#123456' }],
    ['fo:background-color', { '#123456': 'on #123456' }],
    ['style:text-position', { 'super 58%': 'raised', '33% 58%': 'raised', 'sub 58%': 'lowered' }],
    ['fo:hyphenate', { true: 'hyphenated', false: 'not hyphenated' }],
    ['text:display', { true: 'shown', none: 'hidden' }],
    ['style:font-name', { Jost: 'Jost' }],
    ['style:font-name-asian', { Jost: 'asian text in Jost' }],
    ['style:font-family-complex', { "'Jost', Inter": 'complex text in Jost' }],
    ['style:font-size-asian', { '12pt': 'asian text at 12 pt' }],
  ])('of letters: %s', (name, values) => {
    for (const [value, words] of Object.entries(values))
      expect(describeValues({ [name]: value }, {}, null)).toEqual([words])
  })

  it('of sizes that all scripts share once, and of a face with its style', () => {
    const all = { 'fo:font-size': '12pt', 'style:font-size-asian': '12pt', 'style:font-size-complex': '14pt' }
    expect(describeValues(all, {}, null)).toEqual(['12 pt', 'complex text at 14 pt'])
    expect(
      describeValues({ 'fo:font-family': "'Work Sans', Inter", 'style:font-style-name': 'Medium' }, {}, null),
    ).toEqual(['Work Sans Medium'])
  })

  it.each([
    [{ 'draw:fill': 'none', 'draw:stroke': 'none' }, 'no ground, no line'],
    [
      { 'draw:fill': 'gradient', 'svg:stroke-width': '1mm', 'svg:stroke-color': '#1f6f6b' },
      'ground of a gradient, line 2.83 pt #1f6f6b',
    ],
    [{ 'fo:background-color': '#fdfcf8', 'fo:border': 'none' }, 'ground #fdfcf8, no line'],
    [
      { 'fo:border': '0.5pt solid #000000', 'fo:padding': '2mm' },
      'line 0.5pt solid #000000, text 5.67 pt off the edge',
    ],
    [{ 'draw:textarea-vertical-align': 'middle' }, 'text in the middle'],
    [{ 'style:vertical-align': 'bottom' }, 'text at the bottom'],
  ])('of what holds text: %j', (values, words) => {
    expect(describeHolder(values as Record<string, string>).join(', ')).toBe(words)
  })
})

describe('how a style is shown', () => {
  it.each([
    ['style:text-underline-style="solid"', 'underline'],
    ['style:text-line-through-style="solid"', 'line-through'],
    ['fo:font-weight="bold"', ''],
  ])('with %s', (values, decoration) => {
    const of = sessionOf({
      automatic: textStyle('T1', values),
      body: '<text:p><text:span text:style-name="T1">Kelda</text:span></text:p>',
    })
    const [run] = paragraphRuns(paragraphsOf(of.reading.stories[0]!.blocks)[0]!, of.reading.cascade).runs
    expect(drawnLook(library, run!.style, 'western').decoration).toBe(decoration)
  })
})

describe('the levels of a deck', () => {
  it('come master by master, title first, then outline levels in order, whatever order the file has', () => {
    const style = (name: string) => graphicStyle(name, '', 'fo:font-size="20pt"', '', '', 'presentation')
    const names = [
      'B-outline2',
      'B-title',
      'A-notes',
      'A-outline3',
      'A-outline1',
      'A-outline2',
      'A-title',
      'A-subtitle',
    ]
    const deck = drawingOf({ styles: names.map(style).join(''), pages: '' })
    expect(levelStyles(deck.reading).map(({ style: { name } }) => name)).toEqual([
      'A-title',
      'A-subtitle',
      'A-outline1',
      'A-outline2',
      'A-outline3',
      'A-notes',
      'B-title',
      'B-outline2',
    ])
    expect(
      levelStyles(session(seasonReview()).reading)
        .map(each => each.level)
        .slice(0, 3),
    ).toEqual([1, 1, 1])
  })
})
