import { elementMarkup, subtreeIds } from '../xml/edit'
import type { XmlElement } from '../xml/tree'
import { writeElement } from '../xml/write'
import type { Values } from './automatic-styles'
import type { Draft } from './draft'
import type { StyleName } from './style-names'

/*
 * What can be said to a style, and what becomes of it in the file (ODF 1.4 part 3, 16.2 and 17.6 to 17.8). Lengths come
 * as the file takes them, with their unit.
 */

/** The properties of a style that can be set. */
export type StyleProperties = 'text' | 'paragraph' | 'graphic' | 'table-cell'

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
export function setStyleValues(draft: Draft, style: number, kind: StyleProperties, values: Values): void {
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

/** What a new common style says. */
export interface NewStyle {
  readonly parent?: string | null
  readonly text?: Readonly<Record<string, string>>
  readonly paragraph?: Readonly<Record<string, string>>
}

/** Makes a common style, behind the last one there is. Returns its node. */
export function addStyle(draft: Draft, family: string, { name, displayName }: StyleName, what: NewStyle): number {
  const { part } = draft
  let holder = part.first(part.rootElement, 'office:styles')
  if (!holder) {
    const before = [...part.elements(part.rootElement)].find(each => each.name !== 'office:font-face-decls')
    const id = draft.insert(
      part.root,
      before ? part.rootElement.children.indexOf(before.id) : part.rootElement.children.length,
      elementMarkup(part, part.rootElement, 'office:styles', {}),
      1,
    )
    holder = draft.part.element(id)
  }
  const properties = (['paragraph', 'text'] as const).flatMap(kind =>
    what[kind] && Object.keys(what[kind]).length > 0
      ? [elementMarkup(part, holder, `style:${kind}-properties`, what[kind])]
      : [],
  )
  const attributes = {
    'style:name': name,
    ...(displayName === name ? {} : { 'style:display-name': displayName }),
    'style:family': family,
    ...(what.parent ? { 'style:parent-style-name': what.parent } : {}),
  }
  // Styles of one kind stand together: behind the last one, before lists and outlines.
  const last = [...part.elements(holder, 'style:style')].at(-1)
  const index = last ? holder.children.indexOf(last.id) + 1 : holder.children.length
  return draft.insert(
    holder.id,
    index,
    elementMarkup(part, holder, 'style:style', attributes, properties.join('')),
    1 + properties.length,
  )
}

/** Makes the default style of a family, which says nothing yet (16.3). False where the part holds no styles. */
export function addDefaultStyle(draft: Draft, family: string): boolean {
  const { part } = draft
  const holder = part.first(part.rootElement, 'office:styles')
  if (!holder) return false
  draft.insert(holder.id, 0, elementMarkup(part, holder, 'style:default-style', { 'style:family': family }), 1)
  return true
}

/** Puts a copy of a common style behind it, under another name and with another parent where one is given. */
export function copyStyle(draft: Draft, style: number, name: string, parent: string | undefined): void {
  const copy = draft.newIds(subtreeIds(draft.part, style).length)
  const { parent: holder } = draft.part.element(style)
  draft.place(holder, draft.indexOf(style) + 1, writeElement(draft.part, style), copy)
  draft.setAttributes(copy[0]!, {
    'style:name': name,
    'style:display-name': null,
    ...(parent === undefined ? {} : { 'style:parent-style-name': parent }),
  })
}

/** Drops a common style; what named it is looked after before. */
export function dropStyle(draft: Draft, style: number): void {
  const { parent } = draft.part.node(style)
  draft.remove(style)
  draft.mergeTexts(parent)
}

/** What a style goes back to (19.510), with null to nothing but the defaults. */
export function setParentStyle(draft: Draft, style: number, parent: string | null): void {
  draft.setAttributes(style, { 'style:parent-style-name': parent })
}

/** What stands in a style's own element; what is not given stays. */
export interface StyleHead {
  /** How it is called. */
  readonly displayName?: string | undefined
  readonly parent?: string | null | undefined
  /** The style of the paragraph that follows. */
  readonly next?: string | null | undefined
  /** 1 to 10, or null for body text (19.476). */
  readonly outlineLevel?: number | null | undefined
  readonly listStyle?: string | null | undefined
}

/** Names a style, and says what it goes back to and what follows it. */
export function setStyleHead(draft: Draft, style: number, head: StyleHead): void {
  const { displayName, parent, next, outlineLevel, listStyle } = head
  const name = draft.part.element(style).attributes['style:name']
  const attributes: Record<string, string | null> = {}
  if (displayName !== undefined) attributes['style:display-name'] = displayName === name ? null : displayName
  if (parent !== undefined) attributes['style:parent-style-name'] = parent
  if (next !== undefined) attributes['style:next-style-name'] = next
  if (outlineLevel !== undefined)
    attributes['style:default-outline-level'] = outlineLevel === null ? null : String(outlineLevel)
  if (listStyle !== undefined) attributes['style:list-style-name'] = listStyle
  draft.setAttributes(style, attributes)
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
