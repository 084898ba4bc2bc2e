import { measuresIn, type FaceRecord } from './face'
import { coveredScripts, type CoveredScript } from './measure/covered-scripts'
import type { ScriptMeasures } from './measure/scripts'

/** A face at the sizes at which it looks as large as another in a script. Points, to a tenth. */
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

/** Letters and spaces of running text in a line, by the average width of letters as often as they occur; null of no letters. */
export function lettersInLine({ averageWidth }: ScriptMeasures, size: number, measure: number): number | null {
  return averageWidth > 0 ? Math.round(measure / ((averageWidth * size) / 1000)) : null
}

/** Scripts that all of some faces were measured in, so that they compare in them: that of the first one's letters first. */
export function scriptsShared(faces: readonly FaceRecord[]): CoveredScript[] {
  const [first] = faces
  const own = first?.measures.measuredOn
  return coveredScripts
    .filter(script => faces.length > 0 && faces.every(face => measuresIn(face, script) !== null))
    .sort((one, other) => Number(other === own) - Number(one === own))
}

/**
 * Equal point sizes are not equally large: sizes at which faces look as large as a model at its size, by x-height and by
 * capitals, in one script.
 * @param size of the model, in points
 * @param measure length of a line, in points
 */
export function equalSizes(
  model: FaceRecord,
  size: number,
  faces: readonly FaceRecord[],
  { measure, script }: { readonly measure: number; readonly script: CoveredScript },
): EqualSize[] {
  const equal = (mine = 0, other = 0) => (mine > 0 && other > 0 ? tenth((size * mine) / other) : null)
  const as = measuresIn(model, script)
  return faces.map(face => {
    const own = measuresIn(face, script)
    const byXHeight = equal(as?.xHeight, own?.xHeight)
    const byCapitals = equal(as?.capHeight, own?.capHeight)
    const at = byXHeight ?? byCapitals
    return { face, byXHeight, byCapitals, lettersInLine: at && own ? lettersInLine(own, at, measure) : null }
  })
}
