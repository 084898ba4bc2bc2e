import { isTab, mustEnd, softHyphen } from './analysis'
import { divisions } from './division'
import { composeGreedily } from './greedy'
import { justification, type FilledLine, type Line, type LineMaker } from './lines'

/*
 * Total fit after Knuth and Plass, Breaking Paragraphs into Lines (Software: Practice and Experience 11, 1981): of all
 * ways to break a paragraph the one with the least demerits. Spaces stretch by half their width at a ratio of one.
 * Text runs to the right and widths are positive, so that the breaks a line can begin at are a window that only moves
 * forward: it takes the place of the paper's list of active breaks.
 */

const stretchability = 0.5
const shrinkability = 1 - justification.narrowest
const hyphenPenalty = 50
const twoHyphensDemerits = 10_000
/** Lines looser than this ratio are a reason to look for places to divide words. */
const dividingRatio = 1.5

/** Possible breaks: kept between paragraphs, since there are many and they are short-lived. */
class Breaks {
  count = 0
  private room = 0
  /** Width of all text up to the break, as the end of a line and as the beginning of the next. */
  end = new Float64Array(0)
  begin = new Float64Array(0)
  /** Width of all spaces up to there, likewise. */
  endSpace = new Float64Array(0)
  beginSpace = new Float64Array(0)
  demerits = new Float64Array(0)
  ratio = new Float64Array(0)
  previous = new Int32Array(0)
  unit = new Int32Array(0)
  /** Offset in the text where a word is divided; 0 for a break behind a unit. */
  cut = new Uint32Array(0)
  hyphens = new Uint8Array(0)

  reset(room: number): void {
    this.count = 0
    if (room <= this.room) return
    this.room = room * 2
    const size = this.room
    for (const name of ['end', 'begin', 'endSpace', 'beginSpace', 'demerits', 'ratio'] as const)
      this[name] = new Float64Array(size)
    this.previous = new Int32Array(size)
    this.unit = new Int32Array(size)
    this.cut = new Uint32Array(size)
    this.hyphens = new Uint8Array(size)
  }

  add(end: number, begin: number, endSpace: number, beginSpace: number, unit: number, cut: number): void {
    const at = this.count++
    this.end[at] = end
    this.begin[at] = begin
    this.endSpace[at] = endSpace
    this.beginSpace[at] = beginSpace
    this.unit[at] = unit
    this.cut[at] = cut
    this.demerits[at] = Infinity
    this.previous[at] = -1
    this.hyphens[at] = 0
  }
}

const scratch = new Breaks()

/**
 * Composes a paragraph by total fit; greedily where the lines differ in ways that it does not weigh: tabs, room
 * that varies.
 */
export function composeTotalFit(maker: LineMaker): Line[] {
  const { text, measure } = maker
  const { analysis } = text
  if (measure.shape || analysis.units < 2 || analysis.flags.some(flag => (flag & isTab) !== 0))
    return composeGreedily(maker)
  let loosest = solve(maker, false)
  if (loosest > dividingRatio && text.hyphenates) {
    const divided = solve(maker, true)
    // Without a way that fits, the plain one is made again.
    loosest = divided < Infinity ? divided : solve(maker, false)
  }
  return loosest === Infinity ? composeGreedily(maker) : collect(maker)
}

/** Finds the best breaks; the loosest ratio of a line, or Infinity where no line can hold some word. */
function solve(maker: LineMaker, divide: boolean): number {
  const { text, measure } = maker
  const { analysis, unitWidths, unitSpaces } = text
  const { units, flags } = analysis
  const points: { at: number; width: number }[][] = []
  let extra = 0
  if (divide)
    for (let unit = 0; unit < units; unit++) {
      const list = divisions(maker, unit, analysis.starts[analysis.first[unit]!]!)
      points.push(list)
      extra += list.length
    }
  const b = scratch
  b.reset(units + extra + 1)
  b.add(0, 0, 0, 0, -1, 0)
  b.demerits[0] = 0
  b.ratio[0] = 0
  const room = measure.width
  const { ladder } = measure.division
  let width = 0
  let space = 0
  let window = 0
  for (let unit = 0; unit < units; unit++) {
    if (divide) {
      for (const { at, width: head } of points[unit]!) {
        b.add(width + head, width + head - maker.hyphenWidth(at - 1), space, space, unit, at)
        relax(b, room, measure.firstIndent, ladder, window, hyphenPenalty, false)
      }
    }
    const soft = (flags[unit]! & softHyphen) !== 0
    const end = width + unitWidths[unit]!
    width = end + unitSpaces[unit]!
    b.add(
      soft ? end + maker.hyphenWidth(analysis.starts[analysis.first[unit]!]!) : end,
      width,
      space,
      space + unitSpaces[unit]!,
      unit,
      0,
    )
    space += unitSpaces[unit]!
    const forced = unit === units - 1 || (flags[unit]! & mustEnd) !== 0
    const next = relax(b, room, measure.firstIndent, ladder, window, soft ? hyphenPenalty : 0, forced)
    // What is too far for this end is too far for all later ones, but for ends that a hyphen alone makes too far.
    if (!soft) window = next
    if (forced) {
      if (b.demerits[b.count - 1] === Infinity) return Infinity
      window = b.count - 1
    }
  }
  let loosest = 0
  if (measure.alignment === 'justify')
    for (let at = b.count - 1; at > 0; at = b.previous[at]!) loosest = Math.max(loosest, b.ratio[at]!)
  return loosest
}

