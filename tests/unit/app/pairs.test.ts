import { beforeEach, describe, expect, it } from 'vitest'
import { usePairs } from '../../../app/stores/pairs'
import { useType } from '../../../app/stores/type'
import { shippedFaces } from '../../../server/library/shipped'
import { appGlobals } from '../../support/app-globals'

beforeEach(async () => {
  appGlobals(async path => (path === '/api/faces' ? shippedFaces().map(each => each.face) : []))
  await useType().load()
})

describe('looking for a second face', () => {
  it('takes what lies nearest to the place that is pointed at, and stays within the plane', () => {
    const pairs = usePairs()
    pairs.give('IBM Plex Serif')
    pairs.go(-3, 7)
    expect(pairs.at).toEqual({ proportions: 0, detail: 1 })
    expect(pairs.chosen).toBe(pairs.ranked[0])
    expect(pairs.pair).toMatchObject({
      body: { family: 'IBM Plex Serif' },
      heading: { family: pairs.chosen!.entry.family },
    })
  })

  it('can be told by name, and the place goes there; another given face lets go of it', () => {
    const pairs = usePairs()
    pairs.give('IBM Plex Serif')
    pairs.pick('IBM Plex Sans')
    expect(pairs.chosen!.entry.family).toBe('IBM Plex Sans')
    expect(pairs.at).toEqual({ proportions: pairs.chosen!.proportions, detail: pairs.chosen!.detail })
    const before = pairs.at
    pairs.pick('Not There')
    expect(pairs.at).toBe(before)
    pairs.give('Lora')
    expect(pairs.chosen).toBe(pairs.ranked[0])
    expect(pairs.entry!.family).toBe('Lora')
  })

  it('for body text takes only what can be read, and turns the pair round', () => {
    const pairs = usePairs()
    pairs.give('Anton')
    pairs.role = 'body'
    expect(pairs.pair!.heading.family).toBe('Anton')
    expect(pairs.all.every(each => each.entry.fitness.some(one => one.use === 'long reading' && one.fit))).toBe(true)
    pairs.script = 'Hebrew'
    expect(pairs.all.map(each => each.entry.family)).toContain('Frank Ruhl Libre')
    expect(pairs.all.every(each => each.entry.scripts.includes('Hebrew'))).toBe(true)
  })

  it('gives sizes on the scale, headings as large as the body’s face would look where that is wanted', () => {
    const pairs = usePairs()
    pairs.give('EB Garamond')
    pairs.pick('Merriweather')
    pairs.body = 10
    pairs.ratio = 1.5
    pairs.equal = false
    expect([pairs.sizeOf('body'), pairs.headingSize('heading')]).toEqual([10, 33.8])
    pairs.equal = true
    // Merriweather has the larger x-height: as large as Garamond would look it is smaller.
    expect(pairs.headingSize('heading')).toBeLessThan(28)
    pairs.ratio = 1
    pairs.equal = false
    expect(pairs.reasons.map(each => each.said)).toContain('heading and body have the same size')
  })
})
