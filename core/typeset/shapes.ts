import type { Frame, Story } from '../document/story-model'
import type { Properties } from '../document/styles'
import { points } from '../document/lengths'
import { percent } from '../style/properties'
import type { BoxSetter } from './box-setter'
import { painted, plainFill, type Stroke } from './fills'
import { drawnFor, frameMark, linesHeight, shifted, turned, type Fragment, type OversetFrame } from './fragments'
import { borderWidths, edges } from './geometry'
import { after, boundsOf, scaling, translation } from './matrix'
import { paintsOf, type Paints } from './paint'
import { shapeOutline, type OutlinePiece } from './shape-outlines'
import { shapePlace, type ShapePlace } from './shape-place'

interface Area {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
}

/** A shape as it lies on its page or in its group: fragments in the coordinates of what holds it. */
export interface PlacedShape {
  readonly fragments: readonly Fragment[]
  readonly bounds: Area
}

/** Text is never shown smaller than this share of its size. */
const smallest = 0.25
/** A line that may be as long as it likes. */
const endless = 20_000

/** Composes drawing shapes: their outlines, and the text in them. */
export class ShapeComposer {
  private paints: Paints | null = null

  constructor(private readonly boxes: BoxSetter) {}

  private get paint(): Paints {
    return (this.paints ??= paintsOf(this.boxes.workshop))
  }

  /** A shape where the file puts it. */
  place(frame: Frame, role: Story['role']): PlacedShape {
    const { part } = this.boxes.workshop.cascade.scope(frame.part)
    const element = part.element(frame.node)
    if (frame.shape === 'draw:g' || frame.shape === 'draw:a') return this.group(frame, role)
    const properties = this.boxes.styles.shapeProperties(frame)
    const isFrame = frame.shape === 'draw:frame'
    const minimum = {
      width: points(properties['svg:width']) ?? points(properties['fo:min-width']) ?? 0,
      height: points(properties['svg:height']) ?? points(properties['fo:min-height']) ?? 0,
    }
    let place = shapePlace(element, minimum)
    if (frame.shape === 'dr3d:scene') this.boxes.workshop.unlaid('three-dimensional scenes (not drawn)', frame.node)
    if (frame.shape === 'draw:control') this.boxes.workshop.unlaid('form controls (not drawn)', frame.node)
    if (frame.content === 'object') return this.wrap(frame, place, this.boxes.object(frame, place.width, place.height))
    if (frame.content === 'image') {
      const opacity = percent(properties['draw:image-opacity']) ?? percent(properties['draw:opacity']) ?? 1
      return this.wrap(frame, place, [
        ...this.surface(part, element, place, properties, isFrame, frame),
        {
          kind: 'image',
          href: frame.href ?? '',
          name: frame.name,
          opacity,
          x: 0,
          y: 0,
          width: place.width,
          height: place.height,
        },
      ])
    }
    // A frame without words of its own may show those of another one.
    const set =
      frame.blocks.length > 0 || (isFrame && frame.content === 'text')
        ? this.text(
            frame,
            role,
            place,
            shapeOutline(part, element, place).text ?? { x: 0, y: 0, width: place.width, height: place.height },
            properties,
          )
        : null
    if (set && (set.width !== place.width || set.height !== place.height)) {
      const matrix = after(place.matrix, translation(set.x, set.y))
      place = {
        ...place,
        width: set.width,
        height: set.height,
        matrix,
        bounds: boundsOf(matrix, { x: 0, y: 0, width: set.width, height: set.height }),
      }
    }
    return this.wrap(frame, place, [
      ...this.surface(part, element, place, properties, isFrame, frame),
      ...(set?.fragments ?? []),
    ])
  }

  private wrap(frame: Frame, place: ShapePlace, fragments: readonly Fragment[]): PlacedShape {
    return {
      fragments: turned([frameMark(frame, place.width, place.height), ...drawnFor(frame, fragments)], place.matrix),
      bounds: place.bounds,
    }
  }

  private group(frame: Frame, role: Story['role']): PlacedShape {
    const placed = frame.blocks.flatMap(block => (block.kind === 'frame' ? [this.place(block, role)] : []))
    return { fragments: placed.flatMap(each => each.fragments), bounds: union(placed.map(each => each.bounds)) }
  }

