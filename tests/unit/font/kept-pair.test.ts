import { describe, expect, it } from 'vitest'
import {
  fromCss,
  fromTokens,
  keptPairSchema,
  PairFileError,
  readPairs,
  stepsOf,
  toCss,
  toTokens,
} from '../../../core/pairing/kept-pair'

const quay = { heading: 'Fira Sans', body: 'Spectral', size: 10, ratio: 1.25 }
const three = { ...quay, label: 'Odd "name" \\ here', ratio: 1.333 }

describe('a pair that is kept', () => {
  it('has a step for each role, headings in one face, text in the other, labels in the third', () => {
    expect(stepsOf(quay).map(each => [each.role, each.family, each.size])).toEqual([
      ['display', 'Fira Sans', 24.4],
      ['heading', 'Fira Sans', 19.5],
      ['subheading', 'Fira Sans', 15.6],
      ['intro', 'Spectral', 12.5],
      ['body', 'Spectral', 10],
      ['caption', 'Spectral', 8],
      ['label', 'Spectral', 8],
    ])
    expect(stepsOf(three).at(-1)!.family).toBe(three.label)
    expect(keptPairSchema.safeParse({ ...quay, ratio: 1 }).success).toBe(false)
  })

  it('goes out as design tokens and comes back the same', () => {
    const text = toTokens([
      { name: 'Quay', pair: quay },
      { name: 'Tern.Holm {night}', pair: three },
    ])
    const read = JSON.parse(text) as Record<string, { type: { body: { $value: { fontSize: unknown } } } }>
    expect(Object.keys(read)).toEqual(['Quay', 'Tern Holm  night'])
    // Ten points are 13.33 of CSS's pixels.
    expect(read.Quay!.type.body.$value.fontSize).toEqual({ value: 13.33, unit: 'px' })
    expect(fromTokens(text)).toEqual([
      { name: 'Quay', pair: quay },
      { name: 'Tern.Holm {night}', pair: three },
    ])
  })

  it('reads tokens of others: lists of families, no scale, sizes in rem; passes over what is no pair', () => {
    const text = JSON.stringify({
      brand: {
        face: { heading: { $value: ['Inter', 'sans-serif'] }, body: { $value: 'Lora' } },
        scale: { ratio: { $value: 1.5 }, body: { $value: { value: 1, unit: 'rem' } } },
      },
      plain: { face: { heading: { $value: 'A' }, body: { $value: 'B' } } },
      color: { red: { $value: '#f00' } },
    })
    expect(fromTokens(text)).toEqual([
      { name: 'brand', pair: { heading: 'Inter', body: 'Lora', size: 12, ratio: 1.5 } },
      { name: 'plain', pair: { heading: 'A', body: 'B', size: 10, ratio: 1.25 } },
    ])
  })

  it('goes out as CSS that says every step, and comes back the same', () => {
    const css = toCss({ name: 'Tern Holm', pair: three })
    expect(css).toContain('.tern-holm-heading {\n  font-family: "Fira Sans";')
    expect(css).toContain('font-family: "Odd \\22 name\\22  \\5c  here"')
    expect(fromCss(css)).toEqual([{ name: 'Tern Holm', pair: three }])
    expect(fromCss(css.replace(/--tern-holm-name.*\n/, ''))[0]!.name).toBe('tern holm')
    expect(toCss({ name: 'x */ body{}', pair: quay }).split('\n')[0]).toBe('/* x * / body{} */')
  })

  it('says what is wrong with a file that holds none', () => {
    for (const text of ['{', '{}', '[]', '{"a": {"face": {"heading": {"$value": "A"}}}}', 'p { color: red }', ''])
      expect(() => readPairs(text), text).toThrow(PairFileError)
    expect(readPairs(toCss({ name: 'Quay', pair: quay }))).toHaveLength(1)
    expect(readPairs(` ${toTokens([{ name: 'Quay', pair: quay }])}`)).toHaveLength(1)
  })
})
