import { elementMarkup } from '../xml/edit'
import type { XmlPart } from '../xml/tree'
import { cloned, closing, cutTail, take, type Tail } from './cutting'
import type { Draft } from './draft'
import { replaceText, settleSpaces, writeRuns } from './edit-text'
import { openParagraph, rawOffset } from './paragraph-spots'
import { EditRefusal } from './refusals'

const isParagraph = (name: string) => name === 'text:p' || name === 'text:h'
const isItem = (name: string) => name === 'text:list-item' || name === 'text:list-header'
/** Containers that are only there to hold what stands in them. */
const wrappers: ReadonlySet<string> = new Set([
  'text:list-item',
  'text:list-header',
  'text:list',
  'text:numbered-paragraph',
])

/**
 * The style that follows a paragraph's own, where its end is split off (style:next-style-name, ODF 1.4 part 3,
 * 19.505).
 */
export type NextStyle = (styleName: string) => string | null

/**
 * Splits a paragraph in two at an offset of its text; in a list a new item begins. Returns the new paragraph.
 * @throws EditRefusal
 */
export function splitParagraph(draft: Draft, node: number, at: number, nextStyle: NextStyle): number {
  const open = openParagraph(draft.part, node)
  if (at < 0 || at > open.text.length)
    throw new EditRefusal('This place is no longer in the text. Nothing was changed.')
  const { element } = open
  const before = open.text.slice(0, at)
  const after = open.text.slice(at)
  const within = open.pieces.find(piece => piece.start < at && piece.end > at)
  if (within && within.field !== null)
    throw new EditRefusal(
      'This text is a field that the document works out by itself: it cannot be divided. Nothing was changed.',
    )
  if (within?.kind === 'space') {
    // Several spaces in one element: those behind the place are written anew behind it.
    replaceText(draft, node, at, within.end, '')
    const made = splitParagraph(draft, node, at, nextStyle)
    replaceText(draft, made, 0, 0, ' '.repeat(within.end - at))
    return made
  }
  const piece = within ?? open.pieces.find(each => each.start === at && each.end > each.start) ?? null
  let tail: Tail = { source: '', ids: [] }
  const { part } = draft
  const holder = part.element(element.parent)
  const home = piece ? part.node(piece.field ?? piece.node).parent : node
  if (piece && piece.kind === 'text' && piece.field === null)
    tail = cutTail(draft, node, { node: piece.node, raw: piece.start === at ? 0 : rawOffset(piece, at), before: true })
  else if (piece)
    tail = cutTail(draft, node, { node: piece.field ?? piece.node, raw: null, before: piece.start === at })
  if (home !== node) draft.dropEmpty(home, node)
  const own = element.attributes['text:style-name'] ?? ''
  const next = after === '' ? nextStyle(own) : null
  let tag = cloned(element)
  if (next !== null && next !== own) {
    const name = element.name === 'text:h' && after === '' ? 'text:p' : element.name
    tag = elementMarkup(part, holder, name, { 'text:style-name': next }).replace(/\/>$/, '>')
  }
  const [made] = draft.newIds(1)
  let source = `${tag}${tail.source}${closing(tag)}`
  let ids = [made!, ...tail.ids]
  if (isItem(holder.name)) {
    const rest: Tail = { source, ids }
    const siblings = draft.part.element(holder.id).children
    for (const later of siblings.slice(siblings.indexOf(node) + 1)) take(draft, later, rest)
    const itemTag = elementMarkup(draft.part, draft.part.element(holder.parent), 'text:list-item', {}).replace(
      /\/>$/,
      '>',
    )
    source = `${itemTag}${rest.source}${closing(itemTag)}`
    ids = [...draft.newIds(1), ...rest.ids]
    draft.place(holder.parent, draft.indexOf(holder.id) + 1, source, ids)
  } else draft.place(holder.id, draft.indexOf(node) + 1, source, ids)
  settleSpaces(draft, node, before)
  settleSpaces(draft, made!, after)
  return made!
}

/** The element whose children a paragraph's surroundings are, seen through lists. */
function containerOf(part: XmlPart, node: number): number {
  let element = part.element(part.element(node).parent)
  while (wrappers.has(element.name)) element = part.element(element.parent)
  return element.id
}

/**
 * The paragraph behind another one in the same text, where nothing but list structure is between; null where
 * something is.
 */
export function followingParagraph(part: XmlPart, node: number): number | null {
  const container = containerOf(part, node)
  let at = node
  for (;;) {
    const parent = part.element(part.node(at).parent)
    for (const id of parent.children.slice(parent.children.indexOf(at) + 1)) {
      const found = firstParagraph(part, id)
      if (found !== undefined) return found
    }
    if (parent.id === container) return null
    at = parent.id
  }
}

/** The first paragraph at a node: null where something else comes first, undefined where there is nothing. */
function firstParagraph(part: XmlPart, id: number): number | null | undefined {
  const node = part.node(id)
  if (
    node.kind !== 'element' ||
    node.name === 'text:soft-page-break' ||
    node.name.startsWith('text:bookmark') ||
    node.name === 'text:sequence-decls'
  )
    return undefined
  if (isParagraph(node.name)) return id
  if (!wrappers.has(node.name)) return null
  for (const child of node.children) {
    const found = firstParagraph(part, child)
    if (found !== undefined) return found
  }
  return undefined
}

