import { escapeText, setAttributes, startTag, textMarkup } from '../xml/edit'
import type { XmlElement, XmlPart, XmlText } from '../xml/tree'
import { apply, type Applied } from './apply'
import { partOf, type OdfDocument } from './open'
import type { Operation } from './operations'

/** Elements that an edit takes away when it leaves them empty. */
const hollow: ReadonlySet<string> = new Set(['text:span', 'text:a', 'text:ruby-base'])

/** A change in the making, over all parts: operations are applied one by one, and their inverses kept. */
export class Change {
  readonly operations: Operation[] = []
  readonly inverse: Operation[] = []
  private readonly next = new Map<string, number>()
  private readonly drafts = new Map<string, Draft>()

  /** @param firstId the first id that new nodes may take, in any part; those a part has had are kept clear of */
  constructor(
    public document: OdfDocument,
    private readonly firstId = 0,
  ) {}

  part(path: string): XmlPart {
    return partOf(this.document, path)
  }

  /** The change as it goes on in one part. */
  on(path: string): Draft {
    let draft = this.drafts.get(path)
    if (!draft) this.drafts.set(path, (draft = new Draft(this, path)))
    return draft
  }

  /** Ids for new nodes of a part, in order. */
  newIds(path: string, count: number): number[] {
    // Operations that come with ids of their own take some, too.
    const next = Math.max(this.next.get(path) ?? this.firstId, this.part(path).nextId)
    this.next.set(path, next + count)
    return Array.from({ length: count }, (_, at) => next + at)
  }

  do(operation: Operation): void {
    const applied: Applied = apply(this.document, operation)
    this.document = applied.document
    this.operations.push(operation)
    this.inverse.unshift(...applied.inverse)
  }

  /** Paths of the parts that differ from those of an earlier document. */
  changedParts(before: OdfDocument): Set<string> {
    return new Set(
      [...this.document.parts].filter(([path, part]) => before.parts.get(path) !== part).map(([path]) => path),
    )
  }
}

/** A change in one part. New nodes take ids in order. */
export class Draft {
  constructor(
    readonly change: Change,
    readonly path: string,
  ) {}

  get document(): OdfDocument {
    return this.change.document
  }
  get operations(): readonly Operation[] {
    return this.change.operations
  }
  get inverse(): readonly Operation[] {
    return this.change.inverse
  }
  get part(): XmlPart {
    return this.change.part(this.path)
  }

  newIds(count: number): number[] {
    return this.change.newIds(this.path, count)
  }

  do(operation: Operation): void {
    this.change.do(operation)
  }

  remove(node: number): void {
    this.do({ type: 'remove-node', part: this.path, node })
  }

  /**
   * Puts one node, written as XML, before the child at an index. `count` is how many nodes it has with all below
   * it.
   */
  insert(parent: number, index: number, source: string, count: number): number {
    const ids = this.newIds(count)
    this.do({ type: 'restore-node', part: this.path, parent, index, source, ids })
    return ids[0]!
  }

  /** Puts nodes with the ids they had: for moving them. */
  place(parent: number, index: number, source: string, ids: number[]): void {
    this.do({ type: 'restore-node', part: this.path, parent, index, source, ids })
  }

  /** Sets attributes of an element, or with null takes them away; nothing happens where all are as they should be. */
  setAttributes(node: number, set: Readonly<Record<string, string | null>>): void {
    const { attributes } = this.part.element(node)
    const differs = Object.entries(set).filter(([name, value]) => (attributes[name] ?? null) !== value)
    if (differs.length > 0)
      this.setTag(node, startTag(setAttributes(this.part, node, Object.fromEntries(differs)).element(node)))
  }

  /** Takes an element away and leaves its children in its place. */
  unwrap(node: number): void {
    this.do({ type: 'unwrap-node', part: this.path, node })
  }

