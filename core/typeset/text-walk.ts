import { paragraphsOf } from '../document/stories'
import type { Paragraph, Story } from '../document/story-model'
import { paragraphText } from '../style/runs'
import type { XmlPart } from '../xml/tree'
import type { Spot, TextRange } from './caret'
import type { Reading } from '../style/reading'

export type Move = 'left' | 'right' | 'word-left' | 'word-right' | 'start' | 'end'

/**
 * What text stands in by itself: a caret does not wander out of it. Cells of a table are of one text with what is
 * around them.
 */
const roots: ReadonlySet<string> = new Set([
  'draw:text-box',
  'text:note-body',
  'office:annotation',
  'style:header',
  'style:header-left',
  'style:header-first',
  'style:footer',
  'style:footer-left',
  'style:footer-first',
  'office:text',
  'draw:custom-shape',
  'draw:rect',
  'draw:circle',
  'draw:ellipse',
  'draw:line',
  'draw:polyline',
  'draw:polygon',
  'draw:regular-polygon',
  'draw:path',
  'draw:connector',
  'draw:caption',
  'draw:measure',
  'draw:frame',
  'draw:page',
])

const graphemes = new Intl.Segmenter('und', { granularity: 'grapheme' })
const words = new Intl.Segmenter('und', { granularity: 'word' })

/** Goes through the text of a document as a caret does. */
export class TextWalk {
  private readonly sequences = new Map<string, readonly Paragraph[]>()
  private readonly byNode = new Map<string, { readonly paragraph: Paragraph; readonly story: Story }>()
  private filled = false

  constructor(private readonly reading: Reading) {}

  private fill(): void {
    if (this.filled) return
    this.filled = true
    for (const story of this.reading.stories)
      for (const paragraph of paragraphsOf(story.blocks))
        this.byNode.set(`${paragraph.part}#${paragraph.node}`, { paragraph, story })
  }

  /** A paragraph and the story it stands in; undefined where there is none any more. */
  find(part: string, node: number): { readonly paragraph: Paragraph; readonly story: Story } | undefined {
    this.fill()
    return this.byNode.get(`${part}#${node}`)
  }

  text(part: string, node: number): string {
    const found = this.find(part, node)
    return found ? paragraphText(found.paragraph) : ''
  }

  /** The element of the text that a paragraph belongs to. */
  root(part: string, node: number): number {
    const xml: XmlPart = this.reading.cascade.scope(part).part
    let element = xml.element(node)
    while (element.parent >= 0 && !roots.has(element.name)) element = xml.element(element.parent)
    return element.id
  }

  /** The paragraphs of the text that one belongs to, in order. */
  sequence(part: string, node: number): readonly Paragraph[] {
    const found = this.find(part, node)
    if (!found) return []
    const root = this.root(part, node)
    const key = `${part}#${root}`
    let list = this.sequences.get(key)
    if (!list)
      this.sequences.set(
        key,
        (list = paragraphsOf(found.story.blocks).filter(
          paragraph => this.root(paragraph.part, paragraph.node) === root,
        )),
      )
    return list
  }

  private neighbour(spot: Spot, step: 1 | -1): Paragraph | undefined {
    const list = this.sequence(spot.part, spot.node)
    return list[list.findIndex(paragraph => paragraph.node === spot.node) + step]
  }

  /** The next place in a direction; the same one where there is none. */
  move(spot: Spot, move: Move): Spot {
    const text = this.text(spot.part, spot.node)
    const at = (paragraph: Paragraph, offset: number): Spot => ({ part: paragraph.part, node: paragraph.node, offset })
    switch (move) {
      case 'left':
      case 'word-left': {
        if (spot.offset <= 0) {
          const before = this.neighbour(spot, -1)
          return before ? at(before, paragraphText(before).length) : spot
        }
        const head = text.slice(0, spot.offset)
        if (move === 'left') return { ...spot, offset: [...graphemes.segment(head)].at(-1)?.index ?? 0 }
        return { ...spot, offset: [...words.segment(head)].findLast(each => each.isWordLike)?.index ?? 0 }
      }
      case 'right':
      case 'word-right': {
        if (spot.offset >= text.length) {
          const after = this.neighbour(spot, 1)
          return after ? at(after, 0) : spot
        }
        const tail = text.slice(spot.offset)
        if (move === 'right') return { ...spot, offset: spot.offset + [...graphemes.segment(tail)][0]!.segment.length }
        const word = [...words.segment(tail)].find(each => each.isWordLike)
        return { ...spot, offset: word ? spot.offset + word.index + word.segment.length : text.length }
      }
      case 'start': {
        const first = this.sequence(spot.part, spot.node)[0]
        return first ? at(first, 0) : spot
      }
      case 'end': {
        const last = this.sequence(spot.part, spot.node).at(-1)
        return last ? at(last, paragraphText(last).length) : spot
      }
    }
  }

  /** The word at a place, as a selection: white space where there is none. */
  word(spot: Spot): { readonly from: number; readonly to: number } {
    const text = this.text(spot.part, spot.node)
    for (const each of words.segment(text))
      if (each.index <= spot.offset && each.index + each.segment.length > spot.offset)
        return { from: each.index, to: each.index + each.segment.length }
    return { from: spot.offset, to: spot.offset }
  }

  /** What lies between two places of one text, paragraph by paragraph; empty where they are of two texts. */
  ranges(one: Spot, other: Spot): TextRange[] {
    const list = this.sequence(one.part, one.node)
    const a = list.findIndex(paragraph => paragraph.node === one.node && paragraph.part === one.part)
    const b = list.findIndex(paragraph => paragraph.node === other.node && paragraph.part === other.part)
    if (a < 0 || b < 0) return []
    const [first, last] =
      a < b || (a === b && one.offset <= other.offset)
        ? [
            { at: a, spot: one },
            { at: b, spot: other },
          ]
        : [
            { at: b, spot: other },
            { at: a, spot: one },
          ]
    return list.slice(first.at, last.at + 1).map((paragraph, index): TextRange => ({
      part: paragraph.part,
      node: paragraph.node,
      from: index === 0 ? first.spot.offset : 0,
      to: first.at + index === last.at ? last.spot.offset : paragraphText(paragraph).length,
      through: first.at + index < last.at,
    }))
  }
}
