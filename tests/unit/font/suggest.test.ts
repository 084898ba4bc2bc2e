import { describe, expect, it } from 'vitest'
import { aliasGroups } from '../../../core/font/family-alias'
import type { FaceMeasures } from '../../../core/font/face'
import { Library } from '../../../core/font/library'
import { bareName, nameWords, slipsBetween } from '../../../core/font/near-names'
import { measuredDistance, suggestFaces, type AbsentName } from '../../../core/font/suggest'
import { absentName } from '../../support/absent-name'
import { library } from '../../support/fixtures'

const first = (family: string, more: Partial<AbsentName> = {}) => suggestFaces(library, absentName(family, more))[0]

describe('names of few letters', () => {
  it('may differ in two where they have five, in one where they have fewer', () => {
    const near = (family: string) => suggestFaces(library, absentName(family)).some(each => each.kind === 'near name')
    // Inter has five letters, Jost has four.
    expect([near('Imtar'), near('Josk'), near('Kosk')]).toEqual([true, true, false])
  })
})

/** Pseudo-random numbers from a seed (mulberry32, T. Ettinger): the same names at every run. */
function random(seed: number): () => number {
  let state = seed
  return () => {
    state = (state + 0x6d2b79f5) | 0
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state)
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296
  }
}

/** Names as absent faces bear them, made by rule from known ones. */
function absentNames(seed: number, count: number): { name: string; right: string; rule: string }[] {
  const next = random(seed)
  const pick = <T>(list: readonly T[]): T => list[Math.floor(next() * list.length)]!
  const known = [
    ...library.familyNames.map(family => ({ name: family, right: family })),
    ...aliasGroups
      .filter(group => library.family(group.family).length > 0)
      .flatMap(group => group.names.map(name => ({ name, right: group.family }))),
  ]
  const letters = 'abcdefghijklmnopqrstuvwxyz'
  const slip = (name: string): string => {
    const places = [...name].flatMap((letter, at) => (/[a-z]/i.test(letter) ? [at] : []))
    const at = pick(places)
    switch (Math.floor(next() * 4)) {
      case 0:
        return `${name.slice(0, at)}${pick([...letters])}${name.slice(at + 1)}`
      case 1:
        return `${name.slice(0, at)}${name.slice(at + 1)}`
      case 2:
        return `${name.slice(0, at)}${pick([...letters])}${name.slice(at)}`
      default:
        return at + 1 < name.length
          ? `${name.slice(0, at)}${name[at + 1]}${name[at]}${name.slice(at + 2)}`
          : `${name}${pick([...letters])}`
    }
  }
  const rules: Readonly<Record<string, (name: string) => string>> = {
    case: name => (next() < 0.5 ? name.toUpperCase() : name.toLowerCase()),
    spacing: name => name.replace(/ /g, pick(['', '-', '_', '  '])),
    suffix: name => `${name} ${pick(['Std', 'Pro', 'Com', 'OT', 'LT Std', 'MT', 'PS', 'VF', 'Web'])}`,
    foundry: name => `${pick(['Berthold', 'Linotype', 'Monotype', 'ITC', 'URW', 'FF', 'Bitstream'])} ${name}`,
    face: name =>
      `${name}${pick([' ', '-'])}${pick(['Bold', 'Italic', 'Regular', 'Light', 'SemiBold', 'Medium Italic', 'Black'])}`,
    'one letter': slip,
    'two letters': name => slip(slip(name)),
    alias: name => name,
  }
  return Array.from({ length: count }, () => {
    const rule = pick(Object.keys(rules))
    const { name, right } = pick(rule === 'alias' ? known.slice(library.familyNames.length) : known)
    return { name: rules[rule]!(name), right, rule }
  })
}

