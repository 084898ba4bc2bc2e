import { occurrencesOf } from '../../census/occurrences'
import { voiceKey, voiceOf, type VoiceLook } from '../../census/voices'
import { referencesToStyle, renameReference } from '../../document/style-references'
import { dropStyle, setParentStyle } from '../../document/style-verbs'
import type { Effective } from '../../style/effective'
import type { TextFamily } from '../../style/families'
import type { StyleChanges } from '../../style/style-changes'
import type { Layer } from '../../style/layers'
import { slotAttributes } from '../../style/properties'
import { emphasisGroups, typeGroups } from '../../style/groups'
import { paragraphText } from '../../style/runs'
import { plainNumber } from '../../style/describe'
import { PlanError } from '../plan'
import { editStyle } from './edit-style'
import type { Planner } from '../planner'
import type { Stretch } from '../scope'
import { settle } from './settle'

/**
 * Replaces a style by another in everything that names it, and drops it. Styles that descend from it descend from the
 * other then. Without another its text goes by its parent, and words by no character style. Returns the other's name.
 * @throws PlanError
 */
export function foldStyle(
  planner: Planner,
  family: 'paragraph' | 'text',
  from: string,
  to: string | null,
): string | null {
  if (from === to) throw new PlanError('A style cannot be folded into itself. Nothing was changed.')
  const style = planner.style(family, from)
  const other = to ?? style.parentName
  const target = other === null ? null : planner.style(family, other)
  for (let at = target; at?.parentName; at = planner.scope.common.get(`${family}\n${at.parentName}`) ?? null) {
    if (at.parentName !== from) continue
    // The other one descends from what goes: it takes its place in the tree first.
    setParentStyle(planner.common, at.node, style.parentName)
    break
  }
  const users = planner.usersOf(style)
  const references = referencesToStyle(planner.document, family, from)
  for (const reference of references) renameReference(planner.change.on(reference.part), reference, from, other)
  dropStyle(planner.common, style.node)
  const rules = planner.currentRules
  const stays = (each: { readonly style: { readonly family: string; readonly name: string } }) =>
    each.style.family !== family || each.style.name !== from
  planner.rules = {
    ...rules,
    features: rules.features.filter(stays),
    axes: rules.axes.filter(stays),
    styles: rules.styles.filter(stays),
    patterns: rules.patterns.flatMap(rule => movedRule(rule, family, from, other)),
    leadIns: rules.leadIns.flatMap(rule => movedRule(rule, family, from, other)),
  }
  planner.row({
    key: { what: 'folded style', family, name: from },
    stage: 'style',
    title: `${family === 'text' ? 'Character style' : 'Paragraph style'} ${style.displayName}`,
    count: references.length,
    characters: users?.characters ?? 0,
    before: style.displayName,
    after: target?.displayName ?? 'no style',
    places: references.slice(0, 500).map(({ part, node }) => ({ part, node })),
  })
  return target?.displayName ?? null
}

/** A rule whose style was folded goes over to the other one; without one it goes. */
function movedRule<R extends { readonly style: string; readonly character: string }>(
  rule: R,
  family: string,
  from: string,
  to: string | null,
): R[] {
  if (family === 'paragraph' && rule.style === from) return to === null ? [] : [{ ...rule, style: to }]
  if (family === 'text' && rule.character === from) return to === null ? [] : [{ ...rule, character: to }]
  return [rule]
}

/** The innermost layer that says what makes a voice differ from another one. */
function decidingLayer(
  layers: readonly Layer[],
  winners: Readonly<Record<string, number>>,
  attributes: readonly string[],
): Layer | null {
  const at = Math.max(...attributes.map(name => winners[name] ?? -1))
  return at < 0 ? null : (layers[at] ?? null)
}

/**
 * Makes one voice speak as another. Where its difference was set by hand, that goes; where a style says it, the style
 * takes the other voice's size, leading and tracking. @throws PlanError
 */
