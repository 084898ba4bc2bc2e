import type { Edit, Edits } from '../document/edits'
import { makeEdit } from '../change/make-edits'
import { partOf } from '../document/open'
import { readFrameText, type FrameTextState } from '../style/frame-text'
import { shapeNames } from '../document/story-elements'
import { paragraphsOf } from '../document/stories'
import type { Block } from '../document/story-model'
import { DocumentSession } from '../session'
import { findText, type FoundText } from '../change/find'
import { paragraphText } from '../style/runs'
import type { Spot, TextRange } from '../typeset/caret'
import type { PageView } from '../typeset/drawing-pages'
import { namedStyleOf } from './styled-text'
import { TextWalk } from '../typeset/text-walk'
import { writeHtml } from '../format/html/write'

/** What is selected, as text and as paragraphs with their styles. */
export interface Copied {
  readonly text: string
  readonly html: string
}

/** How many earlier states stay at hand, so that undo need not fetch them. */
const keptStates = 12

/** The open document as it is edited: its present state, those before it, and the ways through its text. */
export class WordDesk {
  private walked: { readonly session: DocumentSession; readonly walk: TextWalk } | null = null
  private readonly states = new Map<number, DocumentSession>()

  constructor(
    public session: DocumentSession,
    state: number,
  ) {
    this.states.set(state, session)
  }

  /** The ways through the text as it is now. */
  get walk(): TextWalk {
    if (this.walked?.session !== this.session)
      this.walked = { session: this.session, walk: new TextWalk(this.session.reading) }
    return this.walked!.walk
  }

  /**
   * Makes edits, all of them or none, and gives them with the first id that each took for new nodes: so they can be
   * repeated elsewhere. `made` is what the last of them put in, where it put something in. @throws EditRefusal
   */
  edit(edits: readonly Edit[]): { edits: Edits; made: number | null } {
    const stamped: { edit: Edit; firstId: number }[] = []
    let { document } = this.session
    let made: number | null = null
    for (const edit of edits) {
      const firstId = partOf(document, edit.part).nextId
      const edited = makeEdit(document, edit, firstId, this.session.reading.cascade.scopes)
      document = edited.document
      stamped.push({ edit, firstId })
      made = edited.made ?? made
    }
    this.session = new DocumentSession(document, this.session.typesetter, this.session)
    return { edits: stamped, made }
  }

  /** The document as it is now is a state that was stored. The oldest of many is let go of. */
  keep(state: number): void {
    this.states.delete(state)
    this.states.set(state, this.session)
    for (const old of this.states.keys()) {
      if (this.states.size <= keptStates) break
      this.states.delete(old)
    }
  }

  /** Goes to a state; false where it is no longer at hand, and nothing changes. */
  back(state: number): boolean {
    const found = this.states.get(state)
    if (found) this.session = found
    return found !== undefined
  }

  /** A place that may be gone: at the paragraph's end where it has become shorter, null where there is no paragraph. */
  clamp(spot: Spot): Spot | null {
    const found = this.walk.find(spot.part, spot.node)
    return found ? { ...spot, offset: Math.min(spot.offset, paragraphText(found.paragraph).length) } : null
  }

  /** All of the text that a paragraph belongs to, from its first place to its last. */
  whole(part: string, node: number): [Spot, Spot] {
    const list = this.walk.sequence(part, node)
    const [first, last] = [list[0]!, list.at(-1)!]
    return [
      { part, node: first.node, offset: 0 },
      { part, node: last.node, offset: paragraphText(last).length },
    ]
  }

  /** Where the paragraph after one begins, or the one before ends; null where there is none. */
  beside(part: string, node: number, step: 1 | -1): Spot | null {
    const list = this.walk.sequence(part, node)
    const found = list[list.findIndex(paragraph => paragraph.node === node) + step]
    return found ? { part: found.part, node: found.node, offset: step > 0 ? 0 : paragraphText(found).length } : null
  }

  /** Ranges as plain words and as HTML with the names of their styles. What stands for an object is left out. */
  copy(ranges: readonly TextRange[]): Copied {
    const pieces = ranges.flatMap(range => {
      const found = this.walk.find(range.part, range.node)
      return found ? [{ ...found, range }] : []
    })
    return {
      text: pieces
        .map(({ paragraph, range }) => paragraphText(paragraph).slice(range.from, range.to).replaceAll('\uFFFC', ''))
        .join('\n'),
      html: writeHtml(
        pieces.map(({ paragraph, story, range }) => ({ paragraph, role: story.role, from: range.from, to: range.to })),
        part => this.session.cascadeOf(part),
      ),
    }
  }

