import { canonicalName, namespaceFor } from './names'
import { parseXml } from './parse'
import type { XmlElement, XmlNode, XmlPart, XmlText } from './tree'

/** An edit that cannot be made: a node that is not there, a name that is not one. The part is as it was. */
export class EditError extends Error {}

const escapeValue = (value: string, quote: string) =>
  value
    .replace(/&/g, '&amp;')
    .replace(/</g, '&lt;')
    .replace(quote === '"' ? /"/g : /'/g, quote === '"' ? '&quot;' : '&apos;')
    .replace(/[\t\n\r]/g, space => `&#${space.charCodeAt(0)};`)

/** The start tag of an element as it would be written now. */
export function startTag(element: XmlElement): string {
  return element.tag ?? element.source.slice(element.start, element.tagEnd)
}

interface AttributeSlice {
  raw: string
  from: number
  to: number
  valueFrom: number
  quote: string
}

function attributeSlices(tag: string): AttributeSlice[] {
  const slices: AttributeSlice[] = []
  const pattern = /\s+([^\s=/>]+)\s*=\s*(?:"[^"]*"|'[^']*')/gy
  pattern.lastIndex = /^<[^\s/>]+/.exec(tag)![0].length
  for (let match = pattern.exec(tag); match; match = pattern.exec(tag)) {
    const quote = match[0].at(-1)!
    slices.push({
      raw: match[1]!,
      from: match.index,
      to: pattern.lastIndex,
      valueFrom: match.index + match[0].indexOf(quote) + 1,
      quote,
    })
  }
  return slices
}

/** Prefixes bound where an element stands: those of its ancestors and of its own tag. */
export function prefixesAt(part: XmlPart, element: XmlElement): Record<string, string> {
  const chain: XmlElement[] = []
  for (let node: XmlElement | undefined = element; node; node = node.parent < 0 ? undefined : part.element(node.parent))
    chain.unshift(node)
  const bound: Record<string, string> = {}
  for (const node of chain) {
    const tag = startTag(node)
    if (!tag.includes('xmlns')) continue
    for (const slice of attributeSlices(tag)) {
      if (slice.raw === 'xmlns') bound[''] = tag.slice(slice.valueFrom, slice.to - 1)
      else if (slice.raw.startsWith('xmlns:')) bound[slice.raw.slice(6)] = tag.slice(slice.valueFrom, slice.to - 1)
    }
  }
  return bound
}

function rawNameIn(bound: Record<string, string>, name: string): { raw: string; declare: string } {
  const foreign = /^\{(.*)\}([^}]+)$/.exec(name)
  if (foreign) {
    const [, own, part] = foreign as unknown as [string, string, string]
    for (const known in bound) if (bound[known] === own && known !== '') return { raw: `${known}:${part}`, declare: '' }
    let number = 1
    while (bound[`x${number}`] !== undefined) number++
    return { raw: `x${number}:${part}`, declare: ` xmlns:x${number}="${escapeValue(own, '"')}"` }
  }
  const [prefix, local] = name.includes(':') ? (name.split(':') as [string, string]) : ['', name]
  // The prefix xml is bound by itself (Namespaces in XML 1.0, 3).
  if (prefix === '' || prefix === 'xml') return { raw: name, declare: '' }
  const uri = namespaceFor(prefix)
  for (const known in bound) if (bound[known] === uri && known !== '') return { raw: `${known}:${local}`, declare: '' }
  // A prefix that stands for something else here leaves its place to one with a number.
  let free = prefix
  for (let number = 1; bound[free] !== undefined; number++) free = `${prefix}${number}`
  return { raw: `${free}:${local}`, declare: ` xmlns:${free}="${uri}"` }
}

/**
 * Sets attributes of an element, or with null takes them away. Only their own bytes in the start tag change; the
 * quotes and the order of all others stay. New attributes go to the end.
 */
