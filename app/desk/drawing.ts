import { fontKey, type DisplayPage, type GlyphRun } from '~~/core/typeset/display'
import type { TextLineMark } from '~~/core/typeset/look'
import type { Drawn } from '../workers/messages'

/** Outlines of all glyphs that came from the worker, as paths in thousandths of an em, y up. */
const outlines = new Map<string, Path2D>()

/** Keeps the outlines a page brought with it. */
export function keepOutlines(drawn: Drawn): void {
  for (const { face, glyph, path } of drawn.outlines) outlines.set(`${face}/${glyph}`, new Path2D(path))
}

/** Which runs are marked and how. */
export interface Marking {
  readonly shown: boolean
  readonly chosen: (run: number) => boolean
  readonly current: (run: number) => boolean
}

const iris = '#564FA0'
const rubric = '#B4361E'

/** Draws a page on a canvas; `scale` is device pixels per point. */
export function drawPage(context: CanvasRenderingContext2D, page: DisplayPage, scale: number, marking: Marking, pictures: ReadonlyMap<string, ImageBitmap>): void {
  context.setTransform(1, 0, 0, 1, 0, 0)
  context.fillStyle = page.background || '#FFFFFF'
  context.fillRect(0, 0, context.canvas.width, context.canvas.height)
  context.setTransform(scale, 0, 0, scale, 0, 0)
  for (const shape of page.shapes) drawShape(context, shape, pictures)
  page.runs.forEach((run, index) => {
    if (run.background) fillRun(context, run, run.background)
    if (marking.shown && marking.chosen(index)) fillRun(context, run, marking.current(index) ? '#F3D9A4' : '#D3E6E4')
  })
  for (const run of page.runs) drawRun(context, run, scale)
  context.setTransform(scale, 0, 0, scale, 0, 0)
  if (marking.shown) {
    page.runs.forEach((run, index) => {
      if (run.status === 'absent' && run.own) dot(context, run)
      if (marking.current(index)) outline(context, run)
    })
  }
  for (const shape of page.shapes) if (shape.kind === 'overset') band(context, shape, scale)
}

function fillRun(context: CanvasRenderingContext2D, run: GlyphRun, color: string): void {
  context.fillStyle = color
  context.fillRect(run.x, run.y - run.ascent, run.width, run.ascent + run.descent)
}

function drawRun(context: CanvasRenderingContext2D, run: GlyphRun, scale: number): void {
  if (run.shadow) drawGlyphs(context, run, scale, run.size * 0.05, 'rgba(27, 36, 48, 0.35)')
  drawGlyphs(context, run, scale, 0, run.color)
  context.setTransform(scale, 0, 0, scale, 0, 0)
  for (const mark of [run.underline, run.strike]) if (mark) drawMark(context, run, mark)
}

function drawGlyphs(context: CanvasRenderingContext2D, run: GlyphRun, scale: number, shift: number, color: string): void {
  const unit = run.size / 1000 * scale
  const font = fontKey(run)
  context.fillStyle = color
  context.strokeStyle = color
  context.lineWidth = 22
  run.glyphs.forEach((glyph, index) => {
    const path = outlines.get(`${font}/${glyph}`)
    if (!path) return
    context.setTransform(unit * run.scale, 0, 0, -unit, (run.x + run.xs[index]! + shift) * scale, (run.y + run.ys[index]! + shift) * scale)
    if (run.outline && shift === 0) context.stroke(path)
    else context.fill(path)
  })
}

