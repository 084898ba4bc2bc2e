import type { SectionColumns } from './columns'
import { points } from '../document/lengths'
import type { Frame } from '../document/story-model'
import { findStyle, inheritedElement, inheritedProperties, type Properties } from '../document/styles'
import type { Cascade } from '../style/cascade'
import { frameStyles } from '../style/layers'
import { edges } from './geometry'

/** What styles say of boxes: each is asked for many times, and read once. */
export class BoxStyles {
  private readonly known = new Map<string, Properties>()

  constructor(private readonly cascade: Cascade) {}

  /** Properties of an automatic or common style with those of its parents below. */
  properties(part: string, family: string, name: string | null, kind: 'graphic' | 'cell' | 'paragraph'): Properties {
    return this.remembered(`${part}|${family}|${name}|${kind}`, () =>
      inheritedProperties(this.cascade.scope(part), family, name, kind),
    )
  }

  /** Other properties elements hang on the style's nodes and are read where they are needed. */
  propertiesElement(part: string, family: string, name: string | null, element: string): Properties {
    const { cascade } = this
    return this.remembered(`${part}|${family}|${name}|${element}`, () =>
      inheritedElement(cascade.scope(part), path => cascade.scope(path).part, family, name, element),
    )
  }

  private remembered(key: string, make: () => Properties): Properties {
    let properties = this.known.get(key)
    if (!properties) this.known.set(key, (properties = make()))
    return properties
  }

  /** Columns of a section or frame style, where there is more than one. */
  columnsOf(part: string, family: 'section' | 'graphic' | 'presentation', name: string | null): SectionColumns | null {
    const { cascade } = this
    const scope = cascade.scope(part)
    const style = name === null ? undefined : findStyle(scope, family, name)
    const holder = style?.propertyNodes[family === 'section' ? 'style:section-properties' : 'style:graphic-properties']
    if (!style || holder === undefined) return null
    const { part: xml } = cascade.scope(style.part)
    const properties = xml.element(holder)
    const columns = xml.first(properties, 'style:columns')
    const count = Math.min(Number.parseInt(columns?.attributes['fo:column-count'] ?? '1', 10) || 1, 40)
    if (!columns || count < 2) return null
    const shares = [...xml.elements(columns, 'style:column')].map(
      each => Number.parseFloat(each.attributes['style:rel-width'] ?? '1') || 1,
    )
    const margin = edges(properties.attributes, 'fo:margin')
    return {
      count,
      gap: points(columns.attributes['fo:column-gap']) ?? 0,
      widths: shares.length === count ? shares : Array.from({ length: count }, () => 1),
      balanced: properties.attributes['text:dont-balance-text-columns'] !== 'true',
      left: margin.left,
      right: margin.right,
    }
  }

  /** Graphic properties of a frame's style, of whichever family. */
  graphic(frame: Frame): Properties {
    return this.remembered(
      `${frame.part}|frame|${frame.graphicStyle}`,
      () =>
        Object.assign(
          {},
          ...frameStyles(this.cascade.scope(frame.part), frame.graphicStyle).map(each => each.graphic),
        ) as Properties,
    )
  }

  /** The same, on top of what the document says of all shapes. */
  shapeProperties(frame: Frame): Properties {
    return this.remembered(`${frame.part}|shape|${frame.graphicStyle}`, () => ({
      ...this.cascade.scope(frame.part).defaults.get('graphic')?.graphic,
      ...this.graphic(frame),
    }))
  }
}
