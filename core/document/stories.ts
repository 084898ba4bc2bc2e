import type { XmlElement, XmlPart } from '../xml/tree'

/** Where text stands, as a reader would say it. */
export type Place = 'body' | 'frame' | 'table' | 'header' | 'note' | 'chart' | 'annotation' | 'deletion'

/** A span, link or other element around text that may carry a text style; innermost first by `parent`. */
export interface Span {
  readonly node: number
  readonly styleName: string | null
  readonly classNames: readonly string[]
  readonly parent: Span | null
}

/** What holds paragraphs and has a say in how they look; innermost first by `parent`. */
export type Holder =
  | { readonly kind: 'frame', readonly node: number, readonly graphicStyle: string | null, readonly textStyle: string | null, readonly parent: Holder | null }
  | { readonly kind: 'cell', readonly node: number, readonly styleName: string | null, readonly heading: boolean, readonly parent: Holder | null }
  | { readonly kind: 'chart-text', readonly node: number, readonly styleNames: readonly string[], readonly parent: Holder | null }

/** Where a paragraph stands in a list. */
export interface ListItem {
  /** The outermost text:list, which carries the numbering on. */
  readonly list: number
  readonly styleName: string | null
  /** 1 to 10. */
  readonly level: number
  readonly item: number
  /** The first paragraph of its item bears the label. */
  readonly labelled: boolean
  readonly startValue: number | null
  readonly continues: boolean
}

export type Inline =
  /** Text after white-space processing. `offset` counts UTF-16 units of the paragraph's text before it. */
  | { readonly kind: 'text', readonly node: number, readonly text: string, readonly span: Span | null, readonly field: string | null }
  | { readonly kind: 'space' | 'tab' | 'break', readonly node: number, readonly text: string, readonly span: Span | null }
  | { readonly kind: 'frame', readonly frame: Frame, readonly span: Span | null }
  | { readonly kind: 'note', readonly node: number, readonly endnote: boolean, readonly citation: string, readonly span: Span | null, readonly blocks: readonly Block[] }
  | { readonly kind: 'annotation', readonly node: number, readonly blocks: readonly Block[] }

export interface Paragraph {
  readonly kind: 'paragraph'
  readonly part: string
  readonly node: number
  readonly place: Place
  readonly styleName: string | null
  readonly classNames: readonly string[]
  /** Outline level of a heading, 1 and up; null for a paragraph. */
  readonly heading: number | null
  readonly list: ListItem | null
  readonly holder: Holder | null
  readonly inlines: readonly Inline[]
}

export interface Cell {
  readonly node: number
  readonly styleName: string | null
  readonly columnSpan: number
  readonly rowSpan: number
  readonly covered: boolean
  readonly blocks: readonly Block[]
}

export interface Row { readonly node: number, readonly styleName: string | null, readonly heading: boolean, readonly cells: readonly Cell[] }

export interface Table {
  readonly kind: 'table'
  readonly part: string
  readonly node: number
  readonly styleName: string | null
  readonly columns: readonly { readonly styleName: string | null }[]
  readonly rows: readonly Row[]
}

export interface Frame {
  readonly kind: 'frame'
  readonly part: string
  readonly node: number
  readonly shape: string
  readonly name: string
  readonly graphicStyle: string | null
  readonly anchor: string
  readonly content: 'text' | 'image' | 'object' | 'group' | 'none'
  readonly href: string | null
  readonly blocks: readonly Block[]
}

export type Block = Paragraph | Table | Frame | { readonly kind: 'section', readonly node: number, readonly styleName: string | null, readonly blocks: readonly Block[] }

