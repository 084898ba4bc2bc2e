import { points } from '../../document/lengths'
import { slots } from '../../document/font-attributes'
import type { Layer } from '../../style/layers'
import type { DrawnParagraph, DrawnRun, Gathered } from './gather'
import {
  attributesOfSlots,
  fontSourcesOf,
  isLeading,
  lookOf,
  neededOn,
  voiceWord,
  type FontSources,
  type Look,
} from './look'
import { layersOf, type Home, type Homes } from './model'

/** Words of a paragraph that look otherwise than it. */
export interface DrawnStretch {
  readonly member: DrawnParagraph
  readonly run: DrawnRun
}

/** A character style in the making: what words say on top of their paragraphs. */
export interface DrawnWords {
  readonly voice: string
  readonly says: Look
  readonly fonts: FontSources
  readonly stretches: readonly DrawnStretch[]
  readonly characters: number
}

/** A stretch with what has to be said for it, and the character style that says so: null where none is made. */
export interface Departure extends DrawnStretch {
  readonly look: string
  says: Look
  style: DrawnWords | null
}

/** The words of a document that depart from their paragraphs, and the character styles they need. */
export interface DrawnWordsOf {
  readonly styles: readonly DrawnWords[]
  readonly departures: ReadonlyMap<DrawnParagraph, readonly Departure[]>
}

/**
 * The character styles that words inside paragraphs need once their paragraphs have the styles in `homes`. Words that
 * depart alike share one. A look that would need several, since it stands in several sorts of paragraph, has one that
 * says enough for all. White space takes part where words have the style already; by itself it gets none.
 */
export function drawWords(gathered: Gathered, homes: Homes, tolerance: number): DrawnWordsOf {
  const found: Departure[] = []
  for (const member of gathered.paragraphs) {
    const edge = member.text.trimEnd().length
    for (const run of member.runs) {
      if (!run.shown || (!run.local && !(member.absorbed && homes.has(member)))) continue
      const says = departure(gathered, member, run, homes.get(member) ?? null, tolerance)
      if (says === null || Object.keys(says).length === 0) continue
      // Space at the end of a paragraph is never seen.
      if (tolerance > 0 && run.from >= edge) continue
      found.push({ member, run, says, style: null, look: voiceWord(lookOf(run.style.effective)) })
    }
  }
  shareLooks(found)
  const byVoice = new Map<string, Departure[]>()
  for (const each of found) {
    const voice = voiceWord(each.says)
    byVoice.set(voice, [...(byVoice.get(voice) ?? []), each])
  }
  const styles: DrawnWords[] = []
  for (const [voice, stretches] of byVoice) {
    if (!stretches.some(({ run }) => run.visible)) continue
    const style: DrawnWords = {
      voice,
      says: stretches[0]!.says,
      fonts: fontSourcesOf(stretches[0]!.run.style.effective),
      stretches,
      characters: stretches.reduce((sum, { run }) => sum + run.characters, 0),
    }
    for (const each of stretches) each.style = style
    styles.push(style)
  }
  const departures = new Map<DrawnParagraph, Departure[]>()
  for (const each of found) departures.set(each.member, [...(departures.get(each.member) ?? []), each])
  return { styles: styles.sort((a, b) => b.characters - a.characters), departures }
}

/** What words have to say on top of their paragraph and of named styles around them; null where it cannot be said. */
function departure(
  gathered: Gathered,
  member: DrawnParagraph,
  run: DrawnRun,
  home: Home | null,
  tolerance: number,
): Look | null {
  const under: readonly Layer[] = home
    ? layersOf(gathered, member, home.base, home.style)
    : member.style.text.effective.layers
  const ground = lookOf(gathered.resolve([...under, ...run.named]))
  const needed = neededOn(lookOf(run.style.effective), [ground])
  if (needed === null) return null
  const unseen = tolerance > 0 ? attributesOfSlots(slots.filter(slot => !member.slots.has(slot))) : null
  return Object.fromEntries(
    Object.entries(needed).filter(([name, value]) => {
      if (isLeading(name) || unseen?.has(name)) return false
      const [a, b] = [points(value), points(ground[name])]
      return tolerance === 0 || a === null || b === null || Math.abs(a - b) > tolerance + 1e-6
    }),
  )
}

/** Lets a look that departs in several ways do so in one: it says all that any of its places needs. */
function shareLooks(found: readonly Departure[]): void {
  const ways = new Map<string, Map<string, Look>>()
  for (const { look, says } of found) {
    const own = ways.get(look) ?? new Map<string, Look>()
    ways.set(look, own.set(voiceWord(says), says))
  }
  const single = new Set([...ways.values()].filter(own => own.size === 1).flatMap(own => [...own.keys()]))
  const joint = new Map<string, Look>()
  for (const [look, own] of ways)
    if (own.size > 1 && ![...own.keys()].every(way => single.has(way)))
      joint.set(look, Object.assign({}, ...own.values()) as Look)
  for (const each of found) each.says = joint.get(each.look) ?? each.says
}
