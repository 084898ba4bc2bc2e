/** A collection of font files, sharing nothing (OpenType 1.9, otff, font collections). */
export function collectionOf(files: readonly Uint8Array[]): Uint8Array {
  const padded = (length: number) => (length + 3) & ~3
  const head = 12 + files.length * 4
  const out = new Uint8Array(head + files.reduce((sum, file) => sum + padded(file.length), 0))
  const data = new DataView(out.buffer)
  data.setUint32(0, 0x74746366)
  data.setUint32(4, 0x00010000)
  data.setUint32(8, files.length)
  let at = head
  files.forEach((file, index) => {
    data.setUint32(12 + index * 4, at)
    out.set(file, at)
    // Offsets of a collection count from its beginning.
    const tables = data.getUint16(at + 4)
    for (let entry = at + 12; entry < at + 12 + tables * 16; entry += 16)
      data.setUint32(entry + 8, data.getUint32(entry + 8) + at)
    at += padded(file.length)
  })
  return out
}
