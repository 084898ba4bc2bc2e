import type { Slot } from '../document/font-attributes'
import type { FontStatus } from '../font/library'
import type { Fragment } from './fragments'
import type { Line } from './lines'
import type { Page } from './pages'
import { visualOrder, type Piece } from './units'

/** Glyphs to draw in one go. Lengths in points from the page's top left, y down; plain data, so that it can be posted. */
export interface GlyphRun {
  readonly face: string
  readonly size: number
  readonly scale: number
  readonly color: string
  readonly background: string
  readonly underline: boolean
  readonly strike: boolean
  readonly x: number
  /** The baseline. */
  readonly y: number
  readonly width: number
  readonly ascent: number
  readonly descent: number
  readonly glyphs: readonly number[]
  /** Of each glyph, from the run's x and baseline. */
  readonly xs: readonly number[]
  readonly ys: readonly number[]
  /** What it shows: text of the document, or '' for labels and hyphens. */
  readonly text: string
  /** The paragraph and the characters of it, for marks and hit testing. */
  readonly part: string
  readonly node: number
  readonly start: number
  readonly end: number
  /** Which voice (voiceKey in census/voices.ts) and face it belongs to. */
  readonly style: number
  readonly slot: Slot
  readonly status: FontStatus
  readonly rightToLeft: boolean
}

/** One line as text, for the layer that is selected and read aloud. */
export interface TextLine { readonly x: number, readonly y: number, readonly width: number, readonly height: number, readonly runs: readonly number[] }

export interface DisplayPage {
  readonly index: number
  readonly number: string
  readonly width: number
  readonly height: number
  readonly master: string
  readonly background: string
  readonly runs: readonly GlyphRun[]
  readonly lines: readonly TextLine[]
  readonly shapes: readonly Exclude<Fragment, { kind: 'lines' }>[]
}

/** What to draw for a page. */
export function displayPage(page: Page): DisplayPage {
  const runs: GlyphRun[] = []
  const lines: TextLine[] = []
  const shapes: Exclude<Fragment, { kind: 'lines' }>[] = []
  for (const fragment of page.fragments) {
    if (fragment.kind !== 'lines') { shapes.push(fragment); continue }
    const { layout, from, to } = fragment
    let { y } = fragment
    for (let index = from; index < to; index++) {
      const line = layout.lines[index]!
      const baseline = y + line.baseline
      const left = fragment.x + layout.x
      const firstRun = runs.length
      if (index === 0 && layout.label) pushPieces(layout.label.pieces, fragment.x + layout.label.x, baseline, 0, fragment, runs, '')
      const width = pushLine(line, left + line.x, baseline, fragment, runs)
      lines.push({ x: left + line.x, y, width, height: line.height, runs: Array.from({ length: runs.length - firstRun }, (_, at) => firstRun + at) })
      y += line.height
    }
  }
  return { index: page.index, number: page.number, width: page.geometry.width, height: page.geometry.height, master: page.geometry.master, background: page.geometry.background, runs, lines, shapes }
}

type Lines = Extract<Fragment, { kind: 'lines' }>
/** A stretch of the line in logical order: pieces, or room that a tab or an object takes. */
interface Slotted { readonly piece: Piece | null, readonly level: number, readonly width: number, readonly stretch: number, readonly leader: Piece | null }

function pushLine(line: Line, x: number, baseline: number, fragment: Lines, into: GlyphRun[]): number {
  const slotted: Slotted[] = []
  let tab = 0
  const lastTab = line.units.findLastIndex(unit => unit.kind === 'tab')
  line.units.forEach((unit, index) => {
    const stretch = index > lastTab ? line.stretch : 0
    if (unit.kind === 'tab') {
      const { width, leader } = line.tabs[tab++]!
      slotted.push({ piece: null, level: 0, width, stretch: 0, leader })
      return
    }
    if (unit.frame) slotted.push({ piece: null, level: 0, width: line.objectWidths.get(unit) ?? 0, stretch: 0, leader: null })
    for (const piece of unit.pieces) slotted.push({ piece, level: piece.level, width: piece.width, stretch, leader: null })
    // Spaces at the line's end hang over it unstretched: they are still there to be seen and marked.
    const last = index === line.units.length - 1
    for (const piece of unit.spaces) slotted.push({ piece, level: piece.level, width: piece.width + (last ? 0 : stretch * (piece.end - piece.start)), stretch: last ? 0 : stretch, leader: null })
  })
  if (line.hyphen) slotted.push({ piece: line.hyphen, level: line.hyphen.level, width: line.hyphen.width, stretch: 0, leader: null })
  let at = x
  let open: Piece[] = []
  let openX = x
  let openStretch = 0
  const close = () => {
    // A hyphen made by the line is not text of the document.
    const made = open[0] === line.hyphen
    if (open.length > 0) pushPieces(open, openX, baseline, openStretch, fragment, into, made ? '' : fragment.layout.text)
    open = []
  }
  const hanging = line.units.at(-1)?.spaceWidth ?? 0
  for (const { piece, level, width, stretch, leader } of visualOrder(slotted)) {
    const last = open.at(-1)
    if (!piece || !last || last.look !== piece.look || last.level !== level || level % 2 === 1 || piece === line.hyphen || openStretch !== stretch) {
      close()
      openX = at
      openStretch = stretch
    }
    if (piece) open.push(piece)
    else if (leader && leader.width > 0) {
      const count = Math.floor(width / leader.width) - 1
      if (count > 0) pushPieces(Array.from({ length: count }, () => leader), at + width - count * leader.width, baseline, 0, fragment, into, '')
    }
    at += width
  }
  close()
  return at - x - hanging
}

function pushPieces(pieces: readonly Piece[], x: number, baseline: number, stretch: number, fragment: Lines, into: GlyphRun[], text: string): void {
  const first = pieces[0]!
  const last = pieces[pieces.length - 1]!
  const { look } = first
  const glyphs: number[] = []
  const xs: number[] = []
  const ys: number[] = []
  const unit = look.size * look.scale
  let at = 0
  for (const piece of pieces) {
    const { shaped } = piece
    const spaces = text !== '' && stretch > 0 && /^[ \u3000]+$/.test(text.slice(piece.start, piece.end))
    for (let index = 0; index < shaped.glyphs.length; index++) {
      glyphs.push(shaped.glyphs[index]!)
      xs.push(at + shaped.xOffsets[index]! * unit)
      ys.push(-shaped.yOffsets[index]! * look.size)
      at += shaped.advances[index]! * unit + look.letterSpacing + (spaces ? stretch : 0)
    }
  }
  const { paragraph } = fragment.layout
  into.push({
    face: look.face.hash, size: look.size, scale: look.scale, color: look.color, background: look.background, underline: look.underline, strike: look.strike,
    x, y: baseline - look.rise, width: at, ascent: look.ascent, descent: look.descent, glyphs, xs, ys, text: text === '' ? '' : text.slice(first.start, last.end),
    part: paragraph.part, node: paragraph.node, start: first.start, end: last.end, style: look.style.id, slot: look.slot, status: look.resolution.status, rightToLeft: first.level % 2 === 1,
  })
}
