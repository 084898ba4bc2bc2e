import { PDFName, type PDFContext, type PDFPage, type PDFRef } from '@cantoo/pdf-lib'
import type { Inline } from '../../document/story-model'
import { paragraphText } from '../../style/runs'
import type { Composition } from '../../typeset/compose'
import type { DisplayPage } from '../../typeset/display'
import type { GlyphRun } from '../../typeset/glyph-runs'
import { boundsOf } from '../../typeset/matrix'
import { linkOf, type FigureNode, type ListNode, type StructureNode, type TableNode } from '../structure/read'
import { StructureWriter, TagElement } from './tag-tree'

/** What a piece of a page belongs to: an element, or nothing that is read. */
export type Tag = TagElement | 'pagination' | 'layout'

/** A stretch of a link's words on a page, in the page's own points, y up. */
interface LinkPlace {
  readonly element: TagElement
  readonly href: string
  readonly page: PDFPage
  readonly box: [number, number, number, number]
  text: string
}

interface TaggedParagraph {
  readonly element: TagElement
  /** The label of a list item or a heading, where it has one. */
  label: TagElement | null
  readonly inlines: readonly Inline[]
  /** Where each of them begins in the paragraph's text. */
  readonly starts: readonly number[]
  /** Of its first words: what departs from it is told. */
  language: string | null
  readonly leaves: Map<string, TagElement>
  /** What the run before belonged to, and where it ended. */
  last: { readonly element: TagElement; readonly end: number } | null
  /** On which page each stretch of text was first drawn: heads of tables are drawn again. */
  readonly drawn: Map<string, PDFPage>
}

type Shape = DisplayPage['shapes'][number]
const keyOf = (part: string, node: number) => `${part}#${node}`

/** The structure of a document as it is put on what is drawn. */
export class Tagging {
  readonly root = new TagElement('Document', null)
  private readonly paragraphs = new Map<string, TaggedParagraph>()
  private readonly figures = new Map<string, TagElement>()
  /** Figures that show objects, by the folder of their parts. */
  private readonly objects: { readonly prefix: string; readonly element: TagElement }[] = []
  private readonly figurePages = new Map<TagElement, PDFPage>()
  private readonly apart: ReadonlySet<string>
  private readonly numbers = new Map<PDFPage, TagElement[]>()
  private readonly places: LinkPlace[] = []
  /** How many figures the file says nothing about. */
  undescribed = 0
  /** A heading stands more than one level below the one before it, or the first is not of level 1. */
  skipsLevels = false
  private lastLevel = 0
  private notes = 0

  constructor(
    structure: readonly StructureNode[],
    private readonly composition: Composition,
    private readonly language: string,
  ) {
    const { stories } = composition.reading
    this.apart = new Set(stories.filter(story => story.role !== 'body' && story.master !== null).map(each => each.part))
    this.add(structure, this.root)
  }

  private add(nodes: readonly StructureNode[], into: TagElement): void {
    for (const node of nodes) {
      switch (node.kind) {
        case 'paragraph':
          this.paragraph(node, into, null)
          break
        case 'figure':
          this.figure(node, new TagElement('Figure', into))
          break
        case 'list':
          this.list(node, into)
          break
        case 'table':
          this.table(node, into)
          break
        case 'section': {
          const element = new TagElement('Sect', into)
          element.title = node.title
          this.add(node.nodes, element)
        }
      }
    }
  }

