import { paragraphsOf } from '../../document/stories'
import type { Block, Cell, Frame, Inline, ListItem, Paragraph, Span, Story, Table } from '../../document/story-model'
import type { Reading } from '../../style/reading'
import type { XmlPart } from '../../xml/tree'

/** A paragraph or heading, with what is anchored in its lines. */
export interface ParagraphNode {
  readonly kind: 'paragraph'
  readonly paragraph: Paragraph
  readonly role: Story['role']
  /** Outline level, 1 and up; the title of a drawn page is a heading of level 1. Null for all else. */
  readonly level: number | null
  /** Pictures and the like that stand in the line as characters. */
  readonly figures: ReadonlyMap<Frame, FigureNode>
  readonly notes: ReadonlyMap<Note, readonly StructureNode[]>
}

/** What is looked at rather than read. */
export interface FigureNode {
  readonly kind: 'figure'
  readonly frame: Frame
  readonly stands: 'picture' | 'object' | 'drawing'
  /** What the file says that it shows (svg:desc, else svg:title; OpenDocument 1.4 part 3, 10.3.17); '' where it says nothing. */
  readonly alternative: string
}

export interface ListNode {
  readonly kind: 'list'
  readonly list: ListItem
  readonly items: readonly ListItemNode[]
}

export interface ListItemNode {
  readonly item: number
  readonly nodes: readonly StructureNode[]
}

export interface TableNode {
  readonly kind: 'table'
  readonly table: Table
  readonly rows: readonly {
    readonly heading: boolean
    readonly cells: readonly { readonly cell: Cell; readonly nodes: readonly StructureNode[] }[]
  }[]
}

/** What belongs together: a section of a text, a page of a presentation or drawing, the notes to it. */
export interface SectionNode {
  readonly kind: 'section'
  readonly title: string
  /** The story of a drawn page or of its notes; null for sections of a text. */
  readonly story: Story | null
  readonly nodes: readonly StructureNode[]
}

export type StructureNode = ParagraphNode | FigureNode | ListNode | TableNode | SectionNode

export type Note = Extract<Inline, { kind: 'note' }>

/**
 * A document as it is read: its own text in reading order, with headings, lists, tables, figures and notes, whatever is
 * to be written of it. Headers, footers and masters are no part of it, nor are shapes that say nothing.
 * @param notes with the speaker notes of a presentation, each behind all pages
 */
export function readStructure(reading: Reading, notes = false): readonly StructureNode[] {
  const reader = new StructureReader(part => reading.cascade.scope(part).part)
  if (reading.document.kind === 'text')
    return reading.stories.filter(story => story.role === 'body').flatMap(story => reader.nodes(story.blocks, 'body'))
  const sections = (role: Story['role']) =>
    reading.stories
      .filter(story => story.role === role)
      .map((story): SectionNode => ({
        kind: 'section',
        title: story.title,
        story,
        nodes: reader.nodes(story.blocks, role),
      }))
  return [...sections('page'), ...(notes ? sections('notes') : [])]
}

/** Where a link around text leads: the nearest text:a's xlink:href; null for text in no link. */
export function linkOf(span: Span | null, part: XmlPart): { readonly node: number; readonly href: string } | null {
  for (let at = span; at; at = at.parent) {
    const { name, attributes } = part.element(at.node)
    const href = attributes['xlink:href']
    if (name === 'text:a' && href) return { node: at.node, href }
  }
  return null
}

/** What a frame's file says that it shows; '' where it says nothing. */
export function alternativeOf(frame: Frame, part: XmlPart): string {
  const element = part.element(frame.node)
  for (const name of ['svg:desc', 'svg:title']) {
    const told = part.first(element, name)
    const text = told ? part.textOf(told.id).replace(/\s+/g, ' ').trim() : ''
    if (text !== '') return text
  }
  return ''
}

class StructureReader {
  constructor(private readonly partOf: (path: string) => XmlPart) {}

