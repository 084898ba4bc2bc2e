import { elementMarkup } from '../../xml/edit'
import type { Planner } from '../planner'

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

/** Names of all common styles of a family, in the file and as read. */
export function takenNames(planner: Planner, family: string): Map<string, string> {
  const { part } = planner.common
  const holder = part.first(part.rootElement, 'office:styles')
  const taken = new Map<string, string>()
  for (const element of holder ? part.elements(holder, 'style:style') : []) {
    if (element.attributes['style:family'] !== family) continue
    const name = element.attributes['style:name'] ?? ''
    taken.set(name, element.attributes['style:display-name'] ?? name.replace(/_20_/g, ' '))
  }
  return taken
}

/** A name that no style of the family has: with a number behind it where it must be. */
export function uniqueName(planner: Planner, family: string, displayName: string): StyleName {
  const taken = takenNames(planner, family)
  const shown = new Set([...taken.values()].map(each => each.toLowerCase()))
  let title = displayName
  for (let number = 2; shown.has(title.toLowerCase()) || taken.has(encodeStyleName(title)); number++)
    title = `${displayName} ${number}`
  return { name: encodeStyleName(title), displayName: title }
}

/** Writes a new common style at the end of office:styles. Returns its node. */
export function styleMarkup(
  planner: Planner,
  family: string,
  { name, displayName }: StyleName,
  what: {
    readonly parent?: string | null
    readonly text?: Readonly<Record<string, string>>
    readonly paragraph?: Readonly<Record<string, string>>
    readonly attributes?: Readonly<Record<string, string>>
  },
): number {
  const draft = planner.common
  const { part } = draft
  let holder = part.first(part.rootElement, 'office:styles')
  if (!holder) {
    const before = [...part.elements(part.rootElement)].find(each => each.name !== 'office:font-face-decls')
    const id = draft.insert(
      part.root,
      before ? part.rootElement.children.indexOf(before.id) : part.rootElement.children.length,
      elementMarkup(part, part.rootElement, 'office:styles', {}),
      1,
    )
    holder = draft.part.element(id)
  }
  const properties = (['paragraph', 'text'] as const).flatMap(kind =>
    what[kind] && Object.keys(what[kind]).length > 0
      ? [elementMarkup(part, holder, `style:${kind}-properties`, what[kind])]
      : [],
  )
  const attributes = {
    'style:name': name,
    ...(displayName === name ? {} : { 'style:display-name': displayName }),
    'style:family': family,
    ...(what.parent ? { 'style:parent-style-name': what.parent } : {}),
    ...what.attributes,
  }
  // Styles of one kind stand together: behind the last one, before lists and outlines.
  const last = [...part.elements(holder, 'style:style')].at(-1)
  const index = last ? holder.children.indexOf(last.id) + 1 : holder.children.length
  return draft.insert(
    holder.id,
    index,
    elementMarkup(part, holder, 'style:style', attributes, properties.join('')),
    1 + properties.length,
  )
}
