import type { Block, Frame, Inline, Paragraph, Story, Table } from '../document/story-model'
import type { Properties } from '../document/styles'
import type { Balances } from './balancing'
import type { BoxStyles } from './box-styles'
import type { Column, Exclusion, Rectangle } from './columns'
import type { Fragment, FrameFill, OversetFrame } from './fragments'
import type { Edges } from './geometry'
import type { Measure } from './lines'
import type { ParagraphLayout, Workshop } from './paragraph-model'

/** A frame as it is set: how large it came out, and what stands in it. Lengths in points. */
export interface FrameBox {
  readonly width: number
  readonly height: number
  readonly fragments: readonly Fragment[]
}

/** A cell with its text, from the row's top left. Lengths in points. */
export interface SetCell {
  readonly x: number
  readonly width: number
  readonly padding: Edges
  readonly border: Edges
  readonly properties: Properties
  /** From the inside of the cell: padding and border not counted. */
  readonly fragments: readonly Fragment[]
  readonly height: number
  /** Rows that it spans beyond its own: drawn with the first. */
  readonly spans: number
}

/** A row as it is put on a page. */
export interface SetRow {
  readonly height: number
  readonly heading: boolean
  /** The row may end on one page and go on on the next. */
  readonly mayBreak: boolean
  readonly cells: readonly SetCell[]
  readonly fragments: readonly Fragment[]
  readonly notes: readonly Extract<Inline, { kind: 'note' }>[]
}

/** A table set in rows. */
export interface TableLayout {
  readonly x: number
  readonly width: number
  readonly rows: readonly SetRow[]
  readonly mayBreak: boolean
  readonly spaceBefore: number
  readonly spaceAfter: number
  readonly properties: Properties
  readonly masterPage: string | null
}

/** Blocks one below the other. Lengths in points; `after` is the part of the height that the last leaves below. */
export interface Stacked {
  readonly height: number
  readonly after: number
  readonly fragments: readonly Fragment[]
}

/**
 * Sets what stands in boxes. Flows, tables and shapes hold boxes, and boxes hold flows, tables and shapes: they know one
 * another by this alone (`BoxComposer` is it).
 */
export interface BoxSetter {
  readonly workshop: Workshop
  readonly balances: Balances
  readonly styles: BoxStyles
  paragraph(
    paragraph: Paragraph,
    role: Story['role'],
    width: number,
    shape?: Measure['shape'],
    citation?: string | null,
  ): ParagraphLayout
  table(table: Table, role: Story['role'], width: number): TableLayout
  frame(frame: Frame, role: Story['role'], columnWidth: number): FrameBox
  /** Blocks in a column that is as long as it needs to be. `citation` is put in front of the first paragraph. */
  stack(blocks: readonly Block[], role: Story['role'], width: number, citation?: string | null): Stacked
  /** Space between what asks for some below and what asks for some above. */
  gap(after: number, before: number): number
  /** What stands in a paragraph's lines as characters. */
  inlined(
    layout: ParagraphLayout,
    from: number,
    to: number,
    role: Story['role'],
    width: number,
    x: number,
    y: number,
  ): Fragment[]
  /** What is drawn of an embedded object. */
  object(frame: Frame, width: number, height: number): readonly Fragment[]
  wrapOf(frame: Frame): string
  /** Where the file says that a frame stands. */
  stated(frame: Frame): { readonly x: number; readonly y: number }
  /** What text keeps clear of for a frame; null where it need not. */
  exclusionOf(frame: Frame, place: Rectangle, column: Column): Exclusion | null
  /** A text frame filled, with its chain; null where it is in none and grows with its text. */
  filled(
    frame: Frame,
    role: Story['role'],
    inside: Rectangle,
    columnWidth?: number,
  ): { readonly fragments: readonly Fragment[]; readonly over: OversetFrame | null } | null
  noteFill(fill: FrameFill): void
}
