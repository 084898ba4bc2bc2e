import { describe, expect, it } from 'vitest'
import { mutated, mutationsIn } from '../../../scripts/mutations'
import { numbersFrom, sampleOf } from '../../support/seeded'

const after = (text: string) => mutationsIn('a.ts', text).map(each => mutated(text, each))

describe('mutations of a source', () => {
  it('turn conditions round', () => {
    expect(after('if (a) b()')).toEqual(['if (!(a)) b()'])
    expect(after('const x = a ? b : c')).toEqual(['const x = !(a) ? b : c'])
  })

  it('move bounds, turn logic and arithmetic round, and change truth and numbers', () => {
    expect(after('f(a < b)')).toEqual(['f(a <= b)'])
    expect(after('f(a >= b)')).toEqual(['f(a > b)'])
    expect(after('f(a === b)')).toEqual(['f(a !== b)'])
    expect(after('f(a && b)')).toEqual(['f(a || b)'])
    expect(after('f(a * b - c)')).toEqual(['f(a * b + c)', 'f(a / b - c)'])
    expect(after('f(true, 7)')).toEqual(['f(false, 7)', 'f(true, 8)'])
  })

  it('leave types, imports, joined text and tables alone', () => {
    expect(after('type A = true | 7')).toEqual([])
    expect(after('interface A { readonly b: 1 }')).toEqual([])
    expect(after("import { a } from 'b'")).toEqual([])
    expect(after("f('a' + b)")).toEqual([])
    expect(after('const table = { a: 12 }')).toEqual([])
  })

  it('say where they are', () => {
    expect(mutationsIn('a.ts', 'f()\nif (a) b()')).toMatchObject([
      { file: 'a.ts', line: 2, column: 5, before: 'a', after: '!(a)', kind: 'condition' },
    ])
  })
})

describe('the expression whose value a mutation changes', () => {
  it.each([
    ['if (a < b) c()', ['a < b', 'a < b']],
    ['f(a && !b, 7)', ['a && !b', '7']],
    ['const x = a ? 1 : c', ['a', '1']],
  ])('%s', (text, expressions) => {
    expect(mutationsIn('a.ts', text).map(({ expression: { start, end } }) => text.slice(start, end))).toEqual(
      expressions,
    )
  })
})

describe('a sample', () => {
  const list = Array.from({ length: 100 }, (_, index) => index)
  it('is the same for the same seed, another for another, and in order', () => {
    const sample = sampleOf(list, 10, 1)
    expect(sample).toEqual(sampleOf(list, 10, 1))
    expect(sample).not.toEqual(sampleOf(list, 10, 2))
    expect(sample).toEqual([...sample].sort((a, b) => a - b))
    expect(new Set(sample).size).toBe(10)
    expect(sampleOf(list, 1000, 1)).toEqual(list)
  })

  it('comes of numbers that are spread over all there are', () => {
    const random = numbersFrom(7)
    const numbers = Array.from({ length: 10_000 }, random)
    expect(numbers.reduce((sum, each) => sum + each, 0) / numbers.length).toBeCloseTo(0.5, 1)
    expect(Math.min(...numbers)).toBeLessThan(0.01)
    expect(Math.max(...numbers)).toBeGreaterThan(0.99)
    expect(Math.max(...numbers)).toBeLessThan(1)
  })
})
