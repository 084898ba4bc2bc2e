import type { XmlElement, XmlPart } from '../xml/tree'
import type { Draft } from './draft'
import type { Style, StyleScope } from './styles'

/*
 * Which elements of a document's pages go by a style, or by none: for what changes when a default or a master's style
 * does (ODF 1.4 part 3, 16.2 and 16.4).
 */

const shapes = new Set(
  'frame rect ellipse circle custom-shape polygon polyline path line connector caption regular-polygon measure'
    .split(' ')
    .map(name => `draw:${name}`),
)

/**
 * The style that an element goes by where that is the default itself (null) or the common style above it (`standard`),
 * without a style between; undefined where it goes by another.
 */
function goesBy(element: XmlElement, family: DefaultFamily, standard: Style | null, scope: StyleScope) {
  let name: string | undefined
  if (family === 'paragraph') {
    if (element.name !== 'text:p' && element.name !== 'text:h') return undefined
    name = element.attributes['text:style-name']
  } else {
    if (!shapes.has(element.name) || element.attributes['presentation:style-name'] !== undefined) return undefined
    name = element.attributes['draw:style-name']
  }
  if (name === undefined) return null
  return standard && name === standard.name && !scope.automatic.has(`${family}\n${name}`) ? standard : undefined
}

/** Families whose default says what new text begins with. */
export type DefaultFamily = 'paragraph' | 'graphic'

/**
 * Lets every element of a part's pages and masters that goes by a default, or by the common style above it, go by a
 * style of its own: `styleFor` gives it, for null that of the default itself. Returns how many there were.
 */
export function moveFromDefault(
  draft: Draft,
  scope: StyleScope,
  family: DefaultFamily,
  standard: Style | null,
  styleFor: (base: Style | null) => string,
): number {
  let moved = 0
  const attribute = family === 'paragraph' ? 'text:style-name' : 'draw:style-name'
  for (const section of [...draft.part.elements(draft.part.rootElement)]) {
    if (section.name !== 'office:body' && section.name !== 'office:master-styles') continue
    for (const element of [...draft.part.descendants(section)]) {
      const base = goesBy(element, family, standard, scope)
      if (base === undefined) continue
      draft.setAttributes(element.id, { [attribute]: styleFor(base) })
      moved++
    }
  }
  return moved
}

/** A place that goes by a presentation style: an element of a page, or an automatic style. */
export interface PlaceholderUse {
  readonly part: string
  readonly node: number
  readonly attribute: 'style:parent-style-name' | 'presentation:style-name'
  readonly name: string
}

/** All that goes by one of some presentation styles in a part of pages, by hand or directly. */
export function placeholderUses(part: XmlPart, scope: StyleScope, names: ReadonlySet<string>): PlaceholderUse[] {
  const uses: PlaceholderUse[] = []
  for (const style of scope.automatic.values())
    if (style.family === 'presentation' && style.parentName !== null && names.has(style.parentName))
      uses.push({ part: part.path, node: style.node, attribute: 'style:parent-style-name', name: style.parentName })
  for (const element of part.descendants()) {
    const name = element.attributes['presentation:style-name']
    if (name !== undefined && names.has(name))
      uses.push({ part: part.path, node: element.id, attribute: 'presentation:style-name', name })
  }
  return uses
}

/** Lets a place go by another presentation style. */
export function movePlaceholder(draft: Draft, { node, attribute }: PlaceholderUse, name: string): void {
  draft.setAttributes(node, { [attribute]: name })
}

/** Lets all notes of a kind begin in a paragraph style (text:notes-configuration). */
export function setNoteStyle(draft: Draft, style: string): void {
  for (const element of [...draft.part.descendants()])
    if (element.name === 'text:notes-configuration')
      draft.setAttributes(element.id, { 'text:default-style-name': style })
}
