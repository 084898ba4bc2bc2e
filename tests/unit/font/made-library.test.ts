import { describe, expect, it } from 'vitest'
import { covers, needsNoGlyph, type FaceMeasures, type FaceRecord } from '../../../core/font/face'
import { Library, nearest, requestOf, type FaceRequest, type StandIn } from '../../../core/font/library'
import { measuredDistance, suggestFaces, type AbsentName } from '../../../core/font/suggest'
import { absentName } from '../../support/absent-name'
import { library as shipped } from '../../support/fixtures'

const like = shipped.named('Spectral', 'Regular')!
/** A face that was made up, drawn like another one. */
const made = (family: string, more: Partial<FaceRecord> = {}): FaceRecord => {
  const { weight = 400, slant = 'upright', style = slant === 'italic' ? 'Italic' : 'Regular' } = more
  return {
    ...like,
    family,
    style,
    weight,
    slant,
    width: 100,
    hash: JSON.stringify([family, style, weight, more.width]),
    ...more,
  }
}
const measured = (family: string, measures: Partial<FaceMeasures>, more: Partial<FaceRecord> = {}) =>
  made(family, { ...more, measures: { ...like.measures, ...measures } })

describe('the nearest face', () => {
  const weights = (...all: number[]) => all.map(weight => made('Gull', { weight }))
  // CSS Fonts 4, section 5.2: within 400 and 500 up to 500 first, then lighter, then heavier; else on its own side first.
  it.each<[number, readonly number[], number]>([
    [400, [300, 500, 600], 500],
    [400, [300, 501, 600], 300],
    [450, [300, 400, 500], 500],
    [500, [400, 600], 400],
    [500, [600, 900], 600],
    [399, [100, 400], 100],
    [300, [200, 350], 200],
    [300, [400, 600], 400],
    [501, [500, 900], 900],
    [600, [500, 700], 700],
    [700, [300, 600], 600],
    [400, [400, 400], 400],
  ])('to %d of %j is %d', (wanted, there, found) => {
    expect(nearest(weights(...there), wanted, false).weight).toBe(found)
    expect(nearest(weights(...there).reverse(), wanted, false).weight).toBe(found)
  })

  it('has the posture first, then the normal width, then the weight', () => {
    const upright = made('Gull', { weight: 700 })
    const italic = made('Gull', { weight: 300, slant: 'italic' })
    const narrow = made('Gull', { weight: 400, width: 75 })
    expect(nearest([narrow, upright, italic], 400, true)).toBe(italic)
    expect(nearest([narrow, upright, italic], 400, false)).toBe(upright)
    expect(nearest([narrow, italic], 400, false)).toBe(narrow)
    expect(nearest([upright, narrow], 400, true)).toBe(upright)
    // Of two alike the first one.
    expect(nearest([made('A'), made('B')], 400, false).family).toBe('A')
  })
})

