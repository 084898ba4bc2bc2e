import type { OdfDocument } from './open'

/**
 * A setting that the document carries for whoever lays it out (config:config-item, ODF 1.4 part 3, 3.10.3); null
 * where it says nothing.
 */
export function readSetting(document: OdfDocument, name: string): string | null {
  const path = document.subdocuments[0]!.settings
  const part = path ? document.parts.get(path) : undefined
  if (part)
    for (const element of part.descendants())
      if (element.attributes['config:name'] === name) return part.textOf(element.id).trim()
  return null
}
