import { SaxesParser } from 'saxes'
import { PackageError } from '../package/errors'
import { defaultLimits } from '../package/limits'
import { canonicalName } from './names'
import { XmlPart, type Attributes, type IdRuns, type XmlElement, type XmlNode } from './tree'

const none: Attributes = Object.freeze({})

interface Open {
  node: XmlElement
  children: number[]
}

export interface ParseOptions {
  /** Ids of the nodes in document order, where they are not simply 0, 1, 2 … */
  readonly ids?: IdRuns
  readonly depth?: number
  readonly nodes?: number
}

function idsInOrder(runs: IdRuns | undefined): (index: number) => number {
  if (!runs || runs.length === 0) return index => index
  let at = 0
  return index => {
    while (at + 1 < runs.length && runs[at + 1]![0] <= index) at++
    const [first, id] = runs[at]!
    return id + index - first
  }
}

/**
 * Parses an XML part with the positions of everything in it. Nothing is ever fetched: an external DTD is passed over
 * (formulas name one), an internal subset and entities beyond XML's own five are refused.
 * @throws PackageError
 */
export function parseXml(path: string, source: string, options: ParseOptions = {}): XmlPart {
  const depthLimit = options.depth ?? defaultLimits.xmlDepth
  const nodeLimit = options.nodes ?? defaultLimits.xmlNodes
  const idOf = idsInOrder(options.ids)
  const nodes: XmlNode[] = []
  const top: number[] = []
  const open: Open[] = []
  let prefixes: Record<string, string> = {}
  let root = -1
  let last = 0
  let count = 0
  let highest = -1

  const nextId = () => {
    if (count >= nodeLimit)
      throw new PackageError(
        'too-many-nodes',
        `The part “${path}” has more than ${nodeLimit} elements and texts. Nothing was kept.`,
      )
    const id = idOf(count++)
    if (id > highest) highest = id
    return id
  }
  const put = (node: XmlNode) => {
    nodes[node.id] = node
    const parent = open[open.length - 1]
    if (parent) parent.children.push(node.id)
    else top.push(node.id)
  }
  const parent = () => (open.length > 0 ? open[open.length - 1]!.node.id : -1)
  const putText = (text: string, end: number) => {
    const id = nextId()
    // Beside the root there is only white space, which is kept but never read.
    if (open.length === 0) put({ kind: 'other', id, parent: -1, source, start: last, end })
    else put({ kind: 'text', id, parent: parent(), text, source, start: last, end, markup: null })
    last = end
  }
  const putOther = (end = parser.position) => {
    put({ kind: 'other', id: nextId(), parent: parent(), source, start: last, end })
    last = end
  }

  const parser = new SaxesParser({ xmlns: true, position: true })
  parser.on('error', error => {
    if (/undefined entity/.test(error.message))
      throw new PackageError(
        'entity',
        `The part “${path}” uses an XML entity of its own, which a document never needs, so it was not opened. Nothing was kept.`,
      )
    throw new PackageError(
      'bad-xml',
      `The part “${path}” is not well-formed XML (${error.message.replace(/^\d+:\d+: /, '')}, line ${parser.line}). Nothing was kept.`,
    )
  })
  parser.on('xmldecl', () => {
    putOther()
  })
  // saxes reports a comment before it has read the “>” behind it.
  parser.on('comment', () => {
    putOther(parser.position + 1)
  })
  parser.on('processinginstruction', () => {
    putOther()
  })
  parser.on('doctype', doctype => {
    if (doctype.includes('['))
      throw new PackageError(
        'dtd',
        `The part “${path}” carries its own document type, which a document never needs, so it was not opened. Nothing was kept.`,
      )
    putOther()
  })
  // saxes reports text when it has read the “<” behind it.
  parser.on('text', text => {
    putText(text, Math.min(parser.position - 1, source.length))
  })
  parser.on('cdata', text => {
    putText(text, parser.position)
  })
  parser.on('opentag', tag => {
    if (open.length >= depthLimit)
      throw new PackageError(
        'too-deep',
        `The part “${path}” nests more than ${depthLimit} elements, which no document does. Nothing was kept.`,
      )
    let attributes: Record<string, string> | undefined
    for (const key in tag.attributes) {
      const attribute = tag.attributes[key]!
      if (attribute.prefix === 'xmlns' || attribute.name === 'xmlns') continue
      attributes ??= {}
      attributes[canonicalName(attribute.uri, attribute.local)] = attribute.value
    }
    const children: number[] = []
    const node: XmlElement = {
      kind: 'element',
      id: nextId(),
      parent: parent(),
      name: canonicalName(tag.uri, tag.local),
      attributes: attributes ?? none,
      children,
      source,
      start: last,
      tagEnd: parser.position,
      contentEnd: parser.position,
      end: parser.position,
      tag: null,
    }
    if (open.length === 0) {
      root = node.id
      prefixes = { ...tag.ns }
    }
    put(node)
    open.push({ node, children })
    last = parser.position
  })
  parser.on('closetag', tag => {
    const { node } = open.pop()!
    if (!tag.isSelfClosing) {
      const closed = node as { contentEnd: number; end: number }
      closed.contentEnd = last
      closed.end = parser.position
    }
    last = parser.position
  })
  parser.write(source).close()
  if (last < source.length) putText('', source.length)
  return new XmlPart(path, source, root, top, prefixes, nodes, [], highest + 1)
}
