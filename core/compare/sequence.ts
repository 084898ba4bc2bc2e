import { diffArrays } from 'diff'
import { voiceKey, voiceOf, type VoiceLook } from '../census/voices'
import { pagesOf } from '../census/text-pages'
import { standingParagraphs } from '../document/stories'
import type { Paragraph, Story } from '../document/story-model'
import type { DocumentSession } from '../session'
import { paragraphRuns } from '../style/runs'

/** A stretch of a paragraph in one voice. */
export interface VoicedRun {
  readonly start: number
  readonly end: number
  readonly voice: VoiceLook
  readonly key: string
}

/** A paragraph of a document that is compared. */
export interface Compared {
  readonly paragraph: Paragraph
  readonly story: Story
  readonly text: string
  readonly runs: readonly VoicedRun[]
  /** The named style it goes by; '' for none. */
  readonly style: string
  readonly properties: Readonly<Record<string, string>>
  readonly page: number
}

/** All paragraphs of a document that can be seen or that masters and notes have, in reading order. */
export function comparedParagraphs({ reading, composition }: DocumentSession): Compared[] {
  const where = pagesOf(composition)
  return [...standingParagraphs(reading)].map(({ paragraph, story }): Compared => {
    const { text, runs } = paragraphRuns(paragraph, reading.cascade, story.role)
    const style = reading.cascade.paragraph(paragraph, story.role)
    return {
      paragraph,
      story,
      text,
      runs: runs.map(run => {
        const voice = voiceOf(run.style.pair?.apart ?? run.style, run.slot)
        return { start: run.start, end: run.end, voice, key: voiceKey(voice) }
      }),
      style: style.text.owner?.style.displayName ?? '',
      properties: style.properties,
      page: where(paragraph.part, paragraph.node, 0, 1)[0] ?? -1,
    }
  })
}

/** A paragraph before and after; null where it is not there. */
export interface Pair {
  readonly before: Compared | null
  readonly after: Compared | null
}

/** More paragraphs that differ than this are not sought out one by one: the rest is paired as it stands. */
const mostDifferent = 4_000

/** Where a paragraph stands as far as that tells it from others of the same words. */
const keyOf = ({ text, story, paragraph }: Compared): string =>
  `${story.role === 'body' || story.role === 'page' ? 'text' : story.role} ${paragraph.place} ${text}`

const wordsOf = (text: string): string[] => text.match(/[\p{L}\p{N}]+/gu) ?? []

/** How much two texts have in common, by their words: 0 to 1. */
function likeness(one: string, other: string): number {
  const [a, b] = [wordsOf(one), wordsOf(other)]
  if (a.length === 0 || b.length === 0) return a.length === b.length ? 1 : 0
  const counts = new Map<string, number>()
  for (const word of a) counts.set(word, (counts.get(word) ?? 0) + 1)
  let common = 0
  for (const word of b) {
    const left = counts.get(word) ?? 0
    if (left > 0) {
      common++
      counts.set(word, left - 1)
    }
  }
  return (2 * common) / (a.length + b.length)
}

/** Paragraphs that share less are two, and not one that was rewritten. */
const leastLikeness = 0.4

/** Pairs what went with what came at the same place, in order, as far as they are like each other. */
function pairUp(went: readonly Compared[], came: readonly Compared[]): Pair[] {
  const pairs: Pair[] = []
  let next = 0
  for (const before of went) {
    const at = came.findIndex(
      (after, index) => index >= next && index < next + 20 && likeness(before.text, after.text) >= leastLikeness,
    )
    if (at < 0) {
      pairs.push({ before, after: null })
      continue
    }
    for (; next < at; next++) pairs.push({ before: null, after: came[next]! })
    pairs.push({ before, after: came[at]! })
    next = at + 1
  }
  for (; next < came.length; next++) pairs.push({ before: null, after: came[next]! })
  return pairs
}

/**
 * Pairs the paragraphs of two documents: those of the same words in the same order first (Myers 1986, “An O(ND) Difference
 * Algorithm and Its Variations”), then those between them that are like each other.
 */
export function pairParagraphs(before: readonly Compared[], after: readonly Compared[]): Pair[] {
  const hunks = diffArrays(before.map(keyOf), after.map(keyOf), { maxEditLength: mostDifferent })
  if (!hunks) return pairUp(before, after)
  const pairs: Pair[] = []
  let [one, other] = [0, 0]
  let went: Compared[] = []
  let came: Compared[] = []
  for (const { added, removed, value } of hunks) {
    const count = value.length
    if (removed) went = before.slice(one, (one += count))
    else if (added) came = after.slice(other, (other += count))
    else {
      pairs.push(...pairUp(went, came))
      ;[went, came] = [[], []]
      for (let at = 0; at < count; at++) pairs.push({ before: before[one++]!, after: after[other++]! })
    }
  }
  return [...pairs, ...pairUp(went, came)]
}
