import { Blob, Buffer, Face, Font, shape } from 'harfbuzzjs'
import { PackageError } from '../package/errors'
import { lettersOf, type GlyphSource } from './measure/letters'
import { measureScript, sampleText, type ScriptMeasures } from './measure/scripts'
import { frequencies } from './measure/texture'
import { measureType } from './measure/type-measures'
import { parseStyleName, scriptsOf, styleName, type Embedding, type FaceMeasures, type FaceRecord } from './face'
import { coveredScripts, type CoveredScript } from './measure/covered-scripts'

/** Font files above this are refused; the largest that ship have 5 MB. */
export const fontFileLimit = 40 * 1024 * 1024

let scriptTable: Uint8Array | null = null
function scriptIndexes(): Uint8Array {
  if (scriptTable) return scriptTable
  const table = new Uint8Array(0x10000)
  const patterns = coveredScripts.map(script => new RegExp(`\\p{Script=${script}}`, 'u'))
  const letter = /\p{L}/u
  for (let code = 0x41; code < 0x10000; code++) {
    if (code >= 0xd800 && code < 0xe000) continue
    const character = String.fromCharCode(code)
    if (letter.test(character)) table[code] = patterns.findIndex(pattern => pattern.test(character)) + 1
  }
  return (scriptTable = table)
}

/** Bytes of the fields that every version of a table has (OpenType 1.9): OS/2 up to usLastCharIndex, post up to its memory. */
const os2Length = 68
const postLength = 32

function checkFile(bytes: Uint8Array): void {
  if (bytes.length < 100 || bytes.length > fontFileLimit)
    throw new PackageError('damaged', 'This font file is empty or too large. It was not added.')
  const tag = String.fromCharCode(...bytes.subarray(0, 4))
  if (tag !== '\0\x01\0\0' && tag !== 'OTTO' && tag !== 'true')
    throw new PackageError('unsupported', 'This is not a TrueType or OpenType font. It was not added.')
}

/** Mean advance of a character of a line of words, shaped; what the face lacks (often the space) is left out. Font units. */
function shapedAdvance(font: Font, words: string): number {
  const text = [...words].filter(character => font.nominalGlyph(character.codePointAt(0)!)).join('')
  const buffer = new Buffer()
  buffer.addText(text)
  buffer.guessSegmentProperties()
  shape(font, buffer)
  return buffer.getGlyphPositions().reduce((sum, { xAdvance }) => sum + xAdvance, 0) / [...text].length
}

/** Mean advance of lower-case Latin text with its spaces; null where a face has none of its letters. Font units. */
function latinAdvance(font: Font): number | null {
  let width = 0
  let weight = 0
  for (const [letter, share] of Object.entries(frequencies)) {
    const glyph = font.nominalGlyph(letter.codePointAt(0)!)
    if (glyph) {
      width += font.glyphHAdvance(glyph) * share
      weight += share
    }
  }
  return weight > 0 ? width / weight : null
}

function glyphsOf(font: Font, unitsPerEm: number): GlyphSource {
  const glyphOf = (character: string) => font.nominalGlyph(character.codePointAt(0)!)
  return {
    unitsPerEm,
    outline: character => {
      const glyph = glyphOf(character)
      return glyph ? font.glyphToPath(glyph) : ''
    },
    advance: character => font.glyphHAdvance(glyphOf(character) ?? 0),
  }
}

type Heights = Pick<FaceMeasures, 'xHeight' | 'capHeight' | 'ascender' | 'descender'>

/** Heights of Latin letters, from the boxes that the file gives them. Thousandths of an em. */
function latinHeights(font: Font, unitsPerEm: number): Heights {
  const extents = (samples: string) => {
    for (const sample of samples) {
      const glyph = font.nominalGlyph(sample.codePointAt(0)!)
      const box = glyph ? font.glyphExtents(glyph) : undefined
      if (box && box.height !== 0) return box
    }
    return undefined
  }
  const thousandths = (units: number) => Math.round(((units * 1000) / unitsPerEm) * 10) / 10
  const top = (samples: string) => thousandths(extents(samples)?.yBearing ?? 0)
  const deep = extents('pq')
  return {
    xHeight: top('xz'),
    capHeight: top('HI'),
    ascender: top('dl'),
    descender: deep ? thousandths(Math.max(-(deep.yBearing + deep.height), 0)) : 0,
  }
}

/** What is measured on letters: on Latin where it is there, else on the script of which there are most. */
function measureLetters(font: Font, unitsPerEm: number, coverage: FaceRecord['coverage'], stated: number) {
  const glyphs = glyphsOf(font, unitsPerEm)
  const letters = lettersOf(glyphs)
  const scripts: Partial<Record<CoveredScript, ScriptMeasures>> = {}
  for (const script of scriptsOf({ coverage })) {
    if (script === 'Latin') continue
    const advance = shapedAdvance(font, sampleText(script))
    const own = measureScript(letters, script, { unitsPerEm, advance })
    if (own) scripts[script] = own
  }
  const latin = latinHeights(font, unitsPerEm)
  const isLatin = latin.xHeight > 0 || latin.capHeight > 0
  const most = Object.keys(scripts) as CoveredScript[]
  const main = most.sort((one, other) => (coverage[other] ?? 0) - (coverage[one] ?? 0))[0]
  const measuredOn = isLatin ? ('Latin' as const) : (main ?? null)
  const own = isLatin || main === undefined ? undefined : scripts[main]
  const advance = latinAdvance(font)
  const averageWidth =
    own?.averageWidth ?? (advance === null ? stated : Math.round((advance * 10_000) / unitsPerEm) / 10)
  const { xHeight } = own ?? latin
  return {
    ...measureType(glyphs, { xHeight, averageWidth }),
    ...latin,
    averageWidth,
    ...(own ? { ...own, contrast: own.hairline > 0 ? Math.round((own.stem / own.hairline) * 100) / 100 : null } : {}),
    measuredOn,
    scripts: Object.fromEntries(Object.entries(scripts).filter(([script]) => script !== measuredOn)),
  }
}