describe('names of absent families', () => {
  it('500 names made by rule: the right family comes first for 95 %, and nothing is called the same design that is not', () => {
    const wrong: string[] = []
    for (const { name, right, rule } of absentNames(20261125, 500)) {
      const suggestions = suggestFaces(library, absentName(name))
      if (suggestions[0]?.family !== right) wrong.push(`${rule}: ${name} is ${right}, said ${suggestions[0]?.family}`)
      for (const { family, kind } of suggestions) {
        if (kind !== 'same design') continue
        expect(
          aliasGroups.some(
            group =>
              group.kind === 'same design' &&
              group.family === family &&
              group.names.some(
                each => each.toLowerCase().replace(/[\s_-]/g, '') === name.toLowerCase().replace(/[\s_-]/g, ''),
              ),
          ),
          `${name}: ${family}`,
        ).toBe(true)
      }
    }
    expect(wrong.length, wrong.slice(0, 30).join('\n')).toBeLessThanOrEqual(25)
  })

  it('says why, in words', () => {
    expect(first('Arial')).toMatchObject({
      family: 'Liberation Sans',
      kind: 'metric-compatible',
      reason: 'has the same widths as Arial',
    })
    expect(first('Bitstream Vera Sans')).toMatchObject({ family: 'DejaVu Sans', kind: 'same design' })
    expect(first('Spectral Std')).toMatchObject({
      family: 'Spectral',
      kind: 'near name',
      reason: 'the name without “std”: Spectral',
    })
    expect(first('Litterata')).toMatchObject({
      family: 'Literata',
      kind: 'near name',
      reason: 'the name is one letter away: Literata',
    })
    expect(first('PUBLICSANS')).toMatchObject({ family: 'Public Sans', kind: 'same name' })
    expect(first('Linotype Arial')).toMatchObject({
      family: 'Liberation Sans',
      kind: 'near name',
      reason: 'the name without “linotype”: Arial, whose widths it has',
    })
  })

  it('a made-up name is near to nothing, and a short one is not taken for another', () => {
    expect(suggestFaces(library, absentName('Brannock'))).toEqual([])
    expect(suggestFaces(library, absentName('Iner')).map(each => each.family)).toEqual(['Inter'])
    expect(suggestFaces(library, absentName('Ox')).filter(each => each.kind === 'near name')).toEqual([])
  })

  it('names are taken apart at spaces, signs and capitals, and slips are counted', () => {
    expect(nameWords('PTSerif-BoldItalic')).toEqual(['pt', 'serif', 'bold', 'italic'])
    expect(bareName('Linotype Literata Pro SemiBold').key).toBe('literata')
    expect(bareName('Pro').key).toBe('pro')
    expect(slipsBetween('literata', 'litreata', 2)).toBe(1)
    expect(slipsBetween('kitten', 'sitting', 3)).toBe(3)
    expect(slipsBetween('abc', 'xyzuv', 2)).toBe(3)
  })
})

