import type { Frame } from '../document/story-model'
import type { Cascade } from '../style/cascade'
import { after, translation, type Matrix } from './matrix'
import type { ParagraphLayout } from './paragraph-model'
import { placedSegments } from './placed'
import type { SetGlyphs } from './set-glyphs'
import type { Shade } from './shades'

/** A fragment that is turned or stretched: what maps its own coordinates to those of the box or page that holds it. */
interface Turned {
  readonly matrix?: Matrix
}

/** Something that is drawn for a frame or shape, and for which: what has none lies behind text, or parts it. */
interface Drawn extends Turned {
  readonly source?: { readonly part: string; readonly node: number }
}

/** One picture of many that cover a ground: its place from the box's top left, and how rows or columns are shifted. */
export interface Tile {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
  readonly repeats: boolean
  /** By which share of its size every second row or column is moved. */
  readonly offset: number
  readonly offsetOf: 'rows' | 'columns'
}

/**
 * Something placed: x and y in points from the top left of the box or page that holds it; `matrix` maps them where
 * it is there.
 */
export type Fragment =
  /** `cascade` styles text of an embedded object. */
  | (Turned & {
      readonly kind: 'lines'
      readonly layout: ParagraphLayout
      readonly from: number
      readonly to: number
      readonly x: number
      readonly y: number
      readonly cascade?: Cascade
    })
  | (Drawn & {
      readonly kind: 'image'
      readonly href: string
      readonly name: string
      readonly opacity: number
      /** Shown only inside this outline: path data as below. */
      readonly clip?: string
      /** Drawn as often as it covers its box; without it once, over all of it. */
      readonly tile?: Tile
      readonly x: number
      readonly y: number
      readonly width: number
      readonly height: number
    })
  | (Drawn & {
      readonly kind: 'object'
      readonly title: string
      readonly href: string
      readonly x: number
      readonly y: number
      readonly width: number
      readonly height: number
    })
  | (Drawn & {
      readonly kind: 'box'
      readonly fill: string
      readonly stroke: string
      readonly strokeWidth: number
      readonly x: number
      readonly y: number
      readonly width: number
      readonly height: number
    })
  /** An outline: path data of M, L, C and Z, absolute, from x and y. Its width and height are those of the shape. */
  | (Drawn & {
      readonly kind: 'path'
      readonly data: string
      readonly fill: string
      /** In place of the fill, which stands for it where one colour must. */
      readonly shade?: Shade
      /** Drawn only inside this outline. */
      readonly clip?: string
      readonly fillOpacity: number
      readonly stroke: string
      readonly strokeWidth: number
      readonly strokeOpacity: number
      readonly dash: readonly number[]
      readonly x: number
      readonly y: number
      readonly width: number
      readonly height: number
    })
  /** Signs that are no text of a paragraph: those of a formula. x is where they begin, y their baseline. */
  | (Turned & {
      readonly kind: 'glyphs'
      readonly pieces: readonly SetGlyphs[]
      readonly text: string
      readonly part: string
      readonly node: number
      readonly x: number
      readonly y: number
    })
  /** Where a frame or shape lies: nothing is drawn of it, but it can be pointed at. */
  | (Turned & {
      readonly kind: 'frame'
      readonly part: string
      readonly node: number
      readonly shape: string
      readonly name: string
      readonly content: Frame['content']
      /** The folder of the object that it shows, as the file refers to it; '' for none. */
      readonly object: string
      readonly x: number
      readonly y: number
      readonly width: number
      readonly height: number
    })
  /** A frame whose text does not fit. */
  | (Turned & {
      readonly kind: 'overset'
      readonly frame: OversetFrame
      readonly x: number
      readonly y: number
      readonly width: number
    })

/** How much of a frame's text has no room; of chained frames the last one runs over. */
export interface OversetFrame {
  readonly part: string
  readonly node: number
  readonly name: string
  readonly lines: number
  readonly characters: number
}

/** How a text frame is filled: room left in points, or what runs over. */
export interface FrameFill {
  readonly part: string
  readonly node: number
  readonly name: string
  readonly room: number
  readonly over: OversetFrame | null
  /**
   * How much smaller its text is shown, so that it fits: 1 for not at all (draw:fit-to-size, ODF 1.4 part 3,
   * 20.119).
   */
  readonly shrunk: number
}

