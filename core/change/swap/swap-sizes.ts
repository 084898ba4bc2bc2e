import { externalLeading } from '../../document/composition-settings'
import { points } from '../../document/lengths'
import { slotAttributes } from '../../style/properties'
import type { TextStyle } from '../../style/cascade'
import { setStyleValues } from '../../document/style-verbs'
import type { Slot } from '../../document/font-attributes'
import { resolutionOf } from '../../census/resolution'
import { plainNumber } from '../../style/describe'
import type { Style } from '../../document/styles'
import { keyText, type RowKey } from '../plan'
import { faceLeading, roundedSize, type SizeFactors } from './optical-size'
import { absoluteSize, reachesOthers } from '../reach'
import type { Planner } from '../planner'
import type { TextUse } from './uses'
import type { SwapWish } from './wish'

/** Text that no style of its own can give the size: it is set by hand, stretch by stretch. */
export interface LocalSize {
  readonly style: TextStyle
  readonly slot: Slot
  readonly text: Readonly<Record<string, string>>
  readonly setting: Readonly<Record<string, string>>
}

const inPoints = (value: number) => `${plainNumber(value)}pt`

/** By how much sizes of text change, in words: scripts of their own may change by another share. */
const percentOf = (factors: SizeFactors, affected: readonly TextUse[]): string =>
  [...new Set(affected.map(use => `${plainNumber(factors[use.slot] * 100)} %`))].join(' and ')

/** A style that gets a size or a leading, until its row is listed. */
interface Setting {
  readonly key: RowKey
  readonly style: Style
  readonly attribute: string
  readonly before: string
  readonly after: string
  characters: number
}

/** The key of what is set by hand, since the styles of that text also speak for other text. */
const byHand = (stage: 'size' | 'leading'): RowKey => ({ what: stage, by: 'hand' })

/** Lists what styles and text got, with what was left out by hand. */
function list(
  planner: Planner,
  stage: 'size' | 'leading',
  settings: readonly Setting[],
  hand: { readonly count: number; readonly characters: number; readonly after: string },
): void {
  const title = stage === 'size' ? 'Size' : 'Leading'
  for (const { key, style, attribute, before, after, characters } of settings)
    planner.row({
      key,
      stage,
      optional: true,
      title: `${title} of ${titleOf(style)}`,
      before,
      after,
      characters,
      places: [{ part: style.part, node: style.node, attribute }],
    })
  if (hand.count > 0 || planner.leaves(byHand(stage)))
    planner.row({
      key: byHand(stage),
      stage,
      optional: true,
      title: `${title} of text whose styles also speak for other text, set by hand`,
      count: Math.max(hand.count, 1),
      characters: hand.characters,
      before: 'as it is',
      after: hand.after,
    })
}

/**
 * Gives text the sizes that go with its new face. A size is set on the style that says it now, where that speaks for
 * nothing else, so that percentages behind it follow; else further in; else it comes back as local formatting to be set.
 */
export function setSizes(
  planner: Planner,
  wish: SwapWish,
  factors: SizeFactors,
  affected: readonly TextUse[],
  all: readonly TextUse[],
): LocalSize[] {
  const { size } = wish
  if (!size) return setLeading(planner, wish, factors, affected, all)
  const wanted = new Set(affected)
  const settings = new Map<string, Setting>()
  const locals: LocalSize[] = []
  let characters = 0
  for (const use of affected) {
    const { effective } = use.style
    const attribute = slotAttributes[use.slot].size
    const now = effective.slots[use.slot].size
    const at = absoluteSize(effective, attribute)
    const before = at < 0 ? now : (points(effective.layers[at]!.text[attribute]) ?? now)
    const holder = effective.layers
      .map((layer, index) => ({ layer, index }))
      .filter(({ index }) => index >= Math.max(at, 0))
      .find(({ layer }) => !reachesOthers(layer, use, wanted, all, attribute))
    if (!holder) {
      if (planner.leaves(byHand('size'))) continue
      characters += use.characters
      locals.push({
        style: use.style,
        slot: use.slot,
        text: { [attribute]: inPoints(roundedSize(now * factors[use.slot], size.step)) },
        setting: {},
      })
      continue
    }
    const { style } = holder.layer
    const own = holder.index === at
    const key: RowKey = { what: 'size', part: style.part, node: style.node, slot: use.slot }
    let setting = settings.get(keyText(key))
    if (!setting) {
      const after = inPoints(roundedSize((own ? before : now) * factors[use.slot], size.step))
      setting = { key, style, attribute, before: inPoints(own ? before : now), after, characters: 0 }
      settings.set(keyText(key), setting)
      if (!planner.leaves(key))
        setStyleValues(planner.change.on(style.part), style.node, 'text', { [attribute]: after })
    }
    setting.characters += use.characters
  }
  list(planner, 'size', [...settings.values()], {
    count: locals.length,
    characters,
    after: percentOf(factors, affected),
  })
  return [...locals, ...setLeading(planner, wish, factors, affected, all)]
}

/** Lets the leading follow the size, or keeps the distance of the lines. */
function setLeading(
  planner: Planner,
  wish: SwapWish,
  factors: SizeFactors,
  affected: readonly TextUse[],
  all: readonly TextUse[],
): LocalSize[] {
  const mode = wish.leading ?? 'as-is'
  if (mode === 'as-is') return []
  const wanted = new Set(affected)
  const locals: LocalSize[] = []
  const settings = new Map<string, Setting>()
  for (const use of affected) {
    const { effective } = use.style
    const stated = effective.leading['fo:line-height']
    const absolute = points(stated)
    // A percentage follows the size by itself, and what is in points stays by itself.
    if ((mode === 'follow') !== (absolute !== null)) continue
    const { lines } = resolutionOf(planner.library, use.style, use.slot)
    const distance =
      faceLeading(lines, effective.slots[use.slot].size, externalLeading(use.style.settings)) *
      (stated?.endsWith('%') ? Number.parseFloat(stated) / 100 : 1)
    const after = inPoints(roundedSize(absolute === null ? distance : absolute * factors[use.slot], 0.1))
    const at = effective.winners['fo:line-height'] ?? -1
    const holder = effective.layers
      .map((layer, index) => ({ layer, index }))
      .filter(({ layer, index }) => index >= Math.max(at, 0) && layer.style.family !== 'text')
      .find(({ layer }) => !reachesOthers(layer, use, wanted, all, 'fo:line-height'))
    if (!holder) {
      if (!planner.leaves(byHand('leading')))
        locals.push({ style: use.style, slot: use.slot, text: {}, setting: { 'fo:line-height': after } })
      continue
    }
    const { style } = holder.layer
    const key: RowKey = { what: 'leading', part: style.part, node: style.node }
    if (settings.has(keyText(key))) continue
    settings.set(keyText(key), {
      key,
      style,
      attribute: 'fo:line-height',
      before: stated ?? 'as the face has it',
      after,
      characters: 0,
    })
    if (!planner.leaves(key))
      setStyleValues(planner.change.on(style.part), style.node, 'paragraph', { 'fo:line-height': after })
  }
  list(planner, 'leading', [...settings.values()], {
    count: locals.length,
    characters: 0,
    after: mode === 'stay' ? 'the same distance' : percentOf(factors, affected),
  })
  return locals
}

const titleOf = (style: Style) =>
  style.origin === 'default'
    ? 'what new text begins with'
    : style.origin === 'automatic'
      ? `text set by hand (${style.displayName})`
      : style.displayName
