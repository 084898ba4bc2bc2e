import { styleFamilies, type StyleFamily } from '../../style/families'
import { inheritedProperties, type Properties } from '../../document/styles'
import type { DocumentSession } from '../../session'
import type { TextStyle } from '../../style/cascade'

/** A named style that says how text looks, as it looks wherever nothing else has a say. */
export interface NamedLook {
  readonly family: StyleFamily
  readonly name: string
  readonly title: string
  readonly text: TextStyle
  /** Of all but character styles: what it and those it descends from say of paragraphs. */
  readonly properties: Properties
}

/**
 * The named styles of text that a document has, by title: of paragraphs and words, and of placeholders, frames and cells as
 * far as these say anything of text.
 */
export function namedLooks({ document, reading }: DocumentSession): NamedLook[] {
  const path = document.subdocuments[0]!.styles ?? document.subdocuments[0]!.content
  if (!path) return []
  const scope = reading.cascade.scope(path)
  return [...scope.common.values()]
    .flatMap((style): NamedLook[] => {
      const family = styleFamilies.find(each => each === style.family)
      if (style.name === '' || family === undefined) return []
      const text = reading.cascade.named(path, family, style.name)
      const properties = family === 'text' ? {} : inheritedProperties(scope, family, style.name, 'paragraph')
      const speaks =
        family === 'paragraph' ||
        family === 'text' ||
        Object.keys(properties).length > 0 ||
        text.effective.layers.some(layer => layer.from !== 'default' && Object.keys(layer.text).length > 0)
      return speaks ? [{ family, name: style.name, title: style.displayName, text, properties }] : []
    })
    .sort((a, b) => a.title.localeCompare(b.title, 'en'))
}
