import type { OdfDocument } from '../document/open'
import { points } from '../document/lengths'
import { percent } from '../style/properties'
import type { XmlElement, XmlPart } from '../xml/tree'

/** Edges in points: margins, paddings, borders. */
export interface Edges {
  readonly top: number
  readonly right: number
  readonly bottom: number
  readonly left: number
}

/** Where a master page puts text. Lengths in points. */
export interface PageGeometry {
  readonly master: string
  readonly title: string
  readonly width: number
  readonly height: number
  readonly margin: Edges
  /** Room for header and footer: at least this high, the gap to the text within it. */
  readonly header: { readonly minHeight: number; readonly gap: number } | null
  readonly footer: { readonly minHeight: number; readonly gap: number } | null
  /** Shares of the columns, one for each, and the gap between them. */
  readonly columns: readonly number[]
  readonly columnGap: number
  /**
   * For which pages the layout is (style:page-usage); on mirrored ones left pages have the margins the other way
   * round. A blank page stands where one side has none.
   */
  readonly usage: 'all' | 'left' | 'right' | 'mirrored' | 'blank'
  readonly footnote: FootnoteRoom
  readonly next: string
  readonly background: string
  readonly numberFormat: string
  /** Paragraphs that leave it to the page run from right to left (style:writing-mode, 20.404). */
  readonly rightToLeft: boolean
}

/**
 * Keeps what was read of properties: the same object is asked for hundreds of times in a document, and never
 * changes.
 */
function kept<T>(
  read: (properties: Readonly<Record<string, string>>) => T,
): (properties: Readonly<Record<string, string>>) => T {
  const known = new WeakMap<Readonly<Record<string, string>>, { readonly value: T }>()
  return properties => {
    let own = known.get(properties)
    if (!own) known.set(properties, (own = { value: read(properties) }))
    return own.value
  }
}

function readEdges(properties: Readonly<Record<string, string>>, name: string): Edges {
  const whole = points(properties[name]) ?? 0
  const side = (which: string) => points(properties[`${name}-${which}`]) ?? whole
  return { top: side('top'), right: side('right'), bottom: side('bottom'), left: side('left') }
}
const edgesOf = {
  'fo:margin': kept(properties => readEdges(properties, 'fo:margin')),
  'fo:padding': kept(properties => readEdges(properties, 'fo:padding')),
}

/**
 * Edges of a property with its shorthand: fo:margin, fo:padding (CSS 2.1 section 8, as ODF takes them: one value or
 * one per side).
 */
export function edges(properties: Readonly<Record<string, string>>, name: 'fo:margin' | 'fo:padding'): Edges {
  return edgesOf[name](properties)
}

/** Widths of borders: fo:border and its sides, “0.5pt solid #000000”. */
export const borderWidths: (properties: Readonly<Record<string, string>>) => Edges = kept(properties => {
  const width = (value: string | undefined) =>
    value === undefined || /\b(none|hidden)\b/.test(value)
      ? 0
      : (points(value.split(/\s+/)[0]) ?? (/\bthin\b/.test(value) ? 0.5 : 0))
  const whole = width(properties['fo:border'])
  const side = (which: string) =>
    properties[`fo:border-${which}`] === undefined ? whole : width(properties[`fo:border-${which}`])
  return { top: side('top'), right: side('right'), bottom: side('bottom'), left: side('left') }
})

/** The colour of the first border there is, or black. */
export const borderColor: (properties: Readonly<Record<string, string>>) => string = kept(properties => {
  for (const name of ['fo:border', 'fo:border-top', 'fo:border-left', 'fo:border-bottom', 'fo:border-right']) {
    const color = /#[0-9a-f]{6}/i.exec(properties[name] ?? '')
    if (color) return color[0]
  }
  return '#000000'
})

/** The line above a page's notes (style:footnote-sep, ODF 1.4 part 3, 16.8). */
export interface FootnoteRoom {
  readonly before: number
  readonly after: number
  readonly thickness: number
  readonly relativeWidth: number
  readonly color: string
  readonly align: string
}

/** How notes are numbered at the page's foot and the document's end (text:notes-configuration, 16.30). */
export interface NotesStyle {
  readonly footnote: { readonly prefix: string; readonly suffix: string }
  readonly endnote: { readonly prefix: string; readonly suffix: string; readonly master: string | null }
}

export function readNotesStyle(document: OdfDocument): NotesStyle {
  const path = document.subdocuments[0]!.styles
  const part = path ? document.parts.get(path)! : null
  const styles = part?.first(part.rootElement, 'office:styles')
  const found = (which: string) =>
    styles
      ? [...part!.elements(styles, 'text:notes-configuration')].find(
          each => each.attributes['text:note-class'] === which,
        )?.attributes
      : undefined
  const affixes = (which: string) => ({
    prefix: found(which)?.['style:num-prefix'] ?? '',
    suffix: found(which)?.['style:num-suffix'] ?? '',
  })
  return {
    footnote: affixes('footnote'),
    endnote: { ...affixes('endnote'), master: found('endnote')?.['text:master-page-name'] ?? null },
  }
}

const a4 = { width: 595.3, height: 841.9 }

