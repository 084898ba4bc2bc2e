import type { Occurrence } from '../census/occurrence'
import { resolutionOf } from '../census/resolution'
import { pagesOf } from '../census/text-pages'
import { paragraphsOf } from '../document/stories'
import type { Paragraph, Story } from '../document/story-model'
import { sameFamily } from '../document/font-family'
import type { Slot } from '../document/font-attributes'
import type { Library } from '../font/library'
import { weightBeyond } from '../font/named-weight'
import type { TextStyle } from '../style/cascade'
import { plainNumber } from '../style/describe'
import type { Reading } from '../style/reading'
import { objectSign, paragraphRuns, type TextRun } from '../style/runs'
import type { Composition } from '../typeset/compose'
import { mediumOf, settingsOf, type House, type Medium } from './house'
import { legibility } from './legibility'
import { familiesOfSetting } from './setting-values'
import { levelOf, paragraphOwner } from './to-style'

/** What a house sets limits to, and what its room or a reader's eye does. */
export type Limit = 'size' | 'legibility' | 'face' | 'families' | 'level' | 'words' | 'measure' | 'contrast'

/** What goes beyond a limit of a house. */
export interface BeyondLimit {
  readonly limit: Limit
  /** The limit in words: “Smaller than 8 pt”. What has one title belongs together. */
  readonly title: string
  /** What is beyond it: “7.5 pt”. */
  readonly says: string
  readonly characters: number
  /** In reading order; at most `placeLimit`. */
  readonly places: readonly Occurrence[]
}

/** As many places of each kind are walked through. */
export const placeLimit = 500

/** Lines that a paragraph needs, the last one aside, before its measure is told. */
const fullLines = 2

type Said = Pick<BeyondLimit, 'limit' | 'title' | 'says'>

/** Gathers what goes beyond a limit: places that say the same become one entry. */
class Beyond {
  private readonly entries = new Map<string, Said & { characters: number; places: Occurrence[] }>()
  constructor(private readonly pageOf: ReturnType<typeof pagesOf>) {}

  add(said: Said, paragraph: Paragraph, start: number, end: number, characters: number): void {
    const key = JSON.stringify([said.title, said.says])
    const entry = this.entries.get(key) ?? { ...said, characters: 0, places: [] }
    this.entries.set(key, entry)
    entry.characters += characters
    const { part, node, place } = paragraph
    const last = entry.places.at(-1)
    if (last?.node === node && last.part === part && last.end === start)
      entry.places[entry.places.length - 1] = { ...last, end }
    else if (entry.places.length < placeLimit) {
      const page = this.pageOf(part, node, start, end)[0] ?? -1
      entry.places.push({ part, node, place, start, end, page, face: '', voice: '' })
    }
  }

  list(): BeyondLimit[] {
    return [...this.entries.values()].sort((a, b) => b.characters - a.characters)
  }
}

const visible = (text: string): number => [...text.replaceAll(objectSign, '').replace(/\s/g, '')].length

const segmenter = new Intl.Segmenter(undefined, { granularity: 'word' })
/** Words as Unicode has them (UAX 29), so that texts without spaces have words, too. */
const wordsIn = (text: string): number => [...segmenter.segment(text)].filter(each => each.isWordLike).length

/** Whether people see the story as the document goes: speaker notes and handouts are for other eyes. */
const isShown = ({ role }: Story): boolean =>
  role !== 'deletions' && role !== 'notes' && role !== 'master-notes' && role !== 'handout'

/** The families that a house has: allowed ones, and those of its roles in any medium and script. */
const familiesOf = (house: House): string[] => [
  ...house.faces.map(each => each.family),
  ...house.roles
    .flatMap(settingsOf)
    .flatMap(setting => Object.values(familiesOfSetting(setting)))
    .filter(each => each !== undefined),
]

/** A family as the house calls it: “Jost Medium” is its Jost in another weight. */
function familyFor(house: House, family: string): string {
  return familiesOf(house).find(each => weightBeyond(family, each) !== null) ?? family
}

/** What text of one look is beyond: its size, how that looks from where it is read, and its family. */
function checkLook(style: TextStyle, slot: Slot, house: House, library: Library, medium: Medium, height?: number) {
  const { size, font } = style.effective.slots[slot]
  const family = familyFor(house, font.family)
  const said: Said[] = []
  const smallest = house.limits.smallest[medium]
  if (smallest !== undefined && size < smallest - 0.05)
    said.push({
      limit: 'size',
      title: `Smaller than ${plainNumber(smallest)} pt`,
      says: `${plainNumber(size)} pt`,
    })
  const { measures } = resolutionOf(library, style, slot).face
  const seen = legibility(size, measures.xHeight, medium, house.room, height)
  if (!seen.enough)
    said.push({
      limit: 'legibility',
      title: `Too small to read with ease ${seen.from}`,
      says: `${plainNumber(size)} pt of ${font.family}; ${plainNumber(seen.would)} pt would do`,
    })
  if (house.faces.length > 0 && !familiesOf(house).some(each => sameFamily(each, family)))
    said.push({ limit: 'face', title: 'Not among the faces of the house', says: font.family || 'no font' })
  return { said, family }
}

