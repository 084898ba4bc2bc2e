import { colorOf } from '../census/matching'
import { resolutionOf } from '../census/resolution'
import { styleKey, styleRoles } from '../census/style-roles'
import { pagesOf } from '../census/text-pages'
import type { Slot } from '../document/font-attributes'
import { whyNotEdit } from '../document/refusals'
import { paragraphsOf } from '../document/stories'
import type { Paragraph, Story } from '../document/story-model'
import type { Style } from '../document/styles'
import { madeForNothing, type MadeFor } from '../font/held-licence'
import type { Resolution } from '../font/library'
import { mediumOf, type House, type Medium } from '../house/house'
import type { DocumentSession } from '../session'
import type { TextStyle } from '../style/cascade'
import type { SlotValues } from '../style/effective'
import { paragraphRuns, type TextRun } from '../style/runs'
import type { Fragment } from '../typeset/fragments'
import { ByPlace } from './by-place'
import type { ParagraphLayout } from '../typeset/paragraph-model'

/** A stretch of text, as scopes of wishes name it. */
export interface Stretch {
  readonly part: string
  readonly node: number
  readonly from: number
  readonly to: number
}

/** A paragraph under proof. */
export interface ProofText {
  readonly paragraph: Paragraph
  readonly story: Story
  readonly text: string
  readonly runs: readonly TextRun[]
  /** How its mark is styled: what its words depart from. */
  readonly own: TextStyle
  /** The named style that it goes by. */
  readonly owner: Style | null
  readonly role: string | null
  /** Index of the page it begins on; -1 where none shows it. */
  readonly page: number
  /** BCP 47, of its first letters; '' where none is said. */
  readonly language: string
  /** All of it is set in a face of one width: quotation marks and spaces mean what they are. */
  readonly isCode: boolean
}

/** A stretch of a paragraph's lines on a page. */
export interface SetLines {
  readonly page: number
  readonly layout: ParagraphLayout
  readonly from: number
  readonly to: number
  readonly x: number
  readonly y: number
  readonly turned: boolean
}

const letters = /\p{L}/u

/** A document as checks look at it: its text, its pages, its house; all worked out once for all of them. */
export class Subject {
  readonly medium: Medium
  private known: readonly ProofText[] | null = null
  private byPlace: ByPlace<ProofText> | null = null
  private lines: ByPlace<SetLines[]> | null = null
  private readonly fixed = new Map<ProofText, boolean>()
  private readonly resolutions = new Map<TextStyle, Partial<Record<Slot, Resolution>>>()

  constructor(
    readonly session: DocumentSession,
    readonly house: House | null = null,
    readonly madeFor: MadeFor = madeForNothing,
  ) {
    this.medium = mediumOf(session.document.kind)
  }

  /** Paragraphs that a reader sees, in reading order: what stands on no page, as prompts do, is not among them. */
  get texts(): readonly ProofText[] {
    return (this.known ??= this.readTexts())
  }

  /** Whether a paragraph takes no changes of its own: it is a generated index, or protected. */
  isFixed(text: ProofText): boolean {
    const known = this.fixed.get(text)
    if (known !== undefined) return known
    const { part, node } = text.paragraph
    const parsed = this.session.document.parts.get(part)
    const is = !parsed || whyNotEdit(this.session.document, parsed, node) !== null
    this.fixed.set(text, is)
    return is
  }

  /** The paragraph at a place, where a reader sees it. */
  textAt(part: string, node: number): ProofText | undefined {
    if (!this.byPlace) {
      this.byPlace = new ByPlace()
      for (const each of this.texts) this.byPlace.set(each.paragraph.part, each.paragraph.node, each)
    }
    return this.byPlace.get(part, node)
  }

  private readTexts(): ProofText[] {
    const { reading, composition } = this.session
    const where = pagesOf(composition)
    const roles = styleRoles(reading)
    return reading.stories
      .filter(({ role }) => role !== 'deletions' && role !== 'handout' && role !== 'master-notes')
      .flatMap(story =>
        paragraphsOf(story.blocks).flatMap((paragraph): ProofText[] => {
          if (paragraph.place === 'annotation' || paragraph.place === 'deletion') return []
          const page = where(paragraph.part, paragraph.node, 0, 1)[0] ?? -1
          if (page < 0) return []
          const { text, runs } = paragraphRuns(paragraph, reading.cascade, story.role)
          const own = reading.cascade.paragraph(paragraph, story.role).text
          const owner = own.owner?.style ?? null
          // What most of it is in: one word may be in another language, or in none.
          let lettered: TextRun | undefined
          for (const run of runs)
            if (
              run.end - run.start > (lettered ? lettered.end - lettered.start : 0) &&
              letters.test(text.slice(run.start, run.end))
            )
              lettered = run
          const said = (lettered?.style ?? own).effective.slots[lettered?.slot ?? 'western'].language
          return [
            {
              paragraph,
              story,
              text,
              runs,
              own,
              owner,
              role: owner ? (roles.get(styleKey(owner))?.role ?? null) : null,
              page,
              language: said === 'none' || said === 'zxx' ? '' : said,
              isCode: runs.length > 0 && runs.every(run => this.isCode(run)),
            },
          ]
        }),
      )
  }

