import type { OdfDocument } from '../document/open'
import { openParagraph } from '../document/paragraph-spots'
import { subtreeIds } from '../xml/edit'
import type { XmlElement, XmlPart } from '../xml/tree'
import { textPlace } from './find-place'
import type { TextPlace } from './remark'

/** What somebody wrote at the margin before the document came here (office:annotation, ODF 1.4 part 3, 14.1). */
export interface Annotation {
  readonly author: string
  /** As the file has it; '' where it says none. */
  readonly date: string
  readonly text: string
  /** The paragraph it stands at; null on a drawn page, or where text is not laid open. */
  readonly place: TextPlace | null
}

/** At most so many are told, and so much of each. */
export const annotationLimit = 2_000
const textLimit = 4_000

const childText = (part: XmlPart, element: XmlElement, name: string): string => {
  const child = part.first(element, name)
  return child ? part.textOf(child.id).trim() : ''
}

/** The paragraph around an element; null on a drawn page. */
function paragraphAround(part: XmlPart, element: XmlElement): XmlElement | null {
  for (let at = part.find(element.parent); at; at = part.find(at.parent)) {
    if (at.kind !== 'element') return null
    if (at.name === 'text:p' || at.name === 'text:h') return at
  }
  return null
}

/** Offset of an annotation in the text of its paragraph: annotations have no length of their own. */
function offsetOf(part: XmlPart, paragraph: XmlElement, annotation: XmlElement): { at: number; text: string } {
  const { text, pieces } = openParagraph(part, paragraph.id)
  const order = new Map(subtreeIds(part, paragraph.id).map((id, index) => [id, index]))
  const own = order.get(annotation.id)!
  return { at: pieces.findLast(piece => (order.get(piece.node) ?? own) < own)?.end ?? 0, text }
}

/** The annotations that a document carries in its own parts, in reading order. */
export function annotationsOf(document: OdfDocument): Annotation[] {
  const found: Annotation[] = []
  const { content, styles } = document.subdocuments[0]!
  // Headers and footers stand with the styles.
  for (const path of [content, styles]) {
    const part = path === null ? undefined : document.parts.get(path)
    if (!part) continue
    for (const element of part.descendants()) {
      if (element.name !== 'office:annotation' || found.length >= annotationLimit) continue
      const paragraphs = [...part.descendants(element)].filter(each => each.name === 'text:p')
      const around = paragraphAround(part, element)
      const spot = around && offsetOf(part, around, element)
      found.push({
        author: childText(part, element, 'dc:creator'),
        date: childText(part, element, 'dc:date'),
        text: paragraphs
          .map(each => part.textOf(each.id))
          .join('\n')
          .slice(0, textLimit),
        place:
          around && spot
            ? textPlace(spot.text, { part: part.path, node: around.id, from: spot.at, to: spot.at })
            : null,
      })
    }
  }
  return found
}
