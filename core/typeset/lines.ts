import { extentOf } from './line-extent'
import type { Look } from './look'
import type { SetText } from './setting'

export type Alignment = 'left' | 'right' | 'center' | 'justify'

export interface TabStop {
  readonly position: number
  readonly type: 'left' | 'right' | 'center' | 'char'
  readonly char: string
  readonly leader: string
}

/**
 * Baseline to baseline: fo:line-height, style:line-height-at-least, style:line-spacing (ODF 1.4 part 3, 20.205,
 * 20.317, 20.319).
 */
export interface Leading {
  readonly factor: number
  readonly fixed: number | null
  readonly atLeast: number
  readonly extra: number
}

/**
 * How words may be divided (20.201 ff.): letters that stay and that go, at least; divided lines in a row, at most
 * (0 for any).
 */
export interface Division {
  readonly remain: number
  readonly push: number
  readonly ladder: number
}

/** Where a line may stand: lengths in points from the paragraph's own left edge and top. */
export interface LineRoom {
  readonly x: number
  readonly width: number
}

/** How a paragraph's lines are made. Lengths in points. */
export interface Measure {
  readonly width: number
  /** Indent of the first line, on top of the paragraph's own. */
  readonly firstIndent: number
  readonly alignment: Alignment
  readonly lastAlignment: Alignment
  /** A single word in a justified line is spread by its letters (style:justify-single-word). */
  readonly justifySingle: boolean
  /** Lines that end by a break in the text are justified, too. */
  readonly justifyBroken: boolean
  readonly rightToLeft: boolean
  readonly tabs: readonly TabStop[]
  readonly tabDistance: number
  /** Where tab stops count from, from the left edge of the text. */
  readonly tabOrigin: number
  readonly leading: Leading
  readonly division: Division
  /**
   * Room of a line by its number, y and height, where it is not the whole width: beside drop caps and frames. Where
   * there is none, how far down to look again.
   */
  readonly shape: ((line: number, y: number, height: number) => LineRoom | { readonly skipTo: number }) | null
}

/** A tab as set: where in the text, how wide, and the sign it is filled with. */
export interface SetTab {
  readonly at: number
  readonly width: number
  readonly leader: string
}

/** One line of a paragraph. Offsets count in the paragraph's text; lengths in points. */
export interface Line {
  readonly start: number
  /** With the spaces that hang over its end. */
  readonly end: number
  /** Without them. */
  readonly contentEnd: number
  readonly height: number
  /** From the line's top. */
  readonly baseline: number
  /** Left edge of the text, from the column's left, and its width as set. */
  readonly x: number
  readonly width: number
  /** What is added to every space and behind every glyph, to justify the line. */
  readonly stretch: number
  readonly letterStretch: number
  readonly hyphen: boolean
  readonly tabs: readonly SetTab[]
  /** Room left above the line, beyond the end of the one before it: beside frames that leave no room. */
  readonly above: number
}

/**
 * Limits of justified text: spaces grow to 2.2 times their width before letters are set apart, by 4 % of an em at the
 * most; whatever is missing then goes to the spaces after all. Spaces are never narrowed: nearly every
 * reader of the file fills its lines first fit, and what is said about lines must hold there too. The values
 * lie within the ranges that Bringhurst (The Elements of Typographic Style, 2.1.4 and 2.1.8) gives for text faces.
 */
export const justification = { widest: 2.2, letters: 0.04, narrowest: 1 } as const

export const noTabs: readonly SetTab[] = []

export const slack = 0.01

/** A line as it was filled, before it is placed. */
export interface FilledLine {
  readonly start: number
  readonly end: number
  readonly contentEnd: number
  readonly width: number
  readonly hyphen: boolean
  readonly tabs: readonly SetTab[]
  readonly forced: boolean
}

/** Makes lines of what was filled: height, baseline, alignment, and what justifies them. */
export class LineMaker {
  /** The only look there is, whose height every line has. */
  private readonly single: Look | null
  private hyphenWidths: Map<Look, number> | null = null

  /** @param startAt offset of the text where the first line begins: behind a drop cap */
  constructor(
    readonly text: SetText,
    readonly measure: Measure,
    private readonly empty: Look,
    readonly startAt = 0,
    /** Looks of the label that stands before the first line: it is part of that line. */
    private readonly label: readonly Look[] = [],
  ) {
    const { analysis, looks } = text
    this.single = analysis.simple && analysis.textOnly && looks.length === 1 && text.isPlain ? looks[0]! : null
  }

