import { describe, expect, it } from 'vitest'
import { finishedCsv } from '../../../core/format/finished/csv'
import { familyOfFont, styleOfFont } from '../../../core/format/finished/font-name'
import { isPdf, sectionEnds } from '../../../core/format/finished/sections'
import { standardWidths, winAnsi } from '../../../core/format/finished/standard-fonts'
import { changedStretch } from '../../../core/format/finished/wish'
import { scriptOfCharacter } from '../../../core/font/face'
import { numbersFrom } from '../../support/seeded'

const bytesOf = (text: string) => new TextEncoder().encode(text)

describe('the sections of a PDF', () => {
  it('end behind each mark of an end, and the last one with the file', () => {
    const first = '%PDF-1.7\n1 0 obj\nendobj\nstartxref\n0\n%%EOF\n'
    const second = '2 0 obj\nendobj\nstartxref\n9\n%%EOF\r\n'
    const last = '3 0 obj\nendobj\nstartxref\n9\n%%EOF'
    const ends = sectionEnds(bytesOf(first + second + last))
    // A line end behind a mark goes with what comes behind: whether the file had it or the update brought it.
    expect(ends).toEqual([first.length - 1, first.length + second.length - 2, (first + second + last).length])
    expect(sectionEnds(bytesOf(first))).toEqual([first.length - 1, first.length])
  })

  it('are not found in the middle of a line, and a file without a mark is one', () => {
    expect(sectionEnds(bytesOf('%PDF-1.7 (text %%EOF text) Tj'))).toEqual([29])
  })

  it('are those of a PDF by its header, which may stand a little way in', () => {
    expect([isPdf(bytesOf('%PDF-1.4')), isPdf(bytesOf('\n\n%PDF-2.0')), isPdf(bytesOf('PK\u0003\u0004'))]).toEqual([
      true,
      true,
      false,
    ])
    expect(isPdf(bytesOf(' '.repeat(1030) + '%PDF-1.4'))).toBe(false)
  })
})

describe('the name of a font in a PDF', () => {
  it.each([
    ['Helvetica', 'Helvetica', ''],
    ['Spectral-Regular', 'Spectral', 'Regular'],
    ['SpectralSC-BoldItalic', 'Spectral SC', 'Bold Italic'],
    ['SourceSerif,Bold', 'Source Serif', 'Bold'],
    ['CMR10', 'CMR10', ''],
    ['-Bold', '-Bold', 'Bold'],
  ])('%s is of the family %s, style “%s”', (name, family, style) => {
    expect([familyOfFont(name), styleOfFont(name)]).toEqual([family, style])
  })
})

describe('the standard fonts', () => {
  it('have the letters of the Windows code page, each with its width', () => {
    const text = [0x41, 0x80, 0x92, 0x96, 0xe9, 0x81, 0x7f, 0x1f].map(winAnsi)
    expect(text).toEqual(['A', '€', '’', '–', 'é', '', '', ''])
    const width = standardWidths('Helvetica')!
    expect(['l', 'W', '–', ' '].map(width)).toEqual([222, 944, 556, 278])
    expect(standardWidths('Courier-Bold')!('i')).toBe(600)
    expect([standardWidths('Symbol'), standardWidths('Spectral')]).toEqual([null, null])
  })
})

describe('what of a line changes', () => {
  it.each([
    ['let untill spring', 'let until spring', { from: 9, to: 10, words: '' }],
    ['let spring', 'let until spring', { from: 4, to: 4, words: 'until ' }],
    ['abc', 'xbc', { from: 0, to: 1, words: 'x' }],
    ['abc', 'abcd', { from: 3, to: 3, words: 'd' }],
    ['aaa', 'aa', { from: 2, to: 3, words: '' }],
    ['abc', '', { from: 0, to: 3, words: '' }],
    ['a😀b', 'a😁b', { from: 1, to: 3, words: '😁' }],
  ])('from “%s” to “%s” is the shortest stretch', (line, becomes, stretch) => {
    expect(changedStretch(line, becomes)).toEqual(stretch)
  })

  it('is nothing where they are the same, and always gives the other line back', () => {
    expect(changedStretch('abc', 'abc')).toBeNull()
    const random = numbersFrom(27)
    const letters = ['a', 'b', '😀', '😁', 'é']
    const text = () =>
      Array.from({ length: Math.floor(random() * 8) }, () => letters[Math.floor(random() * letters.length)]!).join('')
    for (let trial = 0; trial < 400; trial++) {
      const [line, becomes] = [text(), text()]
      const stretch = changedStretch(line, becomes)
      if (!stretch) expect(line).toBe(becomes)
      else expect(line.slice(0, stretch.from) + stretch.words + line.slice(stretch.to)).toBe(becomes)
    }
  })
})

describe('the script of a character', () => {
  it('is told for letters, and for no sign that scripts share', () => {
    expect(['a', 'Ж', 'π', 'ع', '漢', 'あ', '한', '1', ' ', '–'].map(scriptOfCharacter)).toEqual([
      'Latin',
      'Cyrillic',
      'Greek',
      'Arabic',
      'Han',
      'Hiragana',
      'Hangul',
      null,
      null,
      null,
    ])
  })
})

describe('the fonts of a finished PDF as CSV', () => {
  it('are a line each; a name that a spreadsheet would take for a formula is none', () => {
    const csv = finishedCsv({
      document: { kind: 'finished', title: '', pages: 2, signed: false, tagged: true },
      characters: 12,
      fonts: [
        {
          name: '=Quay',
          kind: 'TrueType',
          embedded: true,
          subset: true,
          readable: false,
          characters: 12,
          pages: [1, 2],
          sizes: [{ size: 9.5, characters: 12 }],
          colors: [{ color: '#1f6f6b', characters: 12 }],
        },
      ],
    })
    expect(csv.split('\r\n')).toEqual([
      'font,type,in the file,letters told,characters,sizes in pt,colours,pages',
      "'=Quay,TrueType,in part,no,12,9.5,#1f6f6b,1 2",
      '',
    ])
  })
})
