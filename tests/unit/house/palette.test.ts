import { describe, expect, it } from 'vitest'
import { contrast } from '../../../core/colour/contrast'
import { ownPalettes } from '../../../core/house/own-palettes'
import {
  nearestMatches,
  PaletteFileError,
  paletteFromTokens,
  paletteSchema,
  paletteToCss,
  paletteToTokens,
  type Palette,
} from '../../../core/house/palette'

const palette: Palette = {
  colors: [
    { id: 'night', title: 'Night', does: 'text', color: '#1b2430', ink: { process: [90, 70, 40, 60] } },
    { id: 'buoy', title: 'Buoy', does: 'warning', color: '#b4361e' },
    { id: 'sail', title: 'Sail', does: 'ground', color: '#f6f4ee' },
  ],
}

describe('palettes', () => {
  it('go out as tokens and come in again whole, and as CSS', () => {
    expect(paletteFromTokens(paletteToTokens('Saltmere', palette))).toEqual({ name: 'Saltmere', palette })
    expect(paletteToCss('Salt*/mere', palette)).toBe(
      '/* Salt* /mere */\n:root {\n  --night: #1b2430;\n  --buoy: #b4361e;\n  --sail: #f6f4ee;\n}\n',
    )
  })

  it('take every colour of somebody else’s file, with names that can stand', () => {
    const { palette: read, name } = paletteFromTokens(
      JSON.stringify({
        brand: {
          'Deep Blue!': { $value: '#0A1B2C' },
          deeper: { '1': { $value: { colorSpace: 'srgb', components: [1, 0.5, 0] } } },
        },
        'deep-blue': { $value: '#123456' },
        size: { $value: 7 },
      }),
    )
    expect(name).toBe('Palette')
    expect(read.colors.map(each => [each.id, each.color])).toEqual([
      ['deep-blue', '#0a1b2c'],
      ['colour', '#ff8000'],
      ['deep-blue-2', '#123456'],
    ])
    for (const text of ['{', '{}', '{"size":{"$value":3}}', '[]'])
      expect(() => paletteFromTokens(text)).toThrow(PaletteFileError)
  })

  it('find for each colour the nearest of another, duty before hue', () => {
    const other = ownPalettes.find(each => each.name === 'Slate roof')!.palette
    expect(nearestMatches(palette, other).map(({ from, to }) => `${from.id} ${to.does}`)).toEqual([
      'night text',
      'buoy warning',
      'sail ground',
    ])
  })

  it('ship in a dozen, whose text can be read on its ground', () => {
    expect(ownPalettes).toHaveLength(12)
    expect(new Set(ownPalettes.map(each => each.name)).size).toBe(12)
    for (const { palette: own, name } of ownPalettes) {
      expect(paletteSchema.safeParse(own).success, name).toBe(true)
      const of = (does: string) => own.colors.find(each => each.does === does)!.color
      expect(contrast(of('text'), of('ground')), name).toBeGreaterThanOrEqual(10)
      for (const does of ['quiet', 'accent', 'warning'])
        expect(contrast(of(does), of('ground')), `${name} ${does}`).toBeGreaterThanOrEqual(4.5)
    }
  })
})
