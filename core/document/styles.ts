import type { XmlElement, XmlPart } from '../xml/tree'
import { parseFontFamilies } from './font-family'
import type { OdfDocument, Subdocument } from './open'

export type Properties = Readonly<Record<string, string>>
const noProperties: Properties = Object.freeze({})

/** A style:style or style:default-style, as written: nothing inherited is in it. */
export interface Style {
  readonly part: string
  readonly node: number
  readonly family: string
  /** Empty for a default style. */
  readonly name: string
  readonly displayName: string
  readonly parentName: string | null
  readonly origin: 'default' | 'common' | 'automatic'
  readonly text: Properties
  readonly paragraph: Properties
  readonly graphic: Properties
  readonly cell: Properties
  /** Ids of the style:…-properties elements, by canonical name. */
  readonly propertyNodes: Readonly<Record<string, number>>
  readonly attributes: Properties
  /** Conditional styles: style:map elements, in order. */
  readonly maps: readonly { readonly condition: string; readonly applyName: string }[]
}

/** A style:font-face. Several may declare one family under different names. */
export interface FaceDeclaration {
  readonly part: string
  readonly node: number
  readonly name: string
  readonly families: readonly string[]
  readonly attributes: Properties
  /** Package paths of font files it embeds. */
  readonly files: readonly string[]
}

/** The styles of one part: a name is looked up here first, then among the common styles of the same document. */
export interface StyleScope {
  readonly part: XmlPart
  readonly automatic: ReadonlyMap<string, Style>
  readonly common: ReadonlyMap<string, Style>
  readonly defaults: ReadonlyMap<string, Style>
  /** text:list-style elements by name: those of the part's automatic styles before common ones. */
  readonly lists: ReadonlyMap<string, { readonly part: XmlPart; readonly element: XmlElement }>
  readonly outline: { readonly part: XmlPart; readonly element: XmlElement } | null
  readonly faces: ReadonlyMap<string, FaceDeclaration>
  /** Table templates by name: the cell style of each of their parts. */
  readonly templates: ReadonlyMap<string, Readonly<Record<string, string>>>
}

const key = (family: string, name: string) => `${family}\n${name}`

/** Finds a style by family and name. Names are scoped: an automatic style of the part comes before a common one. */
export function findStyle(scope: StyleScope, family: string, name: string): Style | undefined {
  return scope.automatic.get(key(family, name)) ?? scope.common.get(key(family, name))
}

function readStyle(part: XmlPart, element: XmlElement, origin: Style['origin']): Style {
  const propertyNodes: Record<string, number> = {}
  const read = new Map<string, Properties>()
  const maps: { condition: string; applyName: string }[] = []
  for (const child of part.elements(element)) {
    if (child.name === 'style:map')
      maps.push({
        condition: child.attributes['style:condition'] ?? '',
        applyName: child.attributes['style:apply-style-name'] ?? '',
      })
    else {
      propertyNodes[child.name] = child.id
      read.set(child.name, child.attributes)
    }
  }
  const name = element.attributes['style:name'] ?? ''
  return {
    part: part.path,
    node: element.id,
    family: element.attributes['style:family'] ?? '',
    name,
    displayName: element.attributes['style:display-name'] ?? decodeStyleName(name),
    parentName: element.attributes['style:parent-style-name'] || null,
    origin,
    text: read.get('style:text-properties') ?? noProperties,
    paragraph: read.get('style:paragraph-properties') ?? noProperties,
    graphic: read.get('style:graphic-properties') ?? noProperties,
    cell: read.get('style:table-cell-properties') ?? noProperties,
    propertyNodes,
    attributes: element.attributes,
    maps,
  }
}

/** Style names are NCNames: other characters are often written as `_20_`, the hexadecimal code between underscores. */
export function decodeStyleName(name: string): string {
  return name.replace(/_([0-9a-f]{2,4})_/g, (whole, hex: string) =>
    Number.parseInt(hex, 16) >= 0x20 ? String.fromCharCode(Number.parseInt(hex, 16)) : whole,
  )
}