/** A story: text that reads on from block to block. Notes, frames and annotations stand inside, where they are anchored. */
export interface Story {
  readonly part: string
  readonly node: number
  readonly place: Place
  /** What it is called for people, for instance “Header of master page Standard”. */
  readonly title: string
  /** The master page it belongs to, and where on it. */
  readonly master: string | null
  readonly role: 'body' | 'header' | 'header-left' | 'header-first' | 'footer' | 'footer-left' | 'footer-first' | 'chart' | 'deletions' | 'master'
  readonly blocks: readonly Block[]
  /** Of a body: which blocks came from each of its child elements, so that they can be kept when others change. */
  readonly origins: ReadonlyMap<number, readonly Block[]> | null
}

export const shapeNames: ReadonlySet<string> = new Set(['draw:frame', 'draw:custom-shape', 'draw:rect', 'draw:circle', 'draw:ellipse', 'draw:line', 'draw:polyline', 'draw:polygon',
  'draw:regular-polygon', 'draw:path', 'draw:connector', 'draw:caption', 'draw:measure', 'draw:g', 'draw:control', 'draw:a', 'draw:page-thumbnail', 'dr3d:scene'])
const headerRoles: Readonly<Record<string, Story['role']>> = {
  'style:header': 'header', 'style:header-left': 'header-left', 'style:header-first': 'header-first',
  'style:footer': 'footer', 'style:footer-left': 'footer-left', 'style:footer-first': 'footer-first',
}
/** Elements whose content is not text of the paragraph they stand in. */
const silent: ReadonlySet<string> = new Set(['text:tracked-changes', 'office:forms', 'text:sequence-decls', 'text:variable-decls', 'text:user-field-decls', 'text:dde-connection-decls',
  'text:alphabetical-index-auto-mark-file', 'office:event-listeners', 'text:script', 'svg:title', 'svg:desc', 'draw:glue-point', 'draw:enhanced-geometry', 'office:dde-source', 'table:shapes'])

interface Surroundings { readonly place: Place, readonly holder: Holder | null, readonly list: ListItem | null }

const classes = (value: string | undefined): readonly string[] => value ? value.split(/\s+/).filter(Boolean) : []
const count = (value: string | undefined, most: number): number => Math.max(1, Math.min(most, Number.parseInt(value ?? '1', 10) || 1))
const repeatLimit = 1024

