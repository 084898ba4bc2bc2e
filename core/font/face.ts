import { coveredScripts, type CoveredScript } from './measure/covered-scripts'
import type { ScriptMeasures } from './measure/scripts'
import type { TypeMeasures } from './measure/type-measures'

const scriptPatterns = coveredScripts.map(script => ({ script, pattern: new RegExp(`\\p{Script=${script}}`, 'u') }))

/** The script of a character (Unicode's Script property); null for signs that scripts share, and for other scripts. */
export const scriptOfCharacter = (character: string): CoveredScript | null =>
  scriptPatterns.find(({ pattern }) => pattern.test(character))?.script ?? null

/** What the licence bits of a font file allow (OpenType 1.9, OS/2 fsType). */
export type Embedding = 'installable' | 'editable' | 'preview' | 'restricted'

/** Sizes in thousandths of an em, so that faces compare whatever their grid. */
export interface FaceMeasures extends TypeMeasures {
  /** The script whose letters heights, strokes and width were measured on: Latin where it is there; null of signs alone. */
  readonly measuredOn: CoveredScript | null
  /** What the letters of each further script say that the face can set words in. */
  readonly scripts: Readonly<Partial<Record<CoveredScript, ScriptMeasures>>>
  /** Top of x, from its outline; of another script the height of its plain letters. */
  readonly xHeight: number
  /** Top of H. */
  readonly capHeight: number
  /** Top of d and depth of p, from their outlines; the depth is positive. */
  readonly ascender: number
  readonly descender: number
  /** Mean advance of lower-case text with spaces, letters weighted by their frequency. */
  readonly averageWidth: number
  /** What lines are built from: the file's own ascent, descent (positive) and gap. */
  readonly lineAscent: number
  readonly lineDescent: number
  readonly lineGap: number
  readonly underlinePosition: number
  readonly underlineThickness: number
  readonly strikePosition: number
  readonly strikeThickness: number
}

/** An axis of a variable file, with the values it goes between and the one it begins at. */
export interface FaceAxis {
  readonly tag: string
  /** What its maker calls it; not there where the file does not say. */
  readonly name?: string
  readonly least: number
  readonly most: number
  readonly usual: number
}

/** One face of the library, as read from its file. */
export interface FaceRecord {
  /** SHA-256 of the file, in hexadecimal: what it is fetched by. */
  readonly hash: string
  readonly family: string
  /** Typographic subfamily, for instance “SemiBold Italic”. */
  readonly style: string
  readonly fullName: string
  readonly postScriptName: string
  /** 1 to 1000. */
  readonly weight: number
  /** Percent of normal width: 50 to 200. */
  readonly width: number
  readonly slant: 'upright' | 'italic'
  readonly monospaced: boolean
  readonly measures: FaceMeasures
  /** Letters it has, per script. */
  readonly coverage: Readonly<Partial<Record<CoveredScript, number>>>
  /** Code points it has, as first and last of each run, ascending. */
  readonly ranges: readonly number[]
  /** What the file says of its licence: description and address (OpenType 1.9, name ids 13 and 14), or “not stated”. */
  readonly licence: string
  readonly embedding: Embedding
  /** OpenType features that the file has for exchanging and placing glyphs, by their tags. */
  readonly features: readonly string[]
  /** Axes of a variable file (OpenType 1.9, fvar); none for a face of one form. */
  readonly axes: readonly FaceAxis[]
  /**
   * Of a face that a variable file opens into: the SHA-256 of that file, which is passed on in its place. A face at a place that
   * somebody chose has none: no other desk would find it in the file.
   */
  readonly cutFrom?: string
  /** Panose as the file has it, ten numbers. */
  readonly panose: readonly number[]
  /** Where it came from: shipped with the desk, on the system, or added. */
  readonly source: 'shipped' | 'system' | 'added'
  readonly fileSize: number
}

/** Letters below which a script is not set in words. Of Han, a few hundred are no help. */
const enough: Readonly<Record<CoveredScript, number>> = {
  Latin: 52,
  Greek: 48,
  Cyrillic: 60,
  Hebrew: 22,
  Arabic: 36,
  Devanagari: 50,
  Thai: 44,
  Han: 2000,
  Hiragana: 46,
  Katakana: 46,
  Hangul: 2000,
}

