import { describe, expect, it } from 'vitest'
import { inRounds, telling, testsAt } from '../../../scripts/reach'

describe('a source that tells what is reached', () => {
  const reachedBy = (text: string, places: [string, number][], given: unknown[]) => {
    const reached: number[] = []
    Object.assign(globalThis, { reachedPlace: (place: number) => reached.push(place) })
    const told = telling(
      text,
      places.map(([words, number]) => ({
        start: text.indexOf(words),
        end: text.indexOf(words) + words.length,
        number,
      })),
    )
    const value: unknown = new Function('a', 'b', 'c', `return ${told}`)(...given)
    Reflect.deleteProperty(globalThis, 'reachedPlace')
    return { value, reached }
  }

  it('tells the places whose value was asked for, and does what it did', () => {
    const places: [string, number][] = [
      ['a < b && c', 1],
      ['a < b', 2],
      ['c', 3],
      ["'no'", 4],
    ]
    const text = "a < b && c ? 'yes' : 'no'"
    expect(reachedBy(text, places, [1, 2, true])).toEqual({ value: 'yes', reached: [1, 2, 3] })
    expect(reachedBy(text, places, [2, 1, true])).toEqual({ value: 'no', reached: [1, 2, 4] })
  })

  it('keeps the order of places that begin, end or meet at one point', () => {
    const places: [string, number][] = [
      ['a+b+c', 1],
      ['a+b', 2],
      ['a', 3],
      ['c', 4],
    ]
    expect(reachedBy('a+b+c', places, [1, 2, 4])).toEqual({ value: 7, reached: [1, 2, 3, 4] })
  })

  it('runs where nobody listens', () => {
    expect(new Function(`return ${telling('1 + 2', [{ start: 0, end: 5, number: 1 }])}`)()).toBe(3)
  })
})

describe('tests that may notice a change', () => {
  it('are those that reach its place', () => {
    const reached = [
      { test: 'a.test.ts', places: [1, 2] },
      { test: 'b.test.ts', places: [2] },
    ]
    expect(testsAt(reached, 1)).toEqual(['a.test.ts'])
    expect(testsAt(reached, 2)).toEqual(['a.test.ts', 'b.test.ts'])
    expect(testsAt(reached, 3)).toEqual([])
  })

  it('are tried in rounds: named ones first, then the quickest, then the rest', () => {
    const times: Record<string, number> = { slow: 50, quick: 1, named: 6, middle: 8, last: 90 }
    const rounds = (limits: number[]) =>
      inRounds(
        Object.keys(times),
        test => test === 'named',
        test => times[test]!,
        limits,
      )
    expect(rounds([10, 20])).toEqual([['named', 'quick'], ['middle'], ['slow', 'last']])
    // One that takes longer than its round has a round of its own, and no round is empty.
    expect(rounds([1])).toEqual([['named'], ['quick', 'middle', 'slow', 'last']])
    expect(
      inRounds(
        [],
        () => true,
        () => 1,
      ),
    ).toEqual([])
  })
})
