import { describe, expect, it } from 'vitest'
import { asksNothing, criteriaSchema } from '../../../core/census/criteria'
import { colorOf, matchText } from '../../../core/census/matching'
import { paragraphsOf } from '../../../core/document/stories'
import { library, paragraphStyle, sessionOf, standardMaster, textStyle } from '../../support/fixtures'

const word = (style: string, text: string) => `<text:span text:style-name="${style}">${text}</text:span>`
const body =
  '<text:h text:style-name="Head" text:outline-level="1">Boats</text:h>' +
  `<text:p text:style-name="Body">plain ${word('Bold', 'bold')} ${word('Slanted', 'slanted')} ${word('Lined', 'lined')} ` +
  `${word('Raised', 'raised')} ${word('Loose', 'loose')} ${word('Red', 'red')} ${word('Lit', 'lit')} ` +
  `${word('Caps', 'caps')} ${word('Small', 'small')} ${word('Foreign', 'fremd')} ${word('Gone', 'gone')} ` +
  `${word('Strong', 'strong')} Ωμέγα 日本</text:p>` +
  '<text:p text:style-name="Body">With<text:note text:id="n1" text:note-class="footnote"><text:note-citation>1' +
  '</text:note-citation><text:note-body><text:p text:style-name="Body">below</text:p></text:note-body></text:note></text:p>' +
  '<text:p text:style-name="Other">other</text:p>'
const automatic =
  textStyle('Bold', 'fo:font-weight="bold"') +
  textStyle('Slanted', 'fo:font-style="italic"') +
  textStyle('Lined', 'style:text-underline-style="solid"') +
  textStyle('Raised', 'style:text-position="super 58%"') +
  textStyle('Loose', 'fo:letter-spacing="1pt"') +
  textStyle('Red', 'fo:color="#AA1100"') +
  textStyle('Lit', 'fo:background-color="#eeeeaa"') +
  textStyle('Caps', 'fo:text-transform="uppercase"') +
  textStyle('Small', 'fo:font-variant="small-caps"') +
  textStyle('Foreign', 'fo:language="de" fo:country="AT"') +
  textStyle('Gone', 'fo:font-family="Skerrow"')
const styles =
  '<style:default-style style:family="paragraph"><style:text-properties fo:font-family="Spectral" fo:font-size="10pt" ' +
  'fo:language="en" fo:country="GB" style:font-family-asian="BIZ UDPGothic" style:font-size-asian="10pt"/>' +
  '</style:default-style>' +
  paragraphStyle('Head', 'fo:font-size="20pt" fo:font-weight="bold"') +
  paragraphStyle('Body') +
  paragraphStyle('Other', 'fo:font-size="14pt"') +
  textStyle('Strong', 'fo:font-weight="600"')
const session = sessionOf({
  body,
  automatic,
  styles,
  masters: standardMaster('<style:header><text:p>Saltmere</text:p></style:header>'),
})

const found = (look: object, more: object = {}): string[] =>
  matchText(session.reading, library, session.composition, criteriaSchema.parse({ look, ...more }))
    .map(match => match.text.trim())
    .filter(Boolean)

