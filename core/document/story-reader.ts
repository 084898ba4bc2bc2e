import type { XmlElement, XmlPart } from '../xml/tree'
import type {
  Block,
  Cell,
  CellTemplate,
  Frame,
  Holder,
  Inline,
  ListItem,
  Paragraph,
  Place,
  Row,
  Span,
  Table,
} from './story-model'
import { templateOf } from './cell-template'
import { pageFields, shapeNames, silent } from './story-elements'

export interface Surroundings {
  readonly place: Place
  readonly holder: Holder | null
  readonly list: ListItem | null
}

const classes = (value: string | undefined): readonly string[] => (value ? value.split(/\s+/).filter(Boolean) : [])
const count = (value: string | undefined, most: number): number =>
  Math.max(1, Math.min(most, Number.parseInt(value ?? '1', 10) || 1))
const repeatLimit = 1024

/** What is known while a paragraph is read: whether a space would collapse here, and the first span that stands empty. */
interface Reading {
  space: boolean
  empty: Span | null
}

/** Reads the stories of one part. White space is processed as OpenDocument 1.4 part 3 section 6.1.2 says. */
export class StoryReader {
  /** Outermost lists by the ids that later ones name them by. */
  private readonly lists = new Map<string, number>()

  constructor(private readonly part: XmlPart) {}

  blocks(parent: XmlElement, at: Surroundings): Block[] {
    const blocks: Block[] = []
    for (const element of this.part.elements(parent)) this.block(element, at, blocks)
    return blocks
  }

  /** The blocks of one element. */
  blocksOf(element: XmlElement, at: Surroundings): Block[] {
    const blocks: Block[] = []
    this.block(element, at, blocks)
    return blocks
  }

  private block(element: XmlElement, at: Surroundings, into: Block[]): void {
    const { name } = element
    if (name === 'text:p' || name === 'text:h') into.push(this.paragraph(element, at))
    else if (name === 'text:list') this.list(element, at, into)
    else if (name === 'table:table') into.push(this.table(element, at))
    else if (shapeNames.has(name)) into.push(this.frame(element, at))
    else if (silent.has(name)) return
    else if (name === 'office:annotation')
      into.push(...this.blocks(element, { place: 'annotation', holder: null, list: null }))
    else if (
      name === 'text:section' ||
      name.endsWith('-index') ||
      name === 'text:table-of-content' ||
      name === 'text:bibliography'
    )
      into.push({
        kind: 'section',
        node: element.id,
        styleName: element.attributes['text:style-name'] ?? null,
        blocks: this.blocks(element, at),
      })
    else if (name.endsWith('-source')) return
    // Numbered paragraphs, index bodies and titles, soft page breaks, changes and unknown elements hold blocks or nothing.
    else into.push(...this.blocks(element, at))
  }

  private list(element: XmlElement, at: Surroundings, into: Block[]): void {
    const level = at.list ? Math.min(at.list.level + 1, 10) : 1
    const styleName = element.attributes['text:style-name'] ?? at.list?.styleName ?? null
    const outermost = at.list?.list ?? element.id
    const { 'xml:id': id, 'text:continue-list': goesOnWith, 'text:continue-numbering': goesOn } = element.attributes
    if (id !== undefined) this.lists.set(id, outermost)
    for (const item of this.part.elements(element)) {
      if (item.name !== 'text:list-item' && item.name !== 'text:list-header') continue
      const start = item.attributes['text:start-value']
      let labelled = item.name === 'text:list-item'
      for (const child of this.part.elements(item)) {
        const list: ListItem = {
          list: outermost,
          styleName,
          level,
          item: item.id,
          labelled,
          startValue: start === undefined ? null : Number.parseInt(start, 10),
          continues: at.list ? at.list.continues : goesOn === 'true',
          continuesList: at.list ? at.list.continuesList : (this.lists.get(goesOnWith ?? '') ?? null),
          continuesLevel: at.list !== null && (goesOn === 'true' || goesOnWith !== undefined),
        }
        if (child.name === 'text:p' || child.name === 'text:h') labelled = false
        this.block(child, { ...at, list }, into)
      }
    }
  }

