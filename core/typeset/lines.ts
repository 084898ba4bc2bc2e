import type { Frame } from '../document/stories'
import { hyphenPoints } from './hyphenate'
import type { Look, Typesetter } from './look'
import type { Piece, Unit } from './units'

export type Alignment = 'left' | 'right' | 'center' | 'justify'

export interface TabStop { readonly position: number, readonly type: 'left' | 'right' | 'center', readonly leader: string }

/** How a paragraph's lines are made. Lengths in points. */
export interface Measure {
  readonly width: number
  /** Indent of the first line, on top of the paragraph's own. */
  readonly firstIndent: number
  readonly alignment: Alignment
  readonly lastAlignment: Alignment
  readonly rightToLeft: boolean
  readonly tabs: readonly TabStop[]
  readonly tabDistance: number
  readonly leading: Leading
  /** Size of a frame that stands in the line as a character. */
  readonly frameSize: (frame: Frame) => { readonly width: number, readonly height: number }
}

/** Baseline to baseline: fo:line-height, style:line-height-at-least, style:line-spacing (ODF 1.4 part 3, 20.205, 20.317, 20.319). */
export interface Leading { readonly factor: number, readonly fixed: number | null, readonly atLeast: number, readonly extra: number }

/** A piece with its place on the line: x from the line's left. */
export interface PlacedPiece extends Piece { readonly x: number }

export interface Line {
  readonly start: number
  readonly end: number
  readonly height: number
  /** From the line's top. */
  readonly baseline: number
  /** Left edge of the text, from the column's left, and its width as set. */
  readonly x: number
  readonly width: number
  /** What was added to every space. */
  readonly stretch: number
  readonly units: readonly Unit[]
  readonly hyphen: Piece | null
  /** The line's tabs, in order. */
  readonly tabs: readonly SetTab[]
  readonly objectWidths: ReadonlyMap<Unit, number>
}

/** A tab as set: how wide, and the sign it is filled with. */
export interface SetTab { readonly width: number, readonly leader: Piece | null }

interface Fill { units: Unit[], width: number, tabs: SetTab[], hyphen: Piece | null }
const noObjects: ReadonlyMap<Unit, number> = new Map()

/** Composes a paragraph greedily: each line takes what fits (first fit). */
export function composeLines(units: readonly Unit[], empty: Look, measure: Measure, typesetter: Typesetter): Line[] {
  const lines: Line[] = []
  if (units.length === 0) {
    lines.push(finish({ units: [], width: 0, tabs: [], hyphen: null }, 0, measure, empty, true, true))
    return lines
  }
  let rest: readonly Unit[] = units
  let at = 0
  while (at < rest.length) {
    const first = lines.length === 0
    const width = measure.width - (first ? measure.firstIndent : 0)
    const fill: Fill = { units: [], width: 0, tabs: [], hyphen: null }
    let hang = 0
    for (; at < rest.length; at++) {
      const unit = rest[at]!
      const tab = unit.kind === 'tab' ? setTab(fill.width + hang + (first ? measure.firstIndent : 0), rest, at, measure, typesetter) : null
      const own = tab ? tab.width : unit.frame ? measure.frameSize(unit.frame).width : unit.width
      if (fill.units.length > 0 && fill.width + hang + own > width + 0.01) {
        if (unit.kind === 'word' && unit.look.hyphenate) {
          const divided = divide(unit, width - fill.width - hang, typesetter)
          if (divided) {
            fill.units.push(divided.head)
            fill.width += hang + divided.head.width + divided.hyphen.width
            fill.hyphen = divided.hyphen
            rest = [...rest.slice(0, at), divided.tail, ...rest.slice(at + 1)]
          }
        }
        break
      }
      // A word wider than the column is cut where it reaches the edge.
      if (fill.units.length === 0 && own > width + 0.01 && unit.kind === 'word' && unit.end - unit.start > 1) {
        const cut = cutWord(unit, width)
        if (cut) {
          fill.units.push(cut.head)
          fill.width = cut.head.width
          rest = [...rest.slice(0, at), cut.tail, ...rest.slice(at + 1)]
          break
        }
      }
      fill.units.push(unit)
      if (tab) fill.tabs.push(tab)
      fill.width += hang + own
      hang = unit.spaceWidth
      if (unit.required) { at++; break }
    }
    const last = at >= rest.length
    const forced = fill.units.at(-1)?.required ?? false
    lines.push(finish(fill, first ? measure.firstIndent : 0, measure, empty, last || forced, first))
    if (last && forced) lines.push(finish({ units: [], width: 0, tabs: [], hyphen: null }, 0, measure, empty, true, false))
  }
  return lines
}

