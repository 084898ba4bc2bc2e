import type { Frame } from '../document/story-model'
import { kinds, type Analysis } from './analysis'
import { borrow, emptyWidths, giveBack, type Lent } from './lent-widths'
import { mixes, type Look, type Typesetter } from './look'
import { autospaces, kernedBorders } from './segment-gaps'
import { ShapedStretches, type Stretch } from './shaped-stretches'
import { setString, setWord, spaceGlyphs, type SetGlyphs } from './set-glyphs'
import { lacksGlyphs, reachesSpaces, shaped, type WordShapes } from './word-shapes'

/** How a frame stands in a line as a character, in points, its margins included. */
export interface InlineSize {
  readonly width: number
  readonly height: number
  /** How far its foot lies below the baseline, by the ascent and descent of the text there: 0 where it sits on it. */
  readonly below: (ascent: number, descent: number) => number
}

export type FrameSize = (frame: Frame) => InlineSize

/** What paragraphs ask of the text beside its looks. */
export interface SettingOptions {
  /** A quarter of an em between East Asian and other letters (style:text-autospace; JLREQ 3.2.6). */
  readonly autospace: boolean
  /** Commas and full stops of East Asian text may hang over the line's end (style:punctuation-wrap). */
  readonly hanging: boolean
}

const anything: Stretch = { start: 0, end: Infinity }
const hangs = /[、。，．｡､]/

/** A paragraph's text set in looks: how wide each segment and unit is. Lengths in points. */
export class SetText {
  private measures: Lent | null = null
  /** Segments that could only be shaped together. */
  private stretches: ShapedStretches | null = null
  private plain = true
  /** Room behind a segment, between scripts. */
  private gaps: Map<number, number> | null = null

  /** @param looks by run of the analysis; a note's is the one its citation is set in */
  constructor(
    readonly analysis: Analysis,
    readonly looks: readonly Look[],
    readonly typesetter: Typesetter,
    readonly frameSize: FrameSize,
    private readonly options: SettingOptions,
  ) {
    this.measure(borrow(analysis.segments, analysis.units))
  }

  /**
   * Gives the lent widths back: called once, when the lines are made. What asks for widths later has them measured
   * again.
   */
  release(): void {
    this.measures = null
    giveBack()
  }

  private get own(): Lent {
    if (this.measures === null) {
      const { segments, units } = this.analysis
      this.measure(emptyWidths(segments, units))
    }
    return this.measures!
  }

  /** By segment. */
  get widths(): Float64Array {
    return this.own.widths
  }
  /** By unit: without the spaces behind it, and of those. */
  get unitWidths(): Float64Array {
    return this.own.unitWidths
  }
  get unitSpaces(): Float64Array {
    return this.own.unitSpaces
  }

  private measure(into: Lent): void {
    const { analysis, looks, options } = this
    this.measures = into
    this.stretches = null
    this.gaps = null
    if (analysis.simple && looks.length === 1 && !mixes(looks[0]!) && !looks[0]!.hidden) this.measureSimple(looks[0]!)
    else this.measureAll()
    if (!analysis.regular) {
      if (analysis.runs.length > 1 && this.together().shapeJoined()) this.plain = false
      this.gaps = kernedBorders(this, segment => this.stretches?.has(segment) ?? false)
    }
    if (options.autospace && !/^[\u0000-\u2E7F]*$/.test(analysis.text)) this.gaps = autospaces(this, this.gaps)
    this.measureUnits()
  }

  private measureSimple(look: Look): void {
    const { analysis, widths } = this
    const { kind, word, segments } = analysis
    const shapes = this.typesetter.shapes(look, analysis.script[0] ?? 0, false)
    shapes.reserve()
    shapes.reserve()
    const { widths: wordWidths, counts, flags } = shapes
    const unit = (look.size * look.scale) / shapes.unitsPerEm
    const space = shapes.space * unit + look.letterSpacing
    const { letterSpacing } = look
    let special = 0
    let present = shaped
    for (let at = 0; at < segments; at++) {
      const own = word[at]!
      if (kind[at] === kinds.word) {
        present &= flags[own]!
        widths[at] =
          letterSpacing === 0 ? wordWidths[own]! * unit : wordWidths[own]! * unit + counts[own]! * letterSpacing
        special |= flags[own]!
      } else if (kind[at] === kinds.space) widths[at] = own * space
      else widths[at] = this.otherWidth(at)
    }
    if (present === 0) {
      // Some word was not there: rare, since long texts are shaped beforehand.
      shapes.ensureSegments(word, kind, segments)
      this.measureSimple(look)
      return
    }
    if ((special & (lacksGlyphs | reachesSpaces)) !== 0) this.measureSpecial()
  }