/** Scripts that a face has letters enough of. */
export const scriptsOf = ({ coverage }: Pick<FaceRecord, 'coverage'>): CoveredScript[] =>
  coveredScripts.filter(script => (coverage[script] ?? 0) >= enough[script])

/** What a face's letters of a script say; null where that was not measured. */
export const measuresIn = ({ measures }: Pick<FaceRecord, 'measures'>, script: CoveredScript): ScriptMeasures | null =>
  measures.measuredOn === script ? measures : (measures.scripts[script] ?? null)

/** Whether a face has a glyph for a code point. */
export function covers(face: FaceRecord, codePoint: number): boolean {
  const { ranges } = face
  let low = 0
  let high = ranges.length / 2 - 1
  while (low <= high) {
    const middle = (low + high) >> 1
    if (codePoint < ranges[middle * 2]!) high = middle - 1
    else if (codePoint > ranges[middle * 2 + 1]!) low = middle + 1
    else return true
  }
  return false
}

/** Signs that ask for no glyph of their own: breaks, joiners, direction marks, variation selectors. */
export function needsNoGlyph(codePoint: number): boolean {
  return (
    codePoint < 0x20 ||
    codePoint === 0xad ||
    (codePoint >= 0x200b && codePoint <= 0x200f) ||
    (codePoint >= 0x2028 && codePoint <= 0x202e) ||
    (codePoint >= 0x2060 && codePoint <= 0x206f) ||
    (codePoint >= 0xfe00 && codePoint <= 0xfe0f) ||
    codePoint === 0xfeff
  )
}

const weightNames: readonly (readonly [number, string])[] = [
  [100, 'Thin'],
  [200, 'ExtraLight'],
  [300, 'Light'],
  [400, 'Regular'],
  [500, 'Medium'],
  [600, 'SemiBold'],
  [700, 'Bold'],
  [800, 'ExtraBold'],
  [900, 'Black'],
]

/** The usual name of a weight (OpenType OS/2 usWeightClass) and posture: “SemiBold Italic”. */
export function styleName(weight: number, italic: boolean): string {
  const name = weightNames.reduce((best, each) =>
    Math.abs(each[0] - weight) < Math.abs(best[0] - weight) ? each : best,
  )[1]
  if (!italic) return name
  return name === 'Regular' ? 'Italic' : `${name} Italic`
}

/**
 * Weight and posture that a style name says, for instance of “Spectral SemiBold Italic” its last two words; null
 * where it says none.
 */
export function parseStyleName(
  name: string,
): { readonly weight: number; readonly italic: boolean; readonly rest: string } | null {
  let rest = name.trim()
  let weight: number | null = null
  let italic = false
  const words: readonly (readonly [RegExp, number])[] = [
    [/[\s-]*\b(thin|hairline)$/i, 100],
    [/[\s-]*\b(extra|ultra)[\s-]?light$/i, 200],
    [/[\s-]*\blight$/i, 300],
    [/[\s-]*\b(regular|normal|book|roman)$/i, 400],
    [/[\s-]*\bmedium$/i, 500],
    [/[\s-]*\b(semi|demi)[\s-]?bold$/i, 600],
    [/[\s-]*\bdemi$/i, 600],
    [/[\s-]*\b(extra|ultra)[\s-]?bold$/i, 800],
    [/[\s-]*\bbold$/i, 700],
    [/[\s-]*\b(black|heavy)$/i, 900],
  ]
  const slanted = /[\s-]*\b(italic|oblique|kursiv)$/i
  for (let again = true; again;) {
    again = false
    if (slanted.test(rest)) {
      rest = rest.replace(slanted, '')
      italic = true
      again = true
    }
    const word: readonly [RegExp, number] | undefined =
      weight === null ? words.find(([pattern]) => pattern.test(rest)) : undefined
    if (word) {
      rest = rest.replace(word[0], '')
      weight = word[1]
      again = true
    }
  }
  if (weight === null && !italic) return null
  return { weight: weight ?? 400, italic, rest: rest.trim() }
}

/** The pitch of a face, as OpenDocument names it (style:font-pitch). */
export const pitchOf = ({ monospaced }: FaceRecord): 'fixed' | 'variable' => (monospaced ? 'fixed' : 'variable')

/**
 * A face as people say it: the family with its style, unless the family's name says the style already (“Jost
 * Medium”).
 */
export function faceName(family: string, style: string): string {
  return style === 'Regular' && parseStyleName(family) !== null ? family : `${family} ${style}`
}
