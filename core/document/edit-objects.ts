import { elementMarkup, escapeText } from '../xml/edit'
import type { XmlElement } from '../xml/tree'
import type { Draft } from './draft'
import type { FramePlace } from './edit-layout'
import { lengthMarkup } from './lengths'
import { freeName } from './edit-layout'
import { openParagraph, rawOffset } from './paragraph-spots'
import { EditRefusal } from './refusals'
import { readRules, type StartKind } from './rules'
import { cutText } from './spans'

/*
 * New objects. Each begins with the style that the document's starting type gives to its kind (rules.ts), else with
 * what OpenDocument's own defaults say.
 */

/** An empty paragraph as new text of a kind begins with it, for an element of a part. */
export function startParagraph(draft: Draft, parent: XmlElement, kind: StartKind): string {
  const style = readRules(draft.document).starts[kind]?.paragraph
  return elementMarkup(draft.part, parent, 'text:p', style === undefined ? {} : { 'text:style-name': style })
}

/** Puts a rectangle with room for a label on a drawn page, or at a paragraph of a text; returns it. */
export function addShape(draft: Draft, holder: number, place: FramePlace): number {
  const target = draft.part.element(holder)
  const onPage = target.name === 'draw:page'
  if (!onPage && target.name !== 'text:p' && target.name !== 'text:h')
    throw new EditRefusal('A shape is put on a page or at a paragraph. Nothing was changed.')
  const shape = elementMarkup(
    draft.part,
    target,
    'draw:rect',
    {
      'draw:name': freeName(draft.part, 'Shape ', 'draw:name'),
      ...(onPage ? {} : { 'text:anchor-type': 'paragraph' }),
      'svg:x': lengthMarkup(place.x),
      'svg:y': lengthMarkup(place.y),
      'svg:width': lengthMarkup(place.width),
      'svg:height': lengthMarkup(place.height),
    },
    startParagraph(draft, target, 'shape'),
  )
  const notes = draft.part.first(target, 'presentation:notes')
  return draft.insert(
    holder,
    onPage ? (notes ? target.children.indexOf(notes.id) : target.children.length) : 0,
    shape,
    2,
  )
}

/** Puts an empty table behind a paragraph of a text; returns the table. */
export function addTable(draft: Draft, behind: number, rows: number, columns: number): number {
  const paragraph = draft.part.element(behind)
  const parent = draft.part.element(paragraph.parent)
  if (paragraph.name !== 'text:p' && paragraph.name !== 'text:h')
    throw new EditRefusal('A table is put behind a paragraph. Nothing was changed.')
  if (parent.name === 'text:list-item' || parent.name === 'text:list-header')
    throw new EditRefusal(
      'A table does not stand in a list. Put the caret into a paragraph outside it. Nothing was changed.',
    )
  const cell = elementMarkup(
    draft.part,
    parent,
    'table:table-cell',
    { 'office:value-type': 'string' },
    startParagraph(draft, parent, 'cell'),
  )
  const row = elementMarkup(draft.part, parent, 'table:table-row', {}, cell.repeat(columns))
  const column = elementMarkup(
    draft.part,
    parent,
    'table:table-column',
    columns === 1 ? {} : { 'table:number-columns-repeated': String(columns) },
  )
  const table = elementMarkup(
    draft.part,
    parent,
    'table:table',
    { 'table:name': freeName(draft.part, 'Table', 'table:name') },
    column + row.repeat(rows),
  )
  return draft.insert(parent.id, draft.indexOf(behind) + 1, table, 2 + rows * (1 + columns * 2))
}

/** Where something goes into a paragraph's text: an element and the index among its children. Text is cut for it. */
function openedAt(draft: Draft, paragraph: number, at: number): { readonly parent: number; readonly index: number } {
  const open = openParagraph(draft.part, paragraph)
  if (at < 0 || at > open.text.length)
    throw new EditRefusal('This place is no longer in the text. Nothing was changed.')
  const piece =
    open.pieces.find(each => each.start < at && each.end >= at) ??
    open.pieces.find(each => each.start >= at && each.end > each.start)
  if (!piece) return { parent: paragraph, index: 0 }
  const inside = piece.kind === 'text' && piece.field === null && at > piece.start && at < piece.end
  if (inside) cutText(draft, piece.node, rawOffset(piece, at))
  const node = piece.field ?? piece.node
  return { parent: draft.part.node(node).parent, index: draft.indexOf(node) + (at > piece.start ? 1 : 0) }
}

