import { describe, expect, it } from 'vitest'
import { emptyHouse, houseSchema, type House } from '../../../core/house/house'
import { beyondLimits } from '../../../core/house/limits'
import { saltmereLine } from '../../../demo/houses'
import { seasonReview } from '../../../demo/season-review'
import { winterTariff } from '../../../demo/winter-tariff'
import { library, paragraphStyle, session, sessionOf, smallPage, standardMaster } from '../../support/fixtures'

const houseWith = (more: object): House => houseSchema.parse({ ...emptyHouse('Saltmere Line'), ...more })
const told = (of: ReturnType<typeof sessionOf>, house: House, composed = true) =>
  beyondLimits(of.reading, library, composed ? of.composition : null, house).map(
    ({ limit, title, says, characters }) => ({ limit, title, says, characters }),
  )
const text = (automatic: string, body: string) =>
  sessionOf({
    styles:
      '<style:default-style style:family="paragraph"><style:text-properties fo:font-family="Spectral" ' +
      'fo:font-size="11pt"/></style:default-style>',
    automatic,
    body,
    stylesAutomatic: smallPage,
    masters: standardMaster(),
  })

describe('limits of a house', () => {
  it('say nothing where nothing is beyond them, nor where the house says nothing', () => {
    const of = text('', '<text:p>Two boats a day.</text:p>')
    expect(told(of, houseWith({}))).toEqual([])
    expect(
      told(of, houseWith({ faces: [{ family: 'spectral' }], limits: { smallest: { text: 11 }, families: 1 } })),
    ).toEqual([])
  })

  it('tell text that is too small, by house and by eye, with its places', () => {
    const of = text(
      paragraphStyle('P1', 'fo:font-size="7pt"'),
      '<text:p>Two boats.</text:p><text:p text:style-name="P1">Dogs go free.</text:p>',
    )
    const house = houseWith({ limits: { smallest: { text: 8, deck: 40 } } })
    expect(told(of, house)).toEqual([
      { limit: 'size', title: 'Smaller than 8 pt', says: '7 pt', characters: 11 },
      {
        limit: 'legibility',
        title: 'Too small to read with ease at 40 cm',
        says: '7 pt of Spectral; 10 pt would do',
        characters: 11,
      },
    ])
    const [small] = beyondLimits(of.reading, library, of.composition, house)
    expect(small!.places).toMatchObject([{ start: 0, end: 13, page: 0, place: 'body' }])
  })

  it('tell faces that are none of the house’s, but not its own in a weight by name', () => {
    const of = text(
      paragraphStyle('P1', 'fo:font-family="Kalam"') + paragraphStyle('P2', 'fo:font-family="Spectral SemiBold"'),
      '<text:p>Two boats a day.</text:p><text:p text:style-name="P1">Ahoy</text:p><text:p text:style-name="P2">Go</text:p>',
    )
    const house = houseWith({ faces: [{ family: 'Spectral' }], limits: { families: 1 } })
    expect(told(of, house)).toEqual([
      { limit: 'face', title: 'Not among the faces of the house', says: 'Kalam', characters: 4 },
      { limit: 'families', title: 'More than one family', says: 'Kalam', characters: 4 },
    ])
  })

  it('tell lines that are too short or too long, where the text is set', () => {
    const words = 'Two boats a day go to every landing of the outer islands. '.repeat(6)
    const of = text('', `<text:p>${words}</text:p>`)
    const measure = (least: number, most: number) => houseWith({ limits: { measure: { least, most } } })
    expect(told(of, measure(1, 500))).toEqual([])
    expect(told(of, measure(400, 500))).toMatchObject([{ title: 'Not 400 to 500 letters a line', says: 'fewer' }])
    expect(told(of, measure(1, 10))).toMatchObject([{ limit: 'measure', says: 'more' }])
    expect(told(of, measure(1, 10), false)).toEqual([])
  })

  it('tell slides with too many words and levels that are too deep, and leave notes and prompts alone', () => {
    const of = session(seasonReview())
    const found = beyondLimits(of.reading, library, of.composition, saltmereLine)
    const slides = found.filter(each => each.limit === 'words')
    expect(slides.map(each => each.says)).toEqual(['slide 9: 91 words', 'slide 12: 59 words', 'slide 2: 52 words'])
    expect(slides[0]!.places.every(each => each.page === 8)).toBe(true)
    expect(found.filter(each => each.limit === 'level')).toMatchObject([{ says: 'level 4', places: [{ page: 12 }] }])
    const far = found.filter(each => each.limit === 'legibility')
    expect(new Set(far.map(each => each.title))).toEqual(
      new Set(['Too small to read with ease from the last row, 9 m from a screen 1.6 m high']),
    )
    expect(found.flatMap(each => each.places).every(each => each.page >= 0)).toBe(true)
    const near = houseWith({ room: { screenHeight: 3, lastRow: 5 } })
    expect(beyondLimits(of.reading, library, of.composition, near)).toEqual([])
  })

  it('join neighbouring runs of one look to one place', () => {
    const of = session(winterTariff())
    const [face] = beyondLimits(of.reading, library, of.composition, saltmereLine)
    expect(face).toMatchObject({ limit: 'face', says: 'Work Sans' })
    expect(face!.places.length).toBeLessThan(face!.characters)
  })
})
