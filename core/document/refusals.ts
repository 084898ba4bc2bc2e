import type { XmlElement, XmlPart } from '../xml/tree'
import type { OdfDocument } from './open'

/** An edit that the document does not take. The sentence says why; the document is as it was. */
export class EditRefusal extends Error {}

const recording = (part: XmlPart): boolean => {
  const body = part.first(part.rootElement, 'office:body')
  for (const content of body ? part.elements(body) : []) {
    const tracked = part.first(content, 'text:tracked-changes')
    // Recording is on unless it is said to be off (text:track-changes, ODF 1.4 part 3, 19.868).
    if (tracked) return tracked.attributes['text:track-changes'] !== 'false'
  }
  return false
}

/** Why the text of a node must not be edited; null where it may be. */
export function whyNotEdit(document: OdfDocument, part: XmlPart, node: number): string | null {
  const main = document.subdocuments[0]!
  if (part.path !== main.content && part.path !== main.styles)
    return 'This text belongs to an embedded object and shows its data. Nothing was changed.'
  if (recording(part))
    return (
      'This document records changes, and what is edited here would not be recorded. Switch ' +
      'recording off where it was switched on, then open it again. Nothing was changed.'
    )
  for (
    let element: XmlElement | undefined = part.element(node);
    element;
    element = element.parent < 0 ? undefined : part.element(element.parent)
  ) {
    const { name, attributes } = element
    if (name === 'text:tracked-changes')
      return 'This is a tracked deletion: it stays as it is until the change is accepted or rejected. Nothing was changed.'
    if (attributes['text:protected'] === 'true' && name === 'text:section')
      return `The section “${attributes['text:name'] ?? ''}” is protected. Nothing was changed.`
    if (
      (name === 'table:table' || name === 'table:table-cell') &&
      (attributes['table:protected'] === 'true' || attributes['table:protect'] === 'true')
    )
      return 'This table cell is protected. Nothing was changed.'
    if (
      name === 'text:table-of-content' ||
      name === 'text:bibliography' ||
      (name.startsWith('text:') && name.endsWith('-index'))
    )
      return 'This is a generated index: its text comes from the places it lists. Change it there. Nothing was changed.'
    if (name === 'text:note-citation' || name === 'text:ruby-text')
      return 'This text belongs to a note’s sign or to a reading aid and is not edited here. Nothing was changed.'
  }
  return null
}
