import { isSymbolFamily } from '../document/font-references'
import type { Slot } from '../document/font-attributes'
import type { Paragraph, Story } from '../document/story-model'
import type { Library, Resolution } from '../font/library'
import type { Cascade, TextStyle } from '../style/cascade'
import { objectSign, paragraphRuns } from '../style/runs'
import { resolutionOf } from './resolution'
import { faceKey, voiceKey, voiceOf, type VoiceLook } from './voices'

/*
 * What is counted of a paragraph hangs on its text, its styles and the library alone. It is worked out once and kept with the
 * paragraph object, which lives as long as its text does: after a key or a new face most of a document is only added up again.
 */

/** What is counted of all text of one style and slot. */
export interface CountedStyle {
  readonly style: TextStyle
  readonly slot: Slot
  readonly look: VoiceLook
  /** Keys of its face and voice. */
  readonly face: string
  readonly voice: string
  readonly resolution: Resolution
  readonly symbols: boolean
  readonly settled: boolean
  /** Local formatting gave it its font. */
  readonly local: boolean
  /** The named style that owns it. */
  readonly owner: string
}

/** A stretch of a paragraph in one style and slot. */
export interface CountedRun {
  readonly start: number
  readonly end: number
  readonly of: CountedStyle
  /** Characters as the census counts them: code points, citations of notes for their signs, frames not at all. */
  readonly characters: number
  readonly blank: boolean
  /** A frame or a note stands there, not text. */
  readonly object: boolean
}

const styles = new WeakMap<Library, WeakMap<TextStyle, Partial<Record<Slot, CountedStyle>>>>()

function countedStyle(library: Library, style: TextStyle, slot: Slot): CountedStyle {
  let all = styles.get(library)
  if (!all) styles.set(library, (all = new WeakMap()))
  let own = all.get(style)
  if (!own) all.set(style, (own = {}))
  const known = own[slot]
  if (known) return known
  const look = voiceOf(style, slot)
  const { font } = style.effective.slots[slot]
  return (own[slot] = {
    style,
    slot,
    look,
    face: faceKey(look),
    voice: voiceKey(look),
    resolution: resolutionOf(library, style, slot),
    symbols: isSymbolFamily(look.family, font.charset),
    settled: style.settled(slot),
    local: style.effective.layers[font.layer]?.local ?? false,
    owner: style.owner ? style.owner.style.displayName : 'no style',
  })
}

interface Counted {
  /** Of the cascade that styled it. */
  readonly styles: object
  readonly role: Story['role']
  readonly library: Library
  readonly runs: readonly CountedRun[]
}
const paragraphs = new WeakMap<Paragraph, Counted>()

function lengthIn(text: string): number {
  let characters = 0
  for (const _ of text) characters++
  return characters
}

/** The runs of a paragraph with what is counted of each; worked out anew only where text, styles or library are others. */
export function countedRuns(
  paragraph: Paragraph,
  cascade: Cascade,
  role: Story['role'],
  library: Library,
): readonly CountedRun[] {
  const known = paragraphs.get(paragraph)
  if (known?.styles === cascade.known && known.role === role && known.library === library) return known.runs
  const { text, runs } = paragraphRuns(paragraph, cascade, role)
  const counted = runs.map(({ start, end, style, slot, inline }): CountedRun => {
    const stands = text.slice(start, end)
    const shown = inline.kind === 'note' ? inline.citation : stands.replaceAll(objectSign, '')
    return {
      start,
      end,
      of: countedStyle(library, style, slot),
      characters: lengthIn(shown),
      blank: /^\s*$/.test(shown),
      object: stands === objectSign,
    }
  })
  paragraphs.set(paragraph, { styles: cascade.known, role, library, runs: counted })
  return counted
}
