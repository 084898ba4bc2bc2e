import { startTag, subtreeIds } from '../xml/edit'
import type { XmlElement } from '../xml/tree'
import { writeElement } from '../xml/write'
import type { Draft } from './draft'

/** A start tag without what only one element may have. */
export const cloned = (element: XmlElement) =>
  startTag(element)
    .replace(/\/>$/, '>')
    .replace(/\s(xml:id|text:id|xhtml:\w+)="[^"]*"/g, '')
export const closing = (tag: string) => `</${/^<([^\s/>]+)/.exec(tag)![1]!}>`

/** Nodes taken out, as markup, with their ids. */
export interface Tail {
  source: string
  ids: number[]
}

/**
 * Takes everything behind a place of a paragraph out of the draft: spans are cut in two. `spot` is a child path
 * from the paragraph.
 */
export function cutTail(
  draft: Draft,
  parent: number,
  spot: { readonly node: number; readonly raw: number | null; readonly before: boolean },
): Tail {
  const chain: number[] = []
  for (let id = spot.node; id !== parent; id = draft.part.node(id).parent) chain.push(id)
  const tail: Tail = { source: '', ids: [] }
  for (const id of chain) {
    const { part } = draft
    const node = part.node(id)
    const holder = part.element(node.parent)
    const at = holder.children.indexOf(id)
    const own: Tail = { source: '', ids: [] }
    if (id === spot.node) {
      if (spot.raw !== null && node.kind === 'text' && spot.raw > 0 && spot.raw < node.text.length) {
        own.source = draft.slice(id, spot.raw, node.text.length)
        own.ids = draft.newIds(1)
        draft.splice(id, spot.raw, node.text.length, '')
      } else if (spot.raw === null ? spot.before : spot.raw === 0) take(draft, id, own)
    } else if (tail.ids.length > 0 && node.kind === 'element') {
      const tag = cloned(node)
      own.source = `${tag}${tail.source}${closing(tag)}`
      own.ids = [...draft.newIds(1), ...tail.ids]
    }
    for (const later of holder.children.slice(at + 1)) take(draft, later, own)
    tail.source = own.source
    tail.ids = own.ids
  }
  return tail
}

/** Takes a node with all below it out of the draft. */
export function take(draft: Draft, id: number, into: Tail): void {
  into.source += writeElement(draft.part, id)
  into.ids.push(...subtreeIds(draft.part, id))
  draft.remove(id)
}
