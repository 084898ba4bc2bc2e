import type { Cascade } from '../style/cascade'
import { kinds } from './analysis'
import type { Fragment } from './fragments'
import { newRun, pushGlyphs, type GlyphRun } from './glyph-runs'
import type { Line } from './lines'
import type { Look } from './look'
import type { Matrix } from './matrix'
import { placedSegments } from './placed'
import type { SetGlyphs } from './set-glyphs'

/** White space that is drawn by nothing: a tab with its width, or a forced break. */
export interface SpaceSign {
  readonly kind: 'tab' | 'break'
  readonly x: number
  readonly y: number
  readonly width: number
  readonly size: number
  readonly matrix?: Matrix
}

type Lines = Extract<Fragment, { kind: 'lines' }>

/** Draws the lines of a paragraph as runs of glyphs. */
export class LineDrawing {
  /** Runs without a colour of their own. */
  readonly automatic: number[] = []
  private readonly styles = new Map<number, number>()

  constructor(
    private readonly fragment: Lines,
    private readonly cascade: Cascade,
    private readonly into: GlyphRun[],
    private readonly signs: SpaceSign[],
  ) {}

  private styleOf(run: number): number {
    let style = this.styles.get(run)
    if (style === undefined) {
      const { paragraph, role, set } = this.fragment.layout
      const { inline } = set.analysis.runs[run]!
      style = this.cascade.text(paragraph, inline.kind === 'annotation' ? null : inline.span, role).id
      this.styles.set(run, style)
    }
    return style
  }

  private open(
    look: Look,
    x: number,
    y: number,
    from: number,
    own: boolean,
    run: number,
    rightToLeft: boolean,
    stands: GlyphRun['stands'] = null,
  ): GlyphRun {
    const { paragraph, set } = this.fragment.layout
    const made = newRun(look, x, y, {
      own: own && paragraph.node >= 0,
      stands,
      part: paragraph.part,
      node: paragraph.node,
      start: from,
      style: run < 0 ? -1 : this.styleOf(run),
      slot: run < 0 ? 'western' : set.analysis.runs[run]!.slot,
      rightToLeft,
      matrix: this.fragment.matrix,
    })
    if (look.automatic) this.automatic.push(this.into.length)
    this.into.push(made)
    return made
  }

  /** A string that is no text of the document, standing before, in or after its character at an offset. */
  string(
    stands: GlyphRun['stands'],
    pieces: readonly SetGlyphs[],
    x: number,
    baseline: number,
    text: string,
    at = 0,
  ): void {
    pieces.forEach((piece, index) => {
      const run = this.open(piece.look, x + piece.x, baseline, at, false, -1, false, stands)
      pushGlyphs(run, piece, 0, 0, 0, 0)
      run.text = index === 0 ? text : ''
    })
  }

  drop(drop: { readonly set: readonly SetGlyphs[]; readonly to: number }, x: number, baseline: number): void {
    for (const piece of drop.set) {
      const run = this.open(piece.look, x + piece.x, baseline, 0, true, 0, false)
      pushGlyphs(run, piece, 0, 0, 0, 0)
      run.text = this.fragment.layout.text.slice(0, drop.to)
      run.end = drop.to
    }
  }

  line(line: Line, left: number, baseline: number): number {
    const { layout } = this.fragment
    const { set, text } = layout
    const { analysis } = set
    let run: GlyphRun | null = null
    let source = -1
    let end = left + line.x
    const lastTab = line.tabs.at(-1)?.at ?? -1
    for (const placed of placedSegments(layout, line)) {
      const { segment, from, to, level } = placed
      const x = left + placed.x
      const kind = analysis.kind[segment]!
      if (from < line.contentEnd) end = Math.max(end, x + placed.width)
      if (kind === kinds.tab || kind === kinds.lineBreak)
        this.signs.push({
          kind: kind === kinds.tab ? 'tab' : 'break',
          x,
          y: baseline,
          width: kind === kinds.tab ? placed.width : 0,
          size: set.looks[analysis.run[segment]!]!.size,
          ...(this.fragment.matrix ? { matrix: this.fragment.matrix } : {}),
        })
      if (kind === kinds.tab) {
        run = null
        this.leader(line, placed.tab, segment, x, placed.width, baseline)
        continue
      }
      if (kind !== kinds.word && kind !== kinds.space && kind !== kinds.object) {
        run = null
        continue
      }
      const stretched = from > lastTab && from < line.contentEnd
      const rightToLeft = analysis.level[segment]! % 2 === 1 && kind !== kinds.object
      let at = x
      for (const part of set.glyphsOf(segment, from, to, 0, line)) {
        const own = kind !== kinds.object
        if (
          !run ||
          source !== analysis.run[segment] ||
          rightToLeft ||
          level % 2 === 1 ||
          !own ||
          run.face !== part.look.face.hash ||
          run.size !== part.look.size ||
          run.end !== part.from ||
          Math.abs(run.x + run.width - at) > 0.02
        ) {
          run = this.open(part.look, at, baseline, part.from, own, analysis.run[segment]!, rightToLeft)
          source = analysis.run[segment]!
        }
        const width: number = pushGlyphs(
          run,
          part,
          at - run.x,
          stretched ? line.letterStretch : 0,
          stretched && kind === kinds.space ? line.stretch : 0,
          part.from - run.start,
        )
        at = run.x + width
        run.text += own ? text.slice(part.from, part.to) : ''
        run.end = part.to
        if (!own) {
          const { inline } = analysis.runs[analysis.run[segment]!]!
          run.text = inline.kind === 'note' ? inline.citation : ''
          run = null
        }
      }
    }
    if (line.hyphen) {
      const pieces = set.setString('-', set.lookAt(Math.max(line.contentEnd - 1, 0)), line.contentEnd, 0)
      // A soft hyphen is drawn by the hyphen that it stands for.
      this.string('hyphen', pieces, end, baseline, '-', line.contentEnd)
      end += pieces.reduce((sum, piece) => sum + piece.width, 0)
    }
    // What sets letters apart stands between them, not behind the last.
    return end - left - line.x - line.letterStretch
  }

  private leader(line: Line, tab: number, segment: number, x: number, width: number, baseline: number): void {
    const leader = line.tabs[tab]?.leader ?? ''
    if (leader === '') return
    const { set } = this.fragment.layout
    const pieces = set.setString(leader, set.looks[set.analysis.run[segment]!]!, set.analysis.starts[segment]!, 0)
    const own = pieces.reduce((sum, piece) => sum + piece.width, 0)
    const count = own > 0 ? Math.floor(width / own) - 1 : 0
    for (let index = 0; index < count; index++)
      this.string('leader', pieces, x + width - (count - index) * own, baseline, index === 0 ? ' ' : '')
  }
}
