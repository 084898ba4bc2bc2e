import { describe, expect, it } from 'vitest'
import { proposeStyles } from '../../../core/change/draw-up/propose'
import { paragraphStyle, sessionOf } from '../../support/fixtures'

/** Twelve letters a word: lengths are counted in them. */
const words = (letters: number) => 'harbourlamp '.repeat(Math.ceil(letters / 12)).slice(0, letters - 1) + 'x'
const text = `${words(400)}.`
/** A paragraph of a style and what it says, and whether it is an item of a list. */
type Said = readonly [style: string, words: string, item?: 'item']

/** The purposes that paragraphs get among text of 10 pt, by their styles. */
function purposes(styles: Readonly<Record<string, string>>, said: readonly Said[]): Record<string, string> {
  const parent = ' style:parent-style-name="Standard"'
  const of = sessionOf({
    styles:
      `<style:default-style style:family="paragraph"><style:text-properties fo:font-family="Spectral" fo:font-size="10pt"/>` +
      `</style:default-style>${paragraphStyle('Standard')}`,
    automatic: Object.entries({ B: 'fo:font-size="10pt"', ...styles })
      .map(([name, values]) => paragraphStyle(name, values, '', parent))
      .join(''),
    body: said
      .map(([style, words, item]) => {
        const paragraph = `<text:p text:style-name="${style}">${words}</text:p>`
        return item ? `<text:list><text:list-item>${paragraph}</text:list-item></text:list>` : paragraph
      })
      .join(''),
  })
  const proposed = proposeStyles(of.reading, { tolerance: 0, choices: [], dropped: () => false }).paragraphs
  const found: Record<string, string> = {}
  for (const [style, first] of said) {
    const own = proposed.find(each => each.members.some(member => member.text === first))
    const purpose = own?.purpose
    found[style] = purpose === undefined ? 'none' : 'level' in purpose ? `heading ${purpose.level}` : purpose.kind
  }
  return found
}
const body: Said = ['B', text]
/** Something that comes among text three times, so that it is no opening. */
const thrice = (style: string, says: string): Said[] =>
  [
    body,
    ...Array(3)
      .fill([[style, says], body])
      .flat(),
  ] as Said[]

describe('what text is for', () => {
  it.each([
    // A tenth larger than the text stands out; less does not.
    ['fo:font-size="11pt"', words(40), 'heading 1'],
    ['fo:font-size="10.9pt"', words(40), 'body'],
    ['fo:font-weight="bold"', words(40), 'heading 1'],
    // A heading has less than 100 letters, and no stop at its end.
    ['fo:font-weight="bold"', words(99), 'heading 1'],
    ['fo:font-weight="bold"', words(100), 'body'],
    ['fo:font-weight="bold"', `${words(40)}.`, 'body'],
    // Nine tenths of the text is small: a caption while it is short, else a note.
    ['fo:font-size="9pt"', words(40), 'caption'],
    ['fo:font-size="9.1pt"', words(40), 'body'],
    ['fo:font-size="9pt"', words(159), 'caption'],
    ['fo:font-size="9pt"', words(160), 'note'],
  ])('of %s is told by size, weight and length', (values, says, expected) => {
    expect(purposes({ P: values }, thrice('P', says)).P).toBe(expected)
  })

  it('is told by sizes as they are written: 13.2 points are a tenth more than twelve', () => {
    const of = (size: string) =>
      purposes({ B: 'fo:font-size="12pt"', P: `fo:font-size="${size}"` }, thrice('P', words(40))).P
    expect([of('13.2pt'), of('13.1pt'), of('10.8pt'), of('10.9pt')]).toEqual(['heading 1', 'body', 'caption', 'body'])
  })

  it.each([
    ['10.7pt', 90, 'intro'],
    ['10.5pt', 90, 'body'],
    ['10.7pt', 89, 'body'],
  ])('of %s and %d letters at the beginning is an intro or is none', (size, letters, expected) => {
    const said: Said[] = [['P', `${words(letters - 1)}.`], body, body]
    expect(purposes({ P: `fo:font-size="${size}"` }, said).P).toBe(expected)
  })

  it('is read as text where much of the document is as small: 3,000 letters, and four in a hundred', () => {
    const small = { P: 'fo:font-size="9pt"' }
    const said = (times: number, letters: number): Said[] => [
      ...(Array(times).fill(body) as Said[]),
      ...Array.from({ length: 10 }, (_, at): Said => ['P', `${words(letters - 2)}${at}.`]),
    ]
    expect(purposes(small, said(20, 300)).P).toBe('body')
    expect(purposes(small, said(20, 299)).P).toBe('note')
    expect(purposes(small, said(200, 300)).P).toBe('note')
  })

  it('is an intro as long as it comes four times, and within the first twelve paragraphs', () => {
    const intro: Said = ['P', `${words(120)}.`]
    const large = { P: 'fo:font-size="10.8pt"' }
    expect(purposes(large, [intro, intro, intro, intro, body, body]).P).toBe('intro')
    expect(purposes(large, [intro, intro, intro, intro, intro, body, body]).P).toBe('body')
    const after = (count: number): Said[] => [...(Array(count).fill(body) as Said[]), intro, body]
    expect(purposes(large, after(11)).P).toBe('intro')
    expect(purposes(large, after(12)).P).toBe('body')
  })
})

