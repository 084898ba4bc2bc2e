/*
 * Font files as their tables (OpenType 1.9, otff): taken apart, and put together with what was changed of them.
 */

export interface Table {
  readonly tag: string
  readonly bytes: Uint8Array
}

/** The tables of a file whose directory was checked. */
export function tablesOf(file: Uint8Array): Table[] {
  const data = new DataView(file.buffer, file.byteOffset, file.byteLength)
  return Array.from({ length: data.getUint16(4) }, (_, index) => {
    const at = 12 + index * 16
    const offset = data.getUint32(at + 8)
    return {
      tag: String.fromCharCode(...file.subarray(at, at + 4)),
      bytes: file.subarray(offset, offset + data.getUint32(at + 12)),
    }
  })
}

const checksum = (bytes: Uint8Array): number => {
  let sum = 0
  for (let at = 0; at < bytes.length; at += 4)
    sum =
      (sum +
        (((bytes[at] ?? 0) << 24) |
          ((bytes[at + 1] ?? 0) << 16) |
          ((bytes[at + 2] ?? 0) << 8) |
          (bytes[at + 3] ?? 0))) >>>
      0
  return sum
}

/** A file of as many tables as another, under the same tags, with sums that are right. */
export function fileOf(like: Uint8Array, tables: readonly Table[]): Uint8Array {
  const size = 12 + tables.length * 16 + tables.reduce((sum, table) => sum + ((table.bytes.length + 3) & ~3), 0)
  const out = new Uint8Array(size)
  out.set(like.subarray(0, 12))
  const data = new DataView(out.buffer)
  let offset = 12 + tables.length * 16
  let headAt = 0
  tables.forEach(({ tag, bytes }, index) => {
    const at = 12 + index * 16
    out.set(bytes, offset)
    if (tag === 'head') {
      headAt = offset
      data.setUint32(offset + 8, 0)
    }
    ;[...tag].forEach((letter, place) => {
      out[at + place] = letter.charCodeAt(0)
    })
    data.setUint32(at + 4, checksum(out.subarray(offset, offset + bytes.length)))
    data.setUint32(at + 8, offset)
    data.setUint32(at + 12, bytes.length)
    offset += (bytes.length + 3) & ~3
  })
  // The whole file sums up to this number (OpenType 1.9, head).
  data.setUint32(headAt + 8, (0xb1b0afba - checksum(out)) >>> 0)
  return out
}
