import { DOMParser, type Document, type Element, type Node } from '@xmldom/xmldom'
import { unzipSync } from 'fflate'

/*
 * A second reading of OpenDocument packages that shares no code with core: another XML parser, another zip reader,
 * another way of counting. Tests and the corpus run compare the two.
 */

const decode = (bytes: Uint8Array) => new TextDecoder().decode(bytes)

/** All parts of a package, inflated. */
export function parts(bytes: Uint8Array): Record<string, Uint8Array> {
  return unzipSync(bytes)
}

export function dom(bytes: Uint8Array): Document {
  return new DOMParser({ onError: () => {} }).parseFromString(decode(bytes), 'text/xml')
}

const isElement = (node: Node): node is Element => node.nodeType === 1
const children = (node: Node): Node[] => {
  const list: Node[] = []
  for (let at = node.firstChild; at; at = at.nextSibling) list.push(at)
  return list
}

/** All elements below a node, or those of one name: the parser's own list is live and far slower. */
function elementsBelow(node: Node, name?: string): Element[] {
  const found: Element[] = []
  const visit = (at: Node): void => {
    if (isElement(at) && (name === undefined || at.tagName === name)) found.push(at)
    for (let child = at.firstChild; child; child = child.nextSibling) visit(child)
  }
  visit(node)
  return found
}

/** Parts that are read as XML. */
export function xmlParts(files: Record<string, Uint8Array>): string[] {
  return Object.keys(files).filter(
    path =>
      /(^|\/)(content|styles|settings)\.xml$/.test(path) &&
      !path.startsWith('Configurations') &&
      files[path]!.length > 0,
  )
}

const notText = new Set([
  'office:annotation',
  'text:note',
  'text:bookmark',
  'office:forms',
  'text:tracked-changes',
  'text:sequence-decls',
  'text:variable-decls',
  'text:user-field-decls',
  'text:script',
  'svg:title',
  'svg:desc',
  'draw:enhanced-geometry',
  'office:event-listeners',
  'table:shapes',
])
const isShape = (name: string) => name.startsWith('draw:') || name.startsWith('dr3d:')

/** The text of one paragraph with white space collapsed, and the paragraphs that hang on it. */
function paragraphText(paragraph: Element): { text: string; inner: Element[] } {
  // Collapsible and hard characters are told apart by private-use stand-ins, then collapsed in one go.
  let raw = ''
  const inner: Element[] = []
  const walk = (node: Node): void => {
    if (node.nodeType === 3 || node.nodeType === 4) {
      raw += (node.nodeValue ?? '').replace(/[ \t\r\n]/g, ' ')
      return
    }
    if (!isElement(node)) return
    const name = node.tagName
    if (name === 'text:s') raw += '\uE000'.repeat(Number(node.getAttribute('text:c') ?? '1') || 1)
    else if (name === 'text:tab') raw += '\uE001'
    else if (name === 'text:line-break') raw += '\uE002'
    else if (name === 'text:note') {
      for (const child of children(node)) {
        if (!isElement(child)) continue
        if (child.tagName === 'text:note-citation')
          raw += [...(child.textContent ?? '').trim()].map(() => '\uE003').join('')
        else inner.push(...paragraphsBelow(child))
      }
      // An empty citation still ends a run of spaces.
      raw += '\uE004'
    } else if (name === 'office:annotation' || isShape(name)) inner.push(...paragraphsBelow(node))
    else if (!notText.has(name)) children(node).forEach(walk)
  }
  children(paragraph).forEach(walk)
  return {
    text: raw
      .replace(/ +/g, ' ')
      .replace(/^ /, '')
      .replace(/ $/, '')
      .replace(/\uE004/g, ''),
    inner,
  }
}

function paragraphsBelow(node: Node): Element[] {
  const found: Element[] = []
  const visit = (at: Node): void => {
    if (!isElement(at)) return
    if (at.tagName === 'text:p' || at.tagName === 'text:h') {
      found.push(at)
      return
    }
    if ((notText.has(at.tagName) && at.tagName !== 'office:annotation') || /-source$/.test(at.tagName)) return
    if (at.tagName === 'draw:frame') {
      const shown = children(at).find(
        child =>
          isElement(child) &&
          ['draw:text-box', 'draw:image', 'draw:object', 'draw:object-ole', 'table:table'].includes(child.tagName),
      )
      if (shown) visit(shown)
      return
    }
    if (at.tagName === 'draw:object' || at.tagName === 'draw:object-ole') return
    children(at).forEach(visit)
  }
  if (isElement(node) && (node.tagName === 'draw:frame' || isShape(node.tagName))) visit(node)
  else children(node).forEach(visit)
  return found
}

function countParagraphs(paragraphs: readonly Element[]): number {
  let count = 0
  for (const paragraph of paragraphs) {
    const { text, inner } = paragraphText(paragraph)
    count += [...text].length + countParagraphs(inner)
  }
  return count
}