/** A line under or through a run, where the font puts it. */
function drawMark(context: CanvasRenderingContext2D, run: GlyphRun, mark: TextLineMark): void {
  const y = run.y - mark.middle
  context.strokeStyle = mark.color
  context.lineWidth = mark.thickness
  context.setLineDash(mark.pattern === 'dotted' ? [mark.thickness, mark.thickness * 1.5] : mark.pattern === 'dashed' ? [mark.thickness * 4, mark.thickness * 2] : [])
  context.beginPath()
  if (mark.pattern === 'wave') {
    context.moveTo(run.x, y)
    for (let at = 0; at < run.width; at += mark.thickness * 4) context.quadraticCurveTo(run.x + at + mark.thickness, y + mark.thickness * 1.6 * (Math.round(at / (mark.thickness * 4)) % 2 === 0 ? 1 : -1), Math.min(run.x + at + mark.thickness * 4, run.x + run.width), y)
  }
  else {
    for (const offset of mark.pattern === 'double' ? [-mark.thickness, mark.thickness] : [0]) {
      context.moveTo(run.x, y + offset)
      context.lineTo(run.x + run.width, y + offset)
    }
  }
  context.stroke()
  context.setLineDash([])
}

/** An absent face: a dotted line under the text. */
function dot(context: CanvasRenderingContext2D, run: GlyphRun): void {
  context.strokeStyle = iris
  context.lineWidth = 0.8
  context.setLineDash([0.8, 1.6])
  context.beginPath()
  context.moveTo(run.x, run.y + run.descent * 0.6)
  context.lineTo(run.x + Math.max(run.width, 2), run.y + run.descent * 0.6)
  context.stroke()
  context.setLineDash([])
}

function outline(context: CanvasRenderingContext2D, run: GlyphRun): void {
  context.strokeStyle = '#9A6412'
  context.lineWidth = 1.2
  context.strokeRect(run.x - 1.5, run.y - run.ascent - 1.5, Math.max(run.width, 1) + 3, run.ascent + run.descent + 3)
}

function drawShape(context: CanvasRenderingContext2D, shape: DisplayPage['shapes'][number], pictures: ReadonlyMap<string, ImageBitmap>): void {
  if (shape.kind === 'box') {
    if (shape.fill) { context.fillStyle = shape.fill; context.fillRect(shape.x, shape.y, shape.width, shape.height) }
    if (shape.stroke) { context.strokeStyle = shape.stroke; context.lineWidth = Math.max(shape.strokeWidth, 0.3); context.strokeRect(shape.x, shape.y, shape.width, shape.height) }
  }
  else if (shape.kind === 'image') {
    const picture = pictures.get(shape.href)
    if (picture) context.drawImage(picture, shape.x, shape.y, shape.width, shape.height)
    else placeholder(context, shape, 'Picture')
  }
  else if (shape.kind === 'object') placeholder(context, shape, shape.title)
}

function placeholder(context: CanvasRenderingContext2D, { x, y, width, height }: { x: number, y: number, width: number, height: number }, word: string): void {
  context.fillStyle = '#EFECE4'
  context.fillRect(x, y, width, height)
  context.strokeStyle = '#B9B3A3'
  context.lineWidth = 0.5
  context.strokeRect(x, y, width, height)
  context.fillStyle = '#5B6470'
  context.font = '9px "Instrument Sans", sans-serif'
  context.fillText(word, x + 6, y + 14)
}

/** Overset: a band along the frame's foot that says how much. */
function band(context: CanvasRenderingContext2D, shape: Extract<DisplayPage['shapes'][number], { kind: 'overset' }>, scale: number): void {
  context.setTransform(scale, 0, 0, scale, 0, 0)
  // However small the page, the words stay readable.
  const size = Math.max(8, 11 / scale)
  context.fillStyle = rubric
  context.fillRect(shape.x, shape.y, shape.width, size * 1.4)
  context.fillStyle = '#FFFFFF'
  context.font = `${size}px "Instrument Sans", sans-serif`
  context.fillText(`${shape.frame.lines} ${shape.frame.lines === 1 ? 'line' : 'lines'} over`, shape.x + 4, shape.y + size * 1.03)
}

const ruler = typeof document === 'undefined' ? null : document.createElement('canvas').getContext('2d')

/** How much wider or narrower the interface face must be drawn so that text lies over its glyphs. */
export function stretchFor(run: GlyphRun): number {
  if (!ruler) return 1
  ruler.font = `${run.size}px sans-serif`
  const natural = ruler.measureText(run.text).width
  return natural > 0 ? run.width / natural : 1
}
