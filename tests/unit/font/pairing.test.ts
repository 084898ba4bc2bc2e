import { describe, expect, it } from 'vitest'
import { catalogueOf, type CatalogueEntry } from '../../../core/font/catalogue'
import { candidates, nearestTo, placeOf, usualPlace, whyNot, type PairNeeds } from '../../../core/pairing/candidates'
import { reasonsFor } from '../../../core/pairing/reasons'
import { equalSize, scaleRatios, typeScale } from '../../../core/pairing/type-scale'
import { shippedLibrary } from '../../../server/library/shipped'

const catalogue = catalogueOf(shippedLibrary().library)
const of = (family: string): CatalogueEntry => catalogue.find(each => each.family === family)!
const body: PairNeeds = { role: 'body', scripts: ['Latin'], uses: [] }
const heading: PairNeeds = { ...body, role: 'heading' }

describe('the plane around a face', () => {
  it('has only faces that can take the role, with the scripts and licences asked for', () => {
    const found = candidates(catalogue, of('Abril Fatface'), body)
    expect(found.length).toBeGreaterThan(20)
    for (const { entry } of found) {
      expect(entry.fitness.find(each => each.use === 'long reading')!.fit).toBe(true)
      expect(entry.scripts).toContain('Latin')
    }
    expect(found.map(each => each.entry.family)).not.toContain('Abril Fatface')
    expect(
      candidates(catalogue, of('Lora'), { ...heading, scripts: ['Hebrew'] }).map(each => each.entry.family),
    ).toEqual(expect.arrayContaining(['Frank Ruhl Libre']))
    expect(whyNot(of('Caveat'), body)).toMatch(/^not fit for long reading: it is a hand/)
    expect(whyNot(of('Lora'), { ...heading, scripts: ['Hebrew'] })).toBe('has no Hebrew')
    expect(whyNot(of('Monoton'), { ...heading, uses: ['app'] })).toMatch(
      /licence does not say that it may be used for app/,
    )
    expect(whyNot(of('Lora'), heading)).toBeNull()
  })

  it('puts what was drawn to go together near in proportions and apart in detail', () => {
    for (const [one, other] of [
      ['IBM Plex Serif', 'IBM Plex Sans'],
      ['Merriweather', 'Merriweather Sans'],
      ['Source Serif 4', 'Source Sans 3'],
    ] as const) {
      const place = placeOf(of(one), of(other))
      expect(place.proportions, one).toBeLessThan(0.3)
      expect(place.detail, one).toBeGreaterThan(0.35)
      expect(place.mistake).toBe(false)
    }
    const [first] = nearestTo(candidates(catalogue, of('IBM Plex Serif'), heading), {
      proportions: 0,
      detail: placeOf(of('IBM Plex Serif'), of('IBM Plex Sans')).detail,
    })
    expect(first!.entry.family).toBe('IBM Plex Sans')
  })

  it('calls two faces of one look a mistake, and has them last', () => {
    const all = candidates(catalogue, of('Liberation Sans'), heading)
    const mistakes = all.filter(each => each.mistake).map(each => each.entry.family)
    expect(mistakes.length).toBeGreaterThan(0)
    const ranked = nearestTo(all, { proportions: 0, detail: 0 })
    expect(ranked.slice(-mistakes.length).every(each => each.mistake)).toBe(true)
    for (const each of all) {
      expect(each.proportions).toBeGreaterThanOrEqual(0)
      expect(each.proportions).toBeLessThanOrEqual(1)
      expect(each.detail).toBeLessThanOrEqual(1)
    }
  })

  it('of two thousand families is there at once', () => {
    const many = Array.from({ length: 2000 }, (_, index) => {
      const entry = catalogue[index % catalogue.length]!
      return { ...entry, family: `${entry.family} ${index}` }
    })
    const start = performance.now()
    expect(nearestTo(candidates(many, of('Lora'), heading), usualPlace).length).toBeGreaterThan(1900)
    expect(performance.now() - start).toBeLessThan(1000)
  })
})

describe('reasons for a pair', () => {
  const said = (one: string, other: string, sizes: Parameters<typeof reasonsFor>[2] = null) =>
    reasonsFor(of(one), of(other), sizes).map(({ kind, said: words }) => `${kind} ${words}`)
  it('have figures', () => {
    expect(said('IBM Plex Sans', 'IBM Plex Serif')).toEqual(
      expect.arrayContaining([
        expect.stringMatching(/^for x-heights \d+ and \d+: they sit on one line$/) as string,
        expect.stringMatching(/^for round letters as wide within \d+ %$/) as string,
        'for sans beside serif',
      ]),
    )
  })
  it('warn of what reads as a mistake, of equal sizes, of a body that cannot be read', () => {
    expect(said('Liberation Sans', 'Liberation Sans')).toEqual([
      'for one family in both roles: weight and size alone tell them apart',
    ])
    const alike = catalogue.find(
      each => each.family !== 'Liberation Sans' && placeOf(of('Liberation Sans'), each).mistake,
    )!
    expect(said('Liberation Sans', alike.family).join()).toMatch(/a reader takes one for the other, badly set/)
    expect(said('Anton', 'Lora', { heading: 10, body: 10 })).toContain('against heading and body have the same size')
    expect(said('Anton', 'Lora', { heading: 11, body: 10 }).join()).toMatch(/less than a step apart/)
    expect(said('Anton', 'Lora', { heading: 20, body: 10 }).join()).not.toMatch(/step apart|same size/)
    expect(said('Lora', 'Anton').join()).toMatch(/against Anton is not fit for long reading/)
    expect(said('Caveat', 'Kalam').join()).toMatch(/two hands beside each other quarrel/)
    expect(said('EB Garamond', 'Merriweather').join()).toMatch(/one looks \d+ % larger, so set them by x-height/)
  })
})

describe('type scales', () => {
  it('grow by one ratio from the body', () => {
    expect(typeScale(10, 1.25)).toEqual([
      { role: 'display', size: 24.4 },
      { role: 'heading', size: 19.5 },
      { role: 'subheading', size: 15.6 },
      { role: 'intro', size: 12.5 },
      { role: 'body', size: 10 },
      { role: 'caption', size: 8 },
    ])
    for (const { ratio } of scaleRatios) {
      const sizes = typeScale(9.5, ratio).map(each => each.size)
      expect([...sizes].sort((a, b) => b - a)).toEqual(sizes)
    }
  })
  it('give a second face the size at which it looks as large', () => {
    expect(equalSize(10, 500, 400)).toBe(12.5)
    expect(equalSize(10, 0, 400)).toBe(10)
  })
})
