import { fontAttributes, type Slot } from '../../document/font-attributes'
import type { Operation } from '../../document/operations'
import { covers, needsNoGlyph, pitchOf } from '../../font/face'
import type { Library } from '../../font/library'
import type { Layer } from '../../style/layers'
import { slotAttributes, weightValue } from '../../style/properties'
import type { FaceMapping, MissingGlyph, RowKey } from '../plan'
import type { Planner } from '../planner'
import { holderFor } from '../reach'
import type { PartDeclarations } from '../../document/part-declarations'
import type { TextUse } from './uses'
import { wishFor, type SwapWish } from './wish'

/** What single faces come to: operations by part, and how many places change. */
export interface FaceChanges {
  operations: Map<string, Operation[]>
  count: number
}

/**
 * What single faces need beyond the family: a face that is swapped alone gets its font where only it is reached; a
 * face whose weight or posture changes gets that written, so that no reader invents a bold. Where every style that
 * could say so also speaks for other text, nothing is set, and it is said.
 */
export function faceOperations(
  planner: Planner,
  mappings: readonly FaceMapping[],
  meant: readonly TextUse[],
  uses: readonly TextUse[],
  wishes: readonly SwapWish[],
  declarations: ReadonlyMap<string, PartDeclarations>,
): FaceChanges {
  const result: FaceChanges = { operations: new Map(), count: 0 }
  const done = new Set<string>()
  for (const mapping of mappings) {
    const wish = wishFor(wishes, mapping.from)!
    const single = wish.from.style !== undefined
    const wanted = new Set(meant.filter(use => use.face === mapping.key))
    if (wanted.size === 0 || (!single && mapping.same)) continue
    const { family, style, slot } = mapping.from
    const key: RowKey = { what: 'face', family, style, slot }
    const leftOut = planner.leaves(key)
    const places = leftOut ? [] : holdersOf(planner, mapping, single, wanted, uses)
    if (leftOut) planner.note(`${family} ${style}`, 'left out by hand', wanted.size)
    const unique = new Map(places.map(place => [`${place.part}#${place.node}#${place.attribute}`, place]))
    for (const [place, holder] of unique) {
      if (done.has(place)) continue
      done.add(place)
      result.count++
      const list = result.operations.get(holder.part) ?? []
      result.operations.set(holder.part, list)
      list.push(operationFor(planner, mapping, holder, declarations))
    }
    if (unique.size > 0 || leftOut)
      planner.row({
        key,
        stage: 'face',
        optional: true,
        title: single ? `Styles that ask for ${family} ${style}` : `Weight and posture of ${style} text`,
        count: unique.size,
        characters: mapping.characters,
        before: `${family} ${style}`,
        after: `${mapping.to.family} ${mapping.to.style}`,
        places: [...unique.values()].map(({ part, node, attribute }) => ({ part, node, attribute })),
      })
  }
  return result
}

/** Where a face asks for something: the properties that say it. */
interface Holder {
  readonly part: string
  readonly node: number
  readonly attribute: string
  readonly layer: Layer
  readonly slot: Slot
  /** The value it gets; null for the name of the font, which is declared when it is written. */
  readonly value: string | null
}

/** What text of a slot must say for its new face. */
function needsOf({ from, to }: FaceMapping, single: boolean, slot: Slot): Pick<Holder, 'attribute' | 'value'>[] {
  const { weight, style } = slotAttributes[slot]
  return [
    ...(single ? [{ attribute: fontAttributes[slot].name, value: null }] : []),
    ...(to.weight === from.weight ? [] : [{ attribute: weight, value: weightValue(to.weight) }]),
    ...(to.italic === from.italic ? [] : [{ attribute: style, value: to.italic ? 'italic' : 'normal' }]),
  ]
}

/** The places that say what a face needs. Where they also speak for other text, that is said instead. */
function holdersOf(
  planner: Planner,
  mapping: FaceMapping,
  single: boolean,
  wanted: ReadonlySet<TextUse>,
  uses: readonly TextUse[],
): Holder[] {
  const { family, style } = mapping.from
  return [...wanted].flatMap(use => {
    const { winners, slots: values } = use.style.effective
    const type = slotAttributes[use.slot]
    const deciding = [values[use.slot].font.layer, winners[type.weight] ?? -1, winners[type.style] ?? -1]
    return needsOf(mapping, single, use.slot).flatMap(({ attribute, value }): Holder[] => {
      const layer = holderFor(use, wanted, uses, attribute, deciding)
      if (layer) {
        const node = layer.style.propertyNodes['style:text-properties']!
        return [{ part: layer.style.part, node, attribute, layer, slot: use.slot, value }]
      }
      planner.note(
        `${family} ${style}, ${use.characters} characters`,
        value === null
          ? 'its styles also speak for other text, which would change with it'
          : `asks for ${style}, which ${mapping.to.family} lacks; the style that asks also speaks for other text`,
      )
      return []
    })
  })
}

/** What is written at a place: a value, or the font's name in place of all that named one. */
function operationFor(
  { library }: Planner,
  { to }: FaceMapping,
  { part, node, attribute, layer, slot, value }: Holder,
  declarations: ReadonlyMap<string, PartDeclarations>,
): Operation {
  if (value !== null)
    return { type: 'set-properties', part, node: layer.style.node, properties: 'text', set: { [attribute]: value } }
  const names = fontAttributes[slot]
  const face = library.byHash(to.hash)!
  const set: Record<string, string | null> = {
    [names.name]: declarations.get(part)!.nameOf(face.family, pitchOf(face)),
  }
  for (const stale of [names.family, names.styleName, names.generic, names.pitch, names.charset])
    if (layer.text[stale] !== undefined) set[stale] = null
  return { type: 'name-font', part, node, set }
}

/** Signs of the affected text that the new faces lack: readers will take them from other fonts. */
export function missingGlyphs(
  mappings: readonly FaceMapping[],
  uses: readonly TextUse[],
  library: Library,
): MissingGlyph[] {
  const missing = new Map<string, { codePoint: number; character: string; count: number; face: string }>()
  for (const mapping of mappings) {
    const face = library.byHash(mapping.to.hash)!
    for (const use of uses) {
      if (use.face !== mapping.key) continue
      for (const [codePoint, count] of use.codePoints) {
        if (needsNoGlyph(codePoint) || covers(face, codePoint)) continue
        const key = `${codePoint}|${face.hash}`
        const known = missing.get(key)
        if (known) known.count += count
        else
          missing.set(key, {
            codePoint,
            character: String.fromCodePoint(codePoint),
            count,
            face: `${face.family} ${face.style}`,
          })
      }
    }
  }
  return [...missing.values()].sort((a, b) => b.count - a.count || a.codePoint - b.codePoint)
}
