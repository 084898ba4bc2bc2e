import { median } from '../measure/outline'
import { inkOf, sidesOf, whiteBetween, type PairSource, type Sides } from './sides'
import { usualPairs } from './usual-pairs'

/** How a pair of letters stands in a face. Thousandths of an em. */
export interface PairWhite {
  readonly left: string
  readonly right: string
  /** What the face itself moves the two by. */
  readonly kern: number
  /** The white between them, and what both usually have beside them in this face. */
  readonly white: number
  readonly usual: number
  /** White less usual: above nought they stand too far apart, below too close. */
  readonly oddness: number
  /** What moves the right one to where the white is as usual. */
  readonly toUsual: number
}

/**
 * A pair whose white is this far from what is usual, in thousandths of an em, stands out: of faces that are kerned with
 * care, fewer than one in fifty of the usual pairs do (docs/type.md).
 */
export const oddFrom = 80

/** How deep white beside a mark counts, on either side: below a capital that reaches over it stands much that nobody reads. */
const markDepth = 150

type Group = 'lower' | 'upper' | 'figure' | 'mark'

const marks = [...'.,:;!?-’”)“‘(']
const figures = [...'0123456789']
/** Letters that a script's pairs are measured among; capitals are theirs. */
const alphabets = {
  Latin: [...'abcdefghijklmnopqrstuvwxyz'],
  Greek: [...'αβγδεζηθικλμνξοπρστυφχψω'],
  Cyrillic: [...'абвгдежзийклмнопрстуфхцчшщъыьэюя'],
} as const
type Alphabet = keyof typeof alphabets

const scripts = Object.keys(alphabets) as Alphabet[]
const ofScript = new Map(scripts.map(script => [script, new RegExp(`\\p{Script=${script}}`, 'u')] as const))

const alphabetOf = (character: string): Alphabet | null =>
  scripts.find(script => ofScript.get(script)!.test(character)) ?? null

function groupOf(character: string): Group | null {
  if (figures.includes(character)) return 'figure'
  if (/^\p{Lu}/u.test(character)) return 'upper'
  if (/^\p{Ll}/u.test(character)) return 'lower'
  return /^[\p{P}]$/u.test(character) ? 'mark' : null
}

/** Rows and columns of pairs, with what is usual beside each letter: white is overall + row + column and what is left. */
interface Block {
  readonly rows: ReadonlyMap<string, number>
  readonly columns: ReadonlyMap<string, number>
}

/** Rounds of the polish: what is left changes by less than a thousandth of an em after the fourth. */
const rounds = 6

/**
 * Median polish (Tukey, Exploratory Data Analysis, 1977, chapter 11): what rows and columns of a table have in common,
 * unmoved by single cells that are off. Cells that are not known are null.
 */
export function medianPolish(table: readonly (readonly (number | null)[])[]): {
  readonly rows: readonly number[]
  readonly columns: readonly number[]
} {
  const rows = table.map(() => 0)
  const columns = (table[0] ?? []).map(() => 0)
  const known = (values: (number | null)[]) => values.filter(value => value !== null)
  for (let round = 0; round < rounds; round++) {
    table.forEach((cells, row) => {
      rows[row] = median(known(cells.map((cell, column) => (cell === null ? null : cell - columns[column]!)))) ?? 0
    })
    columns.forEach((_, column) => {
      columns[column] =
        median(known(table.map((cells, row) => (cells[column] == null ? null : cells[column]! - rows[row]!)))) ?? 0
    })
  }
  return { rows, columns }
}

/**
 * Whites between the letters of one face. A pair is odd by the white between its letters less what both usually have
 * beside them in that face. Letters are compared with those of their own kind: small ones with small ones within the
 * x-height, capitals and figures among themselves within the height of capitals.
 */
export class PairWhites {
  private readonly blocks = new Map<string, Block | null>()
  private readonly ink = new Map<string, Float64Array | null>()
  private readonly sides = new Map<string, Sides | null>()
  private readonly letters = new Map<Alphabet, ReadonlySet<string>>()

  /** @param more letters beyond the alphabets that pairs shall be told of: those with accents in a document, say */
  constructor(
    private readonly source: PairSource,
    private readonly heights: { readonly xHeight: number; readonly capHeight: number },
    more: Iterable<string> = [],
  ) {
    const own = [...more]
    for (const script of scripts) {
      const lower = alphabets[script]
      const upper = lower.map(letter => letter.toUpperCase())
      const added = own.filter(each => ofScript.get(script)!.test(each) && groupOf(each) !== null)
      this.letters.set(script, new Set([...lower, ...upper, ...added]))
    }
  }

