import { StandardFontEmbedder, StandardFonts } from '@cantoo/pdf-lib'

/*
 * The fourteen fonts that every reader has (ISO 32000-2, 9.6.2.2): a file may name them without their widths. Their letters
 * are those of the Windows code page, which WinAnsiEncoding is (Annex D).
 */

/** 0x80 to 0x9F of WinAnsiEncoding; a gap where a code stands for nothing. */
const high = '€ ‚ƒ„…†‡ˆ‰Š‹Œ Ž  ‘’“”•–—˜™š›œ žŸ'

/** What a code of WinAnsiEncoding stands for; '' for none. */
export function winAnsi(code: number): string {
  if (code < 0x20 || code === 0x7f || code > 0xff) return ''
  return code >= 0x80 && code <= 0x9f ? high.charAt(code - 0x80).trim() : String.fromCharCode(code)
}

const isStandard = (name: string): name is StandardFonts => Object.values<string>(StandardFonts).includes(name)
/** Fonts of signs have letters of their own. */
const ofSigns: readonly string[] = [StandardFonts.Symbol, StandardFonts.ZapfDingbats]

/** The width of a character in a standard font, in thousandths of an em; null where the name is not one of those fonts. */
export function standardWidths(name: string): ((character: string) => number) | null {
  if (!isStandard(name) || ofSigns.includes(name)) return null
  const font = StandardFontEmbedder.for(name as never)
  return character => (character === '' ? 0 : font.widthOfTextAtSize(character, 1000))
}
