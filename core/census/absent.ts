import { sameFamily } from '../document/font-family'
import type { Library } from '../font/library'
import type { AbsentName } from '../font/suggest'
import type { Reading } from '../style/reading'
import { percent } from '../style/properties'
import type { Composition } from '../typeset/compose'
import type { PageView } from '../typeset/drawing-pages'
import { AbsentTally, type AbsentFamily } from './absent-tally'
import type { Occurrence } from './census'

/** Where an absent face is called for, as a designer thinks of it. */
export const absentLayers = [
  'style',
  'stray',
  'default',
  'chart',
  'note',
  'master',
  'header',
  'off-page',
  'bullet',
  'formula',
  'declaration',
  'other',
] as const
export type AbsentLayer = (typeof absentLayers)[number]

/**
 * A family that the document names and the library lacks; of an `alias` the library has one that is made to take
 * its place.
 */
export interface AbsentFace {
  readonly status: 'absent' | 'alias'
  /** As the file has it. */
  readonly family: string
  readonly symbols: boolean
  readonly characters: number
  readonly onlySpaces: boolean
  /** Paragraphs without text whose mark is set in it. */
  readonly emptyMarks: number
  readonly layers: readonly {
    readonly layer: AbsentLayer
    readonly references: number
    readonly characters: number
    readonly owners: readonly string[]
  }[]
  readonly pages: readonly number[]
  /** The family that shows it here, with the reason; '' where no text is set in it. */
  readonly standIn: string
  readonly reason: string
  /** What is known of it, for suggestions. */
  readonly name: AbsentName
  /** Font files that the document carries for it, by their paths in the package. */
  readonly files: readonly string[]
  /** Its characters, each once. */
  readonly codePoints: readonly number[]
}

/** One place of an absent face. An empty one is a paragraph's mark: an empty line that nobody sees. */
export interface AbsentPlace extends Occurrence {
  readonly family: string
  readonly layer: AbsentLayer
  readonly text: string
  readonly empty: boolean
  readonly view: PageView
}

export interface AbsentList {
  readonly faces: readonly AbsentFace[]
  readonly places: readonly AbsentPlace[]
}

/** Every absent family with its places, most text first. Text in the marks of empty paragraphs counts no characters. */
export function listAbsent(reading: Reading, library: Library, composition: Composition): AbsentList {
  const tally = new AbsentTally(library, composition)
  for (const text of reading.texts) tally.takeText(text)
  tally.takeReferences(reading.document)
  tally.takeDeclarations(reading.document)
  const faces = [...tally.families.values()]
    .map((own): AbsentFace => ({
      family: own.family,
      status: tally.statusOf(own.family) === 'alias' ? 'alias' : 'absent',
      symbols: own.symbols,
      characters: own.characters,
      onlySpaces: own.characters > 0 && own.spaces,
      emptyMarks: own.emptyMarks,
      layers: absentLayers.flatMap(layer => {
        const found = own.layers.get(layer)
        return found ? [{ ...found, layer, owners: [...found.owners].slice(0, 30) }] : []
      }),
      pages: [...own.pages].sort((a, b) => a - b),
      standIn: own.standIn,
      reason: own.reason,
      name: nameOf(own),
      files: [...new Set(own.declarations.flatMap(face => face.files))],
      codePoints: [...own.codePoints],
    }))
    .sort(
      (a, b) =>
        a.status.localeCompare(b.status) ||
        b.characters - a.characters ||
        b.emptyMarks - a.emptyMarks ||
        a.family.localeCompare(b.family),
    )
  return { faces, places: tally.places.filter(place => faces.some(face => sameFamily(face.family, place.family))) }
}

/** What the document says of a family beside its name. */
function nameOf(own: AbsentFamily): AbsentName {
  const stated = (attribute: string) =>
    own.declarations.map(face => face.attributes[attribute]).find(value => value !== undefined && value !== '') ?? ''
  const upem = Number.parseFloat(stated('svg:units-per-em')) || 1000
  const measure = (attribute: string): number | null => {
    const value = Number.parseFloat(stated(attribute))
    return Number.isFinite(value) && value > 0 ? (percent(stated(attribute)) ?? value / upem) * 1000 : null
  }
  const measures = {
    xHeight: measure('svg:x-height'),
    capHeight: measure('svg:cap-height'),
    stem: measure('svg:stemv'),
  }
  const [most] = [...own.looks].sort((a, b) => b.characters - a.characters)
  return {
    family: own.family,
    generic: stated('style:font-family-generic'),
    pitch: stated('style:font-pitch'),
    panose: stated('svg:panose-1')
      .split(/\s+/)
      .filter(value => /^\d+$/.test(value))
      .map(Number),
    stated: Object.fromEntries(
      Object.entries(measures).filter((entry): entry is [string, number] => entry[1] !== null),
    ),
    weight: most?.weight ?? 400,
    italic: most?.italic ?? false,
  }
}
