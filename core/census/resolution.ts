import type { Slot } from '../document/font-attributes'
import type { Library, Resolution } from '../font/library'
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
