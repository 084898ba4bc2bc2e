import type { Cascade } from '../style/cascade'
import { kinds } from './analysis'
import type { Fragment } from './fragments'
import type { Edges } from './geometry'
import { newRun, pushGlyphs, signRuns, type GlyphRun } from './glyph-runs'
import { Grounds, isDark } from './grounds'
import type { Axis } from './harfbuzz'
import type { Line } from './lines'
import { boundsOf, mapped, type Matrix } from './matrix'
import type { Look } from './look'
import type { TextLineMark } from './text-marks'
import type { Page } from './page'
import { fileOffset, hasPageValues } from './page-values'
import { placedSegments } from './placed'
import type { Paragraph } from '../document/story-model'
import type { SetGlyphs } from './set-glyphs'

/** One line as text, for the layer that is selected and read aloud: the paragraph and the UTF-16 range it shows. */
export interface TextLine {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
  readonly runs: readonly number[]
  readonly part: string
  readonly node: number
  readonly start: number
  readonly end: number
  /** The end without what hangs over: the space or break it ends with. */
  readonly contentEnd: number
  /** Its paragraph ends here. */
  readonly last: boolean
  readonly baseline: number
  /** How high a caret is here, from above to below the baseline. */
  readonly ascent: number
  readonly descent: number
  readonly matrix?: Matrix
}

export interface DisplayPage {
  readonly index: number
  readonly number: string
  readonly width: number
  readonly height: number
  readonly master: string
  /** Its margins, in points. */
  readonly margin: Edges
  readonly background: string
  readonly runs: readonly GlyphRun[]
  readonly lines: readonly TextLine[]
  readonly shapes: readonly Exclude<Fragment, { kind: 'lines' | 'glyphs' | 'frame' }>[]
  /** Frames and shapes, to be pointed at: those above others last. */
  readonly frames: readonly Extract<Fragment, { kind: 'frame' }>[]
  /** White space that is drawn by nothing: tabs with their width, and forced breaks. */
  readonly signs: readonly {
    readonly kind: 'tab' | 'break'
    readonly x: number
    readonly y: number
    readonly width: number
    readonly size: number
    readonly matrix?: Matrix
  }[]
  /** In which order shapes and runs lie over one another, lowest first: `from` to before `to` of either. */
  readonly layers: readonly { readonly of: 'shapes' | 'runs'; readonly from: number; readonly to: number }[]
  /** The page with everything that hangs over its edges or lies beside it. */
  readonly extent: { readonly x: number; readonly y: number; readonly width: number; readonly height: number }
  /** How many things lie wholly outside the page. */
  readonly offPage: number
}

/** A face with its place on its axes: what outlines are kept under. */
export function fontKey(run: { readonly face: string; readonly axes: readonly Axis[] }): string {
  return run.axes.length === 0 ? run.face : `${run.face}@${run.axes.map(axis => `${axis.tag}${axis.value}`).join('@')}`
}

/** What to draw for a page. */
export function displayPage(page: Page): DisplayPage {
  const runs: GlyphRun[] = []
  const lines: TextLine[] = []
  const signs: DisplayPage['signs'][number][] = []
  const shapes: Exclude<Fragment, { kind: 'lines' | 'glyphs' | 'frame' }>[] = []
  const frames: Extract<Fragment, { kind: 'frame' }>[] = []
  const layers: { of: 'shapes' | 'runs'; from: number; to: number }[] = []
  const automatic: { readonly run: number; readonly shapes: number }[] = []
  for (const fragment of page.fragments) {
    if (fragment.kind === 'frame') {
      frames.push(fragment)
      continue
    }
    if (fragment.kind === 'glyphs') {
      for (const run of signRuns(fragment)) {
        if (fragment.pieces[0]!.look.automatic)
          automatic.push({ run: runs.length, shapes: page.node >= 0 ? shapes.length : Infinity })
        runs.push(run)
      }
      grow(layers, 'runs', runs.length)
      continue
    }
    if (fragment.kind !== 'lines') {
      shapes.push(fragment)
      grow(layers, 'shapes', shapes.length)
      continue
    }
    const { layout, from, to, matrix } = fragment
    const { part, node } = layout.paragraph
    const drawing = new LineDrawing(fragment, fragment.cascade ?? page.cascade, runs, signs)
    let { y } = fragment
    for (let index = from; index < to; index++) {
      const line = layout.lines[index]!
      y += line.above
      const baseline = y + line.baseline
      const left = fragment.x + layout.x
      const firstRun = runs.length
      if (index === 0 && layout.label)
        drawing.string('label', layout.label.pieces, fragment.x + layout.label.x, baseline, layout.label.text)
      if (index === layout.drop?.line) drawing.drop(layout.drop, left, baseline)
      const width = drawing.line(line, left, baseline)
      lines.push({
        x: left + line.x,
        y,
        width,
        height: line.height,
        runs: Array.from({ length: runs.length - firstRun }, (_, at) => firstRun + at),
        part,
        node,
        start: line.start,
        end: line.end,
        contentEnd: line.contentEnd,
        last: index === layout.lines.length - 1,
        baseline,
        ascent: Math.min(line.baseline, line.height),
        descent: Math.max(line.height - line.baseline, 0),
        ...(matrix ? { matrix } : {}),
      })
      y += line.height
    }
    if (hasPageValues(layout.paragraph))
      asWritten(layout.paragraph, runs, lines, layers.findLast(each => each.of === 'runs')?.to ?? 0)
    grow(layers, 'runs', runs.length)
    for (const run of drawing.automatic) automatic.push({ run, shapes: page.node >= 0 ? shapes.length : Infinity })
  }
  whiteOnDark(runs, automatic, new Grounds(shapes, page.geometry.background))
  const { width, height, master, background } = page.geometry
  // In texts, what has a ground lies under all text; on drawn pages things lie as they come.
  const stacked =
    page.node >= 0
      ? layers
      : [
          { of: 'shapes' as const, from: 0, to: shapes.length },
          { of: 'runs' as const, from: 0, to: runs.length },
        ]
  return {
    index: page.index,
    number: page.number,
    width,
    height,
    master,
    margin: page.geometry.margin,
    background,
    runs,
    lines,
    shapes,
    frames,
    signs,
    layers: stacked,
    ...around(width, height, shapes, lines, frames),
  }
}

