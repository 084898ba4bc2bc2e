import { colorReferences, countColors } from '../document/color-references'
import { fontReferences, picturesWithText } from '../document/font-references'
import type { Slot } from '../document/font-attributes'
import { sameFamily } from '../document/font-family'
import type { OdfDocument } from '../document/open'
import type { Place } from '../document/story-model'
import type { Library, Resolution } from '../font/library'
import type { Composition } from '../typeset/compose'
import type { Reading } from '../style/reading'
import type { Occurrence } from './occurrence'
import { resolutionOfName } from './resolution'
import { TextTally } from './tally'
import { areTwins, faceKey, type VoiceLook } from './voices'

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
  /** Every paragraph that has it is in it from end to end. */
  readonly whole: boolean
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
  const counting = countInSlices(reading, library, composition)
  for (;;) {
    const { done, value } = counting.next()
    if (done) return value
  }
}

/** So many stretches of text are counted in a slice: some milliseconds. */
const textsAtOnce = 1000

/** The same, a slice at a time: whoever counts may let others go first between two. */
export function* countInSlices(
  reading: Reading,
  library: Library,
  composition: Composition | null,
): Generator<void, CensusDetail> {
  const { document } = reading
  const tally = new TextTally(library, composition)
  let counted = 0
  for (const text of reading.texts) {
    tally.take(text)
    if (++counted % textsAtOnce === 0) yield
  }
  // What is only named is counted to the faces that have it, and told apart.
  const unused = namedOnly(document, tally, library)
  const { characters, settledCharacters, occurrences } = tally
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
      faces: facesOf(tally),
      voices: voicesOf(tally),
      unused,
      frames: framesOf(composition),
      colors: countColors(colorReferences(document)),
      pictures: picturesWithText(document),
    },
    occurrences,
  }
}

/** Families that are named where no text takes them. Defaults and masters that name a face count to its places. */
function namedOnly(document: OdfDocument, { faces }: TextTally, library: Library): Census['unused'] {
  const named = new Map<string, { family: string; count: number; where: Set<string>; symbols: boolean }>()
  for (const reference of fontReferences(document)) {
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
  return [...named.values()]
    .map(({ family, symbols, count, where }) => ({
      family,
      symbols,
      references: count,
      where: [...where].slice(0, 20),
      status: resolutionOfName(library, family).status,
    }))
    .sort((a, b) => a.family.localeCompare(b.family))
}

/** Of what is counted there is some: what has no letters has no faces either. */
const shareOf = (tally: TextTally, count: number) => count / tally.characters
const inOrder = (pages: ReadonlySet<number>) => [...pages].sort((a, b) => a - b)
const byCharacters = <T extends { readonly characters: number; readonly key: string }>(a: T, b: T) =>
  b.characters - a.characters || a.key.localeCompare(b.key)

function facesOf(tally: TextTally): FaceCensus[] {
  return [...tally.faces]
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
      share: shareOf(tally, own.characters),
      onlySpaces: own.spaces,
      styles: [...own.styles].sort(),
      strayCharacters: own.stray,
      pages: inOrder(own.pages),
      places: own.places,
    }))
    .sort(byCharacters)
}

function voicesOf(tally: TextTally): VoiceCensus[] {
  const list = [...tally.voices]
    .map(([key, own]): VoiceCensus => ({
      ...own.look,
      key,
      face: faceKey(own.look),
      status: own.resolution.status,
      shownBy: own.resolution.face.hash,
      characters: own.characters,
      share: shareOf(tally, own.characters),
      styles: [...own.styles].sort(),
      unowned: own.unowned,
      settledCharacters: own.settled,
      whole: own.whole,
      pages: inOrder(own.pages),
      places: own.places,
      twinOf: null,
    }))
    .sort(byCharacters)
  return list.map((voice, index) => ({
    ...voice,
    twinOf: list.slice(0, index).find(other => areTwins(other, voice))?.key ?? null,
  }))
}
