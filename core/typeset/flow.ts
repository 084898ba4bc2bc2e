import type { BoxSetter } from './box-setter'
import type { Frame, Inline, Story, Table } from '../document/story-model'
import { framePlace, isObstructed, roomAt, type Column } from './columns'
import { flowStart, listHost, type FlowHost, type Item, type Position } from './flow-items'
import { linesHeight, shifted } from './fragments'
import { between, isFramed, joined } from './neighbours'
import { anchorLine, notesIn, paragraphBox, type SharedBorder } from './paragraph-box'
import type { ParagraphLayout } from './paragraph-model'
import { leastOf, longest, placeName, sectionColumns } from './section-columns'
import { placeTable } from './table-placing'

const alone: SharedBorder = { above: false, below: false, gap: 0 }

/** Items that keep with one another are looked at this far ahead. */
export const longestChain = 40

/** Puts items into columns, one after the other. */
export class Flow {
  y: number
  /** Space asked for below what was placed last. */
  after = 0
  /** Nothing stands in the column yet. */
  fresh = true
  /** The column was opened by a break, not because the one before was full. */
  forced = true
  position: Position = flowStart
  /** The lowest that any of its columns was filled to. */
  private filled: number
  private last: {
    readonly item: Item
    readonly width: number
    readonly column: Column
    readonly layout: ParagraphLayout
  } | null = null

  /** The paragraph that stands right above, in the same column. */
  private above: ParagraphLayout | null = null
  /** How the paragraph that is being placed shares its border with its neighbours, and the space to the one above. */
  private shares = alone

  constructor(
    private readonly boxes: BoxSetter,
    private readonly role: Story['role'],
    readonly items: readonly Item[],
    public column: Column,
    private readonly host: FlowHost,
    /** Nothing is put down for good: it is tried whether things fit. */
    private readonly trying = false,
  ) {
    this.y = column.top
    this.filled = column.top
  }

  get lowest(): number {
    return Math.max(this.filled, this.y)
  }

  /** Goes on from a position until everything is placed (true) or there is no column left (false). */
  run(from: Position = this.position, pause: () => boolean = () => false): boolean {
    this.position = from
    while (this.position.index < this.items.length) {
      if (pause()) return false
      if (!this.place(this.items[this.position.index]!)) return false
      this.position = { index: this.position.index + 1, line: 0, rest: null, inner: null }
    }
    return true
  }

  enter(column: Column, forced: boolean): void {
    this.filled = this.lowest
    this.column = column
    this.y = column.top
    this.after = 0
    this.above = null
    this.fresh = true
    this.forced = forced
  }

  /** Goes on in the next column; false where there is none. */
  turn(forced = false): boolean {
    const column = this.host.next(forced)
    if (!column) return false
    this.enter(column, forced)
    return true
  }

  /** Where the column ends, notes at its foot left out. */
  get bottom(): number {
    return this.column.bottom - (this.column.ground.notes?.height ?? 0)
  }

  private place(item: Item): boolean {
    const starts = this.position.line === 0 && this.position.rest === null && this.position.inner === null
    if (starts && this.host.before) {
      const opened = this.host.before(item, this.fresh)
      if (opened) this.enter(opened, true)
    }
    const properties = this.propertiesOf(item)
    if (starts && properties && !this.fresh) {
      if (properties['fo:break-before'] === 'column' && !this.turn(true)) return false
      if (this.keepsTooMuch(this.position.index) && !this.turn()) return false
    }
    const placed =
      item.kind === 'paragraph'
        ? this.placeParagraph(item)
        : item.kind === 'table'
          ? this.placeTable(item.block)
          : item.kind === 'section'
            ? this.placeSection(item)
            : this.placeFrame(item.block)
    if (!placed) return false
    if (properties?.['fo:break-after'] === 'column' && this.position.index + 1 < this.items.length && !this.turn(true))
      return false
    if (this.host.after) {
      const opened = this.host.after(item)
      if (opened) this.enter(opened, true)
    }
    return true
  }

