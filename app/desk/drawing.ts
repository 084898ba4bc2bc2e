import { tilePlaces } from '~~/core/typeset/fills'
import { fontKey, type DisplayPage } from '~~/core/typeset/display'
import type { GlyphRun } from '~~/core/typeset/glyph-runs'
import type { TextLineMark } from '~~/core/typeset/text-marks'
import type { Drawn } from '../workers/messages'
import { drawMarks, type Marking } from './marks'
import { Pen, type Glass } from './pen'

/** Outlines of all glyphs that came from the worker, as paths in thousandths of an em, y up. */
const outlines = new Map<string, Path2D>()

/** Keeps the outlines a page brought with it. */
export function keepOutlines(drawn: Drawn): void {
  for (const { face, glyph, path } of drawn.outlines) outlines.set(`${face}/${glyph}`, new Path2D(path))
}

/** Pictures that are ready to be drawn, and those of kinds that are not, by their place in the package. */
export type Pictures = ReadonlyMap<string, CanvasImageSource | 'unshown'>

/** A vector picture, ready to be drawn; as an image it can neither run nor fetch anything. */
export async function vectorPicture(bytes: Uint8Array): Promise<HTMLImageElement | null> {
  const image = new Image()
  image.src = URL.createObjectURL(new Blob([bytes as Uint8Array<ArrayBuffer>], { type: 'image/svg+xml' }))
  try {
    await image.decode()
    return image
  } catch {
    return null
  } finally {
    URL.revokeObjectURL(image.src)
  }
}

/** Draws a page, with what hangs over its edges. */
export function drawPage(
  context: CanvasRenderingContext2D,
  page: DisplayPage,
  glass: Glass,
  marking: Marking,
  pictures: Pictures,
): void {
  const pen = new Pen(context, glass)
  context.setTransform(1, 0, 0, 1, 0, 0)
  context.clearRect(0, 0, context.canvas.width, context.canvas.height)
  pen.place()
  context.fillStyle = page.background || '#FFFFFF'
  context.fillRect(0, 0, page.width, page.height)
  if (marking.grid) baselines(pen, page, marking.grid)
  for (const layer of page.layers) {
    if (layer.of === 'shapes') {
      for (const shape of page.shapes.slice(layer.from, layer.to)) drawShape(pen, shape, pictures)
      continue
    }
    const runs = page.runs.slice(layer.from, layer.to)
    runs.forEach((run, at) => {
      if (run.background) fillRun(pen, run, run.background)
      if (marking.shown && marking.chosen(layer.from + at))
        fillRun(pen, run, marking.current(layer.from + at) ? '#F3D9A4' : '#D3E6E4')
    })
    for (const run of runs) drawRun(pen, run)
  }
  drawMarks(pen, page, marking)
}

/** The grid that lines stand on, from the first line of the page. */
function baselines(pen: Pen, page: DisplayPage, step: number): void {
  const first =
    page.lines.find(line => line.part === 'content.xml' && Math.abs(line.height - step) < 0.6) ?? page.lines[0]
  if (!first || step < 2) return
  const context = pen.place()
  context.strokeStyle = 'rgba(31, 111, 107, 0.35)'
  context.lineWidth = 0.35
  context.beginPath()
  for (let y = first.baseline % step; y < page.height; y += step) {
    context.moveTo(0, y)
    context.lineTo(page.width, y)
  }
  context.stroke()
}

function fillRun(pen: Pen, run: GlyphRun, color: string): void {
  const context = pen.place(run.matrix)
  context.fillStyle = color
  context.fillRect(run.x, run.y - run.ascent, run.width, run.ascent + run.descent)
}

function drawRun(pen: Pen, run: GlyphRun): void {
  if (run.shadow) drawGlyphs(pen, run, run.size * 0.05, 'rgba(27, 36, 48, 0.35)')
  drawGlyphs(pen, run, 0, run.color)
  for (const mark of [run.underline, run.strike]) if (mark) drawMark(pen.place(run.matrix), run, mark)
}

function drawGlyphs(pen: Pen, run: GlyphRun, shift: number, color: string): void {
  const { context } = pen
  const unit = run.size / 1000
  const font = fontKey(run)
  context.fillStyle = color
  context.strokeStyle = color
  context.lineWidth = 22
  run.glyphs.forEach((glyph, index) => {
    const path = outlines.get(`${font}/${glyph}`)
    if (!path) return
    pen.glyph(run.x + run.xs[index]! + shift, run.y + run.ys[index]! + shift, unit * run.scale, unit, run.matrix)
    if (run.outline && shift === 0) context.stroke(path)
    else context.fill(path)
  })
}

