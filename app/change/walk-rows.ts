import type { Effects } from '~~/core/change/effects'
import { counted } from '~~/core/change/words'

/** What happens at one place, as a row of the walk. Pages count from 0. */
export interface WalkRow {
  readonly key: string
  readonly page: number
  readonly pageAfter: number
  /** How soon it is told: 0 is gravest. */
  readonly grave: number
  readonly what: string
  readonly tone: string
  readonly change: string
  readonly place: { readonly part: string; readonly node: number } | null
  readonly of: 'paragraph' | 'frame' | null
  /** Whether its page is to be looked at before all others. */
  readonly flagged: boolean
}

/** Pages of a walk: those that are to be looked at, then those with the others on which anything changes. */
export interface WalkOrder {
  readonly flagged: readonly number[]
  readonly all: readonly number[]
}

const overset = (frame: Effects['overset'][number]): WalkRow => ({
  key: `o${frame.node}`,
  page: frame.page,
  pageAfter: frame.page,
  grave: frame.lines > frame.linesBefore ? 0 : 3,
  tone: 'text-rubric',
  what: `${frame.name || 'A frame'} runs over`,
  change: `${frame.linesBefore} → ${frame.lines} lines over`,
  place: frame,
  of: 'frame',
  flagged: frame.lines !== frame.linesBefore,
})

function paragraph(each: Effects['paragraphs'][number]): WalkRow {
  const grows = each.linesAfter > each.linesBefore
  return {
    key: `p${each.part}${each.node}`,
    page: each.page,
    pageAfter: each.pageAfter,
    grave: each.title ? 1 : grows ? 3 : 4,
    tone: each.title || grows ? 'text-ochre' : '',
    what:
      (each.notes ? 'Speaker notes: ' : each.title ? 'Title wraps anew: ' : '') +
      `“${each.opening.trim()}${each.opening.length >= 60 ? ' …' : ''}”`,
    change: `${each.linesBefore} → ${each.linesAfter} lines`,
    place: each,
    of: 'paragraph',
    flagged: !each.notes && (each.title || grows),
  }
}

function table(each: Effects['tables'][number]): WalkRow {
  const grows = each.heightAfter > each.heightBefore
  return {
    key: `t${each.part}${each.node}`,
    page: each.page,
    pageAfter: each.page,
    grave: 2,
    tone: grows ? 'text-ochre' : '',
    what:
      `Table ${grows ? 'grows' : 'shrinks'}, ${counted(each.rows, 'row')}` +
      (each.opening ? `: “${each.opening.trim()}”` : ''),
    change: `${each.heightBefore} → ${each.heightAfter} pt`,
    place: null,
    of: null,
    flagged: grows,
  }
}

const emptySpace = (frame: Effects['frames'][number]): WalkRow => ({
  key: `f${frame.part}${frame.node}`,
  page: frame.page,
  pageAfter: frame.page,
  grave: 5,
  tone: '',
  what: `${frame.notes ? 'Speaker notes' : frame.name || 'A frame'}, empty space`,
  change: `${frame.roomBefore} → ${frame.roomAfter} pt`,
  place: null,
  of: null,
  flagged: false,
})

/** What a plan does to pages: what runs over first, then titles that wrap anew, tables, other paragraphs, and empty space. */
export const walkRows = (effects: Effects): WalkRow[] =>
  [
    ...effects.overset.map(overset),
    ...effects.paragraphs.map(paragraph),
    ...effects.tables.map(table),
    ...effects.frames.map(emptySpace),
  ].sort((a, b) => a.grave - b.grave || a.page - b.page)

const sorted = (pages: Iterable<number>): number[] =>
  [...new Set(pages)].filter(page => page >= 0).sort((a, b) => a - b)

/** The order of the walk over `rows` and what else is on `touched` pages; page -1 is none. */
export function walkOrder(rows: readonly WalkRow[], touched: readonly number[]): WalkOrder {
  const flagged = sorted(rows.filter(row => row.flagged).map(row => row.page))
  const all = sorted([...rows.map(row => row.page), ...touched])
  return { flagged, all: [...flagged, ...all.filter(page => !flagged.includes(page))] }
}
