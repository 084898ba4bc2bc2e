import type { Fragment } from './fragments'
import type { Edges } from './geometry'
import { signRuns, type GlyphRun } from './glyph-runs'
import { Grounds, isDark } from './grounds'
import type { Axis } from './harfbuzz'
import { LineDrawing, type SpaceSign } from './line-drawing'
import { boundsOf, mapped, type Matrix } from './matrix'
import type { TextLineMark } from './text-marks'
import type { Page } from './page'
import { fileOffset, hasPageValues } from './page-values'
import type { Paragraph } from '../document/story-model'

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
  readonly signs: readonly SpaceSign[]
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
  const signs: SpaceSign[] = []
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
