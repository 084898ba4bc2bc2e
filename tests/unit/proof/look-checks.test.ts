import { describe, expect, it } from 'vitest'
import { houseSchema } from '../../../core/house/house'
import type { DocumentSession } from '../../../core/session'
import {
  drawingOf,
  drawnPage,
  graphicStyle,
  paragraphStyle,
  shapeAt,
  textFrame,
  textStyle,
} from '../../support/fixtures'
import { filler, foundBy, p, putRight, textOf } from './proofing'

/* Checks of faces, of consistency and of reading: documents that have the fault, and some that nearly have it. */

const styled = (body: string, automatic = '', styles = '') => textOf(body, { automatic, styles })
const span = (style: string, words: string) => `<text:span text:style-name="${style}">${words}</text:span>`
const h = (level: number, words: string, style = 'Standard') =>
  `<text:h text:style-name="${style}" text:outline-level="${level}">${words}</text:h>`
const named = (name: string, text = '', paragraph = '') =>
  paragraphStyle(name, text, paragraph, ' style:parent-style-name="Standard"')
const long = filler.repeat(2)
const fine = (family: string, size: number) => `fo:font-family="${family}" fo:font-size="${size}pt"`

interface Case {
  readonly check: string
  readonly title: string
  readonly fault: () => DocumentSession
  readonly near: () => DocumentSession
  readonly count?: number
  /** Whether what it finds can be put right, wholly. */
  readonly mends?: boolean
}

const deck = (inside: string, automatic = '') =>
  drawingOf({ pages: drawnPage(inside), automatic: graphicStyle('T', '', 'fo:font-size="30pt"') + automatic })
const onDark = (color: string) =>
  deck(
    `<draw:rect draw:style-name="dark" ${shapeAt(0, 0, 9, 5)}/>` +
      textFrame(shapeAt(1, 1, 7, 2), `<text:p>${span('C', 'Mind the gap')}</text:p>`, 'draw:style-name="T"'),
    graphicStyle('dark', 'draw:fill="solid" draw:fill-color="#1b2430"') + textStyle('C', `fo:color="${color}"`),
  )

