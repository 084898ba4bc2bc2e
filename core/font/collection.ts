import { PackageError } from '../package/errors'
import { fontFileLimit } from './read'

/** A collection holds at most so many faces; the largest in use hold a few dozen. */
const faceLimit = 64
/** Tables that faces share are in each of them once they are apart: together they stay under this. */
const apartLimit = 4 * fontFileLimit

const damaged = (what: string) => new PackageError('damaged', `${what} It was not added.`)

/** One face of a collection as a file of its own: its tables behind a directory of its own. */
function faceAt(bytes: Uint8Array, data: DataView, at: number): Uint8Array {
  if (at + 12 > bytes.length) throw damaged('This collection of faces is cut off.')
  const count = data.getUint16(at + 4)
  if (count === 0 || count > 200 || at + 12 + count * 16 > bytes.length)
    throw damaged('The table directory of a face in this collection is not sound.')
  const tables = Array.from({ length: count }, (_, index) => {
    const entry = at + 12 + index * 16
    const [offset, length] = [data.getUint32(entry + 8), data.getUint32(entry + 12)]
    if (offset > bytes.length || length > bytes.length - offset)
      throw damaged('A table of a face in this collection lies outside of it.')
    return { entry, offset, length }
  })
  const padded = (length: number) => (length + 3) & ~3
  const size = 12 + count * 16 + tables.reduce((sum, { length }) => sum + padded(length), 0)
  if (size > fontFileLimit) throw damaged('A face of this collection is too large when it stands by itself.')
  const out = new Uint8Array(size)
  const to = new DataView(out.buffer)
  out.set(bytes.subarray(at, at + 12))
  let place = 12 + count * 16
  tables.forEach(({ entry, offset, length }, index) => {
    const own = 12 + index * 16
    out.set(bytes.subarray(entry, entry + 8), own)
    to.setUint32(own + 8, place)
    to.setUint32(own + 12, length)
    out.set(bytes.subarray(offset, offset + length), place)
    place += padded(length)
  })
  return out
}

/**
 * The faces of a collection (OpenType 1.9, otff, font collections), each as a file of its own. Checksums of tables stay as
 * they are; that of the whole file speaks of the collection, and no reader needs it.
 * @throws PackageError
 */
export function facesOfCollection(bytes: Uint8Array): Uint8Array[] {
  const data = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  if (bytes.length < 16) throw damaged('This collection of faces is cut off.')
  const count = data.getUint32(8)
  if (count === 0 || count > faceLimit || 12 + count * 4 > bytes.length)
    throw damaged(`This collection says that it holds ${count} faces; from one to ${faceLimit} are taken.`)
  const faces: Uint8Array[] = []
  let whole = 0
  for (let index = 0; index < count; index++) {
    const face = faceAt(bytes, data, data.getUint32(12 + index * 4))
    whole += face.length
    if (whole > apartLimit) throw damaged('The faces of this collection are too large when they stand apart.')
    faces.push(face)
  }
  return faces
}
