import type { FaceRecord } from '../font/face'
import type { PairSource } from '../font/kerning/sides'
import type { Feature } from './harfbuzz'
import type { Shaper } from './shaper'
import type { WordShapes } from './word-shapes'
import { latin, scriptCodes, scriptTable } from './unicode-tables'

/**
 * How a face's letters are drawn and set, by the engine that sets documents in it. Null where its file cannot be had.
 * `features` are those that text has on or off: without kerning pairs stand as letters by themselves do.
 */
export function pairSource(
  shaper: Shaper,
  face: FaceRecord,
  language = '',
  features: readonly Feature[] = [],
): PairSource | null {
  const font = shaper.font(face.hash)
  if (!font) return null
  const shapes = new Map<number, WordShapes>()
  const { of } = scriptTable()
  /** Width and number of glyphs of some text; of more than one letter, the script is that of a letter among them. */
  const set = (text: string): { readonly width: number; readonly glyphs: number } => {
    const script =
      [...text].map(each => of[each.codePointAt(0)!]!).find(own => /^(?!Zyyy|Zinh)/.test(scriptCodes[own]!)) ?? latin
    let own = shapes.get(script)
    if (!own) {
      own = shaper.wordShapes({
        face: face.hash,
        axes: [],
        transform: 'none',
        corrections: [],
        run: { rightToLeft: false, script: scriptCodes[script]!, language, features },
      })
      shapes.set(script, own)
    }
    const word = shaper.words.number(text)
    own.ensure(word)
    return { width: (own.widths[word]! * 1000) / own.unitsPerEm, glyphs: own.counts[word]! }
  }
  const advances = new Map<string, number>()
  const advance = (character: string): number => {
    let width = advances.get(character)
    if (width === undefined) advances.set(character, (width = set(character).width))
    return width
  }
  return {
    outline(character) {
      const glyph = shaper.engine.nominal(font, character.codePointAt(0)!)
      return glyph ? shaper.outline(face.hash, glyph.glyph) : ''
    },
    advance,
    kern(left, right) {
      const { width, glyphs } = set(left + right)
      return glyphs === 2 ? width - advance(left) - advance(right) : null
    },
  }
}
