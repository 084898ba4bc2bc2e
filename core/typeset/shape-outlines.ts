import svgpath from 'svgpath'
import { alongCorners, connectorCorners } from './connectors'
import { points } from '../document/lengths'
import type { XmlElement, XmlPart } from '../xml/tree'
import { readEnhancedShape } from './enhanced-path'
import type { ShapePlace } from './shape-place'

/** A piece of an outline: path data of M, L, C and Z alone, absolute, in points from the box's top left. */
export interface OutlinePiece {
  readonly data: string
  readonly filled: boolean
  readonly stroked: boolean
  readonly open: boolean
}

export interface ShapeOutline {
  readonly pieces: readonly OutlinePiece[]
  /** Where its text goes, from the box's top left; null for all of the box. */
  readonly text: { readonly x: number; readonly y: number; readonly width: number; readonly height: number } | null
}

const pathLimit = 400_000

/** Path data with M, L, C and Z alone, absolute. '' where it cannot be read. */
export function plainPath(data: string, scaleX = 1, scaleY = 1, x = 0, y = 0): string {
  if (data.length > pathLimit) return ''
  const out: string[] = []
  const number = (value: number) => String(Math.round(value * 1000) / 1000)
  try {
    svgpath(data)
      .abs()
      .unshort()
      .unarc()
      .matrix([scaleX, 0, 0, scaleY, x, y])
      .iterate((segment, _index, fromX, fromY) => {
        const s = segment as unknown as [string, ...number[]]
        switch (s[0]) {
          case 'M':
          case 'L':
          case 'C':
            out.push(`${s[0]}${(s.slice(1) as number[]).map(number).join(' ')}`)
            break
          case 'H':
            out.push(`L${number(s[1]!)} ${number(fromY)}`)
            break
          case 'V':
            out.push(`L${number(fromX)} ${number(s[1]!)}`)
            break
          case 'Q': {
            const [, a, b, c, d] = s as unknown as [string, number, number, number, number]
            out.push(
              `C${[
                fromX + ((a - fromX) * 2) / 3,
                fromY + ((b - fromY) * 2) / 3,
                c + ((a - c) * 2) / 3,
                d + ((b - d) * 2) / 3,
                c,
                d,
              ]
                .map(number)
                .join(' ')}`,
            )
            break
          }
          case 'Z':
          case 'z':
            out.push('Z')
            break
        }
      })
  } catch {
    return ''
  }
  return /NaN|Infinity/.test(out.join(' ')) ? '' : out.join(' ')
}

const box = (width: number, height: number) => `M0 0 L${width} 0 L${width} ${height} L0 ${height} Z`
const closed = (data: string): OutlinePiece[] =>
  data === '' ? [] : [{ data, filled: true, stroked: true, open: false }]
const open = (data: string): OutlinePiece[] => (data === '' ? [] : [{ data, filled: false, stroked: true, open: true }])

/** The outline of a shape in its box. */
export function shapeOutline(part: XmlPart, element: XmlElement, place: ShapePlace): ShapeOutline {
  const { attributes, name } = element
  const { width, height } = place
  const whole = (pieces: readonly OutlinePiece[]): ShapeOutline => ({ pieces, text: null })
  switch (name) {
    case 'draw:line':
    case 'draw:measure':
      return whole(open(straight(element)))
    case 'draw:connector':
      return whole(open(connector(part, element)))
    case 'draw:rect':
    case 'draw:caption': {
      const radius = Math.min(
        points(attributes['draw:corner-radius']) ?? points(attributes['svg:rx']) ?? 0,
        width / 2,
        height / 2,
      )
      const pieces = closed(
        radius > 0
          ? plainPath(
              `M${radius} 0H${width - radius}A${radius} ${radius} 0 0 1 ${width} ${radius}V${height - radius}A${radius} ${radius} ` +
                (`0 0 1 ${width - radius} ${height}H${radius}A${radius} ${radius} ` +
                  `0 0 1 0 ${height - radius}V${radius}A${radius} ${radius} `) +
                `0 0 1 ${radius} 0Z`,
            )
          : box(width, height),
      )
      const tip = [points(attributes['draw:caption-point-x']), points(attributes['draw:caption-point-y'])]
      return whole(
        tip[0] != null && tip[1] != null && name === 'draw:caption'
          ? [
              ...open(
                `M${Math.max(0, Math.min(width, tip[0]))} ${Math.max(0, Math.min(height, tip[1]))} L${tip[0]} ${tip[1]}`,
              ),
              ...pieces,
            ]
          : pieces,
      )
    }
    case 'draw:circle':
    case 'draw:ellipse':
      return whole(ellipse(element, width, height))
    case 'draw:regular-polygon':
      return whole(closed(regular(element, width, height)))
    case 'draw:polygon':
    case 'draw:polyline':
    case 'draw:path': {
      const [left = 0, top = 0, boxWidth = 0, boxHeight = 0] = (attributes['svg:viewBox'] ?? '')
        .trim()
        .split(/[\s,]+/)
        .map(Number)
      const scaleX = boxWidth > 0 ? width / boxWidth : 1
      const scaleY = boxHeight > 0 ? height / boxHeight : 1
      const pairs = (attributes['draw:points'] ?? '')
        .trim()
        .split(/[\s,]+/)
        .filter(Boolean)
      const data =
        name === 'draw:path'
          ? (attributes['svg:d'] ?? '')
          : pairs.length >= 4
            ? `M${pairs.slice(0, 2).join(' ')}L${pairs.slice(2).join(' ')}${name === 'draw:polygon' ? 'Z' : ''}`
            : ''
      const plain = plainPath(data, scaleX, scaleY, -left * scaleX, -top * scaleY)
      return whole(plain.includes('Z') ? closed(plain) : open(plain))
    }
    case 'draw:custom-shape': {
      const geometry = part.first(element, 'draw:enhanced-geometry')
      const shape = geometry && readEnhancedShape(part, geometry, place)
      if (!shape) return whole(closed(box(width, height)))
      const scaleX = width / (shape.width || 1)
      const scaleY = height / (shape.height || 1)
      const { text } = shape
      return {
        pieces: shape.pieces.flatMap((piece): OutlinePiece[] => {
          const data = plainPath(piece.data, scaleX, scaleY)
          return data === '' ? [] : [{ data, filled: piece.filled, stroked: piece.stroked, open: !data.includes('Z') }]
        }),
        text: text && {
          x: text.left * scaleX,
          y: text.top * scaleY,
          width: (text.right - text.left) * scaleX,
          height: (text.bottom - text.top) * scaleY,
        },
      }
    }
    default:
      return whole([])
  }
}

