import { describe, expect, it } from 'vitest'
import { catalogueOf } from '../../../core/font/catalogue'
import { scriptOfLanguage, suitsDocument } from '../../../core/font/suits'
import type { CoveredScript } from '../../../core/font/measure/covered-scripts'
import { shippedLibrary } from '../../../server/library/shipped'

const { library } = shippedLibrary()
const catalogue = catalogueOf(library)
const use = (family: string, style: string, characters: number) => ({ face: library.named(family, style)!, characters })
const latin: ReadonlySet<CoveredScript> = new Set<CoveredScript>(['Latin'])

describe('what suits a document', () => {
  it('is near in proportions to the face that most text is in, and says by what', () => {
    const found = suitsDocument(catalogue, [use('IBM Plex Serif', 'Regular', 9000), use('Jost', 'Medium', 300)], latin)
    expect(found.slice(0, 3).map(each => each.entry.family)).toContain('IBM Plex Sans')
    expect(found.map(each => each.entry.family)).not.toContain('IBM Plex Serif')
    for (const { reason } of found) expect(reason).toMatch(/^\d\.\d steps from IBM Plex Serif: alike in \w/)
    for (const { entry } of found) expect(entry.fitness.find(each => each.use === 'long reading')!.fit).toBe(true)
  })

  it('has the scripts, the italics and the weights that are used', () => {
    const all = suitsDocument(catalogue, [use('Noto Serif', 'Regular', 900)], latin)
    const cyrillic = suitsDocument(
      catalogue,
      [use('Noto Serif', 'Regular', 900)],
      new Set<CoveredScript>(['Latin', 'Cyrillic']),
    )
    expect(cyrillic.length).toBeLessThan(all.length)
    for (const { entry } of cyrillic) expect(entry.scripts).toContain('Cyrillic')
    const heavy = suitsDocument(
      catalogue,
      [use('Noto Serif', 'Regular', 900), use('Noto Serif', 'Black Italic', 200)],
      latin,
    )
    for (const { entry } of heavy) {
      expect(entry.hasItalic).toBe(true)
      expect(Math.max(...entry.weights)).toBeGreaterThanOrEqual(800)
    }
    // A few words in a weight ask for nothing.
    const few = suitsDocument(
      catalogue,
      [use('Noto Serif', 'Regular', 900), use('Noto Serif', 'Black Italic', 5)],
      latin,
    )
    expect(few.map(each => each.entry.family)).toEqual(all.map(each => each.entry.family))
  })

  it('is nothing for a document without text', () => {
    expect(suitsDocument(catalogue, [], latin)).toEqual([])
  })
})

describe('the script of a language', () => {
  it.each([
    ['en-GB', 'Latin'],
    ['ru', 'Cyrillic'],
    ['el', 'Greek'],
    ['sr', 'Cyrillic'],
    ['sr-Latn', 'Latin'],
    ['he', 'Hebrew'],
    ['ja', 'Hiragana'],
    ['zh-TW', 'Han'],
    ['hi', 'Devanagari'],
    ['none', null],
    ['not a tag', null],
  ])('%s is %s', (tag, script) => {
    expect(scriptOfLanguage(tag)).toBe(script)
  })
})
