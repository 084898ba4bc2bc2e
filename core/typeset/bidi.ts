/// <reference path="./packages.d.ts" />
import bidiFactory from 'bidi-js'

const bidi = bidiFactory()
const rightToLeftSign = /[\u0590-\u08FF\u202B\u202E\u2067\uFB1D-\uFDFF\uFE70-\uFEFC]|\uD802|\uD803|\uD83A|\uD83B/

/** Embedding levels of UAX #9, one for each UTF-16 unit; null where everything runs from left to right. */
export function embeddingLevels(text: string, rightToLeft: boolean): Uint8Array | null {
  return rightToLeft || rightToLeftSign.test(text)
    ? bidi.getEmbeddingLevels(text, rightToLeft ? 'rtl' : 'ltr').levels
    : null
}

/** Puts the pieces of a line into visual order: rule L2 of UAX #9. */
export function visualOrder<T extends { readonly level: number }>(pieces: readonly T[]): readonly T[] {
  let highest = 0
  let lowestOdd = 255
  for (const { level } of pieces) {
    if (level > highest) highest = level
    if (level % 2 === 1 && level < lowestOdd) lowestOdd = level
  }
  if (highest === 0) return pieces
  const ordered = [...pieces]
  for (let level = highest; level >= lowestOdd; level--) {
    for (let start = 0; start < ordered.length; start++) {
      if (ordered[start]!.level < level) continue
      let end = start
      while (end < ordered.length && ordered[end]!.level >= level) end++
      ordered.splice(start, end - start, ...ordered.slice(start, end).reverse())
      start = end
    }
  }
  return ordered
}
