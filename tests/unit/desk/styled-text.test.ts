import { describe, expect, it } from 'vitest'
import { plainParagraphs, plainStories } from '../../../core/desk/plain-text'
import { paragraphStyleNames, styledPlaces, styledSample } from '../../../core/desk/styled-text'
import { paragraphStyle, sessionOf, standardMaster, textStyle } from '../../support/fixtures'

const long = 'The ferry to the outer islands goes twice a day in summer and once in winter, '.repeat(3)
const session = sessionOf({
  body:
    '<text:p text:style-name="Body">One <text:span text:style-name="Strong">bold</text:span> word and ' +
    '<text:span text:style-name="Strong">another</text:span></text:p>' +
    `<text:p text:style-name="Body">${long}</text:p>` +
    '<text:p text:style-name="Body"/><text:p text:style-name="Local">by hand</text:p>',
  automatic: paragraphStyle('Local', 'fo:font-size="11pt"', '', ' style:parent-style-name="Body"'),
  styles:
    '<style:default-style style:family="paragraph"><style:text-properties fo:font-family="Spectral" fo:font-size="12pt"/>' +
    '</style:default-style>' +
    paragraphStyle('Body', 'fo:font-size="10pt"', '', ' style:display-name="Body text"') +
    paragraphStyle('Unused') +
    textStyle('Strong', 'fo:font-weight="bold"'),
  masters: standardMaster('<style:header><text:p>Saltmere Line</text:p></style:header>'),
})

describe('text of a style', () => {
  it('is walked through paragraph by paragraph: empty ones are none, those set by hand are its own', () => {
    const places = styledPlaces(session, 'paragraph', 'Body')
    expect(places.map(({ start, end }) => [start, end])).toEqual([
      [0, 25],
      [0, long.trimEnd().length],
      [0, 7],
    ])
    expect(places.every(({ page, place }) => page === 0 && place === 'body')).toBe(true)
    expect(styledPlaces(session, 'paragraph', 'Unused')).toEqual([])
  })

  it('is walked through run by run for a character style', () => {
    expect(styledPlaces(session, 'text', 'Strong').map(({ start, end }) => [start, end])).toEqual([
      [4, 8],
      [18, 25],
    ])
  })

  it('gives a sample of it, cut at a word', () => {
    expect(styledSample(session, 'text', 'Strong')).toBe('bold another')
    const sample = styledSample(session, 'paragraph', 'Body')
    expect(sample.startsWith('The ferry to the outer islands')).toBe(true)
    expect(sample.endsWith(' …')).toBe(true)
    expect(sample.length).toBeLessThanOrEqual(162)
    expect(long.startsWith(sample.slice(0, -2))).toBe(true)
    expect(styledSample(session, 'paragraph', 'Unused')).toBe('')
  })

  it('knows the paragraph styles that words can be pasted in', () => {
    expect(paragraphStyleNames(session)).toEqual(['Body', 'Unused'])
  })
})

describe('a plain reading', () => {
  it('has every story with its paragraphs in one list', () => {
    const stories = plainStories(session)
    expect(stories.map(({ count }) => count)).toEqual(expect.arrayContaining([4, 1]))
    for (const { from, count } of stories) expect(plainParagraphs(session, from, from + count)).toHaveLength(count)
    const total = stories.reduce((sum, { count }) => sum + count, 0)
    expect(plainParagraphs(session, 0, 100)).toHaveLength(total)
  })

  it('gives each paragraph with its text and the title of its style, and none beyond the end', () => {
    const { from } = plainStories(session).find(({ count }) => count === 4)!
    const [first, , empty, byHand] = plainParagraphs(session, from, from + 4)
    expect(first).toMatchObject({ text: 'One bold word and another', style: 'Body text' })
    expect(empty!.text).toBe('')
    expect(byHand!.text).toBe('by hand')
    expect(plainParagraphs(session, 100, 200)).toEqual([])
  })
})
