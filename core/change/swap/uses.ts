import { faceAsked, faceKey, voiceOf } from '../../census/voices'
import type { Slot } from '../../document/font-attributes'
import { scriptOfCharacter } from '../../font/face'
import type { CoveredScript } from '../../font/measure/covered-scripts'
import { paragraphsOf } from '../../document/stories'
import type { TextStyle } from '../../style/cascade'
import type { Reading } from '../../style/reading'
import { objectSign, paragraphRuns } from '../../style/runs'

/** All text of one style and slot. */
export interface TextUse {
  readonly part: string
  readonly style: TextStyle
  readonly slot: Slot
  readonly face: string
  /** The face that it asks for, as the document names it. */
  readonly asked: { readonly family: string; readonly style: string }
  readonly characters: number
  /** How often each code point occurs. */
  readonly codePoints: ReadonlyMap<number, number>
}

/** How often code points occur: an array for the many below U+3000, since most text is there, a map for the rest. */
class Tally {
  characters = 0
  private readonly low = new Uint32Array(0x3000)
  private readonly high = new Map<number, number>()

  add(text: string): void {
    for (let at = 0; at < text.length; at++) {
      const unit = text.charCodeAt(at)
      if (unit < 0x3000) {
        this.low[unit]!++
        this.characters++
        continue
      }
      const code = text.codePointAt(at)!
      if (code > 0xffff) at++
      if (text[at] === objectSign) continue
      this.characters++
      this.high.set(code, (this.high.get(code) ?? 0) + 1)
    }
  }

  get counts(): Map<number, number> {
    const counts = new Map(this.high)
    this.low.forEach((count, code) => {
      if (count > 0) counts.set(code, count)
    })
    return counts
  }
}

/** Everything that is written in a document and its charts, by style: what a plan must know about text. */
export function textUses(reading: Reading): TextUse[] {
  const uses = new Map<string, { part: string; style: TextStyle; slot: Slot; tally: Tally }>()
  for (const own of reading.texts) {
    for (const story of own.stories) {
      // Text styled alike stands together: the last use is mostly the next one, too.
      const byStyle = new Map<TextStyle, Partial<Record<Slot, Tally>>>()
      for (const paragraph of paragraphsOf(story.blocks)) {
        const { text, runs } = paragraphRuns(paragraph, own.cascade, story.role)
        for (const run of runs) {
          let tallies = byStyle.get(run.style)
          if (!tallies) byStyle.set(run.style, (tallies = {}))
          let tally = tallies[run.slot]
          if (!tally) {
            const key = `${story.part}|${run.style.id}|${run.slot}`
            const use = uses.get(key) ?? { part: story.part, style: run.style, slot: run.slot, tally: new Tally() }
            uses.set(key, use)
            tally = tallies[run.slot] = use.tally
          }
          tally.add(
            run.inline.kind === 'note'
              ? run.inline.citation
              : run.start === 0 && run.end === text.length
                ? text
                : text.slice(run.start, run.end),
          )
        }
      }
    }
  }
  return [...uses.values()]
    .filter(use => use.tally.characters > 0)
    .map(({ part, style, slot, tally }) => ({
      part,
      style,
      slot,
      face: faceKey(voiceOf(style, slot)),
      asked: faceAsked(style, slot),
      characters: tally.characters,
      codePoints: tally.counts,
    }))
}

/** The script of most of the letters of some text; null where there is none that is measured. */
export function scriptOfMost(uses: readonly TextUse[]): CoveredScript | null {
  const counts = new Map<CoveredScript, number>()
  for (const { codePoints } of uses)
    for (const [code, count] of codePoints) {
      const script = scriptOfCharacter(String.fromCodePoint(code))
      if (script !== null) counts.set(script, (counts.get(script) ?? 0) + count)
    }
  return [...counts].sort((one, other) => other[1] - one[1])[0]?.[0] ?? null
}