export function setAttributes(part: XmlPart, id: number, set: Readonly<Record<string, string | null>>): XmlPart {
  const element = part.element(id)
  let tag = startTag(element)
  const bound = prefixesAt(part, element)
  const attributes: Record<string, string> = { ...element.attributes }
  for (const [name, value] of Object.entries(set)) {
    const slice = attributeSlices(tag).find(candidate => {
      const [prefix, local] = candidate.raw.includes(':')
        ? (candidate.raw.split(':') as [string, string])
        : ['', candidate.raw]
      return (
        prefix !== 'xmlns' &&
        canonicalName(prefix === '' ? '' : prefix === 'xml' ? namespaceFor('xml') : (bound[prefix] ?? ''), local) ===
          name
      )
    })
    if (value === null) {
      if (slice) tag = tag.slice(0, slice.from) + tag.slice(slice.to)
      delete attributes[name]
    } else {
      if (slice) tag = tag.slice(0, slice.valueFrom) + escapeValue(value, slice.quote) + tag.slice(slice.to - 1)
      else {
        const { raw, declare } = rawNameIn(bound, name)
        const at = tag.length - (tag.endsWith('/>') ? 2 : 1)
        tag = `${tag.slice(0, at).trimEnd()}${declare} ${raw}="${escapeValue(value, '"')}"${tag.slice(at)}`
      }
      attributes[name] = value
    }
  }
  return part.with([[id, { ...element, attributes, tag }]])
}

/** Puts a start tag back literally: what undo does, so that bytes return. The tag must name the same element. */
export function restoreTag(part: XmlPart, id: number, tag: string): XmlPart {
  const element = part.element(id)
  const closed = tag.endsWith('/>') ? tag : `${tag.slice(0, -1)}/>`
  const [read] = readFragment(part, element.parent < 0 ? null : part.element(element.parent), closed, [part.nextId])
  if (read?.kind !== 'element' || read.name !== element.name)
    throw new EditError('the tag to put back is of another element')
  const isSource = tag === element.source.slice(element.start, element.tagEnd)
  return part.with([[id, { ...element, attributes: read.attributes, tag: isSource ? null : tag }]])
}

/** The markup of a text node as it would be written now. */
export function textMarkup(node: XmlText): string {
  return node.markup ?? node.source.slice(node.start, node.end)
}

/** Replaces the character data of a text node; `markup` puts a source slice back literally. */
export function setText(part: XmlPart, id: number, text: string, markup: string = escapeText(text)): XmlPart {
  const node = part.node(id)
  if (node.kind !== 'text') throw new EditError(`node ${id} of ${part.path} is not text`)
  const isSource = markup === node.source.slice(node.start, node.end)
  return part.with([[id, { ...node, text, markup: isSource ? null : markup }]])
}

/** Reads a fragment of one node in the namespaces of its future parent; nodes in document order, ids as given. */
function readFragment(part: XmlPart, parent: XmlElement | null, source: string, ids: readonly number[]): XmlNode[] {
  const bound = parent ? prefixesAt(part, parent) : part.prefixes
  // Only the prefixes that occur are declared: a document binds thirty, a fragment uses two.
  const head = `<x${Object.entries(bound)
    .filter(([prefix]) => prefix !== 'xml' && prefix !== 'xmlns' && (prefix === '' || source.includes(`${prefix}:`)))
    .map(([prefix, uri]) => ` xmlns${prefix === '' ? '' : `:${prefix}`}="${uri}"`)
    .join('')}>`
  const read = parseXml(part.path, `${head}${source}</x>`)
  const inside: XmlNode[] = []
  for (let id = read.root + 1; id < read.nextId; id++) inside.push(read.node(id))
  if (inside.length !== ids.length)
    throw new EditError(`the fragment has ${inside.length} nodes, but ${ids.length} ids were given`)
  const renamed = new Map(inside.map((node, index) => [node.id, ids[index]!]))
  return inside.map(node => {
    const common = {
      id: renamed.get(node.id)!,
      parent: node.parent === read.root ? (parent?.id ?? -1) : renamed.get(node.parent)!,
    }
    if (node.kind === 'element')
      return { ...node, ...common, children: node.children.map(child => renamed.get(child)!) }
    return { ...node, ...common }
  })
}

/**
 * Inserts one node, written out as XML with the prefixes bound at its parent, before the child at `index`.
 * `ids` are the ids of its nodes in document order; none may be in use.
 */
