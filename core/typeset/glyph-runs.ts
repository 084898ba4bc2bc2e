import type { Slot } from '../document/font-attributes'
import type { FontStatus } from '../font/library'
import type { Fragment } from './fragments'
import type { Axis } from './harfbuzz'
import type { Look } from './look'
import type { TextLineMark } from './text-marks'
import type { Matrix } from './matrix'
import type { SetGlyphs } from './set-glyphs'

/**
 * Glyphs to draw in one go. Lengths in points from the page's top left, y down; plain data, so that it can be
 * posted.
 */
export interface GlyphRun {
  readonly face: string
  readonly axes: readonly Axis[]
  readonly size: number
  readonly scale: number
  readonly color: string
  readonly background: string
  readonly underline: TextLineMark | null
  readonly strike: TextLineMark | null
  readonly outline: boolean
  readonly shadow: boolean
  readonly x: number
  /** The baseline. */
  readonly y: number
  width: number
  readonly ascent: number
  readonly descent: number
  readonly glyphs: number[]
  /** Of each glyph, from the run's x and baseline. */
  readonly xs: number[]
  readonly ys: number[]
  /** UTF-16 offset in `text` of the character each glyph begins with. */
  readonly clusters: number[]
  /** What it shows: text of the document, or of a label or hyphen that is none. */
  text: string
  /** What it is instead of text of the document: a label, the hyphen of a broken word, the leader of a tab. */
  readonly stands: 'label' | 'hyphen' | 'leader' | null
  /** It is text of the document, and which: for marks, hit testing and selection. */
  readonly own: boolean
  readonly part: string
  readonly node: number
  readonly start: number
  end: number
  /** Which text style (TextStyle.id, of the part's cascade) and slot it has; -1 for labels. */
  readonly style: number
  readonly slot: Slot
  readonly status: FontStatus
  readonly rightToLeft: boolean
  /** Maps its coordinates to those of the page, where it is turned or stretched. */
  readonly matrix?: Matrix
}

/** A run without glyphs yet. */
export function newRun(
  look: Look,
  x: number,
  y: number,
  of: Pick<GlyphRun, 'own' | 'stands' | 'part' | 'node' | 'start' | 'style' | 'slot' | 'rightToLeft'> & {
    readonly matrix: Matrix | undefined
  },
): GlyphRun {
  return {
    face: look.face.hash,
    axes: look.axes,
    size: look.size,
    scale: look.scale,
    color: look.color,
    background: look.background,
    underline: look.underline,
    strike: look.strike,
    outline: look.outline,
    shadow: look.shadow,
    x,
    y: y - look.rise,
    width: 0,
    ascent: look.ascent - look.rise,
    descent: look.descent + look.rise,
    glyphs: [],
    xs: [],
    ys: [],
    clusters: [],
    text: '',
    stands: of.stands,
    own: of.own,
    part: of.part,
    node: of.node,
    start: of.start,
    end: of.start,
    style: of.style,
    slot: of.slot,
    status: look.status,
    rightToLeft: of.rightToLeft,
    ...(of.matrix ? { matrix: of.matrix } : {}),
  }
}

/** Adds glyphs to a run, `at` points from its x: with room behind every glyph and more behind every space. */
export function pushGlyphs(
  run: GlyphRun,
  set: SetGlyphs,
  at: number,
  letterStretch: number,
  spaceStretch: number,
  base: number,
): number {
  const { look, glyphs, unitsPerEm } = set
  const across = (look.size * look.scale) / unitsPerEm
  const up = look.size / unitsPerEm
  let x = at
  for (let glyph = glyphs.start, end = glyph + glyphs.count; glyph < end; glyph++) {
    run.glyphs.push(glyphs.ids[glyph]!)
    run.xs.push(x + glyphs.xOffsets[glyph]! * across)
    run.ys.push(-glyphs.yOffsets[glyph]! * up)
    run.clusters.push(base + glyphs.clusters[glyph]!)
    x += glyphs.advances[glyph]! * across + look.letterSpacing + letterStretch + spaceStretch
  }
  run.width = x
  return x
}

/** The signs of a formula: they are shown, and are no text that can be chosen. */
export function signRuns({
  pieces,
  text,
  part,
  node,
  x,
  y,
  matrix,
}: Extract<Fragment, { kind: 'glyphs' }>): GlyphRun[] {
  return pieces.map((piece, index) => {
    const run = newRun(piece.look, x + piece.x, y, {
      own: false,
      stands: null,
      part,
      node,
      start: 0,
      style: -1,
      slot: 'western',
      rightToLeft: false,
      matrix,
    })
    pushGlyphs(run, piece, 0, 0, 0, 0)
    run.text = index === 0 ? text : ''
    return run
  })
}
