import type { Block, Frame, Paragraph, Story, Table } from '../document/stories'
import { type BoxComposer, type TableLayout } from './boxes'
import { linesHeight, shifted, type Box, type Fragment } from './fragments'
import type { PageGeometry } from './geometry'
import { formatNumber } from './numbering'
import type { ParagraphLayout, Workshop } from './paragraph'

/** A page with everything on it, in points from its top left. */
export interface Page {
  readonly index: number
  /** The number as the page bears it. */
  readonly number: string
  readonly geometry: PageGeometry
  readonly fragments: readonly Fragment[]
}

interface OpenPage { geometry: PageGeometry, number: number, fragments: Fragment[], y: number, after: number, top: number, bottom: number, left: number, width: number, fresh: boolean, forced: boolean }
type Flowed = { kind: 'paragraph', block: Paragraph } | { kind: 'table', block: Table }
type Laid = { kind: 'paragraph', layout: ParagraphLayout } | { kind: 'table', layout: TableLayout }

/** At most this many pages: a document that asks for more is cut there and said to be. */
const pageLimit = 20_000

/** Flows the body text of a document into pages. */
export class PageFlow {
  private readonly pages: OpenPage[] = []
  private readonly laid = new Map<number, { width: number, laid: Laid }>()
  private readonly flowed: Flowed[] = []
  private readonly pageFrames: Frame[] = []
  private readonly headerHeights = new Map<string, { header: number, footer: number }>()

  constructor(private readonly boxes: BoxComposer, private readonly geometries: ReadonlyMap<string, PageGeometry>, private readonly masterStories: readonly Story[], private readonly workshopFor: (fields: Workshop['fields']) => BoxComposer) {}

  run(body: readonly Block[]): Page[] {
    this.collect(body)
    const first = this.flowed[0]
    const wanted = first ? this.masterOf(this.at(0, 400)) : null
    this.open(wanted ?? (this.geometries.has('Standard') ? 'Standard' : [...this.geometries.keys()][0]!), true, null)
    this.laid.clear()
    for (let index = 0; index < this.flowed.length && this.pages.length < pageLimit; index++) this.place(index)
    if (this.pages.length >= pageLimit) this.boxes.workshop.unlaid(`pages after the ${pageLimit}th`)
    for (const frame of this.pageFrames) this.placePageFrame(frame)
    return this.finish()
  }

  private collect(blocks: readonly Block[]): void {
    for (const block of blocks) {
      if (block.kind === 'section') {
        if (block.styleName !== null) this.noteColumns(block.styleName)
        this.collect(block.blocks)
      }
      else if (block.kind === 'paragraph') this.flowed.push({ kind: 'paragraph', block })
      else if (block.kind === 'table') this.flowed.push({ kind: 'table', block })
      else this.pageFrames.push(block)
    }
  }

  private noteColumns(name: string): void {
    for (const scope of this.boxes.workshop.cascade.scopes.values()) {
      const node = scope.automatic.get(`section\n${name}`)?.propertyNodes['style:section-properties']
      const columns = node === undefined ? undefined : scope.part.first(scope.part.element(node), 'style:columns')
      if (Number(columns?.attributes['fo:column-count'] ?? 1) > 1) this.boxes.workshop.unlaid('columns (set as one)')
    }
  }

  private at(index: number, width: number): Laid {
    const known = this.laid.get(index)
    if (known && known.width === width) return known.laid
    const flowed = this.flowed[index]!
    const laid: Laid = flowed.kind === 'paragraph'
      ? { kind: 'paragraph', layout: this.boxes.paragraph(flowed.block, 'body', width) }
      : { kind: 'table', layout: this.boxes.table(flowed.block, 'body', width) }
    this.laid.set(index, { width, laid })
    return laid
  }

  private masterOf(laid: Laid): string | null {
    const master = laid.kind === 'paragraph' ? laid.layout.style.masterPage : laid.layout.masterPage
    return master !== null && this.geometries.has(master) ? master : null
  }

  private get page(): OpenPage { return this.pages[this.pages.length - 1]! }

  private open(master: string, forced: boolean, number: number | null): void {
    const geometry = this.geometries.get(master) ?? [...this.geometries.values()][0]!
    if (geometry.columns > 1) this.boxes.workshop.unlaid('columns (set as one)')
    const counted = number ?? (this.pages.length === 0 ? 1 : this.page.number + 1)
    const swapped = geometry.mirrored && counted % 2 === 0
    const left = swapped ? geometry.margin.right : geometry.margin.left
    const right = swapped ? geometry.margin.left : geometry.margin.right
    const heights = this.heightsOf(geometry, geometry.width - left - right)
    const top = geometry.margin.top + heights.header
    this.pages.push({ geometry, number: counted, fragments: [], y: top, after: 0, top, bottom: geometry.height - geometry.margin.bottom - heights.footer, left, width: geometry.width - left - right, fresh: true, forced })
  }

