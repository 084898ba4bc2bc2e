import { type Composition, paragraphExtents, type Extent } from '../typeset/compose'
import { linesHeight, type OversetFrame } from '../typeset/fragments'
import { paragraphsOf } from '../document/stories'
import type { Block, Paragraph, Table } from '../document/story-model'
import { styleKey, styleRoles } from '../census/style-roles'

/** What happens to a paragraph. Pages count from 0, as they were before. */
export interface ParagraphEffect {
  readonly part: string
  readonly node: number
  readonly page: number
  readonly pageAfter: number
  readonly linesBefore: number
  readonly linesAfter: number
  readonly opening: string
  /** A title or heading that wraps anew. */ readonly title: boolean
  /** Speaker notes count to the page that they belong to. */ readonly notes: boolean
}

/** A text frame whose empty space changes, in points. */
export interface FrameEffect {
  readonly part: string
  readonly node: number
  readonly name: string
  readonly page: number
  readonly roomBefore: number
  readonly roomAfter: number
  readonly notes: boolean
}

/** A table whose rows become higher or lower: the height of its text, in points. */
export interface TableEffect {
  readonly part: string
  readonly node: number
  readonly page: number
  readonly heightBefore: number
  readonly heightAfter: number
  readonly rows: number
  readonly opening: string
}

/** Lines of all paragraphs of the pages. */
export const countLines = (composition: Composition): number =>
  [...paragraphExtents(composition).values()].reduce((sum, extent) => sum + extent.lines, 0)

/** What a change does to the pages, by the engine's own composition before and after. */
export interface Effects {
  readonly pagesBefore: number
  readonly pagesAfter: number
  readonly linesBefore: number
  readonly linesAfter: number
  /** Paragraphs that gain or lose lines; at most 500, those that change most first. */
  readonly paragraphs: readonly ParagraphEffect[]
  readonly paragraphsChanged: number
  /** Frames that run over afterwards, with how many lines did before. */
  readonly overset: readonly (OversetFrame & { readonly page: number; readonly linesBefore: number })[]
  /** Frames that are fuller or emptier than before by more than a tenth of a line; those that change most first. */
  readonly frames: readonly FrameEffect[]
  readonly tables: readonly TableEffect[]
  /** Pages on which anything is set differently: indexes before the change. */
  readonly pages: readonly { readonly page: number; readonly paragraphs: number; readonly lines: number }[]
  /** What the composition does not lay out yet: the figures above leave it aside. */
  readonly unlaid: Composition['unlaid']
}

const titleRoles: ReadonlySet<string> = new Set(['display', 'heading', 'subheading'])

/** Whether a paragraph is a title or heading: by its element, its placeholder, or the role of its style. */
function titleTester({ reading }: Composition): (paragraph: Paragraph, role: Extent['layout']['role']) => boolean {
  const roles = styleRoles(reading)
  return (paragraph, role) => {
    if (paragraph.heading !== null) return true
    const owner = reading.cascade.paragraph(paragraph, role).text.owner?.style
    return owner !== undefined && titleRoles.has(roles.get(styleKey(owner))?.role ?? '')
  }
}

function* tablesIn(blocks: readonly Block[]): Generator<Table> {
  for (const block of blocks) {
    if (block.kind === 'table') {
      yield block
      for (const row of block.rows) for (const cell of row.cells) yield* tablesIn(cell.blocks)
    } else if (block.kind === 'paragraph') {
      for (const inline of block.inlines) if (inline.kind === 'frame') yield* tablesIn(inline.frame.blocks)
    } else yield* tablesIn(block.blocks)
  }
}

/** Heights of the rows of a table, as far as its text decides them: the tallest cell of each. */
function rowHeights(table: Table, extents: ReadonlyMap<number, Extent>): number[] {
  return table.rows.map(row =>
    Math.max(
      0,
      ...row.cells
        .filter(cell => !cell.covered && cell.rowSpan === 1)
        .map(cell =>
          paragraphsOf(cell.blocks).reduce((sum, paragraph) => {
            const extent = extents.get(paragraph.node)
            return sum + (extent ? linesHeight(extent.layout) : 0)
          }, 0),
        ),
    ),
  )
}

function tableEffects(
  before: Composition,
  was: ReadonlyMap<number, Extent>,
  is: ReadonlyMap<number, Extent>,
): TableEffect[] {
  const effects: TableEffect[] = []
  for (const story of before.reading.stories) {
    if (story.role !== 'body' && story.role !== 'page') continue
    for (const table of tablesIn(story.blocks)) {
      const [old, next] = [rowHeights(table, was), rowHeights(table, is)]
      const rows = old.filter((height, index) => Math.abs(height - next[index]!) > 0.5).length
      if (rows === 0) continue
      const first = table.rows
        .flatMap(row => row.cells.flatMap(cell => paragraphsOf(cell.blocks)))
        .map(paragraph => was.get(paragraph.node))
        .find(extent => extent !== undefined)
      const sum = (list: readonly number[]) => Math.round(list.reduce((total, each) => total + each, 0) * 10) / 10
      effects.push({
        part: table.part,
        node: table.node,
        page: first?.pages[0] ?? -1,
        heightBefore: sum(old),
        heightAfter: sum(next),
        rows,
        opening: first?.layout.text.slice(0, 40) ?? '',
      })
    }
  }
  return effects
}