  /** Fill, line and markers. */
  private surface(
    part: Parameters<typeof shapeOutline>[0],
    element: Parameters<typeof shapeOutline>[1],
    place: ShapePlace,
    properties: Properties,
    isFrame: boolean,
    frame: Frame,
  ): Fragment[] {
    const { width, height } = place
    const fill = this.paint.fill(properties, !isFrame, frame.node)
    const stroke = this.paint.stroke(properties, !isFrame)
    const border = isFrame ? borderWidths(properties) : null
    if (!fill && !stroke && (!border || border.top === 0)) return []
    const pieces: readonly OutlinePiece[] = isFrame
      ? [{ data: `M0 0 L${width} 0 L${width} ${height} L0 ${height} Z`, filled: true, stroked: true, open: false }]
      : shapeOutline(part, element, place).pieces
    const fragments: Fragment[] = []
    if (properties['draw:shadow'] === 'visible') {
      const dx = points(properties['draw:shadow-offset-x']) ?? 5.67
      const dy = points(properties['draw:shadow-offset-y']) ?? 5.67
      const shade = plainFill(
        properties['draw:shadow-color'] ?? '#808080',
        percent(properties['draw:shadow-opacity']) ?? 1,
      )
      for (const piece of pieces)
        if (piece.filled && fill) fragments.push(...shifted(painted(piece.data, place, shade, null, ''), dx, dy))
    }
    for (const piece of pieces) {
      fragments.push(
        ...painted(piece.data, place, piece.filled ? fill : null, piece.stroked ? stroke : null, frame.name),
      )
      if (stroke && piece.open) fragments.push(...this.markers(piece, properties, stroke, place))
    }
    if (border && border.top > 0)
      fragments.push({
        kind: 'box',
        fill: '',
        stroke: /#[0-9a-f]{6}/i.exec(properties['fo:border'] ?? properties['fo:border-top'] ?? '')?.[0] ?? '#000000',
        strokeWidth: border.top,
        x: 0,
        y: 0,
        width,
        height,
      })
    return fragments
  }

  private markers(piece: OutlinePiece, properties: Properties, stroke: Stroke, place: ShapePlace): Fragment[] {
    const at = [...piece.data.matchAll(/(-?[\d.]+(?:e-?\d+)?) (-?[\d.]+(?:e-?\d+)?)/g)].map(match => ({
      x: Number(match[1]),
      y: Number(match[2]),
    }))
    if (at.length < 2) return []
    const ends = [
      ['start', at[0]!, at.find(each => each.x !== at[0]!.x || each.y !== at[0]!.y)],
      ['end', at.at(-1)!, at.findLast(each => each.x !== at.at(-1)!.x || each.y !== at.at(-1)!.y)],
    ] as const
    return ends.flatMap(([end, tip, from]) => {
      const data = from ? this.paint.marker(properties, end, tip, Math.atan2(tip.y - from.y, tip.x - from.x)) : ''
      return data === '' ? [] : painted(data, place, plainFill(stroke.color, stroke.opacity), null, '')
    })
  }

