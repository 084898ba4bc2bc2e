import { unzlibSync } from 'fflate'
import { PackageError } from '../package/errors'
import type { FaceRecord } from './face'
import { bareName, nameKey, slipsBetween } from './near-names'
import { fontFileLimit } from './read'

/*
 * A font file that somebody brings is untrusted: its table directory is checked before any table is read, and what is
 * packed (WOFF, W3C 2012) is unpacked under the same limit.
 */

const damaged = (what: string) => new PackageError('damaged', `${what} It was not added.`)
const view = (bytes: Uint8Array) => new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
const tagAt = (data: DataView, at: number) =>
  String.fromCharCode(data.getUint8(at), data.getUint8(at + 1), data.getUint8(at + 2), data.getUint8(at + 3))

/** What a font file is, by its first four bytes. */
export function fontFileKind(bytes: Uint8Array): 'sfnt' | 'woff' | 'woff2' | 'collection' | 'other' {
  if (bytes.length < 12) return 'other'
  const tag = tagAt(view(bytes), 0)
  if (tag === 'wOFF') return 'woff'
  if (tag === 'wOF2') return 'woff2'
  if (tag === 'ttcf') return 'collection'
  return tag === '\0\x01\0\0' || tag === 'OTTO' || tag === 'true' ? 'sfnt' : 'other'
}

/** More tables than any real font has. */
const tableLimit = 200

/** Unpacks a WOFF file: every table is inflated under the limit of font files. @throws PackageError */
export function unpackWoff(bytes: Uint8Array): Uint8Array {
  const data = view(bytes)
  if (bytes.length < 44) throw damaged('This font file is cut off.')
  const count = data.getUint16(12)
  const total = data.getUint32(16)
  if (count === 0 || count > tableLimit || total > fontFileLimit || 44 + count * 20 > bytes.length)
    throw damaged('The table directory of this font file is not sound.')
  const tables = Array.from({ length: count }, (_, index) => {
    const at = 44 + index * 20
    const [offset, packed, size] = [data.getUint32(at + 4), data.getUint32(at + 8), data.getUint32(at + 12)]
    if (offset + packed > bytes.length || packed > size || size > fontFileLimit)
      throw damaged('A table of this font file lies outside of it.')
    const raw = bytes.subarray(offset, offset + packed)
    let inside: Uint8Array
    try {
      inside = packed === size ? raw : unzlibSync(raw, { out: new Uint8Array(size) })
    } catch {
      throw damaged('A table of this font file cannot be unpacked.')
    }
    if (inside.length !== size) throw damaged('A table of this font file is not as long as it says.')
    return { tag: data.getUint32(at), checksum: data.getUint32(at + 16), inside }
  })
  const padded = (size: number) => (size + 3) & ~3
  const out = new Uint8Array(12 + count * 16 + tables.reduce((sum, table) => sum + padded(table.inside.length), 0))
  if (out.length > fontFileLimit) throw damaged('This font file is too large when it is unpacked.')
  const to = view(out)
  const power = Math.floor(Math.log2(count))
  to.setUint32(0, data.getUint32(4))
  to.setUint16(4, count)
  to.setUint16(6, 16 << power)
  to.setUint16(8, power)
  to.setUint16(10, count * 16 - (16 << power))
  let at = 12 + count * 16
  tables.forEach(({ tag, checksum, inside }, index) => {
    const entry = 12 + index * 16
    to.setUint32(entry, tag)
    to.setUint32(entry + 4, checksum)
    to.setUint32(entry + 8, at)
    to.setUint32(entry + 12, inside.length)
    out.set(inside, at)
    at += padded(inside.length)
  })
  return out
}

/**
 * Checks the table directory of a TrueType or OpenType file (OpenType 1.9, otff): every table inside the file, and
 * those that a face cannot do without.
 * @throws PackageError
 */
export function checkTables(bytes: Uint8Array): void {
  const data = view(bytes)
  if (bytes.length < 12 || bytes.length > fontFileLimit) throw damaged('This font file is empty or too large.')
  const count = data.getUint16(4)
  if (count === 0 || count > tableLimit || 12 + count * 16 > bytes.length)
    throw damaged('The table directory of this font file is not sound.')
  const tables = new Map<string, { offset: number; length: number }>()
  for (let index = 0; index < count; index++) {
    const at = 12 + index * 16
    const [offset, length] = [data.getUint32(at + 8), data.getUint32(at + 12)]
    if (offset > bytes.length || length > bytes.length - offset)
      throw damaged('A table of this font file lies outside of it.')
    tables.set(tagAt(data, at), { offset, length })
  }
  const missing = ['cmap', 'head', 'hhea', 'hmtx', 'maxp', 'name'].filter(tag => !tables.has(tag))
  if (missing.length > 0) throw damaged(`This font file lacks what every face needs (${missing.join(', ')}).`)
  if (!(tables.has('glyf') && tables.has('loca')) && !tables.has('CFF ') && !tables.has('CFF2'))
    throw damaged('This font file has no outlines.')
  const head = tables.get('head')!
  if (head.length < 54 || data.getUint32(head.offset + 12) !== 0x5f0f3cf5)
    throw damaged('The head of this font file is not sound.')
  const upem = data.getUint16(head.offset + 18)
  if (upem < 16 || upem > 16384) throw damaged('The grid of this font file is not one that a face can have.')
}

/** Whether a font file is the family that was asked for, and what to say about it. */
export interface FamilyCheck {
  readonly same: boolean
  readonly said: string
}

/** Compares the family that a file says it is with the one that is absent; for people. */
export function isFamily(face: Pick<FaceRecord, 'family' | 'style' | 'fullName'>, wanted: string): FamilyCheck {
  const names = [face.family, face.fullName, `${face.family} ${face.style}`]
  if (names.some(name => nameKey(name) === nameKey(wanted)))
    return { same: true, said: `it is ${face.family} ${face.style}` }
  if (bareName(face.family).key === bareName(wanted).key)
    return {
      same: false,
      said: `it calls itself ${face.family} ${face.style}: the same name but for the maker, the format or the cut`,
    }
  if (slipsBetween(nameKey(face.family), nameKey(wanted), 2) <= 2)
    return {
      same: false,
      said: `it calls itself ${face.family} ${face.style}, which is written a little otherwise than ${wanted}`,
    }
  return { same: false, said: `it calls itself ${face.family} ${face.style}, not ${wanted}` }
}