/**
 * Tries every beginning in the window for a line that ends at the newest break; returns the first that is near
 * enough.
 */
function relax(
  b: Breaks,
  width: number,
  firstIndent: number,
  ladder: number,
  window: number,
  penalty: number,
  forced: boolean,
): number {
  const to = b.count - 1
  const { begin, beginSpace, demerits } = b
  const end = b.end[to]!
  const endSpace = b.endSpace[to]!
  let best = Infinity
  let previous = -1
  let bestRatio = 0
  let chain = 0
  let from = to - 1
  for (; from >= window; from--) {
    const spaces = endSpace - beginSpace[from]!
    const free = width - (from === 0 ? firstIndent : 0) - (end - begin[from]!)
    let ratio: number
    if (free >= 0) ratio = forced ? 0 : spaces > 0 ? free / (spaces * stretchability) : 30
    else {
      const shrink = spaces * shrinkability
      // A hair of rounding is no reason to call a line too full.
      if (-free > shrink + 0.01) break
      ratio = shrink > 0 ? free / shrink : 0
    }
    const before = demerits[from]!
    if (before >= best) continue
    if (ratio > 30) ratio = 30
    const badness = 1 + 100 * Math.abs(ratio * ratio * ratio) + penalty
    let sum = before + badness * badness
    if (penalty > 0 && b.hyphens[from]! > 0) {
      if (ladder > 0 && b.hyphens[from]! >= ladder) continue
      sum += twoHyphensDemerits
    }
    if (sum < best) {
      best = sum
      previous = from
      bestRatio = ratio
      chain = penalty > 0 ? b.hyphens[from]! + 1 : 0
    }
  }
  demerits[to] = best
  b.previous[to] = previous
  b.ratio[to] = bestRatio
  b.hyphens[to] = Math.min(chain, 255)
  return from + 1
}

function collect(maker: LineMaker): Line[] {
  const { text, measure } = maker
  const { analysis } = text
  const { starts, first, trailing, flags, units } = analysis
  const chosen: number[] = []
  for (let at = scratch.count - 1; at > 0; at = scratch.previous[at]!) chosen.push(at)
  chosen.reverse()
  const ends = chosen.map(at => ({ unit: scratch.unit[at]!, cut: scratch.cut[at]! }))
  const lines: Line[] = []
  let start = 0
  let startsInside = false
  ends.forEach(({ unit, cut }, index) => {
    const last = index === ends.length - 1
    const contentEnd = cut || starts[trailing[unit]!]!
    const end = cut || starts[first[unit + 1]!]!
    const soft = cut === 0 && !last && (flags[unit]! & softHyphen) !== 0
    const hyphen = cut > 0 || soft
    const at = chosen[index]!
    const natural =
      cut > 0 || startsInside
        ? text.widthOf(start, contentEnd) + (hyphen ? maker.hyphenWidth(contentEnd - 1) : 0)
        : scratch.end[at]! -
          scratch.begin[scratch.previous[at]!]! -
          (soft && last ? maker.hyphenWidth(contentEnd - 1) : 0)
    const fill: FilledLine = {
      start,
      end,
      contentEnd,
      width: natural,
      hyphen,
      tabs: [],
      forced: cut === 0 && (flags[unit]! & mustEnd) !== 0,
    }
    lines.push(maker.make(fill, index, { x: 0, width: measure.width }, 0, last))
    start = end
    startsInside = cut > 0
  })
  if ((flags[units - 1]! & mustEnd) !== 0)
    lines.push(
      maker.make(
        {
          start: analysis.text.length,
          end: analysis.text.length,
          contentEnd: analysis.text.length,
          width: 0,
          hyphen: false,
          tabs: [],
          forced: false,
        },
        lines.length,
        { x: 0, width: measure.width },
        0,
        true,
      ),
    )
  return lines
}