describe('a made library', () => {
  const faces = [
    made('Gull Text', { weight: 700, style: 'Bold' }),
    made('Gull Text', { slant: 'italic' }),
    made('Gull Text'),
    made('Gull Text', { width: 75, style: 'Condensed' }),
    made('Gull Text', { weight: 600, style: 'Halbfett' }),
    made('Gull Text', { weight: 700, slant: 'italic', style: 'Bold Italic' }),
    made('Auk'),
  ]
  const library = new Library(faces)
  const ask = (family: string, more: Partial<FaceRequest> = {}) =>
    library.resolve({ ...requestOf(family, 400, false), ...more })
  const told = ({ face, exact }: { face: FaceRecord; exact: boolean }) => `${face.style}${exact ? '' : ', not exact'}`

  it('has its families by name, and faces light to heavy, upright first, narrow first', () => {
    expect(library.familyNames).toEqual(['Auk', 'Gull Text'])
    expect(library.family('gull-text').map(face => face.style)).toEqual([
      'Condensed',
      'Regular',
      'Italic',
      'Halbfett',
      'Bold',
      'Bold Italic',
    ])
    expect(library.family('Nobody')).toEqual([])
    expect(library.byHash(faces[6]!.hash)).toBe(faces[6])
    expect(library.byHash('none')).toBeUndefined()
  })

  it.each<[string, string | undefined]>([
    ['bold-italic', 'Bold Italic'],
    ['Heavy', undefined],
    ['Semi Bold', 'Halbfett'],
    ['Italic', 'Italic'],
    ['Bold Oblique', 'Bold Italic'],
    ['Display Bold', undefined],
    ['', undefined],
  ])('knows the face %j as %j', (style, found) => {
    expect(library.named('Gull Text', style)?.style).toBe(found)
    expect(library.named('Nobody', style)).toBeUndefined()
  })

  it.each<[Partial<FaceRequest>, string]>([
    [{}, 'Regular'],
    [{ weight: 700 }, 'Bold'],
    [{ italic: true }, 'Italic'],
    [{ weight: 800 }, 'Bold, not exact'],
    [{ styleName: 'Halbfett' }, 'Halbfett'],
    [{ styleName: 'halb-fett' }, 'Halbfett'],
    [{ styleName: 'Halbfett', weight: 700 }, 'Bold'],
    [{ styleName: 'Halbfett', weight: 500 }, 'Halbfett'],
    [{ styleName: 'Bold', italic: true }, 'Bold Italic'],
    [{ styleName: 'Italic', weight: 700 }, 'Bold Italic'],
    [{ styleName: 'Nobody' }, 'Regular'],
  ])('asked for %j gives %s', (request, face) => {
    expect(told(ask('Gull Text', request))).toBe(face)
  })

  it.each<[string, Partial<FaceRequest>, string]>([
    ['Gull Text Bold', {}, 'Bold'],
    ['Gull Text Italic', { weight: 700 }, 'Bold Italic'],
    ['Gull Text Bold', { weight: 300, italic: true }, 'Bold Italic'],
    ['Gull Text Bold', { styleName: 'Halbfett' }, 'Bold'],
  ])('takes %s for a face of the family', (family, request, face) => {
    expect(ask(family, request)).toMatchObject({
      status: 'present',
      reason: 'a face of Gull Text, which is in the library',
    })
    expect(told(ask(family, request))).toBe(face)
  })

  it('shows an absent family in what it has, where none of the usual stand-ins is there', () => {
    expect(ask('Puffin')).toMatchObject({
      status: 'absent',
      face: { family: 'Gull Text' },
      reason: 'Puffin: not in the library, nor any usual stand-in',
    })
    expect(() => new Library([]).resolve(requestOf('Puffin', 400, false))).toThrow('the library holds no face')
  })
})