  /** Puts an element, as a start tag, around some neighbours. */
  wrap(parent: number, index: number, count: number, tag: string): number {
    const [id] = this.newIds(1)
    this.do({
      type: 'wrap-nodes',
      part: this.path,
      parent,
      index,
      count,
      source: `${tag}</${/^<([^\s/>]+)/.exec(tag)![1]!}>`,
      id: id!,
    })
    return id!
  }

  setTag(node: number, tag: string): void {
    this.do({ type: 'restore-tag', part: this.path, node, tag })
  }

  textNode(id: number): XmlText {
    const node = this.part.node(id)
    if (node.kind !== 'text') throw new RangeError(`node ${id} of ${this.path} is not text`)
    return node
  }

  /** Replaces a stretch of a text node; the rest keeps its bytes, character references included. */
  splice(id: number, from: number, to: number, text: string): void {
    const node = this.textNode(id)
    this.do({
      type: 'restore-text',
      part: this.path,
      node: id,
      text: node.text.slice(0, from) + text + node.text.slice(to),
      markup: splicedMarkup(node, from, to, text),
    })
  }

  /** Markup of a stretch of a text node. */
  slice(id: number, from: number, to: number): string {
    const node = this.textNode(id)
    return splicedMarkup(node, to, node.text.length, '').slice(splicedMarkup(node, from, node.text.length, '').length)
  }

  indexOf(id: number): number {
    return this.part.element(this.part.node(id).parent).children.indexOf(id)
  }

  /** Text nodes that came to stand side by side become one, as reading the file again would make them. */
  mergeTexts(parent: number): void {
    const children = [...this.part.element(parent).children]
    for (let at = children.length - 1; at > 0; at--) {
      const one = this.part.find(children[at - 1]!)
      const other = this.part.find(children[at]!)
      if (one?.kind !== 'text' || other?.kind !== 'text') continue
      const markup = plainMarkup(one) + plainMarkup(other)
      const text = one.text + other.text
      this.remove(other.id)
      this.do({ type: 'restore-text', part: this.path, node: one.id, text, markup })
    }
  }

  /** Takes away spans and links that an edit left empty, from the inside out, up to but not including `limit`. */
  dropEmpty(from: number, limit: number): void {
    let id = from
    while (id !== limit) {
      const element: XmlElement = this.part.element(id)
      if (element.children.length > 0 || !hollow.has(element.name)) return
      const { parent } = element
      this.remove(id)
      this.mergeTexts(parent)
      id = parent
    }
  }
}

/** Markup that can stand beside other text: a CDATA section is written out. */
function plainMarkup(node: XmlText): string {
  const markup = textMarkup(node)
  return markup.startsWith('<![CDATA[') ? escapeText(node.text) : markup
}

/**
 * The markup of a text node with a stretch of its character data replaced (XML 1.0, 2.11 and 4.1: line ends and
 * references are one character each).
 */
function splicedMarkup(node: XmlText, from: number, to: number, text: string): string {
  const markup = textMarkup(node)
  if (markup.startsWith('<![CDATA[')) return escapeText(node.text.slice(0, from) + text + node.text.slice(to))
  let at = 0
  let start = from === 0 ? 0 : -1
  let end = to === 0 ? 0 : -1
  let units = 0
  while (at < markup.length && (start < 0 || end < 0)) {
    if (markup[at] === '&') {
      const close = markup.indexOf(';', at)
      const code = /^&#(x?)([0-9a-f]+);/i.exec(markup.slice(at, close + 1))
      units += code && Number.parseInt(code[2]!, code[1] ? 16 : 10) > 0xffff ? 2 : 1
      at = close + 1
    } else {
      at += markup[at] === '\r' && markup[at + 1] === '\n' ? 2 : 1
      units++
    }
    if (start < 0 && units >= from) start = at
    if (end < 0 && units >= to) end = at
  }
  if (start < 0) start = markup.length
  if (end < 0) end = markup.length
  return markup.slice(0, start) + escapeText(text) + markup.slice(end)
}
