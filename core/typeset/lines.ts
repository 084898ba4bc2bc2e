import { isTab, kinds, mustEnd, softHyphen } from './analysis'
import { hyphenPoints } from './hyphenate'
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

const noTabs: readonly SetTab[] = []
const slack = 0.01

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
      const found = this.text.extent(from, to)
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

/** Composes a paragraph greedily: each line takes what fits (first fit). */
export function composeGreedily(maker: LineMaker): Line[] {
  const { text, measure } = maker
  const { analysis } = text
  const lines: Line[] = []
  if (analysis.units === 0)
    return [
      maker.make(
        { start: 0, end: 0, contentEnd: 0, width: 0, hyphen: false, tabs: noTabs, forced: false },
        0,
        { x: 0, width: measure.width },
        0,
        true,
      ),
    ]
  let unit = 0
  while (unit + 1 < analysis.units && analysis.starts[analysis.first[unit + 1]!]! <= maker.startAt) unit++
  let cut = maker.startAt > analysis.starts[analysis.first[unit]!]! ? maker.startAt : 0
  let y = 0
  let divided = 0
  const whole: LineRoom = { x: 0, width: measure.width }
  while (unit < analysis.units) {
    let room = whole
    let above = 0
    if (measure.shape) {
      const guess = maker.extent(
        analysis.starts[analysis.first[unit]!]!,
        analysis.starts[analysis.first[unit + 1]!]!,
        lines.length === 0,
      ).height
      ;({ room, above } = roomFor(measure, lines.length, y, guess))
    }
    const fill = fillLine(
      maker,
      unit,
      cut,
      room.width - (lines.length === 0 ? measure.firstIndent : 0),
      lines.length === 0 ? measure.firstIndent : 0,
      measure.division.ladder === 0 || divided < measure.division.ladder,
    )
    divided = fill.line.hyphen ? divided + 1 : 0
    unit = fill.unit
    cut = fill.cut
    const line = maker.make(fill.line, lines.length, room, above, unit >= analysis.units)
    y += above + line.height
    lines.push(line)
  }
  // A forced break at the very end opens one more, empty line.
  if ((analysis.flags[analysis.units - 1]! & mustEnd) !== 0)
    lines.push(
      maker.make(
        {
          start: analysis.text.length,
          end: analysis.text.length,
          contentEnd: analysis.text.length,
          width: 0,
          hyphen: false,
          tabs: noTabs,
          forced: false,
        },
        lines.length,
        roomFor(measure, lines.length, y, 0).room,
        0,
        true,
      ),
    )
  return lines
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

function fillLine(
  maker: LineMaker,
  from: number,
  cut: number,
  width: number,
  indent: number,
  mayDivide: boolean,
): { line: FilledLine; unit: number; cut: number } {
  const { text } = maker
  const { analysis, unitWidths, unitSpaces } = text
  const { first, trailing, starts, flags } = analysis
  const start = cut || starts[first[from]!]!
  let tabs = noTabs
  let taken = 0
  let hang = 0
  let unit = from
  const limit = width + slack
  for (; unit < analysis.units; unit++) {
    const flag = flags[unit]!
    let own: number
    let tab: SetTab | null = null
    if ((flag & isTab) !== 0) {
      tab = setTab(maker, unit, taken + hang + indent)
      own = tab.width
    } else own = cut > 0 && unit === from ? text.widthOf(cut, starts[trailing[unit]!]!) : unitWidths[unit]!
    if (taken + hang + own > limit) {
      if (unit > from) {
        if (mayDivide && tab === null) {
          const head = divide(maker, unit, starts[first[unit]!]!, limit - taken - hang)
          if (head)
            return {
              line: {
                start,
                end: head.at,
                contentEnd: head.at,
                width: taken + hang + head.width,
                hyphen: true,
                tabs,
                forced: false,
              },
              unit,
              cut: head.at,
            }
        }
        // A soft hyphen at the line's end needs room for its hyphen.
        while (
          unit - 1 > from &&
          (flags[unit - 1]! & softHyphen) !== 0 &&
          taken + maker.hyphenWidth(starts[first[unit - 1]!]!) > limit
        ) {
          unit--
          taken -= unitWidths[unit]!
          hang = unitSpaces[unit - 1]!
          taken -= hang
        }
        break
      }
      if (tab === null) {
        const rest = cut > 0 ? cut : starts[first[unit]!]!
        const head = (mayDivide ? divide(maker, unit, rest, limit) : null) ?? cutWord(maker, unit, rest, limit)
        if (head)
          return {
            line: {
              start,
              end: head.at,
              contentEnd: head.at,
              width: head.width,
              hyphen: head.hyphen,
              tabs,
              forced: false,
            },
            unit,
            cut: head.at,
          }
      }
    }
    taken += hang + own
    hang = unitSpaces[unit]!
    if (tab) tabs = [...tabs, tab]
    if ((flag & mustEnd) !== 0) {
      unit++
      break
    }
  }
  const last = unit - 1
  const soft = unit < analysis.units && (flags[last]! & softHyphen) !== 0
  return {
    line: {
      start,
      end: starts[first[unit]!]!,
      contentEnd: starts[trailing[last]!]!,
      width: taken + (soft ? maker.hyphenWidth(starts[first[last]!]!) : 0),
      hyphen: soft,
      tabs,
      forced: (flags[last]! & mustEnd) !== 0,
    },
    unit,
    cut: 0,
  }
}

/**
 * Every place where a unit may be divided, from left to right, with what stands before it set. Places beyond `room` are
 * left out, but for the first of them.
 */
export function divisions(
  maker: LineMaker,
  unit: number,
  from: number,
  room = Infinity,
): { at: number; width: number }[] {
  const { text, measure } = maker
  const { analysis } = text
  const found: { at: number; width: number }[] = []
  for (let segment = analysis.first[unit]!; segment < analysis.trailing[unit]!; segment++) {
    if (analysis.starts[segment + 1]! <= from) continue
    if (analysis.kind[segment] !== kinds.word || analysis.level[segment]! % 2 === 1) continue
    const look = text.looks[analysis.run[segment]!]!
    if (!look.hyphenate) continue
    const start = analysis.starts[segment]!
    const word = analysis.text.slice(start, analysis.starts[segment + 1]!)
    const { index: lead = 0 } = /[\p{L}\p{M}]/u.exec(word) ?? {}
    const length = /^[\p{L}\p{M}’'\u00AD-]*/u.exec(word.slice(lead))![0].length
    for (const point of hyphenPoints(word.slice(lead, lead + length), look.language)) {
      const at = start + lead + point
      if (point < measure.division.remain || length - point < measure.division.push || at <= from) continue
      const width = text.widthOf(from, at) + maker.hyphenWidth(at - 1)
      found.push({ at, width })
      if (width > room) return found
    }
  }
  return found
}

/** Divides a unit at the last point where its head and a hyphen fit. */
function divide(
  maker: LineMaker,
  unit: number,
  from: number,
  room: number,
): { at: number; width: number; hyphen: boolean } | null {
  if (!maker.text.hyphenates) return null
  const fitting = divisions(maker, unit, from, room).findLast(each => each.width <= room)
  return fitting ? { ...fitting, hyphen: true } : null
}

/**
 * Cuts a word that no line can hold, at the last place between two characters where it fits; after the first at the
 * least.
 */
function cutWord(
  maker: LineMaker,
  unit: number,
  from: number,
  room: number,
): { at: number; width: number; hyphen: boolean } | null {
  const { text } = maker
  const { analysis } = text
  const end = analysis.starts[analysis.trailing[unit]!]!
  const places: number[] = []
  // As many places as the line can hold, and as many again: a word may be longer than all its lines together.
  let wanted = 64
  for (let at = from; at < end;) {
    const size = analysis.text.codePointAt(at)! > 0xffff ? 2 : 1
    // Marks and joiners stay with what they stand on.
    if (at > from && !/^[\p{M}\u200D\uFE00-\uFE0F]$/u.test(analysis.text.slice(at, at + size))) places.push(at)
    at += size
    if (places.length < wanted) continue
    if (text.widthOf(from, places.at(-1)!) > room) break
    wanted *= 2
  }
  if (places.length === 0) return null
  let low = 0
  let high = places.length - 1
  while (low < high) {
    const middle = (low + high + 1) >> 1
    if (text.widthOf(from, places[middle]!) <= room) low = middle
    else high = middle - 1
  }
  return { at: places[low]!, width: text.widthOf(from, places[low]!), hyphen: false }
}

/** A tab from where the line has got to (from the paragraph's left edge) to its stop. */
function setTab(maker: LineMaker, unit: number, at: number): SetTab {
  const { text, measure } = maker
  const { analysis } = text
  const offset = analysis.starts[analysis.first[unit]!]!
  const { tabOrigin, tabDistance } = measure
  const from = at - tabOrigin
  const stop = measure.tabs.find(each => each.position > from + slack)
  if (!stop)
    return {
      at: offset,
      width: Math.max((Math.floor((from + slack) / tabDistance) + 1) * tabDistance - from, 0),
      leader: '',
    }
  // A stop beyond the line's end is at its end.
  const position = Math.min(stop.position + tabOrigin, Math.max(measure.width, at))
  const before = stop.type === 'left' ? 0 : following(text, unit, stop)
  return {
    at: offset,
    width: Math.max(position - at - (stop.type === 'center' ? before / 2 : before), 0),
    leader: stop.leader,
  }
}

/** Width of the text behind a tab that stands before its stop: up to the next tab, for `char` up to its character. */
function following(text: SetText, unit: number, stop: TabStop): number {
  const { analysis } = text
  let width = 0
  let hang = 0
  for (let next = unit + 1; next < analysis.units && (analysis.flags[next]! & isTab) === 0; next++) {
    const start = analysis.starts[analysis.first[next]!]!
    const end = analysis.starts[analysis.trailing[next]!]!
    if (stop.type === 'char') {
      const found = analysis.text.slice(start, end).indexOf(stop.char)
      if (found >= 0) return width + hang + text.widthOf(start, start + found)
    }
    width += hang + text.unitWidths[next]!
    hang = text.unitSpaces[next]!
    if ((analysis.flags[next]! & mustEnd) !== 0) break
  }
  return width
}