describe('text in lists', () => {
  /** Five items, of which so many are followed by text of another style; so many of them stand in lists. */
  const items = (followed: number, inLists: number, values = 'fo:font-weight="bold"') =>
    purposes(
      { P: values },
      [
        body,
        ...Array.from({ length: 5 }, (_, at): Said[] => [
          at < inLists ? ['P', 'Fares', 'item'] : ['P', 'Fares'],
          ...(at >= 5 - followed ? [body] : []),
        ]).flat(),
        ...(followed === 5 ? [] : [body]),
      ].slice(0, followed === 0 ? -1 : undefined),
    ).P

  it('is of a list, and a heading where nearly all of it is followed by other text', () => {
    expect([items(4, 5), items(3, 5), items(3, 2)]).toEqual(['heading 1', 'list', 'heading 1'])
    expect([items(2, 0), items(3, 0)]).toEqual(['body', 'heading 1'])
    // Half of it in lists is enough.
    const half = purposes({ P: 'fo:color="#1f6f6b"' }, [body, ['P', 'Fares', 'item'], body, ['P', 'Fares'], body]).P
    expect(half).toBe('list')
  })
})

describe('text that is told by what it says', () => {
  it.each([
    ['Figure 1: the pier', 'caption'],
    ['Tabelle 2. Fares', 'caption'],
    ['表 3 の', 'caption'],
    ['Figures of speech', 'body'],
  ])('%s: %s', (says, purpose) => {
    expect(purposes({ P: 'fo:color="#1f6f6b"' }, thrice('P', says)).P).toBe(purpose)
  })

  it('is code where all letters are of one width, and no list', () => {
    const fixed = { P: 'fo:font-family="JetBrains Mono" style:font-pitch="fixed"' }
    expect(purposes(fixed, thrice('P', 'let x')).P).toBe('code')
    expect(purposes(fixed, [body, ['P', 'let x', 'item'], body, ['P', 'let y', 'item'], body]).P).toBe('list')
  })

  it('is a heading in capitals while it is short', () => {
    const capital = (letters: number) => words(letters).toUpperCase()
    const plain = { P: 'fo:color="#1f6f6b"' }
    expect(purposes(plain, thrice('P', capital(59))).P).toBe('heading 1')
    expect(purposes(plain, thrice('P', capital(60))).P).toBe('body')
    expect(purposes({ P: 'fo:text-transform="uppercase"' }, thrice('P', words(30))).P).toBe('heading 1')
  })
})

