import type { OdfDocument } from '../document/open'
import { rulesPath } from '../document/rules'
import { readStories } from '../document/stories'
import type { Story } from '../document/story-model'
import type { XmlPart } from '../xml/tree'
import { Cascade } from './cascade'

/** A document, read: its stories and the cascade that styles them. */
export interface Reading {
  readonly document: OdfDocument
  readonly cascade: Cascade
  readonly stories: readonly Story[]
}

/**
 * Reads the stories of the document itself (objects not included). Of an earlier reading of the same document, what has
 * not changed since is taken over: paragraphs object for object, and the cascade where no style was touched.
 */
export function readDocument(document: OdfDocument, earlier?: Reading): Reading {
  const sub = document.subdocuments[0]!
  const stories: Story[] = []
  // Rules of the document's own have a say in how text looks, too.
  let sameStyles = earlier !== undefined && earlier.document.written.get(rulesPath) === document.written.get(rulesPath)
  for (const path of [sub.content, sub.styles]) {
    if (!path) continue
    const part = document.parts.get(path)!
    const before = earlier?.document.parts.get(path)
    stories.push(
      ...readStories(part, before && { part: before, stories: earlier!.stories.filter(story => story.part === path) }),
    )
    if (!before || stylesDiffer(part, before)) sameStyles = false
  }
  return { document, cascade: new Cascade(document, sub, sameStyles ? earlier!.cascade : undefined), stories }
}

function stylesDiffer(part: XmlPart, before: XmlPart): boolean {
  const changed = part.differences(before)
  return [...part.elements(part.rootElement)].some(
    element => element.name !== 'office:body' && element.name !== 'office:master-styles' && changed.has(element.id),
  )
}

/** The title of a common style by its name in the file; the name itself where there is none. */
export function styleTitle({ cascade }: Pick<Reading, 'cascade'>, name: string): string {
  for (const scope of cascade.scopes.values())
    for (const style of scope.common.values()) if (style.name === name) return style.displayName
  return name
}
