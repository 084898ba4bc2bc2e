import { describe, expect, it } from 'vitest'
import { inRounds, Reach } from '../../../scripts/reach'

describe('tests that may notice a change', () => {
  const reach = new Reach([
    { test: 'a.test.ts', files: [{ file: 'core/x.ts', functions: ['one'] }] },
    { test: 'b.test.ts', files: [{ file: 'core/x.ts', functions: ['one', 'two'] }] },
    { test: 'c.test.ts', files: [{ file: 'core/x.ts', functions: [] }] },
  ])

  it('are those that call the function it is in', () => {
    expect(reach.of('core/x.ts', 'one')).toEqual(['a.test.ts', 'b.test.ts'])
    expect(reach.of('core/x.ts', 'two')).toEqual(['b.test.ts'])
  })

  it('are all that reach the file where the function has no name, or one that is not known', () => {
    expect(reach.of('core/x.ts', null)).toEqual(['a.test.ts', 'b.test.ts', 'c.test.ts'])
    expect(reach.of('core/x.ts', 'three')).toEqual(['a.test.ts', 'b.test.ts', 'c.test.ts'])
    expect(reach.of('core/y.ts', 'one')).toEqual([])
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
