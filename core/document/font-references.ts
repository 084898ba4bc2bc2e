import type { XmlElement, XmlPart } from '../xml/tree'
import { fontAttributes, slots, type Slot } from './font-attributes'
import { parseFontFamilies, sameFamily } from './font-family'
import { subdocumentOf, type ObjectKind, type OdfDocument } from './open'
import { readScopes, type FaceDeclaration } from './styles'

/** What kind of thing names a font: the kinds of place a designer thinks in. */
export type ReferenceKind =
  'declaration' | 'default' | 'style' | 'stray' | 'master' | 'list' | 'chart' | 'formula' | 'setting' | 'other'

/** One place in the package that names a font. */
export interface FontReference {
  readonly part: string
  readonly node: number
  readonly kind: ReferenceKind
  /** The attribute that names it; null where the text of the node does (formula settings). */
  readonly attribute: string | null
  readonly slot: Slot | null
  /** As written. */
  readonly value: string
  /** As parsed, and looked up among the declarations: a list names several. */
  readonly families: readonly string[]
  /** The declaration a style:font-name goes through. */
  readonly declaration: FaceDeclaration | null
  /** What bears it, for people: “Heading 1”, “paragraph default”, “automatic style P12”. */
  readonly owner: string
  /** style:family of the bearing style, '' where it is none. */
  readonly family: string
  /** A font of signs: its characters are not letters, so exchanging it would exchange the signs. */
  readonly symbols: boolean
}

const looseAttributes: ReadonlyMap<string, Slot> = new Map(slots.map(slot => [fontAttributes[slot].family, slot]))
const nameAttributes: ReadonlyMap<string, Slot> = new Map(slots.map(slot => [fontAttributes[slot].name, slot]))
const symbolFamily = /^(open|star|standard )?symbols?( l| ps| mt| neue)?$|dingbats|^(web|wing)dings( ?[23])?$/i

/** Whether a family holds signs in place of letters, by its declared charset or its name. */
export function isSymbolFamily(family: string, charset: string): boolean {
  return charset === 'x-symbol' || symbolFamily.test(family)
}

interface Bearer {
  kind: ReferenceKind
  owner: string
  family: string
}

/** What bears an element: found by walking up to the style, list level, note configuration or object. */
function bearerOf(part: XmlPart, element: XmlElement, object: ObjectKind, embedded: boolean): Bearer {
  let kind: ReferenceKind = 'other'
  let owner = element.name
  let family = ''
  let insideList = ''
  for (let at: XmlElement | null = element; at; at = at.parent < 0 ? null : part.element(at.parent)) {
    const name = at.attributes['style:display-name'] ?? at.attributes['style:name'] ?? ''
    if (at.name.startsWith('text:list-level-style') || at.name === 'text:outline-level-style')
      insideList = `level ${at.attributes['text:level'] ?? '1'} of `
    else if (at.name === 'text:list-style') {
      owner = `${insideList}list ${name}`
      kind = 'list'
    } else if (at.name === 'text:outline-style') {
      owner = `${insideList}heading numbers`
      kind = 'list'
    } else if (at.name === 'style:style') {
      family = at.attributes['style:family'] ?? ''
      owner = name.replace(/_20_/g, ' ')
    } else if (at.name === 'style:default-style') {
      family = at.attributes['style:family'] ?? ''
      owner = `${family} default`
      kind = 'default'
    } else if (at.name === 'office:styles' && kind === 'other') kind = 'style'
    else if (at.name === 'office:automatic-styles') {
      const holdsMasters = part.first(part.rootElement, 'office:master-styles') !== undefined
      owner = `automatic style ${owner}`
      if (kind === 'other') kind = holdsMasters ? 'master' : 'stray'
    }
  }
  if (embedded) kind = object === 'formula' ? 'formula' : object === 'chart' ? 'chart' : kind
  return { kind, owner, family }
}

