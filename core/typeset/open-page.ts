import type { Story } from '../document/story-model'
import type { Column, Ground } from './columns'
import type { Position } from './flow-items'
import type { PageGeometry } from './geometry'
import type { Page } from './page'
import { PageNotes, type Note, type NoteBox } from './page-notes'

/** Where a page begins: enough to go on from there. */
export interface PageStart {
  readonly position: Position
  readonly forced: boolean
}

/** A page that text still flows into, or did. */
export interface OpenPage {
  readonly geometry: PageGeometry
  number: number
  readonly ground: Ground & { readonly notes: PageNotes }
  readonly columns: readonly Column[]
  column: number
  readonly start: PageStart
  readonly headings: Heading[]
  /** The whole page as it was made last, and what it was made for: pages that stay are not made again. */
  readonly whole: { key: string; page: Page | null; stories: readonly Story[] }
}

export interface Heading {
  readonly level: number
  readonly text: string
}

/**
 * A page with nothing on it yet.
 * @param heights what its header and footer take off the text, by the width of the text, points
 * @param noteBox a note as it stands at the foot, composed for the width of the text
 */
export function emptyPage(
  { geometry, number, start }: Pick<OpenPage, 'geometry' | 'number' | 'start'>,
  heights: (width: number) => { readonly header: number; readonly footer: number },
  noteBox: (note: Note, width: number) => NoteBox,
): OpenPage {
  const mirrored = geometry.usage === 'mirrored' && number % 2 === 0
  const left = mirrored ? geometry.margin.right : geometry.margin.left
  const right = mirrored ? geometry.margin.left : geometry.margin.right
  const width = geometry.width - left - right
  const taken = heights(width)
  const top = geometry.margin.top + taken.header
  const bottom = geometry.height - geometry.margin.bottom - taken.footer
  const ground = {
    fragments: [],
    exclusions: [],
    mirrored,
    notes: new PageNotes(
      note => noteBox(note, width),
      geometry.footnote.before + geometry.footnote.after + geometry.footnote.thickness,
    ),
    outer: { x: 0, y: 0, width: geometry.width, height: geometry.height },
    inner: { x: left, y: top, width, height: bottom - top },
  }
  const total = geometry.columns.reduce((sum, each) => sum + each, 0)
  let x = left
  const columns = geometry.columns.map((share): Column => {
    const own = ((width - geometry.columnGap * (geometry.columns.length - 1)) * share) / total
    const column = { ground, x, width: own, top, bottom }
    x += own + geometry.columnGap
    return column
  })
  return {
    geometry,
    number,
    ground,
    columns,
    column: 0,
    start,
    headings: [],
    whole: { key: '', page: null, stories: [] },
  }
}
