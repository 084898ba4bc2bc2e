import {
  elementMarkup,
  emptyMarkup,
  insertNode,
  removeNode,
  restoreTag,
  setAttributes,
  setText,
  startTag,
  subtreeIds,
  textMarkup,
  unwrapNode,
  wrapNodes,
} from '../xml/edit'
import type { XmlElement, XmlPart } from '../xml/tree'
import { writeElement } from '../xml/write'
import { declarationAttributes, namingAttributes } from './font-attributes'
import { manifestPath, partOf, type OdfDocument } from './open'
import type { Operation } from './operations'
import { rulesPath } from './rules'

/** An operation that does not fit the document. The document is as it was. */
export class OperationError extends Error {}

export interface Applied {
  readonly document: OdfDocument
  readonly inverse: readonly Operation[]
}

const put = (document: OdfDocument, part: XmlPart): OdfDocument => ({
  ...document,
  parts: new Map(document.parts).set(part.path, part),
})

const tagInverse = (part: XmlPart, element: XmlElement): Operation => ({
  type: 'restore-tag',
  part: part.path,
  node: element.id,
  tag: startTag(element),
})

function remove(document: OdfDocument, path: string, id: number): Applied {
  const part = partOf(document, path)
  const node = part.node(id)
  const index = node.parent < 0 ? -1 : part.element(node.parent).children.indexOf(id)
  const inverse: Operation = {
    type: 'restore-node',
    part: path,
    parent: node.parent,
    index,
    source: writeElement(part, id),
    ids: subtreeIds(part, id),
  }
  return { document: put(document, removeNode(part, id)), inverse: [inverse] }
}

/** The schema's order of properties; all stand before style:map. */
const propertiesOrder: readonly string[] = [
  'style:graphic-properties',
  'style:paragraph-properties',
  'style:text-properties',
]

function setProperties(document: OdfDocument, operation: Extract<Operation, { type: 'set-properties' }>): Applied {
  const part = partOf(document, operation.part)
  const style = part.element(operation.node)
  if (style.name !== 'style:style' && style.name !== 'style:default-style')
    throw new OperationError(`${style.name} is not a style`)
  const name = `style:${operation.properties}-properties`
  const existing = part.first(style, name)
  if (existing)
    return {
      document: put(document, setAttributes(part, existing.id, operation.set)),
      inverse: [tagInverse(part, existing)],
    }
  if (operation.id === undefined)
    throw new OperationError(`the style has no ${operation.properties} properties yet, and no id is given for them`)
  const set = Object.fromEntries(
    Object.entries(operation.set).filter((entry): entry is [string, string] => entry[1] !== null),
  )
  const at = propertiesOrder.indexOf(name)
  const before = [...part.elements(style)].find(
    child => child.name === 'style:map' || propertiesOrder.indexOf(child.name) > at,
  )
  const index = before ? style.children.indexOf(before.id) : style.children.length
  const next = insertNode(part, style.id, index, elementMarkup(part, style, name, set), [operation.id])
  return { document: put(document, next), inverse: [{ type: 'remove-node', part: part.path, node: operation.id }] }
}

function declareFace(document: OdfDocument, operation: Extract<Operation, { type: 'declare-face' }>): Applied {
  let part = partOf(document, operation.part)
  for (const name of Object.keys(operation.attributes))
    if (!(declarationAttributes as readonly string[]).includes(name))
      throw new OperationError(`${name} does not belong to a font declaration`)
  let made = operation.id
  let declarations = part.first(part.rootElement, 'office:font-face-decls')
  if (!declarations) {
    if (operation.holder === undefined)
      throw new OperationError('there are no font declarations yet, and no id is given for them')
    const root = part.rootElement
    const index = root.children.findIndex(id => {
      const child = part.node(id)
      return child.kind === 'element' && child.name !== 'office:scripts'
    })
    part = insertNode(part, root.id, Math.max(index, 0), elementMarkup(part, root, 'office:font-face-decls', {}), [
      operation.holder,
    ])
    declarations = part.element(operation.holder)
    made = operation.holder
  }
  part = insertNode(
    part,
    declarations.id,
    declarations.children.length,
    elementMarkup(part, declarations, 'style:font-face', operation.attributes),
    [operation.id],
  )
  return { document: put(document, part), inverse: [{ type: 'remove-node', part: operation.part, node: made }] }
}

function nameFont(document: OdfDocument, operation: Extract<Operation, { type: 'name-font' }>): Applied {
  const part = partOf(document, operation.part)
  const element = part.element(operation.node)
  for (const name of Object.keys(operation.set)) {
    const allowed =
      element.name === 'style:font-face'
        ? (declarationAttributes as readonly string[]).includes(name)
        : namingAttributes.has(name)
    if (!allowed) throw new OperationError(`${name} does not name a font`)
  }
  return {
    document: put(document, setAttributes(part, element.id, operation.set)),
    inverse: [tagInverse(part, element)],
  }
}

