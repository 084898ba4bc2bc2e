/** Widths of a paragraph's segments and units, in points: lent while it is composed, since most are never looked at again. */
export interface Lent {
  widths: Float64Array
  unitWidths: Float64Array
  unitSpaces: Float64Array
}

const lent: Lent[] = []
/** Paragraphs being composed at once: one inside the other, where frames hold text. */
let borrowed = 0

export const emptyWidths = (segments: number, units: number): Lent => ({
  widths: new Float64Array(segments),
  unitWidths: new Float64Array(units),
  unitSpaces: new Float64Array(units),
})

/** Room for so many; it is given back with `giveBack`, last lent first. */
export function borrow(segments: number, units: number): Lent {
  const pool = (lent[borrowed] ??= emptyWidths(0, 0))
  if (pool.widths.length < segments) pool.widths = new Float64Array(segments * 2)
  if (pool.unitWidths.length < units) {
    pool.unitWidths = new Float64Array(units * 2)
    pool.unitSpaces = new Float64Array(units * 2)
  }
  borrowed++
  return pool
}

export function giveBack(): void {
  borrowed--
}