function propertiesOf(part: XmlPart, element: XmlElement | undefined, name: string): Readonly<Record<string, string>> {
  const found = element && part.first(element, name)
  return found ? found.attributes : {}
}

/** All master pages of a document with their layouts, by name, in order (ODF 1.4 part 3, 16.5 and 16.9). */
export function readGeometries(document: OdfDocument): Map<string, PageGeometry> {
  const geometries = new Map<string, PageGeometry>()
  const path = document.subdocuments[0]!.styles
  const part = path ? document.parts.get(path)! : null
  const layouts = new Map<string, XmlElement>()
  if (part) {
    for (const element of part.descendants())
      if (element.name === 'style:page-layout') layouts.set(element.attributes['style:name'] ?? '', element)
    const masters = part.first(part.rootElement, 'office:master-styles')
    for (const master of masters ? part.elements(masters, 'style:master-page') : [])
      geometries.set(
        master.attributes['style:name'] ?? '',
        geometry(part, master, layouts.get(master.attributes['style:page-layout-name'] ?? '')),
      )
  }
  if (geometries.size === 0)
    geometries.set('Standard', {
      master: 'Standard',
      title: 'Standard',
      ...a4,
      margin: { top: 56.7, right: 56.7, bottom: 56.7, left: 56.7 },
      header: null,
      footer: null,
      columns: [1],
      columnGap: 0,
      usage: 'all',
      footnote: { before: 2.8, after: 2.8, thickness: 0.5, relativeWidth: 0.25, color: '#000000', align: 'left' },
      next: 'Standard',
      background: '',
      numberFormat: '1',
      rightToLeft: false,
    })
  return geometries
}

/**
 * What a page layout of a part says, for pages that have it without a master page of their own; null where there is
 * none of that name.
 */
export function geometryOf(part: XmlPart, layoutName: string): PageGeometry | null {
  const automatic = part.first(part.rootElement, 'office:automatic-styles')
  const layout =
    automatic &&
    [...part.elements(automatic, 'style:page-layout')].find(each => each.attributes['style:name'] === layoutName)
  return layout ? geometry(part, layout, layout) : null
}

function geometry(part: XmlPart, master: XmlElement, layout: XmlElement | undefined): PageGeometry {
  const page = propertiesOf(part, layout, 'style:page-layout-properties')
  const padding = edges(page, 'fo:padding')
  const border = borderWidths(page)
  const margin = edges(page, 'fo:margin')
  const room = (which: 'header' | 'footer') => {
    if (!part.first(master, `style:${which}`)) return null
    const style = layout && part.first(layout, `style:${which}-style`)
    const properties = propertiesOf(part, style, 'style:header-footer-properties')
    return {
      minHeight: points(properties['svg:height']) ?? points(properties['fo:min-height']) ?? 0,
      gap: edges(properties, 'fo:margin')[which === 'header' ? 'bottom' : 'top'],
    }
  }
  const holder = layout && part.first(layout, 'style:page-layout-properties')
  const columns = holder && part.first(holder, 'style:columns')
  const name = master.attributes['style:name'] ?? ''
  const count = Math.min(Number.parseInt(columns?.attributes['fo:column-count'] ?? '1', 10) || 1, 40)
  const shares = columns
    ? [...part.elements(columns, 'style:column')].map(
        each => Number.parseFloat(each.attributes['style:rel-width'] ?? '1') || 1,
      )
    : []
  const separator = holder ? (part.first(holder, 'style:footnote-sep')?.attributes ?? {}) : {}
  const usage = layout?.attributes['style:page-usage']
  return {
    master: name,
    title: master.attributes['style:display-name'] ?? name,
    width: points(page['fo:page-width']) ?? a4.width,
    height: points(page['fo:page-height']) ?? a4.height,
    margin: {
      top: margin.top + padding.top + border.top,
      right: margin.right + padding.right + border.right,
      bottom: margin.bottom + padding.bottom + border.bottom,
      left: margin.left + padding.left + border.left,
    },
    header: room('header'),
    footer: room('footer'),
    columns: shares.length === count ? shares : Array.from({ length: count }, () => 1),
    columnGap: points(columns?.attributes['fo:column-gap']) ?? 0,
    usage: usage === 'left' || usage === 'right' || usage === 'mirrored' ? usage : 'all',
    footnote: {
      before: points(separator['style:distance-before-sep']) ?? 2.8,
      after: points(separator['style:distance-after-sep']) ?? 2.8,
      thickness: points(separator['style:width']) ?? 0.5,
      relativeWidth: percent(separator['style:rel-width']) ?? 0.25,
      color: /^#[0-9a-f]{6}$/i.test(separator['style:color'] ?? '') ? separator['style:color']! : '#000000',
      align: separator['style:adjustment'] ?? 'left',
    },
    next: master.attributes['style:next-style-name'] || name,
    background: /^#[0-9a-f]{6}$/i.test(page['fo:background-color'] ?? '') ? page['fo:background-color']! : '',
    numberFormat: page['style:num-format'] ?? '1',
    rightToLeft: /^rl/.test(page['style:writing-mode'] ?? ''),
  }
}

/** A length that may be a percentage of something. */
export function lengthOf(value: string | undefined, whole: number): number | null {
  return points(value) ?? (percent(value) === null ? null : percent(value)! * whole)
}
