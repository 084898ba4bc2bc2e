import { kinds } from './analysis'
import { hyphenPoints } from './hyphenate'
import type { LineMaker } from './lines'

/**
 * Every place where a unit may be divided, from left to right, with what stands before it set. Places beyond `room` are
 * left out, but for the first of them.
 */
export function divisions(
  maker: LineMaker,
  unit: number,
  from: number,
  room = Infinity,
): { at: number; width: number }[] {
  const { text, measure } = maker
  const { analysis } = text
  const found: { at: number; width: number }[] = []
  for (let segment = analysis.first[unit]!; segment < analysis.trailing[unit]!; segment++) {
    if (analysis.starts[segment + 1]! <= from) continue
    if (analysis.kind[segment] !== kinds.word || analysis.level[segment]! % 2 === 1) continue
    const look = text.looks[analysis.run[segment]!]!
    if (!look.hyphenate) continue
    const start = analysis.starts[segment]!
    const word = analysis.text.slice(start, analysis.starts[segment + 1]!)
    const { index: lead = 0 } = /[\p{L}\p{M}]/u.exec(word) ?? {}
    const length = /^[\p{L}\p{M}’'\u00AD-]*/u.exec(word.slice(lead))![0].length
    for (const point of hyphenPoints(word.slice(lead, lead + length), look.language)) {
      const at = start + lead + point
      if (point < measure.division.remain || length - point < measure.division.push || at <= from) continue
      const width = text.widthOf(from, at) + maker.hyphenWidth(at - 1)
      found.push({ at, width })
      if (width > room) return found
    }
  }
  return found
}

/** Divides a unit at the last point where its head and a hyphen fit. */
export function divide(
  maker: LineMaker,
  unit: number,
  from: number,
  room: number,
): { at: number; width: number; hyphen: boolean } | null {
  if (!maker.text.hyphenates) return null
  const fitting = divisions(maker, unit, from, room).findLast(each => each.width <= room)
  return fitting ? { ...fitting, hyphen: true } : null
}

/**
 * Cuts a word that no line can hold, at the last place between two characters where it fits; after the first at the
 * least.
 */
export function cutWord(
  maker: LineMaker,
  unit: number,
  from: number,
  room: number,
): { at: number; width: number; hyphen: boolean } | null {
  const { text } = maker
  const { analysis } = text
  const end = analysis.starts[analysis.trailing[unit]!]!
  const places: number[] = []
  // As many places as the line can hold, and as many again: a word may be longer than all its lines together.
  let wanted = 64
  for (let at = from; at < end;) {
    const size = analysis.text.codePointAt(at)! > 0xffff ? 2 : 1
    // Marks and joiners stay with what they stand on.
    if (at > from && !/^[\p{M}\u200D\uFE00-\uFE0F]$/u.test(analysis.text.slice(at, at + size))) places.push(at)
    at += size
    if (places.length < wanted) continue
    if (text.widthOf(from, places.at(-1)!) > room) break
    wanted *= 2
  }
  if (places.length === 0) return null
  let low = 0
  let high = places.length - 1
  while (low < high) {
    const middle = (low + high + 1) >> 1
    if (text.widthOf(from, places[middle]!) <= room) low = middle
    else high = middle - 1
  }
  return { at: places[low]!, width: text.widthOf(from, places[low]!), hyphen: false }
}
