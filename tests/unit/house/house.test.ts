import { describe, expect, it } from 'vitest'
import { emptyHouse, houseSchema, mediumOf, settingFor, type House, type Setting } from '../../../core/house/house'
import { houseFromDocuments, houseFromPair } from '../../../core/house/make-house'
import { compareHouses, houseChanges } from '../../../core/house/compare'
import { limitWords, settingWords, sizeWords } from '../../../core/house/setting-words'
import { measureToStyle } from '../../../core/house/to-style'
import { HouseFileError, houseFromTokens, houseToTokens } from '../../../core/house/tokens'
import { crewHandbook } from '../../../demo/crew-handbook'
import { seasonReview } from '../../../demo/season-review'
import { session, sessionOf, paragraphStyle, textStyle } from '../../support/fixtures'

const whole: Setting = {
  family: 'Spectral',
  weight: 400,
  italic: false,
  size: 10,
  leading: { value: 14, unit: 'points' },
  tracking: 12,
  case: 'none',
  color: 'night',
  before: 2.5,
  after: 6,
  align: 'justify',
  hyphenate: true,
  scripts: { asian: { family: 'Zen Kaku Gothic New', factor: 0.95 } },
}
const house = (): House =>
  houseSchema.parse({
    ...emptyHouse('Saltmere Line'),
    note: 'Ninety summers.',
    roles: emptyHouse('x').roles.map(role =>
      role.id === 'body'
        ? {
            ...role,
            text: whole,
            deck: { size: 20, leading: { value: 130, unit: 'percent' } },
            levels: [{ size: 17 }, { size: 15, weight: 300 }],
          }
        : role.id === 'label'
          ? { ...role, text: { family: 'Jost', case: 'uppercase' } }
          : role,
    ),
    palette: [
      { id: 'night', title: 'Night', does: 'text', color: '#1b2430', ink: { process: [90, 70, 40, 60] } },
      { id: 'buoy', title: 'Buoy', does: 'warning', color: '#b4361e', ink: { spot: 'Saltmere Red' } },
    ],
    faces: [{ family: 'Spectral', uses: ['print', 'PDF'] }],
    limits: { smallest: { text: 8 }, families: 3, measure: { least: 45, most: 75 } },
    defaults: { body: 'body' },
    standIns: [{ family: '', script: 'any', to: 'Literata' }],
    kerning: [{ family: 'Spectral', left: 'T', right: 'e', amount: -20 }],
    room: { screenHeight: 2, lastRow: 12 },
    checks: { widow: { runs: false, limits: {} }, 'small-type': { runs: true, limits: { degrees: 0.4 } } },
  })