function dropPart(document: OdfDocument, path: string, keepEntry: boolean): Applied {
  if (document.parts.has(path) || !document.container.byPath.has(path) || document.dropped.has(path))
    throw new OperationError(`the part “${path}” cannot be taken out`)
  let next: OdfDocument = { ...document, dropped: new Set(document.dropped).add(path) }
  const inverse: Operation[] = [{ type: 'restore-part', path }]
  const manifest = document.parts.get(manifestPath)
  const entry =
    !keepEntry &&
    manifest &&
    [...manifest.elements(manifest.rootElement)].find(each => each.attributes['manifest:full-path'] === path)
  if (entry) {
    const removed = remove(next, manifestPath, entry.id)
    next = removed.document
    inverse.unshift(...removed.inverse)
  }
  return { document: next, inverse }
}

/** Applies one operation. Pure: the same in browser, server and command line. @throws OperationError, EditError */
export function apply(document: OdfDocument, operation: Operation): Applied {
  switch (operation.type) {
    case 'set-properties':
      return setProperties(document, operation)
    case 'name-font':
      return nameFont(document, operation)
    case 'declare-face':
      return declareFace(document, operation)
    case 'drop-part':
      return dropPart(document, operation.path, operation.keepEntry ?? false)
    case 'name-font-text':
    case 'restore-text': {
      const part = partOf(document, operation.part)
      const before = part.node(operation.node)
      if (before.kind !== 'text') throw new OperationError(`node ${operation.node} of ${operation.part} is not text`)
      const after =
        operation.type === 'restore-text'
          ? setText(part, before.id, operation.text, operation.markup)
          : setText(part, before.id, operation.text)
      return {
        document: put(document, after),
        inverse: [
          { type: 'restore-text', part: part.path, node: before.id, text: before.text, markup: textMarkup(before) },
        ],
      }
    }
    case 'drop-face':
    case 'drop-replacement': {
      const wanted = operation.type === 'drop-face' ? 'style:font-face' : 'draw:image'
      if (partOf(document, operation.part).element(operation.node).name !== wanted)
        throw new OperationError(`node ${operation.node} of ${operation.part} is not a ${wanted}`)
      return remove(document, operation.part, operation.node)
    }
    case 'remove-node':
      return remove(document, operation.part, operation.node)
    case 'unwrap-node': {
      const part = partOf(document, operation.part)
      const element = part.element(operation.node)
      if (element.parent < 0) throw new OperationError('the root element cannot be taken away')
      const index = part.element(element.parent).children.indexOf(element.id)
      const inverse: Operation[] = [
        {
          type: 'wrap-nodes',
          part: part.path,
          parent: element.parent,
          index,
          count: element.children.length,
          source: emptyMarkup(element),
          id: element.id,
        },
      ]
      // An element without content may be written as one tag: it comes back as it was.
      if (startTag(element).endsWith('/>'))
        inverse.push({ type: 'restore-tag', part: part.path, node: element.id, tag: startTag(element) })
      return { document: put(document, unwrapNode(part, element.id)), inverse }
    }
    case 'wrap-nodes': {
      const part = partOf(document, operation.part)
      return {
        document: put(
          document,
          wrapNodes(part, operation.parent, operation.index, operation.count, operation.source, operation.id),
        ),
        inverse: [{ type: 'unwrap-node', part: part.path, node: operation.id }],
      }
    }
    case 'restore-tag': {
      const part = partOf(document, operation.part)
      const element = part.element(operation.node)
      return {
        document: put(document, restoreTag(part, element.id, operation.tag)),
        inverse: [tagInverse(part, element)],
      }
    }
    case 'restore-node': {
      const before = partOf(document, operation.part)
      const part = insertNode(before, operation.parent, operation.index, operation.source, operation.ids)
      const parent = before.element(operation.parent)
      // An empty element may be written as one tag: the tag is put back with its emptiness.
      const closed: Operation[] =
        parent.children.length === 0 && startTag(parent).endsWith('/>') ? [tagInverse(before, parent)] : []
      return {
        document: put(document, part),
        inverse: [{ type: 'remove-node', part: operation.part, node: operation.ids[0]! }, ...closed],
      }
    }
    case 'write-rules': {
      const written = new Map(document.written)
      if (operation.text === null) written.delete(rulesPath)
      else written.set(rulesPath, operation.text)
      return {
        document: { ...document, written },
        inverse: [{ type: 'write-rules', text: document.written.get(rulesPath) ?? null }],
      }
    }
    case 'restore-part': {
      if (!document.dropped.has(operation.path))
        throw new OperationError(`the part “${operation.path}” was not taken out in this session`)
      const dropped = new Set(document.dropped)
      dropped.delete(operation.path)
      return {
        document: { ...document, dropped },
        inverse: [{ type: 'drop-part', path: operation.path, keepEntry: true }],
      }
    }
  }
}

/** Applies operations in order, all or none. The inverse undoes them in one go. */
export function applyAll(document: OdfDocument, operations: readonly Operation[]): Applied {
  let at = document
  const inverse: Operation[] = []
  for (const operation of operations) {
    const applied = apply(at, operation)
    at = applied.document
    inverse.unshift(...applied.inverse)
  }
  return { document: at, inverse }
}
