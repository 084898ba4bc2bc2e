import { describe, expect, it } from 'vitest'
import { paragraphsOf } from '../../../core/document/stories'
import { contrast, contrastWords } from '../../../core/colour/contrast'
import { describeValues, plainLength } from '../../../core/style/describe'
import { attributesOf, groupOfAttribute, propertyGroups, typeGroups } from '../../../core/style/groups'
import { traceText } from '../../../core/style/tracing'
import { face, paragraphStyle, sessionOf, textStyle } from '../../support/fixtures'

describe('values in words', () => {
  it('says what a designer would, in any unit', () => {
    expect(plainLength('0.5cm')).toBe('14.17 pt')
    expect(plainLength('120%')).toBe('120 %')
    expect(plainLength('normal')).toBe('normal')
    expect(
      describeValues(
        {
          'fo:font-family': "'Work Sans', serif",
          'fo:font-size': '10.2pt',
          'fo:font-weight': 'bold',
          'fo:font-style': 'normal',
          'fo:letter-spacing': '-0.1pt',
          'fo:color': '#1b2430',
        },
        { 'fo:line-height': '100%', 'fo:text-align': 'justify', 'fo:text-indent': '0cm', 'fo:margin-bottom': '3mm' },
        null,
      ).join(', '),
    ).toBe(
      'Work Sans, 10.2 pt, set solid, bold, upright, tracked -0.1 pt, #1b2430, justified, no first-line indent, 8.5 pt after',
    )
    expect(
      describeValues(
        {
          'style:font-size-asian': '9pt',
          'style:text-position': 'super 58%',
          'fo:font-variant': 'small-caps',
          'fo:text-transform': 'uppercase',
          'fo:language': 'de',
          'fo:country': 'CH',
          'fo:hyphenate': 'true',
          'text:display': 'none',
        },
        {},
        null,
      ).join(', '),
    ).toBe(
      'small capitals, capitals, raised, language de-CH, hyphenated, hidden'.replace(
        'small capitals',
        'asian text at 9 pt, small capitals',
      ),
    )
  })
  it('finds a declared font by its family, and leaves out what has no words', () => {
    const { scope } = {
      scope: sessionOf({
        styles: paragraphStyle('A', 'style:font-name="F1"'),
        stylesFaces: face('F1', "'Jost Medium'"),
        body: '<text:p text:style-name="A">x</text:p>',
      }).reading.cascade.scope('styles.xml'),
    }
    expect(describeValues({ 'style:font-name': 'F1', 'style:font-name-complex': 'Gone' }, {}, scope)).toEqual([
      'Jost Medium',
      'complex text in Gone',
    ])
    expect(
      describeValues({ 'style:text-underline-color': 'font-color' }, { 'style:page-number': 'auto' }, null),
    ).toEqual([])
  })
})

describe('groups of properties', () => {
  it('hold every attribute once, and all of a font together', () => {
    const all = propertyGroups.flatMap(group => [...group.text, ...group.paragraph])
    expect(new Set(all).size).toBe(all.length)
    expect(groupOfAttribute('style:font-style-name-asian')).toBe('face')
    expect(groupOfAttribute('fo:line-height')).toBe('leading')
    expect(groupOfAttribute('style:page-number')).toBeUndefined()
    expect([...attributesOf(['size', 'leading']).text]).toContain('style:font-size-rel-complex')
    expect([...attributesOf(['size', 'leading']).paragraph]).toContain('style:line-height-at-least')
    expect(typeGroups).not.toContain('setting')
    expect(typeGroups).not.toContain('hidden')
  })
})

describe('contrast', () => {
  it('is that of WCAG', () => {
    expect(contrast('#000000', '#ffffff')).toBeCloseTo(21, 5)
    expect(contrast('#ffffff', '#ffffff')).toBe(1)
    expect(contrast('#777777', '#ffffff')).toBeCloseTo(4.478, 2)
    expect(contrastWords(4.478, 10, false)).toEqual({
      words: '4.4 : 1, too little for text of this size',
      enough: false,
    })
    expect(contrastWords(4.478, 18, false)).toEqual({ words: '4.4 : 1, enough', enough: true })
    expect(contrastWords(2.9, 14, true).words).toContain('too little for large text')
    expect(contrastWords(8, 10, false).words).toBe('8 : 1, good')
  })
})

describe('the trace of some text', () => {
  const open = sessionOf({
    styles:
      '<style:default-style style:family="paragraph"><style:text-properties fo:font-size="12pt" ' +
      'fo:language="en" fo:country="GB" style:font-size-asian="8pt"/>' +
      '</style:default-style>' +
      paragraphStyle('Body', 'fo:font-family="Spectral" fo:font-size="10pt"', 'fo:line-height="14pt"') +
      textStyle('Name', 'fo:font-style="italic"'),
    automatic: textStyle('T1', 'fo:font-size="9pt"', ' style:parent-style-name="Name"'),
    body: '<text:p text:style-name="Body">a<text:span text:style-name="T1">b</text:span>港</text:p>',
  })
  const [paragraph] = paragraphsOf(open.reading.stories[0]!.blocks)
  const at = (index: number) => {
    const inline = paragraph!.inlines[index]!
    return open.reading.cascade.text(paragraph!, 'span' in inline ? inline.span : null)
  }
  it('tells every property, what set it, and what it beat, innermost first', () => {
    const rows = traceText(at(1), 'western')
    const row = (group: string) => rows.find(each => each.group === group)!
    expect(row('size')).toMatchObject({ value: '9 pt', winner: { local: true, from: 'text', words: '9 pt' } })
    expect(row('size').beaten.map(layer => [layer.displayName, layer.words])).toEqual([
      ['Body', '10 pt'],
      ['', '12 pt'],
    ])
    expect(row('posture')).toMatchObject({ value: 'italic', winner: { displayName: 'Name', local: false } })
    expect(row('leading')).toMatchObject({ value: 'leading 14 pt', winner: { displayName: 'Body' } })
    expect(row('language').value).toBe('en-GB')
    expect(row('color')).toMatchObject({ value: 'the reader’s own', winner: null, beaten: [] })
    expect(rows.map(each => each.group)).not.toContain('setting')
  })
  it('speaks of the slot that is asked for', () => {
    const rows = traceText(at(2), 'asian')
    expect(rows.find(each => each.group === 'size')).toMatchObject({
      value: '8 pt',
      winner: { from: 'default', words: '8 pt' },
    })
    expect(rows.find(each => each.group === 'face')).toMatchObject({ value: 'no font named', winner: null })
  })
})
