import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { decompress } from 'wawoff2'
import { beforeAll, describe, expect, it } from 'vitest'
import { axisName, calledAt, samePlace, usualPlace, whyNotAt } from '../../../core/font/axes'
import { calledNames, namesOf, withNames } from '../../../core/font/names'
import { fileOf, tablesOf } from '../../../core/font/sfnt'
import { familyName, instancesIn } from '../../../core/font/variable'
import { projectFolder } from '../../../server/library/files'
import { checkFontFile, checkSingleFont, faceAt, type CheckedFont } from '../../../server/library/font-file'

/* Files of one family: one that names its places, one with an axis of weight alone that names none. */
const packed = (name: string) =>
  new Uint8Array(
    readFileSync(
      join(projectFolder(), 'node_modules/@fontsource-variable/fraunces/files', `fraunces-latin-${name}-normal.woff2`),
    ),
  )
let full: CheckedFont[]
let plain: CheckedFont[]
let file: Uint8Array
beforeAll(async () => {
  full = await checkFontFile(packed('full'))
  plain = await checkFontFile(packed('wght'))
  file = new Uint8Array(await decompress(packed('full')))
})
const told = (fonts: readonly CheckedFont[]) => fonts.map(({ face }) => [face.style, face.weight, face.axes.length])

describe('a variable file', () => {
  it('opens into the faces it names: itself at its usual place, the others as files of one form', () => {
    // The file is called Regular, and stands at its heaviest.
    expect(told(full)).toEqual([
      ['Black', 900, 4],
      ['Thin', 100, 0],
      ['Light', 300, 0],
      ['Regular', 400, 0],
      ['SemiBold', 600, 0],
      ['Bold', 700, 0],
    ])
    expect(new Set(full.map(({ face }) => face.family))).toEqual(new Set(['Fraunces']))
    const [variable, ...cut] = full
    expect(cut.every(({ face }) => face.cutFrom === variable!.face.hash)).toBe(true)
    expect(variable!.face.cutFrom).toBeUndefined()
    expect(new Set(full.map(({ face }) => face.hash)).size).toBe(6)
  })

  it('is measured at each of them', () => {
    const stems = [...full].sort((a, b) => a.face.weight - b.face.weight).map(({ face }) => face.measures.stem!)
    expect(stems).toEqual([...stems].sort((a, b) => a - b))
    expect(stems[0]).toBeLessThan(50)
    expect(stems.at(-1)).toBeGreaterThan(190)
    expect(full[1]!.face.measures.averageWidth).toBeLessThan(full[0]!.face.measures.averageWidth)
  })

  it('that names none has a face for each step of its weight', () => {
    expect(told(plain).map(([style]) => style)).toEqual([
      'Black',
      'Thin',
      'ExtraLight',
      'Light',
      'Regular',
      'Medium',
      'SemiBold',
      'Bold',
      'ExtraBold',
    ])
  })

  it('whose letters slant has slanted faces where it names none', () => {
    const { bytes, face } = plain[0]!
    const styles = instancesIn(bytes, { ...face, slant: 'italic' }).map(each => each.style)
    expect(styles).toEqual(expect.arrayContaining(['Thin Italic', 'Italic', 'Bold Italic']))
  })

  it('gives files that stand by themselves, under their own names, with what the maker says kept', async () => {
    const light = full.find(({ face }) => face.style === 'Light')!
    const again = await checkSingleFont(light.bytes)
    expect(again.face).toMatchObject({ family: 'Fraunces', style: 'Light', fullName: 'Fraunces Light', weight: 300 })
    expect(again.face.features).toEqual(expect.arrayContaining(['kern', 'liga']))
    const [names, were] = [namesOf(light.bytes), namesOf(file)]
    expect([1, 2, 4, 6, 16, 17].map(id => names.get(id))).toEqual([
      'Fraunces Light',
      'Regular',
      'Fraunces Light',
      'Fraunces-Light',
      'Fraunces',
      'Light',
    ])
    expect(names.get(14)).toBe(were.get(14))
    expect(tablesOf(light.bytes).map(table => table.tag)).not.toContain('fvar')
  })

  it('is cut at any place on its axes', () => {
    const at = (place: Record<string, number>) => faceAt(full[0]!, 'X', { ...usualPlace(full[0]!.face.axes), ...place })
    const [small, large] = [at({ wght: 400 }), at({ wght: 400, opsz: 144 })]
    expect(small.face).toMatchObject({ weight: 400, style: 'X', axes: [] })
    // At display sizes hairlines are finer.
    expect(large.face.measures.hairline).toBeLessThan(small.face.measures.hairline! * 0.7)
    expect(small.bytes).toEqual(at({ wght: 400 }).bytes)
    // Nobody finds it in the file again: it is passed on as it is.
    expect(small.face.cutFrom).toBeUndefined()
  })

  it('with a table that is not sound is taken as it stands', () => {
    const { face } = full[0]!
    const broken = (change: (data: DataView) => void, length?: number) =>
      fileOf(
        file,
        tablesOf(file).map(table => {
          if (table.tag !== 'fvar') return table
          const bytes = Uint8Array.from(length === undefined ? table.bytes : table.bytes.subarray(0, length))
          change(new DataView(bytes.buffer))
          return { ...table, bytes }
        }),
      )
    expect(instancesIn(file, face)).toHaveLength(6)
    const count = (bytes: Uint8Array) => instancesIn(bytes, face).length
    // Cut off, with too many axes, with instances too short, with more instances than there are: nothing is made up.
    expect(count(broken(() => undefined, 12))).toBe(9)
    expect(count(broken(data => data.setUint16(8, 9_999)))).toBe(9)
    expect(count(broken(data => data.setUint16(14, 2)))).toBe(9)
    expect(count(broken(data => data.setUint16(12, 60_000)))).toBe(6)
    expect(count(broken(data => data.setUint16(4, 60_000)))).toBe(9)
    // A place off its axis is none.
    const start = new DataView(
      tablesOf(file)
        .find(each => each.tag === 'fvar')!
        .bytes.slice().buffer,
    ).getUint16(4)
    expect(count(broken(data => data.setInt32(start + 80 + 4, 200 * 65536)))).toBe(5)
    expect(instancesIn(file, { ...face, axes: [] })).toEqual([])
  })
})