/** A line under or through a run, where the font puts it. */
function drawMark(context: CanvasRenderingContext2D, run: GlyphRun, mark: TextLineMark): void {
  const y = run.y - mark.middle
  context.strokeStyle = mark.color
  context.lineWidth = mark.thickness
  context.setLineDash(
    mark.pattern === 'dotted'
      ? [mark.thickness, mark.thickness * 1.5]
      : mark.pattern === 'dashed'
        ? [mark.thickness * 4, mark.thickness * 2]
        : [],
  )
  context.beginPath()
  if (mark.pattern === 'wave') {
    context.moveTo(run.x, y)
    for (let at = 0; at < run.width; at += mark.thickness * 4)
      context.quadraticCurveTo(
        run.x + at + mark.thickness,
        y + mark.thickness * 1.6 * (Math.round(at / (mark.thickness * 4)) % 2 === 0 ? 1 : -1),
        Math.min(run.x + at + mark.thickness * 4, run.x + run.width),
        y,
      )
  } else {
    for (const offset of mark.pattern === 'double' ? [-mark.thickness, mark.thickness] : [0]) {
      context.moveTo(run.x, y + offset)
      context.lineTo(run.x + run.width, y + offset)
    }
  }
  context.stroke()
  context.setLineDash([])
}

function drawShape(pen: Pen, shape: DisplayPage['shapes'][number], pictures: Pictures): void {
  if (shape.kind === 'overset') return
  const context = pen.place(shape.matrix)
  if (shape.kind === 'box') {
    if (shape.fill) {
      context.fillStyle = shape.fill
      context.fillRect(shape.x, shape.y, shape.width, shape.height)
    }
    if (shape.stroke) {
      context.strokeStyle = shape.stroke
      context.lineWidth = Math.max(shape.strokeWidth, 0.3)
      context.strokeRect(shape.x, shape.y, shape.width, shape.height)
    }
  } else if (shape.kind === 'path') {
    context.translate(shape.x, shape.y)
    clipped(context, shape.clip, () => drawOutline(context, shape))
  } else if (shape.kind === 'image') {
    const picture = pictures.get(shape.href)
    if (picture && picture !== 'unshown') {
      context.translate(shape.x, shape.y)
      context.globalAlpha = shape.opacity
      clipped(context, shape.clip, () => {
        for (const { x, y, width, height } of tilePlaces(shape)) context.drawImage(picture, x, y, width, height)
      })
      context.globalAlpha = 1
    } else if (picture === 'unshown') placeholder(context, shape, 'Picture of a kind that is not shown')
    else
      placeholder(
        context,
        shape,
        shape.href === '' ? 'Picture without a file' : `Absent picture: ${shape.name || shape.href.split('/').at(-1)}`,
      )
  } else placeholder(context, shape, shape.title)
}

/** Draws inside an outline alone, where there is one. */
function clipped(context: CanvasRenderingContext2D, outline: string | undefined, draw: () => void): void {
  if (outline === undefined) {
    draw()
    return
  }
  context.save()
  context.clip(new Path2D(outline), 'evenodd')
  draw()
  context.restore()
}

function drawOutline(
  context: CanvasRenderingContext2D,
  shape: Extract<DisplayPage['shapes'][number], { kind: 'path' }>,
): void {
  const path = new Path2D(shape.data)
  if (shape.shade) {
    const { shade } = shape
    context.globalAlpha = shape.fillOpacity
    clipped(context, shape.data, () => {
      context.transform(...shade.matrix)
      const colours =
        shade.kind === 'linear'
          ? context.createLinearGradient(0, 0, 1, 0)
          : context.createRadialGradient(0, 0, 0, 0, 0, 1)
      for (const { at, color } of shade.stops) colours.addColorStop(at, color)
      context.fillStyle = colours
      context.fillRect(-farOut, -farOut, farOut * 2, farOut * 2)
    })
  } else if (shape.fill) {
    context.globalAlpha = shape.fillOpacity
    context.fillStyle = shape.fill
    context.fill(path, 'evenodd')
  }
  if (shape.stroke) {
    context.globalAlpha = shape.strokeOpacity
    context.strokeStyle = shape.stroke
    context.lineWidth = Math.max(shape.strokeWidth, 0.3)
    context.setLineDash([...shape.dash])
    context.stroke(path)
    context.setLineDash([])
  }
  context.globalAlpha = 1
}

/** Further than any outline reaches, measured by its gradient. */
const farOut = 200

function placeholder(
  context: CanvasRenderingContext2D,
  { x, y, width, height }: { x: number; y: number; width: number; height: number },
  word: string,
): void {
  context.fillStyle = '#EFECE4'
  context.fillRect(x, y, width, height)
  context.strokeStyle = '#B9B3A3'
  context.lineWidth = 0.5
  context.strokeRect(x, y, width, height)
  context.fillStyle = '#5B6470'
  context.font = '9px "Instrument Sans", sans-serif'
  const room = Math.max(width - 12, 4)
  let shown = word
  while (shown.length > 4 && context.measureText(`${shown}…`).width > room) shown = shown.slice(0, -1)
  context.fillText(shown === word ? word : `${shown.trimEnd()}…`, x + 6, y + 14)
}

const ruler = typeof document === 'undefined' ? null : document.createElement('canvas').getContext('2d')

/** How much wider or narrower the interface face must be drawn so that text lies over its glyphs. */
export function stretchFor(run: GlyphRun): number {
  if (!ruler) return 1
  ruler.font = `${run.size}px sans-serif`
  const natural = ruler.measureText(run.text).width
  return natural > 0 ? run.width / natural : 1
}