export function foldVoice(planner: Planner, from: string, to: string): void {
  if (from === to) throw new PlanError('A voice cannot be folded into itself. Nothing was changed.')
  const stretches = occurrencesOf(planner.reading, from)
  const [model] = occurrencesOf(planner.reading, to)
  if (stretches.length === 0 || !model)
    throw new PlanError('One of the two voices is no longer in the document. Nothing was changed.')
  const wanted = voiceOf(model.style, model.slot)
  const local = stretches.filter(({ style, slot }) => !style.settled(slot))
  const stray = local.map(({ paragraph, story, from: start, to: end }): Stretch => ({
    paragraph,
    role: story.role,
    from: start,
    to: end,
    whole: start === 0 && end >= paragraphText(paragraph).length,
  }))
  if (stray.length > 0) settle(planner, stray, { groups: typeGroups, keep: emphasisGroups, idleOnly: false })
  planner.reread()
  // What is still in the voice is so because a style says so.
  const edits = new Map<string, { readonly style: NamedStyle; readonly changes: StyleChanges }>()
  for (const { style, slot } of occurrencesOf(planner.reading, from)) {
    const put = (
      kind: 'text' | 'paragraph',
      values: Record<string, string | null>,
      families: readonly TextFamily[],
    ) => {
      if (Object.keys(values).length === 0) return
      const found = styleFor(style.effective, Object.keys(values), families)
      if (!found)
        return planner.note(
          'text whose look comes from a frame, a cell or a default',
          'no paragraph or character style says how it looks',
        )
      const key = JSON.stringify(found)
      const edit = edits.get(key) ?? { style: found, changes: {} }
      edits.set(key, { ...edit, changes: { [kind]: values, ...edit.changes } })
    }
    const look = voiceOf(style, slot)
    const text: Record<string, string> = {}
    if (look.size !== wanted.size) text[slotAttributes[slot].size] = `${plainNumber(wanted.size)}pt`
    if (look.tracking !== wanted.tracking) text['fo:letter-spacing'] = wanted.tracking || 'normal'
    put('text', text, ['paragraph', 'text'])
    put('paragraph', look.leading === wanted.leading ? {} : leadingValues(wanted), ['paragraph'])
  }
  for (const { style, changes } of edits.values()) editStyle(planner, style.family, style.name, changes)
  planner.reread()
  const rest = occurrencesOf(planner.reading, from)
  if (rest.length > 0)
    planner.note(
      'places that still speak in the voice',
      `what tells it from the other (${difference(voiceOf(rest[0]!.style, rest[0]!.slot), wanted)}) ` +
        `is said by something that other text shares`,
      rest.length,
    )
}

interface NamedStyle {
  readonly family: TextFamily
  readonly name: string
}

/**
 * The named style that says some values of text, where one does; else the innermost that it goes by, which may say them on top
 * of what is below: a frame, a cell, a default. Null where it goes by none.
 */
function styleFor(
  { layers, winners }: Effective,
  names: readonly string[],
  families: readonly TextFamily[],
): NamedStyle | null {
  const isOne = ({ local, style }: Layer) =>
    !local && style.origin === 'common' && families.some(family => family === style.family)
  const deciding = decidingLayer(layers, winners, names)
  const layer = deciding && isOne(deciding) ? deciding : layers.findLast(isOne)
  return layer ? { family: layer.style.family as TextFamily, name: layer.style.name } : null
}

function leadingValues({ leading }: VoiceLook): Record<string, string | null> {
  if (leading === 'normal') return { 'fo:line-height': null, 'style:line-height-at-least': null }
  const least = /^at least (.*)$/.exec(leading)
  return least
    ? { 'fo:line-height': null, 'style:line-height-at-least': least[1]! }
    : { 'fo:line-height': leading, 'style:line-height-at-least': null }
}

const difference = (one: VoiceLook, other: VoiceLook) =>
  (['size', 'leading', 'tracking', 'case', 'color'] as const).filter(name => one[name] !== other[name]).join(', ') ||
  voiceKey(one)
