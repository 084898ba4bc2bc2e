import type { Layer } from '../style/layers'
import { percent, slotAttributes } from '../style/properties'
import type { Effective } from '../style/effective'
import { slots } from '../document/font-attributes'
import type { TextUse } from './swap/uses'

const sizes: ReadonlySet<string> = new Set(slots.map(slot => slotAttributes[slot].size))

/** Tells layers apart: by the style's node. */
export function layerKey(layer: Layer): string {
  return `${layer.style.part}#${layer.style.node}`
}

/** The last layer that says a size outright: percentages behind it follow it. -1 for none. */
export function absoluteSize({ layers }: Effective, attribute: string): number {
  return layers.findLastIndex(layer => layer.text[attribute] !== undefined && percent(layer.text[attribute]) === null)
}

/** The layer that a property comes from in the end. */
const decidedBy = (effective: Effective, attribute: string): number =>
  sizes.has(attribute) ? absoluteSize(effective, attribute) : (effective.winners[attribute] ?? -1)

/** Properties of paragraphs hold for text of all slots. */
const ofParagraph = (attribute: string) => attribute === 'fo:line-height' || attribute === 'style:line-height-at-least'

/** Whether a property set on the layer would show in some of the text that is not meant. */
export function reachesOthers(
  layer: Layer,
  use: TextUse,
  wanted: ReadonlySet<TextUse>,
  all: readonly TextUse[],
  attribute: string,
): boolean {
  const key = layerKey(layer)
  return all.some(other => {
    if (wanted.has(other) || (other.slot !== use.slot && !ofParagraph(attribute))) return false
    const at = other.style.effective.layers.findLastIndex(each => layerKey(each) === key)
    // Set there, it would win unless a later layer says something of its own.
    return at >= 0 && decidedBy(other.style.effective, attribute) <= at
  })
}

/**
 * The style on which a property can be set so that it reaches some uses and no others: outward from the innermost of
 * the layers that decide the property now. `attribute` is the property that would be set. Null where every such style
 * also speaks for other text: changing it would change text that merely shares the style.
 */
export function holderFor(
  use: TextUse,
  wanted: ReadonlySet<TextUse>,
  all: readonly TextUse[],
  attribute: string,
  deciding: readonly number[],
): Layer | null {
  const { layers } = use.style.effective
  const kind = ofParagraph(attribute) ? 'style:paragraph-properties' : 'style:text-properties'
  for (const index of [...new Set(deciding.filter(each => each >= 0))].sort((a, b) => b - a)) {
    const layer = layers[index]!
    if (layer.style.propertyNodes[kind] === undefined) continue
    if (!reachesOthers(layer, use, wanted, all, attribute)) return layer
  }
  return null
}
