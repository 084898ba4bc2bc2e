/**
 * An XML part as an immutable tree over its source. Nodes are told by id; every node knows the slice of source it
 * came from, so that writing gives back the very bytes of what nobody touched.
 */

export type Attributes = Readonly<Record<string, string>>

export interface XmlElement {
  readonly kind: 'element'
  readonly id: number
  /** The id of the parent element; -1 for nodes beside or above the root. */
  readonly parent: number
  /** Canonical name, for instance `style:text-properties`; see names.ts. */
  readonly name: string
  readonly attributes: Attributes
  readonly children: readonly number[]
  /** The string this node was read from, and where: start tag, content and end tag. */
  readonly source: string
  readonly start: number
  readonly tagEnd: number
  readonly contentEnd: number
  readonly end: number
  /** The start tag as it is now, where it differs from the source. */
  readonly tag: string | null
}

export interface XmlText {
  readonly kind: 'text'
  readonly id: number
  readonly parent: number
  /** Character data with references resolved and line ends normalised. */
  readonly text: string
  readonly source: string
  readonly start: number
  readonly end: number
  /** The markup as it is now, where it differs from the source. */
  readonly markup: string | null
}

/** A comment, processing instruction, declaration or the white space beside the root: kept, never read. */
export interface XmlOther {
  readonly kind: 'other'
  readonly id: number
  readonly parent: number
  readonly source: string
  readonly start: number
  readonly end: number
}

export type XmlNode = XmlElement | XmlText | XmlOther

/** Runs of (index in document order, id, length): which id the n-th node of a parse has. */
export type IdRuns = readonly (readonly [index: number, id: number, length: number])[]

export class XmlPart {
  /** @param base nodes of the parse, by id (sparse where a parse carries ids over); @param overlay nodes changed or added since, null where removed */
  constructor(
    readonly path: string,
    readonly source: string,
    readonly root: number,
    readonly top: readonly number[],
    /** Prefixes bound on the root element: prefix to namespace. */
    readonly prefixes: Readonly<Record<string, string>>,
    private readonly base: readonly XmlNode[],
    private readonly overlay: ReadonlyMap<number, XmlNode | null>,
    /** The lowest id that no node of this part has had yet. */
    readonly nextId: number,
  ) {}

  get changed(): boolean { return this.overlay.size > 0 }
  get touched(): Iterable<number> { return this.overlay.keys() }

  /**
   * Ids of what differs from an earlier state of the same part: nodes changed, added or removed, and everything above
   * them. What is not in it is the very same, with all below it.
   */
  differences(earlier: XmlPart): Set<number> {
    const found = new Set<number>()
    if (earlier === this) return found
    for (const id of new Set([...this.touched, ...earlier.touched])) {
      const now = this.find(id)
      const was = earlier.find(id)
      if (now === was) continue
      for (const start of [now, was]) {
        for (let node: XmlNode | undefined = start; node && !found.has(node.id); node = node.parent < 0 ? undefined : this.find(node.parent) ?? earlier.find(node.parent)) found.add(node.id)
      }
    }
    return found
  }

  find(id: number): XmlNode | undefined {
    const changed = this.overlay.get(id)
    if (changed !== undefined) return changed ?? undefined
    return this.base[id]
  }

  node(id: number): XmlNode {
    const node = this.find(id)
    if (!node) throw new RangeError(`${this.path} has no node ${id}`)
    return node
  }

  element(id: number): XmlElement {
    const node = this.node(id)
    if (node.kind !== 'element') throw new RangeError(`node ${id} of ${this.path} is not an element`)
    return node
  }

  get rootElement(): XmlElement { return this.element(this.root) }

  /** Child elements, by name if one is given. */
  * elements(parent: XmlElement, name?: string): Generator<XmlElement> {
    for (const id of parent.children) {
      const node = this.node(id)
      if (node.kind === 'element' && (name === undefined || node.name === name)) yield node
    }
  }

  first(parent: XmlElement, name: string): XmlElement | undefined {
    for (const id of parent.children) {
      const node = this.node(id)
      if (node.kind === 'element' && node.name === name) return node
    }
    return undefined
  }

  /** An element and all elements below it, in document order. */
  * descendants(from: XmlElement = this.rootElement): Generator<XmlElement> {
    const stack: XmlElement[] = [from]
    while (stack.length > 0) {
      const element = stack.pop()!
      yield element
      for (let index = element.children.length - 1; index >= 0; index--) {
        const child = this.node(element.children[index]!)
        if (child.kind === 'element') stack.push(child)
      }
    }
  }

  /** All character data below a node, joined. */
  textOf(id: number): string {
    const node = this.node(id)
    if (node.kind === 'text') return node.text
    return node.kind === 'element' ? node.children.map(child => this.textOf(child)).join('') : ''
  }

  /** This part with some nodes put, and with null removed. */
  with(nodes: Iterable<readonly [number, XmlNode | null]>): XmlPart {
    const overlay = new Map(this.overlay)
    let nextId = this.nextId
    for (const [id, node] of nodes) {
      overlay.set(id, node)
      nextId = Math.max(nextId, id + 1)
    }
    return new XmlPart(this.path, this.source, this.root, this.top, this.prefixes, this.base, overlay, nextId)
  }
}