  private paragraph(
    { paragraph, level, figures, notes }: Extract<StructureNode, { kind: 'paragraph' }>,
    into: TagElement,
    label: TagElement | null,
  ): void {
    if (level !== null && paragraphText(paragraph).trim() !== '') {
      if (level > this.lastLevel + 1) this.skipsLevels = true
      this.lastLevel = level
    }
    const element = new TagElement(level === null ? 'P' : `H${Math.min(level, 6)}`, into)
    const starts: number[] = []
    let at = 0
    for (const inline of paragraph.inlines) {
      starts.push(at)
      if (inline.kind === 'frame') {
        const figure = figures.get(inline.frame)
        if (figure) {
          this.figure(figure, new TagElement('Figure', element, at))
          element.stops.push(at)
        }
      } else if (inline.kind === 'note') {
        const note = new TagElement('Note', element, at + 0.5)
        note.identifier = `note ${String(++this.notes).padStart(6, '0')}`
        const nodes = notes.get(inline) ?? []
        const first = nodes[0]
        if (first?.kind === 'paragraph') this.paragraph(first, note, new TagElement('Lbl', note))
        this.add(first?.kind === 'paragraph' ? nodes.slice(1) : nodes, note)
      }
      if (inline.kind === 'frame' || inline.kind === 'note') at++
      else if (inline.kind !== 'annotation') at += inline.text.length
    }
    this.know(keyOf(paragraph.part, paragraph.node), {
      element,
      label,
      inlines: paragraph.inlines,
      starts,
    })
  }

  private know(key: string, of: Omit<TaggedParagraph, 'leaves' | 'drawn' | 'language' | 'last'>): void {
    this.paragraphs.set(key, { ...of, language: null, leaves: new Map(), last: null, drawn: new Map() })
  }

  private figure(node: FigureNode, element: TagElement): void {
    const { frame, alternative } = node
    element.alternative = alternative
    if (alternative === '') {
      this.undescribed++
      element.alternative = node.stands === 'picture' ? 'Picture' : node.stands === 'object' ? 'Object' : 'Drawing'
    }
    const within = (each: typeof frame): void => {
      this.figures.set(keyOf(each.part, each.node), element)
      if (each.content === 'object' && each.href)
        this.objects.push({ prefix: `${each.href.replace(/^\.\//, '').replace(/\/$/, '')}/`, element })
      for (const block of each.blocks) if (block.kind === 'frame') within(block)
    }
    within(frame)
  }

  private list(node: ListNode, into: TagElement): void {
    const list = new TagElement('L', into)
    for (const item of node.items) {
      const element = new TagElement('LI', list)
      const first = item.nodes[0]
      const labelled = first?.kind === 'paragraph' && first.paragraph.list?.labelled === true
      const label = labelled ? new TagElement('Lbl', element) : null
      const body = new TagElement('LBody', element)
      if (first?.kind === 'paragraph') this.paragraph(first, body, label)
      this.add(first?.kind === 'paragraph' ? item.nodes.slice(1) : item.nodes, body)
    }
  }

  private table(node: TableNode, into: TagElement): void {
    const table = new TagElement('Table', into)
    const heads = node.rows.some(row => row.heading)
    let group = table
    for (const row of node.rows) {
      const type = row.heading ? 'THead' : 'TBody'
      if (heads && group.type !== type) group = new TagElement(type, table)
      const element = new TagElement('TR', group)
      for (const { cell, nodes } of row.cells) {
        const inner = new TagElement(row.heading ? 'TH' : 'TD', element)
        inner.attributes = {
          O: 'Table',
          ...(row.heading ? { Scope: 'Column' } : {}),
          ...(cell.columnSpan > 1 ? { ColSpan: cell.columnSpan } : {}),
          ...(cell.rowSpan > 1 ? { RowSpan: cell.rowSpan } : {}),
        }
        this.add(nodes, inner)
      }
    }
  }

