/*
 * Pairs that faces for text are usually kerned in. They follow from how letters end at their sides, which Tracy (Letters of
 * Credit, 1986, chapter on spacing) sorts into straight, round, triangular and open ones: a triangular or open side beside a
 * round or triangular one, or beside a low mark, leaves more white than straight sides do. The list is our own.
 */

/** Capitals that are open below on their right, and so reach over what follows. */
const over = ['F', 'P', 'T', 'V', 'W', 'Y'] as const
/** Small letters with a round left side. */
const round = ['a', 'c', 'e', 'o', 'q', 'd', 'g'] as const

const pairs = (lefts: readonly string[], rights: readonly string[]): [string, string][] =>
  lefts.flatMap(left => rights.map(right => [left, right] as [string, string]))

/** The usual pairs, left and right, each once. */
export const usualPairs: readonly (readonly [string, string])[] = [
  ...pairs(['T', 'V', 'W', 'Y'], round),
  ...pairs(['T', 'V', 'W', 'Y'], ['u', 'r', 's']),
  ...pairs(over, ['A', '.', ',']),
  ...pairs(['T', 'V', 'W', 'Y'], ['-']),
  ...pairs(['A'], ['C', 'G', 'O', 'Q', 'T', 'V', 'W', 'Y', 'v', 'w', 'y']),
  ...pairs(['L'], ['T', 'V', 'W', 'Y', 'y']),
  ...pairs(['O', 'D'], ['A', 'T', 'V', 'W', 'Y']),
  ...pairs(['R'], ['T', 'V', 'W', 'Y']),
  ...pairs(['K'], ['C', 'G', 'O', 'o', 'e']),
  ...pairs(['r', 'v', 'w', 'y'], ['.', ',']),
  ...pairs(['v', 'w', 'y'], ['a', 'e', 'o']),
  ...pairs(['o', 'e', 'a'], ['v', 'w', 'y']),
  ...pairs(['k', 'x'], ['e', 'o', 'c']),
  ...pairs(['r'], ['a', 'c', 'e', 'o', 'd', 'q']),
]
