import { Blob, Buffer, Face, Feature, Font, shape } from 'harfbuzzjs'
import type { FaceRecord } from './face'
import { shownFeatures } from './features'

/** Another form that a character has in a face: the feature that gives it, with its value (OpenType 1.9, GSUB lookup types 1 and 3). */
export interface AlternateForm {
  readonly tag: string
  /** 1, or which of several: what `font-feature-settings` takes. */
  readonly value: number
}

/** The further forms of one character. */
export interface Alternates {
  readonly code: number
  readonly forms: readonly AlternateForm[]
}

/** What a face has beside one form for each character. */
export interface FaceAlternates {
  readonly list: readonly Alternates[]
  /** Characters that were looked at: all, unless that would be too much work. */
  readonly looked: number
  readonly characters: number
}

/** About so many shapings at most for a face; large fonts of Chinese come to it after the first ten thousands of characters. */
const mostShapings = 250_000
/** A feature gives a character so many forms at most. */
const mostForms = 20

/** Shapes single characters: what a feature makes of them alone, without neighbours. */
class Single {
  private readonly font: Font
  private readonly buffer = new Buffer()
  count = 0

  constructor(bytes: Uint8Array) {
    this.font = new Font(new Face(new Blob(bytes)))
  }

  glyphs(character: string, feature: Feature | null): string {
    this.count++
    this.buffer.reset()
    this.buffer.addText(character)
    this.buffer.guessSegmentProperties()
    shape(this.font, this.buffer, feature ? [feature] : [])
    return this.buffer
      .getGlyphInfos()
      .map(each => each.codepoint)
      .join()
  }
}

function formsOf(single: Single, character: string, tags: readonly string[]): AlternateForm[] {
  const plain = single.glyphs(character, null)
  const told = new Set([plain])
  const forms: AlternateForm[] = []
  for (const tag of tags) {
    // A feature that has one form gives it for every value; one that has several, none beyond the last.
    const own = new Set([plain])
    for (let value = 1; value <= mostForms; value++) {
      const found = single.glyphs(character, new Feature(tag, value))
      if (own.has(found)) break
      own.add(found)
      if (told.has(found)) continue
      told.add(found)
      forms.push({ tag, value })
    }
  }
  return forms
}

/**
 * The forms that characters of a face have beside the usual one, each told once, by the first feature that gives it: what
 * people switch on, in the order of `shownFeatures`. What appears only beside other letters (ligatures, contextual forms)
 * is not among them.
 */
export function alternatesOf(
  bytes: Uint8Array,
  { features, ranges }: Pick<FaceRecord, 'features' | 'ranges'>,
): FaceAlternates {
  const tags = shownFeatures(features)
    .filter(each => !each.usual)
    .map(each => each.tag)
  const codes: number[] = []
  for (let at = 0; at < ranges.length; at += 2)
    for (let code = ranges[at]!; code <= ranges[at + 1]!; code++) codes.push(code)
  if (tags.length === 0) return { list: [], looked: codes.length, characters: codes.length }
  const single = new Single(bytes)
  const list: Alternates[] = []
  let looked = 0
  for (const code of codes) {
    if (single.count + tags.length + 1 > mostShapings) break
    looked++
    const forms = formsOf(single, String.fromCodePoint(code), tags)
    if (forms.length > 0) list.push({ code, forms })
  }
  return { list, looked, characters: codes.length }
}
