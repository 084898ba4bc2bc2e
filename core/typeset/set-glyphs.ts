import type { Look, Typesetter } from './look'
import type { Glyphs } from './word-shapes'
import { latin } from './unicode-tables'

/** Glyphs of one look, at a place in a line: x in points from where the stretch begins. */
export interface SetGlyphs {
  readonly look: Look
  readonly glyphs: Glyphs
  readonly unitsPerEm: number
  readonly from: number
  readonly to: number
  readonly x: number
  readonly width: number
}

/** A string that stands alone: `at` is where in a text it belongs, `x` where it begins. */
export function setString(typesetter: Typesetter, text: string, look: Look, at = 0, x = 0): SetGlyphs[] {
  const set: SetGlyphs[] = []
  let from = x
  // Spaces are words here: the string is short and stands alone.
  for (const part of typesetter.mixed(look, typesetter.words.number(text))) {
    const made = setWord(typesetter, part.look, part.word, latin, false, at, at, from)
    set.push(made)
    from += made.width
  }
  return set
}

export function setWord(
  typesetter: Typesetter,
  look: Look,
  word: number,
  script: number,
  rightToLeft: boolean,
  from: number,
  to: number,
  x: number,
): SetGlyphs {
  const shapes = typesetter.shapes(look, script, rightToLeft)
  const glyphs = shapes.glyphs(word)
  return {
    look,
    glyphs,
    unitsPerEm: shapes.unitsPerEm,
    from,
    to,
    x,
    width: (shapes.widths[word]! * look.size * look.scale) / shapes.unitsPerEm + glyphs.count * look.letterSpacing,
  }
}

const zero: readonly number[] = [0]

export function spaceGlyphs(count: number, advance: number, glyph: number): Glyphs {
  if (count === 1)
    return { count, start: 0, ids: [glyph], clusters: zero, advances: [advance], xOffsets: zero, yOffsets: zero }
  const zeros = new Uint16Array(count)
  return {
    count,
    start: 0,
    ids: new Uint16Array(count).fill(glyph),
    clusters: Uint16Array.from({ length: count }, (_, index) => index),
    advances: new Float64Array(count).fill(advance),
    xOffsets: zeros,
    yOffsets: zeros,
  }
}

/**
 * Cuts the glyphs of a run at some offsets of its text, the first 0 and the last its length; clusters then count
 * from each cut.
 */
export function cutGlyphs(all: Glyphs, offsets: readonly number[]): Glyphs[] {
  const clusters = new Uint16Array(all.count)
  const rightToLeft = all.count > 1 && all.clusters[0]! > all.clusters[all.count - 1]!
  let glyph = rightToLeft ? all.count - 1 : 0
  const step = rightToLeft ? -1 : 1
  return offsets.slice(0, -1).map((from, at): Glyphs => {
    const first = glyph
    for (; glyph >= 0 && glyph < all.count && all.clusters[glyph]! < offsets[at + 1]!; glyph += step)
      clusters[glyph] = Math.max(all.clusters[glyph]! - from, 0)
    const count = Math.abs(glyph - first)
    return {
      count,
      start: rightToLeft ? glyph + 1 : first,
      ids: all.ids,
      clusters,
      advances: all.advances,
      xOffsets: all.xOffsets,
      yOffsets: all.yOffsets,
    }
  })
}
