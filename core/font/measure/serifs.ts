import { heightOf, type Letters } from './letters'
import { inkAlong, lengthOf, median, type Span } from './outline'
import { stemsOf, type Stem } from './stems'

/** What ends the stems at their feet. */
export interface Serifs {
  /** Width of the foot over the stem's: 1 where there are no serifs. */
  readonly foot: number
  /** How far the foot reaches out on its shorter side, over the stem's width: serifs reach out on both. */
  readonly bothSides: number
  /** Height of the serif near its tip; null without serifs. Font units. */
  readonly tip: number | null
  /** How much the serif runs into the stem by a curve: 0 where it meets it at a corner, about 1 where it is a wedge. */
  readonly bracket: number | null
}

/** Letters that stand on feet. The capital I is not asked: some faces without serifs give it slabs, to tell it from l. */
const footed = { upright: 'HLThnlm', slanted: 'HLT' } as const
/** L stands on its arm: its serif is the one at the top. */
const upsideDown = 'L'

interface Foot {
  readonly ratio: number
  readonly shorter: number
  readonly tip: number | null
  readonly bracket: number | null
}

function footOf(stem: Stem, character: string): Foot | null {
  const { letter, thick, lean } = stem
  const top = upsideDown.includes(character)
  const height = heightOf(letter)
  const edge = top ? letter.box.top : letter.box.bottom
  const at = (up: number) => (top ? edge - up : edge + up)
  const middleAt = (y: number) => (stem.low.from + stem.low.to) / 2 + lean * (y - stem.lowAt)
  const spanAt = (up: number): Span | undefined => {
    const y = at(up)
    const middle = middleAt(y)
    return inkAlong(letter.edges, 'x', y).find(each => each.from <= middle && each.to >= middle)
  }
  const across = thick / Math.cos(Math.atan(lean))
  let widest: Span | undefined
  let widestUp = 0
  for (const part of [0.008, 0.015, 0.025, 0.04, 0.06]) {
    const span = spanAt(height * part)
    if (span && (!widest || lengthOf(span) > lengthOf(widest))) {
      widest = span
      widestUp = height * part
    }
  }
  if (!widest || across <= 0) return null
  const middle = middleAt(at(widestUp))
  const [left, right] = [middle - across / 2 - widest.from, widest.to - middle - across / 2]
  const ratio = lengthOf(widest) / across
  const shorter = Math.min(left, right) / across
  if (shorter < 0.12) return { ratio, shorter, tip: null, bracket: null }
  const tip = tipHeight(stem, widest, left, top)
  const above = tip === null ? undefined : spanAt(tip * 1.3 + height * 0.004)
  const bracket =
    above === undefined ? null : Math.max(0, Math.min(1, (lengthOf(above) - across) / (lengthOf(widest) - across)))
  return { ratio, shorter, tip, bracket }
}

/** Height of the serif a fifth of the way in from its tip on the left. */
function tipHeight({ letter }: Stem, foot: Span, left: number, top: boolean): number | null {
  const spans = inkAlong(letter.edges, 'y', foot.from + left * 0.2)
  const span = top ? spans.at(-1) : spans[0]
  return span ? lengthOf(span) : null
}

/**
 * Serifs, as medians over the feet of H, L, T, h, n, l and m; of slanted faces over those of H, L and T, since their
 * lower case often ends in strokes of the pen.
 */
export function serifsOf(letters: Letters, slanted: boolean): Serifs | null {
  const feet = [...footed[slanted ? 'slanted' : 'upright']].flatMap(character =>
    stemsOf(only => (only === character ? letters(only) : undefined)).flatMap(stem => footOf(stem, character) ?? []),
  )
  const foot = median(feet.map(each => each.ratio))
  if (foot === null) return null
  const shorter = median(feet.map(each => each.shorter))!
  return {
    foot,
    bothSides: Math.max(0, shorter),
    tip: shorter < 0.12 ? null : median(feet.flatMap(each => each.tip ?? [])),
    bracket: shorter < 0.12 ? null : median(feet.flatMap(each => each.bracket ?? [])),
  }
}