describe('each criterion of a look finds what has it, and nothing else', () => {
  it.each<[name: string, look: object, words: readonly string[]]>([
    ['a family', { family: 'skerrow' }, ['gone']],
    ['an absent face', { status: 'absent' }, ['gone']],
    ['a face', { face: 'Bold' }, ['Boats', 'bold']],
    ['a size', { size: { least: 14, most: 20 } }, ['Boats', 'other']],
    ['a size open to one side', { size: { least: 14.1 } }, ['Boats']],
    ['a weight', { weight: { least: 500, most: 650 } }, ['strong']],
    ['italics', { italic: true }, ['slanted']],
    ['tracking, in thousandths of an em', { tracking: { least: 100, most: 100 } }, ['loose']],
    ['a colour, however it is written', { color: '#aA1100' }, ['red']],
    ['what lies behind the letters', { background: '#EEEEAA' }, ['lit']],
    ['capitals', { case: 'uppercase' }, ['caps']],
    ['small capitals', { case: 'small-caps' }, ['small']],
    ['what is underlined', { underlined: true }, ['lined']],
    ['what is raised', { raised: true }, ['raised']],
    ['a language by its first part', { language: 'de' }, ['fremd']],
    ['a language with its region', { language: 'de-at' }, ['fremd']],
    ['another region of it', { language: 'de-DE' }, []],
    ['a character style', { characterStyle: 'Strong' }, ['strong']],
    ['local formatting is no character style', { characterStyle: 'Bold' }, []],
    ['a paragraph style', { paragraphStyle: 'Other' }, ['other']],
    ['a script', { script: 'Greek' }, ['Ωμέγα']],
    ['East Asian text', { slot: 'asian' }, ['日本']],
    ['headers', { place: 'header' }, ['Saltmere']],
    ['notes', { place: 'note' }, ['below']],
    ['two at once', { face: 'Bold', size: { most: 10 } }, ['bold']],
    ['two that exclude one another', { italic: true, underlined: true }, []],
  ])('%s', (_, look, words) => {
    expect(found(look)).toEqual(words)
  })

  it.each<[name: string, look: object, missing: string]>([
    ['what is not underlined', { underlined: false }, 'lined'],
    ['what is not raised', { raised: false }, 'raised'],
    ['what is upright', { italic: false }, 'slanted'],
    ['what is as its styles say', { stray: false }, 'bold'],
  ])('%s', (_, look, missing) => {
    const words = found(look).join(' ')
    expect(words).toContain('plain')
    expect(words).toContain('other')
    expect(words.split(/\s+/)).not.toContain(missing)
  })

  it('what is set by hand, but not what a style of its own sets', () => {
    const words = found({ stray: true })
    expect(words).toEqual(expect.arrayContaining(['bold', 'slanted', 'lined', 'loose', 'red', 'gone']))
    expect(words).not.toContain('strong')
    expect(words).not.toContain('Boats')
  })
})

describe('a scope', () => {
  const paragraphs = session.reading.stories.flatMap(story => paragraphsOf(story.blocks))
  const withText = (text: string) =>
    paragraphs.find(each => each.inlines.some(inline => inline.kind === 'text' && inline.text.includes(text)))!

  it('of a story keeps to it, notes within it included', () => {
    const { part, node } = withText('other')
    const words = found({}, { scope: { kind: 'story', part, node } })
    expect(words).toContain('Boats')
    expect(words).not.toContain('Saltmere')
  })

  it('of ranges cuts what it finds to them, several in one paragraph', () => {
    const { part, node } = withText('plain')
    const ranges = [
      { part, node, from: 1, to: 3 },
      { part, node, from: 6, to: 8 },
    ]
    expect(found({}, { scope: { kind: 'ranges', ranges } })).toEqual(['la', 'bo'])
  })

  it('of pages counts text to the page where it begins', () => {
    expect(found({ paragraphStyle: 'Other' }, { scope: { kind: 'pages', from: 0, to: 0 } })).toEqual(['other'])
    expect(found({ paragraphStyle: 'Other' }, { scope: { kind: 'pages', from: 1, to: 9 } })).toEqual([])
  })
})

describe('criteria', () => {
  it('that ask for nothing are told from those that ask', () => {
    expect(asksNothing(criteriaSchema.parse({}))).toBe(true)
    expect(asksNothing(criteriaSchema.parse({ look: { family: undefined } }))).toBe(true)
    expect(asksNothing(criteriaSchema.parse({ look: { underlined: false } }))).toBe(false)
    expect(asksNothing(criteriaSchema.parse({ words: { text: 'a' } }))).toBe(false)
  })

  it.each([
    ['a range turned round', { look: { size: { least: 12, most: 9 } } }, /the least is more than the most/],
    ['a colour that is none', { look: { color: 'red' } }, /pattern/],
    ['a criterion that nobody knows', { look: { blinking: true } }, /blinking/],
    ['no words', { words: { text: '' } }, />=1 characters/],
    ['no ranges', { scope: { kind: 'ranges', ranges: [] } }, />=1 items/],
  ])('refuse %s', (_, criteria, word) => {
    expect(() => criteriaSchema.parse(criteria)).toThrow(word)
  })

  it('take text without a colour as black', () => {
    const story = session.reading.stories.find(({ role }) => role === 'body')!
    expect(colorOf(session.reading.cascade.paragraph(paragraphsOf(story.blocks)[0]!, story.role).text)).toBe('#000000')
  })
})
