import { applyAll } from '../../core/document/apply'
import { applyEdit, editTitle, type Edit } from '../../core/document/edits'
import { saveDocument, type OdfDocument } from '../../core/document/open'
import type { Operation } from '../../core/document/operations'
import { openParagraph } from '../../core/document/paragraph-spots'
import type { XmlElement } from '../../core/xml/tree'

const part = 'content.xml'
const longest = 360
const cut = (text: string) => (text.length > longest ? `${text.slice(0, longest)}… (${text.length})` : text)

/** What an operation does, on one line; numbers of nodes in a row as their first and how many. */
function operationTold(operation: Operation): string {
  const { type, part: at, ...rest } = operation as Operation & Readonly<{ part?: string }>
  const values = Object.entries(rest).map(([key, value]) => {
    if (key === 'ids' && Array.isArray(value)) return `ids ${value[0]} and ${value.length - 1} more`
    return `${key} ${cut(typeof value === 'string' ? value : JSON.stringify(value))}`
  })
  return [type, ...(at === undefined || at === part ? [] : [at]), ...values].join(' | ').replaceAll('\n', '⏎')
}

/** An edit as it is told: its title, each operation, or why it is refused. Undoing must give the bytes back. */
export function editTold(document: OdfDocument, edit: Edit): string {
  const { type, part: _part, ...rest } = edit
  const asked = `${type} ${cut(JSON.stringify(rest))}`
  const firstId = document.parts.get(edit.part)!.nextId + 10
  try {
    const done = applyEdit(document, edit, firstId)
    const back = saveDocument(applyAll(done.document, done.inverse).document)
    const undone = Buffer.compare(back, saveDocument(document)) === 0
    return [
      asked,
      `  ${editTitle(document, [{ edit, firstId }])}${done.made === null ? '' : `, made ${done.made}`}`,
      ...done.operations.map(each => `  ${operationTold(each)}`),
      ...(undone ? [] : ['  UNDOING DOES NOT GIVE THE BYTES']),
    ].join('\n')
  } catch (error) {
    return `${asked}\n  ${error instanceof Error ? error.message : String(error)}`
  }
}

/** Some of many: the first, the last and what lies between at equal steps. */
function some<T>(all: readonly T[], count: number): T[] {
  if (all.length <= count) return [...all]
  return Array.from({ length: count }, (_, at) => all[Math.round((at * (all.length - 1)) / (count - 1))]!)
}

const plain = { style: null, heading: null, runs: [{ text: 'New words', style: null }] }
const paragraphsIn = [plain, { style: 'Standard', heading: 2, runs: [{ text: 'More\tand', style: null }] }]

/** Edits of the words of one paragraph, at its ends, in its middle and over its spans. */
function* wordEdits(document: OdfDocument, node: number): Generator<Edit> {
  let length = 0
  try {
    length = openParagraph(document.parts.get(part)!, node).text.length
  } catch {
    // What cannot be opened refuses every edit, which is told.
  }
  const middle = Math.floor(length / 2)
  const third = Math.floor(length / 3)
  const at = { part, node }
  for (const [from, to, text] of [
    [0, 0, ' x'],
    [middle, middle, '\t1\n  2'],
    [third, Math.min(length, third + 6), 'words'],
    [third, length, ''],
    [0, length, 'All  anew'],
    [length, length, ' '],
    [length, length + 1, 'past the end'],
    [middle, third, 'backwards'],
  ] as const)
    yield { type: 'text', ...at, from, to, text }
  for (const place of [0, middle, length]) yield { type: 'split', ...at, at: place }
  yield { type: 'join', ...at }
  yield { type: 'remove', ...at }
  yield { type: 'insert', ...at, paragraphs: paragraphsIn }
  yield { type: 'paste', ...at, at: middle, how: 'plain', paragraphs: [plain] }
  yield { type: 'paste', ...at, at: middle, how: 'plain', paragraphs: paragraphsIn }
  yield { type: 'paste', ...at, at: third, how: 'structure', paragraphs: paragraphsIn }
  for (const endnote of [false, true]) yield { type: 'add-note', ...at, at: middle, endnote }
  yield {
    type: 'add-annotation',
    ...at,
    at: middle,
    author: 'M. Aldous',
    date: '2031-05-02T09:30:00Z',
    text: 'Is\n it?',
  }
  yield { type: 'add-table', ...at, rows: 2, columns: 3 }
}

