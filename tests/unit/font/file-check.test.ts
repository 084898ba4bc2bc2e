import { zlibSync } from 'fflate'
import { describe, expect, it } from 'vitest'
import { facesOfCollection } from '../../../core/font/collection'
import { checkTables, fontFileKind, isFamily, unpackWoff } from '../../../core/font/file-check'
import { fontFileLimit } from '../../../core/font/read'

const bytesOf = (words: string) => Uint8Array.from(words, character => character.charCodeAt(0))
const padded = (size: number) => (size + 3) & ~3

/** The head of a font: its magic number and its grid (OpenType 1.9, head). */
function head(upem: number, magic = 0x5f0f3cf5): Uint8Array {
  const table = new Uint8Array(54)
  const data = new DataView(table.buffer)
  data.setUint32(12, magic)
  data.setUint16(18, upem)
  return table
}
const needed = ['cmap', 'hhea', 'hmtx', 'maxp', 'name'].map(tag => [tag, bytesOf(`${tag} of it`)] as const)
const outlines = ['glyf', 'loca'].map(tag => [tag, bytesOf(tag)] as const)
type Tables = readonly (readonly [string, Uint8Array])[]
const sound: Tables = [['head', head(1000)], ...needed, ...outlines]

/** A font file of such tables: a directory, and the tables behind it. */
function sfnt(tables: Tables, tag = '\0\x01\0\0'): Uint8Array {
  const out = new Uint8Array(tables.reduce((sum, [, inside]) => sum + padded(inside.length), 12 + tables.length * 16))
  const data = new DataView(out.buffer)
  out.set(bytesOf(tag))
  data.setUint16(4, tables.length)
  let at = 12 + tables.length * 16
  tables.forEach(([name, inside], index) => {
    const entry = 12 + index * 16
    out.set(bytesOf(name), entry)
    data.setUint32(entry + 8, at)
    data.setUint32(entry + 12, inside.length)
    out.set(inside, at)
    at += padded(inside.length)
  })
  return out
}
/** The same, changed at one place. */
function changed(bytes: Uint8Array, change: (data: DataView) => void): Uint8Array {
  const own = bytes.slice()
  change(new DataView(own.buffer))
  return own
}

/** A packed font file (WOFF, W3C 2012): tables deflated where that is shorter. */
function woff(tables: Tables): Uint8Array {
  const packed = tables.map(([, inside]) => {
    const deflated = zlibSync(inside)
    return deflated.length < inside.length ? deflated : inside
  })
  const out = new Uint8Array(packed.reduce((sum, each) => sum + padded(each.length), 44 + tables.length * 20))
  const data = new DataView(out.buffer)
  out.set(bytesOf('wOFF'))
  data.setUint32(4, 0x00010000)
  data.setUint16(12, tables.length)
  data.setUint32(16, sfnt(tables).length)
  let at = 44 + tables.length * 20
  tables.forEach(([name, inside], index) => {
    const entry = 44 + index * 20
    out.set(bytesOf(name), entry)
    data.setUint32(entry + 4, at)
    data.setUint32(entry + 8, packed[index]!.length)
    data.setUint32(entry + 12, inside.length)
    data.setUint32(entry + 16, 0xabcd0000 + index)
    out.set(packed[index]!, at)
    at += padded(packed[index]!.length)
  })
  return out
}

describe('what a font file is', () => {
  it.each([
    ['\0\x01\0\0', 'sfnt'],
    ['OTTO', 'sfnt'],
    ['true', 'sfnt'],
    ['wOFF', 'woff'],
    ['wOF2', 'woff2'],
    ['ttcf', 'collection'],
    ['%PDF', 'other'],
  ])('by its first four bytes: %j', (tag, kind) => {
    expect(fontFileKind(bytesOf(tag.padEnd(12, '\0')))).toBe(kind)
  })

  it('is nothing where it is too short to have a directory', () => {
    expect(fontFileKind(bytesOf('OTTO'.padEnd(11, '\0')))).toBe('other')
    expect(fontFileKind(new Uint8Array())).toBe('other')
  })
})

