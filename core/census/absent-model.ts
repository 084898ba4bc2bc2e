import type { AbsentName } from '../font/suggest'
import type { PageView } from '../typeset/drawing-pages'
import type { Occurrence } from './occurrence'

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
