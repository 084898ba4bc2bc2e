import { PDFHexString, PDFName, PDFString, type PDFContext, type PDFRef } from '@cantoo/pdf-lib'
import type { FaceRecord } from '../../font/face'
import type { GlyphRun } from '../../typeset/glyph-runs'
import type { Axis } from '../../typeset/harfbuzz'
import type { Shaper } from '../../typeset/shaper'
import type { Subsetter } from './subset'

const hex4 = (value: number) => value.toString(16).padStart(4, '0').toUpperCase()

/** UTF-16BE in hexadecimal, as ToUnicode maps have it (ISO 32000-2, 9.10.3). */
function utf16Hex(text: string): string {
  let hex = ''
  for (let at = 0; at < text.length; at++) hex += hex4(text.charCodeAt(at))
  return hex
}

/** A face as a PDF names it: the glyphs that are used, what they mean, and how wide they are. */
export class PdfFont {
  private readonly used = new Map<number, { text: string; sure: boolean }>()
  readonly reference: PDFRef

  constructor(
    readonly name: string,
    readonly face: FaceRecord,
    readonly embedded: boolean,
    private readonly axes: readonly Axis[],
    private readonly context: PDFContext,
    private readonly shaper: Shaper,
  ) {
    this.reference = context.nextRef()
  }

  /**
   * Notes the glyphs of a run, and tells whether what they mean in this font gives back the run's text. Where it does
   * not (a ligature that also stands for other letters, a mark of several glyphs), the run must carry its text itself.
   */
  note(run: GlyphRun): boolean {
    const font = this.shaper.font(run.face, run.axes)
    const borders = [...new Set(run.clusters), run.text.length].sort((a, b) => a - b)
    const nextOf = new Map(borders.map((border, at) => [border, borders[at + 1] ?? run.text.length]))
    let faithful = true
    run.glyphs.forEach((glyph, index) => {
      const from = run.clusters[index]!
      const shared = index > 0 && run.clusters[index - 1] === from
      const text = run.text.slice(from, nextOf.get(from))
      const code = text.codePointAt(0) ?? 0x20
      const nominal = (character: string) =>
        font !== null &&
        character !== '' &&
        this.shaper.engine.nominal(font, character.codePointAt(0)!)?.glyph === glyph
      const single = String.fromCodePoint(code)
      // The leaders of tabs stand for no text, and tell nothing of what the glyph means elsewhere.
      const meaning =
        run.stands === 'leader'
          ? ''
          : nominal(single)
            ? single
            : nominal(single.toUpperCase())
              ? single.toUpperCase()
              : shared
                ? ''
                : text
      const sure = meaning === single && text === single
      const known = this.used.get(glyph)
      if (!known || (sure && !known.sure) || (known.text === '' && meaning !== ''))
        this.used.set(glyph, { text: meaning || known?.text || '', sure })
      if (
        shared ||
        (run.own &&
          this.used.get(glyph)!.text !== text &&
          this.used.get(glyph)!.text.toLowerCase() !== text.toLowerCase())
      )
        faithful = false
    })
    // Text that runs to the left is put in order by whoever reads it: a text given with it would be turned round again.
    return faithful || run.rightToLeft
  }

