import { slots } from '../../document/font-attributes'
import type { TextStyle } from '../../style/cascade'
import type { Reading } from '../../style/reading'
import { drawWords, type DrawnWords, type DrawnWordsOf } from './draw-words'
import { Gathered, type DrawnParagraph } from './gather'
import { areTwins, attributesOfSlots, fontSourcesOf, voiceWord, type FontSources, type Look } from './look'
import { plantTree, saidBy, type DrawnStyle, type Home, type Homes } from './model'
import { nameStyles, type Named } from './names'
import { purposesOf, type Purpose } from './purposes'
import type { DrawUpChoice } from './wish'

/** A named style that a document has and that says how some text looks. */
export interface TakenStyle {
  readonly voice: string
  readonly name: string
  readonly members: readonly DrawnParagraph[]
}

/** What draw-up would make of a document. */
export interface Proposal {
  readonly gathered: Gathered
  readonly homes: Homes
  readonly paragraphs: readonly (DrawnStyle & Named & { readonly purpose: Purpose })[]
  readonly taken: readonly TakenStyle[]
  readonly words: readonly (DrawnWords & Named)[]
  readonly departures: DrawnWordsOf['departures']
  /** Paragraphs that no style could be made for. */
  readonly left: number
}

/** Whether the style of a voice is not made. */
export type Dropped = (voice: string, family: DrawUpChoice['family']) => boolean

/** How near two looks may be to be drawn up as one, and what was chosen by hand. */
export interface ProposalOptions {
  /** Points by which sizes and leading may differ. */
  readonly tolerance: number
  readonly choices: readonly DrawUpChoice[]
  readonly dropped: Dropped
}

/** Paragraphs of one voice and one base. */
interface Bucket extends Voice {
  readonly base: string | null
  readonly brings: string
  readonly members: DrawnParagraph[]
  characters: number
}

/** Draws up a document: which styles its voices would be, and whose text they would have. Nothing is changed. */
export function proposeStyles(reading: Reading, { tolerance, choices, dropped }: ProposalOptions): Proposal {
  const gathered = new Gathered(reading)
  const voices = foldedVoices(gathered.paragraphs, tolerance, choices, 'paragraph')
  const buckets = bucketsOf(gathered, voices)
  const taken: TakenStyle[] = []
  const drawn: DrawnStyle[] = []
  let left = gathered.left
  for (const bucket of buckets) {
    const choice = choices.find(each => each.family === 'paragraph' && each.voice === bucket.voice)
    const name = choice?.into?.kind === 'style' ? choice.into.name : existingStyle(gathered, bucket)
    if (name !== null && !dropped(bucket.voice, 'paragraph')) {
      taken.push({ voice: bucket.voice, name, members: bucket.members })
      continue
    }
    const says = saidBy(gathered, bucket.look, bucket.members, bucket.base, null)
    if (says === null) {
      left += bucket.members.length
      continue
    }
    drawn.push({ ...bucket, fonts: fontsOf(bucket.members, bucket), parent: null, says })
  }
  const kept = drawn.filter(style => !dropped(style.voice, 'paragraph'))
  plantTree(gathered, kept)
  const homes = new Map<DrawnParagraph, Home>()
  for (const style of kept) for (const member of style.members) homes.set(member, { base: style.base, style })
  for (const { name, members } of taken) for (const member of members) homes.set(member, { base: name, style: null })
  const words = drawWords(gathered, homes, tolerance)
  const purposes = purposesOf(gathered, drawn)
  const named = nameStyles(gathered, drawn, words.styles, purposes, choices)
  return {
    gathered,
    homes,
    paragraphs: drawn.map(style =>
      Object.assign(style, named.paragraphs.get(style)!, { purpose: purposes.get(style)! }),
    ),
    taken,
    words: words.styles.map(each => Object.assign(each, named.words.get(each)!)),
    departures: words.departures,
    left,
  }
}

/** What is drawn up by its look: a paragraph, a frame or a cell. */
type Drawn = Pick<DrawnParagraph, 'look' | 'characters' | 'slots' | 'needs' | 'voice'>

/** A voice, by its word and its look, with text that speaks in it. */
export interface Voice {
  readonly voice: string
  readonly look: Look
  readonly spoken: TextStyle
}

/** Which voice each paragraph, frame or cell is drawn up in: its own, or the one it is folded into. */
export type Voices<T extends Drawn> = ReadonlyMap<T, Voice>

/** Where the fonts of a voice are named: in the most text that looks so, and not in what was folded into it. */
export function fontsOf(drawn: readonly Drawn[], { look, spoken }: Omit<Voice, 'voice'>): FontSources {
  const word = voiceWord(look)
  const own = drawn.filter(each => voiceWord(each.look) === word)
  const most = own.length > 0 ? own.reduce((best, each) => (each.characters > best.characters ? each : best)) : null
  return fontSourcesOf((most?.voice ?? spoken).effective)
}