  private propertiesOf(item: Item): Readonly<Record<string, string>> | null {
    if (item.kind === 'paragraph') return this.layout(item, this.column.width).look.properties
    return item.kind === 'table' ? this.boxes.table(item.block, this.role, this.column.width).properties : null
  }

  private layout(item: Extract<Item, { kind: 'paragraph' }>, width: number): ParagraphLayout {
    const { last } = this
    // The same one is asked for several times while it is placed; a page's own fields change with the page.
    if (last !== null && last.item === item && last.width === width && last.column === this.column) return last.layout
    const layout = this.boxes.paragraph(item.block, this.role, width, null, item.citation)
    this.last = { item, width, column: this.column, layout }
    return layout
  }

  /** Whether this item and those it keeps with would run over the column's end, and fit in the next. */
  private keepsTooMuch(index: number): boolean {
    if (this.column.bottom === Infinity) return false
    const first = this.items[index]!
    if (
      first.kind !== 'paragraph' ||
      this.layout(first, this.column.width).look.properties['fo:keep-with-next'] !== 'always'
    )
      return false
    let needed = 0
    const room = this.bottom - this.column.top
    for (let at = index; at < this.items.length; at++) {
      // A chain that no column holds cannot be kept.
      if (needed > room || at >= index + longestChain) return false
      const item = this.items[at]!
      if (item.kind === 'section' || item.kind === 'frame' || (at > index && item.opens)) break
      if (item.kind === 'table') {
        const table = this.boxes.table(item.block, this.role, this.column.width)
        needed += table.spaceBefore + (table.rows[0]?.height ?? 0)
        break
      }
      const layout = this.layout(item, this.column.width)
      needed += at === index ? this.boxes.gap(this.after, layout.spaceBefore) : layout.spaceBefore
      if (layout.look.properties['fo:keep-with-next'] !== 'always') {
        needed += linesHeight(layout, 0, Math.min(layout.lines.length, layout.look.orphans))
        break
      }
      needed += linesHeight(layout) + layout.padding.top + layout.padding.bottom + layout.spaceAfter
    }
    return this.y + needed > this.bottom + 0.01 && needed <= room
  }

  private placeParagraph(item: Extract<Item, { kind: 'paragraph' }>): boolean {
    let layout = this.layout(item, this.column.width)
    const from = this.position.line
    if (from === 0) {
      const { properties } = layout.look
      const reserved = layout.frames.reduce(
        (sum, frame) =>
          sum +
          (this.boxes.wrapOf(frame) === 'run-through'
            ? 0
            : this.boxes.frame(frame, this.role, this.column.width).height),
        0,
      )
      // Space above is kept at the top of a column only where a break was asked for or the text begins.
      const { after, before } = between(this.above, this.after, layout)
      let gap = this.fresh ? (this.forced ? layout.spaceBefore : 0) : this.boxes.gap(after, before)
      const belongs = this.above !== null && joined(this.above.look, layout.look)
      const top = belongs ? 0 : layout.padding.top
      const height = linesHeight(layout) + top + layout.padding.bottom
      const room = this.bottom - this.column.top
      const together =
        properties['fo:keep-together'] === 'always' || layout.lines.length < layout.look.orphans + layout.look.widows
      const opening = top + (together ? height : linesHeight(layout, 0, layout.look.orphans))
      const needed = Math.max(opening, layout.frames.length > 0 ? Math.max(height, reserved) : 0)
      if (!this.fresh && this.y + gap + needed > this.bottom + 0.01 && needed <= room) {
        if (!this.turn()) return false
        gap = 0
      }
      this.y += gap
      this.anchor(layout)
      layout = this.besides(item, layout)
      this.shares = this.sharing(layout, gap)
      if (!this.shares.above) this.y += layout.padding.top
    } else this.shares = this.sharing(layout, 0)
    return this.placeLines(item, layout, from)
  }