/** Joins a paragraph with the one behind it, which gives up its own style. @throws EditRefusal */
export function joinParagraphs(draft: Draft, node: number): void {
  const other = followingParagraph(draft.part, node)
  if (other === null)
    throw new EditRefusal(
      'There is no paragraph behind this one that it could be joined with: a table, a frame ' +
        'or the end of the text is there. Nothing was changed.',
    )
  const expected = openParagraph(draft.part, node).text + openParagraph(draft.part, other).text
  const moved: Tail = { source: '', ids: [] }
  for (const child of [...draft.part.element(other).children]) take(draft, child, moved)
  const { parent } = draft.part.node(other)
  draft.remove(other)
  draft.mergeTexts(parent)
  dropWrappers(draft, parent)
  placeAll(draft, node, moved)
  draft.mergeTexts(node)
  settleSpaces(draft, node, expected)
}

/** Puts moved nodes at the end of an element, one by one. */
function placeAll(draft: Draft, parent: number, moved: Tail): void {
  if (moved.ids.length === 0) return
  // In one holder first, since a draft takes one node at a time.
  const element = draft.part.element(parent)
  const holderTag = elementMarkup(draft.part, element, 'text:span', {}).replace(/\/>$/, '>')
  const [holder] = draft.newIds(1)
  draft.place(parent, element.children.length, `${holderTag}${moved.source}${closing(holderTag)}`, [
    holder!,
    ...moved.ids,
  ])
  draft.unwrap(holder!)
}

/** Lists and items that nothing is left in go too. */
function dropWrappers(draft: Draft, from: number): void {
  let id = from
  while (wrappers.has(draft.part.element(id).name) && ![...draft.part.elements(draft.part.element(id))].length) {
    const { parent } = draft.part.node(id)
    draft.remove(id)
    draft.mergeTexts(parent)
    id = parent
  }
}

/** Takes a whole paragraph away; the last one of its container is emptied only. */
export function removeParagraph(draft: Draft, node: number): void {
  const container = containerOf(draft.part, node)
  let others = false
  for (const each of draft.part.descendants(draft.part.element(container))) {
    if (each.id === node || !isParagraph(each.name) || containerOf(draft.part, each.id) !== container) continue
    others = true
    break
  }
  if (!others) {
    replaceText(draft, node, 0, openParagraph(draft.part, node).text.length, '')
    return
  }
  const { parent } = draft.part.node(node)
  draft.remove(node)
  draft.mergeTexts(parent)
  dropWrappers(draft, parent)
}

/** A paragraph to be made: its style, and text in spans of character styles. */
export interface NewParagraph {
  readonly style: string | null
  readonly heading: number | null
  readonly runs: readonly { readonly text: string; readonly style: string | null }[]
}

/** Puts paragraphs behind another one; in a list each becomes an item. Returns the last of them. */
export function insertParagraphs(draft: Draft, behind: number, list: readonly NewParagraph[]): number {
  let at = behind
  for (const paragraph of list) {
    const { part } = draft
    const holder = part.element(part.node(at).parent)
    const name = paragraph.heading === null ? 'text:p' : 'text:h'
    const attributes: Record<string, string> = {
      ...(paragraph.style === null ? {} : { 'text:style-name': paragraph.style }),
      ...(paragraph.heading === null ? {} : { 'text:outline-level': String(paragraph.heading) }),
    }
    const empty = elementMarkup(part, holder, name, attributes)
    const [made] = draft.newIds(1)
    if (isItem(holder.name)) {
      const [item] = draft.newIds(1)
      const tag = elementMarkup(part, part.element(holder.parent), 'text:list-item', {}).replace(/\/>$/, '>')
      draft.place(holder.parent, draft.indexOf(holder.id) + 1, `${tag}${empty}${closing(tag)}`, [item!, made!])
    } else draft.place(holder.id, draft.indexOf(at) + 1, empty, [made!])
    writeRuns(draft, made!, paragraph.runs)
    at = made!
  }
  return at
}

/**
 * Puts paragraphs in at a place of a paragraph, which is split there. Plain ones continue it: the first goes on with its
 * head, the last before its tail. With styles of their own they stand between. Returns the one the caret is in then.
 */
export function pasteParagraphs(
  draft: Draft,
  node: number,
  at: number,
  list: readonly NewParagraph[],
  styled: boolean,
): number {
  const { attributes, name } = draft.part.element(node)
  const own = {
    style: attributes['text:style-name'] ?? null,
    heading: name === 'text:h' ? Number.parseInt(attributes['text:outline-level'] ?? '1', 10) || 1 : null,
  }
  const tail = splitParagraph(draft, node, at, () => null)
  const textOf = (id: number) => openParagraph(draft.part, id).text
  const isEmpty = (id: number) => draft.part.element(id).children.length === 0
  if (styled) {
    const last = insertParagraphs(
      draft,
      node,
      list.map(each =>
        each.style === null && each.heading === null
          ? { ...each, style: own.heading === null ? own.style : null }
          : each,
      ),
    )
    if (isEmpty(tail)) removeParagraph(draft, tail)
    if (isEmpty(node)) removeParagraph(draft, node)
    return last
  }
  const words = (each: NewParagraph) => each.runs.map(run => run.text).join('')
  const head = textOf(node).length
  replaceText(draft, node, head, head, words(list[0]!))
  if (list.length > 2)
    insertParagraphs(
      draft,
      node,
      list.slice(1, -1).map(each => ({ ...each, ...own })),
    )
  if (list.length > 1) replaceText(draft, tail, 0, 0, words(list.at(-1)!))
  return tail
}
