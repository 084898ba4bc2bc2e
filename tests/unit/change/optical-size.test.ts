import { describe, expect, it } from 'vitest'
import {
  comparedIn,
  faceLeading,
  limited,
  roundedSize,
  sizeFactor,
  sizeWishSchema,
  type SizeWish,
} from '../../../core/change/swap/optical-size'
import type { FaceMeasures, FaceRecord } from '../../../core/font/face'
import { library } from '../../support/fixtures'

const like = library.named('Spectral', 'Regular')!
const made = (measures: Partial<FaceMeasures>): FaceRecord => ({
  ...like,
  measures: {
    ...like.measures,
    xHeight: 500,
    capHeight: 700,
    averageWidth: 450,
    measuredOn: 'Latin',
    scripts: {},
    ...measures,
  },
})
const wish = (more: object): SizeWish => sizeWishSchema.parse({ mode: 'x-height', ...more })
const greek = { ...like.measures, xHeight: 400, capHeight: 700, averageWidth: 400 }

describe('the size that is as large to the eye', () => {
  it.each<[SizeWish['mode'], number]>([
    ['x-height', 500 / 400],
    ['cap-height', 700 / 800],
    ['width', 450 / 500],
    // Lines are searched for from equal width on.
    ['lines', 450 / 500],
    ['keep', 1],
  ])('by %s', (mode, factor) => {
    expect(
      sizeFactor(wish({ mode }), made({}), made({ xHeight: 400, capHeight: 800, averageWidth: 500 }), null),
    ).toBeCloseTo(factor, 9)
  })

  it('in percent is what is asked for, and all of it where nothing is', () => {
    const by = (more: object) => sizeFactor(wish({ mode: 'percent', ...more }), made({}), made({ xHeight: 100 }), null)
    expect([by({ percent: 110 }), by({ percent: 90 }), by({})]).toEqual([1.1, 0.9, 1])
    expect([by({ percent: 30 }), by({ percent: 300 })]).toEqual([0.75, 1.25])
    expect([by({ percent: 30, least: 25 }), by({ percent: 300, most: 400 })]).toEqual([0.3, 3])
  })

  it('stays within its limits', () => {
    expect(sizeFactor(wish({}), made({}), made({ xHeight: 100 }), null)).toBe(1.25)
    expect(sizeFactor(wish({}), made({}), made({ xHeight: 900 }), null)).toBe(0.75)
    expect([limited(wish({}), 0.5), limited(wish({}), 1.1), limited(wish({}), 2)]).toEqual([0.75, 1.1, 1.25])
  })

  it('is as it was where a face has no such measure', () => {
    expect(sizeFactor(wish({}), made({ xHeight: 0 }), made({}), null)).toBe(1)
    expect(sizeFactor(wish({}), made({}), made({ xHeight: 0 }), null)).toBe(1)
    expect(sizeFactor(wish({}), made({ measuredOn: 'Greek' }), made({}), null)).toBe(1)
  })

  it('is compared in the script of the text where both have it, else in the one that both were measured on', () => {
    const both = made({ scripts: { Greek: greek } })
    expect(comparedIn(both, both, 'Greek')).toBe('Greek')
    expect(comparedIn(both, made({}), 'Greek')).toBe('Latin')
    expect(comparedIn(made({}), both, 'Greek')).toBe('Latin')
    expect(comparedIn(both, both, null)).toBe('Latin')
    expect(comparedIn(made({ measuredOn: 'Greek' }), made({}), 'Latin')).toBeNull()
    expect(comparedIn(made({ measuredOn: null }), made({ measuredOn: null }), 'Latin')).toBeNull()
    expect(sizeFactor(wish({}), made({ scripts: { Greek: { ...greek, xHeight: 480 } } }), both, 'Greek')).toBeCloseTo(
      480 / 400,
      9,
    )
  })
})

describe('sizes and leading in points', () => {
  it.each([
    [10.04, 0.1, 10],
    [10.05, 0.1, 10.1],
    [10.06, 0.1, 10.1],
    [9.9, 0.5, 10],
    [9.7, 0.5, 9.5],
    [10.333, 0.01, 10.33],
    [0.02, 0.1, 0.1],
    [0, 0.5, 0.5],
  ])('%d in steps of %d is %d', (points, step, rounded) => {
    expect(roundedSize(points, step)).toBe(rounded)
  })

  it('is ascent and descent, and the gap where that is asked for', () => {
    const lines = { above: 900, below: 250, gap: 100 }
    expect(faceLeading(lines, 10, false)).toBeCloseTo(11.5, 9)
    expect(faceLeading(lines, 20, true)).toBeCloseTo(25, 9)
  })
})
