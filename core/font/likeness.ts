import { classify } from './classify'
import type { FaceMeasures } from './face'

/** One thing in which two faces are compared. */
export interface LikenessPart {
  readonly name: string
  /** How far apart, in steps that a reader begins to see. */
  readonly steps: number
  readonly one: number
  readonly other: number
}

/** How far apart two faces are in proportions or in detail: the root of the mean square of the parts. */
export interface Likeness {
  readonly distance: number
  readonly parts: readonly LikenessPart[]
}

interface Feature {
  readonly name: string
  /** A difference of this much is one step. */
  readonly step: number
  readonly of: (measures: FaceMeasures) => number | null
}

const overXHeight = (value: number | null, { xHeight }: FaceMeasures) =>
  value === null || xHeight <= 0 ? null : value / xHeight

/** The skeleton: what stays alike in faces that one hand drew to go together, whatever their class. */
const proportions: readonly Feature[] = [
  {
    name: 'x-height to capitals',
    step: 0.025,
    of: m => (m.capHeight > 0 && m.xHeight > 0 ? m.xHeight / m.capHeight : null),
  },
  { name: 'x-height', step: 16, of: m => (m.xHeight > 0 ? m.xHeight : null) },
  { name: 'cap height', step: 16, of: m => (m.capHeight > 0 ? m.capHeight : null) },
  {
    name: 'ascender to capitals',
    step: 0.035,
    of: m => (m.capHeight > 0 && m.ascender > 0 ? m.ascender / m.capHeight : null),
  },
  { name: 'descender', step: 24, of: m => (m.descender > 0 ? m.descender : null) },
  { name: 'width of o', step: 0.07, of: m => overXHeight(m.widthO, m) },
  // Without serifs, so that faces with and without can be alike.
  { name: 'width of n', step: 0.07, of: m => overXHeight(m.acrossN, m) },
  { name: 'width of H', step: 0.09, of: m => (m.acrossH !== null && m.capHeight > 0 ? m.acrossH / m.capHeight : null) },
  { name: 'roundness', step: 0.025, of: m => m.roundness },
  { name: 'aperture', step: 0.12, of: m => m.aperture },
  { name: 'storeys of a', step: 1, of: m => m.storeysA },
  { name: 'storeys of g', step: 2, of: m => m.storeysG },
]

/** What the skeleton is dressed in. */
const detail: readonly Feature[] = [
  { name: 'weight', step: 0.03, of: m => (m.stem > 0 && m.xHeight > 0 ? m.stem / m.xHeight : null) },
  { name: 'contrast', step: 0.22, of: m => (m.contrast === null ? null : Math.log2(m.contrast)) },
  { name: 'serifs', step: 0.45, of: m => Math.min(Math.max(m.foot, 1), 3) },
  { name: 'serif height', step: 0.2, of: m => (m.stem > 0 ? (m.serif ?? 0) / m.stem : null) },
  { name: 'stress', step: 6, of: m => m.stress ?? 0 },
  { name: 'slant', step: 5, of: m => m.slant },
  { name: 'joining', step: 0.3, of: m => m.joined },
  { name: 'roughness', step: 1.5, of: m => m.roughness },
  { name: 'grey', step: 0.03, of: m => m.grey },
]

function compare(features: readonly Feature[], one: FaceMeasures, other: FaceMeasures): Likeness {
  const parts = features.flatMap(({ name, step, of }): LikenessPart[] => {
    const [a, b] = [of(one), of(other)]
    return a === null || b === null ? [] : [{ name, steps: Math.abs(a - b) / step, one: a, other: b }]
  })
  // One thing far off is told as far off, but does not drown the others.
  const square = (steps: number) => Math.min(steps, 5) ** 2
  const distance =
    parts.length === 0 ? 5 : Math.sqrt(parts.reduce((sum, { steps }) => sum + square(steps), 0) / parts.length)
  return { distance: Math.round(distance * 1000) / 1000, parts }
}

/** How far two faces are apart in their skeletons. In steps that a reader begins to see; 0 is the same. */
export const inProportions = (one: FaceMeasures, other: FaceMeasures): Likeness => compare(proportions, one, other)

/** How far two faces are apart in what the skeleton is dressed in; a step more where they are of two classes. */
export function inDetail(one: FaceMeasures, other: FaceMeasures): Likeness {
  const found = compare(detail, one, other)
  const [a, b] = [classify(one), classify(other)]
  return a.class === b.class ? found : { ...found, distance: Math.round((found.distance + 1) * 1000) / 1000 }
}
