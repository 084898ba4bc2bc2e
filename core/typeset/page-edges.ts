import type { Block, Story } from '../document/story-model'
import type { BoxComposer } from './boxes'
import { shifted, type Fragment } from './fragments'
import type { PageGeometry } from './geometry'
import { livingFields } from './page-values'
import type { PageFields } from './paragraph-model'

/** What headers and footers hang on of the page that they stand on. */
export interface EdgePage {
  readonly geometry: PageGeometry
  readonly number: number
  /** Whether the page before is laid out by another master. */
  readonly firstOfMaster: boolean
  /** The room of its text, in points from its top left. */
  readonly inner: { readonly x: number; readonly width: number }
  readonly pageCount: number
  /** Its number as it bears it, or that of a page so many further on. */
  readonly numberAs: (shift: number) => string
  /** The heading of a level that it stands under. */
  readonly chapter: (level: number) => string | null
}

/** The header or footer of a page: what it hangs on, and how it is made. */
export interface Edge {
  readonly key: string
  readonly story: Story
  readonly fragments: () => readonly Fragment[]
}

/** The headers and footers of a document's pages; what is alike on several is composed once. */
export class PageEdges {
  private readonly known = new Map<string, { header: number; footer: number }>()
  private readonly boxes = new Map<string, readonly Fragment[]>()

  constructor(
    private readonly stories: readonly Story[],
    private readonly boxesFor: (fields: PageFields) => BoxComposer,
  ) {}

  /** The height that they take off the text, points. */
  heights(geometry: PageGeometry, width: number): { header: number; footer: number } {
    const key = `${geometry.master} ${geometry.usage} ${width}`
    let heights = this.known.get(key)
    if (!heights) {
      const height = (which: 'header' | 'footer'): number => {
        const room = geometry[which]
        const story = this.storyOf(geometry.master, which, 1, false)
        if (!room || !story) return 0
        const own = this.boxesFor({ pageNumber: () => '1', pageCount: '1', chapter: null }).stack(
          story.blocks,
          story.role,
          width,
        ).height
        // The least height holds the gap to the text: so files that tell where their pages ended behave.
        return Math.max(room.minHeight, own + room.gap)
      }
      this.known.set(key, (heights = { header: height('header'), footer: height('footer') }))
    }
    return heights
  }

  /** The header or footer of a page: what it hangs on, and how it is made; null where there is none. */
  of(page: EdgePage, which: 'header' | 'footer'): Edge | null {
    const { geometry } = page
    const { width, x } = page.inner
    const room = geometry[which]
    const story = room && this.storyOf(geometry.master, which, page.number, page.firstOfMaster)
    if (!room || !story) return null
    const lives = fieldsIn(story.blocks)
    const chapter = lives.has('text:chapter') ? page.chapter : null
    const key = JSON.stringify([
      story.node,
      width,
      lives.has('text:page-number') ? page.numberAs(0) : null,
      lives.has('text:page-count') ? page.pageCount : null,
      chapter && [chapter(1), chapter(2)],
    ])
    const fragments = () => {
      let box = this.boxes.get(key)
      if (!box) {
        box = this.boxesFor({
          pageNumber: shift => page.numberAs(shift),
          pageCount: String(page.pageCount),
          chapter,
        }).stack(story.blocks, story.role, width).fragments
        this.boxes.set(key, box)
      }
      const y =
        which === 'header'
          ? geometry.margin.top
          : geometry.height - geometry.margin.bottom - this.heights(geometry, width).footer + room.gap
      return shifted(box, x, y)
    }
    return { key, story, fragments }
  }

  private storyOf(master: string, which: 'header' | 'footer', number: number, firstOfMaster: boolean): Story | null {
    const find = (role: string) => this.stories.find(story => story.master === master && story.role === role)
    return (
      (firstOfMaster ? find(`${which}-first`) : undefined) ??
      (number % 2 === 0 ? find(`${which}-left`) : undefined) ??
      find(which) ??
      null
    )
  }
}

/** Fields below some blocks whose text hangs on their page. */
export function fieldsIn(blocks: readonly Block[]): Set<string> {
  const found = new Set<string>()
  const visit = (list: readonly Block[]): void => {
    for (const block of list) {
      if (block.kind === 'paragraph') {
        for (const inline of block.inlines) {
          if (inline.kind === 'text' && inline.field !== null && livingFields.has(inline.field)) found.add(inline.field)
          else if (inline.kind === 'frame') visit([inline.frame])
        }
      } else if (block.kind === 'table') for (const row of block.rows) for (const cell of row.cells) visit(cell.blocks)
      else visit(block.blocks)
    }
  }
  visit(blocks)
  return found
}
