import { describe, expect, it } from 'vitest'
import { paragraphsOf } from '../../../core/document/stories'
import type { Paragraph } from '../../../core/document/story-model'
import { looksSame, trace } from '../../../core/style/effective'
import { paragraphRuns } from '../../../core/style/runs'
import { readDocument, type Reading } from '../../../core/style/reading'
import { Typesetter } from '../../../core/typeset/look'
import { Shaper } from '../../../core/typeset/shaper'
import { scriptTable } from '../../../core/typeset/unicode-tables'
import { startHarfBuzz } from '../../../server/library/harfbuzz'
import {
  face,
  library,
  openOdt,
  paragraphStyle,
  sessionOf,
  textStyle,
  typesetter,
  type Fixture,
} from '../../support/fixtures'

const read = (
  fixture: Fixture,
): {
  reading: Reading
  paragraphs: Paragraph[]
  style: (at?: number) => ReturnType<Reading['cascade']['paragraph']>['text']
} => {
  const reading = readDocument(openOdt(fixture))
  const paragraphs = reading.stories.flatMap(story => [...paragraphsOf(story.blocks)])
  return { reading, paragraphs, style: (at = 0) => reading.cascade.paragraph(paragraphs[at]!).text }
}
const one = (text: string, more: Partial<Fixture> = {}) =>
  read({ automatic: paragraphStyle('P', text), body: '<text:p text:style-name="P">abc</text:p>', ...more }).style()

describe('fonts', () => {
  it('are found through a declaration, or loose, the declaration first', () => {
    expect(
      one('style:font-name="X"', { faces: face('X', "'Real Name', serif") }).effective.slots.western.font.family,
    ).toBe('Real Name')
    expect(
      one('fo:font-family="\'Loose Name\'" style:font-family-generic="roman"').effective.slots.western.font,
    ).toMatchObject({ family: 'Loose Name', generic: 'roman' })
    expect(
      one('fo:font-family="Loose" style:font-name="X"', { faces: face('X', 'Declared') }).effective.slots.western.font
        .family,
    ).toBe('Declared')
    expect(one('style:font-name="Undeclared"').effective.slots.western.font.family).toBe('Undeclared')
  })

  it('differ by slot', () => {
    const { slots } = one(
      'style:font-name="W" style:font-name-asian="A" style:font-name-complex="C" style:font-size-asian="9pt" ' +
        'style:font-weight-complex="bold"',
    ).effective
    expect([slots.western.font.family, slots.asian.font.family, slots.complex.font.family]).toEqual(['W', 'A', 'C'])
    expect([slots.western.size, slots.asian.size, slots.complex.weight]).toEqual([12, 9, 700])
  })

  it('take hints from the declaration', () => {
    expect(
      one('style:font-name="S"', {
        faces: face(
          'S',
          'S',
          ' style:font-charset="x-symbol" style:font-pitch="fixed" style:font-family-generic="modern"',
        ),
      }).effective.slots.western.font,
    ).toMatchObject({ charset: 'x-symbol', pitch: 'fixed', generic: 'modern' })
  })

  it('may be refined by a style name alone', () => {
    const { style } = read({
      styles: paragraphStyle('Base', 'style:font-name="Jost"'),
      automatic: paragraphStyle('P', 'style:font-style-name="Medium"', '', ' style:parent-style-name="Base"'),
      body: '<text:p text:style-name="P">a</text:p>',
    })
    expect(style().effective.slots.western.font).toMatchObject({ family: 'Jost', styleName: 'Medium' })
    expect(typesetter.look(style(), 'western').face.fullName).toBe('Jost Medium')
  })
})

describe('values', () => {
  it('sizes may be relative in points', () => {
    const { style } = read({
      styles: paragraphStyle('Base', 'fo:font-size="10pt"'),
      automatic: paragraphStyle('P', 'style:font-size-rel="-2pt"', '', ' style:parent-style-name="Base"'),
      body: '<text:p text:style-name="P">a</text:p>',
    })
    expect(style().effective.slots.western.size).toBe(8)
  })

  it('languages join country, and none is none', () => {
    expect(one('fo:language="pt" fo:country="BR"').effective.slots.western.language).toBe('pt-BR')
    expect(one('fo:language="de"').effective.slots.western.language).toBe('de')
    expect(one('fo:language="none" fo:country="none"').effective.slots.western.language).toBe('')
  })

  it('have a trace with a winner, or none where nobody spoke', () => {
    const { effective } = one('fo:color="#123456"')
    expect(trace(effective, 'fo:color')).toMatchObject([{ value: '#123456', wins: true }])
    expect(trace(effective, 'fo:letter-spacing')).toEqual([])
  })

  it('look the same or not, slot by slot', () => {
    const plain = one('fo:font-size="10pt"').effective
    const asian = one('fo:font-size="10pt" style:font-size-asian="11pt"').effective
    expect([looksSame(plain, asian, 'western'), looksSame(plain, asian, 'asian')]).toEqual([true, false])
  })
})

