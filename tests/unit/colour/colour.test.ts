import { describe, expect, it } from 'vitest'
import { contrast } from '../../../core/colour/contrast'
import { harmonicsOf, harmonies, tintsAndShades } from '../../../core/colour/harmony'
import { distanceOf, lchOf, shownAt } from '../../../core/colour/oklch'
import { lightnessReaching, planeFor } from '../../../core/colour/reach'
import { confusedBy, seenWith } from '../../../core/colour/vision'

/** OKLab by hand from the published matrices (Ottosson 2020; CSS Color 4, 18), sharing nothing with the core. */
function oklabOf(color: string): [number, number, number] {
  const [r, g, b] = [1, 3, 5].map(at => {
    const value = Number.parseInt(color.slice(at, at + 2), 16) / 255
    return value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4
  }) as [number, number, number]
  const l = Math.cbrt(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b)
  const m = Math.cbrt(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b)
  const s = Math.cbrt(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b)
  return [
    0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s,
    1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s,
    0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s,
  ]
}

describe('colours in OKLCH', () => {
  it('are what the published matrices make of them', () => {
    for (const color of ['#1b2430', '#1f6f6b', '#b4361e', '#c9b98f', '#f6f4ee', '#ff0000', '#00ff00', '#0000ff']) {
      const [l, a, b] = oklabOf(color)
      const { lightness, chroma, hue } = lchOf(color)!
      expect(lightness).toBeCloseTo(l, 3)
      expect(chroma).toBeCloseTo(Math.hypot(a, b), 3)
      expect(Math.cos((hue * Math.PI) / 180)).toBeCloseTo(a / Math.hypot(a, b), 2)
      expect(shownAt({ lightness, chroma, hue })).toEqual({ color, inGamut: true })
    }
    expect(lchOf('#777777')).toMatchObject({ hue: 0 })
    expect(lchOf('no colour')).toBeNull()
  })

  it('come into sRGB by losing chroma, lightness and hue kept as far as can be seen', () => {
    const wide = { lightness: 0.6, chroma: 0.35, hue: 150 }
    const { color, inGamut } = shownAt(wide)
    const now = lchOf(color)!
    expect(inGamut).toBe(false)
    expect(now.chroma).toBeLessThan(0.3)
    expect(Math.abs(now.lightness - 0.6)).toBeLessThan(0.03)
    expect(Math.abs(now.hue - 150)).toBeLessThan(6)
    expect(distanceOf('#000000', '#ffffff')).toBeCloseTo(1, 2)
  })
})

describe('harmonies', () => {
  it('turn the hue, at one lightness and chroma', () => {
    const own = lchOf('#8a6a3c')!
    const found = harmonicsOf('#8a6a3c')
    expect(found).toHaveLength(harmonies.reduce((sum, each) => sum + each.turns.length, 0))
    for (const { harmony, hue, color } of found) {
      const turn = (hue - own.hue + 720) % 360
      const turns = harmonies.find(each => each.id === harmony)!.turns.map(each => (each + 360) % 360)
      expect(turns.some(each => Math.abs(each - turn) < 0.01)).toBe(true)
      expect(Math.abs(lchOf(color)!.lightness - own.lightness)).toBeLessThan(0.02)
    }
    expect(harmonicsOf('#808080')).toEqual([])
  })

  it('have tints and shades, from light to dark', () => {
    const steps = tintsAndShades('#1f6f6b').map(each => lchOf(each)!.lightness)
    expect(steps).toEqual([...steps].sort((a, b) => b - a))
    expect(steps[0]).toBeGreaterThan(0.94)
    expect(steps.at(-1)).toBeLessThan(0.2)
    expect(tintsAndShades('none')).toEqual([])
  })
})

describe('where a colour may lie', () => {
  it('is at the lightness that just reaches the contrast', () => {
    for (const [ground, side] of [
      ['#ffffff', 'darker'],
      ['#f6f4ee', 'darker'],
      ['#1b2430', 'lighter'],
    ] as const)
      for (const hue of [0, 75, 150, 225, 300]) {
        const found = lightnessReaching({ hue, chroma: 0.1 }, ground, 4.5, side)!
        expect(found.ratio).toBeGreaterThanOrEqual(4.5)
        expect(found.ratio).toBeLessThan(4.75)
        expect(contrast(found.color, ground)).toBe(found.ratio)
      }
    expect(lightnessReaching({ hue: 0, chroma: 0.1 }, '#777777', 7, 'lighter')).toBeNull()
  })

  it('is a plane of hues and chromas, grey at its foot', () => {
    const plane = planeFor('#ffffff', 4.5, 'darker', 12, 4)
    expect([plane.length, plane[0]!.length]).toEqual([4, 12])
    expect(plane.at(-1)!.every(place => lchOf(place.reached!.color)!.chroma < 0.005)).toBe(true)
    expect(plane[0]!.some(place => place.reached && !place.reached.inGamut)).toBe(true)
  })
})

describe('colour vision', () => {
  it('is simulated by the published matrices at severity 1', () => {
    // Machado et al. 2009, table of severity 1.0, applied to linear light by hand for pure red.
    const linear = {
      protan: [0.152286, 0.114503, -0.003882],
      deutan: [0.367322, 0.280085, -0.01182],
      tritan: [1.255528, -0.078411, 0.004733],
    }
    const encoded = (value: number) => {
      const own = Math.min(Math.max(value, 0), 1)
      return Math.round(255 * (own <= 0.0031308 ? 12.92 * own : 1.055 * own ** (1 / 2.4) - 0.055))
    }
    for (const vision of ['protan', 'deutan', 'tritan'] as const) {
      const seen = [1, 3, 5].map(at => Number.parseInt(seenWith('#ff0000', vision).slice(at, at + 2), 16))
      const direct = linear[vision].map(value => Math.round(255 * Math.min(Math.max(value, 0), 1)))
      const light = linear[vision].map(encoded)
      // The model is published for linear light; libraries also apply it to encoded values. One of both it is.
      expect([direct, light].some(each => each.every((value, at) => Math.abs(value - seen[at]!) <= 2))).toBe(true)
    }
    expect(seenWith('#808080', 'deutan')).toBe('#808080')
  })

  it('tells which colours of a palette are confused', () => {
    expect(confusedBy(['#b4361e', '#6a5a1e', '#1b2430'], 'deutan')).toEqual([['#b4361e', '#6a5a1e']])
    expect(confusedBy(['#b4361e', '#6a5a1e'], 'protan')).toEqual([])
    expect(confusedBy(['#000000', '#ffffff'], 'tritan')).toEqual([])
  })
})

describe('contrast', () => {
  it('of ten pairs is as the standard has it', () => {
    for (const [one, other, ratio] of [
      ['#000000', '#ffffff', 21],
      ['#ffffff', '#ffffff', 1],
      ['#777777', '#ffffff', 4.48],
      ['#767676', '#ffffff', 4.54],
      ['#595959', '#ffffff', 7],
      ['#ff0000', '#ffffff', 4],
      ['#0000ff', '#ffffff', 8.59],
      ['#008000', '#ffffff', 5.14],
      ['#ffff00', '#000000', 19.56],
      ['#949494', '#ffffff', 3.03],
    ] as const)
      expect(contrast(one, other)).toBeCloseTo(ratio, 1)
  })
})
