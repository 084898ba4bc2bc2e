import { elementMarkup, escapeText } from './edit'
import { namespaceFor } from './names'
import { parseXml } from './parse'
import type { XmlElement, XmlPart } from './tree'

const escapeValue = (value: string) => escapeText(value).replace(/"/g, '&quot;')
const known = (name: string) => /^[a-z0-9]+:[\w.-]+$/.test(name)

/**
 * An element with all below it, written with the prefixes core speaks with, so that it can be read away from its part.
 * Foreign elements and attributes, comments and the ids of nodes stay behind.
 */
export function canonicalMarkup(part: XmlPart, element: XmlElement): string {
  const prefixes = new Set<string>()
  const write = (of: XmlElement): string => {
    const names = [
      of.name,
      ...Object.keys(of.attributes).filter(name => known(name) && name !== 'xml:id' && name !== 'text:id'),
    ]
    for (const name of names) prefixes.add(name.split(':')[0]!)
    const attributes = names
      .slice(1)
      .map(name => ` ${name}="${escapeValue(of.attributes[name]!)}"`)
      .join('')
    const inside = of.children
      .map(id => {
        const node = part.node(id)
        return node.kind === 'text'
          ? escapeText(node.text)
          : node.kind === 'element' && known(node.name)
            ? write(node)
            : ''
      })
      .join('')
    return inside === '' ? `<${of.name}${attributes}/>` : `<${of.name}${attributes}>${inside}</${of.name}>`
  }
  const markup = write(element)
  const declared = [...prefixes]
    .filter(prefix => prefix !== 'xml')
    .map(prefix => ` xmlns:${prefix}="${namespaceFor(prefix)}"`)
    .join('')
  return markup.replace(/^<[^\s/>]+/, open => `${open}${declared}`)
}

/** What came of markup for another part: written with that part's prefixes, and how many nodes it has. */
export interface Adopted {
  readonly markup: string
  readonly count: number
}

/**
 * Canonical markup, written as a child of an element of another part. `attribute` may change or drop (null) attributes.
 * @throws PackageError where it is no XML
 */
export function adoptedMarkup(
  into: XmlPart,
  parent: XmlElement,
  source: string,
  attribute: (element: XmlElement, name: string, value: string) => string | null = (_, __, value) => value,
): Adopted {
  const read = parseXml('piece.xml', source)
  let count = 0
  const write = (of: XmlElement): string => {
    count++
    const attributes: Record<string, string> = {}
    for (const [name, value] of Object.entries(of.attributes)) {
      const next = attribute(of, name, value)
      if (next !== null) attributes[name] = next
    }
    const inside = of.children
      .map(id => {
        const node = read.node(id)
        if (node.kind === 'text') {
          if (node.text === '') return ''
          count++
          return escapeText(node.text)
        }
        return node.kind === 'element' ? write(node) : ''
      })
      .join('')
    return elementMarkup(into, parent, of.name, attributes, inside)
  }
  return { markup: write(read.rootElement), count }
}
