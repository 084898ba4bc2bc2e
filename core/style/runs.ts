import type { Slot } from '../document/font-attributes'
import type { Inline, Paragraph, Story } from '../document/story-model'
import type { Cascade, TextStyle } from './cascade'
import { slotRuns } from './slots'

/** Stands for a frame or note in a paragraph's text. */
export const objectSign = '\uFFFC'

/**
 * A stretch of a paragraph whose characters share style, slot and source node. Offsets count UTF-16 units of the
 * paragraph's text.
 */
export interface TextRun {
  readonly start: number
  readonly end: number
  readonly style: TextStyle
  readonly slot: Slot
  readonly inline: Inline
  /** Where the inline begins in the paragraph's text: what runs share that came from one inline. */
  readonly inlineStart: number
  /** The node the text came from. */
  readonly node: number
}

export interface ParagraphText {
  /** With tabs as \t, forced breaks as \n, and one object sign per frame or note. */
  readonly text: string
  readonly runs: readonly TextRun[]
}

function textOf(inline: Inline): string {
  switch (inline.kind) {
    case 'text':
    case 'space':
    case 'tab':
    case 'break':
      return inline.text
    case 'frame':
    case 'note':
      return objectSign
    case 'annotation':
      return ''
  }
}

/**
 * A paragraph's text, as all offsets into it count: tabs as \t, forced breaks as \n, one object sign per frame or
 * note.
 */
export function paragraphText({ inlines }: Paragraph): string {
  return inlines.length === 1 ? textOf(inlines[0]!) : inlines.map(textOf).join('')
}

/** The text of a paragraph with the style and slot of every character. */
export function paragraphRuns(paragraph: Paragraph, cascade: Cascade, role: Story['role'] = 'body'): ParagraphText {
  const { inlines } = paragraph
  const text = paragraphText(paragraph)
  const slots = slotRuns(text)
  const runs: TextRun[] = []
  let start = 0
  let at = 0
  for (const inline of inlines) {
    const end = start + textOf(inline).length
    if (inline.kind === 'annotation') continue
    const style = cascade.text(paragraph, inline.span, role)
    const node = inline.kind === 'frame' ? inline.frame.node : inline.node
    for (let from = start; from < end;) {
      while (slots[at]!.end <= from) at++
      const to = Math.min(end, slots[at]!.end)
      runs.push({ start: from, end: to, style, slot: slots[at]!.slot, inline, inlineStart: start, node })
      from = to
    }
    start = end
  }
  return { text, runs }
}