/** Characters of a package by the census's definition. */
export function countCharacters(bytes: Uint8Array): number {
  const files = parts(bytes)
  let count = 0
  const body = (path: string): Element | undefined => elementsBelow(dom(files[path]!), 'office:body')[0]
  const content = body('content.xml')
  if (content) {
    count += countParagraphs(paragraphsBelow(content))
    for (const tracked of elementsBelow(content, 'text:tracked-changes'))
      count += countParagraphs(children(tracked).flatMap(paragraphsBelow))
  }
  if (files['styles.xml'] && files['styles.xml'].length > 0) {
    for (const master of ['style:master-page', 'style:handout-master'].flatMap(name =>
      elementsBelow(dom(files['styles.xml']!), name),
    ))
      count += countParagraphs(paragraphsBelow(master))
  }
  for (const path of Object.keys(files)) {
    if (!/^[^/]+\/content\.xml$/.test(path) || files[path]!.length === 0) continue
    const object = dom(files[path]!)
    for (const chart of elementsBelow(object, 'chart:chart')) count += countParagraphs(paragraphsBelow(chart))
  }
  return count
}

const familyList = (value: string) =>
  value
    .split(/[,;]/)
    .map(each =>
      each
        .trim()
        .replace(/^['"]|['"]$/g, '')
        .split(':')[0]!
        .trim()
        .toLowerCase(),
    )
    .filter(Boolean)
const namePattern = /^style:font-name(-asian|-complex)?$/
const loosePattern = /^(fo:font-family|style:font-family-(asian|complex)|svg:font-family|(math:)?fontfamily)$/

/** Every family that an XML part names, in lower case. */
export function familiesIn(bytes: Uint8Array): Set<string> {
  const families = new Set<string>()
  const document = dom(bytes)
  const declared = new Map<string, string>()
  for (const face of elementsBelow(document, 'style:font-face'))
    declared.set(
      face.getAttribute('style:name') ?? '',
      face.getAttribute('svg:font-family') ?? face.getAttribute('style:name') ?? '',
    )
  // A declaration without a family goes by its name.
  for (const face of elementsBelow(document, 'style:font-face'))
    if (!face.hasAttribute('svg:font-family')) families.add((face.getAttribute('style:name') ?? '').toLowerCase())
  for (const element of elementsBelow(document)) {
    for (const attribute of Array.from(element.attributes)) {
      if (loosePattern.test(attribute.name)) familyList(attribute.value).forEach(family => families.add(family))
      else if (namePattern.test(attribute.name)) {
        const value = declared.get(attribute.value)
        familyList(value ?? attribute.value).forEach(family => families.add(family))
      }
    }
    if (element.tagName === 'config:config-item' && /^FontName/.test(element.getAttribute('config:name') ?? ''))
      familyList(element.textContent ?? '').forEach(family => families.add(family))
  }
  return families
}

/** Attributes that a swap may change: the published list of docs/changing.md. */
export const swapAttributes = new RegExp(
  `^(${[
    'style:font-(name|style-name|family-generic|pitch|charset)(-asian|-complex)?',
    'fo:font-family|style:font-family-(asian|complex)|svg:font-family|(math:)?fontfamily',
    'fo:font-weight|fo:font-style|style:font-(weight|style)-(asian|complex)',
  ].join('|')})$`,
)

/** What differs between two XML parts beside what a swap may change; empty where nothing does. */
export function otherDifferences(before: Uint8Array, after: Uint8Array): string[] {
  const differences: string[] = []
  const flat = (bytes: Uint8Array): Node[] => {
    const list: Node[] = []
    const visit = (node: Node): void => {
      if (isElement(node) && (node.tagName === 'style:font-face' || node.tagName === 'office:font-face-decls')) return
      if (
        isElement(node) &&
        node.tagName === 'draw:image' &&
        /^(\.\/)?ObjectReplacements\//.test(node.getAttribute('xlink:href') ?? '')
      )
        return
      list.push(node)
      children(node).forEach(visit)
    }
    children(dom(bytes)).forEach(visit)
    return list
  }
  const one = flat(before)
  const other = flat(after)
  if (one.length !== other.length) return [`${one.length} nodes became ${other.length}`]
  one.forEach((node, index) => {
    const changed = other[index]!
    if (node.nodeType !== changed.nodeType) {
      differences.push(`node ${index} changed its kind`)
      return
    }
    if (!isElement(node) || !isElement(changed)) {
      const setting =
        node.parentNode &&
        isElement(node.parentNode) &&
        /^FontName/.test(node.parentNode.getAttribute('config:name') ?? '')
      if (node.nodeValue !== changed.nodeValue && !setting)
        differences.push(`text “${node.nodeValue}” became “${changed.nodeValue}”`)
      return
    }
    if (node.tagName !== changed.tagName) {
      differences.push(`${node.tagName} became ${changed.tagName}`)
      return
    }
    const names = new Set(
      [...Array.from(node.attributes), ...Array.from(changed.attributes)].map(attribute => attribute.name),
    )
    for (const name of names)
      if (node.getAttribute(name) !== changed.getAttribute(name) && !swapAttributes.test(name))
        differences.push(`${node.tagName} ${name}: “${node.getAttribute(name)}” became “${changed.getAttribute(name)}”`)
  })
  return differences
}