  /** The page that shows a place: looked for near the one where it was last. */
  where(spot: Spot, view: PageView, near: number): { view: PageView; page: number } | null {
    const shows = (of: PageView, index: number): boolean => {
      const page = this.session.page(index, of)
      return (
        page !== null &&
        page.fragments.some(fragment => {
          if (
            fragment.kind !== 'lines' ||
            fragment.layout.paragraph.node !== spot.node ||
            fragment.layout.paragraph.part !== spot.part
          )
            return false
          const { lines } = fragment.layout
          const start = fragment.from === 0 ? 0 : lines[fragment.from]!.start
          return spot.offset >= start && (fragment.to >= lines.length || spot.offset < lines[fragment.to - 1]!.end)
        })
      )
    }
    for (const page of [near, near + 1, near - 1]) if (page >= 0 && shows(view, page)) return { view, page }
    for (const of of [view, ...(['pages', 'notes', 'masters'] as const).filter(each => each !== view)]) {
      for (let page = 0; this.session.page(page, of) !== null; page++) if (shows(of, page)) return { view: of, page }
    }
    return null
  }

  /** The shape that something stands in. */
  frameOf(part: string, node: number): number | null {
    const { part: xml } = this.session.reading.cascade.scope(part)
    let element = xml.element(node)
    while (element.parent >= 0 && !shapeNames.has(element.name)) element = xml.element(element.parent)
    return shapeNames.has(element.name) ? element.id : null
  }

  /** How a frame holds its text, and the other text frames that have names, to be chained with. */
  frame(part: string, node: number): { text: FrameTextState; others: { node: number; name: string; story: string }[] } {
    const { reading } = this.session
    const others: { node: number; name: string; story: string }[] = []
    const collect = (blocks: readonly Block[], story: string): void => {
      for (const block of blocks) {
        if (block.kind !== 'frame') continue
        if (
          block.part === part &&
          block.node !== node &&
          block.shape === 'draw:frame' &&
          block.content === 'text' &&
          block.name !== ''
        )
          others.push({ node: block.node, name: block.name, story })
        collect(block.blocks, story)
      }
    }
    for (const story of reading.stories) {
      collect(story.blocks, story.title)
      for (const paragraph of paragraphsOf(story.blocks))
        for (const inline of paragraph.inlines) if (inline.kind === 'frame') collect([inline.frame], story.title)
    }
    return { text: readFrameText(reading.cascade.scope(part), node), others }
  }

  /** What new frames on a page belong to: the page itself, or in texts the first paragraph on it. */
  holder(view: PageView, index: number): { part: string; node: number } | null {
    const page = this.session.page(index, view)
    if (!page) return null
    if (page.node >= 0) return { part: page.cascade.scopes.keys().next().value!, node: page.node }
    const first = page.fragments.find(
      fragment =>
        fragment.kind === 'lines' && fragment.layout.role === 'body' && fragment.layout.paragraph.place === 'body',
    )
    return first?.kind === 'lines' ? { part: first.layout.paragraph.part, node: first.layout.paragraph.node } : null
  }

  /** The name of the named paragraph style that a paragraph goes by. */
  styleAt(part: string, node: number): string | null {
    const found = this.walk.find(part, node)
    return found ? namedStyleOf(this.session, found.paragraph, found.story) : null
  }

  /** The master page that a page is laid out by. */
  master(index: number): { part: string; node: number } | null {
    const page = this.session.page(index)
    const path = this.session.document.subdocuments[0]!.styles
    const part = path === null ? undefined : this.session.document.parts.get(path)
    const found =
      part &&
      [...part.descendants()].find(
        each => each.name === 'style:master-page' && (each.attributes['style:name'] ?? '') === page?.geometry.master,
      )
    return found ? { part: path!, node: found.id } : null
  }

  /** Every place of some words, in reading order. */
  find(text: string, matchCase: boolean): FoundText[] {
    return findText(this.session.composition, text, matchCase)
  }
}