function finish(fill: Fill, indent: number, measure: Measure, empty: Look, last: boolean, first: boolean): Line {
  const { units } = fill
  let ascent = 0
  let descent = 0
  let objects = 0
  const grow = (look: Look) => { ascent = Math.max(ascent, look.ascent + look.rise); descent = Math.max(descent, look.descent - look.rise) }
  let previous: Look | null = null
  for (const unit of units) {
    if (unit.frame) objects = Math.max(objects, measure.frameSize(unit.frame).height)
    else if (unit.look !== previous) { grow(unit.look); previous = unit.look }
    if (unit.pieces.length > 1) for (const piece of unit.pieces) grow(piece.look)
  }
  if (ascent === 0 && objects === 0) grow(empty)
  const natural = ascent + descent
  const { leading } = measure
  // What leading adds or takes goes above the text, so that the last line keeps its depth.
  let height = leading.fixed ?? natural * leading.factor
  height = Math.max(height, leading.atLeast)
  let baseline = leading.fixed === null ? height - descent : height * (ascent / natural || 0.8)
  if (objects > baseline) { height += objects - baseline; baseline = objects }
  if (!first && leading.extra > 0) { height += leading.extra; baseline += leading.extra }
  const column = measure.width - indent
  let alignment = last ? measure.lastAlignment : measure.alignment
  let stretch = 0
  if (alignment === 'justify') {
    let spaces = 0
    const from = units.findLastIndex(unit => unit.kind === 'tab') + 1
    for (let index = from; index < units.length - 1; index++) spaces += units[index]!.spaceCount
    if (spaces > 0 && column > fill.width) stretch = (column - fill.width) / spaces
    alignment = measure.rightToLeft ? 'right' : 'left'
  }
  const width = stretch > 0 ? column : fill.width
  const free = column - width
  const x = (measure.rightToLeft ? 0 : indent) + (alignment === 'right' ? free : alignment === 'center' ? free / 2 : 0)
  return {
    start: units[0]?.start ?? 0, end: units.at(-1)?.end ?? 0, height, baseline, x, width, stretch, units, hyphen: fill.hyphen, tabs: fill.tabs,
    objectWidths: units.some(unit => unit.frame) ? new Map(units.filter(unit => unit.frame).map(unit => [unit, measure.frameSize(unit.frame!).width])) : noObjects,
  }
}

function setTab(at: number, units: readonly Unit[], index: number, measure: Measure, typesetter: Typesetter): SetTab {
  const stop = measure.tabs.find(each => each.position > at + 0.01)
  if (!stop) return { width: Math.max((Math.floor((at + 0.01) / measure.tabDistance) + 1) * measure.tabDistance - at, 0), leader: null }
  let following = 0
  let hang = 0
  if (stop.type !== 'left') {
    for (let next = index + 1; next < units.length && units[next]!.kind !== 'tab'; next++) {
      following += hang + units[next]!.width
      hang = units[next]!.spaceWidth
      if (units[next]!.required) break
    }
  }
  // A stop beyond the line's end is at its end.
  const position = Math.min(stop.position, measure.width)
  const width = Math.max(position - at - (stop.type === 'right' ? following : following / 2), 0)
  return { width, leader: stop.leader === '' ? null : leaderPiece(units[index]!, stop.leader, typesetter) }
}

