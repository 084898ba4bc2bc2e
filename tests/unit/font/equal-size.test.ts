import { readFileSync } from 'node:fs'
import opentype from 'opentype.js'
import { describe, expect, it } from 'vitest'
import { equalSizes, lettersInLine } from '../../../core/font/equal-size'
import { shippedFaces } from '../../../server/library/shipped'
import { inkBox, rasterOf } from '../../support/raster'

const shipped = shippedFaces()
const of = (family: string) => shipped.find(({ face }) => face.family === family && face.style === 'Regular')!

const line = { measure: 283, script: 'Latin' } as const

describe('equal sizes', () => {
  const families = ['Inter', 'EB Garamond', 'Jost', 'Playfair Display', 'Dancing Script', 'Merriweather']
  it('have x-heights that are as high when they are drawn and counted, within one in a hundred', () => {
    const model = of('Spectral')
    const xHeight = (path: string) => {
      const file = readFileSync(path)
      return inkBox(
        rasterOf(opentype.parse(file.buffer.slice(file.byteOffset, file.byteOffset + file.byteLength)), 'x'),
      ).top
    }
    // At a size at which a tenth of a point is far below one in a hundred.
    const size = 100
    const wanted = xHeight(model.path) * size
    for (const { face, byXHeight } of equalSizes(
      model.face,
      size,
      families.map(family => of(family).face),
      { measure: 300, script: 'Latin' },
    ))
      expect(Math.abs((xHeight(of(face.family).path) * byXHeight!) / wanted - 1), face.family).toBeLessThan(0.01)
  })

  it('go by capitals as well, and tell how many letters a line has then', () => {
    const [inter] = equalSizes(of('Spectral').face, 10, [of('Inter').face], line)
    expect(inter!.byCapitals).toBeLessThan(10)
    expect(inter!.lettersInLine).toBe(lettersInLine(of('Inter').face.measures, inter!.byXHeight!, 283))
    expect(equalSizes(of('Inter').face, 10, [of('Inter').face], line)[0]).toMatchObject({
      byXHeight: 10,
      byCapitals: 10,
    })
  })

  it('are not told where there is nothing to compare', () => {
    const none = { ...of('Inter').face, measures: { ...of('Inter').face.measures, xHeight: 0, capHeight: 0 } }
    expect(equalSizes(of('Spectral').face, 10, [none], line)[0]).toMatchObject({
      byXHeight: null,
      byCapitals: null,
      lettersInLine: null,
    })
  })
})
