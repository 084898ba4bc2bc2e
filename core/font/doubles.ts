import type { CatalogueEntry } from './catalogue'
import { faceName, type FaceMeasures, type FaceRecord } from './face'

/** Something of a family that is there twice. */
export interface Double {
  /** `clash`: two files say that they are one face. `alike`: another family has the same drawings. */
  readonly kind: 'clash' | 'alike'
  readonly said: string
}

/** What two drawings of one design agree in, whatever they are called: heights, strokes, widths. Thousandths of an em. */
const compared = [
  'xHeight',
  'capHeight',
  'ascender',
  'descender',
  'stem',
  'hairline',
  'widthM',
  'widthN',
  'widthO',
  'averageWidth',
] as const satisfies readonly (keyof FaceMeasures)[]

/** One design in two files agrees to the rounding of measures and of grids: a thousandth of an em. */
const within = 1

function sameDrawing({ measures: one }: FaceRecord, { measures: other }: FaceRecord): boolean {
  return compared.every(name => {
    const [a, b] = [one[name], other[name]]
    return a === null || b === null ? a === b : Math.abs(a - b) <= within
  })
}

const characters = ({ ranges }: FaceRecord): number =>
  ranges.reduce((sum, code, at) => (at % 2 === 0 ? sum - code + 1 : sum + code), 0)

/** Faces of a family that two files claim to be: two versions of one file, most likely. */
function clashes({ family, faces }: CatalogueEntry): Double[] {
  const seen = new Map<string, FaceRecord>()
  return faces.flatMap((face): Double[] => {
    const key = JSON.stringify([face.weight, face.slant, face.width, face.style])
    const other = seen.get(key)
    if (!other) {
      seen.set(key, face)
      return []
    }
    const [one, two] = [characters(other), characters(face)]
    const how = one === two ? 'with the same characters' : `of ${one} and ${two} characters`
    return [{ kind: 'clash', said: `two files are ${faceName(family, face.style)}, ${how}: the first is taken` }]
  })
}

/**
 * What is in the library twice, by family: two files that claim to be one face, and one design under two names. Measures of
 * a few hundred families are compared by their heights first, so that each meets only those that are near.
 */
export function doublesOf(entries: readonly CatalogueEntry[]): ReadonlyMap<string, readonly Double[]> {
  const found = new Map<string, Double[]>()
  const add = (family: string, double: Double) => found.set(family, [...(found.get(family) ?? []), double])
  for (const entry of entries) for (const clash of clashes(entry)) add(entry.family, clash)
  const drawn = entries.filter(({ plain }) => plain.measures.stem > 0 && plain.measures.xHeight > 0)
  const sorted = [...drawn].sort((a, b) => a.plain.measures.xHeight - b.plain.measures.xHeight)
  sorted.forEach((one, at) => {
    for (let next = at + 1; next < sorted.length; next++) {
      const other = sorted[next]!
      if (other.plain.measures.xHeight - one.plain.measures.xHeight > within) break
      if (!sameDrawing(one.plain, other.plain)) continue
      add(one.family, {
        kind: 'alike',
        said: `drawn alike as ${other.family}: one design under two names, by its measures`,
      })
      add(other.family, {
        kind: 'alike',
        said: `drawn alike as ${one.family}: one design under two names, by its measures`,
      })
    }
  })
  return found
}
