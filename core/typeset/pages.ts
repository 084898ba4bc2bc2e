import type { Block, Frame, Story } from '../document/story-model'
import { findStyle } from '../document/styles'
import type { BoxComposer } from './boxes'
import type { Column } from './columns'
import { Flow } from './flow'
import { flowStart, itemsOf, partOfBlocks, type FlowHost, type Item, type Position } from './flow-items'
import { shifted, type Fragment } from './fragments'
import type { NotesStyle, PageGeometry } from './geometry'
import { formatNumber } from './numbering'
import { emptyPage, type OpenPage, type PageStart } from './open-page'
import type { Page } from './page'
import { fieldsIn, PageEdges } from './page-edges'
import { notesAtFoot, type Note, type NoteBox } from './page-notes'
import { beginsLike, keptPages } from './pages-kept'
import type { PageFields } from './paragraph-model'

/** At most this many pages: a document that asks for more is cut there and said to be. */
const pageLimit = 20_000

/** What the pages of a document are made from. */
export interface PagePlan {
  readonly body: readonly Block[]
  readonly geometries: ReadonlyMap<string, PageGeometry>
  readonly masterStories: readonly Story[]
  readonly notes: NotesStyle
  readonly endnotes: readonly Note[]
  /** Page count that the file states, until it is known. */
  readonly statedPages: number
}

/** Flows the body text of a document into pages: as many as are asked for, the rest later. */
export class PageFlow {
  private readonly open: OpenPage[] = []
  private readonly items: Item[]
  private readonly pageFrames: Frame[]
  private readonly flow: Flow
  private readonly noteBoxes = new Map<string, NoteBox>()
  private readonly edges: PageEdges
  private readonly boxes: BoxComposer
  private breakNext = false
  private done = false
  private statedPages: number
  /** The page at which they fell back into step with those of before: it is that one, and so are all after it. */
  private step: number | null = null
  private before: { readonly flow: PageFlow; readonly shift: number; readonly tail: number } | null = null

  /** @param earlier the pages before a change of the text: those it does not reach are kept */
  constructor(
    private readonly plan: PagePlan,
    boxesFor: (fields: PageFields) => BoxComposer,
    earlier?: PageFlow,
  ) {
    this.statedPages = plan.statedPages
    this.edges = new PageEdges(plan.masterStories, boxesFor)
    this.boxes = boxesFor({
      pageNumber: shift => this.numberOf(this.open.at(-1), shift),
      pageCount: String(this.statedPages),
      chapter: null,
    })
    const frames: Frame[] = []
    const columnsOf = (part: string) => (name: string | null) => this.boxes.styles.columnsOf(part, 'section', name)
    const all = itemsOf(plan.body, columnsOf(partOfBlocks(plan.body) ?? 'content.xml'))
    this.items = all.filter(item => {
      if (item.kind === 'frame') frames.push(item.block)
      return item.kind !== 'frame'
    })
    for (const note of plan.endnotes) {
      note.blocks.forEach((block, index) => {
        if (block.kind === 'paragraph')
          this.items.push({
            kind: 'paragraph',
            block,
            citation: index === 0 ? plan.notes.endnote.prefix + note.citation + plan.notes.endnote.suffix : null,
            endnote: true,
          })
        else if (block.kind === 'table') this.items.push({ kind: 'table', block })
      })
    }
    this.pageFrames = frames.filter(frame => this.pageOf(frame) >= 0)
    for (const frame of frames)
      if (this.pageOf(frame) < 0)
        this.boxes.workshop.unlaid('frames anchored to page 0, which there is not (they are not shown)', frame.node)
    if (
      earlier &&
      earlier.done &&
      this.pageFrames.length === 0 &&
      earlier.pageFrames.length === 0 &&
      !fieldsIn(plan.body).has('text:page-count')
    ) {
      const { kept, shift, tail } = keptPages(this.items, earlier.items, earlier.open)
      this.before = { flow: earlier, shift, tail }
      // Frames on pages that are kept are not set again: what is known of those that are still there holds.
      for (const [key, fill] of earlier.fills)
        if (this.boxes.workshop.cascade.scope(fill.part).part.find(fill.node)) this.boxes.fills.set(key, fill)
      if (kept > 0) {
        for (let index = 0; index < kept; index++) this.open.push(earlier.open[index]!)
        const start = earlier.open[kept]!
        this.open.push(this.makePage(start.geometry, start.number, start.start))
        this.flow = new Flow(this.boxes, 'body', this.items, this.page.columns[0]!, this.host())
        this.flow.forced = start.start.forced
        this.flow.position = start.start.position
        return
      }
    }
    const first = this.items[0]
    const wanted = first ? this.masterOf(first) : null
    const restart = first ? this.restartOf(first) : null
    this.openPage(
      wanted ?? (plan.geometries.has('Standard') ? 'Standard' : [...plan.geometries.keys()][0]!),
      true,
      restart,
      flowStart,
    )
    this.flow = new Flow(this.boxes, 'body', this.items, this.page.columns[0]!, this.host())
  }

