import { readFileSync } from 'node:fs'
import opentype from 'opentype.js'
import { describe, expect, it } from 'vitest'
import { comparedIn, sizeFactor, sizeWishSchema } from '../../../core/change/swap/optical-size'
import { equalSizes, scriptsShared } from '../../../core/font/equal-size'
import { measuresIn, scriptsOf, type FaceRecord } from '../../../core/font/face'
import type { CoveredScript } from '../../../core/font/measure/covered-scripts'
import { lettersOf } from '../../../core/font/measure/letters'
import { measureScript } from '../../../core/font/measure/scripts'
import { readFace } from '../../../core/font/read'
import { contentHash } from '../../../server/library/files'
import { startSubsetter } from '../../../server/library/harfbuzz'
import { shippedFaces } from '../../../server/library/shipped'
import { inkBox, rasterOf } from '../../support/raster'

const subsetter = startSubsetter()
const shipped = shippedFaces()
const regular = (family: string) => shipped.find(({ face }) => face.family === family && face.style === 'Regular')!
const faceOf = (family: string) => regular(family).face
const inkOf = (family: string, character: string) => {
  const file = readFileSync(regular(family).path)
  const font = opentype.parse(file.buffer.slice(file.byteOffset, file.byteOffset + file.byteLength))
  return inkBox(rasterOf(font, character))
}
/** A face as it would be without its Latin letters: what was measured on them is not there. */
const only = (face: FaceRecord, script: CoveredScript): FaceRecord => ({
  ...face,
  measures: { ...face.measures, ...measuresIn(face, script)!, measuredOn: script, scripts: {} },
  coverage: { [script]: face.coverage[script]! },
})

describe('letters of other scripts', () => {
  it('are measured wherever a face has enough of them to set words in', () => {
    const wrong = shipped.flatMap(({ face }) => {
      const { measuredOn, scripts } = face.measures
      const measured = new Set([measuredOn, ...Object.keys(scripts)])
      return scriptsOf(face)
        .filter(script => !measured.has(script))
        .map(script => `${face.fullName}: ${script}`)
    })
    expect(wrong).toEqual([])
    const found = new Set(shipped.flatMap(({ face }) => Object.keys(face.measures.scripts)))
    for (const script of ['Greek', 'Cyrillic', 'Arabic', 'Devanagari']) expect(found).toContain(script)
  })

  it('are as high as their letters are drawn, by a measuring that shares no code', () => {
    const samples: readonly (readonly [family: string, script: CoveredScript, plain: string, deep: string])[] = [
      ['Inter', 'Greek', 'ν', 'ρ'],
      ['EB Garamond', 'Greek', 'ν', 'ρ'],
      ['Inter', 'Cyrillic', 'н', 'р'],
      ['Noto Serif', 'Cyrillic', 'н', 'р'],
    ]
    for (const [family, script, plain, deep] of samples) {
      const own = measuresIn(faceOf(family), script)!
      expect(Math.abs(inkOf(family, plain).top - own.xHeight), `${family} ${plain}`).toBeLessThanOrEqual(6)
      expect(Math.abs(-inkOf(family, deep).bottom - own.descender), `${family} ${deep}`).toBeLessThanOrEqual(12)
    }
  })

  it('have widths of words as they are shaped: what joins is narrower than letter by letter', () => {
    const { face, path } = regular('Noto Naskh Arabic')
    const file = readFileSync(path)
    const font = opentype.parse(file.buffer.slice(file.byteOffset, file.byteOffset + file.byteLength))
    const alone = [...'تغادرعبارةالصباح'].map(each => (font.charToGlyph(each).advanceWidth! * 1000) / font.unitsPerEm)
    const mean = alone.reduce((sum, each) => sum + each, 0) / alone.length
    expect(measuresIn(face, 'Arabic')!.averageWidth).toBeLessThan(mean * 0.9)
    expect(measuresIn(face, 'Arabic')!.averageWidth).toBeGreaterThan(mean * 0.4)
  })

  it('stand for a face that has no Latin ones, and it says so', () => {
    const { face, path } = regular('Noto Naskh Arabic')
    const arabic = [0x20, ...Array.from({ length: 0x100 }, (_, at) => 0x600 + at)]
    const bytes = subsetter.subsetFor(new Uint8Array(readFileSync(path)), arabic)
    const alone = readFace(bytes, contentHash(bytes), 'added')
    const own = face.measures.scripts.Arabic!
    expect(alone.measures).toMatchObject({ ...own, measuredOn: 'Arabic', scripts: {} })
    expect(alone.measures.contrast).toBeCloseTo(own.stem / own.hairline, 2)
    expect(alone.measures.widthO).toBeNull()
    // Beside the face that has both it is as large as it is in Arabic, whatever their Latin letters say.
    expect(equalSizes(face, 10, [alone], { measure: 283, script: 'Arabic' })[0]!.byXHeight).toBe(10)
    expect(scriptsShared([alone, face])).toEqual(['Arabic'])
    const signs = subsetter.subsetFor(new Uint8Array(readFileSync(path)), [0x28, 0x29, 0x2e])
    expect(readFace(signs, contentHash(signs), 'added').measures).toMatchObject({ measuredOn: null, xHeight: 0 })
  })

  it('squares count by their height, wherever they stand; without plain letters nothing is measured', () => {
    const box = (bottom: number, top: number) => `M0,${bottom}L900,${bottom}L900,${top}L0,${top}Z`
    const source = (paths: Readonly<Record<string, string>>) => ({
      unitsPerEm: 1000,
      outline: (character: string) => paths[character] ?? '',
      advance: () => 1000,
    })
    const squares = lettersOf(source({ 国: box(-80, 820), 田: box(-80, 820), 回: box(-60, 800) }))
    expect(measureScript(squares, 'Han', { unitsPerEm: 1000, advance: 1000 })).toMatchObject({
      xHeight: 900,
      capHeight: 0,
      averageWidth: 1000,
    })
    expect(measureScript(squares, 'Hangul', { unitsPerEm: 1000, advance: 1000 })).toBeNull()
    // Half the units in an em are twice as many thousandths.
    expect(measureScript(squares, 'Han', { unitsPerEm: 500, advance: 500 })!.xHeight).toBe(1800)
  })
})