  /** What a run belongs to. */
  ofRun(run: GlyphRun, page: PDFPage): Tag {
    if (run.stands === 'leader') return 'layout'
    const known = this.paragraphs.get(keyOf(run.part, run.node))
    if (!known) {
      const object = this.objects.find(each => run.part.startsWith(each.prefix))
      if (object) return this.figureOn(object.element, page)
      if (this.apart.has(run.part) || !run.own || run.text.trim() === '') return 'pagination'
      // Nothing that is read goes without a place: what the structure does not know of comes last.
      const element = new TagElement('P', this.root)
      this.know(keyOf(run.part, run.node), { element, label: null, inlines: [], starts: [] })
      return element
    }
    const stretch = `${run.stands ?? ''}${run.start}`
    const before = known.drawn.get(stretch)
    if (before && before !== page) return 'pagination'
    known.drawn.set(stretch, page)
    if (run.stands === 'label') {
      const list = known.label?.parent?.parent
      if (list?.type === 'L') list.attributes ??= { O: 'List', ListNumbering: numberingOf(run.text) }
      // The number of a heading is no part of its words.
      return (known.label ??= new TagElement('Lbl', known.element, -1))
    }
    const element = this.leafOf(known, run)
    known.last = { element, end: run.end }
    return element
  }

  /** The piece of a paragraph that a run is: its own words, a link, a reference to a note, words of another language. */
  private leafOf(known: TaggedParagraph, run: GlyphRun): TagElement {
    const { element, leaves } = known
    const inline = inlineAt(known, run)
    const leaf = (key: string, type: string): TagElement => {
      let found = leaves.get(key)
      if (!found) leaves.set(key, (found = new TagElement(type, element, run.start)))
      return found
    }
    if (inline?.kind === 'note') return leaf(`note ${inline.node}`, 'Reference')
    const link = this.linkAt(inline, run)
    if (link) return leaf(`link ${link.node}`, 'Link')
    const { language } = this.composition.cascadeOf(run.part).styleOf(run.style)?.effective.slots[run.slot] ?? {}
    if (!inline || inline.kind === 'frame' || !language) return element
    if (known.language === null) {
      known.language = language
      if (language !== this.language) element.language = language
    }
    if (language === known.language) return element
    // Words of another language go on from run to run, and end where other words stand between: those keep their place.
    const { last } = known
    if (last?.element.type === 'Span' && last.element.language === language && run.start >= last.end)
      return last.element
    const span = new TagElement('Span', element, run.start)
    span.language = language
    return span
  }

  private linkAt(inline: Inline | null, run: GlyphRun): ReturnType<typeof linkOf> {
    return inline && 'span' in inline
      ? linkOf(inline.span, this.composition.cascadeOf(run.part).scope(run.part).part)
      : null
  }

  private figureOn(element: TagElement, page: PDFPage): Tag {
    const before = this.figurePages.get(element)
    if (before && before !== page) return 'pagination'
    this.figurePages.set(element, page)
    return element
  }

  /** What a shape belongs to: the figure that it is drawn for, or nothing. */
  ofShape(shape: Shape, page: PDFPage): Tag {
    const source = shape.kind === 'overset' ? undefined : shape.source
    const figure = source && this.figures.get(keyOf(source.part, source.node))
    return figure ? this.figureOn(figure, page) : 'layout'
  }

  /**
   * Begins a stretch of content: the operators that say what it is; it ends with as many EMC.
   * @param at where its text begins in its paragraph
   * @param actual the text that it stands for, as PDF writes it, where its glyphs do not tell (ISO 32000-2, 14.9.4)
   */
  open(tag: Tag, page: PDFPage, at = 0, actual: string | null = null): string[] {
    // Readers look for such a text on spans alone.
    const said = actual === null ? '' : `/ActualText ${actual}`
    const spanned = said === '' ? [] : [`/Span <<${said}>> BDC`]
    if (tag === 'pagination') return ['/Artifact <</Type /Pagination>> BDC', ...spanned]
    if (tag === 'layout') return ['/Artifact BMC', ...spanned]
    let numbers = this.numbers.get(page)
    if (!numbers) this.numbers.set(page, (numbers = []))
    const number = numbers.length
    numbers.push(tag)
    tag.children.push({ at, of: { page, number } })
    return [said === '' ? `/${tag.type} <</MCID ${number}>> BDC` : `/Span <</MCID ${number} ${said}>> BDC`]
  }

