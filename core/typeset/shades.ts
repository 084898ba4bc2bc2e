import { percent } from '../style/properties'
import type { XmlElement, XmlPart } from '../xml/tree'
import { after, inverted, mapped, rotation, scaling, translation, type Matrix } from './matrix'

/** A colour on the way through a gradient: `at` from 0 to 1. */
export interface Stop {
  readonly at: number
  readonly color: string
}

/**
 * Colours that run into one another: `linear` along the x of a unit axis, `radial` from the centre of a unit circle to
 * its rim. `matrix` maps either to the shape's own coordinates. Beyond their ends the last colours go on.
 */
export interface Shade {
  readonly kind: 'linear' | 'radial'
  readonly matrix: Matrix
  readonly stops: readonly Stop[]
}

/** Nested outlines in plain colours, the outermost first: what a gradient of squares comes to. */
export interface Band {
  readonly data: string
  readonly color: string
}

/** A gradient as a file defines it. */
export type Gradient =
  | { readonly kind: 'draw'; readonly attributes: XmlElement['attributes'] }
  | { readonly kind: 'svg'; readonly element: XmlElement; readonly stops: readonly Stop[] }

/** More bands than this are not told apart. */
const mostBands = 64
const isColor = (value: string | undefined): value is string => /^#[0-9a-f]{6}$/i.test(value ?? '')
const channels = (color: string) => [1, 3, 5].map(at => Number.parseInt(color.slice(at, at + 2), 16))
const colorOf = (values: readonly number[]) =>
  `#${values
    .map(value =>
      Math.max(0, Math.min(255, Math.round(value)))
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`

/** A colour between two: `share` 0 for the first, 1 for the second. */
export function mixed(from: string, to: string, share: number): string {
  const other = channels(to)
  return colorOf(channels(from).map((value, at) => value + (other[at]! - value) * share))
}

/** The colour of a shade at a place of the shape's own coordinates: beyond its ends the last colours go on. */
export function shadeAt({ kind, matrix, stops }: Shade, x: number, y: number): string {
  const back = inverted(matrix)
  const place = back ? mapped(back, x, y) : { x: 0, y: 0 }
  const at = kind === 'linear' ? place.x : Math.hypot(place.x, place.y)
  const next = stops.findIndex(stop => stop.at >= at)
  if (next === -1) return stops.at(-1)!.color
  const [before, after] = [stops[next - 1], stops[next]!]
  return before ? mixed(before.color, after.color, (at - before.at) / (after.at - before.at || 1)) : after.color
}

/**
 * An angle in radians. The standard means degrees where no unit is said (its type “angle”); files that say none hold
 * tenths of a degree, as ODF 1.1 had it and its readers went on.
 */
export function angleOf(value: string | undefined): number {
  const [, number, unit] = /^\s*(-?[\d.]+)\s*(deg|grad|rad)?\s*$/.exec(value ?? '') ?? []
  const amount = Number(number ?? 0) || 0
  if (unit === 'rad') return amount
  return (amount * Math.PI) / (unit === 'deg' ? 180 : unit === 'grad' ? 200 : 1800)
}

/** Reads a gradient (draw:gradient, svg:linearGradient, svg:radialGradient); null where it has nothing to show. */
export function readGradient(part: XmlPart, element: XmlElement): Gradient | null {
  if (element.name === 'draw:gradient') return { kind: 'draw', attributes: element.attributes }
  const stops: Stop[] = []
  for (const { attributes } of part.elements(element, 'svg:stop')) {
    const offset = attributes['svg:offset'] ?? '0'
    const at = percent(offset) ?? (Number(offset) || 0)
    if (isColor(attributes['svg:stop-color']))
      stops.push({ at: Math.max(stops.at(-1)?.at ?? 0, Math.min(at, 1)), color: attributes['svg:stop-color'] })
  }
  return stops.length > 0 ? { kind: 'svg', element, stops } : null
}

/** The two colours of a gradient of the drawing namespace, with their intensities (draw:start-intensity, draw:end-intensity). */
function coloursOf(attributes: XmlElement['attributes']): { readonly start: string; readonly end: string } {
  const one = (which: 'start' | 'end') => {
    const stated = attributes[`draw:${which}-color`]
    const intensity = percent(attributes[`draw:${which}-intensity`]) ?? 1
    return colorOf(channels(isColor(stated) ? stated : '#ffffff').map(value => value * intensity))
  }
  return { start: one('start'), end: one('end') }
}

/** What stands for a gradient where one colour must: its middle. */
export function middleOf(gradient: Gradient): string {
  if (gradient.kind === 'svg') return mixed(gradient.stops[0]!.color, gradient.stops.at(-1)!.color, 0.5)
  const { start, end } = coloursOf(gradient.attributes)
  return mixed(start, end, 0.5)
}

