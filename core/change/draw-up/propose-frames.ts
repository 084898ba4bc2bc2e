import type { DrawnFrame } from './gather-frames'
import { gatherFrames, groundOf } from './gather-frames'
import { Gathered, type DrawnParagraph } from './gather'
import { belongsToPlace, comparable, fontSourcesOf, neededOn, unsaid, type Look } from './look'
import type { DrawnStyle, Said } from './model'
import { nameStyles, type Named } from './names'
import { foldedVoices, type ProposalOptions } from './propose'
import { purposesOf, type Purpose } from './purposes'
import { findStyle, type StyleScope } from '../../document/styles'
import type { Reading } from '../../style/reading'

/** A graphic style in the making: a voice, and the frames whose text speaks in it. */
export interface DrawnFrameStyle extends DrawnStyle, Named {
  readonly purpose: Purpose
  readonly frames: readonly DrawnFrame[]
}

/** A graphic style that is there and that some frames take: one that says just how their text looks, or one chosen by hand. */
export interface TakenFrameStyle {
  readonly voice: string
  readonly name: string
  readonly frames: readonly DrawnFrame[]
  /** It was chosen by hand, and their text looks otherwise until then. */
  readonly folded: boolean
}

/** What draw-up would make of the loose frames of a deck or drawing. */
export interface FrameProposal {
  readonly gathered: Gathered
  readonly styles: readonly DrawnFrameStyle[]
  readonly taken: readonly TakenFrameStyle[]
  /** Frames that no style could be made for. */
  readonly left: number
}

/** Frames of one voice that go back to one named style. */
interface Bucket {
  readonly voice: string
  readonly look: Look
  readonly base: string | null
  readonly frames: DrawnFrame[]
}

/** Draws the loose frames of a deck or drawing up: which graphic styles their voices would be. Nothing is changed. */
export function proposeFrames(reading: Reading, { tolerance, choices, dropped }: ProposalOptions): FrameProposal {
  const gathered = new Gathered(reading)
  const voices = foldedVoices(gatherFrames(gathered), tolerance, choices, 'graphic')
  const buckets = new Map<string, Bucket>()
  for (const [frame, { voice, look }] of voices) {
    const key = JSON.stringify([voice, frame.base])
    const bucket = buckets.get(key) ?? { voice, look, base: frame.base, frames: [] }
    bucket.frames.push(frame)
    buckets.set(key, bucket)
  }
  const drawn: (DrawnStyle & { readonly frames: readonly DrawnFrame[] })[] = []
  const taken: TakenFrameStyle[] = []
  let left = 0
  for (const { voice, look, base, frames } of buckets.values()) {
    const into = choices.find(each => each.family === 'graphic' && each.voice === voice)?.into
    const name = into?.kind === 'style' ? into.name : existing(gathered, look, base, frames)
    if (name !== null && !dropped(voice)) {
      taken.push({ voice, name, frames, folded: into?.kind === 'style' })
      continue
    }
    const says = saidOf(gathered, look, base, frames)
    if (says === null) {
      left += frames.length
      continue
    }
    const largest = frames.reduce((best, each) => (each.characters > best.characters ? each : best))
    drawn.push({
      voice,
      look,
      base,
      frames,
      says,
      fonts: fontSourcesOf(largest.voice.effective),
      members: frames.flatMap(frame => frame.members),
      characters: frames.reduce((sum, each) => sum + each.characters, 0),
      parent: null,
    })
  }
  plantFrames(drawn.filter(style => !dropped(style.voice)))
  const purposes = purposesOf(gathered, drawn)
  const named = nameStyles(gathered, drawn, [], purposes, choices, 'graphic')
  return {
    gathered,
    styles: drawn.map(style => Object.assign(style, named.paragraphs.get(style)!, { purpose: purposes.get(style)! })),
    taken,
    left,
  }
}

/** What a style of some frames says on top of their base; null where the base says what cannot be taken back. */
function saidOf(gathered: Gathered, look: Look, base: string | null, frames: readonly DrawnFrame[]): Said | null {
  const ground = groundOf(gathered, frames[0]!.part, base)
  const text = neededOn(look, [ground.text])
  if (text === null) return null
  const paragraph: Record<string, string> = {}
  const paragraphs = frames.flatMap(frame => frame.paragraphs)
  for (const name of new Set(paragraphs.flatMap(each => Object.keys(each.paragraphLook)))) {
    if (belongsToPlace(name)) continue
    const [value, ...others] = new Map(
      paragraphs.map(each => {
        const own = valueOf(each, name)
        return [comparable(own), own] as const
      }),
    ).values()
    // All paragraphs of all frames have it: then it is the style's. What differs stays by hand.
    const under = ground.paragraph[name] ?? unsaid(name, false)
    if (others.length === 0 && value !== undefined && comparable(value) !== comparable(under)) paragraph[name] = value
  }
  return { text, paragraph }
}

const valueOf = ({ paragraphLook, paragraph }: DrawnParagraph, name: string): string | undefined =>
  paragraphLook[name] ?? unsaid(name, paragraph.list !== null)

/** A style made of the same base before, that says nothing of shapes and looks just so; null for none. */
function existing(gathered: Gathered, look: Look, base: string | null, frames: readonly DrawnFrame[]): string | null {
  const said = saidOf(gathered, look, base, frames)
  if (said === null) return null
  const scope = gathered.cascade.scope(frames[0]!.part)
  for (const style of scope.common.values()) {
    if (style.family !== 'graphic' || style.name === base || Object.keys(style.graphic).length > 0) continue
    const chain = groundOf(gathered, frames[0]!.part, style.name)
    if (!goesBackTo(scope, style.parentName, base)) continue
    const wanted = { ...groundOf(gathered, frames[0]!.part, base).paragraph, ...said.paragraph }
    if (same(chain.text, look) && same(chain.paragraph, wanted)) return style.name
  }
  return null
}

/** Whether a chain of parents that say nothing of shapes ends at a base. */
function goesBackTo(scope: StyleScope, parent: string | null, base: string | null): boolean {
  for (let at = parent, steps = 0; steps < 50; steps++) {
    if (at === base) return true
    const style = at === null ? undefined : findStyle(scope, 'graphic', at)
    if (!style || Object.keys(style.graphic).length > 0) return false
    at = style.parentName
  }
  return false
}

const same = (one: Look, other: Look): boolean =>
  [...new Set([...Object.keys(one), ...Object.keys(other)])].every(
    name => comparable(one[name]) === comparable(other[name]),
  )

/** Gives each style the parent of the same base on top of which it has least to say; the one with most text is the root. */
function plantFrames(styles: readonly DrawnStyle[]): void {
  const placed: DrawnStyle[] = []
  for (const style of [...styles].sort((a, b) => b.characters - a.characters)) {
    const { paragraph } = style.says
    for (const parent of placed.filter(each => each.base === style.base)) {
      const text = neededOn(style.look, [parent.look])
      // What a parent says of paragraphs, and this one does not, it would take over.
      const clear = Object.keys(allOf(parent)).every(name => paragraph[name] !== undefined)
      if (text === null || !clear || Object.keys(text).length >= Object.keys(style.says.text).length) continue
      const differs = Object.entries(paragraph).filter(([name, value]) => allOf(parent)[name] !== value)
      style.parent = parent
      style.says = { text, paragraph: Object.fromEntries(differs) }
    }
    placed.push(style)
  }
}

/** What a style and those it goes back to say of paragraphs. */
export const allOf = ({ parent, says }: DrawnStyle): Look => ({ ...(parent ? allOf(parent) : {}), ...says.paragraph })
