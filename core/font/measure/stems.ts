import { heightOf, type Letter, type Letters } from './letters'
import { deviation, inkAlong, lengthOf, median, type Span } from './outline'

/** A stem of a letter: the straight upright stroke that letters stand on. Font units. */
export interface Stem {
  readonly letter: Letter
  /** Where it lies a part of the letter's height up from its foot. */
  readonly low: Span
  readonly high: Span
  readonly lowAt: number
  readonly highAt: number
  /** Straight across the stroke, not along the line. */
  readonly thick: number
  /** Units that it leans to the right for each unit of height. */
  readonly lean: number
}

/**
 * Where the stems of letters stand: which stretch of ink, counted from the left, and at which two parts of the height
 * nothing but the stem is met. The bars of H, h and n lie between or above them.
 */
const places: readonly (readonly [string, 'first' | 'last', number, number])[] = [
  ['l', 'first', 0.3, 0.7],
  ['h', 'first', 0.2, 0.8],
  ['n', 'first', 0.25, 0.55],
  ['n', 'last', 0.25, 0.5],
  ['h', 'last', 0.15, 0.4],
  ['m', 'first', 0.25, 0.55],
  ['H', 'first', 0.2, 0.8],
  ['H', 'last', 0.2, 0.8],
  ['T', 'first', 0.2, 0.6],
  ['L', 'first', 0.4, 0.75],
  ['E', 'first', 0.25, 0.75],
]

function stemIn(letter: Letter, which: 'first' | 'last', low: number, high: number): Stem | null {
  const at = (part: number) => letter.box.bottom + heightOf(letter) * part
  const pick = (part: number) => inkAlong(letter.edges, 'x', at(part)).at(which === 'first' ? 0 : -1)
  const [below, above] = [pick(low), pick(high)]
  if (!below || !above) return null
  const lean = (above.from + above.to - below.from - below.to) / 2 / (high - low) / heightOf(letter)
  const thick = ((lengthOf(below) + lengthOf(above)) / 2) * Math.cos(Math.atan(lean))
  return { letter, low: below, high: above, lowAt: at(low), highAt: at(high), thick, lean }
}

/** The stems of the letters that have one in most hands: lower case first. */
export function stemsOf(letters: Letters): Stem[] {
  return places.flatMap(([character, which, low, high]) => {
    const letter = letters(character)
    const stem = letter && stemIn(letter, which, low, high)
    return stem ? [stem] : []
  })
}

/** Thickness of the stems of lower case, or of capitals where the face has none: their median. */
export function stemThickness(letters: Letters): number | null {
  const of = (characters: string) =>
    places
      .filter(([character]) => characters.includes(character))
      .flatMap(([character, which, low, high]) => {
        const letter = letters(character)
        return (letter && stemIn(letter, which, low, high)?.thick) ?? []
      })
  return median(of('lhn')) ?? median(of('HTLE'))
}

/** From the outer edge of a letter's first stem to that of its last, serifs left out. Font units. */
export function acrossStems(letters: Letters, character: string, part: number): number | null {
  const letter = letters(character)
  if (!letter) return null
  const spans = inkAlong(letter.edges, 'x', letter.box.bottom + heightOf(letter) * part)
  return spans.length < 2 ? null : spans.at(-1)!.to - spans[0]!.from
}

/** How far the stems lean to the right of upright: the median over the stems, in degrees. */
export function slantOf(stems: readonly Stem[]): number | null {
  const lean = median(stems.map(each => each.lean))
  return lean === null ? null : (Math.atan(lean) * 180) / Math.PI
}

/**
 * How much the edges of stems stray from a straight line, as a share of their thickness: next to nothing in what was
 * drawn with a ruler, more in what a hand wrote. The median over the stems.
 */
export function waverOf(stems: readonly Stem[]): number | null {
  return median(
    stems.flatMap(({ letter, low, high, lowAt, highAt, thick }) => {
      if (thick <= 0) return []
      const strays: number[] = []
      for (let step = 0; step <= 8; step++) {
        const y = lowAt + ((highAt - lowAt) * step) / 8
        const middle = (low.from + low.to + ((high.from + high.to - low.from - low.to) * step) / 8) / 2
        const span = inkAlong(letter.edges, 'x', y).find(each => each.from <= middle && each.to >= middle)
        if (span) strays.push(span.from - middle + thick / 2, span.to - middle - thick / 2)
      }
      return strays.length < 6 ? [] : [deviation(strays) / thick]
    }),
  )
}
