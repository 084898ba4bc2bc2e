import { describe, expect, it } from 'vitest'
import { classify } from '../../../core/font/classify'
import type { FaceMeasures } from '../../../core/font/face'
import { fitnessOf, type FitnessUse } from '../../../core/font/fitness'
import { smallestSize, type ReadingUse } from '../../../core/font/smallest-size'
import { library } from '../../support/fixtures'

/** The measures of a plain face, with some of them changed. */
const plain: FaceMeasures = {
  ...library.named('Inter', 'Regular')!.measures,
  stem: 80,
  hairline: 70,
  contrast: 1.14,
  stress: null,
  foot: 1,
  footBothSides: 0,
  serif: null,
  bracket: null,
  aperture: 0.25,
  eye: 150,
  storeysA: 2,
  storeysG: 1,
  roundness: 0.79,
  widthM: 800,
  widthN: 500,
  widthO: 520,
  xHeight: 520,
  widthSpread: 0.3,
  slant: 0,
  waver: 0.01,
  jitter: 0,
  joined: 0,
  roughness: 1,
  extraContours: 0,
  smallCapitals: 0,
}
const of = (changes: Partial<FaceMeasures>): FaceMeasures => ({ ...plain, ...changes })
const serif = { foot: 2, footBothSides: 0.5, serif: 20, stem: 80, contrast: 2.5, stress: 4, hairline: 32 }
const slab = { ...serif, serif: 60, contrast: 1.2, stress: 0 }
const script = { joined: 0.9, waver: 0.12, slant: 14, jitter: 11, foot: 0.8 }
const said = (changes: Partial<FaceMeasures>) => {
  const { class: typeClass, kind } = classify(of(changes))
  return `${typeClass}, ${kind}`
}

describe('what a face is', () => {
  it.each<[string, Partial<FaceMeasures>, string]>([
    ['even and without feet', {}, 'sans, grotesque'],
    ['open', { aperture: 0.34 }, 'sans, humanist'],
    ['as open as a closed one is', { aperture: 0.33 }, 'sans, grotesque'],
    ['modulated', { contrast: 1.41 }, 'sans, humanist'],
    ['hardly modulated', { contrast: 1.4 }, 'sans, grotesque'],
    ['of unknown contrast and openness', { contrast: null, aperture: null }, 'sans, grotesque'],
    ['drawn with compasses', { widthO: 600, contrast: 1.29 }, 'sans, geometric'],
    ['round, but not by compasses', { widthO: 600, contrast: 1.29, roundness: 0.82 }, 'sans, grotesque'],
    ['of a round o that is narrow for compasses', { widthO: 590, contrast: 1.29 }, 'sans, grotesque'],
    ['the same with an a of one storey', { widthO: 590, contrast: 1.29, storeysA: 1 }, 'sans, geometric'],
    ['narrower still', { widthO: 560, contrast: 1.29, storeysA: 1 }, 'sans, grotesque'],
    ['more modulated, with an a of one storey', { widthO: 600, contrast: 1.38, storeysA: 1 }, 'sans, geometric'],
    ['as modulated, with one of two', { widthO: 600, contrast: 1.38 }, 'sans, grotesque'],
    ['without an n to hold its o against', { widthO: 600, widthN: null }, 'sans, grotesque'],
    ['with feet', serif, 'serif, transitional'],
    ['of high contrast and upright stress', { ...serif, contrast: 3.2, stress: 4.9 }, 'serif, modern'],
    ['of a little less contrast', { ...serif, contrast: 3.19 }, 'serif, transitional'],
    ['of high contrast and leaning stress', { ...serif, contrast: 3.2, stress: 5 }, 'serif, transitional'],
    ['of stress that leans back', { ...serif, contrast: 3.2, stress: -5.2 }, 'serif, transitional'],
    ['of leaning stress', { ...serif, stress: 5.5 }, 'serif, old-style'],
    ['of low contrast', { ...serif, contrast: 1.74 }, 'serif, old-style'],
    ['of thick feet', slab, 'slab, unbracketed'],
    ['of thick feet that are led into the stems', { ...slab, bracket: 0.21 }, 'slab, bracketed'],
    ['of thick feet, hardly led', { ...slab, bracket: 0.2 }, 'slab, unbracketed'],
    ['of thick feet and a leaning stress', { ...slab, stress: 15 }, 'serif, old-style'],
    ['of thick feet and high contrast', { ...slab, contrast: 2.2 }, 'serif, transitional'],
    ['of one width', { widthSpread: 0.009 }, 'monospaced, without serifs'],
    ['of one width, with feet', { ...serif, widthSpread: 0.009 }, 'monospaced, with serifs'],
    ['of almost one width', { widthSpread: 0.01 }, 'sans, grotesque'],
    ['joined', script, 'script, joined'],
    ['wavering, and thick to thin', { ...script, joined: 0.6, stem: 86, contrast: 1.26, waver: 0.2 }, 'script, brush'],
    ['wavering, and thin', { ...script, joined: 0.6, stem: 85, contrast: 1.26, waver: 0.2 }, 'script, hand'],
    ['wavering, and even', { ...script, joined: 0.6, stem: 86, contrast: 1.25, waver: 0.2 }, 'script, hand'],
    ['rough', { roughness: 7 }, 'display, rough'],
    ['of letters in parts', { extraContours: 1.2 }, 'display, cut or lined'],
    ['fat', { stem: 200, roughness: 3, extraContours: 0.4 }, 'display, fat'],
    ['drawn as capitals', { smallCapitals: 1 }, 'display, capitals'],
  ])('%s', (_, changes, kind) => {
    expect(said(changes)).toBe(kind)
  })

  it('says by which figures', () => {
    expect(classify(of(serif)).reasons).toEqual([
      'feet 2.0 times as wide as the stems',
      'thick to thin 2.5',
      'stress 4°',
    ])
    expect(classify(of(slab)).reasons[1]).toBe('serifs 75 % as high as the stems are wide')
    expect(classify(of({})).reasons).toEqual(['feet as wide as the stems', 'thick to thin 1.1'])
    expect(classify(of({ contrast: null })).reasons).toEqual(['feet as wide as the stems'])
    expect(classify(of(script)).reasons).toEqual([
      '90 % of the letters reach the next',
      'stems lean 14°',
      'edges of stems stray by 12 % of their width',
      'letters stand unevenly by 11',
    ])
    const edge = { ...script, joined: 0.5, waver: 0.2, jitter: 3 }
    expect(classify(of(edge))).toMatchObject({
      class: 'script',
      reasons: ['stems lean 14°', 'edges of stems stray by 20 % of their width'],
    })
    expect(classify(of({ ...script, joined: null, waver: 0.4, jitter: 3 })).reasons).toEqual([
      'stems lean 14°',
      'edges of stems stray by 40 % of their width',
    ])
    expect(classify(of({ stem: 200, roughness: 7, extraContours: 0.5, smallCapitals: 0.7 })).reasons).toEqual([
      'letters of more parts than their form asks for',
      'outlines rough by 7.0',
      'stems 200 wide',
      'lower case drawn as capitals',
    ])
    expect(classify(of({ stem: 150, roughness: 2.5, extraContours: 1.2, smallCapitals: 0.6 })).reasons).toEqual([
      'letters of more parts than their form asks for',
    ])
  })

  it('is the surer, the further the next class is', () => {
    expect(classify(of({})).margin).toBe(1)
    expect(classify(of(serif)).margin).toBe(1)
    // Half-way from thin feet to thick ones: a draw, but for the contrast.
    const between = classify(of({ ...slab, serif: 80 * 0.51 }))
    expect(between.margin).toBeLessThan(0.1)
    expect(classify(of({ foot: 1.5, footBothSides: 0.2 })).margin).toBeLessThan(0.2)
  })
})

