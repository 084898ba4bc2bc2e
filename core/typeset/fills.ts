import type { XmlElement } from '../xml/tree'
import type { Fragment, Tile } from './fragments'
import { mapped, rotation } from './matrix'
import { angleOf, middleOf, shadeOver, type Gradient } from './shades'

type PathFragment = Extract<Fragment, { kind: 'path' }>
type ImageFragment = Extract<Fragment, { kind: 'image' }>

/** Parallel lines, once or in two or three directions (draw:hatch). */
export interface Hatch {
  readonly color: string
  /** Between lines, in points. */
  readonly distance: number
  /** Of the lines, in radians, anticlockwise. */
  readonly angles: readonly number[]
}

/** What fills an outline: a plain colour, or a picture, or what lies over or in place of the colour. */
export interface Fill {
  readonly color: string
  readonly opacity: number
  readonly image: string
  readonly gradient: Gradient | null
  readonly hatch: Hatch | null
  readonly tile: ((width: number, height: number) => Tile | null) | null
}

/** What draws it. Width in points: 0 is the thinnest line there is. */
export interface Stroke {
  readonly color: string
  readonly width: number
  readonly opacity: number
  readonly dash: readonly number[]
}

export const plainFill = (color: string, opacity = 1): Fill => ({
  color,
  opacity,
  image: '',
  gradient: null,
  hatch: null,
  tile: null,
})

const mostTiles = 4000
/** What is thinner, in points, is a rounding and no tile. */
const hair = 0.01
const mostLines = 2000

interface Box {
  readonly width: number
  readonly height: number
}

function path(data: string, box: Box, fill: string, opacity: number, stroke: Stroke | null): PathFragment {
  return {
    kind: 'path',
    data,
    fill,
    fillOpacity: opacity,
    stroke: stroke?.color ?? '',
    strokeWidth: stroke?.width ?? 0,
    strokeOpacity: stroke?.opacity ?? 1,
    dash: stroke?.dash ?? [],
    x: 0,
    y: 0,
    width: box.width,
    height: box.height,
  }
}

/** An outline, filled and drawn around: in the coordinates of a box of this size, lowest first. */
export function painted(data: string, box: Box, fill: Fill | null, stroke: Stroke | null, name: string): Fragment[] {
  if (!fill) return stroke ? [path(data, box, '', 1, stroke)] : []
  if (fill.image) {
    const tile = fill.tile?.(box.width, box.height)
    const picture: ImageFragment = {
      kind: 'image',
      href: fill.image,
      name,
      opacity: fill.opacity,
      x: 0,
      y: 0,
      width: box.width,
      height: box.height,
      clip: data,
      ...(tile ? { tile } : {}),
    }
    return stroke ? [picture, path(data, box, '', 1, stroke)] : [picture]
  }
  if (fill.gradient && box.width > 0 && box.height > 0) {
    const over = shadeOver(fill.gradient, box.width, box.height)
    const around = stroke ? [path(data, box, '', 1, stroke)] : []
    if (over.shade)
      return [{ ...path(data, box, middleOf(fill.gradient), fill.opacity, null), shade: over.shade }, ...around]
    const nested = over.bands.map(band => ({ ...path(band.data, box, band.color, fill.opacity, null), clip: data }))
    return [path(data, box, over.ground, fill.opacity, null), ...nested, ...around]
  }
  const own = fill.color || stroke ? [path(data, box, fill.color, fill.opacity, fill.hatch ? null : stroke)] : []
  if (!fill.hatch) return own
  const lines = hatchLines(fill.hatch, box)
  return [
    ...(fill.color ? own : []),
    {
      ...path(lines, box, '', 1, { color: fill.hatch.color, width: 0, opacity: fill.opacity, dash: [] }),
      clip: data,
    },
    ...(stroke ? [path(data, box, '', 1, stroke)] : []),
  ]
}

/** Path data of the lines of a hatch over a box. Lines that would be too many stand further apart. */
function hatchLines(hatch: Hatch, { width, height }: Box): string {
  const reach = Math.hypot(width, height) / 2
  const distance = Math.max(hatch.distance, (reach * 2) / mostLines, 0.2)
  const number = (value: number) => String(Math.round(value * 1000) / 1000)
  const out: string[] = []
  for (const angle of hatch.angles) {
    const turn = rotation(angle)
    const count = Math.floor(reach / distance)
    for (let line = -count; line <= count; line++) {
      const from = mapped(turn, -reach, line * distance)
      const to = mapped(turn, reach, line * distance)
      out.push(
        `M${number(width / 2 + from.x)} ${number(height / 2 + from.y)} L${number(width / 2 + to.x)} ${number(height / 2 + to.y)}`,
      )
    }
  }
  return out.join(' ')
}

/** Reads a hatch. */
export function readHatch(attributes: XmlElement['attributes'], distance: number): Hatch {
  const first = angleOf(attributes['draw:rotation'])
  const kind = attributes['draw:style'] ?? 'single'
  const color = attributes['draw:color'] ?? ''
  return {
    color: /^#[0-9a-f]{6}$/i.test(color) ? color : '#000000',
    distance,
    angles: [
      first,
      ...(kind === 'single' ? [] : [first + Math.PI / 2]),
      ...(kind === 'triple' ? [first + Math.PI / 4] : []),
    ],
  }
}

/** Where a picture is drawn, from its own x and y: once over its box, or as often as its tiles cover it. */
export function tilePlaces(
  image: ImageFragment,
): readonly { readonly x: number; readonly y: number; readonly width: number; readonly height: number }[] {
  const { tile } = image
  if (!tile) return [{ x: 0, y: 0, width: image.width, height: image.height }]
  const { width, height } = tile
  if (!tile.repeats) return [{ x: tile.x, y: tile.y, width, height }]
  // Beginning before the box: shifted ones come in from there, too.
  const columns = Math.ceil(image.width / width) + 3
  const rows = Math.ceil(image.height / height) + 3
  const left = (((tile.x % width) + width) % width) - width * 2
  const top = (((tile.y % height) + height) % height) - height * 2
  const places = []
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) {
      const x = left + (column + (tile.offsetOf === 'rows' && row % 2 === 1 ? tile.offset : 0)) * width
      const y = top + (row + (tile.offsetOf === 'columns' && column % 2 === 1 ? tile.offset : 0)) * height
      if (x < image.width - hair && y < image.height - hair && x + width > hair && y + height > hair)
        places.push({ x, y, width, height })
    }
  return places
}

/** Whether so many tiles would be drawn that nobody could: they are stretched then. */
export const tooManyTiles = (tile: Box, box: Box): boolean =>
  tile.width <= 0 || tile.height <= 0 || (box.width / tile.width + 2) * (box.height / tile.height + 2) > mostTiles

/**
 * Whether places lie inside an outline of M, L, C and Z, in its own coordinates, by the even-odd rule; curves go by their
 * control points. The path data is read when the first place is asked for.
 */
export function outlineOf(data: string): (x: number, y: number) => boolean {
  let pieces: readonly (readonly number[])[] | null = null
  return (x, y) => {
    pieces ??= data
      .split('M')
      .slice(1)
      .map(piece => (piece.match(/-?[\d.]+(?:e-?\d+)?/g) ?? []).map(Number))
    let inside = false
    for (const values of pieces)
      for (let index = 0, last = values.length - 2; index + 1 < values.length; last = index, index += 2) {
        const [ax, ay, bx, by] = [values[index]!, values[index + 1]!, values[last]!, values[last + 1]!]
        if (ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax) inside = !inside
      }
    return inside
  }
}
