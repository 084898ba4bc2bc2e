import { unzipSync, zipSync, zlibSync, type Zippable } from 'fflate'
import opentype from 'opentype.js'
import { compress } from 'wawoff2'
import { projectFolder, readFontFile } from '../../server/library/files'
import { join } from 'node:path'
import { numbersFrom } from './seeded'

/*
 * Files that were sound and are broken by chance: packages, PDFs and fonts. The same seed breaks the same file in the same way.
 */

type Chance = () => number
const upTo = (chance: Chance, count: number) => Math.floor(chance() * count)
const pick = <T>(chance: Chance, list: readonly T[]): T => list[upTo(chance, list.length)]!

/** Numbers that programs stumble over. */
const odd = ['0', '-1', '1e9cm', '99999999999', 'NaN', '-0.0001pt', '2147483648', '0cm', '%', '400%', '']

/** Ways to let a value say something else, in markup that stays sound. */
const valueBreaks: readonly ((text: string, chance: Chance) => string)[] = [
  (text, chance) => replaced(text, chance, /"[^"<>]{1,60}"/g, () => `"${pick(chance, odd)}"`),
  (text, chance) => {
    const values = [...text.matchAll(/"[^"<>]{1,60}"/g)].map(([value]) => value)
    return values.length === 0 ? text : replaced(text, chance, /"[^"<>]{1,60}"/g, () => pick(chance, values))
  },
]

/** Ways to break markup: each gives another text, none looks at what it means. */
const markupBreaks: readonly ((text: string, chance: Chance) => string)[] = [
  // A stretch is gone, there twice, or stands elsewhere.
  (text, chance) => {
    const from = upTo(chance, text.length)
    return text.slice(0, from) + text.slice(from + 1 + upTo(chance, 200))
  },
  (text, chance) => {
    const from = upTo(chance, text.length)
    const part = text.slice(from, from + 1 + upTo(chance, 2000))
    return text.slice(0, from) + part.repeat(1 + upTo(chance, 20)) + text.slice(from)
  },
  // An element is another one, or is gone with its end.
  (text, chance) => {
    const names = [...text.matchAll(/<([a-z]+:[a-z-]+)/g)].map(match => match[1]!)
    if (names.length === 0) return text
    const [from, to] = [pick(chance, names), pick(chance, names)]
    return text.replaceAll(`<${from}`, `<${to}`).replaceAll(`</${from}>`, `</${to}>`)
  },
  (text, chance) => replaced(text, chance, /<\/?[a-z]+:[a-z-]+[^>]*>/g, () => ''),
  // Letters that are none.
  (text, chance) => {
    const at = upTo(chance, text.length)
    return (
      text.slice(0, at) +
      pick(chance, ['\0', '&#0;', '&unknown;', '<![CDATA[', ']]>', '\uFFFF', '<', '&']) +
      text.slice(at)
    )
  },
  // Something in itself, many times.
  (text, chance) => {
    const found = [...text.matchAll(/<(text:(?:span|p|section)|draw:g|table:table-cell)\b[^>/]*>/g)]
    if (found.length === 0) return text
    const { 0: tag, 1: name, index } = pick(chance, found)
    const times = 2 + upTo(chance, 300)
    const end = text.indexOf(`</${name}>`, index)
    if (end < 0) return text
    return (
      text.slice(0, index) + tag.repeat(times) + text.slice(index, end) + `</${name}>`.repeat(times) + text.slice(end)
    )
  },
]

function replaced(text: string, chance: Chance, what: RegExp, by: () => string): string {
  const found = [...text.matchAll(what)]
  if (found.length === 0) return text
  const { 0: old, index } = pick(chance, found)
  return text.slice(0, index) + by() + text.slice(index + old.length)
}

function flipped(bytes: Uint8Array, chance: Chance, from = 0, to = bytes.length): Uint8Array {
  const next = bytes.slice()
  for (let times = 1 + upTo(chance, 12); times > 0; times--)
    next[from + upTo(chance, Math.max(to - from, 1))] = upTo(chance, 256)
  return next
}

/** A package broken in one of its parts, or in the zip itself. */
export function brokenPackage(sound: Uint8Array, seed: number): Uint8Array {
  const chance = numbersFrom(seed)
  if (chance() < 0.15) return chance() < 0.3 ? sound.slice(0, upTo(chance, sound.length)) : flipped(sound, chance)
  const files: Zippable = unzipSync(sound)
  const path = pick(
    chance,
    Object.keys(files).filter(name => name !== 'mimetype'),
  )
  const bytes = files[path] as Uint8Array
  if (!path.endsWith('.xml') || chance() < 0.1) files[path] = flipped(bytes, chance)
  else {
    let text = new TextDecoder().decode(bytes)
    // Mostly values alone: what is no markup any more is refused at its first letter, and nothing else is tried.
    const ways = chance() < 0.7 ? valueBreaks : markupBreaks
    for (let times = 1 + upTo(chance, 8); times > 0; times--) text = pick(chance, ways)(text, chance)
    files[path] = new TextEncoder().encode(text)
  }
  if (chance() < 0.05) delete files[path]
  return zipSync(files, { level: 1 })
}

/** A PDF broken by chance: bytes, stretches, numbers and names of it, or its end is gone. */
export function brokenPdf(sound: Uint8Array, seed: number): Uint8Array {
  const chance = numbersFrom(seed)
  const way = chance()
  if (way < 0.15) return sound.slice(0, upTo(chance, sound.length))
  if (way < 0.4) return flipped(sound, chance)
  if (way < 0.6) {
    const next = sound.slice()
    for (let times = 1 + upTo(chance, 20); times > 0; times--) {
      const from = upTo(chance, sound.length)
      next.copyWithin(upTo(chance, sound.length), from, from + upTo(chance, 400))
    }
    return next
  }
  // What dictionaries say is text: it says something else, mostly in as many letters, so that offsets still hold.
  let text = Buffer.from(sound).toString('latin1')
  for (let times = 1 + upTo(chance, 10); times > 0; times--) {
    const names = [...text.matchAll(/\/[A-Z][A-Za-z0-9]{2,20}/g)].map(([name]) => name)
    text =
      chance() < 0.5
        ? replaced(text, chance, /(?<=[ [])-?\d+(?:\.\d+)?(?=[ \]\r\n])/g, () =>
            pick(chance, ['0', '-1', '99999', '1e9']),
          )
        : replaced(text, chance, /\/[A-Z][A-Za-z0-9]{2,20}/g, () => (names.length > 0 ? pick(chance, names) : '/X'))
  }
  return new Uint8Array(Buffer.from(text, 'latin1'))
}

/** The kinds of font files that are taken. */
export const fontKinds = ['truetype', 'cff', 'woff', 'woff2'] as const
export type FontKind = (typeof fontKinds)[number]

const shipped = join(projectFolder(), 'node_modules/@expo-google-fonts/arvo/400Regular/Arvo_400Regular.ttf')

/** A sound font with PostScript outlines: the letters of a shipped one, drawn again. */
function cffFont(): Uint8Array {
  const source = opentype.parse(readFontFile(shipped).slice().buffer)
  const letters = [...'HIxzaeonpqgdl AMW.,0123456789']
  const glyphs = letters.map(letter => source.charToGlyph(letter))
  return new Uint8Array(
    new opentype.Font({
      familyName: 'Drawn Again',
      styleName: 'Regular',
      unitsPerEm: source.unitsPerEm,
      ascender: source.ascender,
      descender: source.descender,
      glyphs: [source.glyphs.get(0), ...glyphs],
    }).toArrayBuffer(),
  )
}

/** A font file as WOFF (W3C 2012): each table packed by itself. */
export function packWoff(font: Uint8Array): Uint8Array {
  const data = new DataView(font.buffer, font.byteOffset, font.byteLength)
  const count = data.getUint16(4)
  const tables = Array.from({ length: count }, (_, index) => {
    const at = 12 + index * 16
    const [offset, size] = [data.getUint32(at + 8), data.getUint32(at + 12)]
    const inside = font.subarray(offset, offset + size)
    const packed = zlibSync(inside)
    return { at, size, packed: packed.length < size ? packed : inside }
  })
  const padded = (size: number) => (size + 3) & ~3
  const total = 44 + count * 20 + tables.reduce((sum, each) => sum + padded(each.packed.length), 0)
  const out = new Uint8Array(total)
  const to = new DataView(out.buffer)
  to.setUint32(0, 0x774f4646)
  to.setUint32(4, data.getUint32(0))
  to.setUint32(8, total)
  to.setUint16(12, count)
  to.setUint32(16, 12 + count * 16 + tables.reduce((sum, each) => sum + padded(each.size), 0))
  let place = 44 + count * 20
  tables.forEach(({ at, size, packed }, index) => {
    const entry = 44 + index * 20
    to.setUint32(entry, data.getUint32(at))
    to.setUint32(entry + 4, place)
    to.setUint32(entry + 8, packed.length)
    to.setUint32(entry + 12, size)
    to.setUint32(entry + 16, data.getUint32(at + 4))
    out.set(packed, place)
    place += padded(packed.length)
  })
  return out
}

/** One sound font file of each kind. */
export async function soundFonts(): Promise<Readonly<Record<FontKind, Uint8Array>>> {
  const truetype = readFontFile(shipped)
  return {
    truetype,
    cff: cffFont(),
    woff: packWoff(truetype),
    woff2: new Uint8Array(await compress(truetype)),
  }
}

/** A font file broken in a table, in its directory, or at its end. Of packed ones the packing breaks mostly. */
export function brokenFont(sound: Uint8Array, seed: number): Uint8Array {
  const chance = numbersFrom(seed)
  const data = new DataView(sound.buffer, sound.byteOffset, sound.byteLength)
  const isPlain = data.getUint32(0) === 0x00010000 || data.getUint32(0) === 0x4f54544f
  if (!isPlain || chance() < 0.15) {
    if (chance() < 0.3) return sound.slice(0, upTo(chance, sound.length))
    return flipped(sound, chance, 0, chance() < 0.5 ? Math.min(400, sound.length) : sound.length)
  }
  const count = data.getUint16(4)
  const entry = 12 + upTo(chance, count) * 16
  const [offset, size] = [data.getUint32(entry + 8), data.getUint32(entry + 12)]
  const way = chance()
  if (way < 0.6) return flipped(sound, chance, offset, offset + Math.min(size, chance() < 0.5 ? 64 : size))
  const next = sound.slice()
  const to = new DataView(next.buffer)
  // A table is shorter than its fields, lies elsewhere, or is called after another.
  if (way < 0.8) to.setUint32(entry + 12, upTo(chance, Math.min(size, 80) + 1))
  else if (way < 0.9) to.setUint32(entry + 8, upTo(chance, sound.length))
  else to.setUint32(entry, data.getUint32(12 + upTo(chance, count) * 16))
  return next
}
