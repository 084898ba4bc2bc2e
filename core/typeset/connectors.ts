import { points } from '../document/lengths'
import type { XmlElement, XmlPart } from '../xml/tree'
import { shapePlace } from './shape-place'

/** A place on a page, in points. */
export interface Place {
  readonly x: number
  readonly y: number
}
/** What a connector goes around. */
export interface Obstacle {
  readonly left: number
  readonly top: number
  readonly right: number
  readonly bottom: number
}

/** An end of a connector, and the shape that holds it, where it is known. */
interface End {
  readonly at: Place
  readonly shape: Obstacle | null
}

/** How far a connector keeps from shapes, in points: half a centimetre. */
const distance = 72 / 5.08
/** What a bend costs, as a way in points: of two ways the one with fewer bends is taken unless it is much longer. */
const bendCost = 40
/** Beside more shapes than this nothing is gone around: looking at all for each connector would take too long. */
const mostBeside = 1000
/** Of more shapes those nearest are gone around. */
const mostObstacles = 24

type Way = 'left' | 'right' | 'up' | 'down'
const steps: Readonly<Record<Way, Place>> = {
  left: { x: -1, y: 0 },
  right: { x: 1, y: 0 },
  up: { x: 0, y: -1 },
  down: { x: 0, y: 1 },
}
const ways = Object.keys(steps) as Way[]
const opposite: Readonly<Record<Way, Way>> = { left: 'right', right: 'left', up: 'down', down: 'up' }

/** The side of a shape that a place on its edge belongs to: where a connector leaves it. Free ends leave towards the other. */
function leaving(place: Place, shape: Obstacle | null, other: Place): Way {
  if (!shape) {
    const [dx, dy] = [other.x - place.x, other.y - place.y]
    return Math.abs(dx) >= Math.abs(dy) ? (dx < 0 ? 'left' : 'right') : dy < 0 ? 'up' : 'down'
  }
  const gaps: readonly (readonly [Way, number])[] = [
    ['left', Math.abs(place.x - shape.left)],
    ['right', Math.abs(place.x - shape.right)],
    ['up', Math.abs(place.y - shape.top)],
    ['down', Math.abs(place.y - shape.bottom)],
  ]
  return gaps.reduce((best, each) => (each[1] < best[1] ? each : best))[0]
}

const near = ({ left, top, right, bottom }: Obstacle, { x, y }: Place) =>
  Math.hypot(Math.max(left - x, 0, x - right), Math.max(top - y, 0, y - bottom))

/** Whether a level or upright stretch goes through a shape, its edge not counted. */
function crosses(from: Place, to: Place, { left, top, right, bottom }: Obstacle): boolean {
  const edge = 0.5
  return (
    Math.max(from.x, to.x) > left + edge &&
    Math.min(from.x, to.x) < right - edge &&
    Math.max(from.y, to.y) > top + edge &&
    Math.min(from.y, to.y) < bottom - edge
  )
}

/**
 * The corners of a way of level and upright stretches from one place to another, both included, that leaves and reaches
 * shapes at right angles and goes through none. Shortest in length and bends (Dijkstra, on the lines that shapes and ends
 * give); null where there is none.
 */
export function route(from: End, to: End, shapes: readonly Obstacle[]): readonly Place[] | null {
  const middle = middleOf(from.at, to.at)
  const own = [from.shape, to.shape].filter(each => each !== null)
  const others = shapes.filter(each => near(each, from.at) > 1 && near(each, to.at) > 1)
  // Nearly always nothing is in the way, and nothing else need be looked at.
  const plain = shortest(from, to, own)
  if (plain?.every((corner, at) => at === 0 || !others.some(each => crosses(plain[at - 1]!, corner, each))))
    return plain
  const nearest = others.sort((one, other) => near(one, middle) - near(other, middle))
  return shortest(from, to, [...own, ...nearest].slice(0, mostObstacles))
}

const middleOf = (one: Place, other: Place): Place => ({ x: (one.x + other.x) / 2, y: (one.y + other.y) / 2 })