  /** How a pair stands; null where it is none that could be told of: other scripts, spaces, tied letters, letters it lacks. */
  of(left: string, right: string): PairWhite | null {
    const kern = this.source.kern(left, right)
    const place = this.placeOf(left, right)
    if (kern === null || place === null) return null
    const block = this.block(place.script, place.left, place.right)
    const white = this.white(left, right, kern, place.left, place.right)
    const row = block?.rows.get(left)
    const column = block?.columns.get(right)
    if (white === null || row === undefined || column === undefined) return null
    const usual = row + column
    return {
      left,
      right,
      kern,
      white,
      usual,
      oddness: white - usual,
      toUsual: this.toUsual(left, right, kern, usual, place),
    }
  }

  /** Shares of the usual pairs, 0 to 1: how many the face kerns, and how many are odd. Null where it lacks the letters. */
  usual(): { readonly kerned: number; readonly odd: number } | null {
    const found = usualPairs.map(([left, right]) => this.of(left, right)).filter(pair => pair !== null)
    if (found.length < usualPairs.length / 2) return null
    const share = (count: number) => count / found.length
    return {
      kerned: share(found.filter(pair => pair.kern !== 0).length),
      odd: share(found.filter(pair => Math.abs(pair.oddness) >= oddFrom).length),
    }
  }

  private placeOf(
    left: string,
    right: string,
  ): { readonly script: Alphabet; readonly left: Group; readonly right: Group } | null {
    const [first, second] = [groupOf(left), groupOf(right)]
    if (first === null || second === null) return null
    const [one, other] = [alphabetOf(left), alphabetOf(right)]
    if (one !== null && other !== null && one !== other) return null
    return { script: one ?? other ?? 'Latin', left: first, right: second }
  }

  private members(script: Alphabet, group: Group): readonly string[] {
    if (group === 'mark') return marks
    if (group === 'figure') return figures
    return [...this.letters.get(script)!].filter(letter => groupOf(letter) === group)
  }

  private block(script: Alphabet, left: Group, right: Group): Block | null {
    const key = `${script} ${left} ${right}`
    let block = this.blocks.get(key)
    if (block === undefined) this.blocks.set(key, (block = this.makeBlock(script, left, right)))
    return block
  }

  private makeBlock(script: Alphabet, left: Group, right: Group): Block | null {
    const rows = this.members(script, left).filter(each => this.inked(each) !== null)
    const columns = this.members(script, right).filter(each => this.inked(each) !== null)
    // Of fewer letters nothing could be called usual.
    if (rows.length < 5 || columns.length < 5) return null
    const polished = medianPolish(
      rows.map(row =>
        columns.map(column => {
          const kern = this.source.kern(row, column)
          return kern === null ? null : this.white(row, column, kern, left, right)
        }),
      ),
    )
    return {
      rows: new Map(rows.map((row, at) => [row, polished.rows[at]!])),
      columns: new Map(columns.map((column, at) => [column, polished.columns[at]!])),
    }
  }

  private inked(character: string): Float64Array | null {
    let ink = this.ink.get(character)
    if (ink === undefined) this.ink.set(character, (ink = inkOf(this.source, character)))
    return ink
  }

  private sidesIn(character: string, band: 'x' | 'cap'): Sides | null {
    const key = `${band} ${character}`
    let sides = this.sides.get(key)
    if (sides === undefined) {
      const ink = this.inked(character)
      const top = band === 'x' ? this.heights.xHeight : this.heights.capHeight
      sides = ink === null || top <= 0 ? null : sidesOf(ink, this.source.advance(character), 0, top)
      this.sides.set(key, sides)
    }
    return sides
  }

  private white(left: string, right: string, kern: number, first: Group, second: Group): number | null {
    const band = first === 'lower' || second === 'lower' ? 'x' : 'cap'
    const [one, other] = [this.sidesIn(left, band), this.sidesIn(right, band)]
    return one && other
      ? whiteBetween(one, other, kern, first === 'mark' || second === 'mark' ? markDepth : Infinity)
      : null
  }

  /** By halving: white grows with the distance. */
  private toUsual(
    left: string,
    right: string,
    kern: number,
    usual: number,
    place: { readonly left: Group; readonly right: Group },
  ): number {
    let [low, high] = [-300, 300]
    for (let step = 0; step < 12; step++) {
      const middle = (low + high) / 2
      if ((this.white(left, right, kern + middle, place.left, place.right) ?? usual) < usual) low = middle
      else high = middle
    }
    return Math.round((low + high) / 2)
  }
}
