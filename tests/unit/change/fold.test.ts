import { describe, expect, it } from 'vitest'
import { readRules } from '../../../core/document/rules'
import type { DocumentSession } from '../../../core/session'
import { face, paragraphStyle, sessionOf, textStyle } from '../../support/fixtures'
import { quickly } from '../../support/planning'

const common = (of: DocumentSession, family: string, name: string) =>
  [...of.reading.cascade.scopes.values()][0]!.common.get(`${family}\n${name}`)
const voices = (of: DocumentSession) => of.detail.census.voices

describe('a voice folded into another', () => {
  /** A document of two paragraph styles, and the first after its voice was folded into that of the second. */
  const folded = (from: readonly [string, string], to: readonly [string, string]) => {
    const of = sessionOf({
      stylesFaces: face('Spectral'),
      styles:
        '<style:default-style style:family="paragraph"><style:text-properties style:font-name="Spectral" ' +
        'fo:font-size="12pt"/></style:default-style>' +
        paragraphStyle('From', ...from) +
        paragraphStyle('To', ...to),
      body: '<text:p text:style-name="To">the other voice</text:p><text:p text:style-name="From">voice</text:p>',
    })
    const [other, own] = voices(of)
    const { plan, after } = quickly(of, { type: 'fold-voice', from: own!.key, to: other!.key })
    const { text, paragraph } = common(after, 'paragraph', 'From')!
    return { plan, voices: voices(after).length, text, paragraph }
  }

  it.each<[string, readonly [string, string], readonly [string, string], object, object]>([
    ['its size', ['fo:font-size="11pt"', ''], ['', ''], { 'fo:font-size': '12pt' }, {}],
    ['a size of halves', ['', ''], ['fo:font-size="10.5pt"', ''], { 'fo:font-size': '10.5pt' }, {}],
    ['its tracking', ['', ''], ['fo:letter-spacing="1pt"', ''], { 'fo:letter-spacing': '1pt' }, {}],
    ['no tracking', ['fo:letter-spacing="1pt"', ''], ['', ''], { 'fo:letter-spacing': 'normal' }, {}],
    ['its leading', ['', ''], ['', 'fo:line-height="130%"'], {}, { 'fo:line-height': '130%' }],
    [
      'a least leading',
      ['', 'fo:line-height="130%"'],
      ['', 'style:line-height-at-least="14pt"'],
      {},
      { 'style:line-height-at-least': '14pt' },
    ],
    [
      'another leading than a least one',
      ['', 'style:line-height-at-least="14pt"'],
      ['', 'fo:line-height="16pt"'],
      {},
      { 'fo:line-height': '16pt' },
    ],
    ['no leading', ['', 'fo:line-height="130%"'], ['', ''], {}, {}],
    ['no least leading', ['', 'style:line-height-at-least="14pt"'], ['', ''], {}, {}],
    [
      'all of it',
      ['fo:font-size="11pt" fo:letter-spacing="1pt"', 'fo:line-height="130%"'],
      ['fo:letter-spacing="2pt"', 'fo:line-height="15pt"'],
      { 'fo:font-size': '12pt', 'fo:letter-spacing': '2pt' },
      { 'fo:line-height': '15pt' },
    ],
  ])('takes %s, where a style says so', (_, from, to, text, paragraph) => {
    const after = folded(from, to)
    expect(after.text).toEqual(text)
    expect(after.paragraph).toEqual(paragraph)
    expect(after.voices).toBe(1)
    expect(after.plan.left).toEqual([])
  })

  it.each([
    ['fo:color="#1f6f6b"', 'color'],
    ['fo:text-transform="uppercase"', 'case'],
    ['fo:text-transform="uppercase" fo:color="#1f6f6b"', 'case, color'],
  ])('says what tells it from the other still: %s', (text, what) => {
    const { plan, voices: count } = folded([`fo:font-size="11pt" ${text}`, ''], ['', ''])
    expect(count).toBe(2)
    // In its new size it is a voice that the document had not: none is left of the old one.
    expect(plan.left).toEqual([])
    const same = folded([text, ''], ['', ''])
    expect(same.plan.left).toEqual([
      {
        what: 'places that still speak in the voice',
        reason: `what tells it from the other (${what}) is said by something that other text shares`,
        count: 1,
      },
    ])
  })

  it('takes a size in the style that says it, not in the words’ own', () => {
    const words = '<text:span text:style-name="Strong">strong words</text:span>'
    const of = sessionOf({
      stylesFaces: face('Spectral'),
      styles:
        paragraphStyle('From', 'style:font-name="Spectral" fo:font-size="11pt"') +
        paragraphStyle('To', 'style:font-name="Spectral" fo:font-size="12pt"') +
        textStyle('Strong', 'fo:font-weight="bold"'),
      body: `<text:p text:style-name="To">${words} ${words}</text:p><text:p text:style-name="From">${words}</text:p>`,
    })
    const key = (size: number) => voices(of).find(each => each.size === size && each.style === 'Bold')!.key
    const { after } = quickly(of, { type: 'fold-voice', from: key(11), to: key(12) })
    expect(common(after, 'paragraph', 'From')!.text['fo:font-size']).toBe('12pt')
    expect(common(after, 'text', 'Strong')!.text).toEqual({ 'fo:font-weight': 'bold' })
  })

  it('is refused where one of them is not there, or both are one', () => {
    const of = sessionOf({ body: '<text:p>one voice</text:p>' })
    const { key } = voices(of)[0]!
    const fold = (from: string, to: string) => () => quickly(of, { type: 'fold-voice', from, to })
    expect(fold(key, key)).toThrow('A voice cannot be folded into itself. Nothing was changed.')
    const gone = 'One of the two voices is no longer in the document. Nothing was changed.'
    expect(fold(key, 'none')).toThrow(gone)
    expect(fold('none', key)).toThrow(gone)
  })

  it('loses what was set by hand, and keeps emphasis', () => {
    const of = sessionOf({
      stylesFaces: face('Spectral'),
      styles: paragraphStyle('Body', 'style:font-name="Spectral" fo:font-size="12pt"'),
      automatic:
        textStyle('T1', 'fo:font-size="11pt"') +
        paragraphStyle('P1', 'fo:font-size="11pt"', '', ' style:parent-style-name="Body"') +
        textStyle('T2', 'fo:font-weight="bold"'),
      body:
        '<text:p text:style-name="Body">a voice with <text:span text:style-name="T1">words by hand</text:span></text:p>' +
        '<text:p text:style-name="P1">whole <text:span text:style-name="T2">by hand</text:span></text:p>' +
        '<text:p text:style-name="P1">all by hand</text:p>',
    })
    const key = (size: number, style = 'Regular') =>
      voices(of).find(each => each.size === size && each.style === style)!.key
    const { after, plan } = quickly(of, { type: 'fold-voice', from: key(11), to: key(12) })
    const told = voices(after).map(each => `${each.size} ${each.style} ${each.characters}`)
    // What was set by hand on a whole paragraph stays where other words of it go by it, and that is told.
    expect(told.sort()).toEqual(['11 Bold 7', '11 Regular 6', '12 Regular 37'])
    expect(plan.left.find(each => each.what === 'places that still speak in the voice')).toMatchObject({
      reason: expect.stringContaining('(size)') as string,
      count: 1,
    })
  })
})