function measure(
  font: Font,
  face: Face,
  { os2, post }: { readonly os2: DataView | null; readonly post: DataView | null },
  coverage: FaceRecord['coverage'],
): FaceMeasures {
  const thousandths = (units: number) => Math.round(((units * 1000) / face.upem) * 10) / 10
  const lines = font.hExtents()
  return {
    ...measureLetters(font, face.upem, coverage, os2 ? thousandths(os2.getInt16(2)) : 500),
    lineAscent: thousandths(lines.ascender),
    lineDescent: thousandths(-lines.descender),
    lineGap: thousandths(lines.lineGap),
    underlinePosition: post ? thousandths(post.getInt16(8)) : -100,
    underlineThickness: post ? thousandths(post.getInt16(10)) : 50,
    strikePosition: os2 ? thousandths(os2.getInt16(28)) : 250,
    strikeThickness: os2 ? thousandths(os2.getInt16(26)) : 50,
  }
}

/** Embedding rights of OS/2 fsType: the least restrictive bit that is set counts (OpenType 1.9). */
function embeddingOf(type: number): Embedding {
  if ((type & 0x000f) === 0) return 'installable'
  if (type & 8) return 'editable'
  return type & 4 ? 'preview' : 'restricted'
}

function rangesOf(unicodes: Uint32Array): number[] {
  const ranges: number[] = []
  for (const code of unicodes) {
    if (ranges.length > 0 && ranges[ranges.length - 1] === code - 1) ranges[ranges.length - 1] = code
    else ranges.push(code, code)
  }
  return ranges
}

/**
 * Reads and measures a font file (TrueType or OpenType, one face). The file is untrusted: HarfBuzz checks every table
 * it reads, and a file without letters or names is refused.
 * @throws PackageError
 */
export function readFace(bytes: Uint8Array, hash: string, source: FaceRecord['source']): FaceRecord {
  checkFile(bytes)
  const face = new Face(new Blob(bytes))
  const font = new Font(face)
  // What lies in HarfBuzz's memory moves when that grows: it is copied at once.
  const table = (tag: string, least: number): DataView | null => {
    const data = face.referenceTable(tag)?.slice()
    // A table that is shorter than its first fields says nothing that could be believed.
    return data && data.length >= least ? new DataView(data.buffer, data.byteOffset, data.byteLength) : null
  }
  const os2 = table('OS/2', os2Length)
  const post = table('post', postLength)
  const unicodes = face.collectUnicodes().slice()
  const name = (...ids: number[]) => {
    for (const id of ids) {
      const value = face.getName(id, 'en').trim()
      if (value !== '') return value
    }
    return ''
  }
  const family = name(16, 1)
  if (unicodes.length === 0 || family === '')
    throw new PackageError('damaged', 'This font file has no letters or no name. It was not added.')
  const stated = name(17, 2)
  const italicFlag = os2 ? (os2.getUint16(62) & 0x201) !== 0 : false
  const said = parseStyleName(stated)
  const classed = os2 ? Math.min(1000, Math.max(1, os2.getUint16(4))) : null
  // Some makers write 250 for every weight below light, to spare old systems a false bold: the name knows better there.
  const weight = said && (classed === null || (classed < 300 && said.weight < 300)) ? said.weight : (classed ?? 400)
  const widths = [50, 62.5, 75, 87.5, 100, 112.5, 125, 150, 200]
  const scripts = scriptIndexes()
  const coverage: Partial<Record<CoveredScript, number>> = {}
  for (const code of unicodes) {
    const index = code < 0x10000 ? scripts[code]! : 0
    if (index > 0) coverage[coveredScripts[index - 1]!] = (coverage[coveredScripts[index - 1]!] ?? 0) + 1
  }
  const slant = italicFlag || said?.italic ? 'italic' : 'upright'
  return {
    hash,
    family,
    style: stated || styleName(weight, slant === 'italic'),
    fullName: name(4) || `${family} ${stated}`,
    postScriptName: name(6),
    weight,
    width: os2 ? widths[Math.min(9, Math.max(1, os2.getUint16(6))) - 1]! : 100,
    slant,
    monospaced: post ? post.getUint32(12) !== 0 : false,
    measures: measure(font, face, { os2, post }, coverage),
    coverage,
    ranges: rangesOf(unicodes),
    licence: ([name(13), name(14)].filter(each => each !== '').join(' ') || 'not stated').slice(0, 800),
    embedding: os2 ? embeddingOf(os2.getUint16(8)) : 'installable',
    features: [...new Set([...face.getTableFeatureTags('GSUB'), ...face.getTableFeatureTags('GPOS')])].sort(),
    axes: Object.entries(face.getAxisInfos()).map(([tag, { nameId, min, max, default: usual }]) => ({
      tag,
      ...(face.getName(nameId, 'en').trim() ? { name: face.getName(nameId, 'en').trim() } : {}),
      least: min,
      most: max,
      usual,
    })),
    panose: os2 ? Array.from({ length: 10 }, (_, index) => os2.getUint8(32 + index)) : [],
    source,
    fileSize: bytes.length,
  }
}
