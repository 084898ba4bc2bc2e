import { fontAttributes } from '../../document/font-attributes'
import type { Operation } from '../../document/operations'
import { covers, needsNoGlyph } from '../../font/face'
import type { Library } from '../../font/library'
import { slotAttributes } from '../../style/properties'
import type { FaceMapping, MissingGlyph, RowKey } from '../plan'
import type { Planner } from '../planner'
import { holderFor } from '../reach'
import type { PartDeclarations } from './declarations'
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
    const rowKey: RowKey = { what: 'face', family, style, slot }
    const leftOut = planner.leaves(rowKey)
    const places: { part: string; node: number; attribute: string | null }[] = []
    for (const use of wanted) {
      const { winners, slots: values } = use.style.effective
      const names = fontAttributes[use.slot]
      const type = slotAttributes[use.slot]
      const deciding = [values[use.slot].font.layer, winners[type.weight] ?? -1, winners[type.style] ?? -1]
      const needs: { attribute: string; value: string }[] = []
      if (single) needs.push({ attribute: names.name, value: '' })
      if (mapping.to.weight !== mapping.from.weight)
        needs.push({
          attribute: type.weight,
          value: mapping.to.weight === 400 ? 'normal' : mapping.to.weight === 700 ? 'bold' : String(mapping.to.weight),
        })
      if (mapping.to.italic !== mapping.from.italic)
        needs.push({ attribute: type.style, value: mapping.to.italic ? 'italic' : 'normal' })
      if (leftOut) {
        planner.note(`${family} ${style}`, 'left out by hand', 1)
        continue
      }
      for (const { attribute, value } of needs) {
        const layer = holderFor(use, wanted, uses, attribute, deciding)
        if (!layer) {
          planner.note(
            `${family} ${style}, ${use.characters} characters`,
            attribute === names.name
              ? 'its styles also speak for other text, which would change with it'
              : `asks for ${style}, which ${mapping.to.family} lacks; the style that asks also speaks for other text`,
          )
          continue
        }
        const node = layer.style.propertyNodes['style:text-properties']!
        const key = `${layer.style.part}#${node}#${attribute}`
        places.push({ part: layer.style.part, node, attribute })
        if (done.has(key)) continue
        done.add(key)
        result.count++
        const { part } = layer.style
        const list = result.operations.get(part) ?? []
        result.operations.set(part, list)
        if (attribute === names.name) {
          const face = planner.library.byHash(mapping.to.hash)!
          const set: Record<string, string | null> = { [names.name]: declarations.get(part)!.nameOf(face.family, face) }
          for (const stale of [names.family, names.styleName, names.generic, names.pitch, names.charset])
            if (layer.text[stale] !== undefined) set[stale] = null
          list.push({ type: 'name-font', part, node, set })
        } else
          list.push({
            type: 'set-properties',
            part,
            node: layer.style.node,
            properties: 'text',
            set: { [attribute]: value },
          })
      }
    }
    const unique = [...new Map(places.map(place => [`${place.part}#${place.node}#${place.attribute}`, place])).values()]
    if (unique.length > 0 || leftOut)
      planner.row({
        key: rowKey,
        stage: 'face',
        optional: true,
        title: single ? `Styles that ask for ${family} ${style}` : `Weight and posture of ${style} text`,
        count: unique.length,
        characters: mapping.characters,
        before: `${family} ${style}`,
        after: `${mapping.to.family} ${mapping.to.style}`,
        places: unique,
      })
  }
  return result
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
