import type { Slot } from '../document/font-attributes'
import { covers, needsNoGlyph, type FaceRecord } from '../font/face'
import type { Library, Resolution } from '../font/library'
import type { TextStyle } from '../style/cascade'
import { percent, points } from '../style/properties'
import type { ShapedWord, Shaper } from './shaper'

/** How characters of one style and slot are set: the face that shows them and all that shaping and drawing need. Lengths in points. */
export interface Look {
  readonly id: number
  readonly style: TextStyle
  readonly slot: Slot
  readonly resolution: Resolution
  readonly face: FaceRecord
  readonly size: number
  /** Added after every character. */
  readonly letterSpacing: number
  /** Horizontal scale, 1 for none. */
  readonly scale: number
  /** How far above the baseline. */
  readonly rise: number
  readonly color: string
  readonly background: string
  readonly transform: string
  readonly underline: boolean
  readonly strike: boolean
  readonly hyphenate: boolean
  readonly language: string
  readonly kerning: boolean
  /** Lines are built from these, of the face at its size. */
  readonly ascent: number
  readonly descent: number
  /** The face has the printable ASCII signs. */
  readonly latin: boolean
}

/** A word set in a look. */
export interface SetWord { readonly shaped: ShapedWord, readonly width: number }

/** Resolves styles to looks and sets words in them. One per library; keeps everything it has set. */
export class Typesetter {
  private readonly looks = new Map<TextStyle, Partial<Record<Slot, Look>>>()
  private readonly substitutes = new Map<string, Look>()
  /** By look id, left to right and right to left: every word of a document asks here. */
  private readonly setters: readonly [((word: string) => SetWord)[], ((word: string) => SetWord)[]] = [[], []]
  private count = 0

  constructor(readonly library: Library, readonly shaper: Shaper) {}

  look(style: TextStyle, slot: Slot): Look {
    let looks = this.looks.get(style)
    if (!looks) this.looks.set(style, looks = {})
    return looks[slot] ??= this.makeLook(style, slot)
  }

  /** A look for note citations where the file leaves their style to the reader: raised and smaller. */
  raised(look: Look): Look {
    const key = `${look.id}|raised`
    let other = this.substitutes.get(key)
    if (!other) this.substitutes.set(key, other = { ...look, id: this.count++, size: look.size * 0.58, rise: look.rise + look.size * 0.33, ...heights(look.face, look.size * 0.58) })
    return other
  }

  /** A look for signs its own face lacks: the same in all but the face. */
  substitute(look: Look, face: FaceRecord): Look {
    const key = `${look.id}|${face.hash}`
    let other = this.substitutes.get(key)
    if (!other) this.substitutes.set(key, other = { ...look, id: this.count++, face, ...heights(face, look.size) })
    return other
  }

  private makeLook(style: TextStyle, slot: Slot): Look {
    const { slots, shared } = style.effective
    const values = slots[slot]
    const resolution = this.library.resolve({
      family: values.font.family, styleName: values.font.styleName, weight: values.weight, italic: values.posture !== 'normal',
      generic: values.font.generic, pitch: values.font.pitch, charset: values.font.charset, slot,
    })
    const position = textPosition(shared['style:text-position'], values.size)
    const size = values.size * position.scale
    return {
      id: this.count++, style, slot, resolution, face: resolution.face, size, rise: position.rise,
      letterSpacing: points(shared['fo:letter-spacing']) ?? 0, scale: percent(shared['style:text-scale']) ?? 1,
      color: /^#[0-9a-f]{6}$/i.test(shared['fo:color']) && shared['style:use-window-font-color'] !== 'true' ? shared['fo:color'] : '#000000',
      background: /^#[0-9a-f]{6}$/i.test(shared['fo:background-color']) ? shared['fo:background-color'] : '',
      transform: shared['fo:text-transform'], hyphenate: shared['fo:hyphenate'] === 'true', language: values.language, kerning: shared['style:letter-kerning'] !== 'false',
      underline: shared['style:text-underline-style'] !== 'none' && shared['style:text-underline-style'] !== '', strike: shared['style:text-line-through-style'] !== 'none' && shared['style:text-line-through-style'] !== '',
      ...heights(resolution.face, size),
    }
  }

  /** Sets words of a look: width in points with letter spacing and scale. Keep the function, not the look. */
  setter(look: Look, rightToLeft: boolean): (word: string) => SetWord {
    const setters = this.setters[rightToLeft ? 1 : 0]
    const known = setters[look.id]
    if (known) return known
    const words = this.shaper.words(look.face.hash, { rightToLeft, language: look.language, kerning: look.kerning })
    const cache = new Map<string, SetWord>()
    const setter = (word: string): SetWord => {
      let set = cache.get(word)
      if (!set) {
        const shaped = words(cased(word, look.transform))
        cache.set(word, set = { shaped, width: shaped.width * look.size * look.scale + look.letterSpacing * shaped.glyphs.length })
      }
      return set
    }
    setters[look.id] = setter
    return setter
  }

  /** Whether the face surely has every sign of a text: printable ASCII, in a face with Latin letters. Most text is so. */
  hasAll(look: Look, text: string): boolean {
    if (!look.latin) return false
    for (let at = 0; at < text.length; at++) {
      const code = text.charCodeAt(at)
      if (code >= 0x7F || code < 0x20) return false
    }
    return true
  }

  /** Splits text where its face lacks signs. */
  withGlyphs(look: Look, text: string): readonly { readonly look: Look, readonly text: string }[] {
    if (this.hasAll(look, text)) return [{ look, text }]
    const parts: { look: Look, text: string }[] = []
    for (const character of text) {
      const code = character.codePointAt(0)!
      const face = needsNoGlyph(code) || covers(look.face, code) ? null : this.library.forGlyph(code, look.face)
      const own = face ? this.substitute(look, face) : look
      const last = parts[parts.length - 1]
      if (last && last.look === own) last.text += character
      else parts.push({ look: own, text: character })
    }
    return parts
  }
}

const ascii = new WeakMap<FaceRecord, boolean>()
function hasAscii(face: FaceRecord): boolean {
  let has = ascii.get(face)
  if (has === undefined) {
    has = true
    for (let code = 0x20; code < 0x7F && has; code++) has = covers(face, code)
    ascii.set(face, has)
  }
  return has
}

/** What a look takes from its face. */
function heights(face: FaceRecord, size: number): { ascent: number, descent: number, latin: boolean } {
  const { lineAscent, lineDescent, lineGap } = face.measures
  return { ascent: (lineAscent + lineGap) * size / 1000, descent: lineDescent * size / 1000, latin: hasAscii(face) }
}

/** fo:text-transform (ODF 1.4 part 3, 20.220). */
function cased(text: string, transform: string): string {
  switch (transform) {
    case 'uppercase': return text.toUpperCase()
    case 'lowercase': return text.toLowerCase()
    case 'capitalize': return text.replace(/(?<![\p{L}\p{M}'’])\p{L}/gu, letter => letter.toUpperCase())
    default: return text
  }
}

/** style:text-position (20.410): a rise as a percentage of the size, or super or sub, and the size of raised text (58 % where unsaid). */
function textPosition(value: string, size: number): { rise: number, scale: number } {
  const [where, scaled] = value.trim().split(/\s+/)
  if (!where) return { rise: 0, scale: 1 }
  const rise = where === 'super' ? 0.33 : where === 'sub' ? -0.33 : percent(where) ?? 0
  return { rise: rise * size, scale: rise === 0 ? 1 : percent(scaled) ?? 0.58 }
}
