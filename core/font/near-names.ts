import { parseStyleName } from './face'
import { formats, makers } from './maker-alias'

/*
 * Names of one family differ from system to system and from maker to maker: case, spacing, the maker's name in front or
 * behind, marks of the format or the cut, and slips of the hand.
 */

const folded = (name: string) => name.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase()

/** The words of a name: apart at spaces, signs, and where a capital follows a small letter or a figure. */
export function nameWords(name: string): string[] {
  return folded(name.replace(/(\p{Ll}|\d)(\p{Lu})/gu, '$1 $2').replace(/(\p{Lu})(\p{Lu}\p{Ll})/gu, '$1 $2'))
    .split(/[^\p{L}\p{N}]+/u)
    .filter(word => word !== '')
}

/** A name without case, spaces, accents and signs. */
export const nameKey = (name: string): string => folded(name).replace(/[^\p{L}\p{N}]+/gu, '')

/** A name, told apart from what makers, formats and faces add to it. */
export interface BareName {
  readonly key: string
  readonly dropped: readonly string[]
}

/** Takes makers, formats and the names of weights off both ends. What would leave nothing stays. */
export function bareName(name: string): BareName {
  const dropped: string[] = []
  const said = parseStyleName(name.replace(/[_-]+/g, ' '))
  let words = nameWords(said && said.rest !== '' ? said.rest : name)
  if (said && said.rest !== '') dropped.push(...nameWords(name).filter(word => !words.includes(word)))
  const extra = (word: string) => makers.has(word) || formats.has(word)
  while (words.length > 1 && extra(words.at(-1)!)) dropped.push(words.pop()!)
  while (words.length > 1 && makers.has(words[0]!)) {
    dropped.push(words[0]!)
    words = words.slice(1)
  }
  return { key: words.join(''), dropped }
}

/**
 * How many slips of the hand lie between two names: letters wrong, missing, too many, or two neighbours in the wrong
 * order (optimal string alignment: Damerau 1964, Levenshtein 1966). Stops counting above `limit`.
 */
export function slipsBetween(one: string, other: string, limit: number): number {
  if (Math.abs(one.length - other.length) > limit) return limit + 1
  let before: number[] = []
  let last = Array.from({ length: other.length + 1 }, (_, index) => index)
  for (let row = 1; row <= one.length; row++) {
    const own = [row]
    let least = row
    for (let column = 1; column <= other.length; column++) {
      const same = one[row - 1] === other[column - 1]
      let cost = Math.min(last[column]! + 1, own[column - 1]! + 1, last[column - 1]! + (same ? 0 : 1))
      if (row > 1 && column > 1 && one[row - 1] === other[column - 2] && one[row - 2] === other[column - 1])
        cost = Math.min(cost, before[column - 2]! + 1)
      own.push(cost)
      least = Math.min(least, cost)
    }
    if (least > limit) return limit + 1
    before = last
    last = own
  }
  return last[other.length]!
}
