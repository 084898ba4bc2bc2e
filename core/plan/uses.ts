import { faceKey, voiceOf } from '../census/voices'
import type { Slot } from '../document/font-attributes'
import type { OdfDocument } from '../document/open'
import { paragraphsOf, readStories } from '../document/stories'
import { Cascade, type TextStyle } from '../style/cascade'
import type { Layer } from '../style/layers'
import { objectSign, paragraphRuns } from '../style/runs'

/** All text of one style and slot. */
export interface TextUse {
  readonly part: string
  readonly style: TextStyle
  readonly slot: Slot
  readonly face: string
  readonly characters: number
  /** How often each code point occurs. */
  readonly codePoints: ReadonlyMap<number, number>
}

/** Everything that is written in a document and its charts, by style: what a plan must know about text. */
export function textUses(document: OdfDocument): TextUse[] {
  const uses = new Map<string, { part: string, style: TextStyle, slot: Slot, face: string, characters: number, codePoints: Map<number, number> }>()
  for (const sub of document.subdocuments) {
    if (sub.prefix !== '' && sub.kind !== 'chart') continue
    const cascade = new Cascade(document, sub)
    for (const path of [sub.content, sub.styles]) {
      if (!path) continue
      for (const story of readStories(document.parts.get(path)!)) {
        for (const paragraph of paragraphsOf(story.blocks)) {
          const { text, runs } = paragraphRuns(paragraph, cascade, story.role)
          for (const run of runs) {
            const key = `${path}|${run.style.id}|${run.slot}`
            let use = uses.get(key)
            if (!use) uses.set(key, use = { part: path, style: run.style, slot: run.slot, face: faceKey(voiceOf(run.style, run.slot)), characters: 0, codePoints: new Map() })
            const shown = run.inline.kind === 'note' ? run.inline.citation : text.slice(run.start, run.end)
            for (const character of shown) {
              if (character === objectSign) continue
              const code = character.codePointAt(0)!
              use.characters++
              use.codePoints.set(code, (use.codePoints.get(code) ?? 0) + 1)
            }
          }
        }
      }
    }
  }
  return [...uses.values()].filter(use => use.characters > 0)
}

/** Tells layers apart: by the style's node. */
export function layerKey(layer: Layer): string { return `${layer.style.part}#${layer.style.node}` }

/**
 * The style on which a property can be set so that it reaches some uses and no others: outward from the innermost of
 * the layers that decide the property now. `attribute` is the property that would be set. Null where every such style
 * also speaks for other text: changing it would change text that merely shares the style.
 */
export function holderFor(use: TextUse, wanted: ReadonlySet<TextUse>, all: readonly TextUse[], attribute: string, deciding: readonly number[]): Layer | null {
  const { layers } = use.style.effective
  const candidates = [...new Set(deciding.filter(index => index >= 0))].sort((a, b) => b - a)
  for (const index of candidates) {
    const layer = layers[index]!
    if (layer.style.propertyNodes['style:text-properties'] === undefined) continue
    const key = layerKey(layer)
    const reachesOthers = all.some((other) => {
      if (wanted.has(other) || other.slot !== use.slot) return false
      const at = other.style.effective.layers.findLastIndex(each => layerKey(each) === key)
      // Set there, it would win unless a later layer says something of its own.
      return at >= 0 && (other.style.effective.winners[attribute] ?? -1) <= at
    })
    if (!reachesOthers) return layer
  }
  return null
}
