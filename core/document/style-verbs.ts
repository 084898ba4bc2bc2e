import { elementMarkup } from '../xml/edit'
import type { XmlElement } from '../xml/tree'
import type { Values } from './automatic-styles'
import type { Draft } from './draft'

/*
 * What can be said to a style, and what becomes of it in the file (ODF 1.4 part 3, 16.2 and 17.6 to 17.8). Lengths come
 * as the file takes them, with their unit.
 */

/** A tab stop of a paragraph style (17.8). */
export interface TabStopValues {
  readonly position: string
  readonly type: 'left' | 'center' | 'right' | 'char'
  /** What text is aligned at where the type is `char`. */
  readonly char?: string
  /** The sign that fills the space before it. */
  readonly leader?: string
}

/** A drop cap of a paragraph style (17.9): so many letters over so many lines. */
export interface DropCapValues {
  readonly lines: number
  readonly length: number | 'word'
  readonly distance: string
  /** The name of a character style. */
  readonly style: string | null
}

/**
 * Sets values on a style where it stands, or with null takes them away; its properties element is made where it has
 * none. What says so already is not touched.
 */
export function setStyleValues(draft: Draft, style: number, kind: 'text' | 'paragraph', values: Values): void {
  const properties = draft.part.first(draft.part.element(style), `style:${kind}-properties`)
  if (properties) {
    draft.setAttributes(properties.id, values)
    return
  }
  const set = Object.fromEntries(Object.entries(values).filter(([, value]) => value !== null))
  if (Object.keys(set).length > 0)
    draft.do({
      type: 'set-properties',
      part: draft.path,
      node: style,
      properties: kind,
      set,
      id: draft.newIds(1)[0]!,
    })
}

/** Sets the values of a style and takes all others of the kind away. */
export function replaceStyleValues(draft: Draft, style: number, kind: 'text' | 'paragraph', values: Values): void {
  const properties = draft.part.first(draft.part.element(style), `style:${kind}-properties`)
  const gone = Object.fromEntries(Object.keys(properties?.attributes ?? {}).map(attribute => [attribute, null]))
  setStyleValues(draft, style, kind, { ...gone, ...values })
}

/** Gives a paragraph style tab stops; an empty list says that there are none, null that the parent's hold. */
export function setTabStops(draft: Draft, style: number, stops: readonly TabStopValues[] | null): void {
  replaceInParagraph(draft, style, 'style:tab-stops', stops && 1 + stops.length, holder =>
    elementMarkup(
      draft.part,
      holder,
      'style:tab-stops',
      {},
      stops!.map(stop => stopMarkup(draft, holder, stop)).join(''),
    ),
  )
}

const stopMarkup = (draft: Draft, holder: XmlElement, { position, type, char, leader }: TabStopValues): string =>
  elementMarkup(draft.part, holder, 'style:tab-stop', {
    'style:position': position,
    ...(type === 'left' ? {} : { 'style:type': type }),
    ...(type === 'char' ? { 'style:char': char ?? '.' } : {}),
    ...(leader ? { 'style:leader-style': leader === '.' ? 'dotted' : 'solid', 'style:leader-text': leader } : {}),
  })

/** Gives a paragraph style a drop cap, or with null takes it away. */
export function setDropCap(draft: Draft, style: number, dropCap: DropCapValues | null): void {
  replaceInParagraph(draft, style, 'style:drop-cap', dropCap && 1, holder =>
    elementMarkup(draft.part, holder, 'style:drop-cap', {
      'style:lines': String(dropCap!.lines),
      'style:length': String(dropCap!.length),
      'style:distance': dropCap!.distance,
      ...(dropCap!.style ? { 'style:style-name': dropCap!.style } : {}),
    }),
  )
}

/** Sets the labels of all levels of a list style in a character style, or with null in the type of the item (19.876). */
export function setLabelStyle(draft: Draft, list: number, style: string | null): void {
  for (const level of [...draft.part.elements(draft.part.element(list))])
    if (level.name.startsWith('text:list-level-style')) draft.setAttributes(level.id, { 'text:style-name': style })
}

/** Puts an element of so many nodes into a style's paragraph properties in place of the one that is there. */
function replaceInParagraph(
  draft: Draft,
  style: number,
  name: string,
  count: number | null,
  markup: (holder: XmlElement) => string,
): void {
  let holder = draft.part.first(draft.part.element(style), 'style:paragraph-properties')
  const existing = holder && draft.part.first(holder, name)
  if (existing) draft.remove(existing.id)
  if (count === null) return
  if (!holder) {
    const element = draft.part.element(style)
    const before = [...draft.part.elements(element)][0]
    const id = draft.insert(
      style,
      before ? element.children.indexOf(before.id) : element.children.length,
      elementMarkup(draft.part, element, 'style:paragraph-properties', {}),
      1,
    )
    holder = draft.part.element(id)
  }
  holder = draft.part.element(holder.id)
  draft.insert(holder.id, 0, markup(holder), count)
}