export function insertNode(
  part: XmlPart,
  parent: number,
  index: number,
  source: string,
  ids: readonly number[],
): XmlPart {
  const into = part.element(parent)
  if (index < 0 || index > into.children.length) throw new EditError(`${into.name} has no place ${index} for a child`)
  for (const id of ids) if (part.find(id)) throw new EditError(`the node id ${id} is in use`)
  const nodes = readFragment(part, into, source, ids)
  const children = [...into.children.slice(0, index), ids[0]!, ...into.children.slice(index)]
  return part.with([...nodes.map(node => [node.id, node] as const), [parent, { ...into, children }]])
}

/** Removes a node with everything in it. */
export function removeNode(part: XmlPart, id: number): XmlPart {
  const node = part.node(id)
  if (node.parent < 0) throw new EditError('the root element cannot be removed')
  const parent = part.element(node.parent)
  return part.with([
    ...subtreeIds(part, id).map(node => [node, null] as const),
    [parent.id, { ...parent, children: parent.children.filter(child => child !== id) }],
  ])
}

/** Takes an element away and leaves its children in its place. */
export function unwrapNode(part: XmlPart, id: number): XmlPart {
  const element = part.element(id)
  if (element.parent < 0) throw new EditError('the root element cannot be taken away')
  const parent = part.element(element.parent)
  const children = parent.children.flatMap(child => (child === id ? element.children : [child]))
  return part.with([
    [id, null],
    [parent.id, { ...parent, children }],
    ...element.children.map((child): [number, XmlNode] => [child, { ...part.node(child), parent: parent.id }]),
  ])
}

/** Puts an element, written out without content, around some neighbours: the reverse of `unwrapNode`. */
export function wrapNodes(
  part: XmlPart,
  parent: number,
  index: number,
  count: number,
  source: string,
  id: number,
): XmlPart {
  const into = part.element(parent)
  if (count < 0 || index < 0 || index + count > into.children.length)
    throw new EditError(`${into.name} has no ${count} children at ${index}`)
  if (part.find(id)) throw new EditError(`the node id ${id} is in use`)
  const [read] = readFragment(part, into, source, [id])
  if (read?.kind !== 'element') throw new EditError('only an element can be put around others')
  const inside = into.children.slice(index, index + count)
  const children = [...into.children.slice(0, index), id, ...into.children.slice(index + count)]
  return part.with([
    [id, { ...read, children: inside }],
    [parent, { ...into, children }],
    ...inside.map((child): [number, XmlNode] => [child, { ...part.node(child), parent: id }]),
  ])
}

/** An element as written, without what is in it. */
export function emptyMarkup(element: XmlElement): string {
  const tag = startTag(element)
  const close =
    element.contentEnd < element.end
      ? element.source.slice(element.contentEnd, element.end)
      : `</${/^<([^\s/>]+)/.exec(tag)![1]!}>`
  return `${tag.endsWith('/>') ? `${tag.slice(0, -2).trimEnd()}>` : tag}${close}`
}

/** Ids of a node and all below it, in document order. */
export function subtreeIds(part: XmlPart, id: number): number[] {
  const node = part.node(id)
  return node.kind === 'element' ? [id, ...node.children.flatMap(child => subtreeIds(part, child))] : [id]
}

/** Character data as XML. */
export const escapeText = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;')

/** Writes an element as XML whose names carry the prefixes bound at `parent`; `inside` is written already. */
export function elementMarkup(
  part: XmlPart,
  parent: XmlElement,
  name: string,
  attributes: Readonly<Record<string, string>>,
  inside = '',
): string {
  const bound = prefixesAt(part, parent)
  const { raw, declare } = rawNameIn(bound, name)
  const declared = new Set([declare])
  const written = Object.entries(attributes).map(([key, value]) => {
    const attribute = rawNameIn(bound, key)
    const fresh = declared.has(attribute.declare) ? '' : attribute.declare
    if (fresh !== '') {
      declared.add(fresh)
      const [, prefix, uri] = /xmlns:(\S+)="(.*)"/.exec(fresh)!
      bound[prefix!] = uri!
    }
    return `${fresh} ${attribute.raw}="${escapeValue(value, '"')}"`
  })
  return inside === ''
    ? `<${raw}${declare}${written.join('')}/>`
    : `<${raw}${declare}${written.join('')}>${inside}</${raw}>`
}
