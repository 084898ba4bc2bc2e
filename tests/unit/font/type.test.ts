import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { catalogueOf, type CatalogueEntry } from '../../../core/font/catalogue'
import { classify, typeClasses, typeKinds, type TypeClass } from '../../../core/font/classify'
import { fitnessOf } from '../../../core/font/fitness'
import { inDetail, inProportions } from '../../../core/font/likeness'
import { licenceOf, licenceUses } from '../../../core/font/licence'
import { smallestSize } from '../../../core/font/smallest-size'
import type { Embedding } from '../../../core/font/face'
import { shippedLibrary } from '../../../server/library/shipped'

const labels = <T>(name: string): T =>
  JSON.parse(readFileSync(new URL(`../../type/${name}`, import.meta.url), 'utf8')) as T
const { library } = shippedLibrary()
const catalogue = catalogueOf(library)
const of = (family: string): CatalogueEntry => catalogue.find(each => each.family === family)!

describe('classes', () => {
  it('of the faces that ship are those that were labelled by hand before anything was measured, for 97 of 100', () => {
    const labelled = labels<Record<string, readonly TypeClass[]>>('shipped-classes.json')
    const known = catalogue.filter(({ family }) => labelled[family])
    expect(known.length).toBeGreaterThanOrEqual(100)
    const wrong = known.filter(({ family, classed }) => !labelled[family]!.includes(classed.class))
    expect(wrong.length / known.length, wrong.map(each => each.family).join(', ')).toBeLessThanOrEqual(0.03)
  })

  it('are told of every face that ships as they were: what a rule changes shows face by face', async () => {
    const rows = [...library.faces]
      .sort((one, other) => `${one.family} ${one.style}`.localeCompare(`${other.family} ${other.style}`, 'en'))
      .map(({ family, style, measures }) => {
        const { class: of, kind, margin, reasons } = classify(measures)
        return `${family} ${style}: ${of}, ${kind}, ${margin.toFixed(2)}; ${reasons.join('; ')}`
      })
    await expect(`${[...new Set(rows)].join('\n')}\n`).toMatchFileSnapshot('../../type/told-classes.txt')
  })

  it('go by measures that are told of every seventh family as they were, with what it is fit for', async () => {
    const figures = (values: object) =>
      Object.entries(values)
        .filter((entry): entry is [string, number | null] => entry[1] === null || typeof entry[1] === 'number')
        .map(([name, value]) => `${name} ${value === null ? 'unknown' : Math.round(value * 100) / 100}`)
    const rows = catalogue
      .filter((_, at) => at % 7 === 0)
      .map(({ family, plain: { style, measures }, classed }) =>
        [
          `${family} ${style}: ${figures(measures).join(', ')}`,
          ...fitnessOf(measures, classed).map(
            ({ use, fit, reason }) => `  ${fit ? 'fit' : 'not fit'} for ${use}: ${reason}`,
          ),
        ].join('\n'),
      )
    await expect(`${rows.join('\n')}\n`).toMatchFileSnapshot('../../type/told-measures.txt')
  })

  it('follow measures to their limits, and go on where one cannot be told', () => {
    const kind = (family: string, change: object) => classify({ ...of(family).plain.measures, ...change }).kind
    expect(kind('Jost', {})).toBe('geometric')
    const kinds = [1.44, 1.46].map(contrast => kind('Jost', { storeysA: 1, contrast }))
    expect(kinds).toEqual(['geometric', 'humanist'])
    const closed = { aperture: 0.2 }
    expect(kind('Inter', { ...closed, contrast: 1.41 })).toBe('humanist')
    expect(kind('Inter', { ...closed, contrast: null })).toBe('grotesque')
    // Nothing is told of what cannot be measured.
    const script = catalogue.find(({ classed, plain: { measures } }) =>
      [classed.class === 'script', (measures.joined ?? 0) > 0.9, measures.slant > 5].every(Boolean),
    )!
    const told = classify({ ...script.plain.measures, waver: null, jitter: 0 })
    expect([told.class, told.reasons.map(reason => reason.replace(/\d+/, 'n'))]).toEqual([
      'script',
      ['n % of the letters reach the next', 'stems lean n°'],
    ])
  })

  it('have a kind of their own, a margin and reasons with figures', () => {
    for (const { plain } of catalogue) {
      const classed = classify(plain.measures)
      expect(typeClasses).toContain(classed.class)
      expect(typeKinds[classed.class] as readonly string[]).toContain(classed.kind)
      expect(classed.margin).toBeGreaterThanOrEqual(0)
      expect(classed.margin).toBeLessThanOrEqual(1)
    }
    expect(of('Zilla Slab').classed.reasons.join()).toMatch(/serifs \d+ % as high as the stems are wide/)
    expect(of('Caveat').classed.reasons.join()).toMatch(/stems lean 18°/)
    // Of an old-style serif the axis of its strokes is told.
    expect(of('EB Garamond').classed.reasons.join()).toMatch(/stress -?\d+°/)
    expect(of('EB Garamond').classed.reasons.join()).toMatch(/feet [\d.]+ times as wide as the stems/)
    expect(of('Bodoni Moda').classed.kind).toBe('modern')
    expect(of('Outfit').classed.kind).toBe('geometric')
    expect(of('EB Garamond').classed.kind).toBe('old-style')
  })

  it('of italics are those of their romans, for nine serif and sans families of ten', () => {
    const pairs = catalogue.flatMap(({ faces, classed }) => {
      const italic = faces.find(face => face.slant === 'italic' && face.weight === 400)
      return italic && (classed.class === 'serif' || classed.class === 'sans') ? [{ italic, classed }] : []
    })
    expect(pairs.length).toBeGreaterThan(40)
    const same = pairs.filter(({ italic, classed }) => {
      const own = classify(italic.measures).class
      return own === classed.class || (classed.class === 'serif' && own === 'slab')
    })
    expect(same.length / pairs.length).toBeGreaterThan(0.9)
  })
})