describe('a stand-in that was chosen', () => {
  const rules: readonly StandIn[] = [
    { family: '', script: 'any', to: 'General' },
    { family: '', script: 'asian', to: 'General Asian' },
    { family: 'Puffin', script: 'any', to: 'Own' },
    { family: 'Puffin', script: 'asian', to: 'Own Asian' },
    { family: 'Puffin', script: 'Greek', to: 'Own Greek' },
    { family: '', script: 'Thai', to: 'General Thai' },
    { family: 'Skua', script: 'complex', to: 'Nowhere' },
  ]
  const names = ['General', 'General Asian', 'Own', 'Own Asian', 'Own Greek', 'General Thai', 'Liberation Sans']
  const faces = names.map(name => made(name))
  const shown = (list: readonly StandIn[], family: string, slot: FaceRequest['slot']) =>
    new Library(faces, list).resolve({ ...requestOf(family, 400, false), slot }).face.family

  it.each<[string, FaceRequest['slot'], string]>([
    ['Puffin', 'western', 'Own'],
    ['puffin', 'asian', 'Own Asian'],
    ['Razorbill', 'western', 'General'],
    ['Razorbill', 'asian', 'General Asian'],
    // What was chosen for it is not there.
    ['Skua', 'complex', 'General'],
  ])('for %s, %s, is %s, in whatever order they were chosen', (family, slot, expected) => {
    expect(shown(rules, family, slot)).toBe(expected)
    expect(shown([...rules].reverse(), family, slot)).toBe(expected)
  })

  it('of two for the same, the first is the stronger', () => {
    const two: readonly StandIn[] = [
      { family: 'Puffin', script: 'any', to: 'General' },
      { family: 'Puffin', script: 'any', to: 'Own' },
    ]
    expect(shown(two, 'Puffin', 'western')).toBe('General')
  })

  it('says whether it was chosen for that family or for all', () => {
    const reason = (family: string) => new Library(faces, rules).resolve(requestOf(family, 400, false)).reason
    expect(reason('Puffin')).toBe('Puffin is not in the library; Own stands in, as you chose')
    expect(reason('Razorbill')).toBe('Razorbill is not in the library; General stands in, as you chose for all')
    expect(reason('')).toMatch(/^the document names no font here/)
  })

  it('for a script shows letters of that script alone', () => {
    const scripts = (family: string, list = rules) =>
      new Library(faces, list)
        .scriptStandIns(requestOf(family, 400, false))
        .map(({ script, face }) => [script, face.family])
    expect(scripts('Puffin')).toEqual([
      ['Greek', 'Own Greek'],
      ['Thai', 'General Thai'],
    ])
    expect(scripts('Razorbill')).toEqual([['Thai', 'General Thai']])
    expect(scripts('Puffin', rules.slice(0, 4))).toEqual([])
    expect(shown([{ family: 'Puffin', script: 'Greek', to: 'Own Greek' }], 'Puffin', 'western')).toBe('Liberation Sans')
  })
})