  /** The text of a shape in its area, and how large the shape has grown with it: x and y tell how its corner moved. */
  private text(
    frame: Frame,
    role: Story['role'],
    place: ShapePlace,
    area: Area,
    properties: Properties,
  ): { fragments: readonly Fragment[]; x: number; y: number; width: number; height: number } {
    const { boxes } = this
    const isFrame = frame.shape === 'draw:frame'
    const fixed = { x: 0, y: 0, width: place.width, height: place.height }
    if (frame.blocks.length > 0 && frame.blocks.every(block => block.kind === 'table')) {
      const inner = boxes.stack(frame.blocks, role, place.width)
      return { ...fixed, height: Math.max(inner.height, place.height), fragments: inner.fragments }
    }
    const inset = edges(properties, 'fo:padding')
    const border = borderWidths(properties)
    const inside = {
      x: area.x + inset.left + border.left,
      y: area.y + inset.top + border.top,
      width: Math.max(area.width - inset.left - inset.right - border.left - border.right, 1),
      height: Math.max(area.height - inset.top - inset.bottom - border.top - border.bottom, 0),
    }
    const filled = isFrame ? boxes.filled(frame, role, inside) : null
    if (filled)
      return {
        ...fixed,
        fragments: filled.over
          ? [...filled.fragments, { kind: 'overset', frame: filled.over, x: 0, y: place.height, width: place.width }]
          : filled.fragments,
      }

    const growsAcross = isFrame
      ? properties['draw:auto-grow-width'] === 'true'
      : properties['fo:wrap-option'] === 'no-wrap'
    const needed = growsAcross ? longestLine(boxes.stack(frame.blocks, role, endless).fragments) : 0
    const column = Math.max(inside.width, Math.ceil(needed * 100) / 100)
    let inner = boxes.stack(frame.blocks, role, column)
    const align = properties['draw:textarea-horizontal-align'] ?? 'justify'
    const more = column - inside.width
    const width = isFrame ? place.width + more : place.width
    const across = (room: number) => (align === 'left' ? 0 : align === 'right' ? room : room / 2)
    const x = isFrame ? -across(more) : 0
    const left = isFrame ? inside.x : inside.x - across(more)

    const textBox = isFrame
      ? boxes.workshop.cascade
          .scope(frame.part)
          .part.first(boxes.workshop.cascade.scope(frame.part).part.element(frame.node), 'draw:text-box')
      : undefined
    const minimum = points(textBox?.attributes['fo:min-height'] ?? properties['fo:min-height'])
    const shrinks = properties['draw:fit-to-size'] === 'shrink-to-fit' || properties['style:shrink-to-fit'] === 'true'
    const grows =
      !shrinks &&
      (properties['draw:auto-grow-height'] === 'true' ||
        (isFrame && properties['draw:auto-grow-height'] !== 'false' && (minimum !== null || place.height === 0)))
    let shrunk = 1
    if (shrinks && inner.height > inside.height + 0.5 && inside.height > 0) {
      shrunk = this.fitting(frame, role, column, inside.height)
      inner = boxes.stack(frame.blocks, role, column / shrunk)
      const fragments = turned(inner.fragments, scaling(shrunk, shrunk))
      inner = { height: inner.height * shrunk, after: inner.after * shrunk, fragments }
    }
    if (properties['draw:fit-to-size'] === 'true' || properties['draw:fit-to-size'] === 'all')
      boxes.workshop.unlaid('text stretched to fill its shape (set at its own size)', frame.node)
    const beyond = inner.height - inside.height
    const height = grows && beyond > 0 ? place.height + beyond : place.height
    const vertical = properties['draw:textarea-vertical-align'] ?? 'top'
    const share = vertical === 'middle' ? 0.5 : vertical === 'bottom' ? 1 : 0
    const y = height > place.height ? -(height - place.height) * share : 0
    const down = inside.y + (inside.height + height - place.height - inner.height) * share
    const fragments = [...shifted(inner.fragments, left, down)]
    const over = grows ? null : overset(frame, fragments, (isFrame ? inside.y + inside.height : place.height) + 1)
    boxes.noteFill({
      part: frame.part,
      node: frame.node,
      name: frame.name,
      room: Math.max(inside.height - inner.height, 0),
      over,
      shrunk,
    })
    if (over) fragments.push({ kind: 'overset', frame: over, x: 0, y: height, width })
    return { x, y, width, height, fragments }
  }

  /** The largest share of its size at which text fits some height. */
  private fitting(frame: Frame, role: Story['role'], width: number, height: number): number {
    let low = smallest
    let high = 1
    for (let step = 0; step < 9; step++) {
      const middle = (low + high) / 2
      if (this.boxes.stack(frame.blocks, role, width / middle).height * middle <= height + 0.5) low = middle
      else high = middle
    }
    return low
  }
}

/** How wide text is that was set without a limit, in points. */
export function longestLine(fragments: readonly Fragment[]): number {
  let longest = 0
  for (const fragment of fragments) {
    if (fragment.kind !== 'lines') continue
    const { layout } = fragment
    for (let at = fragment.from; at < fragment.to; at++) {
      const line = layout.lines[at]!
      // Where the text is centred or flush right, the line begins far out: what counts is its own width.
      const before =
        layout.look.measure.alignment === 'left' || layout.look.measure.alignment === 'justify' ? line.x : 0
      longest = Math.max(longest, before + line.width + layout.x + layout.padding.right + layout.look.margin.right)
    }
  }
  return longest
}

/** Lines below some height, from the shape's top left. */
function overset(frame: Frame, fragments: readonly Fragment[], bottom: number): OversetFrame | null {
  let lines = 0
  let characters = 0
  for (const fragment of fragments) {
    if (fragment.kind !== 'lines') continue
    const scale = fragment.matrix?.[3] ?? 1
    let y = fragment.y
    for (let at = fragment.from; at < fragment.to; at++) {
      y += linesHeight(fragment.layout, at, at + 1)
      const foot = fragment.matrix ? y * scale + fragment.matrix[5] : y
      const line = fragment.layout.lines[at]!
      if (foot > bottom && line.contentEnd > line.start) {
        lines++
        characters += line.end - line.start
      }
    }
  }
  return characters > 0 ? { part: frame.part, node: frame.node, name: frame.name, lines, characters } : null
}

/** The smallest rectangle around some. */
export function union(areas: readonly Area[]): Area {
  if (areas.length === 0) return { x: 0, y: 0, width: 0, height: 0 }
  const x = Math.min(...areas.map(each => each.x))
  const y = Math.min(...areas.map(each => each.y))
  return {
    x,
    y,
    width: Math.max(...areas.map(each => each.x + each.width)) - x,
    height: Math.max(...areas.map(each => each.y + each.height)) - y,
  }
}
