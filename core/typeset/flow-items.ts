import type { SetRow } from './box-setter'
import type { Block, Frame, Paragraph, Table } from '../document/story-model'
import type { Column, SectionColumns } from './columns'

/** What a flow puts down: blocks in reading order, sections with columns of their own kept together. */
export type Item =
  | {
      readonly kind: 'paragraph'
      readonly block: Paragraph
      readonly citation: string | null
      readonly endnote: boolean
      /** The first of a section or index: what stands before it does not keep with it. */
      readonly opens?: boolean
    }
  | { readonly kind: 'table'; readonly block: Table; readonly opens?: boolean }
  | { readonly kind: 'frame'; readonly block: Frame }
  | { readonly kind: 'section'; readonly items: readonly Item[]; readonly columns: SectionColumns }

/**
 * How far a flow has got: an item, the line of a paragraph or row of a table to go on with, and what a row left
 * over.
 */
export interface Position {
  readonly index: number
  readonly line: number
  readonly rest: SetRow | null
  readonly inner: Position | null
}

export const flowStart: Position = { index: 0, line: 0, rest: null, inner: null }

/** What pages add to a flow: breaks, masters, and what happens at each item. */
export interface FlowHost {
  /** The next column; null where there is none: the flow stops there. `forced` by a break in the document. */
  next(forced: boolean): Column | null
  /**
   * Called before an item is placed on a page: master pages and page breaks. Returns a new column where it made
   * one.
   */
  before?(item: Item, fresh: boolean): Column | null
  after?(item: Item): Column | null
}

/** Columns one after the other, and no more. */
export function listHost(list: readonly Column[]): FlowHost {
  let at = 0
  return { next: () => list[++at] ?? null }
}

/** Blocks as items of a flow; sections without columns of their own are as good as none. */
export function itemsOf(
  blocks: readonly Block[],
  columnsOf: (styleName: string | null) => SectionColumns | null,
): Item[] {
  const items: Item[] = []
  for (const block of blocks) {
    if (block.kind === 'paragraph') items.push({ kind: 'paragraph', block, citation: null, endnote: false })
    else if (block.kind === 'table') items.push({ kind: 'table', block })
    else if (block.kind === 'frame') items.push({ kind: 'frame', block })
    else {
      const inner = itemsOf(block.blocks, columnsOf)
      const columns = columnsOf(block.styleName)
      if (columns) items.push({ kind: 'section', items: inner, columns })
      else
        inner.forEach((item, at) =>
          items.push(
            at === 0 && (item.kind === 'paragraph' || item.kind === 'table') ? { ...item, opens: true } : item,
          ),
        )
    }
  }
  return items
}

/** The part that some blocks stand in; null where there are none. */
export function partOfBlocks(blocks: readonly Block[]): string | null {
  for (const block of blocks) {
    if (block.kind !== 'section') return block.part
    const inner = partOfBlocks(block.blocks)
    if (inner !== null) return inner
  }
  return null
}
