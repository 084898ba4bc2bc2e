import type { XmlPart } from '../xml/tree'

/** A style's name in the file and as people read it. */
export interface StyleName {
  readonly name: string
  readonly displayName: string
}

/**
 * A name as style:name takes it: an NCName (XML Namespaces 1.0, 3); every other character is written as its
 * hexadecimal code between underscores, as most files have it.
 */
export function encodeStyleName(displayName: string): string {
  const encoded = [...displayName]
    .map((character, at) =>
      /[\p{L}_]/u.test(character) || (at > 0 && /[\p{L}\p{N}.\-·]/u.test(character))
        ? character
        : `_${character.codePointAt(0)!.toString(16)}_`,
    )
    .join('')
  return encoded === '' ? '_' : encoded
}

/** Names of all common styles of a family in the part that holds them, in the file and as read. */
export function takenNames(part: XmlPart, family: string): Map<string, string> {
  const holder = part.first(part.rootElement, 'office:styles')
  const taken = new Map<string, string>()
  for (const element of holder ? part.elements(holder, 'style:style') : []) {
    if (element.attributes['style:family'] !== family) continue
    const name = element.attributes['style:name'] ?? ''
    taken.set(name, element.attributes['style:display-name'] ?? name.replace(/_20_/g, ' '))
  }
  return taken
}

/** A name that no common style of the family has: with a number behind it where it must be. */
export function uniqueName(part: XmlPart, family: string, displayName: string): StyleName {
  const taken = takenNames(part, family)
  const shown = new Set([...taken.values()].map(each => each.toLowerCase()))
  let title = displayName
  for (let number = 2; shown.has(title.toLowerCase()) || taken.has(encodeStyleName(title)); number++)
    title = `${displayName} ${number}`
  return { name: encodeStyleName(title), displayName: title }
}
