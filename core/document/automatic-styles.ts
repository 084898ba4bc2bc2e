import { elementMarkup } from '../xml/edit'
import type { XmlElement } from '../xml/tree'
import { writeElement } from '../xml/write'
import type { Draft } from './draft'
import { referencesIn } from './style-references'
import type { Properties } from './styles'

/** Attributes to set, or with null to take away. */
export type Values = Readonly<Record<string, string | null>>

/** What shall differ from an automatic style: values by kind of properties, and its parent. */
export interface StyleDifference {
  readonly text?: Values
  readonly paragraph?: Values
  readonly parent?: string | null
}

/** A style as plain data: what it is without its name. */
interface Described {
  attributes: Record<string, string>
  properties: { name: string; attributes: Record<string, string>; inside: string; nodes: number }[]
}

const prefixes: Readonly<Record<string, string>> = {
  paragraph: 'P',
  text: 'T',
  graphic: 'gr',
  presentation: 'pr',
  'table-cell': 'ce',
  chart: 'ch',
}
const keyOf = ({ attributes, properties }: Described): string =>
  JSON.stringify([
    Object.entries(attributes).sort(),
    properties.map(each => [each.name, Object.entries(each.attributes).sort(), each.inside]),
  ])
const schemaOrder = ['style:graphic-properties', 'style:paragraph-properties', 'style:text-properties']

function countNodes(draft: Draft, element: XmlElement): number {
  let count = 0
  for (const id of element.children) {
    const node = draft.part.node(id)
    count += 1 + (node.kind === 'element' ? countNodes(draft, node) : 0)
  }
  return count
}

/**
 * The automatic styles of one part: made when they are needed, shared where they say the same, gone when nothing
 * names them.
 */
export class AutomaticStyles {
  private known: Map<string, string> | null = null
  private readonly let = new Set<string>()
  /** Where styles were found last, by family and name. */
  private readonly places = new Map<string, number>()
  /** Numbers from which names are looked for, by what they begin with; null until a name is needed. */
  private free: { readonly taken: Set<string | undefined>; readonly next: Map<string, number> } | null = null

  constructor(readonly draft: Draft) {}

  private holder(): XmlElement {
    const { part } = this.draft
    const found = part.first(part.rootElement, 'office:automatic-styles')
    if (found) return found
    // The schema's order: before master styles and body, behind everything else.
    const before = [...part.elements(part.rootElement)].find(
      each => each.name === 'office:master-styles' || each.name === 'office:body',
    )
    const { rootElement } = part
    const id = this.draft.insert(
      rootElement.id,
      before ? rootElement.children.indexOf(before.id) : rootElement.children.length,
      elementMarkup(part, rootElement, 'office:automatic-styles', {}),
      1,
    )
    return this.draft.part.element(id)
  }

  /** The element of an automatic style; undefined where the name is none of this part. */
  find(family: string, name: string): XmlElement | undefined {
    const { part } = this.draft
    const is = ({ attributes }: XmlElement) =>
      attributes['style:name'] === name && attributes['style:family'] === family
    const place = this.places.get(`${family}\n${name}`)
    const there = place === undefined ? undefined : part.find(place)
    if (there?.kind === 'element' && is(there)) return there
    // Others may have made styles here, too: all that are there by now are looked at once.
    this.places.clear()
    const holder = part.first(part.rootElement, 'office:automatic-styles')
    for (const element of holder ? part.elements(holder, 'style:style') : []) {
      const key = `${element.attributes['style:family']}\n${element.attributes['style:name']}`
      if (!this.places.has(key)) this.places.set(key, element.id)
    }
    const found = this.places.get(`${family}\n${name}`)
    return found === undefined ? undefined : part.element(found)
  }

  /** What an automatic style says; null where the name is none of this part. */
  valuesOf(family: string, name: string): { readonly text: Properties; readonly paragraph: Properties } | null {
    const element = this.find(family, name)
    if (!element) return null
    const valuesOf = (kind: string) => this.draft.part.first(element, `style:${kind}-properties`)?.attributes ?? {}
    return { text: valuesOf('text'), paragraph: valuesOf('paragraph') }
  }

  private describe(element: XmlElement): Described {
    const { part } = this.draft
    const { 'style:name': _, ...attributes } = element.attributes
    return {
      attributes,
      properties: [...part.elements(element)].map(child => ({
        name: child.name,
        attributes: { ...child.attributes },
        inside: child.children.map(id => writeElement(part, id)).join(''),
        nodes: countNodes(this.draft, child),
      })),
    }
  }

  private get names(): Map<string, string> {
    if (this.known) return this.known
    const { part } = this.draft
    this.known = new Map()
    for (const element of part.elements(this.holder(), 'style:style')) {
      const key = keyOf(this.describe(element))
      if (!this.known.has(key)) this.known.set(key, element.attributes['style:name'] ?? '')
    }
    return this.known
  }