  /** A page that is about to begin where one of before began: from there on all is as it was. */
  private lookForStep(position: Position, number: number, geometry: PageGeometry): void {
    const { before } = this
    if (before === null || position.index < before.tail) return
    const old = before.flow.open[this.open.length]
    if (old && beginsLike(old, { geometry, number }, position, before.shift)) this.step = this.open.length
  }

  private get page(): OpenPage {
    return this.open[this.open.length - 1]!
  }

  private numberOf(page: OpenPage | undefined, shift = 0): string {
    return page ? formatNumber(page.number + shift, page.geometry.numberFormat) : '1'
  }

  /** Composes until some page is whole, or all of them; whether all are. */
  advance(pages = Infinity): boolean {
    if (this.done) return true
    this.done = this.flow.run(
      this.flow.position,
      () => this.step !== null || this.open.length > pages || this.open.length >= pageLimit,
    )
    if (this.step !== null) {
      this.open.length = this.step
      const { shift } = this.before!
      for (const page of this.before!.flow.open.slice(this.step))
        this.open.push({
          ...page,
          start: { ...page.start, position: { ...page.start.position, index: page.start.position.index + shift } },
        })
      this.done = true
    }
    // What is kept of it is here now: it would hold all that came before it.
    if (this.done) this.before = null
    if (!this.done && this.open.length >= pageLimit) {
      this.boxes.workshop.unlaid(`pages after the ${pageLimit}th`, 0)
      this.done = true
    }
    if (this.done)
      for (const frame of this.pageFrames)
        if (this.pageOf(frame) >= this.open.length) this.placePageFrame(frame, this.page)
    return this.done
  }

  /** How many pages are whole. */
  get whole(): number {
    return this.done ? this.open.length : this.open.length - 1
  }

  get fills() {
    return this.boxes.fills
  }

  private host(): FlowHost {
    return {
      next: forced => {
        const { page } = this
        if (page.column + 1 < page.columns.length) return page.columns[++page.column]!
        if (this.open.length >= pageLimit) return null
        const opened = this.openPage(page.geometry.next, forced, null, this.flow.position)
        return this.step === null ? opened.columns[0]! : null
      },
      before: (item, fresh) => this.breakBefore(item, fresh),
      after: item => {
        const properties = this.propertiesOf(item)
        if (properties['fo:break-after'] === 'page') this.breakNext = true
        if (item.kind === 'paragraph' && item.block.heading !== null)
          this.page.headings.push({
            level: item.block.heading,
            text: item.block.inlines
              .map(inline => (inline.kind === 'text' || inline.kind === 'space' ? inline.text : ''))
              .join(''),
          })
        return null
      },
    }
  }

