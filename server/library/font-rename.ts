/*
 * The simulated supplier sells faces under made-up names: copies of faces under the SIL Open Font License whose names
 * are changed, as that licence asks of changed copies.
 */

interface Table {
  readonly tag: string
  readonly bytes: Uint8Array
}

function tablesOf(file: Uint8Array): Table[] {
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

/** A name table with Windows Unicode records alone (OpenType 1.9, name). */
function nameTable(names: Readonly<Record<number, string>>): Uint8Array {
  const records = Object.entries(names).map(([id, text]) => ({
    id: Number(id),
    bytes: Uint8Array.from(
      [...text].flatMap(letter => {
        const code = letter.charCodeAt(0)
        return [code >> 8, code & 255]
      }),
    ),
  }))
  const storage = 6 + records.length * 12
  const out = new Uint8Array(storage + records.reduce((sum, each) => sum + each.bytes.length, 0))
  const data = new DataView(out.buffer)
  data.setUint16(2, records.length)
  data.setUint16(4, storage)
  let offset = 0
  records.forEach(({ id, bytes }, index) => {
    const at = 6 + index * 12
    ;[3, 1, 0x409, id, bytes.length, offset].forEach((value, field) => {
      data.setUint16(at + field * 2, value)
    })
    out.set(bytes, storage + offset)
    offset += bytes.length
  })
  return out
}

/** A copy of a font file that goes by another name. */
export function renamedFont(file: Uint8Array, family: string, style: string, licence: string): Uint8Array {
  const full = `${family} ${style}`
  const names = nameTable({
    1: style === 'Regular' || style === 'Bold' || style === 'Italic' || style === 'Bold Italic' ? family : full,
    2: /Italic/.test(style) ? 'Italic' : 'Regular',
    3: `${full}, simulated`,
    4: full,
    6: full.replace(/[^A-Za-z0-9]+/g, '-'),
    13: licence,
    16: family,
    17: style,
  })
  const tables = tablesOf(file).map(table =>
    table.tag === 'name'
      ? { ...table, bytes: names }
      : table.tag === 'head'
        ? { ...table, bytes: Uint8Array.from(table.bytes) }
        : table,
  )
  const size = 12 + tables.length * 16 + tables.reduce((sum, table) => sum + ((table.bytes.length + 3) & ~3), 0)
  const out = new Uint8Array(size)
  out.set(file.subarray(0, 12))
  const data = new DataView(out.buffer)
  let offset = 12 + tables.length * 16
  let headAt = 0
  tables.forEach(({ tag, bytes }, index) => {
    const at = 12 + index * 16
    if (tag === 'head') {
      headAt = offset
      new DataView(bytes.buffer, bytes.byteOffset).setUint32(8, 0)
    }
    ;[...tag].forEach((letter, place) => {
      out[at + place] = letter.charCodeAt(0)
    })
    data.setUint32(at + 4, checksum(bytes))
    data.setUint32(at + 8, offset)
    data.setUint32(at + 12, bytes.length)
    out.set(bytes, offset)
    offset += (bytes.length + 3) & ~3
  })
  // The whole file sums up to this number (OpenType 1.9, head).
  data.setUint32(headAt + 8, (0xb1b0afba - checksum(out)) >>> 0)
  return out
}
