import { fileOf, tablesOf } from './sfnt'

/*
 * The names of a font file (OpenType 1.9, name): what it is called, who made it, what may be done with it. They are written
 * as Windows Unicode records in English alone, which every program reads.
 */

/** Names by their ids. */
export type FontNames = ReadonlyMap<number, string>

const windows = { platform: 3, encoding: 1, language: 0x409 } as const
/** More records than any real font has. */
const recordLimit = 5_000

/** The names that a table says for Windows in English. */
function namesIn(table: Uint8Array): FontNames {
  const data = new DataView(table.buffer, table.byteOffset, table.byteLength)
  const names = new Map<number, string>()
  if (table.length < 6) return names
  const storage = data.getUint16(4)
  const count = Math.min(data.getUint16(2), recordLimit, Math.floor((table.length - 6) / 12))
  for (let index = 0; index < count; index++) {
    const [platform, encoding, language, id, length, offset] = [0, 2, 4, 6, 8, 10].map(field =>
      data.getUint16(6 + index * 12 + field),
    ) as [number, number, number, number, number, number]
    const from = storage + offset
    if (platform !== windows.platform || encoding !== windows.encoding || language !== windows.language) continue
    if (from + length > table.length) continue
    let text = ''
    for (let at = from; at + 1 < from + length; at += 2) text += String.fromCharCode(data.getUint16(at))
    names.set(id, text)
  }
  return names
}

/** A table that says some names. */
function nameTable(names: FontNames): Uint8Array {
  const records = [...names]
    .sort(([one], [other]) => one - other)
    .map(([id, text]) => ({
      id,
      bytes: Uint8Array.from(
        // UTF-16: every unit as it is.
        Array.from({ length: text.length }, (_, at) => [text.charCodeAt(at) >> 8, text.charCodeAt(at) & 255]).flat(),
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
    ;[windows.platform, windows.encoding, windows.language, id, bytes.length, offset].forEach((value, field) => {
      data.setUint16(at + field * 2, value)
    })
    out.set(bytes, storage + offset)
    offset += bytes.length
  })
  return out
}

/** A copy of a font file that says other names; those that are not among them go. */
export const withNames = (file: Uint8Array, names: FontNames): Uint8Array =>
  fileOf(
    file,
    tablesOf(file).map(table => (table.tag === 'name' ? { ...table, bytes: nameTable(names) } : table)),
  )

/** The names of a file as it is. */
export const namesOf = (file: Uint8Array): FontNames =>
  namesIn(tablesOf(file).find(table => table.tag === 'name')?.bytes ?? new Uint8Array())

/** The four styles that a family of old programs has; all others are families of their own there. */
const linked = new Set(['Regular', 'Bold', 'Italic', 'Bold Italic'])

/**
 * What a face is called (name ids 1, 2, 4, 6, 16 and 17), on top of the names that it has: family and subfamily for old
 * programs, which know four styles of a family, and the typographic ones.
 */
export function calledNames(names: FontNames, family: string, style: string): Map<number, string> {
  const full = `${family} ${style}`
  return new Map([
    ...names,
    [1, linked.has(style) ? family : full],
    [2, linked.has(style) ? style : /Italic/.test(style) ? 'Italic' : 'Regular'],
    [4, full],
    [6, full.replace(/[^A-Za-z0-9]+/g, '-')],
    [16, family],
    [17, style],
  ])
}