  /** Notes where a link's words stand. @param toPage maps the run's box to the page's own points */
  place(tag: Tag, run: GlyphRun, page: PDFPage, toPage: (x: number, y: number) => readonly [number, number]): void {
    if (!(tag instanceof TagElement) || tag.type !== 'Link' || !run.own) return
    const link = this.linkAt(inlineAt(this.paragraphs.get(keyOf(run.part, run.node))!, run), run)
    if (!link) return
    const flat = { x: run.x, y: run.y - run.ascent, width: run.width, height: run.ascent + run.descent }
    const box = run.matrix ? boundsOf(run.matrix, flat) : flat
    const [left, top] = toPage(box.x, box.y)
    const [right, bottom] = toPage(box.x + box.width, box.y + box.height)
    const last = this.places.at(-1)
    if (last?.element === tag && last.page === page && Math.abs(last.box[1] - bottom) < 0.5) {
      last.box[2] = Math.max(last.box[2], right)
      last.box[0] = Math.min(last.box[0], left)
      last.text += run.text
      return
    }
    this.places.push({ element: tag, href: link.href, page, box: [left, bottom, right, top], text: run.text })
  }

  /** Makes the box around a figure wide enough for something that is drawn of it. */
  surround(tag: Tag, page: PDFPage, corners: readonly (readonly [number, number])[]): void {
    if (!(tag instanceof TagElement) || tag.type !== 'Figure') return
    tag.bounds ??= { page, left: Infinity, bottom: Infinity, right: -Infinity, top: -Infinity }
    for (const [x, y] of corners) {
      tag.bounds.left = Math.min(tag.bounds.left, x)
      tag.bounds.right = Math.max(tag.bounds.right, x)
      tag.bounds.bottom = Math.min(tag.bounds.bottom, y)
      tag.bounds.top = Math.max(tag.bounds.top, y)
    }
  }

  /** Where links stand, in the order in which they are drawn. */
  get links(): readonly LinkPlace[] {
    return this.places
  }

  /**
   * Writes the structure tree (ISO 32000-2, 14.7).
   * @param annotations of the links, in their order; null for one that leads nowhere
   */
  write(context: PDFContext, pages: readonly PDFPage[], annotations: readonly (PDFRef | null)[]): PDFRef {
    annotations.forEach((link, index) => {
      if (link) this.places[index]!.element.children.push({ at: Infinity, of: { link } })
    })
    const writer = new StructureWriter(context)
    const tree = context.nextRef()
    const root = this.root.hasContent ? writer.element(this.root, tree) : null
    const parents: (number | PDFRef)[] = []
    pages.forEach((page, index) => {
      page.node.set(PDFName.of('StructParents'), context.obj(index))
      const numbers = this.numbers.get(page) ?? []
      parents.push(index, context.register(context.obj(numbers.map(each => each.reference!))))
    })
    let key = pages.length
    annotations.forEach((link, index) => {
      if (link) parents.push(key++, this.places[index]!.element.reference!)
    })
    writer.finish(tree, root, parents)
    return tree
  }
}

/** The inline that a run shows a stretch of: of those that begin where it begins, the one that has text there. */
function inlineAt({ inlines, starts }: TaggedParagraph, run: GlyphRun): Inline | null {
  return inlines[starts.findLastIndex(start => start <= run.start)] ?? null
}

/** How a list is numbered, by its first label (ISO 32000-2, 14.8.5.5). */
function numberingOf(label: string): string {
  if (/\d/.test(label)) return 'Decimal'
  if (/^\W*[ivxlcdm]+\W*$/.test(label)) return 'LowerRoman'
  if (/^\W*[IVXLCDM]+\W*$/.test(label)) return 'UpperRoman'
  if (/^\W*[a-z]\W*$/.test(label)) return 'LowerAlpha'
  return /^\W*[A-Z]\W*$/.test(label) ? 'UpperAlpha' : 'Disc'
}
