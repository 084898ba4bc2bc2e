import type { CatalogueEntry } from '../font/catalogue'
import { inDetail, inProportions } from '../font/likeness'
import { placeOf } from './candidates'

/** Something that speaks for a pair, or against it, with its figures. */
export interface PairReason {
  readonly kind: 'for' | 'against'
  readonly said: string
}

/** Sizes at which the two faces stand, in points; where nothing is said of them, they are not spoken of. */
export interface PairSizes {
  readonly heading: number
  readonly body: number
}

const percent = (one: number, other: number) => Math.round(Math.abs(one / other - 1) * 100)
const whole = (value: number) => Math.round(value)

function onProportions(heading: CatalogueEntry, body: CatalogueEntry): PairReason[] {
  const [one, other] = [heading.plain.measures, body.plain.measures]
  const reasons: PairReason[] = []
  const xHeights = `x-heights ${whole(one.xHeight)} and ${whole(other.xHeight)}`
  const apart = percent(one.xHeight, other.xHeight)
  if (apart <= 4) reasons.push({ kind: 'for', said: `${xHeights}: they sit on one line` })
  else if (apart > 15)
    reasons.push({
      kind: 'against',
      said: `${xHeights}: at one size one looks ${apart} % larger, so set them by x-height`,
    })
  if (one.widthO !== null && other.widthO !== null) {
    const [run, otherRun] = [one.widthO / one.xHeight, other.widthO / other.xHeight]
    const difference = percent(run, otherRun)
    if (difference <= 6)
      reasons.push({ kind: 'for', said: `round letters as wide within ${Math.max(difference, 1)} %` })
    else if (difference > 25)
      reasons.push({ kind: 'for', said: `one runs ${difference} % wider: the difference is meant` })
  }
  if (one.storeysA !== null && one.storeysA === other.storeysA && one.storeysG === other.storeysG)
    reasons.push({ kind: 'for', said: `a and g are built alike` })
  return reasons
}

function onDetail(heading: CatalogueEntry, body: CatalogueEntry): PairReason[] {
  const [one, other] = [heading.classed, body.classed]
  const reasons: PairReason[] = []
  const contrasts = [heading.plain.measures.contrast, body.plain.measures.contrast]
  if (one.class !== other.class) reasons.push({ kind: 'for', said: `${one.class} beside ${other.class}` })
  else if (one.kind !== other.kind)
    reasons.push({ kind: 'for', said: `both ${one.class}, one ${one.kind}, one ${other.kind}` })
  if (contrasts[0] !== null && contrasts[1] !== null) {
    const said = `thick to thin ${contrasts[0]!.toFixed(1)} and ${contrasts[1]!.toFixed(1)}`
    if (percent(contrasts[0]!, contrasts[1]!) <= 12) reasons.push({ kind: 'for', said: `${said}: strokes alike` })
  }
  if (heading.classed.class === 'script' && body.classed.class === 'script')
    reasons.push({ kind: 'against', said: 'two hands beside each other quarrel' })
  return reasons
}

/**
 * What speaks for a pair and against it, each with the figures that it was read from. Never that it is the best.
 * @param sizes that the two are set at, where they are known
 */
export function reasonsFor(
  heading: CatalogueEntry,
  body: CatalogueEntry,
  sizes: PairSizes | null = null,
): PairReason[] {
  if (heading.family === body.family)
    return [{ kind: 'for', said: 'one family in both roles: weight and size alone tell them apart' }]
  const { mistake } = placeOf(heading, body)
  const [one, other] = [heading.plain.measures, body.plain.measures]
  const against: PairReason[] = [
    ...(mistake
      ? [
          {
            kind: 'against' as const,
            said:
              `alike in proportions (${inProportions(one, other).distance.toFixed(1)} steps) and in detail ` +
              `(${inDetail(one, other).distance.toFixed(1)}): a reader takes one for the other, badly set`,
          },
        ]
      : []),
    ...(sizes !== null && Math.abs(sizes.heading - sizes.body) < 0.05
      ? [{ kind: 'against' as const, said: 'heading and body have the same size' }]
      : []),
    ...(sizes !== null && sizes.heading > sizes.body && sizes.heading / sizes.body < 1.15
      ? [
          {
            kind: 'against' as const,
            said: `heading at ${sizes.heading} pt and body at ${sizes.body} pt are less than a step apart`,
          },
        ]
      : []),
  ]
  const fit = body.fitness.find(each => each.use === 'long reading')!
  if (!fit.fit) against.push({ kind: 'against', said: `${body.family} is not fit for long reading: ${fit.reason}` })
  const all = [...onProportions(heading, body), ...onDetail(heading, body), ...against]
  return [...all.filter(each => each.kind === 'for'), ...all.filter(each => each.kind === 'against')]
}