describe('what a face is fit for', () => {
  const fit = (use: FitnessUse, changes: Partial<FaceMeasures>) => {
    const measures = of(changes)
    return fitnessOf(measures, classify(measures)).find(each => each.use === use)!
  }

  it.each<[FitnessUse, keyof FaceMeasures, number, number, Partial<FaceMeasures>]>([
    ['long reading', 'xHeight', 390, 580, { widthO: 450 }],
    ['long reading', 'stem', 55, 118, {}],
    ['long reading', 'contrast', 1, 3.4, {}],
    ['long reading', 'widthO', 390, 624, {}],
    ['long reading', 'hairline', 24, 110, {}],
    ['small print', 'xHeight', 470, 600, {}],
    ['small print', 'hairline', 40, 110, {}],
    ['small print', 'eye', 118, 400, {}],
    ['small print', 'widthO', 364, 676, {}],
    ['signs and slides', 'xHeight', 460, 620, {}],
    ['signs and slides', 'stem', 68, 150, {}],
    ['signs and slides', 'contrast', 1, 1.75, {}],
  ])('%s: %s from %d to %d, and not beyond', (use, measure, least, most, changes) => {
    const step = measure === 'contrast' ? 0.01 : 1
    for (const value of [least, most])
      expect([value, fit(use, { ...changes, [measure]: value }).fit]).toEqual([value, true])
    for (const value of [least - step, most + step])
      expect([value, fit(use, { ...changes, [measure]: value }).fit]).toEqual([value, false])
  })

  it.each<[FitnessUse, number]>([
    ['small print', 0.19],
    ['signs and slides', 0.18],
  ])('%s: open by %d of the x-height', (use, least) => {
    expect(fit(use, { aperture: least }).fit).toBe(true)
    expect(fit(use, { aperture: least - 0.01 }).fit).toBe(false)
  })

  it.each<[FitnessUse, Partial<FaceMeasures>, boolean, string]>([
    ['long reading', { slant: 5 }, false, 'it leans 5°'],
    ['long reading', { slant: -4.9 }, true, 'sans, it leans -5°, x-height 520'],
    ['long reading', { widthSpread: 0 }, false, 'monospaced'],
    ['long reading', { widthO: null }, true, 'sans, it leans 0°, x-height 520'],
    ['long reading', { stem: 50, hairline: 20 }, false, 'stem 50, fineness of the thin strokes 20'],
    ['small print', { widthSpread: 0 }, true, 'monospaced, x-height 520, hairline 70'],
    ['small print', { eye: null, aperture: 0.1 }, false, 'aperture 0.1'],
    ['signs and slides', serif, false, 'serif, thick to thin 2.5'],
    ['signs and slides', slab, true, 'slab, thick to thin 1.2, x-height 520'],
    ['display', {}, false, 'its weight, widths and contrast are those of text'],
    ['display', script, true, 'it is a hand'],
    ['display', { roughness: 7 }, true, 'it is made for display'],
    ['display', { ...serif, contrast: 3.2 }, false, 'its weight, widths and contrast are those of text'],
    ['display', { ...serif, contrast: 3.21 }, true, 'thick to thin 3.21'],
    ['display', { stem: 118 }, false, 'its weight, widths and contrast are those of text'],
    ['display', { stem: 119 }, true, 'stems 119 wide'],
    ['display', { stem: 44, widthO: 363 }, true, 'stems only 44 wide, o is only 363 wide'],
    ['display', { stem: 45, widthO: 364 }, false, 'its weight, widths and contrast are those of text'],
    ['display', { stem: 0 }, false, 'its weight, widths and contrast are those of text'],
    ['formal', serif, true, 'a transitional serif, roughness 1, stem 80'],
    ['formal', { ...serif, roughness: 1.51 }, false, 'roughness 1.51'],
    ['formal', { ...serif, stem: 131 }, false, 'stem 131'],
    ['formal', {}, false, 'sans'],
    ['formal', { ...script, contrast: 2.21, jitter: 2.9 }, true, 'it is a hand, roughness 1, stem 80'],
    ['formal', { ...script, contrast: 2.2, jitter: 2.9 }, false, 'it is a hand'],
    ['formal', { ...script, contrast: 2.21, jitter: 3 }, false, 'it is a hand'],
    ['informal', {}, false, 'drawn evenly, and not by a hand'],
    ['informal', script, true, 'it is a hand, letters stand unevenly by 11'],
    ['informal', { ...script, contrast: 2.21, jitter: 2.9 }, false, 'drawn evenly, and not by a hand'],
    ['informal', { ...script, contrast: 2.21, jitter: 3 }, true, 'it is a hand'],
    ['informal', { roughness: 2.51 }, true, 'roughness 2.51'],
    ['informal', { roughness: 2.5, jitter: 5 }, false, 'drawn evenly, and not by a hand'],
    ['informal', { roughness: null, jitter: 5.1 }, true, 'letters stand unevenly by 5'],
  ])('%s, %#', (use, changes, fits, reason) => {
    expect(fit(use, changes)).toEqual({ use, fit: fits, reason })
  })
})

