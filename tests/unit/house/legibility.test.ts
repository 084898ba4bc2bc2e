import { describe, expect, it } from 'vitest'
import { fluent, legibility, usualRoom } from '../../../core/house/legibility'

describe('how large text looks from where it is read', () => {
  it('is the angle of its x-height: by hand, at 40 cm', () => {
    // An x-height of 5 points is 1.7639 mm: at 400 mm 0.25266 degrees.
    const { degrees, enough, from } = legibility(10, 500, 'text')
    expect(degrees).toBeCloseTo((Math.atan(1.76389 / 2 / 400) * 2 * 180) / Math.PI, 4)
    expect(degrees).toBeCloseTo(0.25266, 4)
    expect([enough, from]).toEqual([true, 'at 40 cm'])
    expect(legibility(8, 500, 'sheet').enough).toBe(false)
  })

  it('on a slide hangs on the room, and says what would do', () => {
    const small = legibility(13, 480, 'deck', { screenHeight: 1.6, lastRow: 9 })
    // 6.24 of 446.5 points of a screen 1.6 m high: 22.36 mm, 9 m away.
    expect(small.degrees).toBeCloseTo((Math.atan(0.022361 / 9) * 180) / Math.PI, 3)
    expect(small.enough).toBe(false)
    const enough = legibility(small.would, 480, 'deck', { screenHeight: 1.6, lastRow: 9 })
    expect(enough.degrees).toBeGreaterThanOrEqual(fluent)
    expect(legibility(small.would - 0.5, 480, 'deck', { screenHeight: 1.6, lastRow: 9 }).enough).toBe(false)
    expect(legibility(13, 480, 'deck').from).toContain(`${usualRoom.lastRow} m`)
    expect(legibility(13, 480, 'deck', usualRoom, 893).degrees).toBeCloseTo(legibility(13, 480, 'deck').degrees / 2, 4)
  })
})