  private propertiesOf(item: Item): Readonly<Record<string, string>> {
    const { cascade } = this.boxes.workshop
    switch (item.kind) {
      case 'paragraph':
        return cascade.paragraph(item.block, 'body').properties
      case 'table':
        return this.boxes.styles.propertiesElement(
          item.block.part,
          'table',
          item.block.styleName,
          'style:table-properties',
        )
      case 'section':
        return item.items[0] ? this.propertiesOf(item.items[0]) : {}
      case 'frame':
        return {}
    }
  }

  private masterOf(item: Item): string | null {
    const { cascade } = this.boxes.workshop
    let master: string | null = null
    if (item.kind === 'paragraph')
      master =
        item.endnote &&
        item.citation !== null &&
        item === this.items.find(each => each.kind === 'paragraph' && each.endnote)
          ? this.plan.notes.endnote.master
          : cascade.paragraph(item.block, 'body').masterPage
    else if (item.kind === 'table')
      master =
        item.block.styleName === null
          ? null
          : findStyle(cascade.scope(item.block.part), 'table', item.block.styleName)?.attributes[
              'style:master-page-name'
            ] || null
    else if (item.kind === 'section') master = item.items[0] ? this.masterOf(item.items[0]) : null
    return master !== null && this.plan.geometries.has(master) ? master : null
  }

  private restartOf(item: Item): number | null {
    const number = Number.parseInt(this.propertiesOf(item)['style:page-number'] ?? '', 10)
    return number > 0 ? number : null
  }

  private breakBefore(item: Item, fresh: boolean): Column | null {
    const master = this.masterOf(item)
    const restart = master === null ? null : this.restartOf(item)
    const asked = this.breakNext || this.propertiesOf(item)['fo:break-before'] === 'page'
    this.breakNext = false
    if (master !== null) {
      if (!fresh || this.page.geometry.master !== master)
        return this.openPage(master, true, restart, this.flow.position).columns[0]!
      if (restart !== null) this.page.number = restart
      return null
    }
    return asked && !fresh ? this.openPage(this.page.geometry.next, true, null, this.flow.position).columns[0]! : null
  }

  private openPage(master: string, forced: boolean, number: number | null, position: Position): OpenPage {
    const { geometries } = this.plan
    const geometry = geometries.get(master) ?? [...geometries.values()][0]!
    const counted = number ?? (this.open.length === 0 ? 1 : this.page.number + 1)
    // Pages for one side alone leave a page of the other side empty.
    if ((geometry.usage === 'left' && counted % 2 === 1) || (geometry.usage === 'right' && counted % 2 === 0)) {
      if (this.open.length > 0 && number === null && this.page.geometry.usage !== 'blank') {
        this.open.push(
          this.makePage({ ...geometry, usage: 'blank', header: null, footer: null }, counted, { forced, position }),
        )
        return this.openPage(master, forced, null, position)
      }
    }
    if (this.open.length > 0 && this.step === null) this.lookForStep(position, counted, geometry)
    const page = this.makePage(geometry, counted, { forced, position })
    this.open.push(page)
    for (const frame of this.pageFrames)
      if (this.pageOf(frame) === this.open.length - 1) this.placePageFrame(frame, page)
    return page
  }

  private makePage(geometry: PageGeometry, number: number, start: PageStart): OpenPage {
    return emptyPage(
      { geometry, number, start },
      width => this.edges.heights(geometry, width),
      (note, width) => this.noteBox(note, width),
    )
  }

  private noteBox(note: Note, width: number): NoteBox {
    const key = `${note.node} ${width}`
    let box = this.noteBoxes.get(key)
    if (!box)
      this.noteBoxes.set(
        key,
        (box = this.boxes.stack(
          note.blocks,
          'body',
          width,
          this.plan.notes.footnote.prefix + note.citation + this.plan.notes.footnote.suffix,
        )),
      )
    return box
  }