/** Offsets of text with values of its page become those of the file: a field is one thing. */
function asWritten(paragraph: Paragraph, runs: GlyphRun[], lines: TextLine[], from: number): void {
  for (let index = from; index < runs.length; index++) {
    const run = runs[index]!
    if (run.node !== paragraph.node) continue
    const start = fileOffset(paragraph, run.start)
    const end = fileOffset(paragraph, run.end)
    runs[index] = {
      ...run,
      start,
      end,
      clusters: end - start === run.end - run.start ? run.clusters : run.clusters.map(() => 0),
    }
  }
  for (let index = 0; index < lines.length; index++) {
    const line = lines[index]!
    if (line.part === paragraph.part && line.node === paragraph.node && line.runs.every(run => run >= from))
      lines[index] = {
        ...line,
        start: fileOffset(paragraph, line.start),
        end: fileOffset(paragraph, line.end),
        contentEnd: fileOffset(paragraph, line.contentEnd),
      }
  }
}

/** Text without a colour of its own is white where it stands on something dark. */
function whiteOnDark(
  runs: GlyphRun[],
  automatic: readonly { readonly run: number; readonly shapes: number }[],
  grounds: Grounds,
): void {
  for (const { run: at, shapes: below } of automatic) {
    const run = runs[at]!
    const place = { x: run.x + run.width / 2, y: run.y - run.size / 4 }
    const middle = run.matrix ? mapped(run.matrix, place.x, place.y) : place
    if (!(run.background ? isDark(run.background) : grounds.isDark(middle, below))) continue
    const light = (mark: TextLineMark | null) =>
      mark && (mark.color === run.color ? { ...mark, color: '#ffffff' } : mark)
    runs[at] = { ...run, color: '#ffffff', underline: light(run.underline), strike: light(run.strike) }
  }
}

function grow(layers: { of: 'shapes' | 'runs'; from: number; to: number }[], of: 'shapes' | 'runs', to: number): void {
  const last = layers.at(-1)
  if (last?.of === of) last.to = to
  else layers.push({ of, from: layers.findLast(each => each.of === of)?.to ?? 0, to })
}

/** Nothing is looked for further from the page than this, in points. */
const farthest = 2000

function around(
  width: number,
  height: number,
  shapes: DisplayPage['shapes'],
  lines: readonly TextLine[],
  frames: DisplayPage['frames'],
): Pick<DisplayPage, 'extent' | 'offPage'> {
  let [left, top, right, bottom, offPage] = [0, 0, width, height, 0]
  const take = (
    box: { x: number; y: number; width: number; height: number },
    matrix: Matrix | undefined,
    counts = false,
  ) => {
    const { x, y, width: wide, height: high } = matrix ? boundsOf(matrix, box) : box
    if (counts && (x > width || y > height || x + wide < 0 || y + high < 0)) offPage++
    left = Math.min(left, Math.max(x, -farthest))
    top = Math.min(top, Math.max(y, -farthest))
    right = Math.max(right, Math.min(x + wide, width + farthest))
    bottom = Math.max(bottom, Math.min(y + high, height + farthest))
  }
  for (const frame of frames) take(frame, frame.matrix, true)
  for (const shape of shapes) if (shape.kind !== 'overset') take(shape, shape.matrix)
  for (const line of lines) if (line.contentEnd > line.start) take(line, line.matrix)
  return { extent: { x: left, y: top, width: right - left, height: bottom - top }, offPage }
}

type Lines = Extract<Fragment, { kind: 'lines' }>

class LineDrawing {
  /** Runs without a colour of their own. */
  readonly automatic: number[] = []
  private readonly styles = new Map<number, number>()

  constructor(
    private readonly fragment: Lines,
    private readonly cascade: Cascade,
    private readonly into: GlyphRun[],
    private readonly signs: DisplayPage['signs'][number][],
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
      for (const part of set.glyphsOf(segment, from, to, 0)) {
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