describe('fitness and smallest sizes', () => {
  it('are those of the trade for old cases', () => {
    const print = (family: string) => smallestSize(of(family).plain.measures, of(family).classed, 'print')!
    for (const family of [
      'Liberation Serif',
      'Caladea',
      'PT Serif',
      'Literata',
      'Crimson Pro',
      'Lora',
      'Libre Caslon Text',
    ])
      expect(print(family).size, family).toSatisfy((size: number) => size >= 9 && size <= 11)
    for (const family of ['Playfair Display', 'Bodoni Moda', 'Abril Fatface', 'DM Serif Display']) {
      expect(print(family).size, family).toBeGreaterThanOrEqual(14)
      expect(print(family).because).toBe('hairline')
    }
    for (const family of ['Caveat', 'Dancing Script']) expect(print(family).size, family).toBeGreaterThanOrEqual(18)
    expect(print('Bungee Inline').because).toBe('counter')
  })

  it('grow with the distance that is read from', () => {
    for (const { plain, classed } of catalogue) {
      const [print, screen, poster] = (['print', 'screen', 'poster'] as const).map(use =>
        smallestSize(plain.measures, classed, use),
      )
      expect(print!.size).toBeLessThan(screen!.size)
      expect(print!.size).toBeLessThanOrEqual(poster!.size)
      expect(print!.reason).toMatch(/\d/)
    }
  })

  it('say of every use whether a face is fit, and by what', () => {
    const fit = (family: string, use: string) => of(family).fitness.find(each => each.use === use)!
    expect(fit('Literata', 'long reading').fit).toBe(true)
    expect(fit('Playfair Display', 'long reading')).toEqual({
      use: 'long reading',
      fit: false,
      reason: expect.stringMatching(/thick to thin \d/) as string,
    })
    expect(fit('Caveat', 'long reading').reason).toContain('it is a hand')
    expect(fit('Atkinson Hyperlegible', 'small print').fit).toBe(true)
    expect(fit('Cormorant Garamond', 'small print').fit).toBe(false)
    expect(fit('Anton', 'display').fit).toBe(true)
    expect(fit('Inter', 'display').fit).toBe(false)
    expect(fit('Caveat', 'informal').fit).toBe(true)
    expect(fit('EB Garamond', 'formal').fit).toBe(true)
  })
})

describe('likeness', () => {
  it('goes by what can be told of both: nothing is held against a height that a face does not have', () => {
    const { measures } = of('Inter').plain
    const flat = { ...measures, xHeight: 0 }
    for (const compare of [inProportions, inDetail])
      for (const { distance } of [compare(measures, flat), compare(flat, measures)])
        expect(distance).toBeLessThan(1_000)
  })

  const siblings = labels<readonly (readonly [string, string])[]>('siblings.json')
  it('in proportions finds what one designer drew to go together: in the first 5 %, all in the first third', () => {
    const ranks = siblings.map(([one, other]) => {
      const given = of(one).plain.measures
      const ranked = catalogue
        .filter(each => each.family !== one)
        .map(each => ({ family: each.family, distance: inProportions(given, each.plain.measures).distance }))
        .sort((a, b) => a.distance - b.distance)
      return ranked.findIndex(each => each.family === other) + 1
    })
    const sorted = [...ranks].sort((a, b) => a - b)
    expect(sorted[sorted.length >> 1]! / catalogue.length).toBeLessThanOrEqual(0.05)
    expect(sorted.at(-1)! / catalogue.length).toBeLessThanOrEqual(1 / 3)
  })

  it('is nothing between a face and itself, the same both ways, and tells its parts', () => {
    for (const [one, other] of siblings) {
      const [a, b] = [of(one).plain.measures, of(other).plain.measures]
      for (const compare of [inProportions, inDetail]) {
        expect(compare(a, a).distance).toBe(0)
        expect(compare(a, b).distance).toBe(compare(b, a).distance)
        expect(compare(a, b).parts.length).toBeGreaterThan(5)
      }
      // A serif and its sans are near in proportions and far in detail.
      expect(inDetail(a, b).distance).toBeGreaterThan(inProportions(a, b).distance)
    }
  })
})

describe('licences', () => {
  const cases = labels<readonly (readonly [string, Embedding, string])[]>('licences.json')
  it.each(cases)(
    '%s (%s): no use is said to be allowed that was not judged so by hand',
    (licence, embedding, allowed) => {
      const may: readonly string[] = allowed === 'all' ? licenceUses : allowed.split(',')
      const told = licenceOf({ licence, embedding })
      for (const { use, right, from } of told.uses) {
        if (right === 'allowed') expect(may, `${use}: ${from}`).toContain(use)
        expect(from).not.toBe('')
      }
      if (allowed === 'all') expect(told.uses.every(each => each.right === 'allowed')).toBe(true)
    },
  )

  it('of the faces that ship are known and free, but for one whose file says nothing', () => {
    expect(catalogue.filter(({ licence }) => !licence.open).map(each => each.family)).toEqual(['Monoton'])
    expect(of('Monoton').licence.uses[0]).toMatchObject({ right: 'not stated', from: 'the file says nothing' })
  })
})
