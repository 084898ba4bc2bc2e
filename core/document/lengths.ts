const pointsPer: Readonly<Record<string, number>> = { pt: 1, in: 72, cm: 72 / 2.54, mm: 72 / 25.4, pc: 12, px: 0.75 }

const lengths = new Map<string, number | null>()

/** A length of ODF 1.4 part 3, 18.3.18 in points; null where it is none. CSS pixels are 1/96 inch. */
export function points(value: string | undefined): number | null {
  if (value === undefined) return null
  // A document writes the same few lengths over and over.
  let known = lengths.get(value)
  if (known === undefined) {
    if (lengths.size > 5000) lengths.clear()
    lengths.set(value, (known = readPoints(value)))
  }
  return known
}

function readPoints(value: string): number | null {
  const match = /^\s*([+-]?(?:\d+\.?\d*|\.\d+))\s*(pt|in|cm|mm|pc|px)\s*$/.exec(value)
  return match ? Number(match[1]) * pointsPer[match[2]!]! : null
}

/** A length in points, as the file takes it: to a thousandth. */
export const lengthMarkup = (value: number): string => `${Math.round(value * 1000) / 1000}pt`
