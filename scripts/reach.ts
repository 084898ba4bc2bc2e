/** Which functions of the core a file of tests reached, as `tests/mutate/reach.ts` writes it. */
export interface Reached {
  readonly test: string
  readonly files: readonly { readonly file: string; readonly functions: readonly string[] }[]
}

/** Tests that may notice that a place of the core changed. */
export class Reach {
  private readonly importers = new Map<string, Set<string>>()
  private readonly callers = new Map<string, Map<string, Set<string>>>()

  constructor(reached: readonly Reached[]) {
    for (const { test, files } of reached)
      for (const { file, functions } of files) {
        const importers = this.importers.get(file) ?? new Set()
        this.importers.set(file, importers.add(test))
        const ofFile = this.callers.get(file) ?? new Map<string, Set<string>>()
        this.callers.set(file, ofFile)
        for (const name of functions) ofFile.set(name, (ofFile.get(name) ?? new Set()).add(test))
      }
  }

  /**
   * Tests that call a function of a file; where it has no name that any test called, all that reach the file: V8 may know it
   * by another name.
   */
  of(file: string, within: string | null): string[] {
    const calling = within === null ? undefined : this.callers.get(file)?.get(within)
    return [...(calling ?? this.importers.get(file) ?? [])]
  }
}

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
