import { paragraphsOf } from '../document/stories'
import type { Block, Frame, Inline, Paragraph, Story } from '../document/story-model'
import type { Cascade } from '../style/cascade'
import type { Reading } from '../style/reading'
import type { OdfDocument } from '../document/open'
import { BoxComposer } from './boxes'
import { FrameChains } from './frame-chains'
import { DrawingPages, type PageView } from './drawing-pages'
import type { Fragment, FrameFill, OversetFrame } from './fragments'
import { readGeometries, readNotesStyle } from './geometry'
import type { Typesetter } from './look'
import { numberParagraphs, type Labels } from './numbering'
import type { Page } from './page'
import { PageFlow, type PagePlan } from './pages'
import { ObjectComposer } from './object-drawings'
import { canBeShown, pictureSize } from './pictures'
import { prepareWords } from './paragraph'
import type { PageFields, ParagraphLayout, Workshop } from './paragraph-model'

/** What the document uses and the pages do not show as asked, with how often: it goes with every figure about pages. */
export type Unlaid = readonly { readonly feature: string; readonly count: number }[]

/** A document set in pages. */
export interface Composition {
  readonly reading: Reading
  readonly pages: readonly Page[]
  /** Pages of speaker notes: each has the index of the page it belongs to. */
  readonly notes: readonly Page[]
  /** Master pages, their notes and the handout, as pages to look at; of presentations and drawings alone. */
  readonly masters: readonly Page[]
  readonly unlaid: Unlaid
  readonly overset: readonly (OversetFrame & { readonly page: number })[]
  /** Every text frame: the height it leaves empty, or what runs over. */
  readonly fills: readonly FrameFill[]
  /** What styles the text of a part: the document's own cascade or an object's. */
  readonly cascadeOf: (part: string) => Cascade
}

export interface ComposeOptions {
  /** Justified text by total fit; without it every line takes what fits. */
  readonly totalFit: boolean
}

/** Pages that are made, and paragraphs whose words are shaped, in a slice: some milliseconds. */
const pagesAtOnce = 4
const paragraphsAtOnce = 1500

/** Whether an earlier composer's charts and pages may be taken over: all that both share is set alike. */
function keepsFrom(reading: Reading, typesetter: Typesetter, options: ComposeOptions, earlier: Composer): boolean {
  return (
    earlier.typesetter === typesetter &&
    earlier.options.totalFit === options.totalFit &&
    earlier.reading.cascade.sharesStyles(reading.cascade) &&
    sharesObjects(reading.document, earlier.reading.document)
  )
}

const sharesObjects = (document: OdfDocument, other: OdfDocument): boolean =>
  document.subdocuments
    .slice(1)
    .every(sub =>
      [sub.content, sub.styles].every(path => path === null || document.parts.get(path) === other.parts.get(path)),
    )

/**
 * Sets a document in pages: the first ones as soon as they are asked for, the rest when there is time. Nothing that it is
 * made with holds on to an earlier one: each key that is typed makes one, and all would stay.
 */
export class Composer {
  private flow: PageFlow
  /** The pages of a presentation or drawing; null for texts, whose pages come of the flow. */
  private readonly drawing: DrawingPages | null = null
  private readonly drawnObjects: ObjectComposer
  private readonly counts = new Map<string, Set<string | number>>()
  private readonly labels: Labels
  private readonly rightToLeft: boolean
  private readonly chains: FrameChains
  private readonly plan: Omit<PagePlan, 'statedPages'>
  /** The pages of before, as long as they may be taken over. */
  private before: PageFlow | null = null
  private readonly keeps: boolean
  private prepared = false
  /** Pages were made a second time, or need not be. */
  private remade = false

  /**
   * @param earlier the composer of the document before a change of its text: pages that the change does not reach
   * are kept
   */
  constructor(
    readonly reading: Reading,
    readonly typesetter: Typesetter,
    readonly options: ComposeOptions = { totalFit: true },
    earlier?: Composer,
  ) {
    const { document, cascade, stories } = reading
    const geometries = readGeometries(document)
    const { frames, endnotes } = collect(stories)
    this.labels = numberParagraphs(stories, cascade)
    this.rightToLeft = [...geometries.values()][0]!.rightToLeft
    this.chains = new FrameChains(frames, frame => nextInChain(cascade, frame))
    this.plan = {
      body: document.kind === 'text' ? (this.body?.blocks ?? []) : [],
      geometries,
      masterStories: stories.filter(story => story.master !== null),
      notes: readNotesStyle(document),
      endnotes,
    }
    this.keeps = earlier !== undefined && keepsFrom(reading, typesetter, options, earlier)
    const kept = this.keeps ? earlier! : null
    if (kept) for (const [feature, users] of kept.counts) this.counts.set(feature, new Set(users))
    this.drawnObjects = new ObjectComposer(reading, this.workshop(null), earlier?.drawnObjects)
    if (document.kind !== 'text') this.drawing = this.drawingPages(kept?.drawing ?? null)
    this.before = kept?.flow ?? null
    this.flow = this.make(kept ? kept.flow.pageCount : statedPages(document))
  }

