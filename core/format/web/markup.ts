import type { Cell, Paragraph, Story, Table } from '../../document/story-model'
import { inheritedElement, inheritedProperties } from '../../document/styles'
import { points } from '../../document/lengths'
import type { Cascade } from '../../style/cascade'
import { paragraphRuns, type TextRun } from '../../style/runs'
import type { Composition } from '../../typeset/compose'
import { borderColor, borderWidths, edges } from '../../typeset/geometry'
import type { Look, Typesetter } from '../../typeset/look'
import { numberParagraphs, readLevelFor, type Labels } from '../../typeset/numbering'
import { escapeXml } from '../../package/new-package'
import { Anchors } from '../structure/anchors'
import {
  linkOf,
  type FigureNode,
  type ListNode,
  type Note,
  type ParagraphNode,
  type SectionNode,
  type StructureNode,
  type TableNode,
} from '../structure/read'
import { paragraphDeclarations, quoted, textDeclarations, type Unit } from './declarations'
import type { WebFaces } from './faces'
import type { WebPictures } from './pictures'
import { StyleSheet } from './style-sheet'

/** What is set in a paragraph that says nothing else. */
type Said = Map<string, string>

const attributes = (list: readonly (readonly [string, string | null])[]) =>
  list.map(([name, value]) => (value ? ` ${name}="${escapeXml(value)}"` : '')).join('')

/** A note that waits to be written at the end. */
interface OpenNote {
  readonly id: string
  readonly note: Note
  readonly nodes: readonly StructureNode[]
}

/** Writes a document's structure as XHTML, with the looks of its text as classes. */
export class Markup {
  readonly sheet = new StyleSheet()
  private readonly labels: Labels
  private readonly anchors: Anchors
  /** Paragraphs that links lead to, by the id that they bear. */
  private readonly targets = new Map<Paragraph, string>()
  private notes: OpenNote[] = []
  private noteCount = 0

  /**
   * @param language of most of the text: what departs from it is said
   * @param isBook marks notes and their calls as books have them (EPUB Structural Semantics)
   */
  constructor(
    private readonly composition: Composition,
    structure: readonly StructureNode[],
    private readonly typesetter: Typesetter,
    private readonly faces: WebFaces,
    private readonly pictures: WebPictures,
    private readonly unit: Unit,
    private readonly language: string,
    private readonly isBook: boolean,
    /** Where a target stands, when it is written into several files: the file's name, or ''. */
    private readonly fileOf: (target: Paragraph) => string = () => '',
  ) {
    const { stories, cascade } = composition.reading
    this.labels = numberParagraphs(stories, cascade)
    this.anchors = new Anchors(structure, part => cascade.scope(part).part)
    this.readTargets()
  }

  private cascade(part: string): Cascade {
    return this.composition.cascadeOf(part)
  }

  /** Paragraphs that some link leads to get an id. */
  private readTargets(): void {
    const part = this.composition.reading.document.subdocuments[0]!.content
    if (!part) return
    const tree = this.composition.reading.document.parts.get(part)!
    for (const element of tree.descendants()) {
      const href = element.name === 'text:a' ? element.attributes['xlink:href'] : undefined
      const target = href ? this.anchors.find(href) : null
      if (target && !this.targets.has(target)) this.targets.set(target, `place-${this.targets.size + 1}`)
    }
  }

  /** The id that a paragraph bears, given to it where it has none yet. */
  idOf(paragraph: Paragraph): string {
    let id = this.targets.get(paragraph)
    if (id === undefined) this.targets.set(paragraph, (id = `place-${this.targets.size + 1}`))
    return id
  }

  /** Everything in order, and the notes to it at the end. */
  write(nodes: readonly StructureNode[]): string {
    const out = [this.nodes(nodes)]
    const notes = this.notes
    this.notes = []
    if (notes.length > 0) {
      out.push(`<section class="notes"${this.isBook ? ' epub:type="footnotes"' : ' role="doc-endnotes"'}>`)
      for (const { id, note, nodes: inside } of notes) {
        const type = this.isBook ? ' epub:type="footnote"' : ' role="doc-footnote"'
        out.push(
          `<aside id="${id}"${type}><a class="back" href="#${id}-call">${escapeXml(note.citation)}</a>`,
          this.nodes(inside),
          '</aside>',
        )
      }
      out.push('</section>')
    }
    return out.join('\n')
  }

  private nodes(nodes: readonly StructureNode[], inList = false): string {
    const out: string[] = []
    for (const node of nodes) {
      switch (node.kind) {
        case 'paragraph':
          out.push(this.paragraph(node, inList))
          break
        case 'list':
          out.push(this.list(node))
          break
        case 'table':
          out.push(this.table(node))
          break
        case 'figure':
          out.push(`<div class="figure">${this.figure(node)}</div>`)
          break
        case 'section':
          out.push(this.section(node))
      }
    }
    return out.filter(Boolean).join('\n')
  }

  private section(node: SectionNode): string {
    const inside = this.nodes(node.nodes)
    return inside === ''
      ? ''
      : `<section${attributes([['title', node.story ? node.title : '']])}>\n${inside}\n</section>`
  }

