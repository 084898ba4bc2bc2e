import { describe, expect, it } from 'vitest'
import { isPrivateUse, isSymbolFamily, symbolMeaning } from '../../../core/font/symbol-encodings'
import { displayPage } from '../../../core/typeset/display'
import { covers } from '../../../core/font/face'
import { library, paragraphStyle, sessionOf } from '../../support/fixtures'

describe('codes of symbol faces', () => {
  it('mean the signs that their makers published, as letters and as private codes', () => {
    // Out of the published mappings: alpha, summation, aleph, bullet; scissors, check mark, black heart, ten in a circle.
    for (const [code, sign] of [
      [0x61, 'α'],
      [0xe5, '∑'],
      [0xc0, 'ℵ'],
      [0xb7, '•'],
      [0xf0b7, '•'],
    ] as const)
      expect(symbolMeaning('Symbol', code)).toBe(sign)
    for (const [code, sign] of [
      [0x22, '✂'],
      [0x33, '✓'],
      [0xa4, '❤'],
      [0xb5, '⑩'],
    ] as const)
      expect(symbolMeaning('ITC Zapf Dingbats', code)).toBe(sign)
    expect([0x6c, 0x6e, 0xa7, 0xfc, 0xf0d8].map(code => symbolMeaning('Wingdings', code))).toEqual([
      '●',
      '■',
      '▪',
      '✔',
      '➢',
    ])
  })

  it('mean nothing where that is not known, and nothing in other families', () => {
    expect([0x20, 0x60, 0xbd, 0xf0ff].map(code => symbolMeaning('Symbol', code))).toEqual([null, null, null, null])
    expect([symbolMeaning('Jost', 0x61), isSymbolFamily('Jost'), isSymbolFamily(' WINGDINGS ')]).toEqual([
      null,
      false,
      true,
    ])
    expect([0xdfff, 0xe000, 0xf8ff, 0xf900].map(isPrivateUse)).toEqual([false, true, true, false])
  })

  it('keep their lengths: every meaning is as long as its code', () => {
    for (const family of ['Symbol', 'Zapf Dingbats', 'Wingdings'])
      for (let code = 0x20; code <= 0xff; code++) expect([1, undefined]).toContain(symbolMeaning(family, code)?.length)
  })
})

describe('text in a symbol face that is absent', () => {
  const shown = (family: string, text: string) => {
    const page = displayPage(
      sessionOf({
        automatic: paragraphStyle('S', `fo:font-family="${family}"`),
        body: `<text:p text:style-name="S">${text}</text:p>`,
      }).composition.pages[0]!,
    )
    return page.runs
  }

  it('is shown by its meaning, in a face that has the sign', () => {
    const [run] = shown('Symbol', 'a')
    const face = library.byHash(run!.face)!
    expect(covers(face, 0x3b1)).toBe(true)
    // The same glyph that the sign itself has in that face.
    const [alpha] = shown(face.family, 'α')
    expect([alpha!.face, alpha!.glyphs]).toEqual([run!.face, run!.glyphs])
    // What it is stays what the file says.
    expect(run!.text).toBe('a')
  })

  it('that has but private codes takes no glyph of a face that means something else by it', () => {
    // U+E000 is in some face that ships or in none: it is never drawn by chance.
    const [run] = shown('Nobody Sans', '\uE001')
    expect(run!.glyphs).toEqual([0])
  })
})
