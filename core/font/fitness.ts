import type { Classed } from './classify'
import type { FaceMeasures } from './face'

/** What a face may be asked to do. */
export const fitnessUses = ['long reading', 'small print', 'signs and slides', 'display', 'formal', 'informal'] as const
export type FitnessUse = (typeof fitnessUses)[number]

/** Whether a face is fit for a use, and what of it says so. */
export interface Fitness {
  readonly use: FitnessUse
  readonly fit: boolean
  readonly reason: string
}

/** A condition that a measure meets or does not, with what to say of it either way. */
interface Condition {
  readonly met: boolean
  readonly said: string
}

const between = (name: string, value: number | null, least: number, most: number, unit = ''): Condition => ({
  met: value === null || (value >= least && value <= most),
  said: value === null ? `${name} cannot be measured` : `${name} ${Math.round(value * 100) / 100}${unit}`,
})
const isOf = (classed: Classed, ...classes: readonly Classed['class'][]): Condition => ({
  met: classes.includes(classed.class),
  said:
    classed.class === 'script'
      ? 'it is a hand'
      : classed.class === 'display'
        ? 'it is made for display'
        : classed.class,
})
const upright = ({ slant }: FaceMeasures): Condition => ({
  met: Math.abs(slant) < 5,
  said: `it leans ${Math.round(slant)}°`,
})

/** Fit where all conditions are met; the reason names what is not, or else what counts most. */
function judged(use: FitnessUse, conditions: readonly Condition[]): Fitness {
  const unmet = conditions.filter(each => !each.met)
  const said = (unmet.length > 0 ? unmet : conditions).slice(0, 3).map(each => each.said)
  return { use, fit: unmet.length === 0, reason: said.join(', ') }
}

const text = ['serif', 'slab', 'sans'] as const

const rules: Readonly<Record<FitnessUse, (m: FaceMeasures, classed: Classed) => Fitness>> = {
  'long reading': (m, classed) =>
    judged('long reading', [
      isOf(classed, ...text),
      upright(m),
      between('x-height', m.xHeight, 390, 580),
      between('stem', m.stem, 55, 118),
      between('thick to thin', m.contrast, 1, 3.4),
      between('width of o to x-height', m.widthO === null ? null : m.widthO / m.xHeight, 0.75, 1.2),
      between('fineness of the thin strokes', m.hairline, 24, 110),
    ]),
  'small print': (m, classed) =>
    judged('small print', [
      isOf(classed, ...text, 'monospaced'),
      between('x-height', m.xHeight, 470, 600),
      between('hairline', m.hairline, 40, 110),
      between('eye of e', m.eye, 118, 400),
      between('aperture', m.aperture, 0.19, 1),
      between('width of o to x-height', m.widthO === null ? null : m.widthO / m.xHeight, 0.7, 1.3),
    ]),
  'signs and slides': (m, classed) =>
    judged('signs and slides', [
      isOf(classed, 'sans', 'slab'),
      between('thick to thin', m.contrast, 1, 1.75),
      between('x-height', m.xHeight, 460, 620),
      between('stem', m.stem, 68, 150),
      between('aperture', m.aperture, 0.18, 1),
    ]),
  display: (m, classed) => {
    const reasons = [
      ...(classed.class === 'display' || classed.class === 'script' ? [isOf(classed).said] : []),
      ...((m.contrast ?? 1) > 3.2 ? [`thick to thin ${m.contrast}`] : []),
      ...(m.stem > 118 ? [`stems ${Math.round(m.stem)} wide`] : []),
      ...(m.stem > 0 && m.stem < 45 ? [`stems only ${Math.round(m.stem)} wide`] : []),
      ...(m.widthO !== null && m.widthO / m.xHeight < 0.7 ? [`o is only ${Math.round(m.widthO)} wide`] : []),
    ]
    return {
      use: 'display',
      fit: reasons.length > 0,
      reason: reasons.length > 0 ? reasons.slice(0, 2).join(', ') : 'its weight, widths and contrast are those of text',
    }
  },
  formal: (m, classed) =>
    judged('formal', [
      {
        met: classed.class === 'serif' || (classed.class === 'script' && (m.contrast ?? 1) > 2.2 && m.jitter < 3),
        said: classed.class === 'serif' ? `a ${classed.kind} serif` : isOf(classed).said,
      },
      between('roughness', m.roughness, 0, 1.5),
      between('stem', m.stem, 0, 130),
    ]),
  informal: (m, classed) => {
    const hand = classed.class === 'script' && !((m.contrast ?? 1) > 2.2 && m.jitter < 3)
    const rough = (m.roughness ?? 0) > 2.5
    const uneven = m.jitter > 5
    const said = [
      ...(hand ? ['it is a hand'] : []),
      ...(rough ? [`roughness ${m.roughness}`] : []),
      ...(uneven ? [`letters stand unevenly by ${Math.round(m.jitter)}`] : []),
    ]
    return { use: 'informal', fit: said.length > 0, reason: said.join(', ') || 'drawn evenly, and not by a hand' }
  },
}

/**
 * What a face is fit for, each with the reason. Limits are judgements, set by faces that the trade uses so.
 */
export function fitnessOf(measures: FaceMeasures, classed: Classed): Fitness[] {
  return fitnessUses.map(use => rules[use](measures, classed))
}
