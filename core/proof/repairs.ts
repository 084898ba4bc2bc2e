import { findRepairs } from '../change/repair/find-repairs'
import { usualLimits } from '../change/repair/target'
import { mendLimit } from '../change/mend/wish'
import { PlanError } from '../change/plan'
import type { Wish, Registry } from '../change/registry'
import { settleAll, type EditWish } from '../change/styles/wishes'
import type { DocumentSession } from '../session'
import type { Repair } from './check'
import type { Finding } from './finding'
import type { Stretch } from './subject'

/** Ranges that one wish takes. */
const rangeLimit = 20_000

const once = <T>(list: readonly T[]): T[] => [...new Map(list.map(each => [JSON.stringify(each), each])).values()]

const placeOf = ({ part, node }: Stretch): string => `${part}#${node}`

/** Slices of a list. */
const sliced = <T>(list: readonly T[], size: number): T[][] =>
  Array.from({ length: Math.ceil(list.length / size) }, (_, at) => list.slice(at * size, (at + 1) * size))

/** So many frames are tried at once: the others are found again. */
const fitLimit = 40

/**
 * The wishes that put findings right, as few as can be: what changes styles first, then text that goes back to its styles,
 * then text that is to look otherwise, and words last, since they move what stands behind them. What is more than one
 * request takes of a kind is left for the next proof.
 */
export function repairWishes(
  findings: readonly Pick<Finding, 'repair'>[],
  session: DocumentSession,
  registry: Registry,
): Wish[] {
  const repairs = findings.flatMap(({ repair }) => (repair ? [repair] : []))
  const settle = once(repairs.flatMap(each => each.settle ?? []))
  const mends = once(repairs.flatMap(each => each.mends ?? []))
  const fits = once(repairs.flatMap(each => (each.fit ? [each.fit] : [])))
  return asTaken(registry, [
    ...editsTogether(foldsThatHold(once(repairs.flatMap(each => each.wishes ?? [])), session, registry)),
    ...sliced(settle, rangeLimit).map((ranges): Wish => ({
      ...settleAll,
      keep: [...settleAll.keep, 'case'],
      scope: { kind: 'ranges', ranges },
    })),
    ...lookWishes(repairs, settle),
    ...sliced(mends, mendLimit).map((places): Wish => ({ type: 'mend', places })),
    ...fits.slice(0, fitLimit).flatMap(each => fitWish(each, session, registry)),
  ])
}

/** Of each kind as many wishes as one request takes. */
function asTaken(registry: Registry, wishes: readonly Wish[]): Wish[] {
  const counts = new Map<string, number>()
  return wishes.filter(({ type }) => {
    const count = (counts.get(type) ?? 0) + 1
    counts.set(type, count)
    return count <= (registry.kinds.find(kind => kind.type === type)?.most ?? 0)
  })
}

/** So many voices are folded in one plan. */
const foldLimit = 12

/**
 * Leaves out what folds a voice that another fold takes away: each is tried on top of those before it. They are found again
 * when those are done.
 */
function foldsThatHold(wishes: readonly Wish[], session: DocumentSession, registry: Registry): Wish[] {
  const folds: Wish[] = []
  for (const wish of wishes.filter(each => each.type === 'fold-voice').slice(0, foldLimit * 2)) {
    if (folds.length === foldLimit) break
    try {
      registry.plan(session, { wishes: [...folds, wish], leftOut: [] }, { effects: false })
      folds.push(wish)
    } catch (error) {
      if (!(error instanceof PlanError)) throw error
    }
  }
  return [...folds, ...wishes.filter(each => each.type !== 'fold-voice')]
}

/** Changes of one style, which several checks may ask for, as one wish. */
function editsTogether(wishes: readonly Wish[]): Wish[] {
  const edits = new Map<string, EditWish>()
  const others: Wish[] = []
  for (const wish of wishes) {
    if (wish.type !== 'edit') {
      others.push(wish)
      continue
    }
    const key = JSON.stringify([wish.family, wish.name])
    const { text, paragraph, ...rest } = edits.get(key)?.changes ?? {}
    edits.set(key, {
      ...wish,
      changes: {
        ...rest,
        ...wish.changes,
        ...(text || wish.changes.text ? { text: { ...text, ...wish.changes.text } } : {}),
        ...(paragraph || wish.changes.paragraph ? { paragraph: { ...paragraph, ...wish.changes.paragraph } } : {}),
      },
    })
  }
  return [...others, ...edits.values()]
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
