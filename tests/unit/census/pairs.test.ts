import { describe, expect, it } from 'vitest'
import { documentPairs, pairsIn } from '../../../core/census/pairs'
import { standingParagraphs } from '../../../core/document/stories'
import { face, paragraphStyle, sessionOf, textStyle, typesetter } from '../../support/fixtures'

const faces = face('Lora') + face('Jost') + face('Nowhere')
const make = (body: string) =>
  sessionOf({
    stylesFaces: faces,
    faces,
    styles:
      '<style:default-style style:family="paragraph"><style:text-properties style:font-name="Lora" fo:font-size="20pt"/>' +
      '</style:default-style>' +
      paragraphStyle('Body') +
      paragraphStyle('Upper', 'fo:text-transform="uppercase"') +
      paragraphStyle('Lower', 'fo:text-transform="lowercase"'),
    automatic:
      textStyle('Bold', 'fo:font-weight="bold"') +
      textStyle('Hidden', 'text:display="none"') +
      textStyle('Gone', 'style:font-name="Nowhere"') +
      textStyle('Jost', 'style:font-name="Jost"'),
    body,
  })
const paragraph = (inside: string, style = 'Body') => `<text:p text:style-name="${style}">${inside}</text:p>`
const span = (style: string, inside: string) => `<text:span text:style-name="${style}">${inside}</text:span>`
/** The pairs of the first paragraph, each with where its letters begin. */
const pairs = (inside: string, style?: string) => {
  const { reading } = make(paragraph(inside, style))
  const { paragraph: own, story } = [...standingParagraphs(reading)][0]!
  return [...pairsIn(own, story.role, reading.cascade, typesetter)].map(
    ({ left, right, from, border }) => `${left}${right} ${from} ${border}`,
  )
}

describe('pairs of letters in a paragraph', () => {
  it.each<[string, string, readonly string[]]>([
    ['letters, figures and points', 'A1.b', ['A1 0 1', '1. 1 2', '.b 2 3']],
    ['none over a space or a sign', 'a b+c', []],
    ['letters of two units', 'a𝐀b', ['a𝐀 0 1', '𝐀b 1 3']],
    ['over the border of spans that look alike', `A${span('Other', 'V')}A`, ['AV 0 1', 'VA 1 2']],
    ['none over the border of looks', `A${span('Bold', 'VA')}V`, ['VA 1 2']],
    ['none with what a mark sits on', 'ae\u0301bc', ['bc 3 4']],
    ['none over a field', 'A<text:date>VA</text:date>V', []],
    ['none over hidden text', `A${span('Hidden', 'VA')}V`, []],
    ['none over a tab', 'A<text:tab/>V', []],
    ['none of one letter', 'A', []],
  ])('%s', (_, inside, expected) => {
    expect(pairs(inside)).toEqual(expected)
  })

  it('are those that the eye sees, where a style sets capitals or small letters', () => {
    expect(pairs('av', 'Upper')).toEqual(['AV 0 1'])
    expect(pairs('AV', 'Lower')).toEqual(['av 0 1'])
    // A letter whose capitals are two stays one.
    expect(pairs('aßb', 'Upper')).toEqual(['Aß 0 1', 'ßB 1 2'])
  })
})

describe('pairs of a document', () => {
  const of = (body: string) => documentPairs(make(body).reading, typesetter)

  it('are counted by the faces that show them, those with most of them first', () => {
    const found = of(paragraph(`AV ${span('Jost', 'To To Ta')}`) + paragraph(`AV ${span('Gone', 'VAVA')}`))
    expect(found.map(each => `${each.face.family} ${each.face.style}`)).toEqual(['Jost Regular', 'Lora Regular'])
    expect(found[0]!.pairs.map(({ left, right, count }) => [left + right, count])).toEqual([
      ['To', 2],
      ['Ta', 1],
    ])
    expect(found[1]!.pairs.map(({ left, right, count }) => [left + right, count])).toEqual([['AV', 2]])
  })

  it('tell twelve places of each, with the word around them and the size', () => {
    const [own] = of(paragraph('AV '.repeat(13)) + paragraph('nAVy'))
    const [pair] = own!.pairs
    expect(pair).toMatchObject({ left: 'A', right: 'V', count: 14 })
    expect(pair!.places).toHaveLength(12)
    expect(pair!.places[1]).toMatchObject({ from: 3, word: 'AV', at: 0, size: 20 })
    const place = (text: string) => of(paragraph(text))[0]!.pairs.find(each => each.left === 'A')!.places[0]!
    expect(place('sea nAVy')).toMatchObject({ from: 5, word: 'nAVy', at: 1 })
    // Of long words a dozen letters on either side.
    expect(place(`${'n'.repeat(20)}AV${'y'.repeat(20)}`)).toMatchObject({
      word: `${'n'.repeat(12)}AV${'y'.repeat(11)}`,
      at: 12,
    })
  })
})