describe('the smallest useful size', () => {
  const size = (changes: Partial<FaceMeasures>, use: ReadingUse, typeClass: 'sans' | 'script' = 'sans') =>
    smallestSize(of(changes), { class: typeClass }, use)
  // 0.22 degrees at 40 cm are 1.536 mm, which are 4.354 points; half points are told, rounded up.
  const bare = { xHeight: 500, hairline: 0, eye: null }

  it.each([
    ['print', 9, 'its x-height of 500 spans 0.22° at 40 cm'],
    ['screen', 13.5, 'its x-height of 500 spans 0.22° at 60 cm'],
    ['poster', 44, 'its x-height of 500 spans 0.22° at 2 m'],
    ['slide', 25, 'its x-height of 500 spans 0.22° from 6 picture heights away'],
  ] as const)('in %s goes by the x-height: %d pt', (use, points, reason) => {
    expect(size(bare, use)).toEqual({ use, size: points, because: 'x-height', reason })
  })

  it('is half as much again for a hand', () => {
    expect(size(bare, 'print', 'script')).toEqual({
      use: 'print',
      size: 13.5,
      because: 'handwriting',
      reason: 'its x-height of 500 at 40 cm, and half as much again for a hand',
    })
  })

  it.each([
    ['print', 17.5, 25],
    ['screen', 20, 30],
    ['poster', 44, 44],
    ['slide', 30, 50],
  ] as const)('in %s goes by what breaks or fills: %d and %d pt', (use, byHairline, byEye) => {
    const thin = size({ ...bare, hairline: 20 }, use)!
    const small = size({ ...bare, eye: 30 }, use)!
    expect([thin.size, small.size]).toEqual([byHairline, byEye])
    if (use === 'poster') return
    expect([thin.because, small.because]).toEqual(['hairline', 'counter'])
    expect(thin.reason).toMatch(/^its hairlines of 20 keep 0\.\d+ pt$/)
    expect(small.reason).toMatch(/^the eye of e, 30 high, stays open by [\d.]+ pt$/)
  })

  it('goes by nothing that the face lacks', () => {
    expect(size({ ...bare, xHeight: 0 }, 'print')).toBeNull()
    expect(size({ ...bare, xHeight: -1 }, 'print')).toBeNull()
    expect(size({ ...bare, eye: 0 }, 'print')!.because).toBe('x-height')
  })
})
