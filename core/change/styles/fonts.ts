import { declareFont } from '../../document/face-verbs'
import { fontAttributes, slots } from '../../document/font-attributes'
import type { Properties } from '../../document/styles'
import type { Planner } from '../planner'

/**
 * Values of a style of one part, so that they hold in the part of common styles: the fonts they name are declared
 * there.
 */
export function portedFonts(planner: Planner, from: string, text: Properties): Record<string, string> {
  const ported: Record<string, string> = { ...text }
  const draft = planner.common
  if (from === draft.path) return ported
  const faces = planner.reading.cascade.scope(from).faces
  for (const slot of slots) {
    const name = text[fontAttributes[slot].name]
    const face = name === undefined ? undefined : faces.get(name)
    if (face)
      ported[fontAttributes[slot].name] = declareFont(draft, { family: face.families[0] ?? face.name }, face.attributes)
  }
  return ported
}
