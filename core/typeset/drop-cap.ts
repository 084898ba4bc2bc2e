import { points } from '../document/lengths'
import type { Cascade, ParagraphStyle } from '../style/cascade'
import type { Leading } from './lines'
import type { Look, Typesetter } from './look'
import type { SetGlyphs } from './set-glyphs'
import type { SetText } from './setting'

/** Letters that a paragraph begins with, as high as some of its lines (ODF 1.4 part 3, 17.9). */
export interface DropCap {
  readonly length: number
  readonly word: boolean
  readonly lines: number
  readonly distance: number
  readonly styleName: string | null
}

/** The drop cap that a style asks for; null where there is none, or it is one line high. */
export function dropCapOf(cascade: Cascade, style: ParagraphStyle): DropCap | null {
  if (!style.dropCapNode) return null
  const { part } = cascade.scope(style.dropCapNode.part)
  const attributes = part.first(part.element(style.dropCapNode.node), 'style:drop-cap')?.attributes ?? {}
  const lines = Math.min(Number.parseInt(attributes['style:lines'] ?? '1', 10) || 1, 20)
  const word = attributes['style:length'] === 'word'
  const length = word ? 1 : Number.parseInt(attributes['style:length'] ?? '1', 10) || 1
  return lines > 1
    ? {
        length,
        word,
        lines,
        distance: points(attributes['style:distance']) ?? 0,
        styleName: attributes['style:style-name'] ?? null,
      }
    : null
}

/** A drop cap: as high as its lines, from the first one's capital height to the last one's baseline. */
export function setDropCap(
  set: SetText,
  drop: DropCap,
  leading: Leading,
  empty: Look,
  typesetter: Typesetter,
): { set: SetGlyphs[]; to: number; lines: number; room: number } | null {
  const { analysis } = set
  const opening = drop.word
    ? (/^\s*\S+/u.exec(analysis.text)?.[0].length ?? 0)
    : [...analysis.text].slice(0, drop.length).join('').length
  if (opening === 0 || opening >= analysis.text.length || analysis.text.slice(0, opening).includes('\uFFFC'))
    return null
  const own = set.lookAt(0)
  const height = Math.max(leading.fixed ?? (empty.ascent + empty.descent) * leading.factor, leading.atLeast)
  const capitals = own.face.measures.capHeight / 1000
  const enlarged = typesetter.enlarged(own, ((drop.lines - 1) * height + own.size * capitals) / capitals)
  const pieces = set
    .setString(analysis.text.slice(0, opening), enlarged, 0, 0)
    .map(piece => ({ ...piece, from: 0, to: opening }))
  return {
    set: pieces,
    to: opening,
    lines: drop.lines,
    room: pieces.reduce((sum, piece) => sum + piece.width, 0) + drop.distance,
  }
}
