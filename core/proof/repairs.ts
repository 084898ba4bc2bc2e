import { findRepairs, usualLimits } from '../change/repair/find-repairs'
import { mendLimit } from '../change/mend/wish'
import type { Wish, Registry } from '../change/registry'
import { settleAll } from '../change/styles/wishes'
import type { DocumentSession } from '../session'
import type { Repair, Stretch } from './check'
import type { Finding } from './finding'

/** Ranges that one wish takes. */
const rangeLimit = 20_000

const once = <T>(list: readonly T[]): T[] => [...new Map(list.map(each => [JSON.stringify(each), each])).values()]

const placeOf = ({ part, node }: Stretch): string => `${part}#${node}`

/** Slices of a list. */
const sliced = <T>(list: readonly T[], size: number): T[][] =>
  Array.from({ length: Math.ceil(list.length / size) }, (_, at) => list.slice(at * size, (at + 1) * size))

/**
 * The wishes that put findings right, as few as can be: what changes styles first, then text that goes back to its styles,
 * then text that is to look otherwise, and words last, since they move what stands behind them.
 */
export function repairWishes(
  findings: readonly Pick<Finding, 'repair'>[],
  session: DocumentSession,
  registry: Registry,
): Wish[] {
  const repairs = findings.flatMap(({ repair }) => (repair ? [repair] : []))
  const settle = once(repairs.flatMap(each => each.settle ?? []))
  const mends = once(repairs.flatMap(each => each.mends ?? []))
  return [
    ...once(repairs.flatMap(each => each.wishes ?? [])),
    ...sliced(settle, rangeLimit).map((ranges): Wish => ({
      ...settleAll,
      keep: [...settleAll.keep, 'case'],
      scope: { kind: 'ranges', ranges },
    })),
    ...lookWishes(repairs, settle),
    ...sliced(mends, mendLimit).map((places): Wish => ({ type: 'mend', places })),
    ...once(repairs.flatMap(each => (each.fit ? [each.fit] : []))).flatMap(each => fitWish(each, session, registry)),
  ]
}

/**
 * Text that is to look otherwise: all that gets the same look in one wish. What goes back to its styles in the same plan is
 * left to them: what is wrong then is found with the style that says it.
 */
function lookWishes(repairs: readonly Repair[], settled: readonly Stretch[]): Wish[] {
  const places = new Map<string, Stretch[]>()
  for (const each of settled) places.set(placeOf(each), [...(places.get(placeOf(each)) ?? []), each])
  const isSettled = (at: Stretch) =>
    (places.get(placeOf(at)) ?? []).some(each => each.from < at.to && each.to > at.from)
  const byChange = new Map<string, { change: object; ranges: Stretch[] }>()
  for (const { at, change } of repairs.flatMap(each => each.looks ?? [])) {
    if (isSettled(at)) continue
    const key = JSON.stringify(change)
    const group = byChange.get(key) ?? { change, ranges: [] }
    byChange.set(key, group)
    group.ranges.push(at)
  }
  return [...byChange.values()].flatMap(({ change, ranges }) =>
    sliced(once(ranges), rangeLimit).map((own): Wish => ({
      type: 'recast',
      find: { look: {}, scope: { kind: 'ranges', ranges: own } },
      change,
      colors: [],
    })),
  )
}

/** The gentlest way within the usual limits by which a frame holds its text; none where there is none. */
function fitWish({ part, node }: NonNullable<Repair['fit']>, session: DocumentSession, registry: Registry): Wish[] {
  const options = findRepairs(
    session,
    session,
    { part, node, of: 'frame', limits: usualLimits },
    wish => registry.plan(session, { wishes: [wish], leftOut: [] }, { effects: false }).after,
  )
  const option = options.find(each => each.mends)
  return option ? [{ type: 'repair', repair: option.repair }] : []
}