describe('a house', () => {
  it('gives a role its setting by medium and outline level, each on top of the one before', () => {
    expect(settingFor(house(), 'body', 'text')).toEqual(whole)
    expect(settingFor(house(), 'body', 'deck')).toMatchObject({
      family: 'Spectral',
      size: 20,
      leading: { value: 130, unit: 'percent' },
    })
    expect(settingFor(house(), 'body', 'deck', 3)).toMatchObject({ size: 15, weight: 300, family: 'Spectral' })
    expect(settingFor(house(), 'body', 'sheet', 3)).toMatchObject({ size: 10 })
    expect(settingFor(house(), 'poem', 'text')).toBeNull()
    expect([mediumOf('presentation'), mediumOf('text'), mediumOf('drawing')]).toEqual(['deck', 'text', 'sheet'])
  })

  it('is refused where a role or colour is there twice, or a role has a colour that is not', () => {
    const own = house()
    expect(houseSchema.safeParse({ ...own, roles: [own.roles[0], own.roles[0]] }).error?.issues[0]?.message).toContain(
      'is there twice',
    )
    expect(houseSchema.safeParse({ ...own, palette: [] }).error?.issues[0]?.message).toContain('not in the palette')
    expect(houseSchema.safeParse({ ...own, palette: [own.palette[0], own.palette[0]] }).success).toBe(false)
  })

  it('keeps frames, each under one name and not too much of them, tells that they changed, and takes them along', () => {
    const frame = (name: string, text = 'Fares') => ({
      name,
      piece: { frame: `<draw:frame>${text}</draw:frame>`, width: 90, height: 40, automatic: [], styles: [] },
    })
    const own = houseSchema.parse({ ...house(), frames: [frame('Fares'), frame('Note')] })
    expect(houseFromTokens(houseToTokens(own))).toEqual(own)
    expect(compareHouses(house(), own)).toEqual([
      { kind: 'rest', what: 'Kept frames', one: 'open', other: 'Fares, Note' },
    ])
    expect(houseChanges(house(), own)).toEqual(['Kept frames changed.'])
    const refused = (frames: readonly object[]) =>
      houseSchema.safeParse({ ...house(), frames }).error?.issues.map(each => each.message)
    expect(refused([frame('Fares'), frame('Fares')])).toEqual(['the frame “Fares” is there twice'])
    const large = Array.from({ length: 6 }, (_, at) => frame(`Large ${at}`, 'x'.repeat(399_000)))
    expect(refused(large.slice(0, 5))).toBeUndefined()
    expect(refused(large)).toEqual(['its frames hold more than two million characters together'])
  })

  it('says settings and changes in words', () => {
    const own = house()
    expect(settingWords(own, whole)).toBe(
      'Spectral, 10 / 14, tracked 12, Night, 2.5 pt before, 6 pt after, justified, hyphenated',
    )
    expect(settingWords(own, { weight: 600, italic: true, case: 'small-caps', align: 'end' })).toBe(
      'semibold, italic, small capitals, set right',
    )
    expect([
      sizeWords({ size: 12, leading: { value: 130, unit: 'percent' } }),
      sizeWords({ leading: whole.leading! }),
      sizeWords({}),
    ]).toEqual(['12 / 130 %', 'leading 14', ''])
    const next = houseSchema.parse({
      ...own,
      roles: [
        ...own.roles
          .filter(role => role.id !== 'note')
          .map(role => (role.id === 'label' ? { ...role, text: { family: 'Jost', size: 9 } } : role)),
        { id: 'poem', title: 'Poem' },
      ],
      palette: [{ ...own.palette[0]!, color: '#000000' }],
      room: undefined,
    })
    expect(houseChanges(own, next)).toEqual([
      'Label in texts: Jost, capitals becomes Jost, 9.',
      'Note is gone.',
      'Poem is new.',
      'Night was #1b2430 and is #000000.',
      'The colour Buoy is gone.',
      'The room changed.',
    ])
    expect(houseChanges(null, own)).toEqual(['The first version.'])
    expect(houseChanges(own, own)).toEqual(['Nothing that shows.'])
  })

  it('is held against another in words, what only one of them has too', () => {
    const own = house()
    expect(compareHouses(own, { ...own, name: 'Another name' })).toEqual([])
    const other: House = houseSchema.parse({
      ...own,
      roles: own.roles
        .filter(role => role.id !== 'note')
        .map(role => (role.id === 'body' ? { ...role, levels: [{ size: 18 }] } : role)),
      palette: [
        { id: 'night', title: 'Midnight', does: 'text', color: '#000011' },
        { id: 'buoy', title: 'Buoy', does: 'warning', color: '#b4361e' },
        { id: 'sail', title: 'Sail', does: 'ground', color: '#ffffff' },
      ],
      limits: { smallest: { text: 9, deck: 14 }, families: 1, contrast: 4.5, deepestLevel: 2, wordsPerSlide: 40 },
      faces: [],
      standIns: [{ family: 'Skerrow', script: 'any', to: 'Jost' }],
      defaults: {},
      room: undefined,
      kerning: undefined,
      checks: { runt: { runs: true, severity: 'error' } },
    })
    expect(compareHouses(own, other).map(({ what, one, other: is }) => [what, one, is])).toEqual([
      ['Body on deeper levels', '2: 17; 3: light, 15', '2: 18'],
      ['Note', 'open', null],
      ['Midnight', '#1b2430', '#000011'],
      ['Sail', null, '#ffffff'],
      ['Faces that are allowed', 'Spectral', 'open'],
      [
        'Limits',
        'smallest 8 pt in texts, 3 families at most, 45 to 75 letters a line',
        'smallest 9 pt in texts, smallest 14 pt in decks, one family, contrast 4.5 : 1, 2 levels, 40 words a slide',
      ],
      ['What new text begins with', 'body text as Body', 'open'],
      ['Stand-ins', 'Literata for all that is absent', 'Jost for Skerrow'],
      ['Pairs of letters', 'Te in Spectral', 'open'],
      ['The room', 'a screen 2 m high, 12 m from the last row', 'open'],
      ['Checks of a proof', '1 does not run, 1 goes by other limits', '1 matters otherwise'],
    ])
    expect(limitWords(other.limits, 'text')).toEqual(['smallest 9 pt', 'one family', 'contrast 4.5 : 1'])
  })
})

