import type { Slot } from '../document/font-attributes'
import { styleName } from '../font/face'
import type { TextStyle } from '../style/cascade'
import { weightNumber } from '../style/properties'

/** A distinct appearance of text: what a reader sees, whichever layer set it. */
export interface VoiceLook {
  readonly family: string
  /** Style name of the face asked for: “SemiBold Italic”. */
  readonly style: string
  readonly slot: Slot
  /** Points, to a hundredth. */
  readonly size: number
  /** Leading as written: “120%”, “14pt”, or “normal”. */
  readonly leading: string
  readonly tracking: string
  readonly case: string
  readonly color: string
  readonly position: string
}

/** The face a style asks of a slot, as the document names it. */
export function faceAsked(
  style: TextStyle,
  slot: Slot,
): { readonly family: string; readonly style: string; readonly weight: number; readonly italic: boolean } {
  const values = style.effective.slots[slot]
  const italic = values.posture !== 'normal'
  const own = styleName(values.weight, italic)
  const { family, styleName: named } = values.font
  // A named face (“SemiBold”) with bold or italic on top is the named face, made bold or italic.
  return {
    family: family || 'no font named',
    style: named && named !== 'Regular' ? (own === 'Regular' ? named : `${named}, ${own.toLowerCase()}`) : own,
    weight: weightNumber(String(values.weight)),
    italic,
  }
}

const looks = new WeakMap<TextStyle, Partial<Record<Slot, VoiceLook>>>()

/** The voice that text of a style and slot speaks in. */
export function voiceOf(style: TextStyle, slot: Slot): VoiceLook {
  let own = looks.get(style)
  if (!own) looks.set(style, (own = {}))
  const known = own[slot]
  if (known) return known
  const { shared, leading, slots } = style.effective
  const { family, style: face } = faceAsked(style, slot)
  const stated = leading['fo:line-height']
  const position = shared['style:text-position']
  return (own[slot] = {
    family,
    style: face,
    slot,
    size: Math.round(slots[slot].size * 100) / 100,
    leading:
      stated && stated !== 'normal' && stated !== '100%'
        ? stated
        : leading['style:line-height-at-least']
          ? `at least ${leading['style:line-height-at-least']}`
          : 'normal',
    tracking:
      shared['fo:letter-spacing'] === 'normal' || /^0(\.0+)?[a-z]*$/.test(shared['fo:letter-spacing'])
        ? ''
        : shared['fo:letter-spacing'],
    case:
      shared['fo:font-variant'] === 'small-caps'
        ? 'small capitals'
        : shared['fo:text-transform'] === 'none'
          ? ''
          : shared['fo:text-transform'],
    color:
      shared['style:use-window-font-color'] === 'true' ||
      !/^#/.test(shared['fo:color']) ||
      shared['fo:color'] === '#000000'
        ? ''
        : shared['fo:color'].toLowerCase(),
    position: position.startsWith('0%') ? '' : position,
  })
}

/** Equal for equal voices. */
export function voiceKey(look: VoiceLook): string {
  return [
    look.family,
    look.style,
    look.slot,
    look.size,
    look.leading,
    look.tracking,
    look.case,
    look.color,
    look.position,
  ].join('|')
}

/** Equal for voices in the same face. */
export function faceKey(look: { readonly family: string; readonly style: string; readonly slot: Slot }): string {
  return `${look.family}|${look.style}|${look.slot}`
}

/**
 * Whether two voices are so near that a reader cannot tell them apart: one face, sizes within 5 % of each other
 * (below the step of about 6 % that printers' size scales keep between neighbours), all else the same.
 */
export function areTwins(a: VoiceLook, b: VoiceLook): boolean {
  if (
    a.family !== b.family ||
    a.style !== b.style ||
    a.slot !== b.slot ||
    a.color !== b.color ||
    a.case !== b.case ||
    a.position !== b.position
  )
    return false
  const ratio = a.size / b.size
  return ratio > 1 / 1.05 && ratio < 1.05 && voiceKey(a) !== voiceKey(b)
}

/** Size and leading in a printer's way: “10.2 / 14.4”. */
export function sizeAndLeading(look: VoiceLook): string {
  const percentage = /^([\d.]+)%$/.exec(look.leading)
  if (percentage) return `${look.size} / ${percentage[1]} %`
  const points = /^([\d.]+)pt$/.exec(look.leading)
  return look.leading === 'normal' ? String(look.size) : `${look.size} / ${points ? points[1] : look.leading}`
}