describe('the directory of a font file', () => {
  const outcome = (bytes: Uint8Array): string => {
    try {
      checkTables(bytes)
      return 'sound'
    } catch (error) {
      return (error as Error).message.replace(' It was not added.', '')
    }
  }
  const without = (tag: string): Tables => sound.filter(([name]) => name !== tag)
  const many = (count: number): Tables => [
    ...sound,
    ...Array.from(
      { length: count - sound.length },
      (_, at) => [`x${String(at).padStart(3, '0')}`, bytesOf('x')] as const,
    ),
  ]
  const withHead = (table: Uint8Array): Uint8Array => sfnt([['head', table], ...without('head')])

  it.each<[string, Uint8Array, string]>([
    ['all that it needs', sfnt(sound), 'sound'],
    ['outlines of another kind', sfnt([...without('glyf'), ['CFF ', bytesOf('CFF')]]), 'sound'],
    ['variable outlines of that kind', sfnt([...without('loca'), ['CFF2', bytesOf('CFF')]]), 'sound'],
    ['no outlines', sfnt(without('loca')), 'This font file has no outlines.'],
    ['no places of its outlines', sfnt(without('glyf')), 'This font file has no outlines.'],
    ['no names', sfnt(without('name')), 'This font file lacks what every face needs (name).'],
    [
      'no grid and no widths',
      sfnt(sound.filter(([name]) => name !== 'head' && name !== 'hmtx')),
      'This font file lacks what every face needs (head, hmtx).',
    ],
    ['as many tables as are taken', sfnt(many(200)), 'sound'],
    ['one table more', sfnt(many(201)), 'The table directory of this font file is not sound.'],
    ['no tables', sfnt([]), 'The table directory of this font file is not sound.'],
    ['less than a directory', new Uint8Array(11), 'This font file is empty or too large.'],
    ['more than is taken', new Uint8Array(fontFileLimit + 1), 'This font file is empty or too large.'],
    [
      'a directory that ends early',
      sfnt(sound).slice(0, 12 + 8 * 16 - 1),
      'The table directory of this font file is not sound.',
    ],
    ['the smallest grid', withHead(head(16)), 'sound'],
    ['a smaller one', withHead(head(15)), 'The grid of this font file is not one that a face can have.'],
    ['the largest grid', withHead(head(16384)), 'sound'],
    ['a larger one', withHead(head(16385)), 'The grid of this font file is not one that a face can have.'],
    ['a head that is cut off', withHead(head(1000).slice(0, 53)), 'The head of this font file is not sound.'],
    ['a head of something else', withHead(head(1000, 7)), 'The head of this font file is not sound.'],
    [
      'a table that ends behind it',
      changed(sfnt(sound), data => data.setUint32(12 + 12, sfnt(sound).length)),
      'A table of this font file lies outside of it.',
    ],
    [
      'a table that begins behind it',
      changed(sfnt(sound), data => data.setUint32(12 + 16 + 8, sfnt(sound).length + 1)),
      'A table of this font file lies outside of it.',
    ],
    [
      'an empty table at its very end',
      changed(sfnt(sound), data => {
        data.setUint32(12 + 16 + 8, sfnt(sound).length)
        data.setUint32(12 + 16 + 12, 0)
      }),
      'sound',
    ],
  ])('with %s', (_, bytes, said) => {
    expect(outcome(bytes)).toBe(said)
  })
})

describe('a packed font file', () => {
  const tables: Tables = [...sound, ['post', new Uint8Array(301).fill(7)]]
  const refusal = (bytes: Uint8Array): string => {
    try {
      unpackWoff(bytes)
      return 'unpacked'
    } catch (error) {
      return (error as Error).message.replace(' It was not added.', '')
    }
  }
  const entry = 44 + 8 * 20

  it('is unpacked to the file that was packed, table by table, with a directory that can be searched', () => {
    const out = unpackWoff(woff(tables))
    const data = new DataView(out.buffer)
    checkTables(out)
    expect(out.length).toBe(sfnt(tables).length)
    expect(data.getUint32(0)).toBe(0x00010000)
    // Nine tables: eight is the largest power of two that they hold (OpenType 1.9, otff).
    expect([4, 6, 8, 10].map(at => data.getUint16(at))).toEqual([9, 128, 3, 16])
    tables.forEach(([name, inside], index) => {
      const at = 12 + index * 16
      const offset = data.getUint32(at + 8)
      expect(String.fromCharCode(...out.subarray(at, at + 4))).toBe(name)
      expect(data.getUint32(at + 4)).toBe(0xabcd0000 + index)
      expect(offset % 4).toBe(0)
      expect(out.subarray(offset, offset + data.getUint32(at + 12))).toEqual(inside)
    })
  })

  it.each<[string, Uint8Array, string]>([
    ['its head is cut off', woff(tables).slice(0, 43), 'This font file is cut off.'],
    [
      'it has no tables',
      changed(woff(tables), data => data.setUint16(12, 0)),
      'The table directory of this font file is not sound.',
    ],
    [
      'it has too many',
      changed(woff(tables), data => data.setUint16(12, 201)),
      'The table directory of this font file is not sound.',
    ],
    [
      'its directory is cut off',
      woff(tables).slice(0, 44 + 9 * 20 - 1),
      'The table directory of this font file is not sound.',
    ],
    [
      'it says that it is too large',
      changed(woff(tables), data => data.setUint32(16, fontFileLimit + 1)),
      'The table directory of this font file is not sound.',
    ],
    [
      'a table lies outside',
      changed(woff(tables), data => data.setUint32(entry + 4, woff(tables).length)),
      'A table of this font file lies outside of it.',
    ],
    [
      'a table is larger packed than unpacked',
      changed(woff(tables), data => data.setUint32(44 + 12, 5)),
      'A table of this font file lies outside of it.',
    ],
    [
      'a table would be too large',
      changed(woff(tables), data => data.setUint32(entry + 12, fontFileLimit + 1)),
      'A table of this font file lies outside of it.',
    ],
    [
      'a table is shorter than it says',
      changed(woff(tables), data => data.setUint32(entry + 12, 302)),
      'A table of this font file is not as long as it says.',
    ],
    [
      'a table cannot be unpacked',
      changed(woff(tables), data => data.setUint16(data.getUint32(entry + 4), 0xffff)),
      'A table of this font file cannot be unpacked.',
    ],
  ])('is refused where %s', (_, bytes, said) => {
    expect(refusal(bytes)).toBe(said)
  })

  it('may end where its last table ends', () => {
    const whole = woff(tables)
    const data = new DataView(whole.buffer)
    expect(refusal(whole.slice(0, data.getUint32(entry + 4) + data.getUint32(entry + 8)))).toBe('unpacked')
  })
})

