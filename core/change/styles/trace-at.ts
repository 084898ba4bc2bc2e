import type { Slot } from '../../document/font-attributes'
import { paragraphsOf } from '../../document/stories'
import { paragraphRuns } from '../../style/runs'
import { traceText, type TraceRow } from '../../style/tracing'
import type { Reading } from '../../style/reading'

/** Why the text at a place looks as it does. */
export interface TracedText {
  readonly text: string
  readonly slot: Slot
  readonly settled: boolean
  readonly paragraphStyle: string | null
  readonly textStyle: string | null
  readonly rows: readonly TraceRow[]
  /** The stretch in one style. */
  readonly from: number
  readonly to: number
  /** All words of the paragraph have this style. */
  readonly whole: boolean
}

/**
 * Traces the text at an offset: the character behind it, or at the paragraph's end the one before it. Null where
 * the paragraph is gone.
 */
export function traceAt(reading: Reading, part: string, node: number, offset: number): TracedText | null {
  for (const story of reading.stories) {
    for (const paragraph of paragraphsOf(story.blocks)) {
      if (paragraph.part !== part || paragraph.node !== node) continue
      const { text, runs } = paragraphRuns(paragraph, reading.cascade, story.role)
      const run = runs.find(each => each.start <= offset && each.end > offset) ?? runs.at(-1)
      const style = run?.style ?? reading.cascade.paragraph(paragraph, story.role).text
      const slot = run?.slot ?? 'western'
      const named = (family: string) =>
        style.effective.layers.findLast(
          layer => !layer.local && layer.style.family === family && layer.from !== 'default',
        )?.style.displayName ?? null
      return {
        text: run ? text.slice(run.start, run.end) : '',
        slot,
        settled: style.settled(slot),
        paragraphStyle: named('paragraph'),
        textStyle: named('text'),
        rows: traceText(style, slot),
        from: run?.start ?? 0,
        to: run?.end ?? 0,
        whole: runs.every(each => each.style === style),
      }
    }
  }
  return null
}
