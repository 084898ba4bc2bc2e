/**
 * The grammar of font names in OpenDocument: `svg:font-family` and `fo:font-family` hold a CSS font-family list
 * (CSS Fonts 4 section 2.1), quoted or not; real files also separate with semicolons, and append features after a
 * colon (`'Alegreya:smcp&onum'`).
 */
export interface FontFamily {
  readonly name: string
  /** What follows a colon in the name, without it: OpenType features as the writing program spells them. */
  readonly features: string
}

/** The families of a list, in order. Never throws: what cannot be read is taken literally. */
export function parseFontFamilies(value: string): FontFamily[] {
  const families: FontFamily[] = []
  let current = ''
  let quote = ''
  const finish = () => {
    const whole = current.trim().replace(/\s+/g, ' ')
    const colon = whole.indexOf(':')
    const name = (colon < 0 ? whole : whole.slice(0, colon)).trim()
    if (name !== '') families.push({ name, features: colon < 0 ? '' : whole.slice(colon + 1) })
    current = ''
  }
  for (let at = 0; at < value.length; at++) {
    const sign = value[at]!
    if (quote !== '') {
      if (sign === quote) quote = ''
      else current += sign
    } else if ((sign === '"' || sign === "'") && current.trim() === '') quote = sign
    else if (sign === ',' || sign === ';') finish()
    else current += sign
  }
  finish()
  return families
}

/** A family as a font-family value: quoted where CSS asks for it. */
export function writeFontFamily(name: string): string {
  const plain = /^-?[A-Za-z_\u0080-\u{10FFFF}][\w\u0080-\u{10FFFF}-]*$/u
  if (plain.test(name)) return name
  return name.includes("'") ? `"${name}"` : `'${name}'`
}

/** The same family written another way: case and spacing do not tell families apart (CSS Fonts 4 section 5.1). */
export function sameFamily(a: string, b: string): boolean {
  return familyKey(a) === familyKey(b)
}

/** What two spellings of one family share. */
export function familyKey(name: string): string {
  return name.normalize('NFC').toLowerCase().replace(/\s+/g, ' ').trim()
}

/** A list with each family equal to `from` put as `to`, or null where none is. Other families keep their spelling. */
export function replaceFamily(value: string, from: string, to: string): string | null {
  const families = parseFontFamilies(value)
  if (!families.some(family => sameFamily(family.name, from))) return null
  const written = families.map(family =>
    sameFamily(family.name, from)
      ? writeFontFamily(to)
      : writeFontFamily(family.features ? `${family.name}:${family.features}` : family.name),
  )
  return [...new Set(written)].join(', ')
}