/** Every place in the document, its objects and their settings that names a font, in document order part by part. */
export function fontReferences(document: OdfDocument): FontReference[] {
  const references: FontReference[] = []
  for (const sub of document.subdocuments) {
    const { content, styles } = readScopes(document, sub)
    for (const scope of [styles, content]) {
      if (!scope) continue
      const { part } = scope
      const declarations = new Map([...scope.faces.values()].map(face => [face.node, face]))
      for (const element of part.descendants()) {
        const declared = element.name === 'style:font-face' ? declarations.get(element.id) : undefined
        if (declared) {
          references.push({
            part: part.path,
            node: element.id,
            kind: 'declaration',
            attribute: 'svg:font-family',
            slot: null,
            value: element.attributes['svg:font-family'] ?? declared.name,
            families: declared.families,
            declaration: declared,
            owner: `font declaration ${declared.name}`,
            family: '',
            symbols: declared.families.some(family =>
              isSymbolFamily(family, element.attributes['style:font-charset'] ?? ''),
            ),
          })
          continue
        }
        for (const attribute in element.attributes) {
          const value = element.attributes[attribute]!
          const named = nameAttributes.get(attribute)
          const loose = looseAttributes.get(attribute)
          const mathematical = attribute === 'fontfamily' || attribute === 'math:fontfamily'
          if (value === '' || (named === undefined && loose === undefined && !mathematical)) continue
          const declaration = named === undefined ? null : (scope.faces.get(value) ?? null)
          const families = declaration
            ? declaration.families.slice(0, 1)
            : parseFontFamilies(value).map(each => each.name)
          const charset =
            declaration?.attributes['style:font-charset'] ??
            (loose ? element.attributes[fontAttributes[loose].charset] : undefined) ??
            ''
          references.push({
            part: part.path,
            node: element.id,
            attribute,
            slot: named ?? loose ?? null,
            value,
            families,
            declaration,
            ...bearerOf(part, element, sub.kind, sub.prefix !== ''),
            symbols: families.some(family => isSymbolFamily(family, charset)),
          })
        }
      }
    }
    if (sub.kind === 'formula' && sub.settings) references.push(...settingReferences(document.parts.get(sub.settings)!))
  }
  return references
}

/** Formulas keep the fonts of their variables, functions, numbers … as settings named FontName…. */
function settingReferences(part: XmlPart): FontReference[] {
  const references: FontReference[] = []
  for (const element of part.descendants()) {
    const name = element.attributes['config:name'] ?? ''
    if (element.name !== 'config:config-item' || !/^FontName/.test(name) || element.children.length !== 1) continue
    const text = part.node(element.children[0]!)
    if (text.kind !== 'text' || text.text.trim() === '') continue
    references.push({
      part: part.path,
      node: text.id,
      kind: 'setting',
      attribute: null,
      slot: null,
      value: text.text,
      families: parseFontFamilies(text.text).map(each => each.name),
      declaration: null,
      owner: `formula setting ${name.slice(8) || name}`,
      family: '',
      symbols: false,
    })
  }
  return references
}

/** The references that name a family. */
export function referencesTo(references: readonly FontReference[], family: string): FontReference[] {
  return references.filter(reference => reference.families.some(each => sameFamily(each, family)))
}

/** Pictures that may hold text set in a font and cannot be changed: vector formats, by path. */
export function picturesWithText(document: OdfDocument): string[] {
  return document.container.entries
    .map(entry => entry.path)
    .filter(path => /^(.*\/)?Pictures\/.*\.(svg|emf|wmf|eps|svm|pdf)$/i.test(path))
}

/** The object a part belongs to, in words: “Chart Object 1”. */
export function objectTitle(document: OdfDocument, path: string): string {
  const sub = subdocumentOf(document, path)
  if (sub.prefix === '') return 'the document'
  const what = sub.kind === 'chart' ? 'Chart' : sub.kind === 'formula' ? 'Formula' : 'Object'
  return `${what} “${sub.prefix.replace(/\/$/, '')}”`
}