describe('hints of a file', () => {
  it.each<[Partial<FaceRequest>, string, string]>([
    [{ slot: 'asian', pitch: 'fixed' }, 'Zen Kaku Gothic New', 'as it has East Asian letters'],
    [{ pitch: 'fixed' }, 'Liberation Mono', 'as its letters are of one width'],
    [{ generic: 'modern' }, 'Liberation Mono', 'as its letters are of one width'],
    [{ family: 'Puffin Typewriter' }, 'Liberation Mono', 'as its letters are of one width'],
    [{ family: 'Puffin Grotesk', generic: 'roman' }, 'Liberation Sans', 'as its name says sans'],
    [{ family: 'Puffin Serif' }, 'Liberation Serif', 'as its name says serif'],
    [{ generic: 'roman' }, 'Liberation Serif', 'as the file calls it roman'],
    [{ generic: 'script' }, 'Caveat', 'as the file calls it script'],
    [{ generic: 'swiss' }, 'Liberation Sans', 'as the file calls it swiss'],
    [{}, 'Liberation Sans', 'as the file gives no hint of its kind'],
  ])('%j', (hints, family, because) => {
    const { face, reason } = shipped.resolve({ ...requestOf('Puffin', 400, false), ...hints })
    expect(face.family).toBe(family)
    expect(reason).toBe(`${hints.family ?? 'Puffin'} is not in the library; ${family} stands in, ${because}`)
  })

  const absent = (more: Partial<AbsentName>): AbsentName => absentName('Puffin', more)
  it.each<[Partial<AbsentName>, string | null]>([
    [{ pitch: 'fixed', generic: 'roman' }, 'the file says that its letters are of one width'],
    [{ generic: 'modern' }, 'the file says that its letters are of one width'],
    [{ panose: [2, 0, 0, 9] }, 'its Panose figures say one width'],
    [{ panose: [2, 2, 0, 8] }, 'its Panose figures say with serifs'],
    [{ panose: [4, 2, 0, 9] }, null],
    [{ panose: [3, 0, 0, 0] }, 'its Panose figures say script'],
    [{ generic: 'script', panose: [2, 11] }, 'the file calls it script'],
    [{ panose: [2, 10] }, 'its Panose figures say with serifs'],
    [{ panose: [2, 11] }, 'its Panose figures say without serifs'],
    [{ panose: [2, 1], generic: 'roman' }, 'the file calls it roman'],
    [{ panose: [2], generic: 'swiss' }, 'the file calls it swiss'],
    [{ family: 'Puffin Sans', generic: 'roman' }, 'its name says sans'],
    [{ family: 'Puffin Gothic', generic: 'roman' }, 'the file calls it roman'],
    [{ family: 'Puffin Gothic' }, 'its name says sans'],
    [{ family: 'Puffin Mono' }, 'its name says one width'],
    [{ family: 'Puffin Brush' }, 'its name says script'],
    [{ family: 'Puffin Antiqua' }, 'its name says serif'],
    [{}, null],
  ])('%j speak for %j', (more, reason) => {
    const found = suggestFaces(shipped, absent(more)).find(each => each.kind === 'hint')
    expect(found?.reason ?? null).toBe(reason)
  })

  it('go by plain text of that kind, without hands and without faces for display', () => {
    const faces = [
      measured('Liberation Serif', { foot: 2, stem: 90 }),
      measured('Far', { foot: 2, stem: 90, xHeight: like.measures.xHeight + 80 }),
      measured('Near', { foot: 1.41, stem: 90, xHeight: like.measures.xHeight + 20 }),
      measured('Sans', { foot: 1.4, stem: 90 }),
      measured('Fat', { foot: 2, stem: 125 }),
      measured('Almost fat', { foot: 2, stem: 124 }),
      measured('Caveat', { foot: 2, stem: 90 }),
      measured('Fixed', { foot: 2, stem: 90 }, { monospaced: true }),
      measured('No Latin', { foot: 2, stem: 90 }, { coverage: { Greek: 50 } }),
    ]
    const hinted = (more: Partial<AbsentName>, list = faces) =>
      suggestFaces(new Library(list), absent(more)).map(each => each.family)
    expect(hinted({ generic: 'roman' })).toEqual(['Liberation Serif', 'Near', 'Almost fat', 'Far'])
    expect(hinted({ generic: 'swiss' })).toEqual(['Sans'])
    expect(hinted({ generic: 'modern' })).toEqual(['Fixed'])
    expect(hinted({ generic: 'script' })).toEqual(['Caveat'])
    // Without plain text of the kind all of it is as near.
    expect(hinted({ generic: 'roman' }, faces.slice(1))).toEqual(['Almost fat', 'Far', 'Near'])
  })

  it('leave out what lacks more than half of the letters', () => {
    const has = (...codes: number[]) => ({ ranges: codes.flatMap(code => [code, code]) })
    const faces = [
      measured('Half', { foot: 2, stem: 90 }, has(0x61, 0x62)),
      measured('Third', { foot: 2, stem: 90 }, has(0x61)),
      measured('None', { foot: 2, stem: 90 }, has()),
    ]
    const list = (codes: readonly number[]) =>
      suggestFaces(new Library(faces), absent({ generic: 'roman' }), codes).map(({ family, lacks }) => [family, lacks])
    expect(list([0x61, 0x62, 0x63, 0x64, 0x61, 0xad])).toEqual([['Half', 2]])
    expect(list([0x61, 0x62])).toEqual([
      ['Half', 0],
      ['Third', 1],
    ])
    expect(list([])).toHaveLength(3)
  })
})

