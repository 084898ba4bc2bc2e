import { colorReferences, countColors } from '../document/color-references'
import { fontReferences, isSymbolFamily, picturesWithText } from '../document/font-references'
import type { Slot } from '../document/font-attributes'
import { sameFamily } from '../document/font-family'
import { paragraphsOf, readStories } from '../document/stories'
import type { Place } from '../document/story-model'
import type { Library, Resolution } from '../font/library'
import { Cascade, type TextStyle } from '../style/cascade'
import { objectSign, paragraphRuns } from '../style/runs'
import type { Composition } from '../typeset/compose'
import type { Reading } from '../style/reading'
import { areTwins, faceKey, voiceKey, voiceOf, type VoiceLook } from './voices'

/**
 * Text by kind of place, and definitions by kind: `default` and `master` count styles that name the face, all
 * others stretches of text.
 */
export type PlaceCounts = Readonly<Record<Place | 'master' | 'default', number>>

export interface FaceCensus {
  readonly key: string
  readonly family: string
  readonly style: string
  readonly slot: Slot
  readonly status: Resolution['status']
  /** The face that shows it where it is absent or an alias. */
  readonly standIn: string | null
  /** Hash of the face that shows it. */
  readonly shownBy: string
  readonly reason: string
  readonly symbols: boolean
  readonly characters: number
  readonly share: number
  /** All its characters are white space: what a search by eye never finds. */
  readonly onlySpaces: boolean
  /** Names of the styles that own its text; local formatting counts to the style below it. */
  readonly styles: readonly string[]
  /** Characters that got the face by local formatting. */
  readonly strayCharacters: number
  /** Page indexes, from 0. */
  readonly pages: readonly number[]
  readonly places: PlaceCounts
}

export interface VoiceCensus extends VoiceLook {
  readonly key: string
  readonly face: string
  readonly status: Resolution['status']
  readonly shownBy: string
  readonly characters: number
  readonly share: number
  readonly styles: readonly string[]
  /** Nobody's: no named style says that this text should look so. */
  readonly unowned: boolean
  readonly settledCharacters: number
  readonly pages: readonly number[]
  readonly places: PlaceCounts
  /** Key of the more frequent voice it can be taken for. */
  readonly twinOf: string | null
}

/** How a text frame is filled. */
export interface FrameCensus {
  readonly name: string
  /** Index of the page where it runs over; null where it does not. */
  readonly page: number | null
  /** Lines and characters that have no room. */
  readonly lines: number
  readonly characters: number
  /** Height left empty, in points. */
  readonly room: number
}

/** One stretch of text in one voice, to walk to. */
export interface Occurrence {
  readonly part: string
  readonly node: number
  readonly start: number
  readonly end: number
  readonly page: number
  readonly face: string
  readonly voice: string
  readonly place: Place
}

/**
 * What a document's text looks like, and how much of it.
 *
 * A character is a Unicode code point of text as a reader sees it: after OpenDocument's white-space processing, with
 * text:s counted as its number of spaces and a tab or forced line break as one each. Fields and note citations count
 * with the text the file holds for them. Labels and bullets of lists, formulas, and frames themselves do not count.
 */
export interface Census {
  readonly document: {
    readonly kind: string
    readonly title: string
    readonly pages: number
    readonly unlaid: Composition['unlaid']
  }
  readonly characters: number
  /** Characters whose effective type values are those of their named styles. */
  readonly settledCharacters: number
  /** Settled characters over all characters; 1 for a document without text. */
  readonly settled: number
  readonly faces: readonly FaceCensus[]
  readonly voices: readonly VoiceCensus[]
  /** Families that are named somewhere while no text takes them. */
  readonly unused: readonly {
    readonly family: string
    readonly status: Resolution['status']
    readonly symbols: boolean
    readonly references: number
    readonly where: readonly string[]
  }[]
  /** Text frames, those that run over first. */
  readonly frames: readonly FrameCensus[]
  /** Colours that styles and objects name, with how often and for what. */
  readonly colors: ReturnType<typeof countColors>
  /** Vector pictures, whose fonts can only be told to exist. */
  readonly pictures: readonly string[]
}

export interface CensusDetail {
  readonly census: Census
  readonly occurrences: readonly Occurrence[]
}

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

interface Tally {
  characters: number
  settled: number
  stray: number
  spaces: boolean
  styles: Set<string>
  pages: Set<number>
  places: Counts
  unowned: boolean
  look: VoiceLook
  resolution: Resolution
  symbols: boolean
}

