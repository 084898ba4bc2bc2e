import {
  decodePDFRawStream,
  PDFArray,
  PDFDict,
  PDFHexString,
  PDFName,
  PDFNumber,
  PDFRawStream,
  PDFStream,
  PDFString,
  type PDFObject,
} from '@cantoo/pdf-lib'
import { latin1, readOperators, type Operand } from './content'
import { textOfGlyphName } from './glyph-names'
import { standardWidths, winAnsi } from './standard-fonts'

/** A glyph as text shows it. */
export interface ShownGlyph {
  readonly code: number
  /** How many bytes the code has. */
  readonly length: number
  /** What it stands for; '' where the font does not tell. */
  readonly text: string
  /** Thousandths of an em. */
  readonly width: number
}

/** A font of a finished PDF. */
export interface FinishedFont {
  /** Without the letters that tell subsets apart. */
  readonly name: string
  readonly kind: string
  readonly subset: boolean
  readonly embedded: boolean
  /** Its codes map back to characters. */
  readonly readable: boolean
  decode(bytes: Uint8Array): ShownGlyph[]
  /** The code for a character that it is known to have; null for others. */
  codeFor(character: string): number | null
  /** How many bytes its codes have. */
  readonly codeLength: 1 | 2
  readonly width: (code: number) => number
}

const name = (text: string) => PDFName.of(text)
const maybe = (dict: PDFDict, key: string): PDFObject | undefined => dict.lookup(name(key))
const dictAt = (dict: PDFDict, key: string): PDFDict | undefined => {
  const value = maybe(dict, key)
  return value instanceof PDFDict ? value : value instanceof PDFStream ? value.dict : undefined
}
const numberAt = (dict: PDFDict, key: string): number | undefined => {
  const value = maybe(dict, key)
  return value instanceof PDFNumber ? value.asNumber() : undefined
}
const nameAt = (dict: PDFDict, key: string): string => {
  const value = maybe(dict, key)
  return value instanceof PDFName ? value.decodeText() : ''
}

/** The bytes of a stream, unpacked; empty where they cannot be. @throws never */
export function streamBytes(stream: PDFObject | undefined): Uint8Array {
  if (!(stream instanceof PDFRawStream)) return stream instanceof PDFStream ? stream.getContents() : new Uint8Array()
  try {
    return decodePDFRawStream(stream).decode()
  } catch {
    return new Uint8Array()
  }
}

/** Reads a font's dictionary (ISO 32000-2, 9.6 and 9.7). */
export function readFont(dict: PDFDict): FinishedFont {
  const kind = nameAt(dict, 'Subtype') || 'Font'
  const base = nameAt(dict, 'BaseFont') || nameAt(dict, 'Name') || kind
  const subset = /^[A-Z]{6}\+/.test(base)
  const composite = kind === 'Type0'
  const descendants = maybe(dict, 'DescendantFonts')
  const descendant = descendants instanceof PDFArray ? descendants.lookup(0) : undefined
  const own = composite && descendant instanceof PDFDict ? descendant : dict
  const descriptor = dictAt(own, 'FontDescriptor')
  const embedded =
    kind === 'Type3' ||
    (descriptor !== undefined && ['FontFile', 'FontFile2', 'FontFile3'].some(key => descriptor.has(name(key))))
  const map = readMap(streamBytes(maybe(dict, 'ToUnicode')))
  const texts = composite ? map.texts : new Map([...simpleEncoding(dict, kind), ...map.texts])
  const codes = new Map<string, number>()
  const standard = !composite && !dict.has(name('Widths')) ? standardWidths(base) : null
  const width = composite
    ? compositeWidths(own)
    : standard
      ? (code: number) => standard(texts.get(code) ?? '')
      : simpleWidths(dict, descriptor)
  // A subset has the letters that were used when it was made: what its encoding could say besides is not in it.
  const listed = subset && descriptor ? charactersListed(descriptor) : null
  const isThere = (code: number, text: string) =>
    !subset ||
    ((map.texts.size === 0 || map.texts.has(code)) && width(code) > 0 && (listed === null || listed.has(text)))
  for (const [code, text] of texts)
    if (text.length > 0 && !codes.has(text) && isThere(code, text)) codes.set(text, code)
  const codeLength = composite ? (map.length ?? 2) : 1
  return {
    name: base.replace(/^[A-Z]{6}\+/, ''),
    kind: composite && descendant instanceof PDFDict ? nameAt(descendant, 'Subtype') || kind : kind,
    subset,
    embedded,
    readable: texts.size > 0,
    codeLength,
    width,
    codeFor: character => codes.get(character) ?? null,
    decode(bytes) {
      const glyphs: ShownGlyph[] = []
      for (let at = 0; at + codeLength <= bytes.length; at += codeLength) {
        const code = codeLength === 2 ? (bytes[at]! << 8) | bytes[at + 1]! : bytes[at]!
        glyphs.push({ code, length: codeLength, text: texts.get(code) ?? '', width: width(code) })
      }
      return glyphs
    },
  }
}

