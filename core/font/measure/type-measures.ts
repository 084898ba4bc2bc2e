import { apertureOf, eyeOf, hairlineOf, roundnessOf, storeysOfA, storeysOfG, stressOf, thickOf } from './bowls'
import { figuresOf, type Figures } from './figures'
import { lettersOf, widthOf, type GlyphSource } from './letters'
import { serifsOf } from './serifs'
import { acrossStems, slantOf, stemsOf, stemThickness, waverOf } from './stems'
import { extraContoursOf, greyOf, jitterOf, joinedOf, roughnessOf, smallCapitalsOf, widthSpreadOf } from './texture'

/**
 * What the outlines of a face say of how it is drawn. Lengths in thousandths of an em; null where the face lacks what
 * it would be measured on. How each is measured, and where the notion comes from, stands in `docs/type.md`.
 */
export interface TypeMeasures {
  /** Median thickness of the stems of l, h and n, straight across; of H, T, L and E where those are absent; 0 where the face has none. */
  readonly stem: number
  /** A low percentile of thickness around o, e, c and s; 0 where the face has none. */
  readonly hairline: number
  /** Stem over hairline: 1 is even. */
  readonly contrast: number | null
  /** Degrees to the left of upright of the axis through the thinnest parts of o; null where the stroke is even. */
  readonly stress: number | null
  /** Width of the feet over the stems: 1 for a face without serifs. */
  readonly foot: number
  /** How far feet reach out on their shorter side, over the stem. */
  readonly footBothSides: number
  /** Height of the serifs near their tips. */
  readonly serif: number | null
  /** 0 where serifs meet stems at a corner, 1 where they are wedges. */
  readonly bracket: number | null
  /** How far e, c and a are open, as a share of the x-height. */
  readonly aperture: number | null
  /** Height of the eye of e. */
  readonly eye: number | null
  readonly storeysA: 1 | 2 | null
  readonly storeysG: 1 | 2 | null
  /** Area of o over that of its box: 0.785 for an ellipse. */
  readonly roundness: number | null
  /** Widths of the ink of M, n and o. */
  readonly widthM: number | null
  readonly widthN: number | null
  readonly widthO: number | null
  /** From stem to stem of n and of H, their outer edges, without serifs: the widths that faces with and without serifs share. */
  readonly acrossN: number | null
  readonly acrossH: number | null
  /** Spread of the advances of lower case over their mean. */
  readonly widthSpread: number | null
  /** Degrees that the stems lean to the right. */
  readonly slant: number
  /** How far edges of stems stray from a straight line, over the stem. */
  readonly waver: number | null
  /** Spread of the feet of letters that stand on the baseline. */
  readonly jitter: number
  /** Share of lower-case letters that reach the next one. */
  readonly joined: number | null
  /** Turning of outlines beyond that of smoothed ones, radians for every em. */
  readonly roughness: number | null
  /** Contours that letters have beyond what their form asks for. */
  readonly extraContours: number | null
  /** Share of lower-case letters that are drawn as capitals. */
  readonly smallCapitals: number
  /** Share of the band of the x-height that the ink of text would fill. */
  readonly grey: number | null
  readonly figures: Figures | null
}

/** What was measured beforehand, on letters of the face's own script. Thousandths of an em. */
export interface MeasuredOn {
  readonly xHeight: number
  readonly averageWidth: number
}

/** What a damaged outline makes infinite counts as nothing. */
const rounded = (value: number, places: number) =>
  Number.isFinite(value) ? Math.round(value * 10 ** places) / 10 ** places : 0

/** Measures how a face is drawn. `xHeight` and `averageWidth` in thousandths of an em, as they were measured before. */
export function measureType(source: GlyphSource, { xHeight, averageWidth }: MeasuredOn): TypeMeasures {
  const letters = lettersOf(source)
  const { unitsPerEm } = source
  const thousandths = (units: number | null) => (units === null ? null : rounded((units * 1000) / unitsPerEm, 1))
  const plain = (value: number | null, places = 3) => (value === null ? null : rounded(value, places))
  const units = (value: number) => (value * unitsPerEm) / 1000
  const stems = stemsOf(letters)
  const slant = slantOf(stems) ?? 0
  const stem = stemThickness(letters) ?? thickOf(letters)
  const hairline = hairlineOf(letters)
  const serifs = serifsOf(letters, Math.abs(slant) > 4)
  const width = (character: string) => {
    const letter = letters(character)
    return letter ? thousandths(widthOf(letter)) : null
  }
  return {
    stem: thousandths(stem) ?? 0,
    hairline: thousandths(hairline) ?? 0,
    contrast: stem !== null && hairline !== null && hairline > 0 ? rounded(stem / hairline, 2) : null,
    stress: plain(stressOf(letters), 1),
    foot: rounded(serifs?.foot ?? 1, 2),
    footBothSides: rounded(serifs?.bothSides ?? 0, 3),
    serif: thousandths(serifs?.tip ?? null),
    bracket: plain(serifs?.bracket ?? null, 2),
    aperture: plain(apertureOf(letters, units(xHeight))),
    eye: thousandths(eyeOf(letters)),
    storeysA: storeysOfA(letters),
    storeysG: storeysOfG(letters),
    roundness: plain(roundnessOf(letters)),
    widthM: width('M'),
    widthN: width('n'),
    widthO: width('o'),
    acrossN: thousandths(acrossStems(letters, 'n', 0.3)),
    acrossH: thousandths(acrossStems(letters, 'H', 0.25)),
    widthSpread: plain(widthSpreadOf(letters)),
    slant: rounded(slant, 1),
    waver: plain(waverOf(stems)),
    jitter: thousandths(jitterOf(letters)) ?? 0,
    joined: plain(joinedOf(letters, unitsPerEm), 2),
    roughness: plain(roughnessOf(letters, unitsPerEm), 2),
    extraContours: plain(extraContoursOf(letters), 1),
    smallCapitals: rounded(smallCapitalsOf(letters), 2),
    grey: plain(greyOf(letters, units(xHeight), units(averageWidth))),
    figures: figuresOf(letters, unitsPerEm),
  }
}
