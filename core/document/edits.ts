import { z } from 'zod'
import { Change } from './draft'
import { insertParagraphs, joinParagraphs, pasteParagraphs, removeParagraph, splitParagraph } from './edit-paragraphs'
import { addFrame, chainFrames, placeFrame, removeFrame, setFrameText } from './edit-layout'
import { addPage, movePage, removePage } from './edit-pages'
import { addAnnotation, addHeader, addNote, addShape, addTable } from './edit-objects'
import { replaceText } from './edit-text'
import { partOf, type OdfDocument } from './open'
import { openParagraph } from './paragraph-spots'
import type { Operation } from './operations'
import { EditRefusal, whyNotEdit } from './refusals'

const part = z.string().min(1).max(500)
const node = z.int().nonnegative()
const offset = z.int().nonnegative().max(10_000_000)
/** Text that XML can hold (XML 1.0, 2.2). */
const text = z
  .string()
  .max(1_000_000)
  .regex(/^[^\u0000-\u0008\u000B\u000C\u000D-\u001F\uFFFE\uFFFF]*$/, 'control characters cannot be written')
const styleName = z.string().min(1).max(500)

const paragraphs = z
  .array(
    z.strictObject({
      style: styleName.nullable(),
      heading: z.int().min(1).max(10).nullable(),
      runs: z
        .array(z.strictObject({ text, style: styleName.nullable() }))
        .max(10_000)
        .readonly(),
    }),
  )
  .min(1)
  .max(10_000)
  .readonly()

/** Points: nothing on a page is further out than this. */
const length = z.number().min(-20_000).max(20_000)
const place = z.strictObject({ x: length, y: length, width: length.min(0), height: length.min(0) })
const frameText = z.strictObject({
  columns: z.int().min(1).max(20),
  gap: z.number().min(0).max(1000),
  inset: z.number().min(0).max(1000),
})

/**
 * What can be done to the words of a document. Offsets count UTF-16 units of a paragraph's text
 * (paragraph-spots.ts).
 */
export const editSchema = z.discriminatedUnion('type', [
  /** Replaces a stretch of a paragraph's text; tabs and line ends in it become tabs and line breaks. */
  z.strictObject({ type: z.literal('text'), part, node, from: offset, to: offset, text }),
  z.strictObject({ type: z.literal('split'), part, node, at: offset }),
  /** Joins a paragraph with the one behind it. */
  z.strictObject({ type: z.literal('join'), part, node }),
  z.strictObject({ type: z.literal('remove'), part, node }),
  /** Puts paragraphs behind one. */
  z.strictObject({ type: z.literal('insert'), part, node, paragraphs }),
  /** Puts paragraphs in at a place: plain ones take the style there, the others bring styles of the document. */
  z.strictObject({ type: z.literal('paste'), part, node, at: offset, how: z.enum(['plain', 'structure']), paragraphs }),
  /** Moves a frame or shape and gives it a size; `from` is where the pages show it. */
  z.strictObject({ type: z.literal('place-frame'), part, node, from: place, to: place }),
  z.strictObject({ type: z.literal('frame-text'), part, node, text: frameText }),
  /**
   * Puts a text frame on a drawn page, or at a paragraph of a text; its text begins in `style`, else as the
   * starting type has it.
   */
  z.strictObject({ type: z.literal('add-frame'), part, node, place, text: frameText, style: styleName.optional() }),
  /** Puts a shape with room for a label on a drawn page, or at a paragraph of a text. */
  z.strictObject({ type: z.literal('add-shape'), part, node, place }),
  /** Puts an empty table behind a paragraph. */
  z.strictObject({
    type: z.literal('add-table'),
    part,
    node,
    rows: z.int().min(1).max(200),
    columns: z.int().min(1).max(50),
  }),
  z.strictObject({ type: z.literal('add-note'), part, node, at: offset, endnote: z.boolean() }),
  /** Writes what somebody remarked at a place into the file; `date` as ISO 8601 has it. */
  z.strictObject({
    type: z.literal('add-annotation'),
    part,
    node,
    at: offset,
    author: text.max(200),
    date: z.iso.datetime({ local: true, offset: true }).max(40),
    text: text.min(1).max(4_000),
  }),
  /** Gives a master page a header or footer. */
  z.strictObject({ type: z.literal('add-header'), part, node, which: z.enum(['header', 'footer']) }),
  z.strictObject({ type: z.literal('chain'), part, node, next: node.nullable() }),
  z.strictObject({ type: z.literal('remove-frame'), part, node }),
  z.strictObject({ type: z.literal('add-page'), part, node }),
  z.strictObject({ type: z.literal('remove-page'), part, node }),
  z.strictObject({ type: z.literal('move-page'), part, node, to: z.int().nonnegative().max(100_000) }),
])
export type Edit = z.infer<typeof editSchema>

/** Edits that make one change: what was typed until a pause. `firstId` is the first id that new nodes take. */
export const editsSchema = z.strictObject({
  edits: z
    .array(z.strictObject({ edit: editSchema, firstId: node }))
    .min(1)
    .max(5_000),
})
export type Edits = z.infer<typeof editsSchema>['edits']

export interface Edited {
  readonly document: OdfDocument
  readonly operations: readonly Operation[]
  readonly inverse: readonly Operation[]
  /** What was made last: a paragraph, a frame or a page. */
  readonly made: number | null
}

/** The named style that follows another; null where it is followed by itself. */
function nextStyleOf(document: OdfDocument): (name: string) => string | null {
  return name => {
    const path = document.subdocuments[0]!.styles
    const styles = path === null ? undefined : document.parts.get(path)
    const holder = styles?.first(styles.rootElement, 'office:styles')
    for (const element of holder ? styles!.elements(holder, 'style:style') : [])
      if (element.attributes['style:name'] === name && element.attributes['style:family'] === 'paragraph')
        return element.attributes['style:next-style-name'] || null
    return null
  }
}