  private table(element: XmlElement, at: Surroundings): Table {
    const columns: { styleName: string | null; cellStyle: string | null }[] = []
    const found: { element: XmlElement; heading: boolean }[] = []
    const walk = (parent: XmlElement, heading: boolean): void => {
      for (const child of this.part.elements(parent)) {
        if (child.name === 'table:table-column') {
          const repeat = count(child.attributes['table:number-columns-repeated'], repeatLimit)
          for (let index = 0; index < repeat && columns.length < repeatLimit; index++)
            columns.push({
              styleName: child.attributes['table:style-name'] ?? null,
              cellStyle: child.attributes['table:default-cell-style-name'] ?? null,
            })
        } else if (child.name === 'table:table-row') found.push({ element: child, heading })
        else walk(child, heading || child.name === 'table:table-header-rows')
      }
    }
    walk(element, false)
    const rows = found.map(({ element: row, heading }, index): Row => ({
      node: row.id,
      styleName: row.attributes['table:style-name'] ?? null,
      heading,
      cells: this.cells(
        row,
        at,
        { heading, first: index === 0 && found.length > 1 },
        columns.map(column => column.cellStyle),
        column => templateOf(element, index, found.length, column, columns.length),
      ),
    }))
    return {
      kind: 'table',
      part: this.part.path,
      node: element.id,
      styleName: element.attributes['table:style-name'] ?? null,
      columns,
      rows,
    }
  }

  private cells(
    row: XmlElement,
    at: Surroundings,
    of: { readonly heading: boolean; readonly first: boolean },
    columnStyles: readonly (string | null)[],
    template: (column: number) => CellTemplate | null,
  ): Cell[] {
    const cells: Cell[] = []
    for (const element of this.part.elements(row)) {
      const covered = element.name === 'table:covered-table-cell'
      if (!covered && element.name !== 'table:table-cell') continue
      // A cell's own style, else what its row and then its column name for all their cells (ODF 1.4 part 3, 19.619).
      const styleName =
        element.attributes['table:style-name'] ??
        row.attributes['table:default-cell-style-name'] ??
        columnStyles[cells.length] ??
        null
      const own = template(cells.length)
      const holder: Holder = { kind: 'cell', node: element.id, styleName, ...of, template: own, parent: at.holder }
      const place = at.place === 'body' ? 'table' : at.place
      cells.push({
        node: element.id,
        styleName,
        covered,
        template: own,
        columnSpan: count(element.attributes['table:number-columns-spanned'], repeatLimit),
        rowSpan: count(element.attributes['table:number-rows-spanned'], 65_536),
        blocks: this.blocks(element, { place, holder, list: null }),
      })
    }
    return cells
  }

  frame(element: XmlElement, at: Surroundings): Frame {
    const graphicStyle = element.attributes['draw:style-name'] ?? element.attributes['presentation:style-name'] ?? null
    const holder: Holder = {
      kind: 'frame',
      node: element.id,
      graphicStyle,
      textStyle: element.attributes['draw:text-style-name'] ?? null,
      parent: at.holder,
    }
    const inside: Surroundings = {
      place: at.place === 'body' || at.place === 'table' ? 'frame' : at.place,
      holder,
      list: null,
    }
    let content: Frame['content'] = element.name === 'draw:g' || element.name === 'draw:a' ? 'group' : 'none'
    let href: string | null = null
    let blocks: Block[] = []
    if (element.name === 'draw:frame') {
      // The first child a reader supports is the one it shows (ODF 1.4 part 3, 10.4.2).
      for (const child of this.part.elements(element)) {
        if (child.name === 'draw:text-box') {
          content = 'text'
          blocks = this.blocks(child, inside)
        } else if (child.name === 'draw:object' || child.name === 'draw:object-ole') {
          content = 'object'
          href = child.attributes['xlink:href'] ?? null
        } else if (child.name === 'draw:image') {
          content = 'image'
          href = child.attributes['xlink:href'] ?? null
          blocks = this.blocks(child, inside)
        } else if (child.name === 'table:table') {
          content = 'text'
          blocks = [this.table(child, inside)]
        }
        if (content !== 'none') break
      }
    } else {
      blocks = this.blocks(element, inside)
      if (content === 'none' && blocks.length > 0) content = 'text'
    }
    return {
      kind: 'frame',
      part: this.part.path,
      node: element.id,
      shape: element.name,
      name: element.attributes['draw:name'] ?? '',
      graphicStyle,
      anchor: element.attributes['text:anchor-type'] ?? 'paragraph',
      content,
      href,
      placeholder: element.attributes['presentation:class'] ?? '',
      blocks,
    }
  }

