import type { XmlElement, XmlPart } from '../xml/tree'
import type { Draft } from './draft'
import type { OdfDocument } from './open'

/*
 * Colours as a document names them (OpenDocument 1.4 part 3, 18.3.9): everywhere in styles, fills and page layouts, by what
 * they colour. Text knows its colours in the cascade, too; shapes, lines, grounds and charts are known here alone.
 */

/** What a colour is on: letters; areas of shapes; lines and borders; grounds of pages, frames, cells and words; chart series. */
export const paintedThings = ['text', 'fill', 'line', 'ground', 'series'] as const
export type Painted = (typeof paintedThings)[number]

/** A colour where the file names it. */
export interface NamedColor {
  readonly part: string
  /** The element that names it, and by which attribute. */
  readonly node: number
  readonly attribute: string
  /** “#rrggbb”, in small letters. */
  readonly color: string
  readonly on: Painted
}

const hex = /#[0-9a-f]{6}(?![0-9a-f])/gi
const borders = /^(fo:border(-(top|bottom|left|right))?|style:diagonal-(tl-br|bl-tr))$/

/** What an attribute colours, by the element that it stands on; null where it colours nothing. */
function paintedBy(element: XmlElement, attribute: string): Painted | null {
  if (borders.test(attribute)) return 'line'
  switch (attribute) {
    case 'fo:color':
    case 'style:text-underline-color':
    case 'style:text-overline-color':
    case 'style:text-line-through-color':
      return 'text'
    case 'svg:stroke-color':
      return 'line'
    case 'fo:background-color':
      return 'ground'
    case 'draw:fill-color':
      return element.name === 'style:drawing-page-properties' ? 'ground' : 'fill'
    case 'draw:secondary-fill-color':
    case 'draw:start-color':
    case 'draw:end-color':
    case 'draw:shadow-color':
      return 'fill'
    case 'draw:color':
      return element.name === 'draw:hatch' ? 'fill' : null
    case 'svg:stop-color':
      return 'fill'
    case 'style:color':
      return element.name === 'style:column-sep' || element.name === 'style:footnote-sep' ? 'line' : null
    default:
      return null
  }
}

/** Styles that the series of a chart and their points go by: their fills and lines are the series’ own. */
function seriesStyles(part: XmlPart): ReadonlySet<string> {
  const names = new Set<string>()
  for (const element of part.descendants())
    if (element.name === 'chart:series' || element.name === 'chart:data-point') {
      const name = element.attributes['chart:style-name']
      if (name !== undefined) names.add(name)
    }
  return names
}

/** Everything of a part but its text, which names no colours of its own. */
function* styleElements(part: XmlPart): Generator<XmlElement> {
  for (const child of part.elements(part.rootElement)) if (child.name !== 'office:body') yield* part.descendants(child)
}

/** The colours that the styles of one part name. */
function* colorsOfPart(path: string, part: XmlPart, isChart: boolean): Generator<NamedColor> {
  const series = isChart ? seriesStyles(part) : null
  for (const element of styleElements(part))
    for (const [attribute, value] of Object.entries(element.attributes)) {
      const [found] = value.match(hex) ?? []
      const on = found === undefined ? null : paintedBy(element, attribute)
      if (!on) continue
      const { parent } = element
      const owner = series && part.node(parent).kind === 'element' ? part.element(parent) : null
      const ofSeries = owner !== null && on !== 'text' && series!.has(owner.attributes['style:name'] ?? '')
      yield { part: path, node: element.id, attribute, color: found!.toLowerCase(), on: ofSeries ? 'series' : on }
    }
}

/** All colours that a document names, part by part, in the order in which they stand there. */
export function* namedColors(document: OdfDocument): Generator<NamedColor> {
  for (const own of document.subdocuments)
    for (const path of [own.styles, own.content])
      if (path !== null) yield* colorsOfPart(path, document.parts.get(path)!, own.kind === 'chart')
}

/** Gives another colour to where one is named; what else the value says (the width of a border) stays. */
export function repaint(draft: Draft, { node, attribute }: NamedColor, to: string): void {
  const value = draft.part.element(node).attributes[attribute]!
  draft.setAttributes(node, { [attribute]: value.replace(hex, to) })
}