/** Makes one edit. The same in browser and server. @throws EditRefusal where the document does not take it */
export function applyEdit(document: OdfDocument, edit: Edit, firstId: number): Edited {
  const parsed = document.parts.get(edit.part)
  const element = parsed?.find(edit.node)
  const onText = ['text', 'split', 'join', 'remove', 'insert', 'paste'].includes(edit.type)
  if (element?.kind !== 'element')
    throw new EditRefusal(
      `This ${onText ? 'paragraph' : 'frame or page'} is no longer in the document. Nothing was changed.`,
    )
  if (onText && element.name !== 'text:p' && element.name !== 'text:h')
    throw new EditRefusal('This paragraph is no longer in the document. Nothing was changed.')
  const reason = whyNotEdit(document, parsed!, edit.node)
  if (reason !== null) throw new EditRefusal(reason)
  const draft = new Change(document, firstId).on(edit.part)
  let made: number | null = null
  switch (edit.type) {
    case 'text':
      replaceText(draft, edit.node, edit.from, edit.to, edit.text)
      break
    case 'split':
      made = splitParagraph(draft, edit.node, edit.at, nextStyleOf(document))
      break
    case 'join':
      joinParagraphs(draft, edit.node)
      break
    case 'remove':
      removeParagraph(draft, edit.node)
      break
    case 'insert':
      made = insertParagraphs(draft, edit.node, edit.paragraphs)
      break
    case 'paste':
      made = pasteParagraphs(draft, edit.node, edit.at, edit.paragraphs, edit.how === 'structure')
      break
    case 'place-frame':
      placeFrame(draft, edit.node, edit.from, edit.to)
      break
    case 'frame-text':
      setFrameText(draft, edit.node, edit.text)
      break
    case 'add-frame':
      made = addFrame(draft, edit.node, edit.place, edit.text, edit.style)
      break
    case 'add-shape':
      made = addShape(draft, edit.node, edit.place)
      break
    case 'add-table':
      made = addTable(draft, edit.node, edit.rows, edit.columns)
      break
    case 'add-note':
      made = addNote(draft, edit.node, edit.at, edit.endnote)
      break
    case 'add-annotation':
      made = addAnnotation(draft, edit.node, edit.at, edit)
      break
    case 'add-header':
      made = addHeader(draft, edit.node, edit.which)
      break
    case 'chain':
      chainFrames(draft, edit.node, edit.next)
      break
    case 'remove-frame':
      removeFrame(draft, edit.node)
      break
    case 'add-page':
      made = addPage(draft, edit.node)
      break
    case 'remove-page':
      removePage(draft, edit.node)
      break
    case 'move-page':
      movePage(draft, edit.node, edit.to)
      break
  }
  return { document: draft.document, operations: draft.operations, inverse: draft.inverse, made }
}

/** Words in a title: on one line, and no longer than one reads. */
const clipped = (words: string) => {
  const text = words.replace(/\s+/g, ' ')
  return text.length > 40 ? `${text.slice(0, 40)}…` : text
}
const named = (text: string) =>
  /^ +$/.test(text)
    ? `${text.length} ${text.length === 1 ? 'space' : 'spaces'}`
    : /^\s+$/.test(text)
      ? 'white space'
      : `“${clipped(text)}”`

/** What edits did, in a few words: the title of the version that they make. */
export function editTitle(before: OdfDocument, edits: Edits): string {
  const [first] = edits
  const one = new Set(edits.map(({ edit }) => `${edit.part}#${edit.node}`)).size === 1
  const type = edits.every(({ edit }) => edit.type === first?.edit.type) ? first?.edit.type : null
  if (one && type === 'text') {
    const texts = edits.map(({ edit }) => edit).filter(edit => edit.type === 'text')
    const written = texts.map(edit => edit.text).join('')
    const removed =
      texts.length === 1
        ? openParagraph(partOf(before, texts[0]!.part), texts[0]!.node).text.slice(texts[0]!.from, texts[0]!.to)
        : ''
    if (texts.every(edit => edit.from === edit.to)) return `Wrote ${named(written)}`
    if (written === '')
      return texts.length === 1
        ? `Deleted ${named(removed)}`
        : `Deleted ${texts.reduce((sum, edit) => sum + edit.to - edit.from, 0)} characters`
    if (texts.length === 1) return `Replaced ${named(removed)} by ${named(written)}`
  }
  if (type === 'split' && edits.length === 1) return 'Divided a paragraph'
  if (type === 'join' && edits.length === 1) return 'Joined two paragraphs'
  if (type === 'remove') return edits.length === 1 ? 'Took a paragraph away' : `Took ${edits.length} paragraphs away`
  const layout: Partial<Record<Edit['type'], string>> = {
    'place-frame': 'Placed a frame',
    'frame-text': 'Set a frame’s columns and insets',
    'add-frame': 'Put a text frame in',
    'add-shape': 'Put a shape in',
    'add-table': 'Put a table in',
    'add-note': 'Put a note in',
    'add-annotation': 'Put a remark into the file',
    'add-header': 'Gave pages a header or footer',
    chain: 'Chained frames',
    'remove-frame': 'Took a frame away',
    'add-page': 'Added a page',
    'remove-page': 'Took a page away',
    'move-page': 'Moved a page',
  }
  if (type && layout[type]) return layout[type]
  if (type === 'insert' || type === 'paste') return 'Put paragraphs in'
  return `Edited text in ${one ? 'a paragraph' : `${new Set(edits.map(({ edit }) => edit.node)).size} paragraphs`}`
}
