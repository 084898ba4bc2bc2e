import { classify, type Classed } from './classify'
import { scriptsOf, type FaceRecord } from './face'
import type { CoveredScript } from './measure/covered-scripts'
import { fitnessOf, type Fitness } from './fitness'
import { withHeld, type NamedLicence, type RightsHeld } from './held-licence'
import { judged, type Judgement } from './judgement'
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
  readonly licence: RightsHeld
  /** Weights there are, ascending, each once. */
  readonly weights: readonly number[]
  readonly hasItalic: boolean
  /** Scripts it has letters enough of to set words in. */
  readonly scripts: readonly CoveredScript[]
}

/** What is worked out of a face alone. */
export type Judged = Pick<CatalogueEntry, 'classed' | 'fitness' | 'scripts'> & { readonly licence: Licence }

const known = new WeakMap<FaceRecord, Judged>()

/** What is worked out from a face's measures, once for each. */
export function judgedOf(face: FaceRecord): Judged {
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

/** What people say of faces: the licences they hold, what they judge a family to be, and which day it is (ISO 8601). */
export interface SaidOfFaces {
  readonly licences: readonly NamedLicence[]
  readonly judgements: readonly Judgement[]
  readonly today: string
}

/** The families of a library, by name, with what people say of them. */
export function catalogueOf(
  library: Library,
  { licences, judgements, today }: SaidOfFaces = { licences: [], judgements: [], today: '' },
): CatalogueEntry[] {
  return library.familyNames.map(family => {
    const faces = library.family(family)
    const plain = nearest(faces, 400, false)
    const worked = judgedOf(plain)
    const classed = judged(plain.family, worked.classed, judgements)
    return {
      family: plain.family,
      faces,
      plain,
      ...worked,
      classed,
      fitness: classed === worked.classed ? worked.fitness : fitnessOf(plain.measures, classed),
      licence: withHeld(plain.family, worked.licence, licences, today),
      weights: [...new Set(faces.map(face => face.weight))].sort((a, b) => a - b),
      hasItalic: faces.some(face => face.slant === 'italic'),
    }
  })
}
