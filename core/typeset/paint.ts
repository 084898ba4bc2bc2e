import type { Properties } from '../document/styles'
import type { Cascade } from '../style/cascade'
import { points } from '../document/lengths'
import { percent } from '../style/properties'
import type { XmlElement, XmlPart } from '../xml/tree'
import { mapped, type Matrix } from './matrix'
import { plainPath } from './shape-outlines'

/** What fills an outline. */
export interface Fill {
  readonly color: string
  readonly opacity: number
  readonly image: string
}
/** What draws it. Width in points: 0 is the thinnest line there is. */
export interface Stroke {
  readonly color: string
  readonly width: number
  readonly opacity: number
  readonly dash: readonly number[]
}

const isColor = (value: string | undefined): value is string => /^#[0-9a-f]{6}$/i.test(value ?? '')

/** Definitions that fills and strokes go by: dashes, markers, gradients, images (ODF 1.4 part 3, 16.42 ff.). */
export class Paints {
  private readonly definitions = new Map<string, { part: XmlPart; element: XmlElement }>()

  constructor(
    cascade: Cascade,
    private readonly unlaid: (feature: string, user: string | number) => void,
  ) {
    for (const { part } of cascade.scopes.values()) {
      const styles = part.first(part.rootElement, 'office:styles')
      for (const element of styles ? part.elements(styles) : []) {
        const name = element.attributes['draw:name']
        if (name) this.definitions.set(`${element.name} ${name}`, { part, element })
      }
    }
  }

  /** The fill of a shape (draw:fill, 20.108); `filled` is what holds where nothing is said. */
  fill(properties: Properties, filled: boolean, user: number): Fill | null {
    const kind = properties['draw:fill'] ?? (filled ? 'solid' : 'none')
    const opacity = percent(properties['draw:opacity']) ?? 1
    switch (kind) {
      case 'solid':
        return {
          color: isColor(properties['draw:fill-color']) ? properties['draw:fill-color'] : '#ffffff',
          opacity,
          image: '',
        }
      case 'gradient': {
        const gradient = this.definitions.get(`draw:gradient ${properties['draw:fill-gradient-name'] ?? ''}`)?.element
          .attributes
        this.unlaid('gradients (filled with the colour of their middle)', user)
        return { color: middle(gradient?.['draw:start-color'], gradient?.['draw:end-color']), opacity, image: '' }
      }
      case 'hatch': {
        this.unlaid('hatched fills (only their ground is filled)', user)
        return properties['draw:fill-hatch-solid'] === 'true' && isColor(properties['draw:fill-color'])
          ? { color: properties['draw:fill-color'], opacity, image: '' }
          : null
      }
      case 'bitmap': {
        const image =
          this.definitions.get(`draw:fill-image ${properties['draw:fill-image-name'] ?? ''}`)?.element.attributes[
            'xlink:href'
          ] ?? ''
        if ((properties['style:repeat'] ?? 'repeat') !== 'stretch')
          this.unlaid('pictures that tile a ground (stretched over it)', user)
        return { color: '', opacity, image }
      }
      default:
        return null
    }
  }

  /** The line around a shape (draw:stroke, 20.172); `stroked` is what holds where nothing is said. */
  stroke(properties: Properties, stroked: boolean): Stroke | null {
    const kind = properties['draw:stroke'] ?? (stroked ? 'solid' : 'none')
    if (kind === 'none') return null
    const width = points(properties['svg:stroke-width']) ?? 0
    return {
      color: isColor(properties['svg:stroke-color']) ? properties['svg:stroke-color'] : '#000000',
      width,
      opacity: percent(properties['svg:stroke-opacity']) ?? 1,
      dash: kind === 'dash' ? this.dash(properties['draw:stroke-dash'], width) : [],
    }
  }

  private dash(name: string | undefined, width: number): number[] {
    const attributes = this.definitions.get(`draw:stroke-dash ${name ?? ''}`)?.element.attributes
    const unit = Math.max(width, 0.5)
    const length = (value: string | undefined, fallback: number) =>
      points(value) ?? (percent(value) !== null ? percent(value)! * unit : fallback)
    if (!attributes) return [unit * 3, unit * 2]
    const distance = Math.max(length(attributes['draw:distance'], unit), 0.1)
    const list: number[] = []
    for (const which of ['1', '2']) {
      const dots = Math.min(Number.parseInt(attributes[`draw:dots${which}`] ?? '0', 10) || 0, 8)
      for (let dot = 0; dot < dots; dot++)
        list.push(Math.max(length(attributes[`draw:dots${which}-length`], unit), 0.1), distance)
    }
    return list.length > 0 ? list : [unit * 3, distance]
  }

  /**
   * The marker at an end of a line (draw:marker-start, 20.131): path data in place. `tip` is the line's end and `angle`
   * the way the line goes there; '' for none.
   */
  marker(
    properties: Properties,
    end: 'start' | 'end',
    tip: { readonly x: number; readonly y: number },
    angle: number,
  ): string {
    const found = this.definitions.get(`draw:marker ${properties[`draw:marker-${end}`] ?? ''}`)
    if (!found) return ''
    const { attributes } = found.element
    const [left = 0, top = 0, width = 20, height = 30] = (attributes['svg:viewBox'] ?? '0 0 20 30')
      .trim()
      .split(/[\s,]+/)
      .map(Number)
    const across =
      points(properties[`draw:marker-${end}-width`]) ??
      Math.max((points(properties['svg:stroke-width']) ?? 0) * 3, 5.67)
    const scale = across / (width || 1)
    // The marker's view box has its tip at the top, in the middle.
    const up = angle + Math.PI / 2
    const centred = properties[`draw:marker-${end}-center`] === 'true' ? (height * scale) / 2 : 0
    const turn: Matrix = [Math.cos(up), Math.sin(up), -Math.sin(up), Math.cos(up), tip.x, tip.y]
    const flat = plainPath(attributes['svg:d'] ?? '', scale, scale, -(left + width / 2) * scale, -top * scale - centred)
    return flat.replace(/(-?[\d.]+) (-?[\d.]+)/g, (_whole, x: string, y: string) => {
      const to = mapped(turn, Number(x), Number(y))
      return `${Math.round(to.x * 1000) / 1000} ${Math.round(to.y * 1000) / 1000}`
    })
  }
}

function middle(from: string | undefined, to: string | undefined): string {
  const one = Number.parseInt((isColor(from) ? from : '#ffffff').slice(1), 16)
  const other = Number.parseInt((isColor(to) ? to : '#ffffff').slice(1), 16)
  const mix = (shift: number) =>
    Math.round((((one >> shift) & 255) + ((other >> shift) & 255)) / 2)
      .toString(16)
      .padStart(2, '0')
  return `#${mix(16)}${mix(8)}${mix(0)}`
}
