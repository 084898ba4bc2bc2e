import { filterDeficiencyDeuter, filterDeficiencyProt, filterDeficiencyTrit, formatHex, parse } from 'culori'
import { distanceOf } from './oklch'

/** The three common kinds of colour vision beside the usual one. */
export const visions = [
  { id: 'protan', title: 'without red cones' },
  { id: 'deutan', title: 'without green cones' },
  { id: 'tritan', title: 'without blue cones' },
] as const
export type VisionId = (typeof visions)[number]['id']

const filters = {
  protan: filterDeficiencyProt(1),
  deutan: filterDeficiencyDeuter(1),
  tritan: filterDeficiencyTrit(1),
}

/**
 * How a colour “#rrggbb” looks with a kind of colour vision (Machado, Oliveira and Fernandes 2009, “A Physiologically-based
 * Model for Simulation of Color Vision Deficiency”, severity 1).
 */
export function seenWith(color: string, vision: VisionId): string {
  const parsed = parse(color)
  return parsed ? formatHex(filters[vision](parsed)) : color
}

/** Colours that are nearer than this are hard to tell apart beside one another; a judgement. */
const tellable = 0.06

/** Pairs of colours that somebody with a kind of colour vision cannot tell apart, though others can. */
export function confusedBy(colors: readonly string[], vision: VisionId): (readonly [string, string])[] {
  const pairs: (readonly [string, string])[] = []
  colors.forEach((one, at) => {
    for (const other of colors.slice(at + 1))
      if (distanceOf(one, other) >= tellable && distanceOf(seenWith(one, vision), seenWith(other, vision)) < tellable)
        pairs.push([one, other])
  })
  return pairs
}