const cases: readonly Case[] = [
  {
    check: 'absent-face',
    title: 'one lone space in a face that nobody has',
    fault: () => styled(p(`one${span('A', ' ')}two`), textStyle('A', 'fo:font-family="Brinkholm"')),
    near: () => styled(p(`one${span('A', ' ')}two`), textStyle('A', 'fo:font-family="Jost"')),
  },
  {
    check: 'missing-glyph',
    title: 'a sign that the face has no glyph for',
    fault: () => styled(p('up ⛵ and away')),
    near: () => styled(p('up – and “away”')),
  },
  {
    check: 'missing-weight',
    title: 'black text in a family without it',
    fault: () => styled(p(span('B', 'loud')), textStyle('B', 'fo:font-family="Abril Fatface" fo:font-style="italic"')),
    near: () => styled(p(span('B', 'loud')), textStyle('B', 'fo:font-style="italic"')),
  },
  {
    check: 'decorative-body',
    title: 'a paragraph in a hand',
    fault: () => styled(p(long, 'Hand'), '', named('Hand', 'fo:font-family="Great Vibes"')),
    near: () => styled(p('With love', 'Hand'), '', named('Hand', 'fo:font-family="Great Vibes"')),
  },
  {
    check: 'many-families',
    title: 'five families',
    fault: () =>
      styled(
        p(['Jost', 'Inter', 'Lora', 'Oswald'].map((_, at) => span(`F${at}`, 'words')).join(' ') + ' and more'),
        ['Jost', 'Inter', 'Lora', 'Oswald']
          .map((family, at) => textStyle(`F${at}`, `fo:font-family="${family}"`))
          .join(''),
      ),
    near: () => styled(p(`${span('F', 'words')} and more`), textStyle('F', 'fo:font-family="Jost"')),
  },
  {
    check: 'waiting-default',
    title: 'a default that names a face nobody has',
    fault: () => styled(p('All is well', 'Own'), '', named('Own', 'style:font-name="Jost"')),
    near: () => styled(p('All is well')),
    mends: true,
  },
  {
    check: 'stray',
    title: 'words that are larger by hand',
    fault: () => styled(p(`a ${span('L', 'larger')} word`), textStyle('L', 'fo:font-size="13pt"')),
    near: () => styled(p(`a ${span('L', 'larger')} word`), '', textStyle('L', 'fo:font-size="13pt"')),
    mends: true,
  },
  {
    check: 'twin',
    title: 'two sizes that nobody tells apart',
    fault: () => styled(p(long) + p('Nearly the same', 'Near'), '', named('Near', 'fo:font-size="11.2pt"')),
    near: () => styled(p(long) + p('Clearly smaller', 'Near'), '', named('Near', 'fo:font-size="9pt"')),
    mends: true,
  },
  {
    check: 'heading-level',
    title: 'a third level right under a first',
    fault: () => styled(h(1, 'Boats') + p('Text') + h(3, 'Launches') + p('Text') + h(4, 'Small ones') + p('Text')),
    near: () => styled(h(1, 'Boats') + p('Text') + h(2, 'Launches') + h(3, 'Small ones') + p('Text') + h(1, 'Crews')),
    mends: true,
  },
  {
    check: 'formatted-heading',
    title: 'a bold line over text',
    fault: () => styled(p('What goes by launch', 'Bold') + p(long), named('Bold', 'fo:font-weight="bold"')),
    near: () => styled(p('It goes by launch.', 'Bold') + p(long), named('Bold', 'fo:font-weight="bold"')),
    mends: true,
  },
  {
    check: 'alike-roles',
    title: 'headings that look like the text',
    fault: () => styled(h(1, 'Boats', 'H') + p(long, 'Body'), '', named('H', 'fo:font-size="11.5pt"') + named('Body')),
    near: () => styled(h(1, 'Boats', 'H') + p(long, 'Body'), '', named('H', 'fo:font-size="15pt"') + named('Body')),
  },
  {
    check: 'style-name',
    title: 'a style called by a number',
    fault: () => styled(p('Text', 'P12'), '', named('P12')),
    near: () => styled(p('Text', 'Notice'), '', named('Notice')),
  },
  {
    check: 'unused-styles',
    title: 'a style that nothing has',
    fault: () => styled(p('Text'), '', named('Idle')),
    near: () => styled(p('Text', 'Busy'), '', named('Busy')),
  },
  {
    check: 'contrast',
    title: 'pale text on white',
    fault: () => styled(p(span('P', 'hardly to be seen')), textStyle('P', 'fo:color="#c8c8c8"')),
    near: () => styled(p(span('P', 'plain to be seen')), textStyle('P', 'fo:color="#5b6470"')),
    mends: true,
  },
  {
    check: 'contrast',
    title: 'dark text on a dark shape below its frame',
    fault: () => onDark('#3c3c5c'),
    near: () => onDark('#f0f0f0'),
    mends: true,
  },
  {
    check: 'unfit-face',
    title: 'small print in a face with fine hairlines',
    fault: () => styled(p('Terms of carriage, as they hold', 'Fine'), '', named('Fine', fine('Bodoni Moda', 7))),
    near: () => styled(p('Terms of carriage, as they hold', 'Fine'), '', named('Fine', fine('Work Sans', 7))),
  },
  {
    check: 'unfit-face',
    title: 'a long paragraph in a narrow face',
    fault: () => styled(p(long.repeat(2), 'Read'), '', named('Read', fine('Oswald', 11))),
    // A line of it is a heading, not reading.
    near: () => styled(p(filler.slice(0, 80), 'Read') + p(long.repeat(2)), '', named('Read', fine('Oswald', 11))),
  },
  {
    check: 'unfit-face',
    title: 'a long paragraph in bold',
    fault: () => styled(p(span('B', long.repeat(2))), textStyle('B', 'fo:font-weight="bold"')),
    near: () => styled(p(`${span('B', filler)} ${long.repeat(2)}`), textStyle('B', 'fo:font-weight="bold"')),
  },
  {
    check: 'small-type',
    title: 'text of five points',
    fault: () => styled(p('Terms of carriage', 'Small'), '', named('Small', 'fo:font-size="5pt"')),
    near: () => styled(p('Terms of carriage', 'Small'), '', named('Small', 'fo:font-size="10pt"')),
    mends: true,
  },
  {
    check: 'colour-alone',
    title: 'a word told by its colour',
    fault: () => styled(p(`it is ${span('R', 'shut')} today`), textStyle('R', 'fo:color="#b4361e"')),
    near: () =>
      styled(p(`it is ${span('R', 'shut')} today`), textStyle('R', 'fo:color="#b4361e" fo:font-weight="bold"')),
  },
  {
    check: 'full-slide',
    title: 'a slide with too many words',
    fault: () => deck(textFrame(shapeAt(0, 0, 9, 9), `<text:p>${filler.repeat(4)}</text:p>`, 'draw:style-name="T"')),
    near: () => deck(textFrame(shapeAt(0, 0, 9, 9), `<text:p>${filler}</text:p>`, 'draw:style-name="T"')),
  },
  {
    check: 'tracking',
    title: 'letterspaced lower case',
    fault: () => styled(p(span('W', 'set apart')), textStyle('W', 'fo:letter-spacing="2pt"')),
    near: () => styled(p(span('W', 'SET APART')), textStyle('W', 'fo:letter-spacing="1pt"')),
    mends: true,
  },
  {
    check: 'made-small-capitals',
    title: 'small capitals of a face that has none',
    fault: () =>
      styled(p(span('S', 'Saltmere')), textStyle('S', 'fo:font-family="Oswald" fo:font-variant="small-caps"')),
    near: () => styled(p(span('S', 'Saltmere')), textStyle('S', 'fo:font-variant="small-caps"')),
    mends: true,
  },
]

