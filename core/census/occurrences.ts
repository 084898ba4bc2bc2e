import { standingParagraphs } from '../document/stories'
import type { Paragraph, Story } from '../document/story-model'
import { objectSign, paragraphRuns } from '../style/runs'
import type { TextStyle } from '../style/cascade'
import type { Slot } from '../document/font-attributes'
import type { Reading } from '../style/reading'
import { voiceKey, voiceOf } from './voices'

/** A stretch of a paragraph in one voice. */
export interface VoiceStretch {
  readonly paragraph: Paragraph
  readonly story: Story
  readonly from: number
  readonly to: number
  readonly style: TextStyle
  readonly slot: Slot
}

/**
 * Every stretch of text of the document itself that speaks in a voice; neighbours of one paragraph come as one,
 * with the style of the first.
 */
export function occurrencesOf(reading: Reading, key: string): VoiceStretch[] {
  const found: VoiceStretch[] = []
  for (const { paragraph, story } of standingParagraphs(reading)) {
    const { text, runs } = paragraphRuns(paragraph, reading.cascade, story.role)
    for (const run of runs) {
      if (
        run.end === run.start ||
        text.slice(run.start, run.end) === objectSign ||
        voiceKey(voiceOf(run.style, run.slot)) !== key
      )
        continue
      const last = found.at(-1)
      if (last?.paragraph === paragraph && last.to === run.start) found[found.length - 1] = { ...last, to: run.end }
      else found.push({ paragraph, story, from: run.start, to: run.end, style: run.style, slot: run.slot })
    }
  }
  return found
}