describe('hints and measures', () => {
  const kinds = (family: string, more: Partial<AbsentName>) =>
    suggestFaces(library, absentName(family, more)).map(each => [each.family, each.kind])
  it('go by what the file says of the face', () => {
    const roman = suggestFaces(library, absentName('Brannock', { generic: 'roman' }))
    expect(roman[0]).toMatchObject({ kind: 'hint', reason: 'the file calls it roman' })
    for (const { family } of roman) expect(library.family(family)[0]!.measures.foot, family).toBeGreaterThan(1.4)
    for (const [family] of kinds('Brannock', { pitch: 'fixed' }))
      expect(library.family(family!)[0]!.monospaced).toBe(true)
    expect(kinds('Tolmere', { generic: 'script' }).map(([family]) => family)).toEqual(
      expect.arrayContaining(['Caveat', 'Kalam']),
    )
    expect(suggestFaces(library, absentName('Skerry Sans', { generic: 'roman' }))[0]!.reason).toBe('its name says sans')
    expect(
      suggestFaces(library, absentName('Brannock', { panose: [2, 11, 6, 3, 0, 0, 0, 0, 0, 0] }))[0]!.reason,
    ).toContain('without serifs')
  })

  it('of a face whose file came along, the family itself is the nearest', () => {
    for (const family of ['Spectral', 'Jost', 'Oswald', 'JetBrains Mono']) {
      const { measures } = library.family(family).find(face => face.weight === 400 && face.slant === 'upright')!
      expect(suggestFaces(library, absentName('Brannock'), [], measures)[0]).toMatchObject({ family, kind: 'measured' })
    }
  })

  it('distance is none to itself, grows with every measure, and asks for something to compare', () => {
    const face = library.family('Spectral')[2]!
    expect(measuredDistance(face.measures, face)).toMatchObject({ distance: 0 })
    expect(measuredDistance({ ...face.measures, xHeight: face.measures.xHeight + 50 }, face)!.distance).toBeGreaterThan(
      0.5,
    )
    expect(measuredDistance({} as Partial<FaceMeasures>, face)).toBeNull()
  })

  it('a metric-compatible name is followed by what is measured against it', () => {
    const list = suggestFaces(library, absentName('Albany'))
    expect(list[0]!.family).toBe('Liberation Sans')
    expect(list.slice(1).every(each => each.kind === 'measured' && each.reason.includes('Liberation Sans'))).toBe(true)
  })

  it('counts what a face lacks, and leaves out those that lack most', () => {
    const japanese = [...'ようこそサルトミア'].map(letter => letter.codePointAt(0)!)
    const list = suggestFaces(library, absentName('Brannock', { generic: 'swiss' }), japanese)
    expect(list.length).toBeGreaterThan(0)
    for (const each of list) expect(each.lacks).toBe(0)
  })
})

describe('stand-ins that were chosen', () => {
  const request = { styleName: '', weight: 400, italic: false, generic: 'roman', pitch: '', charset: '' } as const
  const chosen = new Library(library.faces, [
    { family: 'Brannock', script: 'any', to: 'Literata' },
    { family: '', script: 'western', to: 'Spectral' },
    { family: '', script: 'asian', to: 'BIZ UDPGothic' },
    { family: 'Brannock', script: 'Greek', to: 'Inter' },
  ])
  it('for a family before all families, by slot, and never for what is present', () => {
    expect(chosen.resolve({ ...request, family: 'Brannock', slot: 'western' })).toMatchObject({
      status: 'absent',
      face: { family: 'Literata' },
      reason: 'Brannock is not in the library; Literata stands in, as you chose',
    })
    expect(chosen.resolve({ ...request, family: 'Tolmere', slot: 'western' }).face.family).toBe('Spectral')
    expect(chosen.resolve({ ...request, family: 'Tolmere', slot: 'asian' }).face.family).toBe('BIZ UDPGothic')
    expect(chosen.resolve({ ...request, family: 'Jost', slot: 'western' })).toMatchObject({
      status: 'present',
      face: { family: 'Jost' },
    })
    expect(chosen.resolve({ ...request, family: '', slot: 'western' }).status).toBe('unnamed')
    // What has the same widths goes before a stand-in for all, and behind one for that very family.
    expect(chosen.resolve({ ...request, family: 'Arial', slot: 'western' })).toMatchObject({
      status: 'alias',
      face: { family: 'Liberation Sans' },
    })
    expect(
      new Library(library.faces, [{ family: 'Arial', script: 'any', to: 'Inter' }]).resolve({
        ...request,
        family: 'Arial',
        slot: 'western',
      }).face.family,
    ).toBe('Inter')
  })

  it('for a script of an absent family', () => {
    expect(
      chosen
        .scriptStandIns({ ...request, family: 'Brannock', slot: 'western' })
        .map(each => [each.script, each.face.family]),
    ).toEqual([['Greek', 'Inter']])
    expect(chosen.scriptStandIns({ ...request, family: 'Tolmere', slot: 'western' })).toEqual([])
  })

  it('what a stand-in names must be there, else it is passed over', () => {
    expect(
      library
        .withStandIns([{ family: '', script: 'any', to: 'Nowhere' }])
        .resolve({ ...request, family: 'Brannock', slot: 'western' }).face.family,
    ).toBe('Liberation Serif')
  })
})
