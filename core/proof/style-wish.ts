import type { RecastChange } from '../change/recast/wish'
import { styleFamilies, type StyleFamily } from '../style/families'
import type { StyleChanges } from '../style/style-changes'
import type { Style } from '../document/styles'
import type { Layer } from '../style/layers'
import type { Repair } from './check'
import { stretchOf, type ProofText } from './subject'

const canBeEdited = (style: Style | null | undefined): style is Style =>
  style?.origin === 'common' && styleFamilies.some(each => each === style.family)

const edit = ({ family, name }: Style, changes: StyleChanges): Repair => ({
  wishes: [{ type: 'edit', family: family as StyleFamily, name, changes }],
})

/** A change of the named style that a paragraph goes by, as what puts it right; undefined where it has none. */
export const styleWish = ({ owner }: ProofText, changes: StyleChanges): Repair | undefined =>
  canBeEdited(owner) ? edit(owner, changes) : undefined

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
    ? edit(style, { [better.on]: { [better.attribute]: better.value } })
    : { looks: [{ at: stretchOf(text, from, to), change: better.local }] }
}

/** Several repairs as one. */
export const together = (repairs: readonly Repair[]): Repair => ({
  looks: repairs.flatMap(each => each.looks ?? []),
  wishes: repairs.flatMap(each => each.wishes ?? []),
})