/** Reads the stories of one part. White space is processed as OpenDocument 1.4 part 3 section 6.1.2 says. */
class StoryReader {
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
    else if (name === 'text:section' || name.endsWith('-index') || name === 'text:table-of-content' || name === 'text:bibliography')
      into.push({ kind: 'section', node: element.id, styleName: element.attributes['text:style-name'] ?? null, blocks: this.blocks(element, at) })
    else if (name.endsWith('-source')) return
    // Numbered paragraphs, index bodies and titles, soft page breaks, changes and unknown elements hold blocks or nothing.
    else into.push(...this.blocks(element, at))
  }

  private list(element: XmlElement, at: Surroundings, into: Block[]): void {
    const level = at.list ? Math.min(at.list.level + 1, 10) : 1
    const styleName = element.attributes['text:style-name'] ?? at.list?.styleName ?? null
    for (const item of this.part.elements(element)) {
      if (item.name !== 'text:list-item' && item.name !== 'text:list-header') continue
      const start = item.attributes['text:start-value']
      let labelled = item.name === 'text:list-item'
      for (const child of this.part.elements(item)) {
        const list: ListItem = {
          list: at.list?.list ?? element.id, styleName, level, item: item.id, labelled, startValue: start === undefined ? null : Number.parseInt(start, 10),
          continues: element.attributes['text:continue-numbering'] === 'true' || element.attributes['text:continue-list'] !== undefined,
        }
        if (child.name === 'text:p' || child.name === 'text:h') labelled = false
        this.block(child, { ...at, list }, into)
      }
    }
  }

  private table(element: XmlElement, at: Surroundings): Table {
    const columns: { styleName: string | null }[] = []
    const rows: Row[] = []
    const walk = (parent: XmlElement, heading: boolean): void => {
      for (const child of this.part.elements(parent)) {
        if (child.name === 'table:table-column') {
          const repeat = count(child.attributes['table:number-columns-repeated'], repeatLimit)
          for (let index = 0; index < repeat && columns.length < repeatLimit; index++) columns.push({ styleName: child.attributes['table:style-name'] ?? null })
        }
        else if (child.name === 'table:table-row') {
          const row: Row = { node: child.id, styleName: child.attributes['table:style-name'] ?? null, heading, cells: this.cells(child, at, heading) }
          rows.push(row)
        }
        else walk(child, heading || child.name === 'table:table-header-rows')
      }
    }
    walk(element, false)
    return { kind: 'table', part: this.part.path, node: element.id, styleName: element.attributes['table:style-name'] ?? null, columns, rows }
  }

  private cells(row: XmlElement, at: Surroundings, heading: boolean): Cell[] {
    const cells: Cell[] = []
    for (const element of this.part.elements(row)) {
      const covered = element.name === 'table:covered-table-cell'
      if (!covered && element.name !== 'table:table-cell') continue
      const styleName = element.attributes['table:style-name'] ?? null
      const holder: Holder = { kind: 'cell', node: element.id, styleName, heading, parent: at.holder }
      const place = at.place === 'body' ? 'table' : at.place
      cells.push({
        node: element.id, styleName, covered,
        columnSpan: count(element.attributes['table:number-columns-spanned'], repeatLimit), rowSpan: count(element.attributes['table:number-rows-spanned'], 65_536),
        blocks: this.blocks(element, { place, holder, list: null }),
      })
    }
    return cells
  }

  frame(element: XmlElement, at: Surroundings): Frame {
    const graphicStyle = element.attributes['draw:style-name'] ?? element.attributes['presentation:style-name'] ?? null
    const holder: Holder = { kind: 'frame', node: element.id, graphicStyle, textStyle: element.attributes['draw:text-style-name'] ?? null, parent: at.holder }
    const inside: Surroundings = { place: at.place === 'body' || at.place === 'table' ? 'frame' : at.place, holder, list: null }
    let content: Frame['content'] = element.name === 'draw:g' || element.name === 'draw:a' ? 'group' : 'none'
    let href: string | null = null
    let blocks: Block[] = []
    if (element.name === 'draw:frame') {
      // The first child a reader supports is the one it shows (ODF 1.4 part 3, 10.4.2).
      for (const child of this.part.elements(element)) {
        if (child.name === 'draw:text-box') { content = 'text'; blocks = this.blocks(child, inside) }
        else if (child.name === 'draw:object' || child.name === 'draw:object-ole') { content = 'object'; href = child.attributes['xlink:href'] ?? null }
        else if (child.name === 'draw:image') { content = 'image'; href = child.attributes['xlink:href'] ?? null; blocks = this.blocks(child, inside) }
        else if (child.name === 'table:table') { content = 'text'; blocks = [this.table(child, inside)] }
        if (content !== 'none') break
      }
    }
    else {
      blocks = this.blocks(element, inside)
      if (content === 'none' && blocks.length > 0) content = 'text'
    }
    return {
      kind: 'frame', part: this.part.path, node: element.id, shape: element.name, name: element.attributes['draw:name'] ?? '', graphicStyle,
      anchor: element.attributes['text:anchor-type'] ?? 'paragraph', content, href, blocks,
    }
  }

  paragraph(element: XmlElement, at: Surroundings): Paragraph {
    const inlines: Inline[] = []
    const state = { space: true }
    this.inlines(element, null, null, at, inlines, state)
    trimEnd(inlines)
    const level = Number.parseInt(element.attributes['text:outline-level'] ?? '1', 10) || 1
    return {
      kind: 'paragraph', part: this.part.path, node: element.id, place: at.place, styleName: element.attributes['text:style-name'] ?? null,
      classNames: classes(element.attributes['text:class-names']), heading: element.name === 'text:h' ? level : null, list: at.list, holder: at.holder, inlines,
    }
  }

  private inlines(parent: XmlElement, span: Span | null, field: string | null, at: Surroundings, into: Inline[], state: { space: boolean }): void {
    for (const id of parent.children) {
      const node = this.part.node(id)
      if (node.kind === 'text') {
        // Most text has nothing to collapse.
        let text = /[\t\n\r]| {2}/.test(node.text) ? node.text.replace(/[ \t\n\r]+/g, ' ') : node.text
        if (state.space && text.startsWith(' ')) text = text.slice(1)
        if (text === '') continue
        state.space = text.endsWith(' ')
        into.push({ kind: 'text', node: id, text, span, field })
      }
      else if (node.kind === 'element') this.inline(node, span, field, at, into, state)
    }
  }

  private inline(element: XmlElement, span: Span | null, field: string | null, at: Surroundings, into: Inline[], state: { space: boolean }): void {
    const { name, attributes } = element
    switch (name) {
      case 'text:s': {
        const text = ' '.repeat(count(attributes['text:c'], 65_536))
        into.push({ kind: 'space', node: element.id, text, span })
        state.space = false
        return
      }
      case 'text:tab': into.push({ kind: 'tab', node: element.id, text: '\t', span }); state.space = false; return
      case 'text:line-break': into.push({ kind: 'break', node: element.id, text: '\n', span }); state.space = false; return
      case 'text:span': case 'text:a': case 'text:ruby-base': case 'text:ruby-text': case 'text:meta': {
        const inner: Span = { node: element.id, styleName: attributes['text:style-name'] ?? null, classNames: classes(attributes['text:class-names']), parent: span }
        this.inlines(element, inner, field, at, into, state)
        return
      }
      case 'text:ruby': this.inlines(element, span, field, at, into, state); return
      case 'text:note': {
        const citation = this.part.first(element, 'text:note-citation')
        const body = this.part.first(element, 'text:note-body')
        const blocks = body ? this.blocks(body, { place: at.place === 'body' || at.place === 'table' ? 'note' : at.place, holder: null, list: null }) : []
        into.push({ kind: 'note', node: element.id, endnote: attributes['text:note-class'] === 'endnote', citation: citation ? this.part.textOf(citation.id).trim() : '', span, blocks })
        state.space = false
        return
      }
      case 'office:annotation':
        into.push({ kind: 'annotation', node: element.id, blocks: this.blocks(element, { place: 'annotation', holder: null, list: null }) })
        return
      default:
        if (shapeNames.has(name)) { into.push({ kind: 'frame', frame: this.frame(element, at), span }); return }
        if (silent.has(name) || element.children.length === 0) return
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
    if (inline.kind !== 'text' || !inline.text.endsWith(' ')) return
    const text = inline.text.slice(0, -1)
    if (text === '') { inlines.splice(index, 1); return }
    inlines[index] = { ...inline, text }
    return
  }
}