/** Puts a note at a place of a paragraph; all notes are numbered anew. Returns its paragraph. */
export function addNote(draft: Draft, paragraph: number, at: number, endnote: boolean): number {
  for (let element = draft.part.element(paragraph); element.parent >= 0; element = draft.part.element(element.parent))
    if (element.name === 'text:note-body') throw new EditRefusal('A note has no notes of its own. Nothing was changed.')
  const { parent, index } = openedAt(draft, paragraph, at)
  const element = draft.part.element(parent)
  const kind = endnote ? 'endnote' : 'footnote'
  const body = elementMarkup(draft.part, element, 'text:note-body', {}, startParagraph(draft, element, 'note'))
  const note = elementMarkup(
    draft.part,
    element,
    'text:note',
    { 'text:id': freeName(draft.part, endnote ? 'edn' : 'ftn', 'text:id'), 'text:note-class': kind },
    elementMarkup(draft.part, element, 'text:note-citation', {}, '0') + body,
  )
  const made = draft.insert(parent, index, note, 5)
  let number = 0
  for (const each of [...draft.part.descendants()]) {
    if (each.name !== 'text:note' || each.attributes['text:note-class'] !== kind) continue
    const citation = draft.part.first(each, 'text:note-citation')
    number++
    if (!citation || citation.attributes['text:label'] !== undefined) continue
    const sign = draft.part.find(citation.children[0] ?? -1)
    if (sign?.kind === 'text' && sign.text !== String(number))
      draft.splice(sign.id, 0, sign.text.length, String(number))
  }
  const holder = draft.part.first(draft.part.element(made), 'text:note-body')!
  return draft.part.first(holder, 'text:p')!.id
}

/** What is written at the margin of a place, by whom and when (ISO 8601). */
export interface MarginNote {
  readonly author: string
  readonly date: string
  readonly text: string
}

/** Writes an annotation at a place of a paragraph (office:annotation, ODF 1.4 part 3, 14.1); returns it. */
export function addAnnotation(draft: Draft, paragraph: number, at: number, { author, date, text }: MarginNote): number {
  const { parent, index } = openedAt(draft, paragraph, at)
  const element = draft.part.element(parent)
  // White space collapses in a paragraph: none is kept but between words. So every name and line is one node of text.
  const plain = (words: string) => words.replace(/\s+/g, ' ').trim()
  const said: readonly (readonly [string, string])[] = [
    ['dc:creator', plain(author)],
    ['dc:date', plain(date)],
    ...text.split('\n').map(line => ['text:p', plain(line)] as const),
  ]
  const inside = said.map(([name, words]) => elementMarkup(draft.part, element, name, {}, escapeText(words))).join('')
  const annotation = elementMarkup(draft.part, element, 'office:annotation', {}, inside)
  return draft.insert(parent, index, annotation, 1 + said.length + said.filter(([, words]) => words !== '').length)
}

/** Gives the pages of a master page a header or footer; returns its paragraph. */
export function addHeader(draft: Draft, master: number, which: 'header' | 'footer'): number {
  const element = draft.part.element(master)
  if (element.name !== 'style:master-page')
    throw new EditRefusal('Headers and footers belong to master pages. Nothing was changed.')
  if (draft.part.first(element, `style:${which}`))
    throw new EditRefusal(`This master page has a ${which} already. Nothing was changed.`)
  const before =
    which === 'header'
      ? [...draft.part.elements(element)][0]
      : [...draft.part.elements(element)].find(each => !each.name.startsWith('style:header'))
  const id = draft.insert(
    master,
    before ? element.children.indexOf(before.id) : element.children.length,
    elementMarkup(draft.part, element, `style:${which}`, {}, startParagraph(draft, element, 'header')),
    2,
  )
  const layout = element.attributes['style:page-layout-name']
  const pageLayout = [...draft.part.descendants()].find(
    each => each.name === 'style:page-layout' && each.attributes['style:name'] === layout,
  )
  if (pageLayout && !draft.part.first(pageLayout, `style:${which}-style`)) {
    const properties = elementMarkup(draft.part, pageLayout, 'style:header-footer-properties', {
      'fo:min-height': '0.5cm',
      [which === 'header' ? 'fo:margin-bottom' : 'fo:margin-top']: '0.4cm',
    })
    const footer = draft.part.first(pageLayout, 'style:footer-style')
    draft.insert(
      pageLayout.id,
      which === 'header' && footer ? pageLayout.children.indexOf(footer.id) : pageLayout.children.length,
      elementMarkup(draft.part, pageLayout, `style:${which}-style`, {}, properties),
      2,
    )
  }
  return draft.part.first(draft.part.element(id), 'text:p')!.id
}