describe('runs', () => {
  it('cover the text, split by style and slot, notes and frames as one sign', () => {
    const { reading, paragraphs } = read({
      automatic: textStyle('T', 'fo:font-weight="bold"'),
      body:
        '<text:p>ab日<text:span text:style-name="T">c</text:span><text:note text:note-class="footnote">' +
        '<text:note-citation>1</text:note-citation><text:note-body><text:p>n</text:p>' +
        '</text:note-body></text:note><office:annotation><text:p>x</text:p>' +
        '</office:annotation><draw:frame text:anchor-type="as-char"/>d</text:p>',
    })
    const { text, runs } = paragraphRuns(paragraphs[0]!, reading.cascade)
    expect(text).toBe('ab日c\uFFFC\uFFFCd')
    expect(runs.map(run => [text.slice(run.start, run.end), run.slot])).toEqual([
      ['ab', 'western'],
      ['日', 'asian'],
      ['c', 'western'],
      ['\uFFFC', 'western'],
      ['\uFFFC', 'western'],
      ['d', 'western'],
    ])
    expect(runs.every((run, at) => (at === 0 ? run.start === 0 : run.start === runs[at - 1]!.end))).toBe(true)
  })

  it('text styled alike shares one style', () => {
    const { reading, paragraphs } = read({
      automatic: textStyle('T', 'fo:font-weight="bold"'),
      body: '<text:p>a<text:span text:style-name="T">b</text:span></text:p><text:p>a<text:span text:style-name="T">b</text:span></text:p>',
    })
    const styles = paragraphs.map(paragraph => paragraphRuns(paragraph, reading.cascade).runs.map(run => run.style))
    expect(styles[0]![0]).toBe(styles[1]![0])
    expect(styles[0]![1]).toBe(styles[1]![1])
  })
})

/** Width of a word in a look, in points. */
function widthIn(setter: Typesetter, look: ReturnType<Typesetter['look']>, word: string): number {
  const shapes = setter.shapes(look, scriptTable().names.indexOf('Latn'), false)
  const number = setter.words.number(word)
  shapes.ensure(number)
  return (
    (shapes.widths[number]! * look.size * look.scale) / shapes.unitsPerEm + shapes.counts[number]! * look.letterSpacing
  )
}

describe('looks', () => {
  it('raise, scale, space and colour text', () => {
    const look = (text: string) => typesetter.look(one(text), 'western')
    expect(look('style:text-position="super 50%" fo:font-size="20pt"')).toMatchObject({
      size: 10,
      // Up to where the line ends that it stands in: Liberation Sans reaches 905 thousandths above the baseline.
      rise: expect.closeTo((20 - 10) * 0.9053, 3),
    })
    expect(look('style:text-position="-20% 60%" fo:font-size="20pt"')).toMatchObject({ size: 12, rise: -4 })
    expect(look('style:text-position="0% 100%"')).toMatchObject({ size: 12, rise: 0 })
    expect(
      look(
        'fo:letter-spacing="2pt" style:text-scale="80%" fo:color="#112233" style:text-underline-style="solid" ' +
          'style:text-line-through-style="none"',
      ),
    ).toMatchObject({
      letterSpacing: 2,
      scale: 0.8,
      color: '#112233',
      underline: { pattern: 'solid', color: '#112233' },
      strike: null,
    })
    expect(look('fo:color="#112233" style:use-window-font-color="true"').color).toBe('#000000')
    // Nearly every file has the automatic colour in its default, and colours in styles over it.
    const over = paragraphStyle('Over', 'fo:color="#112233"')
    const layered = sessionOf({
      body: '<text:p text:style-name="Over">Quay</text:p>',
      styles:
        '<style:default-style style:family="paragraph"><style:text-properties style:use-window-font-color="true"/>' +
        `</style:default-style>${over}`,
    }).reading.cascade.named('content.xml', 'paragraph', 'Over')
    expect(typesetter.look(layered, 'western')).toMatchObject({ color: '#112233', automatic: false })
  })

  it('set words with their spacing, case and scale', () => {
    const width = (text: string, word = 'harbour') =>
      widthIn(typesetter, typesetter.look(one(`style:font-name="Jost" ${text}`), 'western'), word)
    const plain = width('')
    expect(width('fo:letter-spacing="2pt"')).toBeCloseTo(plain + 14, 3)
    expect(width('style:text-scale="50%"')).toBeCloseTo(plain / 2, 3)
    expect(width('fo:text-transform="uppercase"')).toBeCloseTo(width('', 'HARBOUR'), 3)
    expect(width('fo:text-transform="capitalize"')).toBeCloseTo(width('', 'Harbour'), 3)
    expect(width('fo:font-size="24pt"')).toBeCloseTo(plain * 2, 3)
  })

  it('kern where the style asks', () => {
    const width = (kerning: string) =>
      widthIn(
        typesetter,
        typesetter.look(one(`style:font-name="Spectral" style:letter-kerning="${kerning}"`), 'western'),
        'AVATo',
      )
    expect(width('true')).toBeLessThan(width('false'))
  })

  it('go on where a face’s file cannot be had: half an em a sign, nothing drawn', () => {
    const without = new Typesetter(library, new Shaper(startHarfBuzz(), () => undefined))
    expect(widthIn(without, without.look(one('fo:font-size="10pt"'), 'western'), 'abcd')).toBe(20)
    expect(without.shaper.outline('nowhere', 3)).toBe('')
    expect(without.shaper.font('nowhere')).toBeNull()
  })
})