describe('rules of a style that is folded', () => {
  const pattern = { id: 'p', title: 'Figures', on: true, style: 'Body', character: 'Words', pattern: '\\d+' }
  const leadIn = { id: 'l', title: 'First words', style: 'Body', character: 'Words', what: { kind: 'words', count: 2 } }
  const of = quickly(
    sessionOf({
      styles:
        paragraphStyle('Body') +
        paragraphStyle('Other') +
        paragraphStyle('Child', '', '', ' style:parent-style-name="Body"') +
        textStyle('Words', 'fo:font-style="italic"') +
        textStyle('Strong', 'fo:font-weight="bold"'),
      body: '<text:p text:style-name="Body">12 boats sail</text:p><text:p text:style-name="Other">3 stay</text:p>',
    }),
    { type: 'rules', style: 'Body', patterns: [pattern], leadIns: [leadIn] },
  ).after
  const rules = (family: string, from: string, to: string | null) => {
    const { patterns, leadIns } = readRules(quickly(of, { type: 'fold', family, from, to }).after.document)
    return [...patterns, ...leadIns].map(rule => `${rule.id} ${rule.style} ${rule.character}`)
  }

  it.each<[string, string, string | null, readonly string[]]>([
    ['paragraph', 'Body', 'Other', ['p Other Words', 'l Other Words']],
    ['paragraph', 'Other', 'Body', ['p Body Words', 'l Body Words']],
    ['paragraph', 'Body', null, []],
    ['text', 'Words', 'Strong', ['p Body Strong', 'l Body Strong']],
    ['text', 'Strong', 'Words', ['p Body Words', 'l Body Words']],
    ['text', 'Words', null, []],
  ])('%s %s into %s: %j', (family, from, to, left) => {
    expect(rules(family, from, to)).toEqual(left)
  })

  it('goes over to its children and to what they go by', () => {
    const { after, plan } = quickly(of, { type: 'fold', family: 'paragraph', from: 'Body', to: 'Child' })
    expect(common(after, 'paragraph', 'Body')).toBeUndefined()
    expect(common(after, 'paragraph', 'Child')!.parentName).toBeNull()
    expect(plan.rows[0]).toMatchObject({ title: 'Paragraph style Body', before: 'Body', after: 'Child' })
    const gone = quickly(of, { type: 'fold', family: 'paragraph', from: 'Body', to: null })
    expect(gone.plan.rows[0]).toMatchObject({ after: 'no style', characters: 13 })
  })
})
