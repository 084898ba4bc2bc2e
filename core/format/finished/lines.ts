import type { PageBox, PageLook, PagePoint } from './page-view'
import { looked } from './page-view'
import type { PageText, TextPiece } from './page-text'

/** A character of a line, and the piece and glyph that show it; -1 for a space that no glyph shows. */
export interface LineCharacter {
  readonly text: string
  readonly piece: number
  readonly glyph: number
}

/** Text on one line of a page, as near to one another as words are. */
export interface PageLine {
  readonly pieces: readonly TextPiece[]
  readonly characters: readonly LineCharacter[]
  readonly text: string
  /** It stands in a form that the page draws, and maybe elsewhere as well. */
  readonly inForm: boolean
}

/** The lines of a page, in the order in which its content shows them. */
export function linesOf({ pieces }: PageText): PageLine[] {
  const lines: TextPiece[][] = []
  for (const piece of pieces) {
    const last = lines.at(-1)?.at(-1)
    if (last && follows(last, piece)) lines.at(-1)!.push(piece)
    else lines.push([piece])
  }
  return lines.map(own => {
    const characters = charactersOf(own)
    return {
      pieces: own,
      characters,
      text: characters.map(each => each.text).join(''),
      inForm: own.some(piece => piece.operator < 0),
    }
  })
}

/** The direction in which a piece runs, as a vector of length one; to the right where it has no width. */
function directionOf({ from, to }: TextPiece): PagePoint {
  const long = Math.hypot(to.x - from.x, to.y - from.y)
  return long < 1e-6 ? { x: 1, y: 0 } : { x: (to.x - from.x) / long, y: (to.y - from.y) / long }
}

/** How far a piece begins behind the end of another, along that one's line, and how far off the line. */
function away(last: TextPiece, next: TextPiece): { readonly along: number; readonly off: number } {
  const { x, y } = directionOf(last)
  const [dx, dy] = [next.from.x - last.to.x, next.from.y - last.to.y]
  return { along: dx * x + dy * y, off: Math.abs(dy * x - dx * y) }
}

function follows(last: TextPiece, next: TextPiece): boolean {
  const { along, off } = away(last, next)
  return off < Math.max(next.size, last.size) * 0.2 && along > -next.size && along < next.size * 3
}

function charactersOf(pieces: readonly TextPiece[]): LineCharacter[] {
  const characters: LineCharacter[] = []
  pieces.forEach((piece, index) => {
    const before = pieces[index - 1]
    const gap = before ? away(before, piece).along : 0
    if (before && gap > piece.size * 0.18 && !/\s$/.test(before.text) && !/^\s/.test(piece.text))
      characters.push({ text: ' ', piece: index, glyph: -1 })
    piece.glyphs.forEach(({ text }, glyph) => {
      characters.push({ text, piece: index, glyph })
    })
  })
  return characters
}

/** Stands among codes for a space that no glyph shows, but room that is left. */
export const roomForSpace = -1
/** How wide that room is, in thousandths of an em: as most faces have their space. */
export const spaceWidth = 280

/** How wide codes of a piece's font are set there, in points of its text. */
export const widthOf = ({ font, spacing }: TextPiece, codes: readonly number[]): number =>
  codes.reduce((sum, code) => {
    if (code === roomForSpace) return sum + (spaceWidth / 1000) * spacing.fontSize * spacing.scale
    const word = font.codeLength === 1 && code === 32 ? spacing.word : 0
    return sum + ((font.width(code) / 1000) * spacing.fontSize + spacing.glyph + word) * spacing.scale
  }, 0)

/** Where characters of a line begin and end, counted as the line's text is: whole glyphs. */
export function charactersIn(line: PageLine, from: number, to: number): { readonly from: number; readonly to: number } {
  let passed = 0
  const ends = line.characters.map(each => (passed += each.text.length))
  const first = ends.findIndex(end => end > from)
  const last = ends.findIndex(end => end >= to)
  return {
    from: first < 0 ? line.characters.length : first,
    to: (last < 0 ? line.characters.length - 1 : last) + 1,
  }
}

/** How far letters reach above and below their baseline, as shares of the size: enough to mark them by. */
const [above, below] = [0.78, 0.24]

/** The boxes of a stretch of a line, one for each piece of it, as the page is looked at. */
export function boxesOf(line: PageLine, look: PageLook, from = 0, to = line.text.length): PageBox[] {
  const range = charactersIn(line, from, to)
  const boxes: PageBox[] = []
  line.pieces.forEach((piece, index) => {
    const glyphs = line.characters.slice(range.from, range.to).filter(each => each.piece === index && each.glyph >= 0)
    if (glyphs.length === 0) return
    const codes = piece.glyphs.map(glyph => glyph.code)
    const whole = widthOf(piece, codes) || 1
    const place = (glyph: number) => widthOf(piece, codes.slice(0, glyph)) / whole
    boxes.push(boxOf(piece, look, place(Math.min(...glyphs.map(each => each.glyph))), place(glyphs.at(-1)!.glyph + 1)))
  })
  return boxes
}

/** The box of a part of a piece, as the page is looked at: from and to as shares of its width. */
function boxOf({ from: start, to: end, size }: TextPiece, look: PageLook, from: number, to: number): PageBox {
  const [first, last] = [looked(look, start), looked(look, end)]
  const [dx, dy] = [last.x - first.x, last.y - first.y]
  const long = Math.hypot(dx, dy) || 1
  // Upwards from the baseline, on a page whose y runs downwards.
  const up = { x: dy / long, y: -dx / long }
  const corners = [from, to].flatMap(share =>
    [above * size, -below * size].map(high => ({
      x: first.x + dx * share + up.x * high,
      y: first.y + dy * share + up.y * high,
    })),
  )
  const [left, top] = [Math.min(...corners.map(each => each.x)), Math.min(...corners.map(each => each.y))]
  return {
    x: left,
    y: top,
    width: Math.max(...corners.map(each => each.x)) - left,
    height: Math.max(...corners.map(each => each.y)) - top,
  }
}
