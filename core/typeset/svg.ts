import { fontKey, type DisplayPage } from './display'
import type { Shaper } from './shaper'

const short = (value: number) => String(Math.round(value * 100) / 100)
const attribute = (value: string) => value.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/"/g, '&quot;')

/** A page as an SVG picture of its glyph outlines; pictures are shown as grey boxes. Sizes in points. */
export function pageSvg(page: DisplayPage, shaper: Shaper): string {
  const symbols = new Map<string, string>()
  const definitions: string[] = []
  const body: string[] = []
  for (const shape of page.shapes) {
    const { x, y, width } = shape
    if (shape.kind === 'overset') { body.push(`<rect x="${short(x)}" y="${short(y)}" width="${short(width)}" height="3" fill="#B4361E"/>`); continue }
    const fill = shape.kind === 'box' ? shape.fill || 'none' : '#E4E0D6'
    const stroke = shape.kind === 'box' && shape.stroke ? ` stroke="${attribute(shape.stroke)}" stroke-width="${short(shape.strokeWidth)}"` : ''
    body.push(`<rect x="${short(x)}" y="${short(y)}" width="${short(width)}" height="${short(shape.height)}" fill="${attribute(fill)}"${stroke}/>`)
  }
  for (const run of page.runs) {
    const pieces: string[] = []
    run.glyphs.forEach((glyph, index) => {
      const key = `${fontKey(run)}/${glyph}`
      let symbol = symbols.get(key)
      if (symbol === undefined) {
        const outline = shaper.outline(run.face, glyph, run.axes)
        symbol = outline === '' ? '' : `g${symbols.size}`
        symbols.set(key, symbol)
        if (symbol) definitions.push(`<path id="${symbol}" d="${outline}"/>`)
      }
      const unit = run.size / 1000
      if (symbol) pieces.push(`<use href="#${symbol}" transform="matrix(${short(unit * run.scale * 1000)}e-3 0 0 ${short(-unit * 1000)}e-3 ${short(run.x + run.xs[index]!)} ${short(run.y + run.ys[index]!)})"/>`)
    })
    if (pieces.length > 0) body.push(`<g fill="${attribute(run.color)}">${pieces.join('')}</g>`)
  }
  const background = page.background || '#FFFFFF'
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${short(page.width)} ${short(page.height)}"><rect width="100%" height="100%" fill="${attribute(background)}"/><defs>${definitions.join('')}</defs>${body.join('')}</svg>`
}