/** On which page each frame lies. */
function framePages(composition: Composition, view: 'pages' | 'notes'): Map<string, number> {
  const pages = new Map<string, number>()
  for (const page of composition[view])
    for (const fragment of page.fragments)
      if (fragment.kind === 'frame' && !pages.has(`${fragment.part}#${fragment.node}`))
        pages.set(`${fragment.part}#${fragment.node}`, page.index)
  return pages
}

function frameEffects(before: Composition, after: Composition): FrameEffect[] {
  const [pages, notes] = [framePages(before, 'pages'), framePages(before, 'notes')]
  const next = new Map(after.fills.map(fill => [`${fill.part}#${fill.node}`, fill]))
  return before.fills
    .flatMap((fill): FrameEffect[] => {
      const key = `${fill.part}#${fill.node}`
      const other = next.get(key)
      return !other || other.over || Math.abs(other.room - fill.room) < 1.5
        ? []
        : [
            {
              part: fill.part,
              node: fill.node,
              name: fill.name,
              page: pages.get(key) ?? notes.get(key) ?? -1,
              notes: !pages.has(key) && notes.has(key),
              roomBefore: Math.round(fill.room * 10) / 10,
              roomAfter: Math.round(other.room * 10) / 10,
            },
          ]
    })
    .sort((a, b) => Math.abs(b.roomAfter - b.roomBefore) - Math.abs(a.roomAfter - a.roomBefore))
    .slice(0, 500)
}

/** Lines of a composition that hold other words than the same lines of another, notes of speakers left aside. */
export function changedLines(before: Composition, after: Composition): number {
  const is = paragraphExtents(after)
  let changed = 0
  for (const [key, { layout }] of paragraphExtents(before)) {
    const ends = new Set(is.get(key)?.layout.lines.map(line => `${line.start} ${line.end}`))
    changed += layout.lines.filter(line => !ends.has(`${line.start} ${line.end}`)).length
  }
  return changed
}

/** Compares two compositions of one document. */
export function compareCompositions(before: Composition, after: Composition): Effects {
  const was = paragraphExtents(before)
  const is = paragraphExtents(after)
  const paragraphs: ParagraphEffect[] = []
  const pages = new Map<number, { paragraphs: number; lines: number }>()
  const isTitle = titleTester(before)
  let linesBefore = 0
  let linesAfter = 0
  for (const [key, one] of was) {
    linesBefore += one.lines
    const other = is.get(key)
    if (!other || other.lines === one.lines) continue
    const page = one.pages[0]!
    paragraphs.push({
      part: one.paragraph.part,
      node: one.paragraph.node,
      page,
      pageAfter: other.pages[0]!,
      linesBefore: one.lines,
      linesAfter: other.lines,
      opening: one.layout.text.slice(0, 60),
      title: isTitle(one.paragraph, one.layout.role),
      notes: false,
    })
    const sum = pages.get(page) ?? { paragraphs: 0, lines: 0 }
    pages.set(page, { paragraphs: sum.paragraphs + 1, lines: sum.lines + other.lines - one.lines })
  }
  for (const one of is.values()) linesAfter += one.lines
  const [notesWere, notesAre] = [paragraphExtents(before, 'notes'), paragraphExtents(after, 'notes')]
  for (const [key, one] of notesWere) {
    const other = notesAre.get(key)
    if (other && other.lines !== one.lines)
      paragraphs.push({
        part: one.paragraph.part,
        node: one.paragraph.node,
        page: one.pages[0]!,
        pageAfter: other.pages[0]!,
        linesBefore: one.lines,
        linesAfter: other.lines,
        opening: one.layout.text.slice(0, 60),
        title: false,
        notes: true,
      })
  }
  paragraphs.sort(
    (a, b) => Math.abs(b.linesAfter - b.linesBefore) - Math.abs(a.linesAfter - a.linesBefore) || a.page - b.page,
  )
  return {
    frames: frameEffects(before, after),
    tables: tableEffects(before, was, is),
    pagesBefore: before.pages.length,
    pagesAfter: after.pages.length,
    linesBefore,
    linesAfter,
    paragraphs: paragraphs.slice(0, 500),
    paragraphsChanged: paragraphs.length,
    overset: after.overset.map(frame => ({
      ...frame,
      linesBefore: before.overset.find(other => other.part === frame.part && other.node === frame.node)?.lines ?? 0,
    })),
    pages: [...pages].map(([page, sum]) => ({ page, ...sum })).sort((a, b) => a.page - b.page),
    unlaid: after.unlaid,
  }
}