/** Voices of all that needs a style, twins folded into the one with more text. */
export function foldedVoices<T extends Drawn>(
  drawn: readonly T[],
  tolerance: number,
  choices: readonly DrawUpChoice[],
  family: DrawUpChoice['family'],
): Voices<T> {
  const found = new Map<string, Voice & { characters: number; members: T[] }>()
  for (const each of drawn) {
    if (!each.needs) continue
    const voice = voiceWord(each.look)
    const known = found.get(voice) ?? { voice, look: each.look, spoken: each.voice, characters: 0, members: [] }
    known.characters += each.characters
    known.members.push(each)
    found.set(voice, known)
  }
  const ordered = [...found.values()].sort((a, b) => b.characters - a.characters)
  const folded = new Map<T, Voice>()
  const heads: (Voice & { members: readonly T[] })[] = []
  for (const own of ordered) {
    const { voice, look, members } = own
    const into = choices.find(each => each.family === family && each.voice === voice)?.into
    const byHand = into?.kind === 'voice' ? ordered.find(each => each.voice === into.voice) : undefined
    const head =
      byHand ??
      (tolerance > 0
        ? heads.find(each => areTwins(each.look, look, tolerance, unseen([...each.members, ...members])))
        : undefined)
    if (!head) heads.push(own)
    for (const member of members) folded.set(member, head ?? own)
  }
  return folded
}

/** Attributes of the scripts that no text of these is written in: what they say is not seen. */
function unseen(members: readonly Pick<Drawn, 'slots'>[]): ReadonlySet<string> {
  const seen = new Set(members.flatMap(member => [...member.slots]))
  return attributesOfSlots(slots.filter(slot => !seen.has(slot)))
}

/** Paragraphs of one voice together, as far as their bases bring the same along and what most need can be said there. */
function bucketsOf(gathered: Gathered, voices: Voices<DrawnParagraph>): Bucket[] {
  const byBase = new Map<string, Bucket>()
  const empty: DrawnParagraph[] = []
  for (const member of gathered.paragraphs) {
    const own = voices.get(member)
    if (!own) continue
    if (member.characters === 0) {
      empty.push(member)
      continue
    }
    const key = JSON.stringify([own.voice, member.base, member.brings])
    const bucket = byBase.get(key) ?? { ...own, base: member.base, brings: member.brings, members: [], characters: 0 }
    bucket.members.push(member)
    bucket.characters += member.characters
    byBase.set(key, bucket)
  }
  const merged: Bucket[] = []
  for (const bucket of [...byBase.values()].sort((a, b) => b.characters - a.characters)) {
    const home = merged.find(
      each => each.voice === bucket.voice && each.brings === bucket.brings && fits(gathered, each, bucket.members),
    )
    if (home) join(home, bucket.members)
    else merged.push(bucket)
  }
  // An empty line takes the style of its look where there is one: by itself it needs none.
  for (const line of empty) {
    const { voice } = voices.get(line)!
    const home = merged.find(
      each => each.voice === voice && each.brings === line.brings && fits(gathered, each, [line]),
    )
    if (home) join(home, [line])
  }
  const seen = new Set<string>()
  return merged.map(bucket => {
    // The first of a voice has its word; those that bring along what the first does not have words of their own.
    const { look, brings, base } = bucket
    const voice = seen.has(bucket.voice) ? voiceWord(look, [brings, base ?? '']) : bucket.voice
    seen.add(voice)
    return { ...bucket, voice }
  })
}

function join(bucket: Bucket, members: readonly DrawnParagraph[]): void {
  bucket.members.push(...members)
  bucket.characters += members.reduce((sum, each) => sum + each.characters, 0)
}

const fits = (gathered: Gathered, { look, base, members }: Bucket, more: readonly DrawnParagraph[]): boolean =>
  saidBy(gathered, look, [...members, ...more], base, null) !== null

/**
 * A named style in use that says just how some paragraphs look, and brings no more along than theirs: of several the one
 * that leaves least to be said by hand. Null for none.
 */
function existingStyle(gathered: Gathered, { look, brings, members }: Bucket): string | null {
  let best: { readonly name: string; readonly departs: number } | null = null
  for (const [name, use] of settledStyles(gathered)) {
    if (use.brings !== brings) continue
    const departs = saidBy(gathered, look, members, name, null)
    if (departs === null || Object.keys(departs.text).length > 0) continue
    const amount = Object.keys(departs.paragraph).length
    if (best === null || amount < best.departs) best = { name, departs: amount }
  }
  return best?.name ?? null
}

const known = new WeakMap<Gathered, Map<string, { brings: string }>>()

/** The named styles whose text looks as they say. */
function settledStyles(gathered: Gathered): ReadonlyMap<string, { readonly brings: string }> {
  let styles = known.get(gathered)
  if (styles) return styles
  styles = new Map()
  for (const { needs, local, base, brings, characters } of gathered.paragraphs)
    if (!needs && local === null && base !== null && characters > 0) styles.set(base, { brings })
  known.set(gathered, styles)
  return styles
}