function leaderPiece(unit: Unit, sign: string, typesetter: Typesetter): Piece {
  const set = typesetter.setter(unit.look, false)(sign)
  return { look: unit.look, shaped: set.shaped, width: set.width, start: unit.start, end: unit.start, level: 0, run: unit.run }
}

/** Divides a word at the last point where its head and a hyphen fit. */
function divide(unit: Unit, room: number, typesetter: Typesetter): { head: Unit, tail: Unit, hyphen: Piece } | null {
  if (unit.pieces.length !== 1) return null
  const [piece] = unit.pieces as [Piece]
  const text = wordText(piece)
  const set = typesetter.setter(piece.look, piece.level % 2 === 1)
  const hyphen = set('-')
  for (const point of hyphenPoints(text, piece.look.language).reverse()) {
    if (point < 2 || text.length - point < 2) continue
    const head = set(text.slice(0, point))
    if (head.width + hyphen.width > room) continue
    const tail = set(text.slice(point))
    const middle = piece.start + point
    return {
      head: { ...unit, end: middle, pieces: [{ ...piece, shaped: head.shaped, width: head.width, end: middle }], width: head.width, spaces: [], spaceWidth: 0, spaceCount: 0, required: false },
      tail: { ...unit, start: middle, pieces: [{ ...piece, shaped: tail.shaped, width: tail.width, start: middle }], width: tail.width },
      hyphen: { ...piece, shaped: hyphen.shaped, width: hyphen.width, start: middle, end: middle },
    }
  }
  return null
}

function wordText(piece: Piece): string {
  const { inline } = piece.run
  return inline.kind === 'text' ? inline.text.slice(piece.start - piece.run.inlineStart, piece.end - piece.run.inlineStart) : ''
}

/** Cuts a word that no line can hold, between its glyph clusters. */
function cutWord(unit: Unit, room: number): { head: Unit, tail: Unit } | null {
  let width = 0
  for (const [index, piece] of unit.pieces.entries()) {
    if (piece.level % 2 === 1 || piece.look.transform !== 'none') return null
    const { shaped, look } = piece
    for (let glyph = 0; glyph < shaped.glyphs.length; glyph++) {
      const advance = shaped.advances[glyph]! * look.size * look.scale + look.letterSpacing
      const cluster = shaped.clusters[glyph]!
      const isStart = glyph === 0 || cluster !== shaped.clusters[glyph - 1]
      if (width + advance > room && isStart && (glyph > 0 || index > 0)) {
        const middle = piece.start + cluster
        const [before, after] = splitPiece(piece, glyph, middle)
        const headPieces = [...unit.pieces.slice(0, index), ...before ? [before] : []]
        return {
          head: { ...unit, end: middle, pieces: headPieces, width, spaces: [], spaceWidth: 0, spaceCount: 0, required: false },
          tail: { ...unit, start: middle, pieces: [after, ...unit.pieces.slice(index + 1)], width: unit.width - width },
        }
      }
      width += advance
    }
  }
  return null
}

function splitPiece(piece: Piece, glyph: number, middle: number): [Piece | null, Piece] {
  const { shaped, look } = piece
  const part = (from: number, to: number, start: number, end: number): Piece => {
    const advances = shaped.advances.slice(from, to)
    const width = advances.reduce((sum, each) => sum + each, 0)
    return {
      ...piece, start, end, width: width * look.size * look.scale + look.letterSpacing * (to - from),
      shaped: { glyphs: shaped.glyphs.slice(from, to), clusters: shaped.clusters.slice(from, to).map(cluster => cluster - (start - piece.start)), advances, xOffsets: shaped.xOffsets.slice(from, to), yOffsets: shaped.yOffsets.slice(from, to), width },
    }
  }
  return [glyph > 0 ? part(0, glyph, piece.start, middle) : null, part(glyph, shaped.glyphs.length, middle, piece.end)]
}
