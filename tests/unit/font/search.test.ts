import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { catalogueOf } from '../../../core/font/catalogue'
import { looks } from '../../../core/font/search/looks'
import { search, withoutPart } from '../../../core/font/search/search'
import { shippedLibrary } from '../../../server/library/shipped'

const catalogue = catalogueOf(shippedLibrary().library)
const names = (typed: string) => search(catalogue, typed).found.map(each => each.family)
const said = (typed: string) => search(catalogue, typed).parts.map(each => each.said)

describe('search for faces', () => {
  it('finds by look words what was expected among the first ten, in four of five searches written down before', () => {
    const cases = JSON.parse(
      readFileSync(new URL('../../type/searches.json', import.meta.url), 'utf8'),
    ) as readonly (readonly [string, readonly string[]])[]
    const asked = cases.filter(([, expected]) => expected.length > 0)
    const met = asked.filter(([typed, expected]) => {
      const first = names(typed).slice(0, 10)
      return expected.every(family => first.includes(family))
    })
    expect(asked.length).toBeGreaterThanOrEqual(50)
    expect(met.length / asked.length).toBeGreaterThanOrEqual(0.8)
  })

  it('takes each look for as many families, and as surely, as before', async () => {
    const rows = looks.flatMap(({ said: called, degree }) => {
      const found = catalogue
        .map(entry => ({ family: entry.family, degree: degree(entry) }))
        .filter(each => each.degree > 0)
        .sort((one, other) => other.degree - one.degree || one.family.localeCompare(other.family, 'en'))
      const first = found.slice(0, 12).map(each => `${each.family} ${each.degree.toFixed(2)}`)
      return `${called}: ${found.length}; ${first.join(', ')}`
    })
    await expect(`${rows.join('\n')}\n`).toMatchFileSnapshot('../../type/told-looks.txt')
  })

  it('takes no part of a word for a look, and no number that is stuck to its measure', () => {
    for (const typed of ['xrough', 'x-height520'])
      expect(search(catalogue, typed).parts.map(each => each.kind)).not.toContain('look')
    expect(said('x-height520')).not.toEqual(said('x-height 520'))
    expect(said('x-height>520')).toEqual(said('x-height > 520'))
    expect(said('not rough')).not.toEqual(said('rough'))
  })

  it('says how each part was understood', () => {
    expect(said('humanist sans x-height over 520')).toEqual(['humanist', 'sans', 'x-height 520 or more'])
    expect(said('two-storey a, old-style figures, Cyrillic')).toEqual([
      'a of two storeys',
      'old-style figures',
      'Cyrillic',
    ])
    expect(said('a sans, condensed, a bit rough')).toEqual(['sans', 'narrow', 'a bit rough'])
    expect(said('not condensed')).toEqual(['not narrow'])
    expect(said('x-height 500-540')).toEqual(['x-height 500 to 540'])
    expect(said('contrast under 1.4')).toEqual(['contrast 1.4 or less'])
    expect(said('slab serif')).toEqual(['slab'])
  })

  it('takes names, parts of names and slips, and whole names before looks', () => {
    expect(names('plex')).toEqual(expect.arrayContaining(['IBM Plex Mono', 'IBM Plex Sans', 'IBM Plex Serif']))
    expect(names('open sans')).toEqual(['Open Sans'])
    expect(names('anton').slice(0, 2)).toEqual(['Anton', 'Antonio'])
    expect(names('work sans')[0]).toBe('Work Sans')
    expect(names('Garamnd')).toEqual(expect.arrayContaining(['EB Garamond']))
    expect(said('Garamnd')).toEqual(['called nearly “Garamnd”'])
    expect(names('plex serif')).toEqual(['IBM Plex Serif'])
  })

  it('limits by figures, and by what must not be', () => {
    for (const { plain } of search(catalogue, 'x-height over 520').found)
      expect(plain.measures.xHeight).toBeGreaterThanOrEqual(520)
    const sans = new Set(names('sans'))
    expect(names('not sans').some(family => sans.has(family))).toBe(false)
    expect(names('sans').length + names('not sans').length).toBe(catalogue.length)
    expect(names('weights over 6').length).toBeGreaterThan(5)
  })

  it('lets what it does not understand limit nothing, and says so', () => {
    const { parts, found } = search(catalogue, 'zzzqx, serif')
    expect(parts.map(each => each.kind)).toEqual(['unknown', 'look'])
    expect(found.map(each => each.family)).toEqual(names('serif'))
    expect(search(catalogue, '').found).toHaveLength(catalogue.length)
    expect(search(catalogue, 'the, and a font').parts).toEqual([])
  })

  it('lets every part be taken away by its place in what was typed', () => {
    const typed = 'serif, x-height over 430, old-style figures, print'
    for (const part of search(catalogue, typed).parts) {
      const left = withoutPart(typed, part)
      const after = search(catalogue, left).parts.map(each => each.said)
      const before = search(catalogue, typed).parts.filter(each => each !== part && each.from !== part.from)
      expect(after).toEqual(before.map(each => each.said))
    }
    expect(withoutPart('serif, narrow', { from: 0, to: 5 })).toBe('narrow')
  })

  it('has each word for one look alone, and each look found by some family or none that ships', () => {
    const words = looks.flatMap(look => look.words)
    const twice = words.filter((word, index) => words.indexOf(word) !== index)
    expect(twice).toEqual([])
  })

  it('takes long and strange input in moments', () => {
    const start = performance.now()
    search(catalogue, 'rough '.repeat(5000))
    search(catalogue, '\\(*+?[]{}^$|"\'“”')
    search(catalogue, 'x-height over '.repeat(50))
    expect(performance.now() - start).toBeLessThan(3000)
  })
})