/** On which pages stretches of paragraphs are, by the lines on them; none without a composition. */
export function pagesOf(
  composition: Composition | null,
): (part: string, node: number, start: number, end: number) => number[] {
  const placed = new Map<string, { page: number; start: number; end: number }[]>()
  // Text of speaker notes counts to the page that they belong to.
  for (const page of composition ? [...composition.pages, ...composition.notes] : []) {
    for (const fragment of page.fragments) {
      if (fragment.kind !== 'lines') continue
      const { paragraph, lines } = fragment.layout
      const key = `${paragraph.part}#${paragraph.node}`
      const list = placed.get(key) ?? []
      placed.set(key, list)
      list.push({
        page: page.index,
        start: fragment.from === 0 ? 0 : lines[fragment.from]!.start,
        end: fragment.to >= lines.length ? Infinity : lines[fragment.to - 1]!.end,
      })
    }
  }
  return (part, node, start, end) => {
    const list = placed.get(`${part}#${node}`)
    if (!list) return []
    if (list.every(each => each.page === list[0]!.page)) return [list[0]!.page]
    return [...new Set(list.filter(each => each.start < end && each.end > start).map(each => each.page))]
  }
}

/** On which pages an object is drawn, by the folder of its parts. */
function objectPages(composition: Composition | null): (prefix: string) => number[] {
  const pages = new Map<string, Set<number>>()
  for (const page of composition ? [...composition.pages, ...composition.notes] : []) {
    for (const fragment of page.fragments) {
      const path =
        fragment.kind === 'object'
          ? `${fragment.href.replace(/^\.\//, '')}/`
          : fragment.kind === 'lines' && fragment.cascade
            ? fragment.layout.paragraph.part
            : ''
      if (path.includes('/'))
        pages.set(
          path.slice(0, path.lastIndexOf('/') + 1),
          (pages.get(path.slice(0, path.lastIndexOf('/') + 1)) ?? new Set()).add(page.index),
        )
    }
  }
  return prefix => [...(pages.get(prefix) ?? [])]
}

/** How the font that a style asks for in a slot is found. */
export function resolutionOf(library: Library, style: TextStyle, slot: Slot): Resolution {
  const { font, weight, posture } = style.effective.slots[slot]
  return library.resolve({
    family: font.family,
    styleName: font.styleName,
    weight,
    italic: posture !== 'normal',
    generic: font.generic,
    pitch: font.pitch,
    charset: font.charset,
    slot,
  })
}

function framesOf(composition: Composition | null): FrameCensus[] {
  return (composition?.fills ?? [])
    .map(({ part, node, name, room, over }) => ({
      name,
      room,
      lines: over?.lines ?? 0,
      characters: over?.characters ?? 0,
      page: over
        ? (composition!.overset.find(frame => frame.part === part && frame.node === node)?.page ?? null)
        : null,
    }))
    .sort((a, b) => b.lines - a.lines || a.name.localeCompare(b.name))
}