describe('places on axes', () => {
  const face = {
    family: 'Fraunces',
    weight: 900,
    slant: 'upright' as const,
    axes: [
      { tag: 'opsz', least: 9, most: 144, usual: 9 },
      { tag: 'wght', least: 100, most: 900, usual: 900 },
      { tag: 'SOFT', least: 0, most: 100, usual: 0 },
    ],
  }

  it('are called by their weight in the family, else in a family of their own', () => {
    const called = (place: Record<string, number>, more = {}) => Object.values(calledAt({ ...face, ...more }, place))
    expect(called({ wght: 500 })).toEqual(['Fraunces', 'Medium'])
    expect(called({ wght: 550 })).toEqual(['Fraunces', '550'])
    expect(called({ wght: 550 }, { slant: 'italic' })).toEqual(['Fraunces', '550 Italic'])
    expect(called({ wght: 400, opsz: 72, SOFT: 33.336 })).toEqual(['Fraunces 72pt Soft 33.34', 'Regular'])
    expect(called({})).toEqual(['Fraunces', 'Black'])
    const soft = face.axes.map(each => (each.tag === 'SOFT' ? { ...each, name: 'Softness' } : each))
    expect(called({ SOFT: 50 }, { axes: soft })[0]).toBe('Fraunces Softness 50')
    expect([...soft, { tag: 'wdth' }, { tag: 'GRAD' }].map(axisName)).toEqual([
      'Optical size',
      'Weight',
      'Softness',
      'Width',
      'GRAD',
    ])
  })

  it('lie between the ends of axes that there are', () => {
    expect(whyNotAt(face.axes, { wght: 900, opsz: 9 })).toBeNull()
    expect(whyNotAt(face.axes, { wght: 901 })).toBe('Weight goes from 100 to 900.')
    expect(whyNotAt(face.axes, { SOFT: -1 })).toBe('SOFT goes from 0 to 100.')
    expect(whyNotAt(face.axes, { wdth: 100 })).toBe('This face has no axis “wdth”.')
    expect(whyNotAt([], {})).toContain('one form')
  })

  it('are one where they are as near as a file can say', () => {
    expect(samePlace({ wght: 400 }, { wght: 400.005 })).toBe(true)
    expect(samePlace({ wght: 400 }, { wght: 400.02 })).toBe(false)
    expect(samePlace({ wght: 400, opsz: 9 }, { wght: 400 })).toBe(false)
  })
})

describe('names of font files', () => {
  it('are those of the family where a file bears the name of one of its places', () => {
    const instances = [
      { style: 'Black', place: {} },
      { style: 'Regular', place: {} },
    ]
    const of = (family: string) => familyName(new Map([[1, family]]), instances)
    expect([of('Harbour Black'), of('Harbour'), of('Harbour Regular'), of('Black')]).toEqual([
      'Harbour',
      'Harbour',
      'Harbour Regular',
      'Black',
    ])
    expect(
      familyName(
        new Map([
          [1, 'Harbour Black'],
          [16, 'Harbour Text'],
        ]),
        instances,
      ),
    ).toBe('Harbour Text')
  })

  it('come back as they were written, in a file whose sums are right', () => {
    const names = calledNames(
      new Map([
        [0, '© Saltmere'],
        [13, 'Æther 𝔸'],
      ]),
      'Harbour',
      'Bold',
    )
    const written = withNames(file, names)
    expect([...namesOf(written)].sort()).toEqual([...names].sort())
    expect([names.get(1), names.get(2)]).toEqual(['Harbour', 'Bold'])
    // The whole file sums up to one number (OpenType 1.9, head).
    let sum = 0
    const data = new DataView(written.buffer)
    for (let at = 0; at < written.length; at += 4) sum = (sum + data.getUint32(at)) >>> 0
    expect(sum).toBe(0xb1b0afba)
  })
})