  /**
   * The name of a style that is like another (automatic or named) but for a difference. What comes to nothing is the
   * parent's name, or null where there is none.
   */
  derive(family: string, base: string | null, difference: StyleDifference): string | null {
    const element = base === null ? undefined : this.find(family, base)
    const described = element
      ? this.describe(element)
      : {
          attributes: {
            'style:family': family,
            ...(base === null ? {} : { 'style:parent-style-name': base }),
          } as Record<string, string>,
          properties: [] as Described['properties'],
        }
    if (element && base !== null) this.let.add(`${family}\n${base}`)
    change(described, difference)
    const parent = described.attributes['style:parent-style-name'] ?? null
    if (isHollow(described)) return parent
    const key = keyOf(described)
    const known = this.names.get(key)
    if (known !== undefined) return known
    const name = this.freeName(prefixes[family] ?? 'A')
    const { part } = this.draft
    const holder = this.holder()
    const properties = [...described.properties].sort((a, b) => order(a.name) - order(b.name))
    const markup = elementMarkup(
      part,
      holder,
      'style:style',
      { 'style:name': name, ...described.attributes },
      properties.map(each => elementMarkup(part, holder, each.name, each.attributes, each.inside)).join(''),
    )
    this.draft.insert(
      holder.id,
      holder.children.length,
      markup,
      1 + properties.reduce((sum, each) => sum + 1 + each.nodes, 0),
    )
    this.names.set(key, name)
    return name
  }

  private freeName(prefix: string): string {
    const { part } = this.draft
    this.free ??= {
      taken: new Set([...part.elements(this.holder())].map(each => each.attributes['style:name'])),
      next: new Map(),
    }
    const { taken, next } = this.free
    let number = next.get(prefix) ?? 1
    while (taken.has(`${prefix}${number}`)) number++
    next.set(prefix, number + 1)
    taken.add(`${prefix}${number}`)
    return `${prefix}${number}`
  }

  /**
   * Takes values out of a style where it stands: for all that it speaks for. Whether nothing is left of it but its
   * parent.
   */
  strip(family: string, name: string, difference: StyleDifference): boolean {
    const element = this.find(family, name)
    if (!element) return false
    this.known = null
    for (const [kind, values] of [
      ['text', difference.text],
      ['paragraph', difference.paragraph],
    ] as const) {
      const properties =
        values && this.draft.part.first(this.draft.part.element(element.id), `style:${kind}-properties`)
      if (!properties) continue
      this.draft.setAttributes(properties.id, values)
      const left = this.draft.part.element(properties.id)
      if (Object.keys(left.attributes).length === 0 && ![...this.draft.part.elements(left)].length)
        this.draft.remove(left.id)
    }
    this.let.add(`${family}\n${name}`)
    return isHollow(this.describe(this.draft.part.element(element.id)))
  }

  /** A style that may have lost its last user: `sweep` looks. */
  release(family: string, name: string): void {
    this.let.add(`${family}\n${name}`)
  }

  /** Drops the styles that were departed from here and that nothing names any more. */
  sweep(): void {
    if (this.let.size === 0) return
    const used = new Set<string>()
    for (const reference of referencesIn(this.draft.part))
      for (const name of reference.names) used.add(`${reference.family}\n${name}`)
    let holder: number | null = null
    for (const key of this.let) {
      const [family, name] = key.split('\n') as [string, string]
      const element = used.has(key) ? undefined : this.find(family, name)
      if (!element) continue
      holder = element.parent
      this.draft.remove(element.id)
    }
    if (holder !== null) this.draft.mergeTexts(holder)
    this.let.clear()
    this.known = null
    this.free = null
  }
}

const order = (name: string) => {
  const at = schemaOrder.indexOf(name)
  return at < 0 ? schemaOrder.length : at
}

function change(described: Described, { text, paragraph, parent }: StyleDifference): void {
  for (const [kind, values] of [
    ['style:text-properties', text],
    ['style:paragraph-properties', paragraph],
  ] as const) {
    if (!values) continue
    let properties = described.properties.find(each => each.name === kind)
    if (!properties) described.properties.push((properties = { name: kind, attributes: {}, inside: '', nodes: 0 }))
    for (const [name, value] of Object.entries(values)) {
      if (value === null) delete properties.attributes[name]
      else properties.attributes[name] = value
    }
  }
  described.properties = described.properties.filter(
    each => Object.keys(each.attributes).length > 0 || each.inside.trim() !== '',
  )
  if (parent === null) delete described.attributes['style:parent-style-name']
  else if (parent !== undefined) described.attributes['style:parent-style-name'] = parent
}

/** Nothing is said but family and parent. */
function isHollow({ attributes, properties }: Described): boolean {
  return (
    properties.every(each => Object.keys(each.attributes).length === 0 && each.inside.trim() === '') &&
    Object.keys(attributes).every(
      name =>
        name === 'style:family' ||
        name === 'style:parent-style-name' ||
        name === 'style:class' ||
        name === 'style:display-name',
    )
  )
}
