/// <reference path="./packages.d.ts" />
import LineBreaker from 'linebreak'

/** A place where a line may or must end: behind the character before `position` (UTF-16). */
export interface Break { readonly position: number, readonly required: boolean }

/**
 * In text of these characters alone, UAX #14 allows breaks after spaces and nowhere else: letters and digits (AL, NU),
 * full stop, comma, colon, semicolon (IS), apostrophe and quotation mark (QU), parentheses (OP, CP).
 */
const plain = /^[A-Za-zÀ-ÖØ-öø-ÿ0-9 .,:;'"()]*$/

/** Break opportunities of UAX #14, the end of the text included. */
export function breaksOf(text: string): Break[] {
  const breaks: Break[] = []
  if (plain.test(text)) {
    for (let at = text.indexOf(' '); at >= 0;) {
      let end = at + 1
      while (end < text.length && text.charCodeAt(end) === 0x20) end++
      if (end < text.length) breaks.push({ position: end, required: false })
      at = text.indexOf(' ', end)
    }
    breaks.push({ position: text.length, required: false })
    return breaks
  }
  const breaker = new LineBreaker(text)
  for (let next = breaker.nextBreak(); next; next = breaker.nextBreak()) breaks.push({ position: next.position, required: next.required && text[next.position - 1] === '\n' })
  return breaks
}
