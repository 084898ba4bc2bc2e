import type { DisplayPage } from '~~/core/typeset/display'
import type { GlyphRun } from '~~/core/typeset/glyph-runs'
import type { Pen } from './pen'

/** What is marked on a page, and how. */
export interface Marking {
  readonly shown: boolean
  readonly chosen: (run: number) => boolean
  readonly current: (run: number) => boolean
  /** Local formatting begins here. */
  readonly stray: (run: number) => boolean
  /** Spaces, tabs, breaks and the ends of paragraphs. */
  readonly whiteSpace: boolean
  /** Distance of the baseline grid in points; 0 for none. */
  readonly grid: number
}

const iris = '#564FA0'
const rubric = '#B4361E'
const ochre = '#9A6412'
const signs = '#3F8A86'

/** The marks on a page: absent faces, strays, what is walked to, what runs over, and white space. */
export function drawMarks(pen: Pen, page: DisplayPage, marking: Marking): void {
  if (marking.whiteSpace) whiteSpace(pen, page)
  if (marking.shown) {
    page.runs.forEach((run, index) => {
      if (run.status === 'absent' && run.style >= 0) dots(pen, run)
      if (marking.stray(index) && !continues(page, index, marking)) caretUnder(pen, run)
      if (marking.current(index)) outline(pen, run)
    })
  }
  for (const shape of page.shapes) if (shape.kind === 'overset') band(pen, shape)
}

/** The stretch of local formatting began before this run. */
function continues(page: DisplayPage, index: number, marking: Marking): boolean {
  const before = page.runs[index - 1]
  const run = page.runs[index]!
  return (
    before !== undefined &&
    marking.stray(index - 1) &&
    before.node === run.node &&
    before.part === run.part &&
    before.end === run.start &&
    before.style === run.style
  )
}

/** An absent face: a dotted line under the text. */
function dots(pen: Pen, run: GlyphRun): void {
  const context = pen.place(run.matrix)
  // However small the page, a dot is more than a shade.
  const dot = Math.max(0.8, 1.3 / pen.glass.scale)
  context.strokeStyle = iris
  context.lineWidth = dot
  context.setLineDash([dot, dot * 2])
  context.beginPath()
  context.moveTo(run.x, run.y + run.descent * 0.6)
  context.lineTo(run.x + Math.max(run.width, 2), run.y + run.descent * 0.6)
  context.stroke()
  context.setLineDash([])
}

/** A stray: a small caret under where it begins. */
function caretUnder(pen: Pen, run: GlyphRun): void {
  const context = pen.place(run.matrix)
  const size = Math.max(1.6, Math.min(run.size * 0.18, 3))
  const y = run.y + run.descent * 0.5
  context.fillStyle = ochre
  context.beginPath()
  context.moveTo(run.x, y)
  context.lineTo(run.x + size, y + size * 1.3)
  context.lineTo(run.x - size, y + size * 1.3)
  context.fill()
}

function outline(pen: Pen, run: GlyphRun): void {
  const context = pen.place(run.matrix)
  context.strokeStyle = ochre
  context.lineWidth = 1.2
  context.strokeRect(run.x - 1.5, run.y - run.ascent - 1.5, Math.max(run.width, 1) + 3, run.ascent + run.descent + 3)
}

/**
 * White space made visible: a cup under every space (two for one that does not break), a rail for a tab, a stair for a
 * forced break, a small square where a paragraph ends.
 */
function whiteSpace(pen: Pen, page: DisplayPage): void {
  for (const run of page.runs) {
    if (!run.own || !/[\s\u00A0\u202F]/.test(run.text)) continue
    const context = pen.place(run.matrix)
    context.strokeStyle = signs
    context.lineWidth = Math.max(run.size * 0.05, 0.4)
    run.glyphs.forEach((_glyph, at) => {
      const sign = run.text[run.clusters[at]!]
      if (sign === undefined || !/[\s\u00A0\u202F]/.test(sign)) return
      const left = run.x + run.xs[at]!
      const right =
        run.x +
        (at + 1 < run.xs.length && !run.rightToLeft
          ? run.xs[at + 1]!
          : run.rightToLeft && at > 0
            ? run.xs[at - 1]!
            : run.width)
      const middle = (left + right) / 2
      const half = Math.max(Math.min(Math.abs(right - left) * 0.36, run.size * 0.2), 0.5)
      const y = run.y + run.size * 0.04
      const depth = run.size * 0.12
      context.beginPath()
      for (const lower of sign === ' ' ? [0] : [0, depth * 0.8]) {
        context.moveTo(middle - half, y + lower)
        context.quadraticCurveTo(middle, y + lower + depth * 1.6, middle + half, y + lower)
      }
      context.stroke()
    })
  }
  for (const sign of page.signs) {
    const context = pen.place(sign.matrix)
    const { x, y, size, width } = sign
    context.strokeStyle = signs
    context.lineWidth = Math.max(size * 0.05, 0.4)
    context.beginPath()
    if (sign.kind === 'tab') {
      const level = y - size * 0.22
      context.moveTo(x + 0.6, level)
      context.lineTo(x + Math.max(width - 0.6, 1), level)
      context.moveTo(x + Math.max(width - 0.6, 1), level - size * 0.14)
      context.lineTo(x + Math.max(width - 0.6, 1), level + size * 0.14)
    } else {
      context.moveTo(x + size * 0.1, y - size * 0.5)
      context.lineTo(x + size * 0.34, y - size * 0.5)
      context.lineTo(x + size * 0.34, y - size * 0.1)
      context.lineTo(x + size * 0.58, y - size * 0.1)
    }
    context.stroke()
  }
  for (const line of page.lines) {
    if (!line.last || line.node < 0) continue
    const context = pen.place(line.matrix)
    const side = Math.max(Math.min(line.ascent * 0.22, 4), 1.2)
    context.strokeStyle = signs
    context.lineWidth = Math.max(side * 0.18, 0.4)
    context.strokeRect(line.x + line.width + side * 0.6, line.baseline - side, side, side)
  }
}

/** Overset: a band along the frame's foot that says how much. */
function band(pen: Pen, shape: Extract<DisplayPage['shapes'][number], { kind: 'overset' }>): void {
  const context = pen.place(shape.matrix)
  // However small the page, the words stay readable.
  const size = Math.max(8, 11 / pen.glass.scale)
  context.fillStyle = rubric
  context.fillRect(shape.x, shape.y, shape.width, size * 1.4)
  context.fillStyle = '#FFFFFF'
  context.font = `${size}px "Instrument Sans", sans-serif`
  context.fillText(
    `${shape.frame.lines} ${shape.frame.lines === 1 ? 'line' : 'lines'} over`,
    shape.x + 4,
    shape.y + size * 1.03,
  )
}