/** A gradient over a box of some size in points: what runs smoothly, or nested bands on a ground of one colour. */
export type ShadedBox =
  { readonly shade: Shade } | { readonly shade: null; readonly ground: string; readonly bands: readonly Band[] }

/** What a gradient comes to over a box. */
export function shadeOver(gradient: Gradient, width: number, height: number): ShadedBox {
  if (gradient.kind === 'svg') return { shade: svgShade(gradient, width, height) }
  const { attributes } = gradient
  const { start, end } = coloursOf(attributes)
  const border = Math.min(Math.max(percent(attributes['draw:border']) ?? 0, 0), 1)
  const angle = angleOf(attributes['draw:angle'])
  const [sin, cos] = [Math.sin(angle), Math.cos(angle)]
  const across = Math.abs(width * cos) + Math.abs(height * sin)
  const along = Math.abs(width * sin) + Math.abs(height * cos)
  const centre = translation(
    (percent(attributes['draw:cx']) ?? 0.5) * width,
    (percent(attributes['draw:cy']) ?? 0.5) * height,
  )
  const turned = after(centre, rotation(angle))
  const inward = [
    { at: 0, color: end },
    { at: 1 - border, color: start },
    { at: 1, color: start },
  ]
  const radial = (matrix: Matrix) => ({ shade: { kind: 'radial' as const, matrix, stops: inward } })
  switch (attributes['draw:style'] ?? 'linear') {
    case 'radial': {
      const radius = Math.hypot(width, height) / 2
      return radial(after(centre, scaling(radius, radius)))
    }
    case 'ellipsoid':
      return radial(after(turned, scaling(width * Math.SQRT1_2, height * Math.SQRT1_2)))
    case 'square': {
      const half = Math.max(across, along) / 2
      return { shade: null, ground: start, bands: bands(turned, half, half, border, start, end) }
    }
    case 'rectangular':
      return { shade: null, ground: start, bands: bands(turned, across / 2, along / 2, border, start, end) }
    default: {
      // Down at no angle, turned anticlockwise.
      const [dx, dy] = [sin * along, cos * along]
      const matrix: Matrix = [dx, dy, -dy, dx, width / 2 - dx / 2, height / 2 - dy / 2]
      const stops =
        attributes['draw:style'] === 'axial'
          ? [
              { at: 0, color: start },
              { at: border / 2, color: start },
              { at: 0.5, color: end },
              { at: 1 - border / 2, color: start },
              { at: 1, color: start },
            ]
          : [
              { at: 0, color: start },
              { at: border, color: start },
              { at: 1, color: end },
            ]
      return { shade: { kind: 'linear', matrix, stops } }
    }
  }
}

/** Gradients of SVG go by the box of what they fill (SVG 1.1, 13.2), unless they say otherwise. */
function svgShade(gradient: Extract<Gradient, { kind: 'svg' }>, width: number, height: number): Shade {
  const { attributes, name } = gradient.element
  const share = (attribute: string, fallback: number) =>
    percent(attributes[attribute]) ?? (Number(attributes[attribute] ?? fallback) || 0)
  const box = scaling(width, height)
  if (name === 'svg:radialGradient') {
    const radius = share('svg:r', 0.5)
    const place = translation(share('svg:cx', 0.5), share('svg:cy', 0.5))
    return { kind: 'radial', matrix: after(box, after(place, scaling(radius, radius))), stops: gradient.stops }
  }
  const from = mapped(box, share('svg:x1', 0), share('svg:y1', 0))
  const to = mapped(box, share('svg:x2', 1), share('svg:y2', 0))
  const [dx, dy] = [to.x - from.x, to.y - from.y]
  return { kind: 'linear', matrix: [dx, dy, -dy, dx, from.x, from.y], stops: gradient.stops }
}

function bands(
  place: Matrix,
  halfWidth: number,
  halfHeight: number,
  border: number,
  start: string,
  end: string,
): Band[] {
  const other = channels(end)
  const apart = Math.max(...channels(start).map((value, at) => Math.abs(value - other[at]!)))
  const count = Math.max(1, Math.min(apart, mostBands))
  return Array.from({ length: count }, (_, index) => {
    const size = (1 - border) * (1 - (index + 1) / (count + 1))
    const corners = [
      [-1, -1],
      [1, -1],
      [1, 1],
      [-1, 1],
    ].map(([x, y]) => mapped(place, x! * halfWidth * size, y! * halfHeight * size))
    const number = (value: number) => String(Math.round(value * 1000) / 1000)
    return {
      data: `M${corners.map(({ x, y }) => `${number(x)} ${number(y)}`).join(' L')} Z`,
      color: mixed(start, end, (index + 1) / count),
    }
  })
}