  /** Whether a paragraph that is about to be placed stands in one border with those above and below it. */
  private sharing(layout: ParagraphLayout, gap: number): SharedBorder {
    if (!isFramed(layout.look)) return alone
    const next = this.items[this.position.index + 1]
    const below =
      next?.kind === 'paragraph' &&
      joined(layout.look, this.boxes.paragraph(next.block, this.role, this.column.width, null, next.citation).look)
    return { above: this.above !== null && joined(this.above.look, layout.look), below, gap }
  }

  /** The paragraph set beside what stands in its way, if anything does. */
  private besides(item: Extract<Item, { kind: 'paragraph' }>, layout: ParagraphLayout): ParagraphLayout {
    if (!isObstructed(this.column, this.y)) return layout
    const top = this.y + layout.padding.top
    const { column } = this
    const shape = (_line: number, y: number, height: number) => {
      const room = roomAt(column, top + y, height)
      return 'skipTo' in room ? { skipTo: room.skipTo - top } : room
    }
    return this.boxes.paragraph(item.block, this.role, column.width, shape, item.citation)
  }

  private placeLines(item: Extract<Item, { kind: 'paragraph' }>, start: ParagraphLayout, begin: number): boolean {
    let layout = start
    let from = begin
    const { look } = layout
    while (from < layout.lines.length) {
      const { column } = this
      const count = layout.lines.length
      const notes: Extract<Inline, { kind: 'note' }>[] = []
      let to = from
      let y = this.y
      for (; to < count; to++) {
        const line = layout.lines[to]!
        const more = notesIn(layout, line)
        const all = more.length > 0 ? [...notes, ...more] : notes
        const limit =
          column.bottom -
          (column.ground.notes
            ? all.length > 0
              ? column.ground.notes.heightWith(all)
              : column.ground.notes.height
            : 0)
        if (y + line.above + line.height > limit + 0.01) break
        y += line.above + line.height
        if (more.length > 0) notes.push(...more)
      }
      if (to < count) {
        const left = count - to
        if (left < look.widows) to = Math.max(from, count - look.widows)
        if (from === 0 && to < look.orphans) to = 0
        // In a fresh column at least one line is set, however high.
        if (to <= from && this.fresh) to = Math.max(from + 1, to)
      }
      if (to > from) {
        this.put(layout, from, to)
        column.ground.notes?.add(
          layout.notes
            .filter(
              each => !each.note.endnote && each.at >= layout.lines[from]!.start && each.at < layout.lines[to - 1]!.end,
            )
            .map(each => each.note),
        )
      }
      from = to
      if (from >= count) break
      this.position = { ...this.position, line: from }
      if (!this.turn()) return false
      // Frames anchored to it stand where it would have begun.
      if (from === 0) layout = this.besides(item, this.layout(item, this.column.width))
      else if (layout.shaped || this.column.width !== column.width) {
        // The rest stands elsewhere: it is set anew for its own column from the same place in the text.
        const next = this.layout(item, this.column.width)
        const offset = layout.lines[from]!.start
        const line = next.lines.findIndex(each => each.end > offset)
        if (line > 0) {
          layout = next
          from = line
        }
      }
    }
    if (!this.shares.below) this.y += layout.padding.bottom
    this.after = layout.spaceAfter
    this.above = layout
    this.fresh = false
    return true
  }

  private put(layout: ParagraphLayout, from: number, to: number): void {
    const { column, boxes } = this
    const { fragments } = column.ground
    const height = linesHeight(layout, from, to)
    fragments.push(...paragraphBox(layout, from, to, this.shares, column.x, this.y))
    fragments.push({ kind: 'lines', layout, from, to, x: column.x, y: this.y })
    if (layout.hasObjects) fragments.push(...boxes.inlined(layout, from, to, this.role, column.width, column.x, this.y))
    this.y += height
    this.fresh = false
    this.after = 0
  }