const boxes = { near: { x: 20, y: 30, width: 100, height: 50 }, far: { x: 47, y: 21.5, width: 130, height: 80 } }
const frameText = { columns: 2, gap: 12, inset: 4 }

/** Edits of what is laid out on a page. */
function* frameEdits(node: number, others: readonly number[]): Generator<Edit> {
  const at = { part, node }
  const { near, far } = boxes
  yield { type: 'place-frame', ...at, from: near, to: { ...near, x: far.x, y: far.y } }
  yield { type: 'place-frame', ...at, from: near, to: { ...near, y: far.y } }
  yield { type: 'place-frame', ...at, from: near, to: { ...near, height: far.height } }
  yield { type: 'place-frame', ...at, from: near, to: far }
  yield { type: 'frame-text', ...at, text: frameText }
  yield { type: 'frame-text', ...at, text: { columns: 1, gap: 0, inset: 0 } }
  for (const next of [null, node, ...some(others, 2)]) yield { type: 'chain', ...at, next }
  yield { type: 'remove-frame', ...at }
}

/** Edits of pages and of what is put on one. */
function* pageEdits(node: number, pages: number): Generator<Edit> {
  const at = { part, node }
  yield { type: 'add-frame', ...at, place: boxes.far, text: frameText }
  yield { type: 'add-frame', ...at, place: boxes.near, text: { columns: 1, gap: 0, inset: 0 }, style: 'Body' }
  yield { type: 'add-shape', ...at, place: boxes.near }
  yield { type: 'add-page', ...at }
  yield { type: 'remove-page', ...at }
  for (const to of [0, pages - 1, pages]) yield { type: 'move-page', ...at, to }
}

/** Every kind of edit at some places of each sort that a document has. */
export function* everyEdit(document: OdfDocument): Generator<Edit> {
  const content = document.parts.get(part)!
  const all = [...content.descendants()]
  const isOf = (pattern: RegExp) => (each: XmlElement) => pattern.test(each.name)
  const inside = (each: XmlElement): string => {
    const above = content.find(each.parent)
    return above?.kind === 'element' ? above.name : ''
  }
  const paragraphs = all.filter(isOf(/^text:[ph]$/))
  const holders = new Set(paragraphs.map(inside))
  for (const holder of holders)
    for (const { id } of some(
      paragraphs.filter(each => inside(each) === holder),
      3,
    ))
      yield* wordEdits(document, id)
  const frames = all.filter(isOf(/^draw:(frame|rect|custom-shape|line|connector|circle|ellipse|g|polygon|path)$/))
  const texts = frames.filter(each => content.first(each, 'draw:text-box')).map(each => each.id)
  for (const name of new Set(frames.map(each => each.name)))
    for (const { id } of some(
      frames.filter(each => each.name === name),
      3,
    ))
      yield* frameEdits(
        id,
        texts.filter(each => each !== id),
      )
  const pages = all.filter(isOf(/^draw:page$/))
  for (const { id } of some(pages, 3)) yield* pageEdits(id, pages.length)
  for (const { id } of some(paragraphs, 2)) yield* pageEdits(id, 1)
  const styles = document.parts.get('styles.xml')
  for (const element of styles ? [...styles.descendants()] : [])
    if (element.name === 'style:master-page')
      for (const which of ['header', 'footer'] as const)
        yield { type: 'add-header', part: 'styles.xml', node: element.id, which }
}
