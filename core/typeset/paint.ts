import type { Properties } from '../document/styles'
import type { Cascade } from '../style/cascade'
import { points } from '../document/lengths'
import { percent } from '../style/properties'
import type { XmlElement, XmlPart } from '../xml/tree'
import { plainFill, readHatch, tooManyTiles, type Fill, type Stroke } from './fills'
import type { Tile } from './fragments'
import { mapped, type Matrix } from './matrix'
import type { PictureSize } from './pictures'
import { readGradient } from './shades'
import { plainPath } from './shape-outlines'

const gradients = ['draw:gradient', 'svg:linearGradient', 'svg:radialGradient']
const isColor = (value: string | undefined): value is string => /^#[0-9a-f]{6}$/i.test(value ?? '')

/** Definitions that fills and strokes go by: dashes, markers, gradients, images (ODF 1.4 part 3, 16.42 ff.). */
export class Paints {
  private readonly definitions = new Map<string, { part: XmlPart; element: XmlElement }>()

  constructor(
    cascade: Cascade,
    private readonly unlaid: (feature: string, user: string | number) => void,
    private readonly pictureSize: PictureSize,
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
    const stated = properties['draw:fill-color']
    if (properties['draw:opacity-name'] && kind !== 'none')
      this.unlaid('fills that become transparent by and by (evenly opaque)', user)
    switch (kind) {
      case 'solid':
        return plainFill(isColor(stated) ? stated : '#ffffff', opacity)
      case 'gradient': {
        const name = properties['draw:fill-gradient-name'] ?? ''
        const found = gradients.map(each => this.definitions.get(`${each} ${name}`)).find(each => each !== undefined)
        const gradient = found ? readGradient(found.part, found.element) : null
        if (!gradient) this.unlaid('gradients that the file does not define (not filled)', user)
        return gradient && { ...plainFill('', opacity), gradient }
      }
      case 'hatch': {
        const attributes = this.definitions.get(`draw:hatch ${properties['draw:fill-hatch-name'] ?? ''}`)?.element
          .attributes
        const ground = properties['draw:fill-hatch-solid'] === 'true' && isColor(stated) ? stated : ''
        if (!attributes) return ground ? plainFill(ground, opacity) : null
        return {
          ...plainFill(ground, opacity),
          hatch: readHatch(attributes, points(attributes['draw:distance']) ?? 5),
        }
      }
      case 'bitmap': {
        const image =
          this.definitions.get(`draw:fill-image ${properties['draw:fill-image-name'] ?? ''}`)?.element.attributes[
            'xlink:href'
          ] ?? ''
        const repeat = properties['style:repeat'] ?? 'repeat'
        const tile =
          repeat === 'stretch'
            ? null
            : (width: number, height: number) => this.tile(properties, image, repeat === 'repeat', width, height, user)
        return { ...plainFill('', opacity), image, tile }
      }
      default:
        return null
    }
  }

  /** The first tile of a picture that covers a box (style:repeat, draw:fill-image-width, draw:fill-image-ref-point …). */
  private tile(
    properties: Properties,
    image: string,
    repeats: boolean,
    width: number,
    height: number,
    user: number,
  ): Tile | null {
    const own = this.pictureSize(image)
    const side = (name: string, of: number, natural: number | undefined) => {
      const share = percent(properties[name])
      const length = share === null ? points(properties[name]) : share * of
      return length !== null && length > 0 ? length : natural
    }
    const across = side('draw:fill-image-width', width, own?.width)
    const down = side('draw:fill-image-height', height, own?.height)
    if (
      across === undefined ||
      down === undefined ||
      tooManyTiles({ width: across, height: down }, { width, height })
    ) {
      this.unlaid('pictures that tile a ground (stretched over it)', user)
      return null
    }
    const point = properties['draw:fill-image-ref-point'] ?? 'center'
    const share = (before: string, behind: string) => (point.includes(before) ? 0 : point.includes(behind) ? 1 : 0.5)
    const shifted = /^\s*([\d.]+)%\s+(horizontal|vertical)/.exec(properties['draw:tile-repeat-offset'] ?? '')
    return {
      x: (width - across) * share('left', 'right') + (percent(properties['draw:fill-image-ref-point-x']) ?? 0) * across,
      y: (height - down) * share('top', 'bottom') + (percent(properties['draw:fill-image-ref-point-y']) ?? 0) * down,
      width: across,
      height: down,
      repeats,
      offset: Number(shifted?.[1] ?? 0) / 100,
      offsetOf: shifted?.[2] === 'vertical' ? 'columns' : 'rows',
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

/** The paints of what is composed with some workshop. */
export const paintsOf = (workshop: {
  readonly cascade: Cascade
  readonly unlaid: (feature: string, user: string | number) => void
  readonly pictureSize: PictureSize
}): Paints => new Paints(workshop.cascade, workshop.unlaid, workshop.pictureSize)
