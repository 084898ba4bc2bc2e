import type { CatalogueEntry } from '../catalogue'

/** A measure that can be asked for by its figure. */
export interface AskedMeasure {
  readonly key: string
  readonly words: readonly string[]
  of(entry: CatalogueEntry): number | null
}

/** Measures that a search takes figures of. Lengths in thousandths of an em. */
export const askedMeasures: readonly AskedMeasure[] = [
  { key: 'x-height', words: ['x-height', 'x height', 'xheight'], of: e => e.plain.measures.xHeight },
  { key: 'cap height', words: ['cap height', 'cap-height', 'capital height'], of: e => e.plain.measures.capHeight },
  { key: 'ascender', words: ['ascender', 'ascenders'], of: e => e.plain.measures.ascender },
  { key: 'descender', words: ['descender', 'descenders'], of: e => e.plain.measures.descender },
  { key: 'stem', words: ['stem', 'stems'], of: e => e.plain.measures.stem },
  { key: 'hairline', words: ['hairline', 'hairlines'], of: e => e.plain.measures.hairline },
  { key: 'contrast', words: ['contrast'], of: e => e.plain.measures.contrast },
  { key: 'stress', words: ['stress'], of: e => e.plain.measures.stress },
  { key: 'aperture', words: ['aperture'], of: e => e.plain.measures.aperture },
  { key: 'width', words: ['width', 'average width'], of: e => e.plain.measures.averageWidth },
  { key: 'slant', words: ['slant'], of: e => e.plain.measures.slant },
  { key: 'weights', words: ['weights'], of: e => e.weights.length },
  { key: 'faces', words: ['faces', 'styles'], of: e => e.faces.length },
]

/** What is asked of a measure. */
export interface Bounds {
  readonly least: number | null
  readonly most: number | null
}

const number = String.raw`(-?\d+(?:\.\d+)?)`
const forms: readonly (readonly [RegExp, (a: number, b: number) => Bounds])[] = [
  [new RegExp(`^(?:over|above|more than|at least|from|>=?)\\s*${number}`), a => ({ least: a, most: null })],
  [new RegExp(`^(?:under|below|less than|at most|up to|<=?)\\s*${number}`), a => ({ least: null, most: a })],
  [
    new RegExp(`^(?:between\\s+|from\\s+)?${number}\\s*(?:-|–|to|and)\\s*${number}`),
    (a, b) => ({ least: Math.min(a, b), most: Math.max(a, b) }),
  ],
  // A bare figure means about as much.
  [
    new RegExp(`^(?:of\\s+|about\\s+|near\\s+|=\\s*)?${number}`),
    a => ({ least: Math.round(a * 0.97 * 100) / 100, most: Math.round(a * 1.03 * 100) / 100 }),
  ],
]

/** A measure with bounds at the beginning of some words, and how many letters say it; null where there is none. */
export function readMeasure(
  words: string,
): { readonly measure: AskedMeasure; readonly bounds: Bounds; readonly length: number } | null {
  for (const measure of askedMeasures) {
    for (const name of measure.words) {
      if (!words.startsWith(name)) continue
      const rest = words.slice(name.length)
      const space = /^\s+/.exec(rest)?.[0].length ?? 0
      for (const [form, bounds] of forms) {
        const found = form.exec(rest.slice(space))
        if (found && (space > 0 || /^[<>=]/.test(rest)))
          return {
            measure,
            bounds: bounds(Number(found[1]), Number(found[2])),
            length: name.length + space + found[0].length,
          }
      }
    }
  }
  return null
}

/** Bounds in words. */
export function boundsSaid({ measure, bounds: { least, most } }: { measure: AskedMeasure; bounds: Bounds }): string {
  if (least !== null && most !== null) return `${measure.key} ${least} to ${most}`
  return least !== null ? `${measure.key} ${least} or more` : `${measure.key} ${most} or less`
}
