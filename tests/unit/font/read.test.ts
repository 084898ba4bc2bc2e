import { describe, expect, it } from 'vitest'
import { readFace } from '../../../core/font/read'
import { shippedFaces } from '../../../server/library/shipped'
import { readFontFile } from '../../../server/library/files'
import { soundFonts } from '../../support/broken-files'

const { truetype } = await soundFonts()

/** Where a table of a font file begins, and where its entry in the directory. */
function tableAt(bytes: Uint8Array, tag: string): { readonly entry: number; readonly offset: number } {
  const data = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  for (let entry = 12; entry < 12 + data.getUint16(4) * 16; entry += 16)
    if (String.fromCharCode(...bytes.subarray(entry, entry + 4)) === tag)
      return { entry, offset: data.getUint32(entry + 8) }
  throw new Error(`no table ${tag}`)
}
/** The file with fields of a table set: offsets as OpenType 1.9 has them. */
function withFields(tag: string, fields: Readonly<Record<number, number>>, size: 1 | 2 | 4 = 2): Uint8Array {
  const own = truetype.slice()
  const data = new DataView(own.buffer)
  for (const [at, value] of Object.entries(fields)) {
    const place = tableAt(own, tag).offset + Number(at)
    if (size === 1) data.setUint8(place, value)
    else if (size === 2) data.setInt16(place, value)
    else data.setUint32(place, value)
  }
  return own
}
/** The file without a table: its tag is one that nobody knows. */
function without(tag: string): Uint8Array {
  const own = truetype.slice()
  own.set([0x78, 0x78, 0x78, 0x78], tableAt(own, tag).entry)
  return own
}
const read = (bytes: Uint8Array) => readFace(bytes, 'h', 'added')
const plain = read(truetype)

describe('what a font file says of its face', () => {
  it.each([
    [0, 'installable'],
    [0x100, 'installable'],
    [2, 'restricted'],
    [4, 'preview'],
    [8, 'editable'],
    [0xc, 'editable'],
    [6, 'preview'],
  ])('embedding %d is %s', (type, embedding) => {
    expect(read(withFields('OS/2', { 8: type })).embedding).toBe(embedding)
  })

  it.each([
    [400, 400],
    [650, 650],
    [1000, 1000],
    [1001, 1000],
    [0, 1],
    // It calls itself Regular: then a class below light is no mistake of old makers.
    [250, 250],
  ])('weight class %d is the weight %d', (stated, weight) => {
    expect(read(withFields('OS/2', { 4: stated })).weight).toBe(weight)
  })

  it.each([
    [0, 50],
    [1, 50],
    [2, 62.5],
    [5, 100],
    [8, 150],
    [9, 200],
    [10, 200],
  ])('width class %d is a width of %d %%', (stated, width) => {
    expect(read(withFields('OS/2', { 6: stated })).width).toBe(width)
  })

  it.each([
    [0x40, 'upright'],
    [0x01, 'italic'],
    [0x200, 'italic'],
    [0x241, 'italic'],
  ])('selection %d is %s', (flags, slant) => {
    expect(read(withFields('OS/2', { 62: flags })).slant).toBe(slant)
  })

  it('has its Panose figures, its lines and whether it is of one width', () => {
    expect(
      read(withFields('OS/2', Object.fromEntries([...Array(10).keys()].map(at => [32 + at, at + 1])), 1)).panose,
    ).toEqual([1, 2, 3, 4, 5, 6, 7, 8, 9, 10])
    const perEm = 1000 / 2048
    const lines = read(withFields('post', { 8: -205, 10: 102 })).measures
    expect(new DataView(truetype.buffer, truetype.byteOffset).getUint16(tableAt(truetype, 'head').offset + 18)).toBe(
      2048,
    )
    expect(lines.underlinePosition).toBeCloseTo(-205 * perEm, 1)
    expect(lines.underlineThickness).toBeCloseTo(102 * perEm, 1)
    const strikes = read(withFields('OS/2', { 26: 90, 28: 500 })).measures
    expect(strikes.strikeThickness).toBeCloseTo(90 * perEm, 1)
    expect(strikes.strikePosition).toBeCloseTo(500 * perEm, 1)
    expect(plain.monospaced).toBe(false)
    expect(read(withFields('post', { 12: 1 }, 4)).monospaced).toBe(true)
  })

  it('goes without what the file lacks', () => {
    expect(read(without('OS/2'))).toMatchObject({
      family: plain.family,
      weight: 400,
      width: 100,
      slant: 'upright',
      embedding: 'installable',
      panose: [],
      measures: { strikePosition: 250, strikeThickness: 50, xHeight: plain.measures.xHeight },
    })
    expect(read(without('post'))).toMatchObject({
      monospaced: false,
      measures: { underlinePosition: -100, underlineThickness: 50 },
    })
  })

  it('has its names, and its signs in runs', () => {
    expect(plain).toMatchObject({
      family: 'Arvo',
      style: 'Regular',
      fullName: 'Arvo',
      postScriptName: 'Arvo',
      hash: 'h',
    })
    expect(plain.ranges.length % 2).toBe(0)
    for (let at = 0; at < plain.ranges.length; at += 2) {
      expect(plain.ranges[at + 1]).toBeGreaterThanOrEqual(plain.ranges[at]!)
      // Runs that touch would be one.
      if (at > 0) expect(plain.ranges[at]! - plain.ranges[at - 1]!).toBeGreaterThan(1)
    }
    expect(plain.coverage.Latin).toBeGreaterThan(100)
    expect(plain.features).toEqual([...plain.features].sort())
    expect(plain.fileSize).toBe(truetype.length)
  })

  it('measures on the script that it has most letters of, where it has no Latin ones', () => {
    const of = (family: string) => shippedFaces().find(({ face }) => face.family === family && face.weight === 400)!
    for (const family of ['Noto Naskh Arabic', 'Noto Sans Devanagari', 'Frank Ruhl Libre']) {
      const { face, path } = of(family)
      const { measures, coverage } = read(readFontFile(path))
      expect(measures.measuredOn).toBe(face.measures.measuredOn)
      expect(Object.keys(measures.scripts)).not.toContain(measures.measuredOn)
      expect(measures.xHeight).toBeGreaterThan(200)
      if (measures.measuredOn !== 'Latin')
        expect(coverage[measures.measuredOn!]).toBe(Math.max(...Object.values(coverage)))
    }
  })
})