  private measureAll(): void {
    const { analysis, widths, looks } = this
    let special = false
    for (let at = 0; at < analysis.segments; at++) {
      const look = looks[analysis.run[at]!]!
      const own = analysis.word[at]!
      if (look.hidden) {
        widths[at] = 0
        continue
      }
      if (analysis.kind[at] === kinds.word) {
        const shapes = this.shapesOf(at, look)
        shapes.ensure(own)
        widths[at] =
          (shapes.widths[own]! * look.size * look.scale) / shapes.unitsPerEm + shapes.counts[own]! * look.letterSpacing
        special ||= mixes(look) || (shapes.flags[own]! & (lacksGlyphs | reachesSpaces)) !== 0
      } else if (analysis.kind[at] === kinds.space) widths[at] = own * this.spaceWidth(at, look)
      else widths[at] = this.otherWidth(at)
    }
    if (special) this.measureSpecial()
  }

  /** The shapes of words in a look, as a segment's script and direction ask for them. */
  shapesOf(segment: number, look: Look): WordShapes {
    return this.typesetter.shapes(look, this.analysis.script[segment]!, this.analysis.level[segment]! % 2 === 1)
  }

  private spaceWidth(segment: number, look: Look): number {
    const shapes = this.shapesOf(segment, look)
    return (shapes.space * look.size * look.scale) / shapes.unitsPerEm + look.letterSpacing
  }

  /** Tabs get their width where they stand in a line; breaks and anchors take none. */
  private otherWidth(segment: number): number {
    if (this.analysis.kind[segment] !== kinds.object) return 0
    const { inline } = this.analysis.runs[this.analysis.run[segment]!]!
    if (inline.kind === 'frame') return this.frameSize(inline.frame).width
    return inline.kind === 'note' ? this.citation(segment).reduce((sum, part) => sum + part.width, 0) : 0
  }

  private citation(segment: number): SetGlyphs[] {
    const run = this.analysis.runs[this.analysis.run[segment]!]!
    const start = this.analysis.starts[segment]!
    return run.inline.kind === 'note'
      ? this.setString(run.inline.citation, this.looks[this.analysis.run[segment]!]!, start, 0)
      : []
  }

  /** A string that is no text of the document: a label, a citation, a hyphen. */
  setString(text: string, look: Look, at: number, x: number): SetGlyphs[] {
    return setString(this.typesetter, text, look, at, x)
  }

  private together(): ShapedStretches {
    return (this.stretches ??= new ShapedStretches(this))
  }

  /** Words that need more than one face, and runs that must be shaped whole. */
  private measureSpecial(): void {
    const { analysis, widths, looks, typesetter } = this
    this.plain = false
    for (let at = 0; at < analysis.segments; at++) {
      if (analysis.kind[at] !== kinds.word) continue
      const look = looks[analysis.run[at]!]!
      if (look.hidden) continue
      const shapes = this.shapesOf(at, look)
      const flags = shapes.flags[analysis.word[at]!]!
      if ((flags & lacksGlyphs) !== 0 || mixes(look)) {
        let width = 0
        for (const part of typesetter.mixed(look, analysis.word[at]!))
          width += setWord(
            this.typesetter,
            part.look,
            part.word,
            analysis.script[at]!,
            analysis.level[at]! % 2 === 1,
            0,
            0,
            0,
          ).width
        widths[at] = width
      } else if ((flags & reachesSpaces) !== 0) at = this.together().shapeWhole(at)
    }
  }

  private measureUnits(): void {
    const { analysis, gaps } = this
    const { widths, unitWidths, unitSpaces } = this.own
    const { first, trailing, units } = analysis
    const hanging = this.options.hanging && hangs.test(analysis.text)
    if (gaps === null && !hanging && analysis.regular) {
      // Words with single spaces between, and nothing else: most text.
      for (let unit = 0; unit < units; unit++) {
        unitWidths[unit] = widths[unit * 2]!
        unitSpaces[unit] = 0
        if (unit + 1 < units) unitSpaces[unit] = widths[unit * 2 + 1]!
      }
      return
    }
    for (let unit = 0; unit < units; unit++) {
      const end = first[unit + 1]!
      const border = trailing[unit]!
      let width = 0
      for (let at = first[unit]!; at < border; at++)
        width += widths[at]! + (gaps !== null && at + 1 < border ? (gaps.get(at) ?? 0) : 0)
      let space = gaps !== null ? (gaps.get(border - 1) ?? 0) : 0
      for (let at = border; at < end; at++) space += widths[at]!
      if (hanging && border > first[unit]! && hangs.test(analysis.text.charAt(analysis.starts[border]! - 1))) {
        const last = this.widthOf(analysis.starts[border]! - 1, analysis.starts[border]!)
        width -= last
        space += last
      }
      unitWidths[unit] = width
      unitSpaces[unit] = space
    }
  }

  /** No word needs more than one face or the words beside it. */
  get isPlain(): boolean {
    return this.plain
  }

  /** Some of its words may be divided. */
  get hyphenates(): boolean {
    return this.looks.some(look => look.hyphenate)
  }

  lookAt(offset: number): Look {
    return this.looks[this.analysis.run[this.segmentAt(offset)] ?? 0]!
  }

