import type { Slot } from '../document/font-attributes'

/*
 * Which slot a character takes is not fixed by the standard. The rule here, and the only place that knows it:
 * characters of East Asian scripts take the asian slot, those of scripts that need complex layout or run from right to
 * left the complex one, letters of other scripts the western one. Characters of no script (spaces, digits,
 * punctuation, signs, marks) follow the last character before them that has one; at a paragraph's start the first
 * one after them; in a paragraph without any, western. So a lone space belongs to the words in front of it.
 */

/** A character of one of these scripts (Unicode 16, Script), or of these ranges. */
const anyOf = (scripts: string, ranges = ''): RegExp =>
  new RegExp(
    `[${scripts
      .split(' ')
      .map(script => `\\p{Script=${script}}`)
      .join('')}${ranges}]`,
    'u',
  )
const asian = anyOf(
  'Han Hiragana Katakana Hangul Bopomofo Yi',
  '\\u3000-\\u303F\\uFF00-\\uFFEF\\u31C0-\\u31EF\\u3200-\\u33FF',
)
const complex = anyOf(
  'Arabic Hebrew Syriac Thaana Nko Devanagari Bengali Gurmukhi Gujarati Oriya Tamil Telugu Kannada Malayalam ' +
    'Sinhala Thai Lao Tibetan Myanmar Khmer Mongolian',
)
const weak = /[\p{Script=Common}\p{Script=Inherited}\p{Script=Unknown}]/u
/** Nothing here but characters of European scripts and weak ones: most text, decided at once. */
const plainlyWestern = /^[\u0000-\u058F\u1E00-\u1FFF\u2000-\u2BFF\uFB00-\uFB06]*$/

/** The slot of one character, or null for those that follow their neighbours. */
export function slotOf(character: string): Slot | null {
  if (asian.test(character)) return 'asian'
  if (complex.test(character)) return 'complex'
  return weak.test(character) ? null : 'western'
}

export interface SlotRun {
  readonly slot: Slot
  readonly start: number
  readonly end: number
}

/** The slots of a paragraph's text, in runs of UTF-16 offsets that cover it. */
export function slotRuns(text: string): SlotRun[] {
  if (text.length === 0) return []
  if (plainlyWestern.test(text)) return [{ slot: 'western', start: 0, end: text.length }]
  const runs: SlotRun[] = []
  let slot: Slot | null = null
  let start = 0
  let at = 0
  for (const character of text) {
    const own = slotOf(character)
    if (own !== null && own !== slot) {
      if (slot !== null) {
        runs.push({ slot, start, end: at })
        start = at
      }
      slot = own
    }
    at += character.length
  }
  runs.push({ slot: slot ?? 'western', start, end: text.length })
  return runs
}
