import { describe, expect, it } from 'vitest'
import { makeTypeSheet } from '../../../core/format/odf/type-sheet'
import { paragraphsOf } from '../../../core/document/stories'
import { emptyHouse, houseSchema, settingFor, type House } from '../../../core/house/house'
import { departures } from '../../../core/house/to-style'
import { paragraphRuns, paragraphText } from '../../../core/style/runs'
import { saltmereLine } from '../../../demo/houses'
import { session } from '../../support/fixtures'

/** The paragraphs of a type sheet, each with how its text is set. */
function linesOf(house: House, medium: 'text' | 'deck' | 'sheet') {
  const { reading, composition } = session(makeTypeSheet(house, medium, 'version 2'))
  const [body] = reading.stories
  const paragraphs = [...paragraphsOf(body!.blocks)].map(each => ({
    text: paragraphText(each),
    run: paragraphRuns(each, reading.cascade).runs[0],
  }))
  return { paragraphs, composition }
}

describe('the type sheet of a house', () => {
  it.each(['text', 'deck', 'sheet'] as const)('shows every role at true size, for a %s', medium => {
    const { paragraphs, composition } = linesOf(saltmereLine, medium)
    for (const role of saltmereLine.roles) {
      const said = paragraphs.findIndex(each => each.text.startsWith(`${role.title}: `))
      const { run } = paragraphs[said + 1]!
      expect(
        departures(saltmereLine, settingFor(saltmereLine, role.id, medium)!, run!.style, 'western', false),
      ).toEqual([])
    }
    expect(composition.overset).toEqual([])
    expect(composition.pages.length).toBe(medium === 'deck' ? 2 : 1)
  })

  it('shows the levels of decks, and limits of that medium alone', () => {
    const texts = (medium: 'text' | 'deck') => linesOf(saltmereLine, medium).paragraphs.map(each => each.text)
    expect(texts('deck')).toContain(
      'smallest 13 pt · 3 families at most · contrast 4.5 : 1 · 3 levels · 50 words a slide · 45 to 80 letters a line',
    )
    expect(texts('deck').some(each => /^Body, level 2: /.test(each))).toBe(true)
    expect(texts('text')).toContain('smallest 8 pt · 3 families at most · contrast 4.5 : 1 · 45 to 80 letters a line')
    expect(texts('text').some(each => /words a slide|level 2/.test(each))).toBe(false)
    expect(texts('text')[1]).toBe('How type is set in texts; version 2')
  })

  it('tells the palette with contrast and inks, and is readable on a dark ground', () => {
    const house = houseSchema.parse({
      ...emptyHouse('Night & day'),
      roles: [{ id: 'body', title: 'Body', text: { family: 'A & B “Sans”', color: 'lamp' } }],
      palette: [
        { id: 'dark', title: 'Dark', does: 'ground', color: '#101418', ink: { process: [80, 70, 60, 90] } },
        { id: 'lamp', title: 'Lamp', does: 'text', color: '#ffffff', ink: { spot: 'Lamp <1>' } },
      ],
    })
    const { paragraphs } = linesOf(house, 'text')
    const texts = paragraphs.map(each => each.text)
    expect(texts[0]).toBe('Night & day')
    expect(texts).toContain('Body: A & B “Sans”, Lamp')
    expect(texts).toEqual(expect.arrayContaining(['ground', '18.5 : 1 on the ground', 'Lamp <1>']))
    expect(texts).toContain('cyan, magenta, yellow, black 80, 70, 60, 90 %')
    expect(paragraphs[0]!.run!.style.effective.shared['fo:color']).toBe('#ffffff')
  })

  it('has no more than its roles where the house says nothing', () => {
    const texts = linesOf(emptyHouse('Nothing yet'), 'text').paragraphs.map(each => each.text)
    expect(texts.filter(each => each.endsWith('left open'))).toHaveLength(9)
    expect(texts.some(each => /^(Palette|Faces|Limits)$/.test(each))).toBe(false)
  })
})