function shortest(from: End, to: End, obstacles: readonly Obstacle[]): readonly Place[] | null {
  const middle = middleOf(from.at, to.at)
  const start = leaving(from.at, from.shape, to.at)
  const end = leaving(to.at, to.shape, from.at)
  const moved = ({ x, y }: Place, way: Way, by: number) => ({ x: x + steps[way].x * by, y: y + steps[way].y * by })
  const begin = moved(from.at, start, from.shape ? distance : 0)
  const goal = moved(to.at, end, to.shape ? distance : 0)
  const lines = (values: readonly number[]) =>
    [...new Set(values.map(value => Math.round(value * 1000) / 1000))].sort((a, b) => a - b)
  const xs = lines([
    begin.x,
    goal.x,
    middle.x,
    ...obstacles.flatMap(each => [each.left - distance, each.right + distance]),
  ])
  const ys = lines([
    begin.y,
    goal.y,
    middle.y,
    ...obstacles.flatMap(each => [each.top - distance, each.bottom + distance]),
  ])
  const indexOf = (list: readonly number[], value: number) => list.indexOf(Math.round(value * 1000) / 1000)
  const key = (x: number, y: number, way: Way) => (x * ys.length + y) * 4 + ways.indexOf(way)
  const best = new Map<number, { cost: number; from: number | null; x: number; y: number; way: Way; done: boolean }>()
  const waiting = new Set<number>()
  const offer = (x: number, y: number, way: Way, cost: number, before: number | null) => {
    const at = key(x, y, way)
    const known = best.get(at)
    if (known && (known.done || known.cost <= cost)) return
    best.set(at, { cost, from: before, x, y, way, done: false })
    waiting.add(at)
  }
  offer(indexOf(xs, begin.x), indexOf(ys, begin.y), start, 0, null)
  const [goalX, goalY] = [indexOf(xs, goal.x), indexOf(ys, goal.y)]
  const [middleX, middleY] = [indexOf(xs, middle.x), indexOf(ys, middle.y)]
  while (waiting.size > 0) {
    let at = -1
    for (const each of waiting) if (at < 0 || best.get(each)!.cost < best.get(at)!.cost) at = each
    waiting.delete(at)
    const node = best.get(at)!
    node.done = true
    if (node.x === goalX && node.y === goalY && node.way !== end) {
      const corners: Place[] = [to.at, goal]
      for (let each: number | null = at; each !== null; each = best.get(each)!.from)
        corners.push({ x: xs[best.get(each)!.x]!, y: ys[best.get(each)!.y]! })
      return withoutStraights([...corners, from.at].reverse())
    }
    for (const way of ways) {
      if (way === opposite[node.way]) continue
      const [x, y] = [node.x + steps[way].x, node.y + steps[way].y]
      if (x < 0 || y < 0 || x >= xs.length || y >= ys.length) continue
      const [one, other] = [
        { x: xs[node.x]!, y: ys[node.y]! },
        { x: xs[x]!, y: ys[y]! },
      ]
      if (obstacles.some(each => crosses(one, other, each))) continue
      // Of ways that are as good, the one that bends half way.
      const half = node.x === middleX || node.y === middleY
      const turns = way === node.way ? 0 : half ? bendCost * 0.9 : bendCost
      // The last stretch reaches the shape from where it is left: a turn there counts, too.
      const last = x === goalX && y === goalY && way !== opposite[end] ? bendCost : 0
      offer(x, y, way, node.cost + Math.abs(other.x - one.x) + Math.abs(other.y - one.y) + turns + last, at)
    }
  }
  return null
}

/** Without places that stand twice, and without those between which a way goes straight on. */
function withoutStraights(corners: readonly Place[]): Place[] {
  const same = (a: number, b: number) => Math.abs(a - b) < 0.001
  const kept: Place[] = []
  for (const each of corners) {
    const [before, last] = [kept.at(-2), kept.at(-1)]
    if (last && same(last.x, each.x) && same(last.y, each.y)) continue
    if (
      before &&
      last &&
      ((same(before.x, last.x) && same(last.x, each.x)) || (same(before.y, last.y) && same(last.y, each.y)))
    )
      kept.pop()
    kept.push(each)
  }
  return kept
}

const isShape = (name: string) =>
  name.startsWith('draw:') &&
  !['draw:connector', 'draw:line', 'draw:measure', 'draw:g', 'draw:layer-set'].includes(name)

/**
 * The corners of a connector that the file gives no path: from its ends around the shapes beside it on its page or in its
 * group, from the top left of both ends. Straight where it is said to be, or where there is no way around.
 */
export function connectorCorners(part: XmlPart, element: XmlElement): readonly Place[] {
  const { attributes } = element
  const at = (name: string) => points(attributes[name]) ?? 0
  const from = { x: at('svg:x1'), y: at('svg:y1') }
  const to = { x: at('svg:x2'), y: at('svg:y2') }
  const [left, top] = [Math.min(from.x, to.x), Math.min(from.y, to.y)]
  const shapes: { readonly id: string; readonly box: Obstacle }[] = []
  const holder = element.parent < 0 ? null : part.element(element.parent)
  for (const beside of holder && holder.children.length <= mostBeside ? part.elements(holder) : []) {
    if (!isShape(beside.name)) continue
    const { x, y, width, height } = shapePlace(beside).bounds
    if (width > 0 && height > 0)
      shapes.push({
        id: beside.attributes['xml:id'] ?? beside.attributes['draw:id'] ?? '',
        box: { left: x, top: y, right: x + width, bottom: y + height },
      })
  }
  const shapeOf = (end: 'start' | 'end') => {
    const id = attributes[`draw:${end}-shape`] ?? ''
    return id === '' ? null : (shapes.find(each => each.id === id)?.box ?? null)
  }
  // What both ends lie in is a ground, and in nobody's way.
  const inWay = shapes.map(each => each.box).filter(box => near(box, from) > 0 || near(box, to) > 0)
  const found =
    attributes['draw:type'] === 'line'
      ? null
      : route({ at: from, shape: shapeOf('start') }, { at: to, shape: shapeOf('end') }, inWay)
  return (found ?? [from, to]).map(({ x, y }) => ({ x: x - left, y: y - top }))
}

/** Path data along corners, in stretches or, for curves, rounded from the middle of one to that of the next. */
export function alongCorners(corners: readonly Place[], curved: boolean): string {
  const write = ({ x, y }: Place) => `${Math.round(x * 1000) / 1000} ${Math.round(y * 1000) / 1000}`
  const [first, ...rest] = corners
  if (!curved || corners.length < 3) return `M${write(first!)} ${rest.map(each => `L${write(each)}`).join(' ')}`
  const out = [`M${write(first!)}`]
  let last = first!
  for (let index = 1; index < corners.length - 1; index++) {
    const corner = corners[index]!
    const next = corners[index + 1]!
    const goal = index === corners.length - 2 ? next : { x: (corner.x + next.x) / 2, y: (corner.y + next.y) / 2 }
    // A quadratic curve by its corner, written as a cubic one.
    const pulled = (end: Place) => ({
      x: end.x + ((corner.x - end.x) * 2) / 3,
      y: end.y + ((corner.y - end.y) * 2) / 3,
    })
    out.push(`C${write(pulled(last))} ${write(pulled(goal))} ${write(goal)}`)
    last = goal
  }
  return out.join(' ')
}
