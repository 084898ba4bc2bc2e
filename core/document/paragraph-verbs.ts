import { elementMarkup, subtreeIds } from '../xml/edit'
import type { XmlPart } from '../xml/tree'
import { writeElement } from '../xml/write'
import type { Draft } from './draft'

/*
 * What can be said to a paragraph as a whole, and what becomes of it in the file (ODF 1.4 part 3, 5.1.2 and 5.1.3).
 */

/** Gives a paragraph a style; a style that only held under a condition goes with the one before. */
export function assignParagraph(draft: Draft, paragraph: number, style: string | null): void {
  draft.setAttributes(paragraph, {
    'text:style-name': style,
    ...(draft.part.element(paragraph).attributes['text:cond-style-name'] === undefined
      ? {}
      : { 'text:cond-style-name': null }),
  })
}

/** Gives a span, a link or a paragraph a style where it stands, or with null takes it away. */
export function assignStyle(draft: Draft, node: number, style: string | null): void {
  draft.setAttributes(node, { 'text:style-name': style })
}

/** Makes a heading of a paragraph, or with null a paragraph of a heading: another element with the same content. */
export function setOutlineLevel(draft: Draft, paragraph: number, level: number | null): void {
  const element = draft.part.element(paragraph)
  if (level === null ? element.name === 'text:p' : element.name === 'text:h') {
    if (level !== null) draft.setAttributes(paragraph, { 'text:outline-level': String(level) })
    return
  }
  const name = level === null ? 'text:p' : 'text:h'
  const {
    'text:outline-level': _,
    'text:is-list-header': __,
    'text:restart-numbering': ___,
    ...attributes
  } = element.attributes
  const inside = element.children.map(id => writeElement(draft.part, id)).join('')
  const known = Object.fromEntries(Object.entries(attributes).filter(([key]) => !key.startsWith('{')))
  const parent = draft.part.element(element.parent)
  const markup = elementMarkup(
    draft.part,
    parent,
    name,
    level === null ? known : { ...known, 'text:outline-level': String(level) },
    inside,
  )
  const index = draft.indexOf(paragraph)
  const ids = subtreeIds(draft.part, paragraph)
  draft.remove(paragraph)
  draft.place(parent.id, index, markup, ids)
}

/** Whether a paragraph holds nothing at all, and is not the only one of what it stands in. */
export function isSpareParagraph(part: XmlPart, paragraph: number): boolean {
  const element = part.element(paragraph)
  const siblings = [...part.elements(part.element(element.parent))].filter(
    each => each.name === 'text:p' || each.name === 'text:h',
  )
  return siblings.length > 1 && element.children.length === 0
}
