import type { FaceRecord } from './face'

/** A face at the sizes at which it looks as large as another. Points, to a tenth. */
export interface EqualSize {
  readonly face: FaceRecord
  /** At which its small letters are as high; null where one of the two has none. */
  readonly byXHeight: number | null
  /** At which its capitals are as high. */
  readonly byCapitals: number | null
  /** Letters, spaces counted, in a line of the measure at the first of the two sizes. */
  readonly lettersInLine: number | null
}

const tenth = (value: number) => Math.round(value * 10) / 10

/** Letters and spaces of running text in a line, by the average width of letters as often as they occur. */
export function lettersInLine({ measures }: FaceRecord, size: number, measure: number): number {
  return Math.round(measure / ((measures.averageWidth * size) / 1000))
}

/**
 * Equal point sizes are not equally large: sizes at which faces look as large as a model at its size, by x-height and by
 * capitals.
 * @param size of the model, in points
 * @param measure length of a line, in points
 */
export function equalSizes(
  model: FaceRecord,
  size: number,
  faces: readonly FaceRecord[],
  measure: number,
): EqualSize[] {
  const equal = (mine: number, other: number) => (mine > 0 && other > 0 ? tenth((size * mine) / other) : null)
  return faces.map(face => {
    const byXHeight = equal(model.measures.xHeight, face.measures.xHeight)
    const byCapitals = equal(model.measures.capHeight, face.measures.capHeight)
    const own = byXHeight ?? byCapitals
    return { face, byXHeight, byCapitals, lettersInLine: own === null ? null : lettersInLine(face, own, measure) }
  })
}
