import { readChart, type Chart } from '../document/chart'
import type { OdfDocument, Subdocument } from '../document/open'
import { rulesPath } from '../document/rules'
import { readStories } from '../document/stories'
import type { Story } from '../document/story-model'
import type { XmlPart } from '../xml/tree'
import { Cascade } from './cascade'

/** Text with what styles it. `prefix` is the folder of an object's parts, '' for the document's own text. */
export interface StyledText {
  readonly prefix: string
  readonly cascade: Cascade
  readonly stories: readonly Story[]
}

/** A document, read: its stories and the cascade that styles them. */
export interface Reading extends StyledText {
  readonly document: OdfDocument
  /** Objects in the document, each with styles of its own and no others. */
  readonly objects: readonly ObjectText[]
  /** All text that can be seen: the document's own and that of its charts. */
  readonly texts: readonly StyledText[]
}

/** An object's text; read when it is asked for. */
export class ObjectText implements StyledText {
  private ownCascade: Cascade | null = null
  private ownStories: readonly Story[] | null = null

  constructor(
    private readonly document: OdfDocument,
    readonly sub: Subdocument,
  ) {}

  get prefix(): string {
    return this.sub.prefix
  }
  get cascade(): Cascade {
    return (this.ownCascade ??= new Cascade(this.document, this.sub))
  }
  get stories(): readonly Story[] {
    return (this.ownStories ??= [this.sub.content, this.sub.styles].flatMap(path =>
      path ? readStories(this.document.parts.get(path)!) : [],
    ))
  }

  /** Whether another document holds the same object, part for part. */
  isIn(document: OdfDocument, sub: Subdocument): boolean {
    return [this.sub.content, this.sub.styles, this.sub.settings].every(
      (path, index) =>
        path === [sub.content, sub.styles, sub.settings][index] &&
        (path === null || this.document.parts.get(path) === document.parts.get(path)),
    )
  }
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
  const cascade = new Cascade(document, sub, sameStyles ? earlier!.cascade : undefined)
  const objects = readObjects(document, earlier?.objects ?? [])
  const own: StyledText = { prefix: '', cascade, stories }
  return { ...own, document, objects, texts: [own, ...objects.filter(each => each.sub.kind === 'chart')] }
}

/** The charts of a document, read, each with the object that it stands in. */
export function chartsOf({ document, objects }: Reading): { readonly object: ObjectText; readonly chart: Chart }[] {
  return objects.flatMap(object => {
    const path = object.sub.kind === 'chart' ? object.sub.content : null
    const part = path === null ? undefined : document.parts.get(path)
    const chart = part && readChart(part)
    return chart ? [{ object, chart }] : []
  })
}

/** The objects of a document that have content; those that did not change are taken over. */
function readObjects(document: OdfDocument, earlier: readonly ObjectText[]): ObjectText[] {
  const known = new Map(earlier.map(each => [each.prefix, each]))
  return document.subdocuments
    .filter(sub => sub.prefix !== '' && sub.content !== null)
    .map(sub => {
      const before = known.get(sub.prefix)
      return before?.isIn(document, sub) ? before : new ObjectText(document, sub)
    })
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