  /** Writes the font's objects: all runs must be noted before. */
  write(load: (hash: string) => Uint8Array | undefined, subsetter: Subsetter): void {
    const { context, face } = this
    const glyphs = [...this.used.keys()].sort((a, b) => a - b)
    const font = this.shaper.font(face.hash, this.axes)
    const em = font?.unitsPerEm ?? 1000
    const widthOf = (glyph: number) =>
      font ? Math.round(((this.shaper.engine.glyphAdvance(font, glyph) * 1000) / em) * 100) / 100 : 500
    const prefix = this.embedded ? `${tagOf(glyphs)}+` : ''
    const baseName = PDFName.of(prefix + (face.postScriptName || face.fullName.replace(/[^A-Za-z0-9-]/g, '') || 'Face'))
    const { measures } = face
    const file = this.embedded ? load(face.hash) : undefined
    const outlines = file ? subsetter.subset(file, [0, ...glyphs], this.axes) : null
    const compact = outlines !== null && String.fromCharCode(...outlines.subarray(0, 4)) === 'OTTO'
    const fontFile =
      outlines === null
        ? null
        : context.register(
            context.flateStream(outlines, compact ? { Subtype: 'OpenType' } : { Length1: outlines.length }),
          )
    const descriptor = context.register(
      context.obj({
        Type: 'FontDescriptor',
        FontName: baseName,
        Flags: 4 | (face.slant === 'italic' ? 64 : 0) | (face.monospaced ? 1 : 0),
        FontBBox: [-1000, -Math.round(measures.lineDescent * 2), 3000, Math.round(measures.lineAscent * 2)],
        ItalicAngle: face.slant === 'italic' ? -12 : 0,
        Ascent: Math.round(measures.lineAscent),
        Descent: -Math.round(measures.lineDescent),
        CapHeight: Math.round(measures.capHeight),
        XHeight: Math.round(measures.xHeight),
        StemV: Math.round(50 + face.weight / 8),
        ...(fontFile ? { [compact ? 'FontFile3' : 'FontFile2']: fontFile } : {}),
      }),
    )
    const descendant = context.register(
      context.obj({
        Type: 'Font',
        Subtype: compact ? 'CIDFontType0' : 'CIDFontType2',
        BaseFont: baseName,
        CIDSystemInfo: { Registry: PDFString.of('Morphene'), Ordering: PDFString.of('Identity'), Supplement: 0 },
        FontDescriptor: descriptor,
        DW: 1000,
        W: glyphs.flatMap(glyph => [glyph, [widthOf(glyph)]]),
        ...(compact ? {} : { CIDToGIDMap: 'Identity' }),
      }),
    )
    const unicode = context.register(
      context.flateStream(toUnicode(glyphs.map(glyph => [glyph, this.used.get(glyph)!.text || ' ']))),
    )
    context.assign(
      this.reference,
      context.obj({
        Type: 'Font',
        Subtype: 'Type0',
        BaseFont: baseName,
        Encoding: 'Identity-H',
        DescendantFonts: [descendant],
        ToUnicode: unicode,
      }),
    )
  }

  /** The advance that a viewer takes for a glyph, in thousandths of an em: what W will say. */
  advance(glyph: number): number {
    const font = this.shaper.font(this.face.hash, this.axes)
    return font
      ? Math.round(((this.shaper.engine.glyphAdvance(font, glyph) * 1000) / font.unitsPerEm) * 100) / 100
      : 500
  }
}

/**
 * Six letters that tell one subset from another (ISO 32000-2, 9.9.2): made from the glyphs, so that the same pages
 * give the same file.
 */
function tagOf(glyphs: readonly number[]): string {
  let sum = 7
  for (const glyph of glyphs) sum = (Math.imul(sum, 31) + glyph) >>> 0
  let tag = ''
  for (let at = 0; at < 6; at++) {
    tag += String.fromCharCode(65 + (sum % 26))
    sum = Math.floor(sum / 26) + at * 7919
  }
  return tag
}

function toUnicode(pairs: readonly (readonly [number, string])[]): string {
  const lines: string[] = []
  for (let at = 0; at < pairs.length; at += 100) {
    const part = pairs.slice(at, at + 100)
    lines.push(
      `${part.length} beginbfchar`,
      ...part.map(([glyph, text]) => `<${hex4(glyph)}> <${utf16Hex(text)}>`),
      'endbfchar',
    )
  }
  return (
    `/CIDInit /ProcSet findresource begin 12 dict begin begincmap /CIDSystemInfo << ` +
    `/Registry (Morphene) /Ordering (UCS) /Supplement 0 >> def /CMapName /Morphene-Identity-UCS ` +
    `def /CMapType 2 def 1 begincodespacerange <0000> <FFFF> endcodespacerange\n${lines.join('\n')}\nendcmap ` +
    `CMapName currentdict /CMap defineresource pop end end`
  )
}

/** A run's text for /ActualText (ISO 32000-2, 14.9.4). */
export function actualText(text: string): string {
  return PDFHexString.fromText(text).toString()
}