  /** Places the frames anchored to a paragraph that is about to stand at `y`. */
  private anchor(layout: ParagraphLayout): void {
    for (const frame of layout.frames) this.placeAnchored(frame, layout)
  }

  private placeAnchored(frame: Frame, layout: ParagraphLayout | null): void {
    const { column, boxes } = this
    const box = boxes.frame(frame, this.role, column.width)
    const properties = boxes.styles.graphic(frame)
    const paragraph = { x: column.x, y: this.y, width: column.width, height: layout ? linesHeight(layout) : 0 }
    const { x, y } = framePlace(
      frame,
      properties,
      box,
      boxes.stated(frame),
      column,
      paragraph,
      layout ? anchorLine(layout, frame, column.x, this.y) : { x: column.x, y: this.y, height: 0 },
    )
    // A frame does not leave the page for its text's sake.
    const foot =
      column.bottom === Infinity
        ? y
        : Math.max(Math.min(y, column.ground.outer.y + column.ground.outer.height - box.height), column.ground.outer.y)
    column.ground.fragments.push(...shifted(box.fragments, x, foot))
    const exclusion = boxes.exclusionOf(frame, { x, y: foot, width: box.width, height: box.height }, column)
    if (exclusion) column.ground.exclusions.push(exclusion)
  }

  private placeFrame(frame: Frame): boolean {
    this.placeAnchored(frame, null)
    return true
  }

  private placeTable(table: Table): boolean {
    if (!placeTable(this, width => this.boxes.table(table, this.role, width))) return false
    this.above = null
    return true
  }

  /** A section in columns of its own: balanced where it ends, unless the file says not to. */
  private placeSection(item: Extract<Item, { kind: 'section' }>): boolean {
    const { columns, items } = item
    let position = this.position.inner ?? flowStart
    if (!this.fresh) this.y += this.after
    for (;;) {
      const { column } = this
      const top = this.y
      const whole = (bottom: number): Column[] => sectionColumns(column, columns, top, bottom)
      const end = column.bottom === Infinity ? Infinity : this.bottom
      let bottom = end
      if (columns.balanced) {
        const least = this.balance(items, position, whole, end)
        if (least !== null) bottom = top + least
      }
      const list = whole(bottom)
      // The last column may go on to the end: what keeps lines together can ask for a little more than the balance.
      list[list.length - 1] = { ...list[list.length - 1]!, bottom: end }
      const trial = new Flow(this.boxes, this.role, items, list[0]!, listHost(list), this.trying)
      const done = trial.run(position)
      if (done) {
        this.y = trial.lowest
        this.after = trial.after
        this.above = null
        this.fresh = false
        return true
      }
      position = trial.position
      this.position = { ...this.position, inner: position }
      if (!this.turn()) return false
    }
  }

  /** The least height at which what is left of a section fits its columns; null where it does not fit at all. */
  private balance(
    items: readonly Item[],
    position: Position,
    whole: (bottom: number) => Column[],
    end: number,
  ): number | null {
    const { y: top, column } = this
    const { balances, workshop } = this.boxes
    if (balances.spent) {
      workshop.unlaid('columns that are not balanced: there are too many in one another', -1)
      return null
    }
    const available = end === Infinity ? longest : end - top
    const fits = (height: number): boolean => {
      balances.tried()
      // On a ground of its own, so that nothing is put down.
      const list = whole(top + height).map(each => ({
        ...each,
        ground: { ...each.ground, fragments: [], exclusions: [...each.ground.exclusions], notes: null },
      }))
      return new Flow(this.boxes, this.role, items, list[0]!, listHost(list), true).run(position)
    }
    // What is tried need not know how much room there is: the least height is the same in all columns of a width.
    if (this.trying && !isObstructed(column, top)) {
      const least = balances.least(items, placeName(position), column.width, () => leastOf(fits, Infinity))
      return least !== null && least <= available ? least : null
    }
    return leastOf(fits, end === Infinity ? Infinity : available)
  }
}
