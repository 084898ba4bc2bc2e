import { classify, type Classed } from './classify'
import { coveredScripts, type CoveredScript, type FaceRecord } from './face'
import { fitnessOf, type Fitness } from './fitness'
import { licenceOf, type Licence } from './licence'
import { nearest, type Library } from './library'

/** A family as people look for it: its faces, and what its plainest face says of all. */
export interface CatalogueEntry {
  readonly family: string
  readonly faces: readonly FaceRecord[]
  /** The face nearest to regular and upright: what the family is shown and judged by. */
  readonly plain: FaceRecord
  readonly classed: Classed
  readonly fitness: readonly Fitness[]
  readonly licence: Licence
  /** Weights there are, ascending, each once. */
  readonly weights: readonly number[]
  readonly hasItalic: boolean
  /** Scripts it has letters enough of to set words in. */
  readonly scripts: readonly CoveredScript[]
}

/** Letters below which a script is not set in words. Of Han, a few hundred are no help. */
const enough: Readonly<Record<CoveredScript, number>> = {
  Latin: 52,
  Greek: 48,
  Cyrillic: 60,
  Hebrew: 22,
  Arabic: 36,
  Devanagari: 50,
  Thai: 44,
  Han: 2000,
  Hiragana: 46,
  Katakana: 46,
  Hangul: 2000,
}

/** Scripts that a face has letters enough of. */
export const scriptsOf = ({ coverage }: FaceRecord): CoveredScript[] =>
  coveredScripts.filter(script => (coverage[script] ?? 0) >= enough[script])

const known = new WeakMap<FaceRecord, Pick<CatalogueEntry, 'classed' | 'fitness' | 'licence' | 'scripts'>>()

/** What is worked out from a face's measures, once for each. */
export function judgedOf(face: FaceRecord): Pick<CatalogueEntry, 'classed' | 'fitness' | 'licence' | 'scripts'> {
  let own = known.get(face)
  if (!own) {
    const classed = classify(face.measures)
    own = {
      classed,
      fitness: fitnessOf(face.measures, classed),
      licence: licenceOf(face),
      scripts: scriptsOf(face),
    }
    known.set(face, own)
  }
  return own
}

/** The families of a library, by name. */
export function catalogueOf(library: Library): CatalogueEntry[] {
  return library.familyNames.map(family => {
    const faces = library.family(family)
    const plain = nearest(faces, 400, false)
    return {
      family: plain.family,
      faces,
      plain,
      ...judgedOf(plain),
      weights: [...new Set(faces.map(face => face.weight))].sort((a, b) => a - b),
      hasItalic: faces.some(face => face.slant === 'italic'),
    }
  })
}