/** Takes the census. Without a composition no pages are told. */
export function takeCensus(reading: Reading, library: Library, composition: Composition | null): CensusDetail {
  const { document } = reading
  const faces = new Map<string, Tally>()
  const voices = new Map<string, Tally>()
  const occurrences: Occurrence[] = []
  const where = pagesOf(composition)
  const ofObject = objectPages(composition)
  let characters = 0
  let settledCharacters = 0

  const tally = (
    into: Map<string, Tally>,
    key: string,
    look: VoiceLook,
    resolution: Resolution,
    charset: string,
  ): Tally => {
    let own = into.get(key)
    if (!own)
      into.set(
        key,
        (own = {
          characters: 0,
          settled: 0,
          stray: 0,
          spaces: true,
          styles: new Set(),
          pages: new Set(),
          places: noCounts(),
          unowned: true,
          look,
          resolution,
          symbols: isSymbolFamily(look.family, charset),
        }),
      )
    return own
  }

  const sources = [{ stories: reading.stories, cascade: reading.cascade, prefix: '' }]
  for (const sub of document.subdocuments.slice(1))
    if (sub.content && sub.kind === 'chart')
      sources.push({
        stories: readStories(document.parts.get(sub.content)!),
        cascade: new Cascade(document, sub),
        prefix: sub.prefix,
      })

  for (const { stories, cascade, prefix } of sources) {
    for (const story of stories) {
      for (const paragraph of paragraphsOf(story.blocks)) {
        const { text, runs } = paragraphRuns(paragraph, cascade, story.role)
        let runAt = 0
        for (const run of runs) {
          const isNote = run.inline.kind === 'note'
          const shown = isNote
            ? (run.inline as { citation: string }).citation
            : text.slice(run.start, run.end).replaceAll(objectSign, '')
          let count = 0
          for (const _ of shown) count++
          if (count === 0) continue
          const { style, slot } = run
          const look = voiceOf(style, slot)
          const resolution = resolutionOf(library, style, slot)
          const face = faceKey(look)
          const voice = voiceKey(look)
          const settled = style.settled(slot)
          const pages = prefix === '' ? where(paragraph.part, paragraph.node, run.start, run.end) : ofObject(prefix)
          characters += count
          if (settled) settledCharacters += count
          const owner = style.owner
          const local = style.effective.layers[style.effective.slots[slot].font.layer]?.local ?? false
          const blank = /^\s*$/.test(shown)
          const { charset } = style.effective.slots[slot].font
          for (const own of [
            tally(faces, face, look, resolution, charset),
            tally(voices, voice, look, resolution, charset),
          ]) {
            own.characters += count
            if (settled) own.settled += count
            if (local) own.stray += count
            if (!blank) own.spaces = false
            if (settled) own.unowned = false
            own.styles.add(owner ? owner.style.displayName : 'no style')
            for (const page of pages) own.pages.add(page)
          }
          const previous: Occurrence | undefined = runAt > 0 ? occurrences.at(-1) : undefined
          runAt++
          if (previous && previous.voice === voice && previous.end === run.start)
            occurrences[occurrences.length - 1] = { ...previous, end: run.end }
          else {
            faces.get(face)!.places[paragraph.place]++
            voices.get(voice)!.places[paragraph.place]++
            occurrences.push({
              part: paragraph.part,
              node: paragraph.node,
              start: run.start,
              end: run.end,
              page: pages[0] ?? -1,
              face,
              voice,
              place: paragraph.place,
            })
          }
        }
      }
    }
  }

  const references = fontReferences(document)
  const named = new Map<string, { family: string; count: number; where: Set<string>; symbols: boolean }>()
  for (const reference of references) {
    for (const family of reference.families) {
      const used = [...faces.values()].filter(each => sameFamily(each.look.family, family))
      if (reference.kind === 'default' || reference.kind === 'master')
        for (const each of used) if (each.look.slot === reference.slot) each.places[reference.kind]++
      if (used.length > 0) continue
      const known = named.get(family.toLowerCase()) ?? {
        family,
        count: 0,
        where: new Set<string>(),
        symbols: reference.symbols,
      }
      known.count++
      if (reference.kind !== 'declaration') known.where.add(reference.owner)
      named.set(family.toLowerCase(), known)
    }
  }
  const share = (count: number) => (characters === 0 ? 0 : count / characters)
  const sorted = (pages: Set<number>) => [...pages].sort((a, b) => a - b)
  const byCharacters = <T extends { readonly characters: number; readonly key: string }>(a: T, b: T) =>
    b.characters - a.characters || a.key.localeCompare(b.key)
  const faceList = [...faces]
    .map(([key, own]): FaceCensus => ({
      key,
      family: own.look.family,
      style: own.look.style,
      slot: own.look.slot,
      status: own.resolution.status,
      standIn: own.resolution.status === 'present' ? null : own.resolution.face.fullName,
      shownBy: own.resolution.face.hash,
      reason: own.resolution.reason,
      symbols: own.symbols,
      characters: own.characters,
      share: share(own.characters),
      onlySpaces: own.spaces,
      styles: [...own.styles].sort(),
      strayCharacters: own.stray,
      pages: sorted(own.pages),
      places: own.places,
    }))
    .sort(byCharacters)
  const voiceList = [...voices]
    .map(([key, own]): VoiceCensus => ({
      ...own.look,
      key,
      face: faceKey(own.look),
      status: own.resolution.status,
      shownBy: own.resolution.face.hash,
      characters: own.characters,
      share: share(own.characters),
      styles: [...own.styles].sort(),
      unowned: own.unowned,
      settledCharacters: own.settled,
      pages: sorted(own.pages),
      places: own.places,
      twinOf: null,
    }))
    .sort(byCharacters)
  const withTwins = voiceList.map((voice, index) => ({
    ...voice,
    twinOf: voiceList.slice(0, index).find(other => areTwins(other, voice))?.key ?? null,
  }))
  return {
    census: {
      document: {
        kind: document.kind,
        title: document.title,
        pages: composition?.pages.length ?? 0,
        unlaid: composition?.unlaid ?? [],
      },
      characters,
      settledCharacters,
      settled: characters === 0 ? 1 : settledCharacters / characters,
      faces: faceList,
      voices: withTwins,
      unused: [...named.values()]
        .map(each => ({
          family: each.family,
          symbols: each.symbols,
          references: each.count,
          where: [...each.where].slice(0, 20),
          status: library.resolve({
            family: each.family,
            styleName: '',
            weight: 400,
            italic: false,
            generic: '',
            pitch: '',
            charset: '',
            slot: 'western',
          }).status,
        }))
        .sort((a, b) => a.family.localeCompare(b.family)),
      frames: framesOf(composition),
      colors: countColors(colorReferences(document)),
      pictures: picturesWithText(document),
    },
    occurrences,
  }
}
