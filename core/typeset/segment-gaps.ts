import { kinds } from './analysis'
import { mixes } from './look'
import type { SegmentedText } from './shaped-stretches'
import { lacksGlyphs, reachesSpaces } from './word-shapes'
import { scriptTable } from './unicode-tables'

const ideographic = new Set(['Hani', 'Hira', 'Kana', 'Bopo'])
const alphabetic = /[\p{Script=Latin}\p{Script=Greek}\p{Script=Cyrillic}0-9]/u

/**
 * Where a line may end within a word (“/”, “-”) its parts are shaped each by itself, whether or not a span begins there, too:
 * what the face moves the letters at the border together or apart counts as room between them, which is gone where the line
 * ends there.
 */
export function kernedBorders(text: SegmentedText, isWhole: (segment: number) => boolean): Map<number, number> | null {
  const { analysis, looks, typesetter } = text
  let gaps: Map<number, number> | null = null
  const { kind, run, script, level, starts } = analysis
  const { names } = scriptTable()
  for (let at = 0; at + 1 < analysis.segments; at++) {
    if (kind[at] !== kinds.word || kind[at + 1] !== kinds.word) continue
    // What was shaped as a whole holds it already.
    if (isWhole(at) && isWhole(at + 1)) continue
    if (looks[run[at]!] !== looks[run[at + 1]!] || script[at] !== script[at + 1] || level[at] !== level[at + 1])
      continue
    const look = looks[run[at]!]!
    // East Asian text is set solid (JLREQ 2.1.2): each of its letters ends a part.
    if (look.hidden || mixes(look) || ideographic.has(names[script[at]!]!)) continue
    const border = starts[at + 1]!
    const before = [...analysis.text.slice(Math.max(border - 2, starts[at]!), border)].at(-1)!
    const after = String.fromCodePoint(analysis.text.codePointAt(border)!)
    if (before === '\u00AD') continue
    const shapes = text.shapesOf(at, look)
    const [pair, one, other] = [before + after, before, after].map(each => typesetter.words.number(each))
    for (const word of [pair!, one!, other!]) shapes.ensure(word)
    if (((shapes.flags[pair!]! | shapes.flags[one!]! | shapes.flags[other!]!) & (lacksGlyphs | reachesSpaces)) !== 0)
      continue
    const kerned = shapes.widths[pair!]! - shapes.widths[one!]! - shapes.widths[other!]!
    if (kerned === 0) continue
    gaps ??= new Map()
    gaps.set(at, (kerned * look.size * look.scale) / shapes.unitsPerEm)
  }
  return gaps
}

/** A quarter of an em between East Asian and other letters (style:text-autospace; JLREQ 3.2.6), by the segment before it; into `known`. */
export function autospaces(
  { analysis, looks }: Pick<SegmentedText, 'analysis' | 'looks'>,
  known: Map<number, number> | null,
): Map<number, number> | null {
  let gaps = known
  const { names, of } = scriptTable()
  const isIdeographic = (character: string) => ideographic.has(names[of[character.codePointAt(0)!]!]!)
  for (let at = 0; at + 1 < analysis.segments; at++) {
    if (analysis.kind[at] !== kinds.word || analysis.kind[at + 1] !== kinds.word) continue
    const border = analysis.starts[at + 1]!
    const before = analysis.text.charAt(border - 1)
    const after = analysis.text.charAt(border)
    if ((isIdeographic(before) && alphabetic.test(after)) || (alphabetic.test(before) && isIdeographic(after))) {
      gaps ??= new Map()
      gaps.set(at, (gaps.get(at) ?? 0) + looks[analysis.run[at]!]!.size * 0.25)
    }
  }
  return gaps
}
