import { isSymbolFamily } from '../document/font-references'
import type { Paragraph, Place } from '../document/story-model'
import { paragraphsOf } from '../document/stories'
import type { Library, Resolution } from '../font/library'
import type { StyledText } from '../style/reading'
import { objectSign, paragraphRuns, type TextRun } from '../style/runs'
import type { Composition } from '../typeset/compose'
import type { Occurrence } from './occurrence'
import { resolutionOf } from './resolution'
import { objectPages, pagesOf } from './text-pages'
import { faceKey, voiceKey, voiceOf, type VoiceLook } from './voices'

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
      for (const paragraph of paragraphsOf(story.blocks)) {
        const { text, runs } = paragraphRuns(paragraph, cascade, story.role)
        const voices = new Set<string>()
        const first = this.occurrences.length
        for (const run of runs) {
          const shown =
            run.inline.kind === 'note' ? run.inline.citation : text.slice(run.start, run.end).replaceAll(objectSign, '')
          if (shown === '') continue
          const pages =
            prefix === ''
              ? this.pagesOf(paragraph.part, paragraph.node, run.start, run.end)
              : this.pagesOfObject(prefix)
          voices.add(this.count(paragraph, run, shown, pages, first))
        }
        if (voices.size > 1) for (const voice of voices) this.voices.get(voice)!.whole = false
      }
  }

  /** Counts one stretch and answers its voice. `first` is where the occurrences of its paragraph begin. */
  private count(
    paragraph: Paragraph,
    { style, slot, start, end }: TextRun,
    shown: string,
    pages: readonly number[],
    first: number,
  ): string {
    let characters = 0
    for (const _ of shown) characters++
    const look = voiceOf(style, slot)
    const [face, voice] = [faceKey(look), voiceKey(look)]
    const resolution = resolutionOf(this.library, style, slot)
    const settled = style.settled(slot)
    this.characters += characters
    if (settled) this.settledCharacters += characters
    const { font } = style.effective.slots[slot]
    const local = style.effective.layers[font.layer]?.local ?? false
    const blank = /^\s*$/.test(shown)
    for (const [into, key] of [
      [this.faces, face],
      [this.voices, voice],
    ] as const) {
      let own = into.get(key)
      if (!own) into.set(key, (own = new Tally(look, resolution, isSymbolFamily(look.family, font.charset))))
      own.characters += characters
      if (settled) own.settled += characters
      if (local) own.stray += characters
      if (!blank) own.spaces = false
      if (settled) own.unowned = false
      own.styles.add(style.owner ? style.owner.style.displayName : 'no style')
      for (const page of pages) own.pages.add(page)
    }
    const previous = this.occurrences.length > first ? this.occurrences.at(-1) : undefined
    if (previous?.voice === voice && previous.end === start)
      this.occurrences[this.occurrences.length - 1] = { ...previous, end }
    else {
      const { part, node, place } = paragraph
      this.faces.get(face)!.places[place]++
      this.voices.get(voice)!.places[place]++
      this.occurrences.push({ part, node, start, end, page: pages[0] ?? -1, face, voice, place })
    }
    return voice
  }
}