function readFaces(part: XmlPart, into: Map<string, FaceDeclaration>): void {
  const declarations = part.first(part.rootElement, 'office:font-face-decls')
  if (!declarations) return
  for (const element of part.elements(declarations, 'style:font-face')) {
    const files: string[] = []
    for (const below of part.descendants(element)) {
      const href = below.name === 'svg:font-face-uri' ? below.attributes['xlink:href'] : undefined
      if (href) files.push(href.replace(/^\.\//, ''))
    }
    const name = element.attributes['style:name'] ?? ''
    const family = element.attributes['svg:font-family']
    into.set(name, {
      part: part.path,
      node: element.id,
      name,
      families: parseFontFamilies(family ?? name).map(each => each.name),
      attributes: element.attributes,
      files,
    })
  }
}

/** The name under which a scope has the list style that stands in a frame's style; no style:name can be like it. */
export const ownListName = (style: Style): string => `of ${style.family} ${style.name}`

interface Section {
  styles: Map<string, Style>
  lists: Map<string, { part: XmlPart; element: XmlElement }>
}

function readSection(
  part: XmlPart,
  name: string,
  origin: Style['origin'],
  defaults?: Map<string, Style>,
): Section & { outline: XmlElement | null } {
  const section = {
    styles: new Map<string, Style>(),
    lists: new Map<string, { part: XmlPart; element: XmlElement }>(),
    outline: null as XmlElement | null,
  }
  const holder = part.first(part.rootElement, name)
  if (!holder) return section
  for (const element of part.elements(holder)) {
    if (element.name === 'style:style') {
      const style = readStyle(part, element, origin)
      section.styles.set(key(style.family, style.name), style)
      // Placeholders carry the list style of their text (ODF 1.4 part 3, 17.21).
      const graphic = part.first(element, 'style:graphic-properties')
      const nested = graphic && part.first(graphic, 'text:list-style')
      if (nested) section.lists.set(ownListName(style), { part, element: nested })
    } else if (element.name === 'style:default-style' && defaults) {
      const style = readStyle(part, element, 'default')
      defaults.set(style.family, style)
    } else if (element.name === 'text:list-style')
      section.lists.set(element.attributes['style:name'] ?? '', { part, element })
    else if (element.name === 'text:outline-style') section.outline = element
  }
  return section
}

/** What a table template is called: as the standard says (ODF 1.4 part 3, 16.18), and as real decks have it. */
const templateNames = ['table:name', 'text:name', 'text:style-name'] as const

function readTemplates(part: XmlPart): Map<string, Readonly<Record<string, string>>> {
  const templates = new Map<string, Readonly<Record<string, string>>>()
  const holder = part.first(part.rootElement, 'office:styles')
  for (const template of holder ? part.elements(holder, 'table:table-template') : []) {
    const styles: Record<string, string> = {}
    for (const child of part.elements(template))
      styles[child.name.replace('table:', '')] = child.attributes['table:style-name'] ?? ''
    const named = templateNames.find(attribute => template.attributes[attribute] !== undefined)
    if (named !== undefined) templates.set(template.attributes[named]!, styles)
  }
  return templates
}

/**
 * The scopes of a document or object: one for each of its parts that hold content (content.xml, and styles.xml for
 * masters).
 */
export function readScopes(
  document: OdfDocument,
  sub: Subdocument,
): { readonly content: StyleScope | null; readonly styles: StyleScope | null } {
  const content = sub.content ? document.parts.get(sub.content)! : null
  const styles = sub.styles ? document.parts.get(sub.styles)! : null
  const defaults = new Map<string, Style>()
  const common = styles ? readSection(styles, 'office:styles', 'common', defaults) : null
  const templates = styles ? readTemplates(styles) : new Map()
  const scope = (part: XmlPart): StyleScope => {
    const automatic = readSection(part, 'office:automatic-styles', 'automatic')
    const faces = new Map<string, FaceDeclaration>()
    readFaces(part, faces)
    return {
      part,
      automatic: automatic.styles,
      common: common?.styles ?? new Map(),
      defaults,
      faces,
      lists: new Map([...(common?.lists ?? []), ...automatic.lists]),
      outline: common?.outline ? { part: styles!, element: common.outline } : null,
      templates,
    }
  }
  // Common styles resolve font names by the declarations of styles.xml even where content.xml uses them.
  return { content: content ? scope(content) : null, styles: styles ? scope(styles) : null }
}

/** The parent chain of a style, root first, ending with the style itself. A chain that loops is cut. */
export function withParents(scope: StyleScope, style: Style): Style[] {
  const chain: Style[] = [style]
  let at = style
  while (at.parentName !== null) {
    const parent = scope.common.get(key(style.family, at.parentName))
    if (!parent || chain.includes(parent)) break
    chain.unshift(parent)
    at = parent
  }
  return chain
}

/**
 * The level of a paragraph of a style: its own or a parent's default outline level (ODF 1.4 part 3, 19.476); null
 * for body text.
 */
export function outlineLevel(scope: StyleScope, style: Style): number | null {
  let level: string | undefined
  for (const each of withParents(scope, style)) level = each.attributes['style:default-outline-level'] ?? level
  const number = Number.parseInt(level ?? '', 10)
  return number >= 1 ? number : null
}

/** The outline level that a style sets itself (19.476); null where it sets none, or body text. */
export function ownOutlineLevel({ attributes }: Style): number | null {
  const level = Number.parseInt(attributes['style:default-outline-level'] ?? '', 10)
  return level >= 1 ? level : null
}

/** The style that a style lets follow its own paragraphs (style:next-style-name); null for itself. */
export const nextStyle = ({ attributes }: Style): string | null => attributes['style:next-style-name'] ?? null

/** The name of the list style that a style sets itself: '' for none; null where its parent's holds. */
export const ownListStyle = ({ attributes }: Style): string | null => attributes['style:list-style-name'] ?? null

/** The name of the list style that a paragraph style asks for, its own or a parent's; null where there is none. */
export function listStyleOf(scope: StyleScope, style: Style): string | null {
  let list: string | null = null
  for (const each of withParents(scope, style)) list = ownListStyle(each) || list
  return list
}

/** Properties of a named style with those it descends from, its own last; none where there is no such style. */
export function inheritedProperties(
  scope: StyleScope,
  family: string,
  name: string | null,
  kind: 'graphic' | 'cell' | 'paragraph',
): Properties {
  const style = name === null ? undefined : findStyle(scope, family, name)
  return style ? (Object.assign({}, ...withParents(scope, style).map(each => each[kind])) as Properties) : {}
}

/**
 * The same of properties that are read where they are needed, by their element's name.
 * @param partOf the part that a style stands in, by its path
 */
export function inheritedElement(
  scope: StyleScope,
  partOf: (path: string) => XmlPart,
  family: string,
  name: string | null,
  element: string,
): Properties {
  const style = name === null ? undefined : findStyle(scope, family, name)
  if (!style) return {}
  return Object.assign(
    {},
    ...withParents(scope, style).map(each => {
      const node = each.propertyNodes[element]
      return node === undefined ? {} : partOf(each.part).element(node).attributes
    }),
  ) as Properties
}