/** The characters that a subset says it has, by the names of its glyphs (ISO 32000-2, 9.8.1, CharSet); null where it does not. */
function charactersListed(descriptor: PDFDict): Set<string> | null {
  const list = maybe(descriptor, 'CharSet')
  const text = list instanceof PDFString || list instanceof PDFHexString ? list.asString() : ''
  const names = text.split('/').map(each => each.trim())
  const known = names.map(textOfGlyphName).filter(each => each !== '')
  return known.length > 0 ? new Set(known) : null
}

const none = new Uint8Array()
const valueOf = (bytes: Uint8Array) => bytes.reduce((sum, byte) => sum * 256 + byte, 0)
function utf16(bytes: Uint8Array): string {
  let text = ''
  for (let at = 0; at + 1 < bytes.length; at += 2) text += String.fromCharCode((bytes[at]! << 8) | bytes[at + 1]!)
  return bytes.length === 1 ? String.fromCharCode(bytes[0]!) : text
}
/** More codes of one map are not read. */
const mapLimit = 70_000

/** A map from codes to text (ISO 32000-2, 9.10.3), and how long its codes are. */
function readMap(bytes: Uint8Array): { readonly texts: Map<number, string>; readonly length: 1 | 2 | null } {
  const texts = new Map<number, string>()
  let length: 1 | 2 | null = null
  const put = (code: number, text: string) => {
    if (texts.size < mapLimit) texts.set(code, text.replace(/\u0000/g, ''))
  }
  for (const { name: operator, operands } of readOperators(bytes)) {
    const strings = operands.map(each => (each.kind === 'string' ? each.bytes : null))
    if (operator === 'endcodespacerange')
      length = strings.some(each => each?.length === 2) ? 2 : strings[0]?.length === 1 ? 1 : length
    if (operator === 'endbfchar')
      for (let at = 0; at + 1 < operands.length; at += 2)
        put(valueOf(strings[at] ?? none), utf16(strings[at + 1] ?? none))
    if (operator === 'endbfrange')
      for (let at = 0; at + 2 < operands.length; at += 3)
        putRange(strings[at] ?? none, strings[at + 1] ?? none, operands[at + 2]!, put)
  }
  return { texts, length }
}

function putRange(from: Uint8Array, to: Uint8Array, target: Operand, put: (code: number, text: string) => void): void {
  const first = valueOf(from)
  const last = Math.min(valueOf(to), first + mapLimit)
  for (let code = first; code <= last; code++) {
    if (target.kind === 'array') {
      const item = target.items[code - first]
      if (item?.kind === 'string') put(code, utf16(item.bytes))
    } else if (target.kind === 'string') {
      const text = utf16(target.bytes)
      put(code, text.slice(0, -1) + String.fromCharCode(text.charCodeAt(text.length - 1) + code - first))
    }
  }
}

const macRoman = new TextDecoder('macintosh')
/** What codes stand for by the named encodings of simple fonts (Annex D). */
const tables: Readonly<Record<string, (code: number) => string>> = {
  WinAnsiEncoding: winAnsi,
  MacRomanEncoding: code => macRoman.decode(Uint8Array.of(code)),
}