  /** Width of one space where some text stands. */
  spaceAt(offset: number): number {
    const segment = this.segmentAt(offset)
    return this.spaceWidth(segment, this.looks[this.analysis.run[segment]!]!)
  }

  /** Spaces in a stretch of text: what justifying widens. */
  spacesIn(from: number, to: number): number {
    const { text, regular } = this.analysis
    // Where every other segment is a single space, their number tells.
    if (regular) return from >= to ? 0 : (this.segmentAt(to - 1) - this.segmentAt(from) + 1) >> 1
    let count = 0
    for (let at = from; at < to; at++) {
      const code = text.charCodeAt(at)
      if (code === 0x20 || code === 0xa0) count++
    }
    return count
  }

  /** Glyphs in a stretch of text, spaces included. */
  glyphsIn(from: number, to: number): number {
    const { starts, segments, kind, word } = this.analysis
    let count = 0
    for (let at = this.segmentAt(from); at < segments && starts[at]! < to; at++) {
      if (kind[at] === kinds.space) {
        count += Math.min(to, starts[at + 1]!) - Math.max(from, starts[at]!)
        continue
      }
      if (this.plain && kind[at] === kinds.word && from <= starts[at]! && starts[at + 1]! <= to) {
        count += this.shapesOf(at, this.looks[this.analysis.run[at]!]!).counts[word[at]!]!
        continue
      }
      for (const part of this.glyphsOf(at, Math.max(from, starts[at]!), Math.min(to, starts[at + 1]!), 0))
        count += part.glyphs.count
    }
    return count
  }

  gapAfter(segment: number): number {
    return this.gaps?.get(segment) ?? 0
  }

  /** The segment that holds an offset of the text. */
  segmentAt(offset: number): number {
    const { starts, segments } = this.analysis
    let low = 0
    let high = segments - 1
    while (low < high) {
      const middle = (low + high + 1) >> 1
      if (starts[middle]! <= offset) low = middle
      else high = middle - 1
    }
    return low
  }

  /** Width of a stretch of text; parts of segments are set by themselves. */
  widthOf(from: number, to: number): number {
    const { starts, segments } = this.analysis
    let width = 0
    for (let at = this.segmentAt(from); at < segments && starts[at]! < to; at++) {
      const start = Math.max(from, starts[at]!)
      const end = Math.min(to, starts[at + 1]!)
      width +=
        start === starts[at] && end === starts[at + 1]
          ? this.widths[at]!
          : this.glyphsOf(at, start, end, 0).reduce((sum, part) => sum + part.width, 0)
      if (end === starts[at + 1] && end < to) width += this.gapAfter(at)
    }
    return width
  }

  /**
   * What is drawn for a segment or a part of it, in logical order; x counts from the segment's left where text runs
   * to the right. `shown`: what of the text stands in the line.
   */
  glyphsOf(segment: number, from: number, to: number, x: number, shown: Stretch = anything): SetGlyphs[] {
    const { analysis, looks, typesetter } = this
    const look = looks[analysis.run[segment]!]!
    const kind = analysis.kind[segment]
    if (look.hidden || from >= to) return []
    if (kind === kinds.object) return this.citation(segment).map(part => ({ ...part, from, to, x: part.x + x }))
    const rightToLeft = analysis.level[segment]! % 2 === 1
    const script = analysis.script[segment]!
    const whole = from === analysis.starts[segment] && to === analysis.starts[segment + 1]
    const together = whole ? this.stretches?.glyphsOf(segment, x, shown) : undefined
    if (together) return together
    if (kind === kinds.space) {
      const shapes = this.shapesOf(segment, look)
      const glyphs = spaceGlyphs(to - from, shapes.space, shapes.spaceGlyph)
      return [
        {
          look,
          glyphs,
          unitsPerEm: shapes.unitsPerEm,
          from,
          to,
          x,
          width: whole ? this.widths[segment]! : (to - from) * this.spaceWidth(segment, look),
        },
      ]
    }
    if (kind !== kinds.word) return []
    const word = whole ? analysis.word[segment]! : typesetter.words.number(analysis.text.slice(from, to))
    const shapes = this.shapesOf(segment, look)
    shapes.ensure(word)
    if ((shapes.flags[word]! & lacksGlyphs) === 0 && !mixes(look))
      return [setWord(this.typesetter, look, word, script, rightToLeft, from, to, x)]
    const parts = typesetter.mixed(look, word)
    const set: SetGlyphs[] = []
    let at = x
    // Parts of a word that runs to the left stand the other way round.
    for (const part of rightToLeft ? [...parts].reverse() : parts) {
      const made = setWord(
        this.typesetter,
        part.look,
        part.word,
        script,
        rightToLeft,
        from + part.offset,
        from + part.offset + typesetter.words.text(part.word).length,
        at,
      )
      set.push(made)
      at += made.width
    }
    return set
  }

  /** How far the foot of a frame in the text lies below the baseline. */
  dropOf(frame: Frame, segment: number): number {
    const look = this.looks[this.analysis.run[segment]!]!
    return this.frameSize(frame).below(look.ascent, look.descent)
  }
}
