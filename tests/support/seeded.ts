/*
 * Chance that comes out the same each time: what a seed found can be looked at again.
 */

/** Numbers from 0 to 1 that are the same for the same seed (mulberry32). */
export function numbersFrom(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let value = Math.imul(state ^ (state >>> 15), state | 1)
    value ^= value + Math.imul(value ^ (value >>> 7), value | 61)
    return ((value ^ (value >>> 14)) >>> 0) / 4294967296
  }
}

/** So many of a list, chosen by a seed, in the order of the list. */
export function sampleOf<T>(list: readonly T[], count: number, seed: number): T[] {
  const random = numbersFrom(seed)
  return list
    .map((each, index) => ({ each, index, key: random() }))
    .sort((a, b) => a.key - b.key)
    .slice(0, count)
    .sort((a, b) => a.index - b.index)
    .map(({ each }) => each)
}

/** A list in an order that chance makes. */
export const shuffled = <T>(list: readonly T[], random: () => number): T[] =>
  list
    .map(each => ({ each, key: random() }))
    .sort((a, b) => a.key - b.key)
    .map(({ each }) => each)