  paragraph(element: XmlElement, at: Surroundings): Paragraph {
    const inlines: Inline[] = []
    const state: Reading = { space: true, empty: null }
    this.inlines(element, null, null, at, inlines, state)
    trimEnd(inlines)
    const level = Number.parseInt(element.attributes['text:outline-level'] ?? '1', 10) || 1
    return {
      kind: 'paragraph',
      part: this.part.path,
      node: element.id,
      place: at.place,
      styleName: element.attributes['text:style-name'] ?? null,
      classNames: classes(element.attributes['text:class-names']),
      heading: element.name === 'text:h' ? level : null,
      list: at.list,
      holder: at.holder,
      inlines,
      mark: inlines.length === 0 ? state.empty : null,
    }
  }

  private inlines(
    parent: XmlElement,
    span: Span | null,
    field: string | null,
    at: Surroundings,
    into: Inline[],
    state: Reading,
  ): void {
    for (const id of parent.children) {
      const node = this.part.node(id)
      if (node.kind === 'text') {
        // Most text has nothing to collapse.
        let text = /[\t\n\r]| {2}/.test(node.text) ? node.text.replace(/[ \t\n\r]+/g, ' ') : node.text
        if (state.space && text.startsWith(' ')) text = text.slice(1)
        if (text === '') continue
        state.space = text.endsWith(' ')
        into.push({ kind: 'text', node: id, text, span, field })
      } else if (node.kind === 'element') this.inline(node, span, field, at, into, state)
    }
  }

  private inline(
    element: XmlElement,
    span: Span | null,
    field: string | null,
    at: Surroundings,
    into: Inline[],
    state: Reading,
  ): void {
    const { name, attributes } = element
    switch (name) {
      case 'text:s': {
        const text = ' '.repeat(count(attributes['text:c'], 65_536))
        into.push({ kind: 'space', node: element.id, text, span })
        state.space = false
        return
      }
      case 'text:tab':
        into.push({ kind: 'tab', node: element.id, text: '\t', span })
        state.space = false
        return
      case 'text:line-break':
        into.push({ kind: 'break', node: element.id, text: '\n', span })
        state.space = false
        return
      case 'text:span':
      case 'text:a':
      case 'text:ruby-base':
      case 'text:ruby-text':
      case 'text:meta': {
        const inner: Span = {
          node: element.id,
          styleName: attributes['text:style-name'] ?? null,
          classNames: classes(attributes['text:class-names']),
          parent: span,
        }
        if (element.children.length === 0) state.empty ??= inner
        this.inlines(element, inner, field, at, into, state)
        return
      }
      case 'text:ruby':
        this.inlines(element, span, field, at, into, state)
        return
      case 'text:note': {
        const citation = this.part.first(element, 'text:note-citation')
        const body = this.part.first(element, 'text:note-body')
        const blocks = body
          ? this.blocks(body, {
              place: at.place === 'body' || at.place === 'table' ? 'note' : at.place,
              holder: null,
              list: null,
            })
          : []
        into.push({
          kind: 'note',
          node: element.id,
          endnote: attributes['text:note-class'] === 'endnote',
          citation: citation ? this.part.textOf(citation.id).trim() : '',
          span,
          blocks,
        })
        state.space = false
        return
      }
      case 'office:annotation':
        into.push({
          kind: 'annotation',
          node: element.id,
          blocks: this.blocks(element, { place: 'annotation', holder: null, list: null }),
        })
        return
      default:
        if (shapeNames.has(name)) {
          into.push({ kind: 'frame', frame: this.frame(element, at), span })
          return
        }
        if (silent.has(name)) return
        if (element.children.length === 0) {
          // Some fields have no text in the file, only what their page gives them.
          if (pageFields.has(name)) into.push({ kind: 'text', node: element.id, text: '', span, field: name })
          return
        }
        // Every other element with text in it is a field or a reference that shows that text.
        this.inlines(element, span, name, at, into, state)
    }
  }
}

/** White space before the paragraph's end is not shown (6.1.2): one collapsed space at most is left there. */
function trimEnd(inlines: Inline[]): void {
  for (let index = inlines.length - 1; index >= 0; index--) {
    const inline = inlines[index]!
    if (inline.kind === 'annotation') continue
    if (inline.kind === 'text' && inline.text === '') continue
    if (inline.kind !== 'text' || !inline.text.endsWith(' ')) return
    const text = inline.text.slice(0, -1)
    if (text === '') {
      inlines.splice(index, 1)
      return
    }
    inlines[index] = { ...inline, text }
    return
  }
}