  nodes(blocks: readonly Block[], role: Story['role'], title = false): StructureNode[] {
    const into: StructureNode[] = []
    const open = new OpenLists(into)
    for (const block of blocks) {
      if (block.kind === 'paragraph') {
        const nodes = this.paragraph(block, role, title)
        // Where headings are numbered by a list, they are headings all the same.
        if (block.list && block.heading === null) open.add(block.list, nodes)
        else {
          open.close()
          into.push(...nodes)
        }
        continue
      }
      open.close()
      if (block.kind === 'table') into.push(this.table(block, role))
      else if (block.kind === 'frame') into.push(...this.frame(block, role))
      else {
        const nodes = this.nodes(block.blocks, role)
        if (nodes.length > 0) into.push({ kind: 'section', title: '', story: null, nodes })
      }
    }
    return into
  }

  /** A paragraph, and behind it what is anchored at it. */
  private paragraph(paragraph: Paragraph, role: Story['role'], title: boolean): StructureNode[] {
    const figures = new Map<Frame, FigureNode>()
    const notes = new Map<Note, readonly StructureNode[]>()
    const after: StructureNode[] = []
    for (const inline of paragraph.inlines) {
      if (inline.kind === 'note') notes.set(inline, this.nodes(inline.blocks, role))
      if (inline.kind !== 'frame') continue
      const nodes = this.frame(inline.frame, role)
      const only = nodes[0]
      if (inline.frame.anchor === 'as-char' && nodes.length === 1 && only?.kind === 'figure')
        figures.set(inline.frame, only)
      else after.push(...nodes)
    }
    const level = title ? 1 : paragraph.heading
    return [{ kind: 'paragraph', paragraph, role, level, figures, notes }, ...after]
  }

  private frame(frame: Frame, role: Story['role']): StructureNode[] {
    if (frame.content === 'image') return [this.figure(frame, 'picture')]
    if (frame.content === 'object') return [this.figure(frame, 'object')]
    const words = paragraphsOf(frame.blocks).some(paragraph =>
      paragraph.inlines.some(inline => inline.kind === 'text' && inline.text.trim() !== ''),
    )
    if (words || frame.blocks.some(block => block.kind === 'frame' && block.content === 'image'))
      return this.nodes(frame.blocks, role, frame.placeholder === 'title')
    const figure = this.figure(frame, 'drawing')
    return figure.alternative === '' ? this.nodes(frame.blocks, role) : [figure]
  }

  private figure(frame: Frame, stands: FigureNode['stands']): FigureNode {
    return { kind: 'figure', frame, stands, alternative: alternativeOf(frame, this.partOf(frame.part)) }
  }

  private table(table: Table, role: Story['role']): TableNode {
    return {
      kind: 'table',
      table,
      rows: table.rows.map(({ heading, cells }) => ({
        heading,
        cells: cells.flatMap(cell => (cell.covered ? [] : [{ cell, nodes: this.nodes(cell.blocks, role) }])),
      })),
    }
  }
}

interface OpenLevel {
  readonly list: ListNode & { readonly items: ListItemNode[] }
  item: (ListItemNode & { readonly nodes: StructureNode[] }) | null
}

/** Lists as they nest: paragraphs tell their outermost list, their level and their item. */
class OpenLists {
  private readonly levels: OpenLevel[] = []
  private outermost = -1

  constructor(private readonly into: StructureNode[]) {}

  close(): void {
    this.levels.length = 0
    this.outermost = -1
  }

  add(at: ListItem, nodes: readonly StructureNode[]): void {
    if (at.list !== this.outermost) this.close()
    this.outermost = at.list
    this.levels.length = Math.min(this.levels.length, at.level)
    while (this.levels.length < at.level) this.deeper(at)
    const level = this.levels[at.level - 1]!
    if (level.item?.item !== at.item) {
      level.item = { item: at.item, nodes: [] }
      level.list.items.push(level.item)
    }
    level.item.nodes.push(...nodes)
  }

  private deeper(at: ListItem): void {
    const list = { kind: 'list' as const, list: at, items: [] as ListItemNode[] }
    const above = this.levels.at(-1)
    if (!above) this.into.push(list)
    else {
      if (!above.item) {
        above.item = { item: -1, nodes: [] }
        above.list.items.push(above.item)
      }
      above.item.nodes.push(list)
    }
    this.levels.push({ list, item: null })
  }
}
