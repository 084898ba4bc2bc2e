import type { Edit, Edits } from '~~/core/document/edits'
import { pagesOf, type Occurrence } from '~~/core/census/census'
import { makeEdit } from '~~/core/change/make-edits'
import { partOf } from '~~/core/document/open'
import { readFrameText, type FrameTextState } from '~~/core/style/frame-text'
import { shapeNames } from '~~/core/document/story-reader'
import { paragraphsOf, type Block, type Paragraph } from '~~/core/document/stories'
import { DocumentSession } from '~~/core/session'
import { findText } from '~~/core/change/find'
import { paragraphRuns, paragraphText } from '~~/core/style/runs'
import type { Spot, TextRange } from '~~/core/typeset/caret'
import type { PageView } from '~~/core/typeset/drawing-pages'
import { TextWalk } from '~~/core/typeset/text-walk'
import { writeHtml } from '~~/core/format/html/write'
import type { Copied, Found, PlainParagraph, PlainStory } from './messages'

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

  get walk(): TextWalk {
    if (this.walked?.session !== this.session)
      this.walked = { session: this.session, walk: new TextWalk(this.session.reading) }
    return this.walked!.walk
  }

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

  keep(state: number): void {
    this.states.delete(state)
    this.states.set(state, this.session)
    for (const old of this.states.keys()) {
      if (this.states.size <= keptStates) break
      this.states.delete(old)
    }
  }

  back(state: number): boolean {
    const found = this.states.get(state)
    if (found) this.session = found
    return found !== undefined
  }

  clamp(spot: Spot): Spot | null {
    const found = this.walk.find(spot.part, spot.node)
    return found ? { ...spot, offset: Math.min(spot.offset, paragraphText(found.paragraph).length) } : null
  }

  whole(part: string, node: number): [Spot, Spot] {
    const list = this.walk.sequence(part, node)
    const [first, last] = [list[0]!, list.at(-1)!]
    return [
      { part, node: first.node, offset: 0 },
      { part, node: last.node, offset: paragraphText(last).length },
    ]
  }

  beside(part: string, node: number, step: 1 | -1): Spot | null {
    const list = this.walk.sequence(part, node)
    const found = list[list.findIndex(paragraph => paragraph.node === node) + step]
    return found ? { part: found.part, node: found.node, offset: step > 0 ? 0 : paragraphText(found).length } : null
  }

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

  frameOf(part: string, node: number): number | null {
    const { part: xml } = this.session.reading.cascade.scope(part)
    let element = xml.element(node)
    while (element.parent >= 0 && !shapeNames.has(element.name)) element = xml.element(element.parent)
    return shapeNames.has(element.name) ? element.id : null
  }

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
    if (!found) return null
    return (
      this.session
        .cascadeOf(part)
        .paragraph(found.paragraph, found.story.role)
        .text.effective.layers.findLast(layer => !layer.local && layer.from === 'paragraph')?.style.name ?? null
    )
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

  find(text: string, matchCase: boolean): Found[] {
    return findText(this.session.composition, text, matchCase)
  }

  private get all(): readonly { readonly paragraph: Paragraph; readonly story: string }[] {
    return this.session.reading.stories.flatMap(story =>
      paragraphsOf(story.blocks).map(paragraph => ({ paragraph, story: story.title })),
    )
  }

  get stories(): PlainStory[] {
    const list: { title: string; from: number; count: number }[] = []
    this.all.forEach(({ story }, at) => {
      const last = list.at(-1)
      if (last?.title === story) last.count++
      else list.push({ title: story, from: at, count: 1 })
    })
    return list
  }

  paragraphs(from: number, to: number): PlainParagraph[] {
    return this.all.slice(from, to).map(({ paragraph }) => ({
      part: paragraph.part,
      node: paragraph.node,
      text: paragraphText(paragraph),
      style:
        this.session
          .cascadeOf(paragraph.part)
          .paragraph(paragraph, this.walk.find(paragraph.part, paragraph.node)?.story.role).text.owner?.style
          .displayName ?? '',
    }))
  }

  /** Names of the document's paragraph styles, for pasted structure to be mapped to. */
  get paragraphStyles(): string[] {
    const scope = this.session.reading.cascade.scopes.values().next().value
    return scope
      ? [...scope.common.values()].filter(style => style.family === 'paragraph').map(style => style.name)
      : []
  }

  /** Where text of a style stands, to walk through: at most 5,000 places. */
  placesOf(family: 'paragraph' | 'text', name: string): Occurrence[] {
    const { reading, composition } = this.session
    const where = pagesOf(composition)
    const places: Occurrence[] = []
    for (const story of reading.stories) {
      for (const paragraph of paragraphsOf(story.blocks)) {
        if (places.length >= 5000) return places
        const { text, runs } = paragraphRuns(paragraph, reading.cascade, story.role)
        const put = (start: number, end: number) =>
          places.push({
            part: paragraph.part,
            node: paragraph.node,
            start,
            end,
            page: where(paragraph.part, paragraph.node, start, end)[0] ?? -1,
            face: '',
            voice: '',
            place: paragraph.place,
          })
        if (family === 'paragraph') {
          const own = reading.cascade
            .paragraph(paragraph, story.role)
            .text.effective.layers.findLast(layer => !layer.local && layer.from === 'paragraph')
          if (own?.style.name === name && text.length > 0) put(0, text.length)
        } else
          for (const run of runs)
            if (run.style.effective.layers.some(layer => layer.from === 'text' && layer.style.name === name))
              put(run.start, run.end)
      }
    }
    return places
  }

  /** The longest beginning of a paragraph in a style, as a sample of it. */
  sample(family: 'paragraph' | 'text', name: string): string {
    let best = ''
    for (const { paragraph, story } of this.all.map(({ paragraph }) => ({
      paragraph,
      story: this.walk.find(paragraph.part, paragraph.node)?.story.role,
    }))) {
      const { text, runs } = paragraphRuns(paragraph, this.session.reading.cascade, story)
      const own =
        family === 'paragraph'
          ? runs.some(
              run =>
                run.style.effective.layers.findLast(layer => !layer.local && layer.from === 'paragraph')?.style.name ===
                name,
            )
            ? text
            : ''
          : runs
              .filter(run =>
                run.style.effective.layers.some(layer => layer.from === 'text' && layer.style.name === name),
              )
              .map(run => text.slice(run.start, run.end))
              .join(' ')
      if (own.length > best.length)
        best = own
          .replaceAll('\uFFFC', '')
          .slice(0, 160)
          .replace(/(?<=.{100})\s\S*$/, ' …')
      if (best.length >= 120) break
    }
    return best
  }
}