  /** The page a frame is anchored to, from 0; -1 for page 0, which no document has (ODF 1.4 part 3, 19.754). */
  private pageOf(frame: Frame): number {
    const { attributes } = this.boxes.workshop.cascade.scope(frame.part).part.element(frame.node)
    const number = Number.parseInt(attributes['text:anchor-page-number'] ?? '', 10)
    return Number.isNaN(number) ? 0 : number - 1
  }

  /** Puts a frame on its page, before the text that must keep clear of it. */
  private placePageFrame(frame: Frame, page: OpenPage): void {
    const column = page.columns[0]!
    const box = this.boxes.frame(frame, 'body', column.width)
    const { x, y } = this.boxes.placeOnPage(frame, box, column)
    page.ground.fragments.push(...shifted(box.fragments, x, y))
    const exclusion = this.boxes.exclusionOf(frame, { x, y, width: box.width, height: box.height }, column)
    if (exclusion) page.ground.exclusions.push(exclusion)
  }

  /** A whole page, with its header, footer and notes. */
  finished(index: number): Page {
    const page = this.open[index]!
    const { geometry, ground, whole } = page
    const number = this.numberOf(page)
    const firstOfMaster = !this.open
      .slice(Math.max(0, index - 1), index)
      .some(before => before.geometry.master === geometry.master)
    const edgePage = {
      geometry,
      number: page.number,
      firstOfMaster,
      inner: ground.inner,
      pageCount: this.pageCount,
      numberAs: (shift: number) => this.numberOf(page, shift),
      chapter: (level: number) => this.chapterAt(index, level),
    }
    const edges = (['header', 'footer'] as const).flatMap(which => this.edges.of(edgePage, which) ?? [])
    const { cascade } = this.boxes.workshop
    const key = JSON.stringify([number, ...edges.map(edge => edge.key)])
    const shapes = this.plan.masterStories.filter(story => story.master === geometry.master && story.role === 'master')
    const stories = [...edges.map(edge => edge.story), ...shapes]
    const kept = whole.page
    // A page that goes on growing is made anew; one that is whole stays, whatever number it has among all.
    if (
      kept &&
      whole.key === key &&
      kept.cascade.sharesStyles(cascade) &&
      this.isWhole(index) &&
      whole.stories.length === stories.length &&
      stories.every((story, at) => story === whole.stories[at])
    )
      return kept.index === index && kept.cascade === cascade ? kept : { ...kept, index, cascade }
    // Headers and footers lie under the text.
    const fragments: Fragment[] = edges.flatMap(edge => [...edge.fragments()])
    for (const story of shapes)
      fragments.push(...this.boxes.stack(story.blocks, 'master', ground.inner.width).fragments)
    for (const fragment of ground.fragments) fragments.push(fragment)
    fragments.push(...notesAtFoot(ground.notes, ground.inner, geometry.footnote))
    const made: Page = { index, number, name: '', node: -1, geometry, fragments, cascade }
    if (this.isWhole(index)) {
      whole.key = key
      whole.page = made
      whole.stories = stories
    }
    return made
  }

  private isWhole(index: number): boolean {
    return index < this.whole
  }

  /** Pages whose notes have no room: they would go on on the next one. */
  get crowdedNotes(): number {
    return this.open.filter(page => page.ground.notes.height > page.ground.inner.height * 0.9).length
  }

  get pageCount(): number {
    return this.done ? this.open.length : Math.max(this.statedPages, this.open.length)
  }

  /** The heading that a page stands under: its first of that level, or the last one before it. */
  private chapterAt(index: number, level: number): string | null {
    const own = this.open[index]!.headings.find(heading => heading.level === level)
    if (own) return own.text
    for (let at = index - 1; at >= 0; at--) {
      const heading = this.open[at]!.headings.findLast(each => each.level === level)
      if (heading) return heading.text
    }
    return null
  }

  /** The document's own text asks how many pages there are, and was told another number than came out. */
  get asksAgain(): boolean {
    return this.done && this.statedPages !== this.open.length && fieldsIn(this.plan.body).has('text:page-count')
  }

  get count(): number {
    return this.open.length
  }
}