/** Letters that the lines of a paragraph hold, spaces with them, its last line aside; by where it stands. */
function checkMeasure(composition: Composition, { limits: { measure } }: House, beyond: Beyond): void {
  if (!measure) return
  for (const page of composition.pages)
    for (const fragment of page.fragments) {
      if (fragment.kind !== 'lines' || fragment.from !== 0) continue
      const { paragraph, lines } = fragment.layout
      if (paragraph.place !== 'body' || lines.length <= fullLines) continue
      const full = lines.slice(0, -1).map(line => line.end - line.start)
      const letters = Math.round(full.reduce((sum, each) => sum + each, 0) / full.length)
      if (letters >= measure.least && letters <= measure.most) continue
      const title = `Not ${measure.least} to ${measure.most} letters a line`
      const says = letters < measure.least ? 'fewer' : 'more'
      const end = lines.at(-1)!.end
      beyond.add({ limit: 'measure', title, says }, paragraph, 0, end, end)
    }
}

/** Where each family is. */
type Families = Map<string, { paragraph: Paragraph; start: number; end: number; characters: number }[]>

function checkFamilies(families: Families, { limits }: House, beyond: Beyond): void {
  if (limits.families === undefined) return
  const sum = (places: readonly { readonly characters: number }[]) =>
    places.reduce((all, each) => all + each.characters, 0)
  const title = limits.families === 1 ? 'More than one family' : `More than ${limits.families} families`
  for (const [says, places] of [...families].sort((a, b) => sum(b[1]) - sum(a[1])).slice(limits.families))
    for (const { paragraph, start, end, characters } of places)
      beyond.add({ limit: 'families', title, says }, paragraph, start, end, characters)
}

/** The words on each slide, by its page. */
type Slides = Map<number, { words: number; paragraphs: { paragraph: Paragraph; text: string }[] }>

function checkSlides(slides: Slides, { limits }: House, composition: Composition | null, beyond: Beyond): void {
  const most = limits.wordsPerSlide
  if (most === undefined) return
  for (const [page, { words, paragraphs }] of [...slides].sort(([a], [b]) => a - b)) {
    if (words <= most) continue
    const says = `slide ${composition?.pages[page]?.number ?? page + 1}: ${words} words`
    for (const { paragraph, text } of paragraphs)
      beyond.add(
        { limit: 'words', title: `More than ${most} words on a slide`, says },
        paragraph,
        0,
        text.length,
        visible(text),
      )
  }
}

/**
 * What in a document goes beyond the limits of a house. Sizes are those that are set; raised and lowered characters are
 * judged by them, too. Words of slides, and letters in a line, need a composition: without one they are not told.
 */
export function beyondLimits(
  reading: Reading,
  library: Library,
  composition: Composition | null,
  house: House,
): BeyondLimit[] {
  const medium = mediumOf(reading.document.kind)
  const height = medium === 'deck' ? composition?.pages[0]?.geometry.height : undefined
  const pageOf = pagesOf(composition)
  const beyond = new Beyond(pageOf)
  const looks = new Map<TextStyle, Map<Slot, ReturnType<typeof checkLook>>>()
  const look = ({ style, slot }: TextRun) => {
    const bySlot = looks.get(style) ?? new Map<Slot, ReturnType<typeof checkLook>>()
    looks.set(style, bySlot)
    const known = bySlot.get(slot) ?? checkLook(style, slot, house, library, medium, height)
    bySlot.set(slot, known)
    return known
  }
  const { deepestLevel } = house.limits
  const families: Families = new Map()
  const slides: Slides = new Map()
  for (const story of reading.stories.filter(isShown))
    for (const paragraph of paragraphsOf(story.blocks)) {
      const { text, runs } = paragraphRuns(paragraph, reading.cascade, story.role)
      // What stands nowhere, as prompts of placeholders do, is seen by nobody.
      if (visible(text) === 0 || (composition && pageOf(paragraph.part, paragraph.node, 0, text.length).length === 0))
        continue
      for (const run of runs) {
        const characters = visible(text.slice(run.start, run.end))
        if (characters === 0) continue
        const { said, family } = look(run)
        for (const each of said) beyond.add(each, paragraph, run.start, run.end, characters)
        const places = families.get(family) ?? []
        families.set(family, places)
        places.push({ paragraph, start: run.start, end: run.end, characters })
      }
      if (medium !== 'deck' || story.role !== 'page') continue
      const level = levelOf(
        paragraph,
        paragraphOwner(reading.cascade.paragraph(paragraph, story.role).text)?.name ?? '',
      )
      if (deepestLevel !== undefined && level > deepestLevel)
        beyond.add(
          { limit: 'level', title: `Deeper than level ${deepestLevel}`, says: `level ${level}` },
          paragraph,
          0,
          text.length,
          visible(text),
        )
      for (const page of pageOf(paragraph.part, paragraph.node, 0, text.length)) {
        const slide = slides.get(page) ?? { words: 0, paragraphs: [] }
        slides.set(page, slide)
        slide.words += wordsIn(text)
        slide.paragraphs.push({ paragraph, text })
      }
    }
  checkFamilies(families, house, beyond)
  checkSlides(slides, house, composition, beyond)
  if (composition) checkMeasure(composition, house, beyond)
  return beyond.list()
}