function ends(element: XmlElement): { x1: number; y1: number; x2: number; y2: number } {
  const { attributes } = element
  const at = (name: string) => points(attributes[name]) ?? 0
  const left = Math.min(at('svg:x1'), at('svg:x2'))
  const top = Math.min(at('svg:y1'), at('svg:y2'))
  return { x1: at('svg:x1') - left, y1: at('svg:y1') - top, x2: at('svg:x2') - left, y2: at('svg:y2') - top }
}

function straight(element: XmlElement): string {
  const { x1, y1, x2, y2 } = ends(element)
  return `M${x1} ${y1} L${x2} ${y2}`
}

/**
 * A connector goes along the path that the file gives it, in hundredths of a millimetre; without one around what is in its
 * way.
 */
function connector(part: XmlPart, element: XmlElement): string {
  const { attributes } = element
  const { x1, y1 } = ends(element)
  const data = attributes['svg:d']
  if (data) {
    const start = /^\s*[Mm]\s*(-?[\d.]+)[\s,]+(-?[\d.]+)/.exec(data)
    const unit = 72 / 2540
    const plain = start ? plainPath(data, unit, unit, x1 - Number(start[1]) * unit, y1 - Number(start[2]) * unit) : ''
    if (plain !== '') return plain
  }
  return alongCorners(connectorCorners(part, element), attributes['draw:type'] === 'curve')
}

function ellipse(element: XmlElement, width: number, height: number): OutlinePiece[] {
  const { attributes } = element
  const rx = width / 2
  const ry = height / 2
  const kind = attributes['draw:kind'] ?? 'full'
  if (kind === 'full') return closed(plainPath(`M0 ${ry}A${rx} ${ry} 0 1 1 ${width} ${ry}A${rx} ${ry} 0 1 1 0 ${ry}Z`))
  // Angles in degrees, anticlockwise from three o'clock (ODF 1.4 part 3, 19.219).
  const radians = (name: string, fallback: number) =>
    ((Number.parseFloat(attributes[name] ?? '') || fallback) * Math.PI) / 180
  const from = radians('draw:start-angle', 0)
  const to = radians('draw:end-angle', 360)
  const sweep = (((to - from) % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI) || 2 * Math.PI
  const at = (angle: number) => `${rx + rx * Math.cos(angle)} ${ry - ry * Math.sin(angle)}`
  const arc = `M${at(from)}A${rx} ${ry} 0 ${sweep > Math.PI ? 1 : 0} 0 ${at(from + Math.min(sweep, 2 * Math.PI - 1e-4))}`
  if (kind === 'arc') return open(plainPath(arc))
  return closed(plainPath(kind === 'section' ? `${arc}L${rx} ${ry}Z` : `${arc}Z`))
}

function regular(element: XmlElement, width: number, height: number): string {
  const { attributes } = element
  const corners = Math.max(3, Math.min(Number.parseInt(attributes['draw:corners'] ?? '3', 10) || 3, 200))
  const concave = attributes['draw:concave'] === 'true'
  const inner = 1 - (Number.parseFloat(attributes['draw:sharpness'] ?? '0') || 0) / 100
  const list: string[] = []
  const count = concave ? corners * 2 : corners
  for (let index = 0; index < count; index++) {
    const angle = -Math.PI / 2 + (index * 2 * Math.PI) / count
    const reach = concave && index % 2 === 1 ? inner : 1
    list.push(`${(width / 2) * (1 + reach * Math.cos(angle))} ${(height / 2) * (1 + reach * Math.sin(angle))}`)
  }
  return plainPath(`M${list.join('L')}Z`)
}
