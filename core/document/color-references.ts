import type { XmlElement, XmlPart } from '../xml/tree'
import type { Draft } from './draft'
import { objectTitle } from './font-references'
import type { OdfDocument } from './open'
import { decodeStyleName } from './styles'

/** What a colour does where it stands. */
export const colorKinds = ['text', 'fill', 'page', 'line'] as const
export type ColorKind = (typeof colorKinds)[number]

/** One attribute that names a colour. */
export interface ColorReference {
  readonly part: string
  readonly node: number
  readonly attribute: string
  /** The whole value, as written: of a border, its width and style, too. */
  readonly value: string
  /** “#rrggbb”, in small letters. */
  readonly color: string
  readonly kind: ColorKind
  /** What bears it, for people. */
  readonly owner: string
}

const hex = /#[0-9a-f]{6}(?![0-9a-f])/i

/**
 * What the colour of an attribute is for (OpenDocument 1.4 part 3, sections 19 and 20): of text and its lines; of areas,
 * the page's among them; or of lines, borders and shadows.
 */
function kindOf(element: XmlElement, attribute: string): ColorKind | null {
  if (/^(config|meta|dc|xlink):/.test(attribute)) return null
  if (element.name === 'style:text-properties') return attribute === 'fo:background-color' ? 'fill' : 'text'
  if (attribute === 'style:footnote-max-height') return null
  if (
    /^(fo:border|style:border|svg:stroke)|shadow/.test(attribute) ||
    element.name === 'style:footnote-sep' ||
    element.name === 'style:column-sep' ||
    element.name === 'draw:hatch'
  )
    return 'line'
  if (element.name === 'style:drawing-page-properties' || element.name === 'style:page-layout-properties') return 'page'
  if (
    /^(draw:(secondary-)?fill-color|fo:background-color|draw:(start|end)-color|svg:stop-color)$/.test(attribute) ||
    /^draw:(fill-gradient|backface)/.test(attribute) ||
    element.name === 'draw:gradient' ||
    element.name === 'svg:stop'
  )
    return 'fill'
  return attribute === 'fo:color' ? 'text' : 'line'
}

function ownerOf(document: OdfDocument, part: XmlPart, element: XmlElement): string {
  let master = ''
  for (let at: XmlElement | null = element; at; at = at.parent < 0 ? null : part.element(at.parent)) {
    const name =
      at.attributes['style:display-name'] ??
      decodeStyleName(at.attributes['style:name'] ?? at.attributes['draw:name'] ?? '')
    if (at.name === 'style:default-style') return `${at.attributes['style:family'] ?? ''} default`
    if (at.name === 'style:style' || at.name === 'style:page-layout' || at.name.startsWith('draw:'))
      master ||=
        `${at.name === 'style:page-layout' ? 'Page layout' : at.name === 'style:style' ? '' : 'Drawing'} ${name}`.trim()
    if (at.name === 'office:automatic-styles') master = `by hand (${master})`
  }
  return part.path.includes('/')
    ? `${objectTitle(document, part.path)}: ${master || element.name}`
    : master || element.name
}

/** Every place in the document and its objects that names a colour, part by part. */
export function colorReferences(document: OdfDocument): ColorReference[] {
  const found: ColorReference[] = []
  for (const part of document.parts.values()) {
    if (!/(^|\/)(content|styles)\.xml$/.test(part.path)) continue
    for (const element of part.descendants()) {
      for (const attribute in element.attributes) {
        const value = element.attributes[attribute]!
        if (!value.includes('#')) continue
        const color = hex.exec(value)?.[0]
        const kind = color === undefined ? null : kindOf(element, attribute)
        if (kind !== null)
          found.push({
            part: part.path,
            node: element.id,
            attribute,
            value,
            color: color!.toLowerCase(),
            kind,
            owner: ownerOf(document, part, element),
          })
      }
    }
  }
  return found
}

/** Exchanges the colour of an attribute; all else in its value stays. */
export function setColor(draft: Draft, { node, attribute, value }: ColorReference, to: string): void {
  draft.setAttributes(node, { [attribute]: value.replace(hex, to) })
}

/** Colours of a document with how often each is named, for what; the most frequent first. */
export function countColors(
  references: readonly ColorReference[],
): { readonly color: string; readonly count: number; readonly kinds: Readonly<Partial<Record<ColorKind, number>>> }[] {
  const counted = new Map<string, { color: string; count: number; kinds: Partial<Record<ColorKind, number>> }>()
  for (const { color, kind } of references) {
    const own = counted.get(color) ?? { color, count: 0, kinds: {} }
    own.count++
    own.kinds[kind] = (own.kinds[kind] ?? 0) + 1
    counted.set(color, own)
  }
  return [...counted.values()].sort((a, b) => b.count - a.count || a.color.localeCompare(b.color))
}
