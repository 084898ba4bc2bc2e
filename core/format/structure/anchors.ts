import { paragraphText } from '../../style/runs'
import type { XmlPart } from '../../xml/tree'
import type { Paragraph } from '../../document/story-model'
import type { StructureNode } from './read'

const marks: ReadonlySet<string> = new Set([
  'text:bookmark',
  'text:bookmark-start',
  'text:reference-mark',
  'text:reference-mark-start',
])

/** Every paragraph of a structure, notes and cells included, in reading order. */
export function* paragraphsIn(
  nodes: readonly StructureNode[],
): Generator<Extract<StructureNode, { kind: 'paragraph' }>> {
  for (const node of nodes) {
    switch (node.kind) {
      case 'paragraph':
        yield node
        for (const note of node.notes.values()) yield* paragraphsIn(note)
        break
      case 'list':
        for (const { nodes: inside } of node.items) yield* paragraphsIn(inside)
        break
      case 'table':
        for (const { cells } of node.rows) for (const { nodes: inside } of cells) yield* paragraphsIn(inside)
        break
      case 'section':
        yield* paragraphsIn(node.nodes)
    }
  }
}

/**
 * Places that links within the document lead to: a bookmark's or mark's name, or “Heading|outline” (ODF 1.4 part 3,
 * 4.7 and its remark on fragment identifiers), to the paragraph that holds it.
 */
export class Anchors {
  private readonly named = new Map<string, Paragraph>()
  private readonly headings: { readonly text: string; readonly paragraph: Paragraph }[] = []

  constructor(nodes: readonly StructureNode[], partOf: (path: string) => XmlPart) {
    for (const { paragraph, level } of paragraphsIn(nodes)) {
      const part = partOf(paragraph.part)
      for (const element of part.descendants(part.element(paragraph.node))) {
        const name = marks.has(element.name) ? element.attributes['text:name'] : undefined
        if (name !== undefined && !this.named.has(name)) this.named.set(name, paragraph)
      }
      if (level !== null) this.headings.push({ text: plain(paragraphText(paragraph)), paragraph })
    }
  }

  /** The paragraph that a reference “#name” leads to; null for other references, and where there is none. */
  find(href: string): Paragraph | null {
    if (!href.startsWith('#')) return null
    const name = decoded(href.slice(1))
    const outline = /^(?:[\d.]+\s*)?(.*)\|outline$/.exec(name)
    if (outline) return this.headings.find(each => each.text === plain(outline[1]!))?.paragraph ?? null
    return this.named.get(name) ?? null
  }
}

const plain = (text: string) => text.replace(/[\s\uFFFC]+/g, ' ').trim()

function decoded(text: string): string {
  try {
    return decodeURIComponent(text)
  } catch {
    return text
  }
}
