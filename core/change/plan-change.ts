import { listRules } from '../document/manifest'
import { readRules, rulesWith } from '../document/rules'
import { paragraphExtents } from '../typeset/compose'
import { DocumentSession } from '../session'
import { styleTitle } from '../style/reading'
import { compareCompositions } from './effects'
import type { Kind, Numbered } from './kind'
import { syncPairs } from './kerning/pair-spans'
import { NothingToPlan, type AnyWish, type Plan, type WishList } from './plan'
import { Planner } from './planner'
import { syncRules, takesLine, type LineEnds } from './rules/plan-rules'
import { dropStale } from '../document/stale'

/** A plan with the document as it would be. */
export interface Planned<W extends AnyWish = AnyWish> {
  readonly plan: Plan<W>
  readonly after: DocumentSession
}

export interface PlanOptions {
  /** Whether the plan says what it does to the pages, and rows how much text they are about. Default true. */
  readonly effects?: boolean
  /** Leaves wishes out that the document has nothing for, as a plan over many documents does. */
  readonly partly?: boolean
}

type Kinds = readonly Kind[]

/**
 * The kind of a wish. By generics alone a list of kinds cannot say that each gets its own wishes: the schema has seen
 * to that before.
 */
function kindOf(kinds: Kinds, wish: AnyWish): Kind {
  const kind = kinds.find(each => each.type === wish.type)
  if (!kind) throw new RangeError(`there is no kind of wish “${wish.type}”`)
  return kind
}

/** Neighbours that act at once, and all others by themselves, in order. */
function groupsOf(kinds: Kinds, wishes: readonly AnyWish[]): Numbered<AnyWish>[][] {
  const groups: Numbered<AnyWish>[][] = []
  let together = false
  wishes.forEach((wish, index) => {
    const atOnce = kindOf(kinds, wish).atOnce !== undefined
    if (atOnce && together) groups.at(-1)!.push({ wish, index })
    else groups.push([{ wish, index }])
    together = atOnce
  })
  return groups
}

/** Carries one group out: of wishes that act at once those first that leave the words where they are. */
function carryOut(kinds: Kinds, planner: Planner, group: readonly Numbered<AnyWish>[]): void {
  const types = [...new Set(group.map(({ wish }) => wish.type))].map(type => kindOf(kinds, { type }))
  for (const kind of types.sort((a, b) => Number(a.atOnce === 'last') - Number(b.atOnce === 'last')))
    planner.tell(
      kind.plan(
        planner,
        group.filter(({ wish }) => wish.type === kind.type),
      ),
    )
}

/** Where the first line of each paragraph of the body ends, as it is composed. */
function firstLines(session: DocumentSession): LineEnds {
  const extents = paragraphExtents(session.composition)
  return (part, node) => {
    const extent = extents.get(node)
    return extent?.paragraph.part === part ? (extent.layout.lines[0]?.end ?? null) : null
  }
}

/** Writes the rules where they have changed, with their entry in the manifest. */
function writeRules(planner: Planner): void {
  if (planner.rules === null) return
  const { change } = planner
  const text = rulesWith(change.document, planner.rules)
  if (JSON.stringify(planner.rules) === JSON.stringify(readRules(change.document))) return
  change.do({ type: 'write-rules', text })
  listRules(change)
}

const joined = (titles: readonly string[]): string =>
  titles.length > 3 ? `${titles.slice(0, 2).join('; ')}; and ${titles.length - 2} more` : titles.join('; ')

/** One pass over all wishes. `lineEnds` says where first lines end, for rules that take them. */
function planOnce(
  kinds: Kinds,
  session: DocumentSession,
  request: WishList,
  counts: boolean,
  lineEnds: LineEnds,
): Planned {
  const planner = new Planner(session, {
    leftOut: request.leftOut,
    counts,
    tryPlan: (from, wishes) => planOnce(kinds, from, { wishes, leftOut: request.leftOut }, false, lineEnds).after,
  })
  for (const group of groupsOf(kinds, request.wishes)) {
    planner.reread()
    carryOut(kinds, planner, group)
  }
  const acted = planner.change.operations.length > 0 || planner.rules !== null
  if (acted) {
    planner.reread()
    const own = planner.rows.length
    syncRules(planner, lineEnds)
    planner.reread()
    syncPairs(planner)
    writeRules(planner)
    planner.tell({ titles: [], ...planner.totals(own) })
  }
  const stale =
    planner.change.operations.length === 0
      ? { operations: [], said: [] }
      : dropStale(planner.document, planner.change.changedParts(session.document))
  for (const operation of stale.operations) planner.change.do(operation)
  const titleOf = (name: string) => styleTitle(planner.reading, name)
  const plan: Plan = {
    request,
    title: joined([...new Set(planner.titles)]).slice(0, 500),
    sentences: request.wishes.slice(0, 50).map(wish => kindOf(kinds, wish).sentence(wish, titleOf)),
    rows: planner.rows,
    left: planner.left,
    stale: stale.said,
    places: planner.places,
    characters: planner.characters,
    operations: planner.change.operations,
    effects: null,
    mappings: planner.mappings,
    groups: planner.groups,
    sizes: planner.sizes,
    missingGlyphs: planner.missingGlyphs,
    made: planner.made,
  }
  const after =
    planner.change.operations.length === 0
      ? session
      : new DocumentSession(planner.document, session.typesetter, session)
  return { plan, after }
}

/** Passes until first lines stand where the rules that take them found them. */
const lineRounds = 3

/**
 * Plans wishes of any kinds as one change: what would change, what stays, what it does to the pages, and the document
 * as it would be. A pure function: the document of the session is not changed. What it does to first lines is looked at
 * until it stands, three times at most.
 * @throws PlanError when a wish cannot be met at all
 */
export function planChange(
  kinds: Kinds,
  session: DocumentSession,
  asked: WishList,
  { effects = true, partly = false }: PlanOptions = {},
): Planned {
  const request = partly ? thatApply(kinds, session, asked) : asked
  const takesLines = (of: DocumentSession) => readRules(of.document).leadIns.some(takesLine)
  const pass = (lines: DocumentSession | null) =>
    planOnce(kinds, session, request, effects, lines ? firstLines(lines) : () => null)
  let planned = pass(takesLines(session) ? session : null)
  for (let round = 0; round < lineRounds && takesLines(planned.after); round++) {
    const next = pass(planned.after)
    if (JSON.stringify(next.plan.operations) === JSON.stringify(planned.plan.operations)) break
    planned = next
  }
  if (!effects) return planned
  const { plan, after } = planned
  return { plan: { ...plan, effects: compareCompositions(session.composition, after.composition) }, after }
}

/** The wishes that a document has something for. @throws NothingToPlan where there are none */
function thatApply(kinds: Kinds, { document }: DocumentSession, request: WishList): WishList {
  const wishes = request.wishes.filter(wish => kindOf(kinds, wish).applies?.(document, wish) ?? true)
  if (wishes.length === 0)
    throw new NothingToPlan('This document has nothing that any of the wishes is about. Nothing was changed.')
  return { ...request, wishes }
}
