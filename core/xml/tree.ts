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
  /**
   * @param base nodes of the parse, by id (sparse where a parse carries ids over)
   * @param overlay nodes changed or added since, null where removed: maps whose size falls off, so that ten thousand
   * changes one after the other cost little more than one; a later map says more than an earlier one
   */
  constructor(
    readonly path: string,
    readonly source: string,
    readonly root: number,
    readonly top: readonly number[],
    /** Prefixes bound on the root element: prefix to namespace. */
    readonly prefixes: Readonly<Record<string, string>>,
    private readonly base: readonly XmlNode[],
    private readonly overlay: readonly ReadonlyMap<number, XmlNode | null>[],
    /** The lowest id that no node of this part has had yet. */
    readonly nextId: number,
  ) {}

  get changed(): boolean {
    return this.overlay.length > 0
  }
  /** Ids of nodes changed, added or removed since the parse; some may come twice. */
  *touched(): Generator<number> {
    for (const map of this.overlay) yield* map.keys()
  }

  isTouched(id: number): boolean {
    return this.overlay.some(map => map.has(id))
  }

  /**
   * Ids of what differs from an earlier state of the same part: nodes changed, added or removed, and everything above
   * them. What is not in it is the very same, with all below it.
   */
  differences(earlier: XmlPart): Set<number> {
    const found = new Set<number>()
    if (earlier === this) return found
    for (const id of new Set([...this.touched(), ...earlier.touched()])) {
      const now = this.find(id)
      const was = earlier.find(id)
      if (now === was) continue
      for (const start of [now, was]) {
        for (
          let node: XmlNode | undefined = start;
          node && !found.has(node.id);
          node = node.parent < 0 ? undefined : (this.find(node.parent) ?? earlier.find(node.parent))
        )
          found.add(node.id)
      }
    }
    return found
  }

  find(id: number): XmlNode | undefined {
    for (let at = this.overlay.length - 1; at >= 0; at--) {
      const changed = this.overlay[at]!.get(id)
      if (changed !== undefined) return changed ?? undefined
    }
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

  get rootElement(): XmlElement {
    return this.element(this.root)
  }

  /** Child elements, by name if one is given. */
  *elements(parent: XmlElement, name?: string): Generator<XmlElement> {
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
  *descendants(from: XmlElement = this.rootElement): Generator<XmlElement> {
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
    const own = new Map<number, XmlNode | null>()
    let nextId = this.nextId
    for (const [id, node] of nodes) {
      own.set(id, node)
      nextId = Math.max(nextId, id + 1)
    }
    const overlay = [...this.overlay]
    let last: ReadonlyMap<number, XmlNode | null> = own
    while (overlay.length > 0 && overlay.at(-1)!.size <= 2 * last.size) {
      const merged = new Map(overlay.pop()!)
      for (const [id, node] of last) merged.set(id, node)
      last = merged
    }
    if (last.size > 0) overlay.push(last)
    return new XmlPart(this.path, this.source, this.root, this.top, this.prefixes, this.base, overlay, nextId)
  }
}
