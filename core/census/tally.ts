import type { Paragraph, Place, Story } from '../document/story-model'
import { paragraphsOf } from '../document/stories'
import type { Library, Resolution } from '../font/library'
import type { Cascade } from '../style/cascade'
import type { StyledText } from '../style/reading'
import type { Composition } from '../typeset/compose'
import { countedRuns, type CountedRun } from './counted-text'
import type { Occurrence } from './occurrence'
import { objectPages, pagesOf } from './text-pages'
import type { VoiceLook } from './voices'

type Counts = Record<Place | 'master' | 'default', number>
const noCounts = (): Counts => ({
  body: 0,
  frame: 0,
  table: 0,
  header: 0,
  note: 0,
  chart: 0,
  annotation: 0,
  deletion: 0,
  master: 0,
  default: 0,
})

/** What is counted of one face or voice. */
export class Tally {
  characters = 0
  settled = 0
  stray = 0
  /** All of it is white space so far. */
  spaces = true
  unowned = true
  /** Every paragraph that has it has nothing else so far. */
  whole = true
  readonly styles = new Set<string>()
  readonly pages = new Set<number>()
  readonly places = noCounts()

  constructor(
    readonly look: VoiceLook,
    readonly resolution: Resolution,
    readonly symbols: boolean,
  ) {}
}

/** Counts text by face and by voice, and keeps where each stretch of one voice is. */
export class TextTally {
  readonly faces = new Map<string, Tally>()
  readonly voices = new Map<string, Tally>()
  readonly occurrences: Occurrence[] = []
  characters = 0
  settledCharacters = 0
  private readonly pagesOf: ReturnType<typeof pagesOf>
  private readonly pagesOfObject: ReturnType<typeof objectPages>

  /** Without a composition no pages are told. */
  constructor(
    private readonly library: Library,
    composition: Composition | null,
  ) {
    this.pagesOf = pagesOf(composition)
    this.pagesOfObject = objectPages(composition)
  }

  take({ stories, cascade, prefix }: StyledText): void {
    for (const story of stories)
      for (const paragraph of paragraphsOf(story.blocks)) this.add(paragraph, cascade, story.role, prefix)
  }

  private add(paragraph: Paragraph, cascade: Cascade, role: Story['role'], prefix: string): void {
    const first = this.occurrences.length
    let voice: string | null = null
    let several = false
    for (const run of countedRuns(paragraph, cascade, role, this.library)) {
      if (run.characters === 0) continue
      const pages =
        prefix === '' ? this.pagesOf(paragraph.part, paragraph.node, run.start, run.end) : this.pagesOfObject(prefix)
      this.count(paragraph, run, pages, first)
      if (voice !== null && voice !== run.of.voice) several = true
      voice = run.of.voice
    }
    if (several)
      for (const each of countedRuns(paragraph, cascade, role, this.library))
        if (each.characters > 0) this.voices.get(each.of.voice)!.whole = false
  }

  /** Counts one stretch. `first` is where the occurrences of its paragraph begin. */
  private count(paragraph: Paragraph, run: CountedRun, pages: readonly number[], first: number): void {
    const { of, characters, start, end } = run
    const { look, resolution, symbols, settled } = of
    this.characters += characters
    if (settled) this.settledCharacters += characters
    for (const [into, key] of [
      [this.faces, of.face],
      [this.voices, of.voice],
    ] as const) {
      let own = into.get(key)
      if (!own) into.set(key, (own = new Tally(look, resolution, symbols)))
      own.characters += characters
      if (settled) own.settled += characters
      if (of.local) own.stray += characters
      if (!run.blank) own.spaces = false
      if (settled) own.unowned = false
      own.styles.add(of.owner)
      for (const page of pages) own.pages.add(page)
    }
    const previous = this.occurrences.length > first ? this.occurrences.at(-1) : undefined
    if (previous?.voice === of.voice && previous.end === start) {
      this.occurrences[this.occurrences.length - 1] = { ...previous, end }
      return
    }
    const { part, node, place } = paragraph
    this.faces.get(of.face)!.places[place]++
    this.voices.get(of.voice)!.places[place]++
    this.occurrences.push({ part, node, start, end, page: pages[0] ?? -1, face: of.face, voice: of.voice, place })
  }
}