/** What was read of an earlier state of a part: what has not changed since is taken over, object for object. */
export interface EarlierStories { readonly part: XmlPart, readonly stories: readonly Story[] }

/** The stories of a text document or of a part with master pages. */
export function readStories(part: XmlPart, earlier?: EarlierStories): Story[] {
  if (earlier && earlier.part === part) return [...earlier.stories]
  const changed = earlier ? part.differences(earlier.part) : null
  const reader = new StoryReader(part)
  const stories: Story[] = []
  const { rootElement } = part
  const body = part.first(rootElement, 'office:body')
  if (body) {
    for (const element of part.elements(body)) {
      const chart = part.first(element, 'chart:chart')
      if (chart) stories.push(chartStory(part, reader, chart))
      else stories.push(bodyStory(part, reader, element, changed, earlier?.stories.find(story => story.role === 'body' && story.node === element.id)))
      const tracked = part.first(element, 'text:tracked-changes')
      if (tracked) {
        const blocks = reader.blocks(tracked, { place: 'deletion', holder: null, list: null })
        if (blocks.length > 0) stories.push({ part: part.path, node: tracked.id, place: 'deletion', title: 'Tracked deletions', master: null, role: 'deletions', blocks, origins: null })
      }
    }
  }
  const masters = part.first(rootElement, 'office:master-styles')
  if (masters) {
    for (const master of part.elements(masters, 'style:master-page')) {
      const name = master.attributes['style:name'] ?? ''
      const shown = master.attributes['style:display-name'] ?? name
      for (const child of part.elements(master)) {
        const role = headerRoles[child.name]
        if (!role && !shapeNames.has(child.name)) continue
        const blocks = role ? reader.blocks(child, { place: 'header', holder: null, list: null }) : [reader.frame(child, { place: 'header', holder: null, list: null })]
        const what = role ? (role.startsWith('header') ? 'Header' : 'Footer') : 'Shape'
        stories.push({ part: part.path, node: child.id, place: 'header', title: `${what} of master page ${shown}`, master: name, role: role ?? 'master', blocks, origins: null })
      }
    }
  }
  return stories
}

