import type { XmlElement, XmlPart } from '../xml/tree'
import type { Draft } from './draft'
import type { OdfDocument } from './open'

/** A place that names a style. `list`: the attribute holds several names. */
export interface StyleReference {
  readonly part: string
  readonly node: number
  readonly attribute: string
  readonly family: string
  readonly list: boolean
}

const ofText = new Set([
  'text:span',
  'text:a',
  'text:ruby-text',
  'text:outline-level-style',
  'text:linenumbering-configuration',
])

/**
 * The family of the style that an attribute names (ODF 1.4 part 3, 19.876 and the attributes named after styles);
 * null where it names none of interest.
 */
export function referencedFamily(part: XmlPart, element: XmlElement, attribute: string): string | null {
  switch (attribute) {
    case 'text:style-name': {
      const { name } = element
      if (
        name === 'text:p' ||
        name === 'text:h' ||
        name.endsWith('-entry-template') ||
        name === 'text:index-title-template' ||
        name === 'text:index-source-style'
      )
        return 'paragraph'
      return ofText.has(name) || name.startsWith('text:list-level-style-') || name.startsWith('text:index-entry-')
        ? 'text'
        : null
    }
    case 'text:class-names':
      return element.name === 'text:p' || element.name === 'text:h'
        ? 'paragraph'
        : element.name === 'text:span'
          ? 'text'
          : null
    case 'text:visited-style-name':
    case 'text:citation-style-name':
    case 'text:citation-body-style-name':
    case 'text:main-entry-style-name':
      return 'text'
    case 'text:default-style-name':
    case 'text:cond-style-name':
    case 'draw:text-style-name':
    case 'table:paragraph-style-name':
      return 'paragraph'
    case 'style:style-name':
      return element.name === 'style:drop-cap' ? 'text' : null
    case 'style:parent-style-name':
    case 'style:next-style-name':
      return element.name === 'style:style' ? (element.attributes['style:family'] ?? null) : null
    case 'style:apply-style-name': {
      const holder = element.parent < 0 ? null : part.element(element.parent)
      return holder?.name === 'style:style' ? (holder.attributes['style:family'] ?? null) : null
    }
    case 'draw:style-name':
      return 'graphic'
    case 'presentation:style-name':
      return 'presentation'
    case 'table:style-name':
      return element.name === 'table:table-cell' || element.name === 'table:covered-table-cell' ? 'table-cell' : null
    case 'table:default-cell-style-name':
      return 'table-cell'
    default:
      return null
  }
}

/** Every place of a part that names a style. */
export function* referencesIn(
  part: XmlPart,
  from: XmlElement = part.rootElement,
): Generator<StyleReference & { readonly names: readonly string[] }> {
  for (const element of part.descendants(from)) {
    for (const attribute in element.attributes) {
      if (!attribute.endsWith('-name') && attribute !== 'text:class-names') continue
      const family = referencedFamily(part, element, attribute)
      const value = element.attributes[attribute]!
      if (family === null || value === '') continue
      const list = attribute === 'text:class-names'
      yield { part: part.path, node: element.id, attribute, family, list, names: list ? value.split(/\s+/) : [value] }
    }
  }
}

/** Every place of a part's text and masters that names one style; what was deleted is left out. */
export function contentReferences(part: XmlPart): (StyleReference & { readonly names: readonly string[] })[] {
  return [...part.elements(part.rootElement)]
    .filter(section => section.name === 'office:body' || section.name === 'office:master-styles')
    .flatMap(section => [...referencesIn(part, section)])
    .filter(reference => !reference.list && !isDeleted(part, reference.node))
}

/** Whether a node stands in what was deleted under tracking of changes (5.5.1). */
function isDeleted(part: XmlPart, node: number): boolean {
  for (let id = node; id >= 0; id = part.node(id).parent) {
    const at = part.node(id)
    if (at.kind === 'element' && at.name === 'text:tracked-changes') return true
  }
  return false
}

/** The style that a table cell names itself: one or none. */
export function cellStyleAt(part: XmlPart, cell: number): string[] {
  const name = part.element(cell).attributes['table:style-name']
  return name ? [name] : []
}

/** The styles that a frame or shape names for its text: its own, and one for the paragraphs in it. */
export function frameStylesAt(part: XmlPart, frame: number): { attribute: string; family: string; name: string }[] {
  const element = part.element(frame)
  return ['presentation:style-name', 'draw:style-name', 'draw:text-style-name'].flatMap(attribute => {
    const name = element.attributes[attribute]
    const family = name ? referencedFamily(part, element, attribute) : null
    return name && family ? [{ attribute, family, name }] : []
  })
}

/**
 * Every place of the document itself (not of objects in it) that names a given common style. An automatic style of
 * the same name in the part comes before it.
 */
export function referencesToStyle(document: OdfDocument, family: string, name: string): StyleReference[] {
  const found: StyleReference[] = []
  const { content, styles } = document.subdocuments[0]!
  for (const path of [styles, content]) {
    if (path === null) continue
    const part = document.parts.get(path)!
    const automatic = part.first(part.rootElement, 'office:automatic-styles')
    const shadowed =
      automatic !== undefined &&
      [...part.elements(automatic, 'style:style')].some(
        each => each.attributes['style:family'] === family && each.attributes['style:name'] === name,
      )
    for (const { names, ...reference } of referencesIn(part)) {
      if (reference.family !== family || !names.includes(name)) continue
      // Parents are always common styles (19.510); everything else finds the part's own first.
      if (shadowed && reference.attribute !== 'style:parent-style-name') continue
      found.push(reference)
    }
  }
  return found
}

/** Lets a place name a style, or with null none. */
export function setReference(
  draft: Draft,
  { node, attribute }: Pick<StyleReference, 'node' | 'attribute'>,
  to: string | null,
): void {
  draft.setAttributes(node, { [attribute]: to })
}

/** Lets a place that names a style name another one, or with null none; of a list of names only the one changes. */
export function renameReference(
  draft: Draft,
  { node, attribute, list }: StyleReference,
  from: string,
  to: string | null,
): void {
  const current = draft.part.element(node).attributes[attribute] ?? ''
  const value = list
    ? current
        .split(/\s+/)
        .map(name => (name === from ? to : name))
        .filter(name => name !== null)
        .join(' ')
    : to
  draft.setAttributes(node, { [attribute]: value === '' ? null : value })
}
