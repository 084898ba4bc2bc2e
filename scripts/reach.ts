/** Which places a file of tests reached, as `tests/mutate/reach.ts` writes it. */
export interface Reached {
  readonly test: string
  readonly places: readonly number[]
}

/** An expression of a source, and the number that is told when its value is asked for. */
export interface Place {
  readonly start: number
  readonly end: number
  readonly number: number
}

/** The source telling which of its places are reached; what it does stays the same. Places lie in or beside each other. */
export function telling(text: string, places: readonly Place[]): string {
  const insertions = places.flatMap(({ start, end, number }) => [
    { at: start, opens: true, length: end - start, words: `(globalThis.reachedPlace?.(${number}), ` },
    { at: end, opens: false, length: end - start, words: ')' },
  ])
  // Where several begin, the longest is outermost. What ends at a place does so before anything begins there.
  insertions.sort(
    (a, b) => a.at - b.at || Number(a.opens) - Number(b.opens) || (a.opens ? b.length - a.length : a.length - b.length),
  )
  let from = 0
  const parts = insertions.map(({ at, words }) => {
    const part = text.slice(from, at) + words
    from = at
    return part
  })
  return parts.join('') + text.slice(from)
}

/** Tests that reach a place: no other may notice that it changed. */
export const testsAt = (reached: readonly Reached[], place: number): string[] =>
  reached.filter(({ places }) => places.includes(place)).map(({ test }) => test)

/**
 * Tests in rounds, the likeliest first: those named for the file, then the quickest, so that most changes are noticed by the
 * first round. `limits` in milliseconds: how long the rounds take together, the last one being for all that are left.
 */
export function inRounds(
  tests: readonly string[],
  isNamed: (test: string) => boolean,
  milliseconds: (test: string) => number,
  limits: readonly number[] = [8_000, 40_000],
): string[][] {
  const order = [...tests].sort(
    (a, b) => Number(isNamed(b)) - Number(isNamed(a)) || milliseconds(a) - milliseconds(b) || (a < b ? -1 : 1),
  )
  const rounds: string[][] = [[]]
  let taken = 0
  for (const test of order) {
    const limit = limits[rounds.length - 1] ?? Infinity
    if (rounds.at(-1)!.length > 0 && taken + milliseconds(test) > limit) rounds.push([])
    taken += milliseconds(test)
    rounds.at(-1)!.push(test)
  }
  return rounds.filter(round => round.length > 0)
}