  private isCode({ style, slot }: TextRun): boolean {
    return style.effective.slots[slot].font.pitch === 'fixed' || this.resolution(style, slot).face.monospaced
  }

  /** Where the lines of a paragraph stand, in reading order; none where no page has it. */
  linesOf({ paragraph }: ProofText): readonly SetLines[] {
    if (!this.lines) {
      this.lines = new ByPlace()
      for (const page of this.session.composition.pages)
        for (const fragment of page.fragments) if (fragment.kind === 'lines') this.putLines(page.index, fragment)
    }
    return this.lines.get(paragraph.part, paragraph.node) ?? []
  }

  private putLines(page: number, fragment: Extract<Fragment, { kind: 'lines' }>): void {
    const { layout, from, to, x, y, matrix } = fragment
    const { part, node } = layout.paragraph
    const lines: SetLines = { page, layout, from, to, x, y, turned: matrix !== undefined }
    const known = this.lines!.get(part, node)
    if (known) known.push(lines)
    else this.lines!.set(part, node, [lines])
  }

  /** The face that shows text of a style. */
  resolution(style: TextStyle, slot: Slot): Resolution {
    let own = this.resolutions.get(style)
    if (!own) this.resolutions.set(style, (own = {}))
    return (own[slot] ??= resolutionOf(this.session.typesetter.library, style, slot))
  }

  /** The size that most text of the body has, in points. */
  get bodySize(): number {
    const sizes = new Map<number, number>()
    for (const { role, runs } of this.texts)
      for (const run of role === 'body' || role === null ? runs : []) {
        const { size } = run.style.effective.slots[run.slot]
        sizes.set(size, (sizes.get(size) ?? 0) + run.end - run.start)
      }
    return [...sizes].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 12
  }
}

/** Letters and signs that are seen: spaces and what stands for objects are none. */
export function visibleCount(text: string): number {
  const visible = text.replace(/[\s\uFFFC]+/g, '')
  return /[\uD800-\uDBFF]/.test(visible) ? [...visible].length : visible.length
}

/** A stretch of a paragraph under proof, as wishes name it. */
export const stretchOf = ({ paragraph: { part, node } }: ProofText, from: number, to: number): Stretch => ({
  part,
  node,
  from,
  to,
})

/** The whole of a paragraph as a place. */
export const wholeOf = (text: ProofText) => ({ text, from: 0, to: text.text.length })

/** A run that has letters or figures to see, with the values of its slot. */
export interface SeenRun {
  readonly run: TextRun
  readonly words: string
  readonly values: SlotValues
  readonly color: string
}

/** Nearly every check goes through the runs: they are gathered once for each paragraph. */
const seen = new WeakMap<ProofText, readonly SeenRun[]>()

/** Runs that have letters or figures to see. */
export function seenRuns(text: ProofText): readonly SeenRun[] {
  const known = seen.get(text)
  if (known) return known
  const runs = text.runs.flatMap((run): SeenRun[] => {
    const words = text.text.slice(run.start, run.end)
    if (run.inline.kind === 'note' || run.inline.kind === 'frame' || !hasVisible.test(words)) return []
    return [{ run, words, values: run.style.effective.slots[run.slot], color: colorOf(run.style) }]
  })
  seen.set(text, runs)
  return runs
}
/** Anything but white space and what stands for objects. */
const hasVisible = /[^\s\uFFFC]/

/**
 * Places of one sort told once for each style, the first with how many there are: what a style says is put right there,
 * and a list of its paragraphs says no more.
 */
export function firstOfEach<T extends { readonly text: ProofText }>(
  places: Iterable<T>,
  keyFor: (place: T) => string,
): (T & { readonly all: readonly T[] })[] {
  const groups = new Map<string, T[]>()
  for (const place of places) {
    const key = `${place.text.owner?.name ?? ''}\n${keyFor(place)}`
    const group = groups.get(key)
    if (group) group.push(place)
    else groups.set(key, [place])
  }
  return [...groups.values()].map(all => ({ ...all[0]!, all }))
}