describe.each(cases)('$check: $title', ({ check, fault, near, count = 1, mends = false }) => {
  it('is found', () => {
    expect(foundBy(check, fault()).map(each => each.says).length).toBe(count)
  })
  it('is not found where it nearly is', () => {
    expect(foundBy(check, near()).map(each => each.says)).toEqual([])
  })
  if (mends)
    it('is put right', () => {
      const before = fault()
      expect(foundBy(check, putRight(before, foundBy(check, before))).map(each => each.says)).toEqual([])
    })
})

describe('checks that go by a house', () => {
  const house = houseSchema.parse({
    name: 'Saltmere Line',
    faces: [{ family: 'Spectral' }],
    roles: [{ id: 'body', title: 'Body', text: { family: 'Spectral', size: 11 } }],
    limits: { smallest: { text: 8 }, families: 1, contrast: 7 },
  })
  const of = styled(
    p(`all ${span('J', 'of it')} ${long}`),
    textStyle('J', 'fo:font-family="Jost" fo:font-size="7.5pt"'),
  )

  it('say nothing without one', () => {
    expect(foundBy('outside-house', of)).toEqual([])
    expect(foundBy('not-to-style', of)).toEqual([])
  })
  it('tell faces, looks and sizes that are not of it', () => {
    expect(foundBy('outside-house', of, { house }).map(each => [each.text, each.says])).toEqual([
      ['of it', 'Jost is not of the house Saltmere Line'],
    ])
    expect(foundBy('not-to-style', of, { house }).map(each => each.says)[0]).toMatch(/Jost, not Spectral/)
    expect(foundBy('many-families', of, { house }).length).toBe(1)
    expect(foundBy('small-type', of, { house })[0]!.says).toMatch(/8 pt|would do/)
  })
})