/** What the codes of a simple font stand for: its base encoding, and what departs from it (9.6.5). */
function simpleEncoding(dict: PDFDict, kind: string): Map<number, string> {
  const texts = new Map<number, string>()
  const encoding = maybe(dict, 'Encoding')
  const named =
    encoding instanceof PDFName
      ? encoding.decodeText()
      : encoding instanceof PDFDict
        ? nameAt(encoding, 'BaseEncoding')
        : ''
  const symbolic = ((dictAt(dict, 'FontDescriptor') && numberAt(dictAt(dict, 'FontDescriptor')!, 'Flags')) ?? 0) & 4
  // Fonts of signs have an encoding of their own, which their file alone knows.
  if (kind !== 'Type3' && (tables[named] || !symbolic)) {
    const textOf = tables[named] ?? winAnsi
    const last = tables[named] ? 255 : 126
    for (let code = 32; code <= last; code++) {
      const text = textOf(code)
      if (text !== '' && !/[\u0080-\u009F]/.test(text)) texts.set(code, text)
    }
  }
  if (!tables[named])
    for (const [code, glyph] of builtIn(dict)) {
      const text = textOfGlyphName(glyph)
      if (text !== '') texts.set(code, text)
    }
  const differences = encoding instanceof PDFDict ? maybe(encoding, 'Differences') : undefined
  if (differences instanceof PDFArray) {
    let code = 0
    for (let at = 0; at < Math.min(differences.size(), 2000); at++) {
      const item = differences.lookup(at)
      if (item instanceof PDFNumber) code = item.asNumber()
      else if (item instanceof PDFName) {
        const text = textOfGlyphName(item.decodeText())
        if (text === '') texts.delete(code)
        else texts.set(code, text)
        code++
      }
    }
  }
  return texts
}

/** The encoding that a Type 1 font file says itself, in its clear part (Type 1 Font Format, 2.2). */
function* builtIn(dict: PDFDict): Generator<readonly [number, string]> {
  const descriptor = dictAt(dict, 'FontDescriptor')
  const file = descriptor && maybe(descriptor, 'FontFile')
  if (!file) return
  const head = latin1(streamBytes(file).subarray(0, 20_000))
  for (const [, code, glyph] of head.matchAll(/dup\s+(\d{1,3})\s*\/(\S+)\s+put/g)) yield [Number(code), glyph!]
}

function simpleWidths(dict: PDFDict, descriptor: PDFDict | undefined): (code: number) => number {
  const list = maybe(dict, 'Widths')
  const first = numberAt(dict, 'FirstChar') ?? 0
  const missing = (descriptor && numberAt(descriptor, 'MissingWidth')) ?? (list ? 0 : 500)
  // Fonts that draw their own glyphs have widths in a space of their own (9.6.4).
  const matrix = maybe(dict, 'FontMatrix')
  const scale =
    matrix instanceof PDFArray && matrix.lookup(0) instanceof PDFNumber
      ? (matrix.lookup(0) as PDFNumber).asNumber() * 1000
      : 1
  return code => {
    const value =
      list instanceof PDFArray && code >= first && code - first < list.size() ? list.lookup(code - first) : undefined
    return (value instanceof PDFNumber ? value.asNumber() : missing) * scale
  }
}

/** Widths of a composite font: runs of single ones, and ranges of equal ones (9.7.4.3). */
function compositeWidths(dict: PDFDict): (code: number) => number {
  const usual = numberAt(dict, 'DW') ?? 1000
  const list = maybe(dict, 'W')
  const widths = new Map<number, number>()
  const number = (value: PDFObject | undefined) => (value instanceof PDFNumber ? value.asNumber() : 0)
  if (list instanceof PDFArray)
    for (let at = 0; at < list.size() && widths.size < mapLimit;) {
      const from = number(list.lookup(at))
      const second = list.lookup(at + 1)
      if (second instanceof PDFArray) {
        for (let index = 0; index < second.size(); index++) widths.set(from + index, number(second.lookup(index)))
        at += 2
      } else {
        for (let code = from; code <= Math.min(number(second), from + mapLimit); code++)
          widths.set(code, number(list.lookup(at + 2)))
        at += 3
      }
    }
  return code => widths.get(code) ?? usual
}
