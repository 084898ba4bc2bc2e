import { z } from 'zod'
import type { AnyWish, RowKey, WishList } from '../../core/change/plan'
import type { RecordedPlan } from '../../shared/api'

/*
 * Requests and plans as they were kept before all kinds of wish went by one door: swaps, recasts and wishes about styles
 * had shapes of their own, and rows had ids put together from text. Read once, by the migration.
 */

const place = z.looseObject({ part: z.string(), node: z.number() })
const texts = z.array(z.string()).default([])
const wishes = z.array(z.looseObject({})).default([])

const oldSwap = z.looseObject({
  wishes: z.array(z.looseObject({ from: z.looseObject({ family: z.string() }) })),
  struck: texts,
  faces: z.record(z.string(), z.string()).default({}),
  symbols: z.boolean().default(false),
  kept: texts,
  spared: z.array(place).default([]),
  repairs: z.array(z.looseObject({})).default([]),
})
const oldRecast = z.looseObject({ find: z.unknown(), change: z.unknown(), colors: z.unknown(), struck: texts })
const oldStyles = z.looseObject({ wishes, struck: texts })

/** An id of old: what it was put together from cannot be told for certain, so it is kept whole. */
const oldKey = (id: string): RowKey => (id === 'declarations' ? { what: id } : { what: 'old row', id })
const oldGroup = (id: string): RowKey => ({ what: 'old group', id })

/** Faces that were chosen by hand: their keys were family, style and slot with bars between. */
function chosenFaces(faces: Readonly<Record<string, string>>, family: string): object[] {
  return Object.entries(faces).flatMap(([key, to]) => {
    const [slot, style, ...rest] = key.split('|').reverse()
    return rest.reverse().join('|').toLowerCase() === family.toLowerCase() && slot && style ? [{ style, slot, to }] : []
  })
}

/** A request as it was kept under a kind, as it is asked today. */
export function upgradeRequest(kind: string, value: unknown): WishList {
  if (kind === 'swap') {
    const old = oldSwap.parse(value)
    const swaps = old.wishes.map(wish => ({
      type: 'swap',
      ...wish,
      faces: chosenFaces(old.faces, wish.from.family),
      symbols: old.symbols,
    }))
    return {
      wishes: [...swaps, ...old.repairs.map(repair => ({ type: 'repair', repair }))] as AnyWish[],
      leftOut: [
        ...old.struck.map(oldKey),
        ...old.kept.map(oldGroup),
        ...old.spared.map(({ part, node }): RowKey => ({ what: 'paragraph', part, node })),
      ],
    }
  }
  if (kind === 'recast') {
    const { find, change, colors, struck } = oldRecast.parse(value)
    return { wishes: [{ type: 'recast', find, change, colors } as AnyWish], leftOut: struck.map(oldKey) }
  }
  const old = oldStyles.parse(value)
  return { wishes: old.wishes as unknown as AnyWish[], leftOut: old.struck.map(oldKey) }
}

const oldRow = z.looseObject({
  id: z.string(),
  kind: z.string().optional(),
  title: z.string(),
  leftOut: z.string().nullable().default(null),
})
const oldPlan = z.looseObject({
  kind: z.string(),
  title: z.string(),
  request: z.unknown(),
  sentence: z.string().optional(),
  rows: z.array(oldRow).default([]),
  mappings: z.array(z.looseObject({ key: z.string(), from: z.looseObject({}) })).default([]),
  groups: z.array(z.looseObject({ id: z.string() })).default([]),
})

/** A plan as it was kept, as records read it today: every row, figure and sentence of it stays. */
export function upgradePlan(value: unknown): RecordedPlan {
  const { kind, request, sentence, rows, mappings, groups, ...rest } = oldPlan.parse(value)
  const lists = { left: [], stale: [], sizes: [], missingGlyphs: [], made: [], places: 0, characters: 0, effects: null }
  const { operations: _operations, matches: _matches, ...others } = rest as Record<string, unknown>
  return {
    ...lists,
    ...others,
    request: upgradeRequest(kind, request),
    sentences: sentence === undefined ? [] : [sentence],
    rows: rows.map(({ id, kind: stage, leftOut, ...row }) => ({
      ...row,
      key: oldKey(id),
      stage: stage ?? id.split('|')[0],
      reason: leftOut,
      optional: false,
    })),
    mappings: mappings.map(mapping => ({
      ...mapping,
      from: { ...mapping.from, slot: mapping.key.slice(mapping.key.lastIndexOf('|') + 1) },
    })),
    groups: groups.map(({ id, ...group }) => ({ ...group, key: oldGroup(id) })),
  } as unknown as RecordedPlan
}