describe('how far two faces are apart', () => {
  const face = measured('Gull', { xHeight: 500, averageWidth: 450, capHeight: 700, stem: 90, hairline: 45, foot: 2 })
  const own = face.measures
  it.each<[string, Partial<FaceMeasures>, number, readonly string[]]>([
    ['x-height', { xHeight: 525 }, 1, ['x-height']],
    ['width', { averageWidth: 475 }, 1, ['width']],
    ['cap height', { capHeight: 740 }, 1, ['cap height']],
    ['cap heights two steps away', { capHeight: 620 }, 2, []],
    ['weight, which bears feet, too', { stem: 108 }, Math.sqrt((1 + ((2 - 1) / 0.9) ** 2) / 2), ['weight']],
    ['nothing', { xHeight: 0, capHeight: -1, stem: 0 }, Number.NaN, []],
  ])('%s', (_, one, distance, alike) => {
    const found = measuredDistance(one, face)
    if (Number.isNaN(distance)) {
      expect(found).toBeNull()
      return
    }
    expect(found!.distance).toBeCloseTo(distance, 9)
    expect(found!.nearest).toEqual(alike)
  })

  it('is the root of the mean square of all that can be compared', () => {
    const other = { ...own, xHeight: 550, averageWidth: 475, hairline: 90, foot: 1.1 }
    // Two steps, one, none, none, two of contrast (a half, a quarter each), one of feet.
    expect(measuredDistance(other, face)!.distance).toBeCloseTo(Math.sqrt((4 + 1 + 0 + 0 + 4 + 1) / 6), 9)
    expect(measuredDistance({ ...other, foot: 1.2 }, face)!.nearest).toEqual(['cap height', 'weight', 'serifs'])
    // Feet beyond two stems and a half are as wide as those.
    expect(measuredDistance({ ...own, foot: 9 }, face)!.distance).toBeCloseTo(Math.sqrt((0.5 / 0.9) ** 2 / 6), 9)
    // Hairlines that nobody measured say nothing of the contrast.
    expect(measuredDistance({ ...own, hairline: 0, foot: 2 }, face)).toMatchObject({ distance: 0 })
  })
})

describe('signs', () => {
  it('that a face has are found in its runs, first and last among them', () => {
    const face = made('Gull', { ranges: [0x20, 0x7e, 0xa1, 0xa1, 0x400, 0x45f] })
    const has = [0x20, 0x7e, 0xa1, 0x400, 0x41f, 0x45f]
    const lacks = [0x1f, 0x7f, 0xa0, 0xa2, 0x3ff, 0x460]
    expect(has.filter(code => covers(face, code))).toEqual(has)
    expect(lacks.filter(code => covers(face, code))).toEqual([])
    expect(covers(made('Gull', { ranges: [] }), 0x20)).toBe(false)
  })

  it('that ask for no glyph: breaks, joiners, marks of direction, selectors', () => {
    const none = [0x00, 0x1f, 0xad, 0x200b, 0x200f, 0x2028, 0x202e, 0x2060, 0x206f, 0xfe00, 0xfe0f, 0xfeff]
    const some = [0x20, 0xac, 0xae, 0x200a, 0x2010, 0x2027, 0x202f, 0x205f, 0x2070, 0xfdff, 0xfe10, 0xfefe, 0xff00]
    expect(none.filter(code => needsNoGlyph(code))).toEqual(none)
    expect(some.filter(code => needsNoGlyph(code))).toEqual([])
  })

  it('that a face lacks are shown by the usual ones first, of one width where it is, in its weight and posture', () => {
    const all = [0x61, 0x61]
    const faces = [
      made('Rare', { ranges: [0x61, 0x62] }),
      made('DejaVu Sans Mono', { ranges: all }),
      made('Liberation Sans', { ranges: all }),
      made('Liberation Sans', { ranges: all, weight: 700, style: 'Bold' }),
      made('DejaVu Sans', { ranges: all }),
      made('Liberation Mono', { ranges: all, slant: 'italic' }),
    ]
    const library = new Library(faces)
    const shows = (code: number, more: Partial<FaceRecord>) => {
      const face = library.forGlyph(code, made('Gull', more))
      return face && `${face.family} ${face.style}`
    }
    expect(shows(0x61, {})).toBe('Liberation Sans Regular')
    expect(shows(0x61, { weight: 700 })).toBe('Liberation Sans Bold')
    expect(shows(0x61, { monospaced: true })).toBe('Liberation Mono Italic')
    expect(shows(0x62, {})).toBe('Rare Regular')
    expect(shows(0x63, {})).toBeNull()
    // Asked again it says the same.
    expect(shows(0x63, {})).toBeNull()
    expect(shows(0x61, { weight: 700 })).toBe('Liberation Sans Bold')
  })
})
