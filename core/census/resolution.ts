import type { Slot } from '../document/font-attributes'
import { requestOf, type Library, type Resolution } from '../font/library'
import type { TextStyle } from '../style/cascade'

/** How the font that a style asks for in a slot is found. */
export function resolutionOf(library: Library, style: TextStyle, slot: Slot): Resolution {
  const { font, weight, posture } = style.effective.slots[slot]
  return library.resolve({
    family: font.family,
    styleName: font.styleName,
    weight,
    italic: posture !== 'normal',
    generic: font.generic,
    pitch: font.pitch,
    charset: font.charset,
    slot,
  })
}

/** How a family is found by its name alone: in its regular face, with nothing that the document says of it. */
export function resolutionOfName(library: Library, family: string, slot: Slot = 'western'): Resolution {
  return library.resolve({ ...requestOf(family, 400, false), slot })
}