  private turn(forced = false): void { this.open(this.page.geometry.next, forced, null) }

  private place(index: number): void {
    let laid = this.at(index, this.page.width)
    const properties = laid.kind === 'paragraph' ? laid.layout.style.properties : laid.layout.properties
    const master = this.masterOf(laid)
    const restart = Number.parseInt(properties['style:page-number'] ?? '', 10)
    if (master !== null) {
      if (!this.page.fresh || this.page.geometry.master !== master) {
        if (this.page.fresh && this.pages.length === 1) this.pages.length = 0
        this.open(master, true, restart > 0 ? restart : null)
      }
      else if (restart > 0) this.page.number = restart
    }
    else if (properties['fo:break-before'] === 'page' && !this.page.fresh) this.turn(true)
    else if (this.keepsTooMuch(index)) this.turn()
    laid = this.at(index, this.page.width)
    if (laid.kind === 'paragraph') this.placeParagraph(laid.layout)
    else this.placeTable(laid.layout)
    this.laid.delete(index)
    if (properties['fo:break-after'] === 'page' && index + 1 < this.flowed.length) this.turn(true)
  }

  /** Whether this block and those it keeps with would run over the page's end, and fit on the next. */
  private keepsTooMuch(index: number): boolean {
    const { page } = this
    if (page.fresh) return false
    let needed = 0
    for (let at = index; at < this.flowed.length && at < index + 12; at++) {
      const laid = this.at(at, page.width)
      if (laid.kind === 'table') { needed += laid.layout.spaceBefore + (laid.layout.rows[0]?.height ?? 0); break }
      const { layout } = laid
      needed += at === index ? this.boxes.gap(page.after, layout.spaceBefore) : layout.spaceBefore
      if (layout.style.properties['fo:keep-with-next'] !== 'always') {
        needed += linesHeight(layout, 0, Math.min(layout.lines.length, at === index ? 1 : this.orphans(layout)))
        if (at === index) return false
        break
      }
      needed += linesHeight(layout) + layout.padding.top + layout.padding.bottom + layout.spaceAfter
    }
    return page.y + needed > page.bottom + 0.01 && needed <= page.bottom - page.top
  }

  private orphans(layout: ParagraphLayout): number { return Math.max(1, Number.parseInt(layout.style.properties['fo:orphans'] ?? '1', 10) || 1) }

  private placeParagraph(layout: ParagraphLayout): void {
    const widows = Math.max(1, Number.parseInt(layout.style.properties['fo:widows'] ?? '1', 10) || 1)
    const count = layout.lines.length
    const whole = layout.style.properties['fo:keep-together'] === 'always'
    // Space above is kept at the top of a page only where a break was asked for or the document begins.
    let gap = this.page.fresh ? (this.page.forced ? layout.spaceBefore : 0) : this.boxes.gap(this.page.after, layout.spaceBefore)
    const height = linesHeight(layout) + layout.padding.top + layout.padding.bottom
    if (!this.page.fresh && (whole || layout.frames.length > 0) && this.page.y + gap + height + this.reserved(layout) > this.page.bottom + 0.01 && height + this.reserved(layout) <= this.page.bottom - this.page.top) { this.turn(); gap = 0 }
    this.page.y += gap
    this.page.y += this.boxes.anchored(layout, 'body', this.page.width, this.page.fragments, this.page.left, this.page.y) + layout.padding.top
    let from = 0
    while (from < count) {
      const { page } = this
      let to = from
      let y = page.y
      while (to < count && y + layout.lines[to]!.height <= page.bottom + 0.01) y += layout.lines[to++]!.height
      if (to < count) {
        const left = count - to
        if (left < widows) to = Math.max(from, count - widows)
        if (from === 0 && to < this.orphans(layout)) to = 0
        // On a fresh page at least one line is set, however high.
        if (to <= from && page.fresh) to = Math.max(from + 1, to)
      }
      if (to > from) {
        page.fragments.push({ kind: 'lines', layout, from, to, x: page.left, y: page.y }, ...this.boxes.inlined(layout, from, to, 'body', page.width, page.left, page.y))
        page.y += linesHeight(layout, from, to)
        page.fresh = false
        page.after = 0
      }
      from = to
      if (from < count) { if (this.pages.length >= pageLimit) return; this.turn() }
    }
    this.page.y += layout.padding.bottom
    this.page.after = layout.spaceAfter
    this.page.fresh = false
  }