  private figure(node: FigureNode): string {
    const picture = this.pictures.of(node)
    if (!picture) return node.alternative === '' ? '' : `<span class="missing">${escapeXml(node.alternative)}</span>`
    const size: Said = new Map([
      ['width', this.unit(picture.width)],
      ['max-width', '100%'],
      ['height', 'auto'],
    ])
    return (
      `<img src="${escapeXml(picture.path)}" alt="${escapeXml(node.alternative)}"` +
      `${attributes([['class', this.sheet.classOf('img', 'picture', size)]])}/>`
    )
  }

  private paragraph(node: ParagraphNode, inList: boolean): string {
    const { paragraph, role, level } = node
    const cascade = this.cascade(paragraph.part)
    const style = cascade.paragraph(paragraph, role)
    const { runs, text } = paragraphRuns(paragraph, cascade, role)
    const look = this.typesetter.look(style.text, 'western')
    const owner = style.text.owner?.style
    const family = style.text.effective.slots.western.font.family
    const own = this.said(look, style.text.effective, 'western', family, '')
    const said: Said = new Map([...paragraphDeclarations(style, look, this.unit, inList), ...own])
    if (said.get('color') === 'inherit') said.delete('color')
    const name = level === null ? 'p' : `h${Math.min(level, 6)}`
    const inside = this.inlines(node, runs, text, own, look)
    const label = level === null || paragraph.list ? '' : (this.labels.get(paragraph) ?? '')
    const language = runs[0]?.style.effective.slots[runs[0].slot].language ?? ''
    const mode = style.properties['style:writing-mode'] ?? ''
    const list = attributes([
      ['id', this.targets.get(paragraph) ?? null],
      ['class', this.sheet.classOf(name, owner?.displayName ?? 'text', said)],
      ['lang', language && language !== this.language ? language : null],
      ['xml:lang', language && language !== this.language ? language : null],
      ['dir', /^rl/.test(mode) ? 'rtl' : null],
    ])
    const shown = label ? `<span class="label">${escapeXml(label)} </span>` : ''
    // An empty paragraph is a line on the page; here it is one as well.
    return `<${name}${list}>${shown}${inside === '' ? '<br/>' : inside}</${name}>`
  }

  private said(
    look: Look,
    effective: TextRun['style']['effective'],
    slot: TextRun['slot'],
    family: string,
    text: string,
  ): Said {
    return textDeclarations(look, effective, slot, this.faces.familiesFor(look, family, text), this.unit)
  }

  private inlines(node: ParagraphNode, runs: readonly TextRun[], text: string, own: Said, ownLook: Look): string {
    const { paragraph, figures, notes } = node
    const part = this.cascade(paragraph.part).scope(paragraph.part).part
    const pieces: { readonly link: number; readonly href: string; readonly inside: string }[] = []
    for (const run of runs) {
      const { inline } = run
      if (inline.kind === 'frame') {
        const figure = figures.get(inline.frame)
        if (figure) pieces.push({ link: -1, href: '', inside: this.figure(figure) })
        continue
      }
      if (inline.kind === 'annotation') continue
      if (inline.kind === 'note') {
        pieces.push({ link: -1, href: '', inside: this.call(inline, notes.get(inline) ?? []) })
        continue
      }
      const link = linkOf(inline.span, part)
      pieces.push({
        link: link?.node ?? -1,
        href: link ? this.hrefOf(link.href) : '',
        inside: this.run(run, text.slice(run.start, run.end), own, ownLook),
      })
    }
    let out = ''
    pieces.forEach((piece, index) => {
      if (piece.link >= 0 && piece.href && pieces[index - 1]?.link !== piece.link)
        out += `<a href="${escapeXml(piece.href)}">`
      out += piece.inside
      if (piece.link >= 0 && piece.href && pieces[index + 1]?.link !== piece.link) out += '</a>'
    })
    return out
  }

  private run(run: TextRun, text: string, own: Said, ownLook: Look): string {
    const { effective } = run.style
    const values = effective.slots[run.slot]
    const look = this.typesetter.look(run.style, run.slot)
    const said = this.said(look, effective, run.slot, values.font.family, text)
    const differs: Said = new Map([...said].filter(([name, value]) => own.get(name) !== value && value !== 'inherit'))
    // What the paragraph says and these words do not is taken back.
    if (own.has('text-decoration') && !said.has('text-decoration')) differs.set('display', 'inline-block')
    const content =
      run.inline.kind === 'tab' || run.inline.kind === 'space'
        ? `<span class="white">${text}</span>`
        : run.inline.kind === 'break'
          ? '<br/>'
          : escapeXml(text)
    const language = values.language !== '' && values.language !== ownLook.language ? values.language : null
    if (differs.size === 0 && !language) return content
    const name = run.style.owner?.style
    const list = attributes([
      ['class', this.sheet.classOf('span', name?.family === 'text' ? name.displayName : 'words', differs)],
      ['lang', language],
      ['xml:lang', language],
    ])
    return `<span${list}>${content}</span>`
  }

