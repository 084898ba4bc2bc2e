import { inheritedProperties } from '../../document/styles'
import type { Properties } from '../../document/styles'
import type { DocumentSession } from '../../session'
import type { TextStyle } from '../../style/cascade'

/** A named paragraph or character style, as it looks wherever nothing else has a say. */
export interface NamedLook {
  readonly family: 'paragraph' | 'text'
  readonly name: string
  readonly title: string
  readonly text: TextStyle
  /** Of paragraphs: its own properties and those it descends from. */
  readonly properties: Properties
}

/** The named styles of text that a document has, by title. */
export function namedLooks({ document, reading }: DocumentSession): NamedLook[] {
  const path = document.subdocuments[0]!.styles ?? document.subdocuments[0]!.content
  if (!path) return []
  const scope = reading.cascade.scope(path)
  return [...scope.common.values()]
    .flatMap((style): NamedLook[] =>
      style.name !== '' && (style.family === 'paragraph' || style.family === 'text')
        ? [
            {
              family: style.family,
              name: style.name,
              title: style.displayName,
              text: reading.cascade.named(path, style.family, style.name),
              properties:
                style.family === 'paragraph' ? inheritedProperties(scope, 'paragraph', style.name, 'paragraph') : {},
            },
          ]
        : [],
    )
    .sort((a, b) => a.title.localeCompare(b.title, 'en'))
}
