import type { PDFContext } from '@cantoo/pdf-lib'
import { fontKey } from '../../typeset/display'
import type { GlyphRun } from '../../typeset/glyph-runs'
import type { Typesetter } from '../../typeset/look'
import type { Colours } from './colours'
import { actualText, PdfFont } from './fonts'
import { number, wave } from './paths'

/**
 * The text of a run, where its glyphs do not tell it. What is no text (the leaders of tabs) says so by an empty one; the
 * hyphen of a broken word is a soft one (ISO 32000-2, 14.8.2.2.3).
 */
export function actualTextOf(run: GlyphRun, font: PdfFont): string | null {
  const faithful = font.note(run)
  if (!run.own && run.text.trim() === '') return '()'
  if (run.stands === 'hyphen') return actualText('\u00AD')
  return faithful ? null : actualText(run.text)
}

/** Draws runs of glyphs as operators, in fonts of a PDF that it notes them in. */
export class RunPainter {
  readonly fonts = new Map<string, PdfFont>()

  /** @param prefix what its fonts are called by in the resources of pages, with a number behind it */
  constructor(
    private readonly context: PDFContext,
    private readonly typesetter: Typesetter,
    private readonly colours: Colours,
    private readonly prefix = 'F',
  ) {}

  /** The font that a run is drawn in: one for each face and place on its axes. */
  font(run: GlyphRun): PdfFont {
    const key = fontKey(run)
    let font = this.fonts.get(key)
    if (!font) {
      const face = this.typesetter.library.byHash(run.face)!
      this.fonts.set(
        key,
        (font = new PdfFont(
          `${this.prefix}${this.fonts.size + 1}`,
          face,
          face.embedding !== 'restricted',
          run.axes,
          this.context,
          this.typesetter.shaper,
        )),
      )
    }
    return font
  }

  /** Draws a run, at its own place on a page that is so high. */
  run(run: GlyphRun, font: PdfFont, height: number, out: string[]): void {
    const y = height - run.y
    // Glyphs lie from left to right, whichever way the text runs (ISO 32000-2, 14.8.2.5.3).
    if (run.rightToLeft) out.push('/ReversedChars BMC')
    if (run.shadow) this.glyphs(run, font, run.x + run.size * 0.05, y - run.size * 0.05, '#b3b3b3', out)
    this.glyphs(run, font, run.x, y, run.color, out)
    if (run.rightToLeft) out.push('EMC')
    for (const mark of [run.underline, run.strike]) {
      if (!mark) continue
      if (mark.pattern === 'wave') {
        const line = wave(run.x, y + mark.middle, run.width, mark.thickness)
        out.push(`${this.colours.stroke(mark.color)} ${number(mark.thickness)} w [] 0 d ${line} S`)
        continue
      }
      const dash =
        mark.pattern === 'dotted'
          ? `[${number(mark.thickness)} ${number(mark.thickness * 1.5)}] 0 d`
          : mark.pattern === 'dashed'
            ? `[${number(mark.thickness * 4)} ${number(mark.thickness * 2)}] 0 d`
            : '[] 0 d'
      for (const offset of mark.pattern === 'double' ? [-mark.thickness, mark.thickness] : [0])
        out.push(
          `${this.colours.stroke(mark.color)} ${number(mark.thickness)} w ${dash} ${number(run.x)} ${number(y + mark.middle + offset)} ` +
            `m ${number(run.x + run.width)} ${number(y + mark.middle + offset)} l S`,
        )
    }
  }

  /** Glyphs at the engine's own places: what a viewer would advance is corrected glyph by glyph. */
  private glyphs(run: GlyphRun, font: PdfFont, x: number, y: number, color: string, out: string[]): void {
    const across = run.size * run.scale
    const hex = (glyph: number) => glyph.toString(16).padStart(4, '0').toUpperCase()
    const mode = run.outline ? `${this.colours.stroke(color)} 1 Tr ${number(run.size * 0.02)} w` : '0 Tr'
    out.push(`BT /${font.name} ${number(run.size)} Tf ${this.colours.fill(color)} ${mode}`)
    let list: string[] = []
    let letters = ''
    let expected = 0
    let level = Number.NaN
    const flush = () => {
      if (letters) list.push(`<${letters}>`)
      letters = ''
      if (list.length > 0) out.push(`[${list.join(' ')}] TJ`)
      list = []
    }
    run.glyphs.forEach((glyph, index) => {
      const at = run.xs[index]!
      const up = -run.ys[index]!
      if (up !== level) {
        flush()
        out.push(`${number(run.scale)} 0 0 1 ${number(x + at)} ${number(y + up)} Tm`)
        level = up
        expected = at
      }
      const off = ((expected - at) * 1000) / across
      if (Math.abs(off) > 0.5) {
        if (letters) list.push(`<${letters}>`)
        letters = ''
        list.push(number(off))
        expected = at
      }
      letters += hex(glyph)
      expected += (font.advance(glyph) * across) / 1000
    })
    flush()
    out.push('ET')
  }
}
