import { adoptedMarkup, canonicalMarkup } from '../xml/canonical'
import type { XmlElement } from '../xml/tree'
import type { Draft } from './draft'
import { freeName } from './edit-layout'
import { lengthMarkup, points } from './lengths'
import { referencedFamily, referencesIn } from './style-references'
import type { StyleScope } from './styles'

/*
 * A frame taken out of a document as XML that stands by itself, and put into another one.
 */

/** What a kept frame finds of the styles it names, by family and name there: the name here, or null for none. */
export type StyleNames = (family: string, name: string) => string | null

/** A frame as it is kept, with its size in points (0 where the file does not say it) and the styles that it names. */
export interface TakenFrame {
  readonly markup: string
  readonly width: number
  readonly height: number
  readonly styles: readonly { readonly family: string; readonly name: string }[]
}

/** Why an element cannot be kept: it is no frame, or holds more than text. */
export type NotKept = 'no frame' | 'holds a picture'

/** Takes a frame or shape of text out of a part, which stays as it is. */
export function takeFrame({ part }: StyleScope, node: number): TakenFrame | NotKept {
  const frame = part.find(node)
  if (frame?.kind !== 'element' || !frame.name.startsWith('draw:')) return 'no frame'
  for (const { name } of part.descendants(frame))
    if (name === 'draw:image' || name.startsWith('draw:object') || name === 'draw:plugin') return 'holds a picture'
  const { attributes } = frame
  const least = part.first(frame, 'draw:text-box')?.attributes['fo:min-height']
  return {
    markup: canonicalMarkup(part, frame),
    width: points(attributes['svg:width']) ?? 0,
    height: (points(attributes['svg:height']) || points(least)) ?? 0,
    styles: [...referencesIn(part, frame)].flatMap(({ family, names }) => names.map(name => ({ family, name }))),
  }
}

/** A style of a part as XML that stands by itself. */
export const takeStyle = ({ part }: StyleScope, node: number): string => canonicalMarkup(part, part.element(node))

/** Whether a node is one that a frame can be put on: a drawn page, or a paragraph of a text. */
export function holdsFrames({ part }: Draft, node: number): boolean {
  const found = part.find(node)
  return found?.kind === 'element' && ['draw:page', 'text:p', 'text:h'].includes(found.name)
}

/**
 * Puts a style by hand into a part under a name that is free there. Fonts that the part does not declare, lists and
 * masters are let go. Returns the name; null where the part holds no styles by hand.
 */
export function putStyle(
  draft: Draft,
  scope: StyleScope,
  style: { readonly family: string; readonly markup: string },
  names: StyleNames,
): string | null {
  const holder = draft.part.first(draft.part.rootElement, 'office:automatic-styles')
  if (!holder) return null
  const prefix = style.family === 'paragraph' ? 'P' : style.family === 'text' ? 'T' : 'gr'
  const name = freeName(draft.part, prefix, 'style:name')
  const { markup, count } = adoptedMarkup(draft.part, holder, style.markup, (element, attribute, value) => {
    if (attribute === 'style:name') return name
    if (attribute === 'style:parent-style-name') return names(style.family, value)
    if (/^style:font-name/.test(attribute) && element.name === 'style:text-properties')
      return scope.faces.has(value) ? value : null
    return attribute === 'style:list-style-name' || attribute === 'style:master-page-name' ? null : value
  })
  draft.insert(holder.id, holder.children.length, markup, count)
  return name
}

/** Attributes that only held where the frame was kept from. */
const oldPlace =
  /^(svg:x|svg:y|text:anchor|draw:(z-index|chain-next-name|layer|transform)|presentation:(class|placeholder))/

/** Puts a kept frame on a page or at a paragraph, its left top at a place in points. Returns its node. */
export function putFrame(
  draft: Draft,
  holder: number,
  frame: string,
  place: { readonly x: number; readonly y: number },
  names: StyleNames,
): number {
  const host = draft.part.element(holder)
  const onPage = host.name === 'draw:page'
  const { markup, count } = adoptedMarkup(draft.part, host, frame, (element, attribute, value) =>
    oldPlace.test(attribute) ? null : renamed(draft, element, attribute, value, names),
  )
  const notes = draft.part.first(host, 'presentation:notes')
  const index = onPage ? (notes ? host.children.indexOf(notes.id) : host.children.length) : 0
  const node = draft.insert(holder, index, markup, count)
  draft.setAttributes(node, {
    'svg:x': lengthMarkup(place.x),
    'svg:y': lengthMarkup(place.y),
    ...(onPage ? {} : { 'text:anchor-type': 'paragraph' }),
  })
  return node
}

/** The value of an attribute here: names are free ones, styles those of this document. */
function renamed(
  { part }: Draft,
  element: XmlElement,
  attribute: string,
  value: string,
  names: StyleNames,
): string | null {
  if (attribute === 'draw:name') return freeName(part, `${value.replace(/ ?\d+$/, '') || 'Set piece'} `, 'draw:name')
  if (attribute === 'draw:style-name' || attribute === 'presentation:style-name')
    return names('graphic', value) ?? names('presentation', value)
  const family = referencedFamily(part, element, attribute)
  if (family === null) return attribute === 'text:style-name' && element.name === 'text:list' ? null : value
  return names(family, value)
}

/** Takes all text out of a frame but for one empty paragraph, in the style of the first. */
export function emptyFrame(draft: Draft, frame: number): void {
  const box = (draft.part.first(draft.part.element(frame), 'draw:text-box') ?? draft.part.element(frame)).id
  const inside = () => draft.part.element(box)
  const first = [...draft.part.descendants(inside())].find(each => each.name === 'text:p' || each.name === 'text:h')
  const style = first?.attributes['text:style-name']
  for (const block of [...draft.part.elements(inside())])
    if (block.name.startsWith('text:') || block.name === 'table:table') draft.remove(block.id)
  draft.mergeTexts(box)
  const empty = adoptedMarkup(
    draft.part,
    inside(),
    '<text:p xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0"/>',
  )
  const made = draft.insert(box, inside().children.length, empty.markup, 1)
  if (style) draft.setAttributes(made, { 'text:style-name': style })
}
