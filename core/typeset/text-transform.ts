/** fo:text-transform (ODF 1.4 part 3, 20.220), and what small capitals are made from where a face has none. */
export type Transform = 'none' | 'uppercase' | 'lowercase' | 'capitalize'

/**
 * Text as it is shown. Every UTF-16 unit keeps its place, so that offsets into the document hold: a character whose
 * other case is longer (ß) stays as it is written.
 */
export function transformed(text: string, transform: Transform): string {
  if (transform === 'none') return text
  const cased = (character: string, change: (of: string) => string): string => {
    const other = change(character)
    return other.length === character.length ? other : character
  }
  if (transform === 'capitalize')
    return text.replace(/(?<![\p{L}\p{M}'’])\p{L}/gu, letter => cased(letter, of => of.toUpperCase()))
  const whole = transform === 'uppercase' ? text.toUpperCase() : text.toLowerCase()
  return whole.length === text.length
    ? whole
    : Array.from(text, character =>
        cased(character, of => (transform === 'uppercase' ? of.toUpperCase() : of.toLowerCase())),
      ).join('')
}