describe('equal sizes by script', () => {
  const [one, other] = [faceOf('Inter'), faceOf('EB Garamond')]
  it('go by the letters of the script that is asked for', () => {
    const by = (script: CoveredScript) => equalSizes(one, 10, [other], { measure: 283, script })[0]!
    for (const script of ['Latin', 'Greek', 'Cyrillic'] as const) {
      const [mine, its] = [measuresIn(one, script)!, measuresIn(other, script)!]
      expect(by(script).byXHeight).toBeCloseTo((10 * mine.xHeight) / its.xHeight, 1)
      expect(by(script).byCapitals).toBeCloseTo((10 * mine.capHeight) / its.capHeight, 1)
    }
    expect(by('Thai')).toMatchObject({ byXHeight: null, byCapitals: null, lettersInLine: null })
  })

  it('are offered in the scripts that all faces have, those of the first one’s letters first', () => {
    expect(scriptsShared([one, other])).toEqual(['Latin', 'Greek', 'Cyrillic'])
    expect(scriptsShared([only(one, 'Greek'), other])).toEqual(['Greek'])
    expect(scriptsShared([only(one, 'Greek'), only(other, 'Cyrillic')])).toEqual([])
    expect(scriptsShared([])).toEqual([])
  })

  it('decide by how much a size changes: by the text’s script, else by what both were measured on', () => {
    const wish = sizeWishSchema.parse({ mode: 'x-height', least: 50, most: 200 })
    const ratio = (script: CoveredScript) => measuresIn(one, script)!.xHeight / measuresIn(other, script)!.xHeight
    expect(sizeFactor(wish, one, other, 'Greek')).toBeCloseTo(ratio('Greek'), 6)
    expect(ratio('Greek')).not.toBeCloseTo(ratio('Latin'), 3)
    for (const text of ['Thai', null] as const)
      expect(sizeFactor(wish, one, other, text)).toBeCloseTo(ratio('Latin'), 6)
    expect(comparedIn(only(one, 'Greek'), other, null)).toBeNull()
    expect(sizeFactor(wish, only(one, 'Greek'), other, 'Latin')).toBe(1)
    expect(sizeFactor(wish, only(one, 'Greek'), other, 'Greek')).toBeCloseTo(ratio('Greek'), 6)
  })
})
