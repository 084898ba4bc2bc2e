import type { Rules } from '../document/rules'
import { oddFrom, PairWhites, type PairWhite } from '../font/kerning/oddness'
import { usualPairs } from '../font/kerning/usual-pairs'
import type { Reading } from '../style/reading'
import type { Typesetter } from '../typeset/look'
import { pairSource } from '../typeset/pair-source'
import { documentPairs, type DocumentPair, type FacePairs } from './pairs'

/** A pair of letters as it stands in a face of a document. Thousandths of an em. */
export interface KerningRow extends DocumentPair {
  /** What the face itself moves the two by. */
  readonly kern: number
  /** How it departs from what is usual beside these letters; null where that cannot be told. */
  readonly oddness: number | null
  /** What would bring it there. */
  readonly toUsual: number | null
  /** What the document corrects it by in this face, and in all faces of the family. */
  readonly inFace: number | null
  readonly inFamily: number | null
}

/** How a face of a document is kerned. */
export interface FaceKerning {
  readonly hash: string
  readonly family: string
  readonly style: string
  /** Pairs of the document's text in it. */
  readonly count: number
  /** Shares of the usual pairs, 0 to 1: kerned by the face, and odd. Null where it lacks their letters. */
  readonly usual: { readonly kerned: number; readonly odd: number } | null
  /** Those in the document first, the oddest before the others; then usual ones that are odd and that it does not have. */
  readonly rows: readonly KerningRow[]
}

/** As many pairs of a face are told. */
const rowLimit = 1500
/** Where more than this share of the usual pairs is odd, single pairs are not what is wrong with a face. */
export const offThroughout = 0.1

const amountOf = (
  kerning: Rules['kerning'],
  family: string,
  style: string | undefined,
  { left, right }: DocumentPair,
) =>
  kerning.find(each => each.family === family && each.style === style && each.left === left && each.right === right)
    ?.amount ?? null

const letters = (pairs: readonly DocumentPair[]) => new Set(pairs.flatMap(({ left, right }) => [left, right]))

/**
 * The pairs of letters of a document's faces, with what stands out among them; a face at a time, so that whoever waits for
 * something else may go between.
 */
export function* listKerning(reading: Reading, typesetter: Typesetter): Generator<FaceKerning> {
  for (const found of documentPairs(reading, typesetter)) {
    const own = kerningOf(found, reading, typesetter)
    if (own) yield own
  }
}

function kerningOf({ face, pairs }: FacePairs, { cascade }: Reading, { shaper }: Typesetter): FaceKerning | null {
  const source = pairSource(shaper, face)
  if (!source) return null
  const whites = new PairWhites(source, face.measures, letters(pairs))
  const row = (pair: DocumentPair, white: PairWhite | null): KerningRow => ({
    ...pair,
    kern: source.kern(pair.left, pair.right) ?? 0,
    oddness: white?.oddness ?? null,
    toUsual: white?.toUsual ?? null,
    inFace: amountOf(cascade.rules.kerning, face.family, face.style, pair),
    inFamily: amountOf(cascade.rules.kerning, face.family, undefined, pair),
  })
  const own = pairs.map(pair => row(pair, whites.of(pair.left, pair.right)))
  const has = new Set(pairs.map(({ left, right }) => JSON.stringify([left, right])))
  const others = usualPairs.flatMap(([left, right]) => {
    if (has.has(JSON.stringify([left, right]))) return []
    const white = whites.of(left, right)
    return white && Math.abs(white.oddness) >= oddFrom ? [row({ left, right, count: 0, places: [] }, white)] : []
  })
  const far = ({ oddness }: KerningRow) => Math.abs(oddness ?? 0)
  const byOddness = (one: KerningRow, other: KerningRow) => far(other) - far(one) || other.count - one.count
  return {
    hash: face.hash,
    family: face.family,
    style: face.style,
    count: pairs.reduce((sum, pair) => sum + pair.count, 0),
    usual: whites.usual(),
    rows: [...own.sort(byOddness), ...others.sort(byOddness)].slice(0, rowLimit),
  }
}
