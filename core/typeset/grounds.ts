import { contrast } from '../colour/contrast'
import { outlineOf, tilePlaces } from './fills'
import type { Fragment } from './fragments'
import { inverted, mapped } from './matrix'
import type { Raster } from './raster'
import { mixed, shadeAt } from './shades'

interface Place {
  readonly x: number
  readonly y: number
}

/** What is seen at a place: “#rrggbb” and how much of it covers what lies below, 0 to 1. */
interface Seen {
  readonly color: string
  readonly opacity: number
}

/** What makes the colour of a ground: one colour, colours that run into one another, a picture. */
export type GroundKind = 'plain' | 'gradient' | 'picture'

/** What a place lies on. */
export interface GroundAt {
  readonly kind: GroundKind
  /** “#rrggbb”, with what shows through; null for a picture that cannot be looked into. */
  readonly color: string | null
}

/** The pixels of a picture by the reference that a file has of it; null where it cannot be looked into. */
export type Rasters = (href: string) => Raster | null

interface Ground {
  /** How many things lie below it. */
  readonly index: number
  readonly kind: GroundKind
  /** The one colour that it has, where it hides what lies below; null for all else. */
  readonly color: string | null
  readonly covers: (place: Place) => boolean
  /** What is seen there of what it covers; null where nobody knows. */
  readonly at: (place: Place, rasters: Rasters) => Seen | null
}

/**
 * Whether a colour is dark. The standard leaves that open (style:use-window-font-color, ODF 1.4 part 3, 20.395): here it is
 * what black has a contrast below 3:1 with, the least that large text may have (WCAG 2.2, 1.4.3).
 */
export const isDark = (color: string): boolean => color !== '' && contrast('#000000', color) < 3

/** What is thinner, in points, is a line: no text stands on it. */
const thinnest = 2
/** What hides less than this of what lies below is nothing that text stands on by itself. */
const hiding = 0.5
/** What covers less than this is not seen. */
const faintest = 0.02

type Filled = Extract<Fragment, { kind: 'box' | 'path' | 'image' }>

/** How much a thing on a page covers of what lies below it, 0 to 1. */
function opacityOf(shape: Fragment): number {
  if (shape.kind === 'box') return shape.fill !== '' && Math.min(shape.width, shape.height) >= thinnest ? 1 : 0
  if (shape.kind === 'path') return shape.fill === '' ? 0 : shape.fillOpacity
  return shape.kind === 'image' ? shape.opacity : 0
}

/** Whether a thing on a page makes a ground for what lies over it. */
export const makesGround = (shape: Fragment): boolean => opacityOf(shape) > hiding

/** What a picture shows at a place from its top left, by where its tiles lie; nothing of it beside them. */
function pictureAt(shape: Extract<Filled, { kind: 'image' }>, { x, y }: Place, rasters: Rasters): Seen | null {
  const raster = rasters(shape.href)
  if (!raster) return null
  const tile = tilePlaces(shape).find(
    each => x >= each.x && x <= each.x + each.width && y >= each.y && y <= each.y + each.height,
  )
  if (!tile) return { color: '#000000', opacity: 0 }
  const step = (share: number, of: number) => Math.max(0, Math.min(of - 1, Math.floor(share * of)))
  const row = step((y - tile.y) / tile.height, raster.height)
  const from = (row * raster.width + step((x - tile.x) / tile.width, raster.width)) * 4
  const [red, green, blue, opacity] = raster.data.subarray(from, from + 4)
  const color = `#${[red, green, blue].map(value => value!.toString(16).padStart(2, '0')).join('')}`
  return { color, opacity: (opacity! / 255) * shape.opacity }
}

function seenAt(shape: Filled, place: Place, rasters: Rasters): Seen | null {
  if (shape.kind === 'box') return { color: shape.fill, opacity: 1 }
  if (shape.kind === 'image') return pictureAt(shape, place, rasters)
  return { color: shape.shade ? shadeAt(shape.shade, place.x, place.y) : shape.fill, opacity: shape.fillOpacity }
}

const kindOf = (shape: Filled): GroundKind =>
  shape.kind === 'image' ? 'picture' : shape.kind === 'path' && shape.shade ? 'gradient' : 'plain'

/** The ground that a thing on a page makes; none where nothing of it is seen. */
function groundOf(shape: Fragment, index: number): Ground[] {
  const opacity = opacityOf(shape)
  if (opacity <= faintest || (shape.kind !== 'box' && shape.kind !== 'path' && shape.kind !== 'image')) return []
  const back = shape.matrix ? inverted(shape.matrix) : null
  if (shape.matrix && !back) return []
  // From where the page has it to where it is drawn from its own x and y.
  const own = ({ x, y }: Place): Place => {
    const at = back ? mapped(back, x, y) : { x, y }
    return { x: at.x - shape.x, y: at.y - shape.y }
  }
  const outlines = [
    ...(shape.kind === 'path' ? [outlineOf(shape.data)] : []),
    ...(shape.kind !== 'box' && shape.clip ? [outlineOf(shape.clip)] : []),
  ]
  const inBox = ({ x, y }: Place) => x >= 0 && x <= shape.width && y >= 0 && y <= shape.height
  const kind = kindOf(shape)
  return [
    {
      index,
      kind,
      color: kind === 'plain' && shape.kind !== 'image' && opacity > hiding ? shape.fill : null,
      covers: place => {
        const at = own(place)
        return (shape.kind === 'path' || inBox(at)) && outlines.every(isInside => isInside(at.x, at.y))
      },
      at: (place, rasters) => seenAt(shape, own(place), rasters),
    },
  ]
}

/** What lies under the text of a page, as far as it fills: boxes, outlines and pictures, and the page itself. */
export class Grounds {
  /** From the topmost down. */
  private readonly list: readonly Ground[]
  private readonly anyDark: boolean

  /**
   * @param shapes in the order in which they are drawn
   * @param page the colour of the page; '' for the paper's
   */
  constructor(
    shapes: readonly Fragment[],
    private readonly page: string,
  ) {
    this.list = shapes.flatMap(groundOf).reverse()
    this.anyDark = isDark(page) || this.list.some(each => each.color !== null && isDark(each.color))
  }

  /** What a place lies on, among the first things of the page, as many as are said, with what shows through them. */
  at(place: Place, rasters: Rasters, below = Infinity): GroundAt {
    const seen: Seen[] = []
    let kind: GroundKind = 'plain'
    for (const ground of this.list) {
      if (ground.index >= below || !ground.covers(place)) continue
      const found = ground.at(place, rasters)
      if (!found) return { kind: ground.kind, color: null }
      if (found.opacity <= faintest) continue
      if (ground.kind === 'picture' || kind === 'plain') kind = ground.kind
      seen.push(found)
      if (found.opacity >= 1 - faintest) break
    }
    const ground = this.page || '#ffffff'
    return { kind, color: seen.reduceRight((color, over) => mixed(color, over.color, over.opacity), ground) }
  }

  /** Whether a place lies on something dark. Nearly no page has dark things: nothing need be looked for then. */
  isDark(place: Place, below = Infinity): boolean {
    if (!this.anyDark) return false
    const plain = this.list.find(each => each.color !== null && each.index < below && each.covers(place))
    return isDark(plain ? plain.color! : this.page)
  }
}