describe('a house as tokens', () => {
  it('comes back wholly with its extension', () => {
    expect(houseFromTokens(houseToTokens(house()))).toEqual(house())
    expect(houseFromTokens(houseToTokens(emptyHouse('Nothing yet')))).toEqual(emptyHouse('Nothing yet'))
  })

  it('comes back without it in all that tokens have a type for', () => {
    const file = JSON.parse(houseToTokens(house())) as Record<string, unknown>
    delete file.$extensions
    const back = houseFromTokens(JSON.stringify(file))
    const [was, is] = [house(), back].map(each =>
      each.roles.map(role => [role.id, role.title, role.levels.map(level => level.size)]),
    )
    expect(is).toEqual(was)
    const body = settingFor(back, 'body', 'text')!
    expect(body).toMatchObject({
      family: 'Spectral',
      size: 10,
      weight: 400,
      tracking: 12,
      before: 2.5,
      after: 6,
      color: 'night',
    })
    expect(body.leading).toEqual({ value: 140, unit: 'percent' })
    expect(back.palette.map(({ id, title, color }) => [id, title, color])).toEqual(
      house().palette.map(({ id, title, color }) => [id, title, color]),
    )
    expect(back.name).toBe('Saltmere Line')
  })

  it('means what another tool made of it: tokens come before the extension', () => {
    const file = JSON.parse(houseToTokens(house())) as {
      role: { body: { text: { type: { $value: { fontFamily: unknown } } } } }
      palette: { buoy: { $value: { components: number[] } } }
    }
    file.role.body.text.type.$value.fontFamily = ['Literata', 'serif']
    file.palette.buoy.$value.components = [1, 0, 0]
    const back = houseFromTokens(JSON.stringify(file))
    expect(settingFor(back, 'body', 'text')).toMatchObject({ family: 'Literata', italic: false, hyphenate: true })
    expect(back.palette[1]).toMatchObject({ color: '#ff0000', ink: { spot: 'Saltmere Red' } })
  })

  it('is refused in a sentence where it is none', () => {
    for (const text of [
      '{',
      '[]',
      '{}',
      '{"role":{"Body Text":{}}}',
      `{"$description":"${'x'.repeat(200)}"}`,
      `"${' '.repeat(4_000_001)}"`,
    ])
      expect(() => houseFromTokens(text)).toThrow(HouseFileError)
    const text = {
      size: { $type: 'dimension', $value: { value: 2, unit: 'rem' } },
      weight: { $type: 'fontWeight', $value: 'bold' },
    }
    const odd = houseFromTokens(
      JSON.stringify({ role: { body: { text, deck: 7 } }, palette: { ink: { $value: '#fff' } } }),
    )
    expect(settingFor(odd, 'body', 'text')).toEqual({ size: 24, weight: 700 })
    expect(odd.palette).toEqual([])
  })

  it('are refused where what only the desk says cannot be read, with the place: nothing of it is dropped silently', () => {
    const file = (change: (own: Record<string, unknown>) => void) => {
      const read = JSON.parse(houseToTokens(house())) as { $extensions: Record<string, Record<string, unknown>> }
      change(Object.values(read.$extensions)[0]!)
      return () => houseFromTokens(JSON.stringify(read))
    }
    expect(file(() => undefined)()).toEqual(house())
    const standIns = (script: string) => [{ family: 'Skerrow', script, to: 'Spectral' }]
    expect(file(own => (own.standIns = standIns('Greek')))().standIns).toEqual(standIns('Greek'))
    expect(file(own => (own.standIns = standIns('Runes')))).toThrow(
      /^This house cannot be read at standIns\.0\.script: .+ Nothing was kept\.$/,
    )
    expect(file(own => (own.later = 'unknown'))).toThrow(/^This house cannot be read: .*later.* Nothing was kept\.$/)
  })
})

describe('making a house', () => {
  it('takes the steps of a pair, and sets slides twice as large', () => {
    const made = houseFromPair(
      'Winter',
      { heading: 'Jost', body: 'Literata', label: 'Work Sans', size: 10, ratio: 1.25 },
      house().palette,
    )
    expect(settingFor(made, 'body', 'text')).toMatchObject({
      family: 'Literata',
      size: 10,
      color: 'night',
      leading: { value: 142, unit: 'percent' },
    })
    expect(settingFor(made, 'lead', 'text')).toMatchObject({ family: 'Literata', size: 12.5 })
    expect(settingFor(made, 'label', 'deck')).toMatchObject({ family: 'Work Sans', size: 16 })
    expect(made.faces.map(face => face.family)).toEqual(['Jost', 'Literata', 'Work Sans'])
  })

  it('is drawn up from documents: each role as most of its text is, decks by what differs', () => {
    const made = houseFromDocuments('Saltmere', [session(crewHandbook()).reading, session(seasonReview()).reading])
    expect(settingFor(made, 'body', 'text')).toMatchObject({ family: 'Spectral', size: 10, align: 'justify' })
    expect(settingFor(made, 'data', 'text')?.align).toBeUndefined()
    expect(made.roles.find(role => role.id === 'body')!.deck.size).toBeGreaterThan(10)
    expect(made.palette.find(color => color.id === settingFor(made, 'body', 'text')!.color)?.does).toBe('text')
    expect(measureToStyle(session(crewHandbook()).reading, made).toStyle).toBeGreaterThan(100_000)
  })
})