/** Marks where a frame lies, from its own top left. */
export const frameMark = (frame: Frame, width: number, height: number): Fragment => ({
  kind: 'frame',
  part: frame.part,
  node: frame.node,
  shape: frame.shape,
  name: frame.name,
  content: frame.content,
  object: frame.content === 'object' ? (frame.href ?? '') : '',
  x: 0,
  y: 0,
  width,
  height,
})

/**
 * The same fragments, of which all that is drawn and is no text is said to be drawn for a frame; what was drawn for one in
 * it stays that one's.
 */
export function drawnFor({ part, node }: Frame, fragments: readonly Fragment[]): Fragment[] {
  return fragments.map(fragment => {
    switch (fragment.kind) {
      case 'image':
      case 'object':
      case 'box':
      case 'path':
        return fragment.source ? fragment : { ...fragment, source: { part, node } }
      default:
        return fragment
    }
  })
}

/** The same fragments, shifted. */
export function shifted(fragments: readonly Fragment[], dx: number, dy: number): readonly Fragment[] {
  if (dx === 0 && dy === 0) return fragments
  const move = translation(dx, dy)
  return fragments.map((fragment): Fragment => {
    if (fragment.matrix) return { ...fragment, matrix: after(move, fragment.matrix) }
    const x = fragment.x + dx
    const y = fragment.y + dy
    // Nearly everything is lines and boxes, and a composition shifts them by the ten thousand: written out, they take a third of the time.
    if (fragment.kind === 'lines' && !fragment.cascade)
      return { kind: 'lines', layout: fragment.layout, from: fragment.from, to: fragment.to, x, y }
    if (fragment.kind === 'box' && !fragment.source)
      return {
        kind: 'box',
        fill: fragment.fill,
        stroke: fragment.stroke,
        strokeWidth: fragment.strokeWidth,
        x,
        y,
        width: fragment.width,
        height: fragment.height,
      }
    return { ...fragment, x, y }
  })
}

/** The same fragments, turned or stretched as a whole. */
export function turned(fragments: readonly Fragment[], matrix: Matrix): readonly Fragment[] {
  const [a, b, c, d, e, f] = matrix
  if (a === 1 && b === 0 && c === 0 && d === 1) return shifted(fragments, e, f)
  return fragments.map(fragment => ({ ...fragment, matrix: fragment.matrix ? after(matrix, fragment.matrix) : matrix }))
}

/**
 * Frames that stand in lines as characters: where each one's left edge and foot are, from the paragraph's column
 * and top.
 */
export function inlineFrames(
  layout: ParagraphLayout,
  from = 0,
  to = layout.lines.length,
): { readonly frame: Frame; readonly x: number; readonly foot: number }[] {
  if (!layout.hasObjects) return []
  const found: { frame: Frame; x: number; foot: number }[] = []
  let y = 0
  const { analysis } = layout.set
  for (let index = from; index < to; index++) {
    const line = layout.lines[index]!
    y += line.above
    for (const { segment, x } of placedSegments(layout, line)) {
      const { inline } = analysis.runs[analysis.run[segment]!]!
      if (inline.kind === 'frame' && inline.frame.anchor === 'as-char')
        found.push({
          frame: inline.frame,
          x: layout.x + x,
          foot: y + line.baseline + layout.set.dropOf(inline.frame, segment),
        })
    }
    y += line.height
  }
  return found
}

/** Height of some lines of a paragraph. */
export function linesHeight(layout: ParagraphLayout, from = 0, to = layout.lines.length): number {
  let height = 0
  for (let index = from; index < to; index++) height += layout.lines[index]!.height + layout.lines[index]!.above
  return height
}

/** How far a fragment reaches below its y, in points: signs and marks have no height of their own. */
export function heightOf(fragment: Fragment): number {
  if (fragment.kind === 'lines') return linesHeight(fragment.layout, fragment.from, fragment.to)
  return fragment.kind === 'overset' || fragment.kind === 'glyphs' ? 0 : fragment.height
}