describe('text in tables', () => {
  const row = (style: string, says: string) =>
    `<table:table-row><table:table-cell><text:p text:style-name="${style}">${says}</text:p></table:table-cell></table:table-row>`
  /** What text of a second row is for, or of the first. */
  const purposeOf = (
    head: string,
    says: string,
    text = '',
    at: 'first' | 'second' | 'header' | 'half' | 'all' = 'second',
  ) => {
    const rows = {
      first: row('H', says) + row('B', 'Fares'),
      second: row('B', 'Fares') + row('H', says),
      all: row('H', says) + row('H', 'Fares'),
      half: `${row('B', 'Fares')}<table:table-header-rows>${row('H', says)}</table:table-header-rows>${row('H', 'Fares')}`,
      header: `${row('B', 'Fares')}<table:table-header-rows>${row('H', says)}</table:table-header-rows>`,
    }
    const parent = ' style:parent-style-name="Standard"'
    const of = sessionOf({
      styles: paragraphStyle('Standard', `fo:font-family="Spectral" fo:font-size="10pt" ${text}`),
      automatic:
        paragraphStyle('H', `fo:font-weight="${head}" fo:color="#111111"`, '', parent) +
        paragraphStyle('B', 'fo:color="#000000"', '', parent),
      body:
        `<text:p text:style-name="B">${words(400)}.</text:p>` +
        `<table:table><table:table-column/>${rows[at]}</table:table>`,
    })
    const { paragraphs } = proposeStyles(of.reading, { tolerance: 0, choices: [], dropped: () => false })
    return paragraphs.find(each => each.members.some(member => member.text === says))?.purpose.kind
  }

  it('is a head where it is strong, short, and among text that is not', () => {
    expect([purposeOf('600', 'Pier'), purposeOf('500', 'Pier')]).toEqual(['table head', 'table'])
    expect([purposeOf('600', words(59)), purposeOf('600', words(60))]).toEqual(['table head', 'table'])
    expect(purposeOf('700', 'Pier', 'fo:font-weight="600"')).toBe('table')
    expect(purposeOf('700', 'Pier', 'fo:font-weight="500"')).toBe('table head')
  })

  it('is a head where it stands in first rows alone, or in rows that are said to head their table', () => {
    expect([purposeOf('400', 'Pier', '', 'first'), purposeOf('400', 'Pier', '', 'header')]).toEqual([
      'table head',
      'table head',
    ])
    expect([purposeOf('400', 'Pier', '', 'all'), purposeOf('400', words(60), '', 'first')]).toEqual(['table', 'table'])
    // Half of it in such rows is not enough.
    expect(purposeOf('400', 'Pier', '', 'half')).toBe('table')
  })
})

describe('a title', () => {
  const head = (style: string): Said[] => thrice(style, 'Fares')

  it('stands once before all headings that come again, however little larger it is', () => {
    const styles = { T: 'fo:font-size="11pt"', H: 'fo:font-size="16pt"' }
    expect(purposes(styles, [['T', 'Winter tariff'], ...head('H')])).toMatchObject({ T: 'title', H: 'heading 1' })
    expect(purposes(styles, [...head('H'), ['T', 'Winter tariff'], body]).T).not.toBe('title')
  })

  it('without any headings has to be much larger than the text', () => {
    const alone = (size: string) => purposes({ T: `fo:font-size="${size}"` }, [['T', 'Winter tariff'], body, body]).T
    expect([alone('14pt'), alone('13.9pt')]).toEqual(['title', 'heading 1'])
  })

  it('that follows a heading has to be larger than all of them, and to come soon', () => {
    const styles = (size: string) => ({ T: `fo:font-size="${size}"`, H: 'fo:font-size="16pt"' })
    const said: Said[] = [['H', 'Saltmere Line'], ['T', 'Winter tariff'], body, ...head('H')]
    expect(purposes(styles('17pt'), said).T).toBe('title')
    expect(purposes(styles('16.8pt'), said).T).not.toBe('title')
    const late: Said[] = [['H', 'Saltmere Line'], ...(Array(8).fill(body) as Said[]), ['T', 'Winter tariff'], body]
    expect(purposes(styles('17pt'), [...late, ...head('H')]).T).not.toBe('title')
  })
})