function bodyStory(part: XmlPart, reader: StoryReader, body: XmlElement, changed: ReadonlySet<number> | null, earlier: Story | undefined): Story {
  const kept = changed && earlier?.origins ? earlier.origins : null
  // A copy is quicker than making it anew: mostly one entry differs.
  const origins = new Map<number, readonly Block[]>(kept ?? [])
  const all: Block[] = []
  for (const id of body.children) {
    let blocks = kept && !changed!.has(id) ? kept.get(id) : undefined
    if (blocks === undefined) {
      const node = part.node(id)
      if (node.kind !== 'element') continue
      blocks = reader.blocksOf(node, { place: 'body', holder: null, list: null })
      origins.set(id, blocks)
    }
    if (blocks.length === 1) all.push(blocks[0]!)
    else for (const block of blocks) all.push(block)
  }
  return { part: part.path, node: body.id, place: 'body', title: 'Text', master: null, role: 'body', blocks: all, origins }
}

/** Titles, legends and the labels of a chart (chart:chart, ODF 1.4 part 3 section 11), each in the style of its owner. */
function chartStory(part: XmlPart, reader: StoryReader, chart: XmlElement): Story {
  const blocks: Block[] = []
  const visit = (element: XmlElement, styleNames: readonly string[]): void => {
    const own = element.attributes['chart:style-name']
    const names = own ? [...styleNames, own] : styleNames
    const direct = [...part.elements(element)].some(child => child.name === 'text:p' || child.name === 'text:list')
    if (direct) {
      const holder: Holder = { kind: 'chart-text', node: element.id, styleNames: names, parent: null }
      blocks.push(...reader.blocks(element, { place: 'chart', holder, list: null }))
    }
    else for (const child of part.elements(element)) visit(child, names)
  }
  visit(chart, [])
  return { part: part.path, node: chart.id, place: 'chart', title: 'Chart', master: null, role: 'chart', blocks, origins: null }
}

/** Every paragraph of some blocks in reading order, those of frames, notes and annotations after the one that anchors them. */
export function paragraphsOf(blocks: readonly Block[]): Paragraph[] {
  const found: Paragraph[] = []
  collectParagraphs(blocks, found)
  return found
}

function collectParagraphs(blocks: readonly Block[], into: Paragraph[]): void {
  for (const block of blocks) {
    if (block.kind === 'paragraph') {
      into.push(block)
      for (const inline of block.inlines) {
        if (inline.kind === 'frame') collectParagraphs([inline.frame], into)
        else if (inline.kind === 'note' || inline.kind === 'annotation') collectParagraphs(inline.blocks, into)
      }
    }
    else if (block.kind === 'table') for (const row of block.rows) for (const cell of row.cells) collectParagraphs(cell.blocks, into)
    else collectParagraphs(block.blocks, into)
  }
}
