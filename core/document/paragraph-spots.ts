import type { XmlElement, XmlPart } from '../xml/tree'
import { StoryReader } from './story-reader'
import type { Inline } from './story-model'

/**
 * A stretch of a paragraph's text and where it stands in the file. Offsets count UTF-16 units of the paragraph's text
 * as it is shown from the file: white space collapsed, one unit for a frame, a note or a tab.
 */
export interface TextPiece {
  readonly start: number
  readonly end: number
  readonly kind: Inline['kind']
  readonly text: string
  /** The node the text came from: a text node, or the element of a space, tab, break, note or frame. */
  readonly node: number
  /** The field that shows this text, as an element; null where it is text of its own. */
  readonly field: number | null
  /** Of text: the index in the node's character data of each unit, and one more for the end of the last. */
  readonly raw: Int32Array | null
}

/** A paragraph laid open for editing. */
export interface OpenParagraph {
  readonly part: XmlPart
  readonly element: XmlElement
  readonly text: string
  readonly pieces: readonly TextPiece[]
}

const whiteSpace = /[ \t\n\r]/

/** Which character of the file each shown one came from: white space collapses, and may be dropped at either end. */
function alignment(source: string, shown: string): Int32Array {
  const map = new Int32Array(shown.length + 1)
  let at = 0
  for (let index = 0; index < shown.length; index++) {
    if (shown[index] === ' ' && whiteSpace.test(source[at] ?? '')) {
      map[index] = at
      while (at < source.length && whiteSpace.test(source[at]!)) at++
      continue
    }
    while (at < source.length && source[at] !== shown[index]) at++
    map[index] = at++
  }
  // The end is behind the last one that is shown: white space that collapsed into it belongs to it.
  map[shown.length] = shown.length === 0 ? 0 : shown.endsWith(' ') ? at : map[shown.length - 1]! + 1
  return map
}

/** The element of the field that a text node stands in, below its paragraph; null where it stands in none. */
function fieldOf(part: XmlPart, inline: Extract<Inline, { kind: 'text' }>): number | null {
  if (inline.field === null) return null
  for (let node = part.node(inline.node); node.parent >= 0; node = part.node(node.parent))
    if (node.kind === 'element' && node.name === inline.field) return node.id
  return null
}

/** Whether a node is there and is a paragraph or a heading. */
export function isParagraph(part: XmlPart, node: number): boolean {
  const found = part.find(node)
  return found?.kind === 'element' && (found.name === 'text:p' || found.name === 'text:h')
}

/** Lays a paragraph open. @throws RangeError when the node is no paragraph */
export function openParagraph(part: XmlPart, node: number): OpenParagraph {
  const element = part.element(node)
  if (element.name !== 'text:p' && element.name !== 'text:h')
    throw new RangeError(`node ${node} of ${part.path} is not a paragraph`)
  const { inlines } = new StoryReader(part).paragraph(element, { place: 'body', holder: null, list: null })
  const pieces: TextPiece[] = []
  let text = ''
  for (const inline of inlines) {
    if (inline.kind === 'annotation') continue
    const shown = inline.kind === 'frame' || inline.kind === 'note' ? '\uFFFC' : inline.text
    const id = inline.kind === 'frame' ? inline.frame.node : inline.node
    const source = part.node(id)
    pieces.push({
      start: text.length,
      end: text.length + shown.length,
      kind: inline.kind,
      text: shown,
      node: id,
      field: inline.kind === 'text' ? (source.kind === 'text' ? fieldOf(part, inline) : id) : null,
      raw: source.kind === 'text' ? alignment(source.text, shown) : null,
    })
    text += shown
  }
  return { part, element, text, pieces }
}

/** Where in a text node's character data an offset of its piece lies. `leaning` says to which side where several do. */
export function rawOffset(piece: TextPiece, offset: number, leaning: 'before' | 'after' = 'before'): number {
  const at = offset - piece.start
  const { raw } = piece
  if (!raw) throw new RangeError('only text has character data')
  if (raw.length === 1) return 0
  if (at >= raw.length - 1) return raw[raw.length - 1]!
  return at > 0 && leaning === 'before' && piece.text[at - 1] !== ' ' ? raw[at - 1]! + 1 : raw[at]!
}
