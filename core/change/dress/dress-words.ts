import { styleKey } from '../../census/style-roles'
import { fontAttributes, slots } from '../../document/font-attributes'
import { points } from '../../document/lengths'
import { weightBeyond } from '../../font/named-weight'
import { setStyleValues } from '../../document/style-verbs'
import { describeValues } from '../../style/describe'
import { slotAttributes, weightValue } from '../../style/properties'
import type { TextStyle } from '../../style/cascade'
import { paragraphRuns } from '../../style/runs'
import type { Style } from '../../document/styles'
import type { Planner } from '../planner'
import type { Dressed } from './dressed'

/*
 * Character styles that stand in dressed text: what they say of their own stays, what only repeats the old face or size
 * of the text around them goes with it.
 */

/** Sizes within so much of that of the text around are meant to be it. */
const sameShare = 0.06

/** A character style with the text styles of the paragraphs that it stands in. */
function wordStylesIn(planner: Planner, chosen: readonly Dressed[]): Map<Style, Set<TextStyle>> {
  const names = new Set(chosen.map(({ style }) => styleKey(style)))
  const { cascade } = planner.reading
  const found = new Map<Style, Set<TextStyle>>()
  for (const { paragraph, story } of planner.paragraphs()) {
    const own = cascade.paragraph(paragraph, story.role).text
    const owner = own.owner?.style
    if (!owner || !names.has(styleKey(owner))) continue
    for (const { style } of paragraphRuns(paragraph, cascade, story.role).runs) {
      if (style === own) continue
      for (const layer of style.effective.layers.slice(own.effective.layers.length))
        if (!layer.local && layer.from === 'text')
          found.set(layer.style, (found.get(layer.style) ?? new Set()).add(own))
    }
  }
  return found
}

/** What of a character style goes, and what is said in its place; null where nothing does. */
function changesOf(style: Style, grounds: ReadonlySet<TextStyle>): Record<string, string | null> | null {
  const values: Record<string, string | null> = {}
  for (const slot of slots) {
    const attributes = fontAttributes[slot]
    const named = style.text[attributes.name] ?? style.text[attributes.family]
    const weights = [...grounds].map(({ effective, scope }) => {
      const family = scope.faces.get(named ?? '')?.families[0] ?? named ?? ''
      return weightBeyond(family.replace(/^["']|["']$/g, ''), effective.slots[slot].font.family)
    })
    if (named !== undefined && weights.every(weight => weight !== null)) {
      for (const name of Object.values(attributes)) if (style.text[name] !== undefined) values[name] = null
      const weight = Math.max(...weights)
      if (weight !== 400 && style.text[slotAttributes[slot].weight] === undefined)
        values[slotAttributes[slot].weight] = weightValue(weight)
    }
    const size = points(style.text[slotAttributes[slot].size])
    if (size === null) continue
    const shares = [...grounds].map(({ effective }) => size / effective.slots[slot].size)
    const share = shares.reduce((sum, each) => sum + each, 0) / shares.length
    // What is much smaller or larger has a size of its own, which is not that of the text around.
    if (Math.abs(share - 1) <= sameShare) values[slotAttributes[slot].size] = null
    else if (share >= 0.75 && share <= 1.35) values[slotAttributes[slot].size] = `${Math.round(share * 1000) / 10}%`
  }
  return Object.keys(values).length === 0 ? null : values
}

/** Lets character styles in text that is to be dressed follow it in face and size. */
export function dressWords(planner: Planner, chosen: readonly Dressed[]): void {
  for (const [style, grounds] of wordStylesIn(planner, chosen)) {
    const values = changesOf(style, grounds)
    if (!values) continue
    const said = Object.fromEntries(Object.entries(values).filter((each): each is [string, string] => each[1] !== null))
    const before = describeValues(
      Object.fromEntries(Object.keys(values).map(name => [name, style.text[name] ?? ''])),
      {},
      planner.scope,
    )
    const included = planner.row({
      key: { what: 'dressed words', name: style.name },
      stage: 'words',
      optional: true,
      title: style.displayName,
      characters: planner.counts ? (planner.usersOf(style)?.characters ?? 0) : 0,
      before: before.join(', '),
      after: describeValues(said, {}, null).join(', ') || 'as the text around it',
      places: [{ part: style.part, node: style.node }],
    })
    if (included) setStyleValues(planner.common, style.node, 'text', values)
  }
}