  private get body(): Story | undefined {
    return this.reading.stories.find(story => story.role === 'body')
  }

  private workshop(fields: PageFields | null): Workshop {
    const { cascade, document } = this.reading
    return {
      cascade,
      rightToLeft: this.rightToLeft,
      typesetter: this.typesetter,
      labels: this.labels,
      fields,
      spacingAdds: cascade.settings.AddParaTableSpacing,
      title: document.title,
      totalFit: this.options.totalFit,
      pictureSize: href => pictureSize(document, href),
      unlaid: (feature, user) => {
        this.counts.set(feature, (this.counts.get(feature) ?? new Set()).add(user))
      },
    }
  }

  /** What stands for objects: charts and formulas are drawn, of all others what they are is said. */
  private readonly objects = {
    title: (href: string): string => {
      const prefix = `${href.replace(/^\.\//, '')}/`
      const kind = this.reading.document.subdocuments.find(sub => sub.prefix === prefix)?.kind
      return kind === 'chart' ? 'Chart' : kind === 'formula' ? 'Formula' : 'Object'
    },
    compose: (href: string, width: number, height: number) => this.drawnObjects.compose(href, width, height),
    isShown: (href: string) => canBeShown(this.reading.document, href),
  }

  private boxes(fields: PageFields | null, shared?: BoxComposer): BoxComposer {
    return new BoxComposer(this.workshop(fields), this.objects, this.chains, shared)
  }

  private drawingPages(earlier: DrawingPages | null): DrawingPages {
    const { document, cascade, stories } = this.reading
    // Frames may be chained over pages: those are filled once, for all pages.
    const shared = this.boxes(null)
    const pages = new DrawingPages({
      document,
      stories,
      cascade,
      geometries: this.plan.geometries,
      unlaid: this.workshop(null).unlaid,
      pictureSize: href => pictureSize(document, href),
      boxesFor: fields => this.boxes(fields, shared),
    })
    if (earlier) pages.takeOver(earlier)
    return pages
  }

  private make(pages: number): PageFlow {
    if (!this.keeps) this.counts.clear()
    return new PageFlow({ ...this.plan, statedPages: pages }, fields => this.boxes(fields), this.before ?? undefined)
  }

  /** The first pages, composed no further than need be. */
  firstPages(count: number): Page[] {
    if (this.drawing)
      return Array.from({ length: Math.min(count, this.drawing.count) }, (_, index) => this.drawing!.page(index)!)
    this.flow.advance(count)
    return Array.from({ length: Math.min(count, this.flow.whole) }, (_, index) => this.flow.finished(index))
  }

  /**
   * One page, composed no further than need be; null where there is none. Texts have no notes pages, and no masters
   * to look at.
   */
  page(index: number, view: PageView = 'pages'): Page | null {
    if (this.drawing) return this.drawing.page(index, view)
    if (view !== 'pages') return null
    this.flow.advance(index + 1)
    return index < this.flow.whole ? this.flow.finished(index) : null
  }

  /**
   * Everything up to where `finish` has little to do, a slice at a time: whoever waits may go first between two. Words are
   * shaped many at once before the pages are made of them.
   */
  *slices(): Generator<void> {
    if (this.drawing) return
    yield* this.preparing()
    while (!this.flow.advance(this.flow.whole + pagesAtOnce)) yield
    yield* this.again()
  }

  /**
   * Where text says how many pages there are, they are made a second time, knowing it. Until then those of the first time are
   * shown: whoever asks for one does not wait.
   */
  private *again(): Generator<void> {
    if (this.remade || !this.flow.asksAgain) return
    const next = this.make(this.flow.count)
    while (!next.advance(next.whole + pagesAtOnce)) yield
    this.flow = next
    this.remade = true
  }

  private *preparing(): Generator<void> {
    if (!this.body || this.keeps || this.prepared) return
    this.prepared = true
    const workshop = this.workshop(null)
    let slice: { readonly paragraph: Paragraph; readonly role: Story['role'] }[] = []
    for (const each of paragraphsWithRole(this.body)) {
      if (slice.push(each) < paragraphsAtOnce) continue
      prepareWords(slice, workshop)
      slice = []
      yield
    }
    prepareWords(slice, workshop)
  }