describe('how much is to style', () => {
  const own = (body: string, automatic = '') =>
    sessionOf({
      styles:
        paragraphStyle(
          'Body',
          'fo:font-family="Spectral" fo:font-size="10pt" fo:color="#1b2430" fo:letter-spacing="0.12pt" fo:hyphenate="true"',
          'fo:line-height="14pt"',
        ) + textStyle('Strong', 'fo:font-weight="bold"'),
      automatic,
      body,
    })
  const measured = (body: string, automatic = '') => measureToStyle(own(body, automatic).reading, house())
  const text = 'Two boats a day sail to every pier of the outer islands.'

  it('counts text that is as its role says, emphasis included', () => {
    const result = measured(
      `<text:p text:style-name="Body">${text}<text:span text:style-name="Strong">!</text:span></text:p>`,
    )
    expect(result).toMatchObject({ characters: text.length + 1, toStyle: text.length + 1, places: [] })
    expect(result.roles).toEqual([
      { role: 'body', title: 'Body', characters: text.length + 1, toStyle: text.length + 1 },
    ])
  })

  it('holds leadings in percent against each other as a file has them, whatever a machine makes of their shares', () => {
    const percents = Array.from({ length: 101 }, (_, at) => 100 + at)
    const off = percents.filter(value => {
      const of = sessionOf({
        styles: paragraphStyle('Body', '', `fo:line-height="${value}%"`),
        body: '<text:p text:style-name="Body">x</text:p>',
      })
      const asks = (leading: number) =>
        houseSchema.parse({
          name: 'Leading',
          roles: [{ id: 'body', title: 'Body', text: { leading: { value: leading, unit: 'own' } } }],
        })
      return (
        measureToStyle(of.reading, asks(value)).toStyle !== 1 ||
        measureToStyle(of.reading, asks(value + 1)).toStyle !== 0
      )
    })
    expect(off).toEqual([])
  })

  it('takes code between words for what it is: in any face of one width, or in the one that the house sets code in', () => {
    const code = textStyle('Code', 'fo:font-family="Courier Prime"')
    const of = own(
      `<text:p text:style-name="Body">Type <text:span text:style-name="T">sail</text:span>.</text:p>`,
      code.replace('"Code"', '"T"'),
    )
    expect(measureToStyle(of.reading, house())).toMatchObject({ characters: 10, toStyle: 10 })
    const asking = (family: string) =>
      houseSchema.parse({ ...house(), roles: [...house().roles, { id: 'code', title: 'Code', text: { family } }] })
    expect(measureToStyle(of.reading, asking('Courier Prime')).toStyle).toBe(10)
    expect(measureToStyle(of.reading, asking('Roboto Mono')).places).toMatchObject([
      { why: ['Courier Prime, not Roboto Mono'], characters: 4 },
    ])
  })

  it('says what differs, where', () => {
    const automatic =
      paragraphStyle(
        'P1',
        'fo:font-size="9pt" fo:font-weight="bold" fo:color="#b4361e" fo:letter-spacing="1pt"',
        'fo:line-height="150%"',
        ' style:parent-style-name="Body"',
      ) +
      textStyle('T1', 'fo:font-family="Jost"') +
      textStyle('T2', 'fo:color="#b4361e"')
    const { places, toStyle } = measured(
      `<text:p text:style-name="P1">${text}</text:p>` +
        `<text:p text:style-name="Body">One <text:span text:style-name="T1">two</text:span> ` +
        '<text:span text:style-name="T2">three</text:span></text:p>',
      automatic,
    )
    expect(places.map(each => each.why)).toEqual([
      ['9 pt, not 10', 'weight 700, not 400', 'another leading', 'tracked 111.11, not 12', '#b4361e, not Night'],
      ['Jost, not Spectral'],
    ])
    expect(places[1]).toMatchObject({ from: 4, to: 7, role: 'body', characters: 3 })
    // A colour of the palette may set words apart.
    expect(toStyle).toBe('One  three'.length)
  })

  it('counts text of no known role as not', () => {
    const { roles, places } = measureToStyle(own(`<text:p>${text}</text:p>`).reading, house())
    expect(roles).toEqual([{ role: null, title: 'No role', characters: text.length, toStyle: 0 }])
    expect(places[0]!.why).toEqual(['no role is known'])
  })
})
