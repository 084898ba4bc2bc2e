import { describe, expect, it } from 'vitest'
import { calledNames, namesOf, withNames } from '../../../core/font/names'
import { fileOf, tablesOf } from '../../../core/font/sfnt'
import { readFontFile } from '../../../server/library/files'
import { shippedFaces } from '../../../server/library/shipped'

const file = readFontFile(shippedFaces().find(({ face }) => face.family === 'Prata')!.path)

/** The sum of 32-bit words, what is missing of the last being nothing (OpenType 1.9, “Calculating checksums”). */
function sumOf(bytes: Uint8Array): number {
  const padded = new Uint8Array(Math.ceil(bytes.length / 4) * 4)
  padded.set(bytes)
  const data = new DataView(padded.buffer)
  let sum = 0n
  for (let at = 0; at < padded.length; at += 4) sum += BigInt(data.getUint32(at))
  return Number(sum & 0xffffffffn)
}

/** A name table of its own: records of platform, encoding, language, id and text, and how many it says there are. */
function tableOf(records: readonly (readonly [number, number, number, number, string])[], said = records.length) {
  const storage = 6 + records.length * 12
  const words = records.map(record => [...record[4]].flatMap(letter => [0, letter.charCodeAt(0)]))
  const out = new Uint8Array(storage + words.flat().length)
  const data = new DataView(out.buffer)
  data.setUint16(2, said)
  data.setUint16(4, storage)
  let offset = 0
  records.forEach(([platform, encoding, language, id], at) => {
    ;[platform, encoding, language, id, words[at]!.length, offset].forEach((value, field) =>
      data.setUint16(6 + at * 12 + field * 2, value),
    )
    out.set(words[at]!, storage + offset)
    offset += words[at]!.length
  })
  return out
}
const readAs = (table: Uint8Array) =>
  namesOf(
    fileOf(
      file,
      tablesOf(file).map(each => (each.tag === 'name' ? { ...each, bytes: table } : each)),
    ),
  )

describe('the names of a font file', () => {
  it('are written as asked, with sums that are right, and nothing else of the file is changed', () => {
    // Lengths of every remainder by four: sums go on over what is missing of the last word.
    for (const style of ['Regular', 'Bol', 'Semi', 'Light Italic']) {
      const names = calledNames(namesOf(file), 'Brinkholm', style)
      const written = withNames(file, names)
      expect(namesOf(written)).toEqual(new Map([...names].sort(([one], [other]) => one - other)))
      const data = new DataView(written.buffer)
      for (let at = 12; at < 12 + data.getUint16(4) * 16; at += 16) {
        const [sum, offset, length] = [4, 8, 12].map(field => data.getUint32(at + field)) as [number, number, number]
        const table = written.slice(offset, offset + length)
        // The sum of the head is that without the sum of the file, which it holds.
        if (String.fromCharCode(...written.slice(at, at + 4)) === 'head') new DataView(table.buffer).setUint32(8, 0)
        expect(sumOf(table)).toBe(sum)
      }
      expect(sumOf(written)).toBe(0xb1b0afba)
      const [before, after] = [file, written].map(each =>
        Object.fromEntries(tablesOf(each).map(({ tag, bytes }) => [tag, bytes])),
      )
      for (const tag of Object.keys(before!).filter(each => each !== 'name' && each !== 'head'))
        expect(after![tag], tag).toEqual(before![tag])
    }
  })

  it('are those for Windows in English, of as many records as the table really has', () => {
    const english = [3, 1, 0x409] as const
    const records = [
      [...english, 1, 'Prata'],
      [3, 1, 0x407, 1, 'Deutsch'],
      [1, 0, 0, 1, 'Mac'],
      [...english, 2, 'Regular'],
    ] as const
    const both = new Map([
      [1, 'Prata'],
      [2, 'Regular'],
    ])
    expect(readAs(tableOf(records))).toEqual(both)
    // One that says fewer has no more, and one that says more has no more than there is room for.
    expect(readAs(tableOf(records, 1))).toEqual(new Map([[1, 'Prata']]))
    expect(readAs(tableOf(records, 60_000))).toMatchObject(both)
    expect(readAs(tableOf([[...english, 1, '']], 2))).toEqual(new Map([[1, '']]))
    expect(readAs(new Uint8Array(5))).toEqual(new Map())
    // A name that lies outside of the table is none.
    const cut = tableOf(records)
    expect(readAs(cut.slice(0, cut.length - 1))).toEqual(new Map([[1, 'Prata']]))
  })
})
