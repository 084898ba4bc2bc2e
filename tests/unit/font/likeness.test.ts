import { describe, expect, it } from 'vitest'
import type { FaceMeasures } from '../../../core/font/face'
import { inDetail, inProportions, type Likeness } from '../../../core/font/likeness'
import { library } from '../../support/fixtures'

const base: FaceMeasures = {
  ...library.named('Inter', 'Regular')!.measures,
  xHeight: 500,
  capHeight: 700,
  ascender: 750,
  descender: 200,
  widthO: 520,
  acrossN: 450,
  acrossH: 560,
  roundness: 0.79,
  aperture: 0.3,
  storeysA: 2,
  storeysG: 1,
  stem: 80,
  contrast: 1.1,
  foot: 1,
  footBothSides: 0,
  serif: null,
  stress: null,
  slant: 0,
  joined: 0,
  roughness: 1,
  grey: 0.2,
}
const steps = ({ parts }: Likeness) =>
  Object.fromEntries(
    parts.filter(part => part.steps > 1e-9).map(part => [part.name, Math.round(part.steps * 1000) / 1000]),
  )
const with_ = (changes: Partial<FaceMeasures>): FaceMeasures => ({ ...base, ...changes })

describe('how far faces are apart in their skeletons', () => {
  it.each<[Partial<FaceMeasures>, Record<string, number>]>([
    [{}, {}],
    [{ ascender: 750 + 0.035 * 700 }, { 'ascender to capitals': 1 }],
    [{ descender: 248 }, { descender: 2 }],
    [{ widthO: 520 + 35 }, { 'width of o': 1 }],
    [{ acrossN: 450 - 70 }, { 'width of n': 2 }],
    [{ acrossH: 560 + 63 }, { 'width of H': 1 }],
    [{ roundness: 0.815 }, { roundness: 1 }],
    [{ aperture: 0.18 }, { aperture: 1 }],
    [{ storeysA: 1 }, { 'storeys of a': 1 }],
    [{ storeysG: 2 }, { 'storeys of g': 0.5 }],
    [
      { capHeight: 716 },
      {
        'cap height': 1,
        'x-height to capitals': Math.round(((500 / 700 - 500 / 716) / 0.025) * 1000) / 1000,
        'ascender to capitals': Math.round(((750 / 700 - 750 / 716) / 0.035) * 1000) / 1000,
        'width of H': Math.round(((560 / 700 - 560 / 716) / 0.09) * 1000) / 1000,
      },
    ],
  ])('%j: %j', (changes, expected) => {
    expect(steps(inProportions(base, with_(changes)))).toEqual(expected)
    expect(steps(inProportions(with_(changes), base))).toEqual(expected)
  })

  it('is the root of the mean square, of which no part is more than five', () => {
    expect(inProportions(base, base).distance).toBe(0)
    const one = inProportions(base, with_({ descender: 248 }))
    expect(one.parts).toHaveLength(12)
    expect(one.distance).toBeCloseTo(Math.sqrt(4 / 12), 3)
    const far = inProportions(base, with_({ descender: 200 + 24 * 9 }))
    expect(far.distance).toBeCloseTo(Math.sqrt(25 / 12), 3)
    expect(steps(far)).toEqual({ descender: 9 })
  })

  it('leaves out what one of them lacks, and is far where nothing can be compared', () => {
    const lacking = { xHeight: 0, capHeight: 0, ascender: 0, descender: 0, widthO: null, acrossN: null, acrossH: null }
    const names = (changes: Partial<FaceMeasures>) => inProportions(base, with_(changes)).parts.map(part => part.name)
    expect(names(lacking)).toEqual(['roundness', 'aperture', 'storeys of a', 'storeys of g'])
    expect(names({ xHeight: 0 })).not.toContain('width of o')
    expect(names({ xHeight: 0 })).not.toContain('x-height to capitals')
    expect(names({ capHeight: 0 })).not.toContain('width of H')
    expect(names({ ascender: 0 })).not.toContain('ascender to capitals')
    const none = with_({ ...lacking, roundness: null, aperture: null, storeysA: null, storeysG: null })
    expect(inProportions(base, none)).toEqual({ distance: 5, parts: [] })
  })
})

describe('how far faces are apart in what the skeleton is dressed in', () => {
  it.each<[Partial<FaceMeasures>, Record<string, number>]>([
    [{}, {}],
    [{ stem: 95 }, { weight: 1 }],
    [{ contrast: 2.2 }, { contrast: Math.round((1 / 0.22) * 1000) / 1000 }],
    [{ foot: 1.45 }, { serifs: 1 }],
    // Feet narrower than the stems are as wide as those; beyond three they are as wide as three.
    [{ foot: 0.7 }, {}],
    [{ foot: 4 }, { serifs: Math.round((2 / 0.45) * 1000) / 1000 }],
    [{ serif: 16 }, { 'serif height': 1 }],
    [{ stress: -6 }, { stress: 1 }],
    [{ slant: 10 }, { slant: 2 }],
    [{ joined: 0.3 }, { joining: 1 }],
    [{ roughness: 2.5 }, { roughness: 1 }],
    [{ grey: 0.23 }, { grey: 1 }],
    [{ stem: 0, grey: null, joined: null, contrast: null, roughness: null }, {}],
  ])('%j: %j', (changes, expected) => {
    expect(steps(inDetail(base, with_(changes)))).toEqual(expected)
  })

  it('is a step more where they are of two classes', () => {
    const slab = with_({ foot: 2, footBothSides: 0.5, serif: 60, contrast: 1.2, stress: 0 })
    expect(inDetail(slab, slab).distance).toBe(0)
    const apart = inDetail(base, slab)
    const mean = Math.sqrt(
      apart.parts.reduce((sum, part) => sum + Math.min(part.steps, 5) ** 2, 0) / apart.parts.length,
    )
    expect(apart.distance).toBeCloseTo(mean + 1, 3)
    // A heavier face of the same class is none.
    expect(inDetail(base, with_({ stem: 95 })).distance).toBeCloseTo(Math.sqrt(1 / 9), 3)
  })
})
