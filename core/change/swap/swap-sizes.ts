import { slotAttributes, points } from '../../style/properties'
import type { Library } from '../../font/library'
import type { TextStyle } from '../../style/cascade'
import type { Slot } from '../../document/font-attributes'
import { resolutionOf } from '../../census/census'
import { plainNumber } from '../../style/describe'
import type { PlanRow, SwapWish } from '../plan'
import { faceLeading, roundedSize } from './optical-size'
import { absoluteSize, layerKey, reachesOthers } from '../reach'
import { setStyleValues } from '../style-values'
import type { StylePlanner } from '../planner'
import type { TextUse } from './uses'

/** Text that no style of its own can give the size: it is set by hand, stretch by stretch. */
export interface LocalSize {
  readonly style: TextStyle
  readonly slot: Slot
  readonly text: Readonly<Record<string, string>>
  readonly setting: Readonly<Record<string, string>>
}

const inPoints = (value: number) => `${plainNumber(value)}pt`

/**
 * Gives text the sizes that go with its new face. A size is set on the style that says it now, where that speaks for
 * nothing else, so that percentages behind it follow; else further in; else it comes back as local formatting to be set.
 */
export function setSizes(
  planner: StylePlanner,
  wish: SwapWish,
  factor: number,
  affected: readonly TextUse[],
  all: readonly TextUse[],
  library: Library,
  rows: PlanRow[],
): LocalSize[] {
  const { size } = wish
  if (!size) return setLeading(planner, wish, factor, affected, all, library, rows)
  const wanted = new Set(affected)
  const done = new Map<string, boolean>()
  const locals: LocalSize[] = []
  for (const use of affected) {
    const { effective } = use.style
    const attribute = slotAttributes[use.slot].size
    const at = absoluteSize(effective, attribute)
    const before =
      at < 0
        ? effective.slots[use.slot].size
        : (points(effective.layers[at]!.text[attribute]) ?? effective.slots[use.slot].size)
    const candidates = effective.layers
      .map((layer, index) => ({ layer, index }))
      .filter(({ index }) => index >= Math.max(at, 0))
    const holder = candidates.find(({ layer }) => !reachesOthers(layer, use, wanted, all, attribute))
    if (!holder) {
      if (!planner.struck.has('size|by hand'))
        locals.push({
          style: use.style,
          slot: use.slot,
          text: { [attribute]: inPoints(roundedSize(effective.slots[use.slot].size * factor, size.step)) },
          setting: {},
        })
      continue
    }
    const own = holder.index === at
    const value = roundedSize((own ? before : effective.slots[use.slot].size) * factor, size.step)
    const key = `size|${layerKey(holder.layer)}|${use.slot}`
    if (!done.has(key)) {
      const included = !planner.struck.has(key)
      done.set(key, included)
      rows.push(
        row(
          key,
          `Size of ${titleOf(holder.layer.style)}`,
          holder.layer.style,
          attribute,
          inPoints(own ? before : effective.slots[use.slot].size),
          inPoints(value),
          included,
        ),
      )
      if (included) setStyleValues(planner, holder.layer.style, 'text', { [attribute]: inPoints(value) })
    }
    const listed = rows.findIndex(each => each.id === key)
    rows[listed] = { ...rows[listed]!, characters: rows[listed]!.characters + use.characters }
  }
  if (locals.length > 0) {
    const characters = affected
      .filter(use => locals.some(local => local.style === use.style && local.slot === use.slot))
      .reduce((sum, use) => sum + use.characters, 0)
    rows.push({
      ...row(
        'size|by hand',
        'Size of text whose styles also speak for other text, set by hand',
        null,
        '',
        'as it is',
        `${plainNumber(factor * 100)} %`,
        true,
      ),
      count: locals.length,
      characters,
    })
  } else if (planner.struck.has('size|by hand'))
    rows.push(
      row(
        'size|by hand',
        'Size of text whose styles also speak for other text',
        null,
        '',
        'as it is',
        'as it is',
        false,
      ),
    )
  return [...locals, ...setLeading(planner, wish, factor, affected, all, library, rows)]
}

/** Lets the leading follow the size, or keeps the distance of the lines. */
function setLeading(
  planner: StylePlanner,
  wish: SwapWish,
  factor: number,
  affected: readonly TextUse[],
  all: readonly TextUse[],
  library: Library,
  rows: PlanRow[],
): LocalSize[] {
  const mode = wish.leading ?? 'as-is'
  if (mode === 'as-is') return []
  const wanted = new Set(affected)
  const locals: LocalSize[] = []
  const done = new Set<string>()
  for (const use of affected) {
    const { effective } = use.style
    const stated = effective.leading['fo:line-height']
    const absolute = points(stated)
    // A percentage follows the size by itself, and what is in points stays by itself.
    if ((mode === 'follow') !== (absolute !== null)) continue
    const { face } = resolutionOf(library, use.style, use.slot)
    const distance =
      faceLeading(face.measures, effective.slots[use.slot].size, use.style.externalLeading) *
      (stated?.endsWith('%') ? Number.parseFloat(stated) / 100 : 1)
    const value = inPoints(roundedSize(absolute === null ? distance : absolute * factor, 0.1))
    const at = effective.winners['fo:line-height'] ?? -1
    const holder = effective.layers
      .map((layer, index) => ({ layer, index }))
      .filter(({ layer, index }) => index >= Math.max(at, 0) && layer.style.family !== 'text')
      .find(({ layer }) => !reachesOthers(layer, use, wanted, all, 'fo:line-height'))
    if (!holder) {
      if (!planner.struck.has('leading|by hand'))
        locals.push({ style: use.style, slot: use.slot, text: {}, setting: { 'fo:line-height': value } })
      continue
    }
    const key = `leading|${layerKey(holder.layer)}`
    if (done.has(key)) continue
    done.add(key)
    const included = !planner.struck.has(key)
    rows.push(
      row(
        key,
        `Leading of ${titleOf(holder.layer.style)}`,
        holder.layer.style,
        'fo:line-height',
        stated ?? 'as the face has it',
        value,
        included,
      ),
    )
    if (included) setStyleValues(planner, holder.layer.style, 'paragraph', { 'fo:line-height': value })
  }
  if (locals.length > 0)
    rows.push({
      ...row(
        'leading|by hand',
        'Leading of text whose styles also speak for other text, set by hand',
        null,
        '',
        'as it is',
        mode === 'stay' ? 'the same distance' : `${plainNumber(factor * 100)} %`,
        true,
      ),
      count: locals.length,
    })
  return locals
}

const titleOf = (style: TextUse['style']['effective']['layers'][number]['style']) =>
  style.origin === 'default'
    ? 'what new text begins with'
    : style.origin === 'automatic'
      ? `text set by hand (${style.displayName})`
      : style.displayName

function row(
  id: string,
  title: string,
  style: { readonly part: string; readonly node: number } | null,
  attribute: string,
  before: string,
  after: string,
  included: boolean,
): PlanRow {
  return {
    id,
    kind: 'style',
    title,
    count: 1,
    characters: 0,
    before,
    after,
    included,
    leftOut: null,
    places: style ? [{ part: style.part, node: style.node, attribute }] : [],
  }
}
