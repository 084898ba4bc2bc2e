import { fontKey, type DisplayPage } from './display'
import type { GlyphRun } from './glyph-runs'
import type { Matrix } from './matrix'
import type { Shade } from './shades'
import type { Shaper } from './shaper'

const short = (value: number) => String(Math.round(value * 100) / 100)
const attribute = (value: string) => value.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/"/g, '&quot;')

const clipPath = (id: string, outline: string) =>
  `<clipPath id="${id}"><path d="${outline}" clip-rule="evenodd"/></clipPath>`

/** A gradient of SVG (SVG 1.1, 13.2), in the coordinates of the outline that it fills. */
function gradient(id: string, { kind, matrix, stops }: Shade): string {
  const name = kind === 'linear' ? 'linearGradient' : 'radialGradient'
  const unit = kind === 'linear' ? 'x1="0" y1="0" x2="1" y2="0"' : 'cx="0" cy="0" r="1"'
  const listed = stops.map(({ at, color }) => `<stop offset="${Math.round(at * 1e4) / 1e4}" stop-color="${color}"/>`)
  return (
    `<${name} id="${id}" gradientUnits="userSpaceOnUse" ${unit} gradientTransform="matrix(` +
    `${matrix.map(value => Math.round(value * 1e4) / 1e4).join(' ')})">${listed.join('')}</${name}>`
  )
}

/**
 * A page as an SVG picture of its glyph outlines; pictures are shown as grey boxes. Sizes in points.
 * @param part only what lies in this box is shown, without the page's ground
 */
export function pageSvg(
  page: DisplayPage,
  shaper: Shaper,
  part?: { readonly x: number; readonly y: number; readonly width: number; readonly height: number },
): string {
  const symbols = new Map<string, string>()
  const definitions: string[] = []
  const body: string[] = []
  let made = 0
  /** A definition of its own, by a name that nothing else of the page has. */
  const defined = (write: (id: string) => string) => {
    const id = `d${made++}`
    definitions.push(write(id))
    return id
  }
  const turn = (matrix: Matrix | undefined) =>
    matrix ? ` transform="matrix(${matrix.map(value => Math.round(value * 1e5) / 1e5).join(' ')})"` : ''
  const draw = (shape: DisplayPage['shapes'][number]) => {
    const { x, y, width, matrix } = shape
    if (shape.kind === 'overset') {
      body.push(
        `<rect x="${short(x)}" y="${short(y)}" width="${short(width)}" height="3" fill="#B4361E"${turn(matrix)}/>`,
      )
      return
    }
    const stroke =
      (shape.kind === 'box' || shape.kind === 'path') && shape.stroke
        ? ` stroke="${attribute(shape.stroke)}" stroke-width="${short(Math.max(shape.strokeWidth, 0.1))}"`
        : ''
    if (shape.kind === 'path') {
      const dash = shape.dash.length > 0 ? ` stroke-dasharray="${shape.dash.map(short).join(' ')}"` : ''
      const place = x === 0 && y === 0 ? '' : ` transform="translate(${short(x)} ${short(y)})"`
      const { shade, clip } = shape
      const fill = shade ? `url(#${defined(id => gradient(id, shade))})` : attribute(shape.fill || 'none')
      const within = clip ? ` clip-path="url(#${defined(id => clipPath(id, clip))})"` : ''
      body.push(
        `<g${turn(matrix)}><g${place}${within}><path d="${shape.data}" fill="${fill}" ` +
          `fill-rule="evenodd" fill-opacity="${short(shape.fillOpacity)}"${stroke}${dash} ` +
          `stroke-opacity="${short(shape.strokeOpacity)}"/></g></g>`,
      )
      return
    }
    const fill = shape.kind === 'box' ? shape.fill || 'none' : '#E4E0D6'
    body.push(
      `<rect x="${short(x)}" y="${short(y)}" width="${short(width)}" height="${short(shape.height)}" ` +
        `fill="${attribute(fill)}"${stroke}${turn(matrix)}/>`,
    )
  }
  const write = (run: GlyphRun) => {
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
      if (symbol)
        pieces.push(
          `<use href="#${symbol}" transform="matrix(${short(unit * run.scale * 1000)}e-3 ` +
            `0 0 ${short(-unit * 1000)}e-3 ${short(run.x + run.xs[index]!)} ${short(run.y + run.ys[index]!)})"/>`,
        )
    })
    if (pieces.length > 0) body.push(`<g fill="${attribute(run.color)}"${turn(run.matrix)}>${pieces.join('')}</g>`)
  }
  for (const layer of page.layers) {
    if (layer.of === 'shapes') page.shapes.slice(layer.from, layer.to).forEach(draw)
    else page.runs.slice(layer.from, layer.to).forEach(write)
  }
  const { x, y, width, height } = part ?? { x: 0, y: 0, width: page.width, height: page.height }
  const ground = part ? '' : `<rect width="100%" height="100%" fill="${attribute(page.background || '#FFFFFF')}"/>`
  return (
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${[x, y, width, height].map(short).join(' ')}">` +
    `${ground}<defs>${definitions.join('')}</defs>${body.join('')}</svg>`
  )
}