  /** All of it. */
  finish(): Composition {
    const { reading } = this
    if (this.drawing) return this.finishDrawing(this.drawing)
    for (const _ of this.preparing());
    this.flow.advance()
    for (const _ of this.again());
    this.before = null
    const pages = Array.from({ length: this.flow.count }, (_, index) => this.flow.finished(index))
    const overset = oversetOn(pages)
    const crowded = this.flow.crowdedNotes
    const unlaid = [...this.counts].map(([feature, users]) => ({ feature, count: users.size }))
    if (crowded > 0)
      unlaid.push({ feature: 'footnotes that would go on on the next page (they are set on one)', count: crowded })
    return {
      reading,
      pages,
      notes: [],
      masters: [],
      unlaid,
      overset,
      fills: [...this.flow.fills.values()],
      cascadeOf: part => this.cascadeOf(part),
    }
  }

  private finishDrawing(drawing: DrawingPages): Composition {
    const all = (view: PageView) =>
      Array.from({ length: drawing.countOf(view) }, (_, index) => drawing.page(index, view)!)
    const pages = all('pages')
    const notes = all('notes')
    const unlaid = [...this.counts].map(([feature, users]) => ({ feature, count: users.size }))
    return {
      reading: this.reading,
      pages,
      notes,
      masters: all('masters'),
      unlaid,
      overset: oversetOn(pages),
      fills: [...drawing.fills.values()],
      cascadeOf: part => this.cascadeOf(part),
    }
  }

  /** What styles the text of a part: the document's, or that of the object it belongs to. */
  cascadeOf(part: string): Cascade {
    return this.drawnObjects.cascadeOf(part) ?? this.reading.cascade
  }
}

/** The name of the frame that a frame's text goes on in; '' for none. */
function nextInChain(cascade: Cascade, frame: Frame): string {
  const { part } = cascade.scope(frame.part)
  return part.first(part.element(frame.node), 'draw:text-box')?.attributes['draw:chain-next-name'] ?? ''
}

function oversetOn(pages: readonly Page[]): Composition['overset'] {
  return pages.flatMap(page =>
    page.fragments.flatMap(fragment => (fragment.kind === 'overset' ? [{ ...fragment.frame, page: page.index }] : [])),
  )
}

/** Sets a document in pages, all of them. */
export function compose(reading: Reading, typesetter: Typesetter, options?: ComposeOptions): Composition {
  return new Composer(reading, typesetter, options).finish()
}

function* paragraphsWithRole(story: Story): Generator<{ paragraph: Paragraph; role: Story['role'] }> {
  for (const paragraph of paragraphsOf(story.blocks)) yield { paragraph, role: story.role }
}

function collect(stories: readonly Story[]): { frames: Frame[]; endnotes: Extract<Inline, { kind: 'note' }>[] } {
  const frames: Frame[] = []
  const endnotes: Extract<Inline, { kind: 'note' }>[] = []
  for (const story of stories) {
    const inside = (blocks: readonly Block[]): void => {
      for (const block of blocks)
        if (block.kind === 'frame') {
          frames.push(block)
          inside(block.blocks)
        }
    }
    inside(story.blocks)
    for (const paragraph of paragraphsOf(story.blocks)) {
      if (paragraph.inlines.length < 2 && paragraph.inlines[0]?.kind === 'text') continue
      for (const inline of paragraph.inlines) {
        if (inline.kind === 'frame') frames.push(inline.frame)
        else if (inline.kind === 'note' && inline.endnote && story.role === 'body') endnotes.push(inline)
      }
    }
  }
  return { frames, endnotes }
}

/** The page count that the file was saved with (meta:page-count), or 1. */
export function statedPages(document: OdfDocument): number {
  const meta = document.parts.get('meta.xml')
  if (meta)
    for (const element of meta.descendants())
      if (element.name === 'meta:document-statistic')
        return Number.parseInt(element.attributes['meta:page-count'] ?? '1', 10) || 1
  return 1
}

/** Calls back for every stretch of lines on the pages, those in tables and frames included. */
export function eachLines(page: Page, visit: (fragment: Extract<Fragment, { kind: 'lines' }>) => void): void {
  for (const fragment of page.fragments) if (fragment.kind === 'lines') visit(fragment)
}

/** Where a paragraph stands. */
export interface Extent {
  readonly paragraph: Paragraph
  lines: number
  pages: number[]
  layout: ParagraphLayout
}

/**
 * Number of lines per paragraph of the body, or of the speaker notes, and the pages it is on, by node; the
 * document's body is one part.
 */
export function paragraphExtents(composition: Composition, view: 'pages' | 'notes' = 'pages'): Map<number, Extent> {
  const extents = new Map<number, Extent>()
  for (const page of composition[view]) {
    eachLines(page, ({ layout, from, to }) => {
      if (view === 'notes' ? layout.role !== 'notes' : layout.role !== 'body' && layout.role !== 'page') return
      const known = extents.get(layout.paragraph.node)
      if (known) {
        known.lines += to - from
        if (known.pages.at(-1) !== page.index) known.pages.push(page.index)
      } else
        extents.set(layout.paragraph.node, {
          paragraph: layout.paragraph,
          lines: to - from,
          pages: [page.index],
          layout,
        })
    })
  }
  return extents
}