  /** Width of a hyphen in the look of an offset. */
  hyphenWidth(at: number): number {
    const look = this.text.lookAt(at)
    this.hyphenWidths ??= new Map()
    let width = this.hyphenWidths.get(look)
    if (width === undefined)
      this.hyphenWidths.set(
        look,
        (width = this.text.setString('-', look, 0, 0).reduce((sum, part) => sum + part.width, 0)),
      )
    return width
  }

  /** Height and baseline of a line that holds a stretch of text. */
  extent(from: number, to: number, first: boolean): { height: number; baseline: number } {
    const { leading } = this.measure
    let over = this.empty.ascent
    let under = this.empty.descent
    let object = 0
    let hangs = 0
    if (this.single !== null && to > from) {
      over = this.single.ascent
      under = this.single.descent
    } else {
      const found = extentOf(this.text, from, to)
      object = found.object
      hangs = found.hangs
      if (found.ascent !== 0 || object !== 0) {
        over = found.ascent
        under = found.descent
      }
    }
    if (first)
      for (const look of this.label) {
        over = Math.max(over, look.ascent)
        under = Math.max(under, look.descent)
      }
    const natural = over + under
    // What leading adds or takes goes above the text, so that the last line keeps its depth.
    let height = Math.max(leading.fixed ?? natural * leading.factor, leading.atLeast)
    let baseline = leading.fixed === null ? height - under : height * (natural > 0 ? over / natural : 0.8)
    if (object > baseline) {
      height += object - baseline
      baseline = object
    }
    // What hangs lower than the text makes room for itself below.
    height = Math.max(height, baseline + hangs)
    if (!first && leading.extra > 0) {
      height += leading.extra
      baseline += leading.extra
    }
    return { height, baseline }
  }

  make(fill: FilledLine, number: number, room: LineRoom, above: number, last: boolean): Line {
    const { measure, text } = this
    const { height, baseline } = this.extent(fill.start, fill.end, number === 0)
    const indent = number === 0 ? measure.firstIndent : 0
    const column = room.width - indent
    // A break ends a line as the paragraph's end does, where no setting of the document says otherwise.
    const ending = last || (fill.forced && !measure.justifyBroken)
    let alignment = ending ? measure.lastAlignment : measure.alignment
    let stretch = 0
    let letterStretch = 0
    let width = fill.width
    if (alignment === 'justify') {
      const free = column - fill.width
      const from = fill.tabs.length > 0 ? fill.tabs[fill.tabs.length - 1]!.at + 1 : fill.start
      const spaces = text.spacesIn(from, fill.contentEnd)
      if (spaces > 0) {
        stretch = free / spaces
        // No space is narrower than a tenth of an em: most lines need not be looked at more closely.
        const most =
          stretch < (this.single ?? this.empty).size * 0.1 ? stretch : text.spaceAt(from) * (justification.widest - 1)
        if (stretch > most) {
          const glyphs = text.glyphsIn(from, fill.contentEnd)
          const letters = Math.min(
            ((stretch - most) * spaces) / Math.max(glyphs - 1, 1),
            text.lookAt(from).size * justification.letters,
          )
          if (glyphs > 1 && letters > 0) {
            letterStretch = letters
            stretch -= (letters * (glyphs - 1)) / spaces
          }
        }
        width = column
      } else if (measure.justifySingle && free > 0) {
        const glyphs = text.glyphsIn(from, fill.contentEnd)
        if (glyphs > 1) {
          letterStretch = free / (glyphs - 1)
          width = column
        }
      }
      alignment = measure.rightToLeft ? 'right' : 'left'
    }
    const free = column - width
    const x =
      room.x +
      (measure.rightToLeft ? 0 : indent) +
      (alignment === 'right' ? free : alignment === 'center' ? free / 2 : 0)
    return {
      start: fill.start,
      end: fill.end,
      contentEnd: fill.contentEnd,
      height,
      baseline,
      x,
      width,
      stretch,
      letterStretch,
      hyphen: fill.hyphen,
      tabs: fill.tabs,
      above,
    }
  }
}

/** The room of a line, moved down past what leaves it none. */
export function roomFor(measure: Measure, line: number, y: number, height: number): { room: LineRoom; above: number } {
  if (!measure.shape) return { room: { x: 0, width: measure.width }, above: 0 }
  let at = y
  for (let tries = 0; tries < 200; tries++) {
    const found = measure.shape(line, at, height)
    if (!('skipTo' in found)) return { room: found, above: at - y }
    at = Math.max(found.skipTo, at + 0.5)
  }
  return { room: { x: 0, width: measure.width }, above: at - y }
}