describe('the directory of a collection', () => {
  /** A collection whose faces share one directory at a place. */
  const collection = (count: number, at: number, rest: Uint8Array) => {
    const out = new Uint8Array(at + rest.length)
    const data = new DataView(out.buffer)
    out.set(bytesOf('ttcf'))
    data.setUint32(8, count)
    for (let index = 0; index < count && 16 + index * 4 <= at; index++) data.setUint32(12 + index * 4, at)
    out.set(rest, at)
    return out
  }
  const one = (bytes: Uint8Array) => {
    // Offsets of a collection count from its beginning.
    const data = new DataView(bytes.buffer)
    for (let index = 0; index < data.getUint16(4); index++)
      data.setUint32(12 + index * 16 + 8, data.getUint32(12 + index * 16 + 8) + 268)
    return bytes
  }
  const refusal = (bytes: Uint8Array): string => {
    try {
      return `${facesOfCollection(bytes).length} faces`
    } catch (error) {
      return (error as Error).message.replace(' It was not added.', '')
    }
  }
  const said = (count: number) => `This collection says that it holds ${count} faces; from one to 64 are taken.`

  it.each<[string, Uint8Array, string]>([
    ['one face', collection(1, 268, one(sfnt(sound))), '1 faces'],
    ['as many as are taken', collection(64, 268, one(sfnt(sound))), '64 faces'],
    ['one more', collection(65, 272, one(sfnt(sound))), said(65)],
    ['no face', collection(0, 268, one(sfnt(sound))), said(0)],
    ['less than a head', collection(1, 15, new Uint8Array()), 'This collection of faces is cut off.'],
    ['a list that ends early', collection(3, 23, new Uint8Array()), said(3)],
    ['a face that begins at its end', collection(1, 268, new Uint8Array(11)), 'This collection of faces is cut off.'],
    [
      'a face without tables',
      collection(1, 268, new Uint8Array(12)),
      'The table directory of a face in this collection is not sound.',
    ],
    [
      'a face whose directory ends early',
      collection(1, 268, sfnt(sound).slice(0, 12 + 8 * 16 - 1)),
      'The table directory of a face in this collection is not sound.',
    ],
    [
      'a face with a table outside',
      collection(
        1,
        268,
        changed(one(sfnt(sound)), data => data.setUint32(12 + 12, 9_999)),
      ),
      'A table of a face in this collection lies outside of it.',
    ],
    [
      'a face that is too large by itself',
      collection(
        1,
        268,
        changed(new Uint8Array(fontFileLimit), data => {
          data.setUint16(4, 2)
          for (const entry of [12, 28]) data.setUint32(entry + 12, fontFileLimit / 2 + 8)
        }),
      ),
      'A face of this collection is too large when it stands by itself.',
    ],
    [
      'faces that share what is large',
      collection(
        9,
        268,
        changed(new Uint8Array(fontFileLimit), data => {
          data.setUint16(4, 1)
          data.setUint32(24, fontFileLimit / 2)
        }),
      ),
      'The faces of this collection are too large when they stand apart.',
    ],
    [
      'as much of that as is taken',
      collection(
        7,
        268,
        changed(new Uint8Array(fontFileLimit), data => {
          data.setUint16(4, 1)
          data.setUint32(24, fontFileLimit / 2)
        }),
      ),
      '7 faces',
    ],
  ])('with %s', (_, bytes, outcome) => {
    expect(refusal(bytes)).toBe(outcome)
  })
})

describe('a file for a family that is absent', () => {
  const gull = { family: 'Gull Text', style: 'Bold', fullName: 'Gull Text Bold' }

  it.each([
    [gull, 'gull text', true, 'it is Gull Text Bold'],
    [gull, 'Gull Text Bold', true, 'it is Gull Text Bold'],
    [
      { ...gull, family: 'Gull Text Std' },
      'Gull Text',
      false,
      'it calls itself Gull Text Std Bold: the same name but for the maker, the format or the cut',
    ],
    [gull, 'Gul Texd', false, 'it calls itself Gull Text Bold, which is written a little otherwise than Gul Texd'],
    [gull, 'Gul Taxd', false, 'it calls itself Gull Text Bold, not Gul Taxd'],
    [gull, 'Cormorant', false, 'it calls itself Gull Text Bold, not Cormorant'],
  ])('%#: says whether it is that', (face, wanted, same, said) => {
    expect(isFamily(face, wanted)).toEqual({ same, said })
  })
})