  private call(note: Note, nodes: readonly StructureNode[]): string {
    const id = `note-${++this.noteCount}`
    this.notes.push({ id, note, nodes })
    const type = this.isBook ? ' epub:type="noteref"' : ' role="doc-noteref"'
    return `<a class="call" id="${id}-call" href="#${id}"${type}>${escapeXml(note.citation)}</a>`
  }

  /** Where a link leads: out, or to a place of the document; '' where it leads nowhere. */
  private hrefOf(href: string): string {
    const target = this.anchors.find(href)
    if (target) return `${this.fileOf(target)}#${this.idOf(target)}`
    return /^(https?|mailto|ftp):/i.test(href) ? href.replace(/\s/g, '%20') : ''
  }

  private list(node: ListNode): string {
    const first = node.items.flatMap(item => item.nodes).find(each => each.kind === 'paragraph')
    const paragraph = first?.kind === 'paragraph' ? first : null
    const level = paragraph && this.levelOf(paragraph.paragraph, paragraph.role, node.list.level)
    const above =
      paragraph && node.list.level > 1 ? this.levelOf(paragraph.paragraph, paragraph.role, node.list.level - 1) : null
    const name = level?.kind === 'number' ? 'ol' : 'ul'
    const indent = Math.max((level?.indent ?? 18) - (above?.indent ?? 0), 0)
    const said: Said = new Map([
      ['margin', '0'],
      ['padding', `0 0 0 ${this.unit(indent)}`],
    ])
    const out = [`<${name}${attributes([['class', this.sheet.classOf(name, 'list', said)]])}>`]
    for (const item of node.items) {
      const head = item.nodes[0]
      const label =
        head?.kind === 'paragraph' && head.paragraph.list?.labelled ? (this.labels.get(head.paragraph) ?? '') : ''
      const type = label ? `list-style-type: ${quoted(`${label} `)}` : 'list-style-type: none'
      out.push(`<li style="${escapeXml(type)}">${this.nodes(item.nodes, true)}</li>`)
    }
    return [...out, `</${name}>`].join('\n')
  }

  private levelOf(paragraph: Paragraph, role: Story['role'], level: number) {
    const cascade = this.cascade(paragraph.part)
    return readLevelFor(paragraph, cascade.paragraph(paragraph, role), cascade, level)
  }

  private table(node: TableNode): string {
    const { table } = node
    const out = [`<table>${this.columns(table)}`]
    let open = ''
    for (const row of node.rows) {
      const group = row.heading ? 'thead' : 'tbody'
      if (group !== open) out.push(`${open ? `</${open}>` : ''}<${group}>`)
      open = group
      out.push('<tr>')
      for (const { cell, nodes } of row.cells) {
        const name = row.heading ? 'th' : 'td'
        const list = attributes([
          ['class', this.sheet.classOf(name, 'cell', this.cellSaid(table, cell))],
          ['colspan', cell.columnSpan > 1 ? String(cell.columnSpan) : null],
          ['rowspan', cell.rowSpan > 1 ? String(cell.rowSpan) : null],
          ['scope', row.heading ? 'col' : null],
        ])
        out.push(`<${name}${list}>${this.nodes(nodes)}</${name}>`)
      }
      out.push('</tr>')
    }
    return [...out, open ? `</${open}>` : '', '</table>'].join('\n')
  }

  private columns({ part, columns }: Table): string {
    const scope = this.cascade(part).scope(part)
    const partOf = (path: string) => this.cascade(path).scope(path).part
    const widths = columns.map(({ styleName }) => {
      const said = inheritedElement(scope, partOf, 'table-column', styleName, 'style:table-column-properties')
      return points(said['style:column-width']) ?? 0
    })
    const whole = widths.reduce((sum, width) => sum + width, 0)
    if (whole === 0 || widths.some(width => width === 0)) return ''
    const share = (width: number) => `${Math.round((width * 10000) / whole) / 100}%`
    return `<colgroup>${widths.map(width => `<col style="width: ${share(width)}"/>`).join('')}</colgroup>`
  }

  private cellSaid({ part }: Table, cell: Cell): Said {
    const properties = inheritedProperties(this.cascade(part).scope(part), 'table-cell', cell.styleName, 'cell')
    const border = borderWidths(properties)
    const padding = edges(properties, 'fo:padding')
    const sides = (of: typeof border) => [of.top, of.right, of.bottom, of.left].map(this.unit).join(' ')
    const said: Said = new Map([['padding', sides(padding)]])
    if (border.top + border.right + border.bottom + border.left > 0) {
      said.set('border-style', 'solid')
      said.set('border-color', borderColor(properties))
      said.set('border-width', sides(border))
    }
    const ground = properties['fo:background-color'] ?? ''
    if (/^#[0-9a-f]{6}$/i.test(ground)) said.set('background-color', ground.toLowerCase())
    const align = properties['style:vertical-align']
    said.set('vertical-align', align === 'middle' || align === 'bottom' ? align : 'top')
    return said
  }
}
