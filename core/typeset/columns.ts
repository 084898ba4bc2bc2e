import type { Frame, Inline } from '../document/story-model'
import { edges } from './geometry'
import type { Fragment } from './fragments'
import type { LineRoom } from './lines'

export interface Rectangle {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
}

/** What text keeps clear of, in the coordinates of the page or box; text may stand on the sides that are named. */
export interface Exclusion extends Rectangle {
  readonly side: 'none' | 'left' | 'right' | 'both'
}

/** The place of notes at a page's foot. */
export interface NoteArea {
  /** Taken so far, with the line above them. */
  readonly height: number
  /** What it would take with some more. */
  heightWith(notes: readonly Extract<Inline, { kind: 'note' }>[]): number
  add(notes: readonly Extract<Inline, { kind: 'note' }>[]): void
}

/** What a column stands on: a page, a frame, a cell. Coordinates of everything put there count from its top left. */
export interface Ground {
  readonly fragments: Fragment[]
  readonly exclusions: Exclusion[]
  readonly notes: NoteArea | null
  /** The whole of it, and what its margins leave: frames are placed by them. */
  readonly outer: Rectangle
  readonly inner: Rectangle
  /** Left pages have inside and outside the other way round. */
  readonly mirrored: boolean
}

/** Columns of a section or frame. Lengths in points; widths are shares. */
export interface SectionColumns {
  readonly count: number
  readonly gap: number
  readonly widths: readonly number[]
  readonly balanced: boolean
  readonly left: number
  readonly right: number
}

/** A column that blocks are put in, from top to bottom. An open one has no bottom: Infinity. */
export interface Column {
  readonly ground: Ground
  readonly x: number
  readonly width: number
  readonly top: number
  readonly bottom: number
}

/** A box that grows with what is put in it. */
export function openColumn(width: number): Column {
  const box = { x: 0, y: 0, width, height: 0 }
  return {
    ground: { fragments: [], exclusions: [], notes: null, outer: box, inner: box, mirrored: false },
    x: 0,
    width,
    top: 0,
    bottom: Infinity,
  }
}

/** Whether text in a column from some height on must keep clear of something. */
export function isObstructed(column: Column, y: number): boolean {
  return column.ground.exclusions.some(
    each => each.y + each.height > y + 0.01 && each.x < column.x + column.width && each.x + each.width > column.x,
  )
}

/**
 * The room of a line in a column: the widest stretch that nothing stands in; x from the column's left. Where there is
 * none, the height at which to look again, from the same zero as `y`.
 */
export function roomAt(column: Column, y: number, height: number): LineRoom | { readonly skipTo: number } {
  if (y >= column.bottom) return { x: 0, width: column.width }
  let free: { from: number; to: number }[] = [{ from: column.x, to: column.x + column.width }]
  let next = Infinity
  for (const each of column.ground.exclusions) {
    if (each.y >= y + Math.max(height, 0.5) || each.y + each.height <= y + 0.01) continue
    next = Math.min(next, each.y + each.height)
    free = free.flatMap(({ from, to }) => {
      const pieces: { from: number; to: number }[] = []
      if (each.side === 'none') return from < each.x + each.width && to > each.x ? [] : [{ from, to }]
      if (each.side !== 'right' && Math.min(to, each.x) > from) pieces.push({ from, to: Math.min(to, each.x) })
      if (each.side !== 'left' && Math.max(from, each.x + each.width) < to)
        pieces.push({ from: Math.max(from, each.x + each.width), to })
      return pieces
    })
  }
  if (next === Infinity) return { x: 0, width: column.width }
  const widest = free.reduce<{ from: number; to: number } | null>(
    (best, each) => (!best || each.to - each.from > best.to - best.from ? each : best),
    null,
  )
  return widest && widest.to - widest.from >= 18
    ? { x: widest.from - column.x, width: widest.to - widest.from }
    : { skipTo: next }
}

/**
 * Where a frame's left or top edge stands: from the edge that its `…-rel` names (ODF 1.4 part 3, 20.297 ff. and
 * 20.399 ff.). What stands at the top has its own space above it there, as the pages of real files tell.
 */
export function framePlace(
  frame: Frame,
  properties: Readonly<Record<string, string>>,
  size: { readonly width: number; readonly height: number },
  stated: { readonly x: number; readonly y: number },
  column: Column,
  paragraph: Rectangle,
  line: { readonly x: number; readonly y: number; readonly height: number },
): { x: number; y: number } {
  const { outer, inner, mirrored } = column.ground
  const edge = (name: string | undefined, fallback: Rectangle): Rectangle => {
    switch (name) {
      case 'page':
        return outer
      case 'page-content':
        return inner
      case 'page-start-margin':
        return { x: outer.x, y: inner.y, width: inner.x - outer.x, height: inner.height }
      case 'page-end-margin':
        return {
          x: inner.x + inner.width,
          y: inner.y,
          width: outer.x + outer.width - inner.x - inner.width,
          height: inner.height,
        }
      case 'char':
      case 'line':
      case 'text':
      case 'baseline':
        return { x: line.x, y: line.y, width: 0, height: line.height }
      case 'frame':
      case 'frame-content':
        return { x: column.x, y: column.top, width: column.width, height: 0 }
      default:
        return fallback
    }
  }
  const byPage = frame.anchor === 'page'
  const across = edge(properties['style:horizontal-rel'], byPage ? outer : paragraph)
  const down = edge(properties['style:vertical-rel'], byPage ? outer : paragraph)
  let horizontal = properties['style:horizontal-pos'] ?? 'from-left'
  if (horizontal === 'inside') horizontal = mirrored ? 'right' : 'left'
  else if (horizontal === 'outside') horizontal = mirrored ? 'left' : 'right'
  const x =
    horizontal === 'center'
      ? across.x + (across.width - size.width) / 2
      : horizontal === 'right'
        ? across.x + across.width - size.width
        : horizontal === 'left'
          ? across.x
          : horizontal === 'from-inside' && mirrored
            ? across.x + across.width - size.width - stated.x
            : across.x + stated.x
  const vertical = properties['style:vertical-pos'] ?? 'from-top'
  const y =
    vertical === 'middle'
      ? down.y + (down.height - size.height) / 2
      : vertical === 'bottom'
        ? down.y + down.height - size.height
        : vertical === 'below'
          ? down.y + down.height
          : vertical === 'top'
            ? down.y + edges(properties, 'fo:margin').top
            : down.y + stated.y
  return { x, y }
}
