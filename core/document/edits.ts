import { z } from 'zod'
import { Draft } from './draft'
import { insertParagraphs, joinParagraphs, removeParagraph, splitParagraph } from './edit-paragraphs'
import { replaceText } from './edit-text'
import type { OdfDocument } from './open'
import type { Operation } from './operations'
import { EditRefusal, whyNotEdit } from './refusals'

const part = z.string().min(1).max(500)
const node = z.int().nonnegative()
const offset = z.int().nonnegative().max(10_000_000)
/** Text that XML can hold (XML 1.0, 2.2). */
// eslint-disable-next-line no-control-regex
const text = z.string().max(1_000_000).regex(/^[^\u0000-\u0008\u000B\u000C\u000D-\u001F\uFFFE\uFFFF]*$/, 'control characters cannot be written')
const styleName = z.string().min(1).max(500)

/** What can be done to the words of a document. Offsets count UTF-16 units of a paragraph's text (paragraph-spots.ts). */
export const editSchema = z.discriminatedUnion('type', [
  /** Replaces a stretch of a paragraph's text; tabs and line ends in it become tabs and line breaks. */
  z.strictObject({ type: z.literal('text'), part, node, from: offset, to: offset, text }),
  z.strictObject({ type: z.literal('split'), part, node, at: offset }),
  /** Joins a paragraph with the one behind it. */
  z.strictObject({ type: z.literal('join'), part, node }),
  z.strictObject({ type: z.literal('remove'), part, node }),
  /** Puts paragraphs behind one. */
  z.strictObject({
    type: z.literal('insert'), part, node,
    paragraphs: z.array(z.strictObject({ style: styleName.nullable(), heading: z.int().min(1).max(10).nullable(), runs: z.array(z.strictObject({ text, style: styleName.nullable() })).max(10_000) })).min(1).max(10_000),
  }),
])
export type Edit = z.infer<typeof editSchema>

/** Edits that make one change: what was typed until a pause. `firstId` is the first id that new nodes take. */
export const editsSchema = z.strictObject({ edits: z.array(z.strictObject({ edit: editSchema, firstId: node })).min(1).max(5_000) })
export type Edits = z.infer<typeof editsSchema>['edits']

export interface Edited {
  readonly document: OdfDocument
  readonly operations: readonly Operation[]
  readonly inverse: readonly Operation[]
  /** The paragraph that a split or an insertion made last. */
  readonly made: number | null
}

/** The named style that follows another; null where it is followed by itself. */
function nextStyleOf(document: OdfDocument): (name: string) => string | null {
  return (name) => {
    const path = document.subdocuments[0]!.styles
    const styles = path === null ? undefined : document.parts.get(path)
    const holder = styles?.first(styles.rootElement, 'office:styles')
    for (const element of holder ? styles!.elements(holder, 'style:style') : [])
      if (element.attributes['style:name'] === name && element.attributes['style:family'] === 'paragraph') return element.attributes['style:next-style-name'] || null
    return null
  }
}

/** Makes one edit. The same in browser and server. @throws EditRefusal where the document does not take it */
export function applyEdit(document: OdfDocument, edit: Edit, firstId: number): Edited {
  const parsed = document.parts.get(edit.part)
  const element = parsed?.find(edit.node)
  if (element?.kind !== 'element' || (element.name !== 'text:p' && element.name !== 'text:h')) throw new EditRefusal('This paragraph is no longer in the document. Nothing was changed.')
  const reason = whyNotEdit(document, parsed!, edit.node)
  if (reason !== null) throw new EditRefusal(reason)
  const draft = new Draft(document, edit.part, firstId)
  let made: number | null = null
  switch (edit.type) {
    case 'text': replaceText(draft, edit.node, edit.from, edit.to, edit.text); break
    case 'split': made = splitParagraph(draft, edit.node, edit.at, nextStyleOf(document)); break
    case 'join': joinParagraphs(draft, edit.node); break
    case 'remove': removeParagraph(draft, edit.node); break
    case 'insert': made = insertParagraphs(draft, edit.node, edit.paragraphs); break
  }
  return { document: draft.document, operations: draft.operations, inverse: draft.inverse, made }
}

/** Makes edits in order, all or none. @throws EditRefusal */
export function applyEdits(document: OdfDocument, edits: Edits): Edited {
  let at = document
  const operations: Operation[] = []
  const inverse: Operation[] = []
  let made: number | null = null
  for (const { edit, firstId } of edits) {
    const edited = applyEdit(at, edit, firstId)
    at = edited.document
    operations.push(...edited.operations)
    inverse.unshift(...edited.inverse)
    made = edited.made
  }
  return { document: at, operations, inverse, made }
}