  private reserved(layout: ParagraphLayout): number { return layout.frames.reduce((sum, frame) => sum + this.boxes.frame(frame, 'body', this.page.width).height, 0) }

  private placeTable(layout: TableLayout): void {
    if (!this.page.fresh) this.page.y += Math.max(this.page.after, layout.spaceBefore)
    const headings = layout.rows.filter(row => row.heading)
    const headingHeight = headings.reduce((sum, row) => sum + row.height, 0)
    for (const row of layout.rows) {
      if (this.page.y + row.height > this.page.bottom + 0.01 && !this.page.fresh) {
        if (this.pages.length >= pageLimit) return
        this.turn()
        if (!row.heading && headingHeight < (this.page.bottom - this.page.top) / 2) for (const heading of headings) this.put(heading, layout)
      }
      if (row.height > this.page.bottom - this.page.top) this.boxes.workshop.unlaid('table rows that break across pages')
      this.put(row, layout)
    }
    this.page.after = layout.spaceAfter
  }

  private put(row: TableLayout['rows'][number], layout: TableLayout): void {
    this.page.fragments.push(...shifted(row.fragments, this.page.left + layout.x, this.page.y))
    this.page.y += row.height
    this.page.fresh = false
  }

  private placePageFrame(frame: Frame): void {
    const { part } = this.boxes.workshop.cascade.scope(frame.part)
    const { attributes } = part.element(frame.node)
    const number = Number.parseInt(attributes['text:anchor-page-number'] ?? '1', 10) || 1
    const page = this.pages[number - 1] ?? this.page
    const box: Box = this.boxes.stack([frame], 'body', page.width)
    page.fragments.push(...box.fragments)
  }

  private storyOf(master: string, which: 'header' | 'footer', number: number, firstOfMaster: boolean): Story | null {
    const find = (role: string) => this.masterStories.find(story => story.master === master && story.role === role)
    return (firstOfMaster ? find(`${which}-first`) : undefined) ?? (number % 2 === 0 ? find(`${which}-left`) : undefined) ?? find(which) ?? null
  }

  private heightsOf(geometry: PageGeometry, width: number): { header: number, footer: number } {
    const key = `${geometry.master} ${width}`
    let heights = this.headerHeights.get(key)
    if (!heights) {
      const height = (which: 'header' | 'footer'): number => {
        const room = geometry[which]
        const story = this.storyOf(geometry.master, which, 1, false)
        if (!room || !story) return 0
        return Math.max(room.minHeight, this.workshopFor({ pageNumber: '1', pageCount: '1' }).stack(story.blocks, story.role, width).height) + room.gap
      }
      this.headerHeights.set(key, heights = { header: height('header'), footer: height('footer') })
    }
    return heights
  }

  private finish(): Page[] {
    const cached = new Map<string, Box>()
    const seen = new Set<string>()
    return this.pages.map((page, index): Page => {
      const { geometry } = page
      const number = formatNumber(page.number, geometry.numberFormat)
      const fragments = [...page.fragments]
      const firstOfMaster = !seen.has(geometry.master)
      seen.add(geometry.master)
      for (const which of ['header', 'footer'] as const) {
        const room = geometry[which]
        const story = room && this.storyOf(geometry.master, which, page.number, firstOfMaster)
        if (!room || !story) continue
        const changes = hasPageFields(story.blocks)
        const key = `${story.node} ${page.width} ${changes ? number : ''}`
        let box = cached.get(key)
        if (!box) cached.set(key, box = this.workshopFor({ pageNumber: number, pageCount: String(this.pages.length) }).stack(story.blocks, story.role, page.width))
        const heights = this.heightsOf(geometry, page.width)
        const y = which === 'header' ? geometry.margin.top : geometry.height - geometry.margin.bottom - heights.footer + room.gap
        fragments.push(...shifted(box.fragments, page.left, y))
      }
      return { index, number, geometry, fragments }
    })
  }
}

function hasPageFields(blocks: readonly Block[]): boolean {
  return blocks.some((block) => {
    if (block.kind === 'paragraph') return block.inlines.some(inline => (inline.kind === 'text' && inline.field !== null) || (inline.kind === 'frame' && hasPageFields([inline.frame])))
    if (block.kind === 'table') return block.rows.some(row => row.cells.some(cell => hasPageFields(cell.blocks)))
    return hasPageFields(block.blocks)
  })
}
