import { elementMarkup, subtreeIds } from '../xml/edit'
import type { XmlElement } from '../xml/tree'
import { writeElement } from '../xml/write'
import type { Draft } from './draft'
import { freeName } from './edit-layout'
import { EditRefusal } from './refusals'

/** A drawn page. @throws EditRefusal for the pages of a text */
const pageOf = (draft: Draft, node: number): XmlElement => {
  const page = draft.part.element(node)
  if (page.name !== 'draw:page')
    throw new EditRefusal(
      'The pages of a text come of its words: a page is added by a break, not by itself. Nothing was changed.',
    )
  return page
}

/** Placeholders of a page that a new one behind it gets, too, empty (presentation:class, ODF 1.4 part 3, 19.391). */
const placeholders: ReadonlySet<string> = new Set(['title', 'subtitle', 'outline', 'text'])

/**
 * The master's own style of a placeholder, which says what new text in it begins with (16.40.2); null where there
 * is none of the name.
 */
function masterStyle(draft: Draft, master: string | undefined, kind: string): string | null {
  const path = draft.document.subdocuments[0]!.styles
  const styles = path === null ? undefined : draft.document.parts.get(path)
  const holder = styles?.first(styles.rootElement, 'office:styles')
  const name = `${master}-${kind === 'outline' || kind === 'text' ? 'outline1' : kind}`
  for (const style of holder ? styles!.elements(holder, 'style:style') : [])
    if (style.attributes['style:name'] === name && style.attributes['style:family'] === 'presentation') return name
  return null
}

/** Puts a page behind another one, on the same master, with its placeholders empty. */
export function addPage(draft: Draft, behind: number): number {
  const page = pageOf(draft, behind)
  const { part } = draft
  const parent = part.element(page.parent)
  const { 'draw:master-page-name': master, 'draw:style-name': style } = page.attributes
  const name = freeName(part, 'Page ', 'draw:name')
  let count = 1
  const frames = [...part.elements(page, 'draw:frame')]
    .filter(
      frame => placeholders.has(frame.attributes['presentation:class'] ?? '') && part.first(frame, 'draw:text-box'),
    )
    .map(frame => {
      count += 3
      const kept = Object.fromEntries(
        Object.entries(frame.attributes).filter(([key]) =>
          /^(svg:(x|y|width|height)|presentation:(class|style-name)|draw:(style-name|layer|text-style-name))$/.test(
            key,
          ),
        ),
      )
      const own = masterStyle(draft, master, frame.attributes['presentation:class']!)
      return elementMarkup(
        part,
        parent,
        'draw:frame',
        { ...kept, ...(own === null ? {} : { 'presentation:style-name': own }), 'presentation:placeholder': 'true' },
        elementMarkup(part, parent, 'draw:text-box', {}, elementMarkup(part, parent, 'text:p', {})),
      )
    })
  const attributes = {
    'draw:name': name,
    ...(style === undefined ? {} : { 'draw:style-name': style }),
    ...(master === undefined ? {} : { 'draw:master-page-name': master }),
  }
  return draft.insert(
    parent.id,
    parent.children.indexOf(behind) + 1,
    elementMarkup(part, parent, 'draw:page', attributes, frames.join('')),
    count,
  )
}

/** Takes a page away. @throws EditRefusal for the only one */
export function removePage(draft: Draft, node: number): void {
  const page = pageOf(draft, node)
  const parent = draft.part.element(page.parent)
  if ([...draft.part.elements(parent, 'draw:page')].length < 2)
    throw new EditRefusal('This is the only page: a document keeps one. Nothing was changed.')
  draft.remove(node)
  draft.mergeTexts(parent.id)
}

/** Moves a page to another place among the pages, from 0. */
export function movePage(draft: Draft, node: number, to: number): void {
  const page = pageOf(draft, node)
  const pages = () => [...draft.part.elements(draft.part.element(page.parent), 'draw:page')]
  const count = pages().length
  if (to < 0 || to >= count) throw new EditRefusal(`There are pages 1 to ${count}. Nothing was changed.`)
  if (pages()[to]!.id === node) return
  const source = writeElement(draft.part, node)
  const ids = subtreeIds(draft.part, node)
  draft.remove(node)
  draft.mergeTexts(page.parent)
  const left = pages()
  const parent = draft.part.element(page.parent)
  const index = to < left.length ? parent.children.indexOf(left[to]!.id) : parent.children.indexOf(left.at(-1)!.id) + 1
  draft.place(page.parent, index, source, ids)
}
