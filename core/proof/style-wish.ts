import { encodeStyleName } from '../document/style-names'
import type { RecastChange } from '../change/recast/wish'
import { styleFamilies, type StyleFamily } from '../style/families'
import type { StyleChanges } from '../style/style-changes'
import type { Style } from '../document/styles'
import type { Layer } from '../style/layers'
import type { Repair } from './check'
import { stretchOf, type ProofText, type Stretch, type Subject } from './subject'

const canBeEdited = (style: Style | null | undefined): style is Style =>
  style?.origin === 'common' && styleFamilies.some(each => each === style.family)

/** A change of a named style, as what puts something right. */
export const inStyle = ({ family, name }: Style, changes: StyleChanges): Repair => ({
  wishes: [{ type: 'edit', family: family as StyleFamily, name, changes }],
})

/** A change of the named style that a paragraph goes by, as what puts it right; undefined where it has none. */
export const styleWish = ({ owner }: ProofText, changes: StyleChanges): Repair | undefined =>
  canBeEdited(owner) ? inStyle(owner, changes) : undefined

/** How a look is put right: as words of a style, and as formatting of a stretch. */
export interface BetterLook {
  /** The attribute that says it, of the text or of the paragraph. */
  readonly attribute: string
  readonly on: 'text' | 'paragraph'
  readonly value: string
  readonly local: RecastChange
}

/** The style that says an attribute of some text: the innermost layer that does. */
const sayerOf = (
  layers: readonly Layer[],
  { attribute, on }: Pick<BetterLook, 'attribute' | 'on'>,
): Layer | undefined => layers.findLast(layer => layer[on][attribute] !== undefined)

/** The named style that says an attribute of some text, or that the text goes by; null where a hand said it. */
export function styleSaying(
  text: ProofText,
  layers: readonly Layer[],
  what: Pick<BetterLook, 'attribute' | 'on'>,
): Style | null {
  const said = sayerOf(layers, what)
  if (said?.local) return null
  const style = said && said.style.origin === 'common' ? said.style : text.owner
  return canBeEdited(style) ? style : null
}

/**
 * Puts a look right where it is said: in the named style, so that all its text follows and nothing becomes a stray; by hand
 * only where a hand said it before, or where there is no style.
 */
export function betterLook(
  text: ProofText,
  from: number,
  to: number,
  layers: readonly Layer[],
  better: BetterLook,
): Repair {
  const style = styleSaying(text, layers, better)
  return style
    ? inStyle(style, { [better.on]: { [better.attribute]: better.value } })
    : { looks: [{ at: stretchOf(text, from, to), change: better.local }] }
}

/**
 * Has words of a style that others keep say something on top of it in a character style: set by hand they would be no part of
 * any style, and the next settling would take it away. By hand only where a style of that title says something else.
 */
export function inCharacterStyle(
  { session }: Pick<Subject, 'session'>,
  at: Stretch,
  title: string,
  says: Readonly<Record<string, string>>,
  local: RecastChange,
): Repair {
  const name = encodeStyleName(title)
  const known = session.reading.cascade.scope(at.part).common.get(`text\n${name}`)
  if (known && Object.entries(says).some(([attribute, value]) => known.text[attribute] !== value))
    return { looks: [{ at, change: local }] }
  return {
    wishes: known ? [] : [{ type: 'make', family: 'text', displayName: title, changes: { text: { ...says } } }],
    looks: [{ at, change: { characterStyle: name } }],
  }
}

/** Several repairs as one. */
export const together = (repairs: readonly Repair[]): Repair => ({
  looks: repairs.flatMap(each => each.looks ?? []),
  wishes: repairs.flatMap(each => each.wishes ?? []),
})
