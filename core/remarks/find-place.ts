import { standingParagraphs } from '../document/stories'
import type { Paragraph } from '../document/story-model'
import type { Reading } from '../style/reading'
import { paragraphText } from '../style/runs'
import { quoteLength, type RemarkPlace, type TextPlace } from './remark'

/** A stretch of a paragraph. Offsets count UTF-16 units of its text. */
export interface Stretch {
  readonly part: string
  readonly node: number
  readonly from: number
  readonly to: number
}

/**
 * Where a remark's words are now. `there`: where they were. `moved`: the same words elsewhere. `changed`: the paragraph is
 * there and the words are not: all of it is meant. `gone`: neither is.
 */
export type FoundPlace = ({ readonly state: 'there' | 'moved' | 'changed' } & Stretch) | { readonly state: 'gone' }

/** Words shorter than this say nothing of where they came from: they are not looked for in other paragraphs. */
const telling = 12

/** The place of a stretch of text, with the words that stand there. */
export function textPlace(text: string, { part, node, from, to }: Stretch): TextPlace {
  return { kind: 'text', part, node, from, to, text: text.slice(from, Math.min(to, from + quoteLength)) }
}

/** The occurrence of words that is nearest to a place; -1 where there is none. */
function nearest(text: string, words: string, from: number): number {
  const after = text.indexOf(words, from)
  const before = text.lastIndexOf(words, from)
  if (after < 0 || before < 0) return Math.max(after, before)
  return after - from < from - before ? after : before
}

/** Finds the places of remarks in a document as it is now: one reading of it serves all. */
export class RemarkFinder {
  private readonly byNode = new Map<string, { readonly paragraph: Paragraph; readonly text: string }>()

  constructor(reading: Pick<Reading, 'stories'>) {
    for (const { paragraph } of standingParagraphs(reading))
      this.byNode.set(`${paragraph.part} ${paragraph.node}`, { paragraph, text: paragraphText(paragraph) })
  }

  /** Where words are now. Places on pages are where they were. */
  find(place: RemarkPlace): FoundPlace | null {
    if (place.kind !== 'text') return null
    const { part, node, from, to, text: words } = place
    const length = to - from
    const own = this.byNode.get(`${part} ${node}`)
    const stretch = (at: number) => ({ part, node, from: at, to: Math.min(at + length, own!.text.length) })
    if (own) {
      if (words === '') return { state: 'there', ...stretch(Math.min(from, own.text.length)) }
      if (own.text.startsWith(words, from)) return { state: 'there', ...stretch(from) }
      const at = nearest(own.text, words, from)
      if (at >= 0) return { state: 'moved', ...stretch(at) }
    }
    if (words.length >= telling) {
      // The same words in one other paragraph: it was cut out and put in again, or divided.
      const elsewhere = [...this.byNode.values()].filter(each => each !== own && each.text.includes(words))
      const [only] = elsewhere
      if (only && elsewhere.length === 1) {
        const at = only.text.indexOf(words)
        const { part: there, node: its } = only.paragraph
        return { state: 'moved', part: there, node: its, from: at, to: Math.min(at + length, only.text.length) }
      }
    }
    return own ? { state: 'changed', part, node, from: 0, to: own.text.length } : { state: 'gone' }
  }
}
