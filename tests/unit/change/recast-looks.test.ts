import { describe, expect, it } from 'vitest'
import { matchText } from '../../../core/census/matching'
import { criteriaLike } from '../../../core/change/recast/plan-recast'
import { partOf } from '../../../core/document/open'
import type { DocumentSession } from '../../../core/session'
import { writeXml } from '../../../core/xml/write'
import { face, library, makeOdt, paragraphStyle, session, sessionOf, textStyle } from '../../support/fixtures'
import { planned, quickly } from '../../support/planning'

const styles =
  '<style:default-style style:family="paragraph"><style:text-properties style:font-name="Spectral" fo:font-size="10pt" ' +
  'fo:language="en" fo:country="GB"/></style:default-style>' +
  paragraphStyle('Body') +
  paragraphStyle('Large', 'fo:font-size="20pt"') +
  textStyle('Name', 'fo:font-style="italic"')
const of = sessionOf({
  stylesFaces: face('Spectral'),
  faces: face('Spectral'),
  styles,
  body:
    '<text:p text:style-name="Body">the kelp grows</text:p><text:p text:style-name="Large">kelp</text:p>' +
    '<text:p text:style-name="Body">a <text:span text:style-name="Name">Cormorant</text:span></text:p>',
})
const findWords = (text: string) => ({ text, expression: false, matchCase: true, wholeWords: false })
const recast = (change: object, find: object = { words: { text: 'kelp' }, look: {} }) => ({
  type: 'recast',
  find,
  change,
})
/** What the automatic styles say that a recast of the word makes, in the order of its places. */
function made(change: object): Record<string, string>[] {
  const { after } = quickly(of, recast(change))
  const xml = writeXml(partOf(after.document, 'content.xml'))
  return [...xml.matchAll(/<style:style [^>]*style:family="(?:text|paragraph)"[^>]*>(.*?)<\/style:style>/gs)].map(
    ([, inside]) =>
      Object.fromEntries([...inside!.matchAll(/ ([\w:-]+)="([^"]*)"/g)].map(([, name, value]) => [name!, value!])),
  )
}
const message = (wish: object) => {
  try {
    quickly(of, wish)
    return 'planned'
  } catch (error) {
    return (error as Error).message
  }
}

describe('a look that found words are given', () => {
  it.each<[object, Record<string, string>, Record<string, string>?]>([
    [{ size: { points: 12.5 } }, { 'fo:font-size': '12.5pt' }],
    [{ size: { percent: 150 } }, { 'fo:font-size': '15pt' }, { 'fo:font-size': '30pt' }],
    [{ weight: 700 }, { 'fo:font-weight': 'bold' }],
    [{ weight: 600 }, { 'fo:font-weight': '600' }],
    [{ italic: true }, { 'fo:font-style': 'italic' }],
    [
      { italic: true, weight: 400 },
      { 'fo:font-style': 'italic', 'fo:font-weight': 'normal' },
    ],
    [{ tracking: 50 }, { 'fo:letter-spacing': '0.5pt' }, { 'fo:letter-spacing': '1pt' }],
    [
      { tracking: 50, size: { points: 40 } },
      { 'fo:letter-spacing': '2pt', 'fo:font-size': '40pt' },
    ],
    [{ color: '#1F6F6B' }, { 'fo:color': '#1f6f6b' }],
    [{ background: '#FFDD00' }, { 'fo:background-color': '#ffdd00' }],
    [{ case: 'uppercase' }, { 'fo:text-transform': 'uppercase', 'fo:font-variant': 'normal' }],
    [{ case: 'small-caps' }, { 'fo:font-variant': 'small-caps', 'fo:text-transform': 'none' }],
    [
      { underlined: true },
      {
        'style:text-underline-style': 'solid',
        'style:text-underline-width': 'auto',
        'style:text-underline-color': 'font-color',
      },
    ],
    [{ language: 'de-DE' }, { 'fo:language': 'de', 'fo:country': 'DE' }],
    [{ language: 'el' }, { 'fo:language': 'el', 'fo:country': 'none' }],
    [{ family: 'Literata' }, { 'style:font-name': 'Literata' }],
    [{ family: 'Abril Fatface' }, { 'style:font-name': 'Abril Fatface' }],
    [
      { family: 'Literata', face: 'Bold Italic' },
      { 'style:font-name': 'Literata', 'fo:font-weight': 'bold', 'fo:font-style': 'italic' },
    ],
    [
      { family: 'Literata', face: 'Bold', weight: 500 },
      { 'style:font-name': 'Literata', 'fo:font-weight': '500', 'fo:font-style': 'normal' },
    ],
    [
      { family: 'Literata', face: 'Italic', italic: false },
      { 'style:font-name': 'Literata', 'fo:font-weight': 'normal', 'fo:font-style': 'normal' },
    ],
  ])('%j', (change, one, other = one) => {
    expect(made(change)).toEqual([one, other])
  })

  it('is taken back where they have it by hand: no ground, no case, no line', () => {
    const own = session(
      makeOdt({
        styles,
        automatic: textStyle(
          'T1',
          'fo:background-color="#ffdd00" fo:text-transform="uppercase" style:text-underline-style="solid" fo:letter-spacing="1pt"',
        ),
        body: '<text:p text:style-name="Body">the <text:span text:style-name="T1">kelp</text:span></text:p>',
      }),
    )
    const { after } = quickly(own, recast({ background: 'none', case: 'none', underlined: false, tracking: 0 }))
    const [run] = matchText(after.reading, library, null, {
      words: findWords('kelp'),
      look: {},
      scope: { kind: 'document' },
    })
    expect(run!.pieces[0]!.style.effective.shared).toMatchObject({
      'fo:background-color': 'transparent',
      'fo:text-transform': 'none',
      'style:text-underline-style': 'none',
      'fo:letter-spacing': 'normal',
    })
  })

  it.each([
    [{ points: 14 }, '14pt'],
    [{ percent: 130 }, '130%'],
  ])('a leading, which is of the paragraph: %j', (leading, value) => {
    expect(made({ leading }).map(each => each['fo:line-height'])).toEqual([value, value])
  })
})

describe('a recast that cannot be', () => {
  it.each<[object, string]>([
    [
      { type: 'recast', find: { look: {} }, change: { words: 'x' } },
      'New words need words that they come in place of. Nothing was changed.',
    ],
    [
      { type: 'recast', find: { look: {} }, change: {} },
      'Say what shall be found, or what shall change. Nothing was changed.',
    ],
    [recast({ face: 'Bold' }), 'A face is one of a family: name the family, too. Nothing was changed.'],
    [
      recast({ family: 'Nowhere' }),
      '“Nowhere” is not in the library, so nothing can be set in it. Nothing was changed.',
    ],
    [
      recast({ family: 'Abril Fatface', face: 'Bold' }),
      'Abril Fatface has no face “Bold”. It has Regular. Nothing was changed.',
    ],
    [{ type: 'recast', find: { look: { family: 'Spectral' } }, change: {} }, 'planned'],
    [{ type: 'recast', find: { look: {}, scope: { kind: 'pages', from: 0, to: 0 } }, change: {} }, 'planned'],
  ])('%j: %s', (wish, said) => {
    expect(message(wish)).toBe(said)
  })
})

describe('what a recast tells', () => {
  const rows = (change: object, find?: object) => quickly(of, recast(change, find)).plan.rows.map(row => row.after)

  it('after each place: the new words, and what else changes of them', () => {
    expect(rows({ words: 'weed' })).toEqual(['“weed”', '“weed”'])
    expect(rows({ words: 'weed', weight: 700, italic: true })[0]).toBe('“weed”, set it in weight 700, in italics')
    expect(rows({ weight: 700 })[0]).toBe('set it in weight 700')
    expect(rows({})[0]).toBe('as it is')
  })

  it('which style a place has, and how much of the text that is', () => {
    const { plan } = quickly(of, recast({ weight: 700 }))
    expect(plan.rows.map(row => [row.title, row.characters])).toEqual([
      ['Body', 4],
      ['Large', 4],
    ])
    expect(plan).toMatchObject({ title: 'Recast 2 places: set it in weight 700', places: 2, characters: 8 })
  })

  it('of colours no page: they are where they are named', () => {
    const { rows } = quickly(of, {
      type: 'recast',
      find: { look: {} },
      change: {},
      colors: [{ from: '#abcdef', to: '#000000' }],
    }).plan
    expect(rows).toEqual([])
    const colored = sessionOf({
      styles: `${styles}${textStyle('Blue', 'fo:color="#abcdef"')}`,
      body: '<text:p>kelp</text:p>',
    })
    const { plan } = quickly(colored, {
      type: 'recast',
      find: { look: {} },
      change: {},
      colors: [{ from: '#ABCDEF', to: '#00FF00' }],
    })
    expect(plan.rows).toMatchObject([
      { stage: 'color', title: 'Text: Blue', before: '#abcdef', after: '#00ff00', page: -1, count: 1 },
    ])
  })

  it('what it does not look at: charts', () => {
    const chart = {
      path: 'Object 1/content.xml',
      type: 'text/xml',
      content: '<office:document-content xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0"/>',
    }
    const kind = 'application/vnd.oasis.opendocument.chart'
    const withCharts = (count: number) =>
      sessionOf({
        styles,
        body: '<text:p text:style-name="Body">kelp</text:p>',
        parts: Array.from({ length: count }, (_, at) => ({ ...chart, path: `Object ${at + 1}/content.xml` })),
        objects: Array.from({ length: count }, (_, at) => ({ path: `Object ${at + 1}/`, type: kind })),
      })
    const left = (count: number, find?: object, colors: readonly object[] = []) =>
      planned(withCharts(count), [{ ...recast({}, find), colors }], [], { effects: false }).plan.left.map(
        each => each.what,
      )
    expect(left(0)).toEqual([])
    expect(left(1)).toEqual(['the text of a chart'])
    expect(left(2)).toEqual(['the text of 2 charts'])
    expect(left(2, { look: {} }, [{ from: '#000000', to: '#111111' }])).toEqual([])
  })

  it('of text that may not be changed: why, and only where something would be', () => {
    const guarded = sessionOf({
      styles,
      body: '<text:section text:protected="true" text:name="S"><text:p text:style-name="Body">kelp</text:p></text:section>',
    })
    const told = (change: object) => quickly(guarded, recast(change)).plan
    expect(told({ weight: 700 }).rows[0]).toMatchObject({
      included: false,
      reason: expect.stringContaining('protected') as string,
    })
    expect(told({ weight: 700 }).left.map(each => each.what)).toEqual(['text that may not be changed'])
    expect(told({}).left).toEqual([])
  })
})

describe('a look that is taken from text', () => {
  const like = (words: string, session_: DocumentSession = of) => {
    const [match] = matchText(session_.reading, library, null, {
      words: findWords(words),
      look: {},
      scope: { kind: 'document' },
    })
    return criteriaLike(match!)
  }

  it('is its family, face and size, and the style that it goes by', () => {
    expect(like('grows')).toEqual({
      family: 'Spectral',
      face: 'Regular',
      size: { least: 10, most: 10 },
      paragraphStyle: 'Body',
    })
    expect(like('Cormorant')).toEqual({
      family: 'Spectral',
      face: 'Italic',
      size: { least: 10, most: 10 },
      characterStyle: 'Name',
    })
    expect(criteriaLike({ pieces: [] })).toEqual({})
  })
})
