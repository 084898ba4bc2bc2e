import type { XmlElement, XmlPart } from '../xml/tree'

/*
 * Custom shapes: draw:enhanced-geometry (ODF 1.4 part 3, 10.6.2) with its equations (19.176), modifiers and path
 * (19.145). Files are not trusted: equations are parsed, never run as code, and their depth is bounded.
 */

/**
 * The outline of a custom shape in the units of its view box, as SVG path data for each of its pieces, and where
 * its text goes.
 */
export interface EnhancedShape {
  readonly pieces: readonly { readonly data: string; readonly filled: boolean; readonly stroked: boolean }[]
  readonly text: { readonly left: number; readonly top: number; readonly right: number; readonly bottom: number } | null
  readonly width: number
  readonly height: number
}

const depthLimit = 64
const tokenLimit = 20_000

interface Names {
  readonly equations: ReadonlyMap<string, string>
  readonly modifiers: readonly number[]
  readonly box: Readonly<Record<string, number>>
}

/** Works out formulas; what refers to itself is 0. */
class Formulas {
  private readonly known = new Map<string, number>()
  private depth = 0

  constructor(private readonly names: Names) {}

  /** A parameter of a path: a number, `$n`, `?name` or a word for an edge. */
  value(token: string): number {
    const number = Number(token)
    if (Number.isFinite(number) && token !== '') return number
    if (token.startsWith('$')) return this.names.modifiers[Number(token.slice(1))] ?? 0
    if (token.startsWith('?')) return this.equation(token.slice(1))
    return this.names.box[token] ?? 0
  }

  private equation(name: string): number {
    const known = this.known.get(name)
    if (known !== undefined) return known
    const formula = this.names.equations.get(name)
    if (formula === undefined || this.depth >= depthLimit) return 0
    this.depth++
    this.known.set(name, 0)
    const value = this.formula(formula)
    this.depth--
    this.known.set(name, Number.isFinite(value) ? value : 0)
    return this.known.get(name)!
  }

  private formula(text: string): number {
    const tokens = text.match(/[\d.]+(?:[eE][+-]?\d+)?|[a-z][a-z0-9]*|\$\d+|\?[A-Za-z0-9_]+|[-+*/(),]/g) ?? []
    let at = 0
    const primary = (depth: number): number => {
      const token = tokens[at++]
      if (token === undefined || depth > depthLimit) return 0
      if (token === '-') return -primary(depth + 1)
      if (token === '+') return primary(depth + 1)
      if (token === '(') {
        const value = sum(depth + 1)
        at++
        return value
      }
      if (tokens[at] === '(' && /^[a-z]/.test(token)) {
        at++
        const list: number[] = []
        while (at < tokens.length && tokens[at] !== ')') {
          list.push(sum(depth + 1))
          if (tokens[at] === ',') at++
        }
        at++
        return call(token, list)
      }
      return token === 'pi' ? Math.PI : this.value(token)
    }
    const product = (depth: number): number => {
      let value = primary(depth)
      while (tokens[at] === '*' || tokens[at] === '/')
        value = tokens[at++] === '*' ? value * primary(depth) : value / (primary(depth) || Number.NaN)
      return Number.isFinite(value) ? value : 0
    }
    const sum = (depth: number): number => {
      let value = product(depth)
      while (tokens[at] === '+' || tokens[at] === '-')
        value = tokens[at++] === '+' ? value + product(depth) : value - product(depth)
      return value
    }
    return sum(0)
  }
}

function call(name: string, [one = 0, two = 0, three = 0]: readonly number[]): number {
  switch (name) {
    case 'abs':
      return Math.abs(one)
    case 'sqrt':
      return Math.sqrt(Math.max(one, 0))
    case 'sin':
      return Math.sin(one)
    case 'cos':
      return Math.cos(one)
    case 'tan':
      return Math.tan(one)
    case 'atan':
      return Math.atan(one)
    case 'atan2':
      return Math.atan2(one, two)
    case 'min':
      return Math.min(one, two)
    case 'max':
      return Math.max(one, two)
    case 'if':
      return one > 0 ? two : three
    default:
      return 0
  }
}

const argumentsOf: Readonly<Record<string, number>> = {
  M: 2,
  L: 2,
  C: 6,
  Q: 4,
  X: 2,
  Y: 2,
  T: 6,
  U: 6,
  A: 8,
  B: 8,
  W: 8,
  V: 8,
  G: 4,
}

/** Reads a custom shape; null where it has no path. */
export function readEnhancedShape(
  part: XmlPart,
  geometry: XmlElement,
  size: { readonly width: number; readonly height: number },
): EnhancedShape | null {
  const { attributes } = geometry
  const path = attributes['draw:enhanced-path']
  if (!path) return null
  const [left = 0, top = 0, boxWidth = 21600, boxHeight = 21600] = (attributes['svg:viewBox'] ?? '0 0 21600 21600')
    .trim()
    .split(/[\s,]+/)
    .map(Number)
  const width = boxWidth || size.width * 35.28
  const height = boxHeight || size.height * 35.28
  const names: Names = {
    equations: new Map(
      [...part.elements(geometry, 'draw:equation')].map(each => [
        each.attributes['draw:name'] ?? '',
        each.attributes['draw:formula'] ?? '',
      ]),
    ),
    modifiers: (attributes['draw:modifiers'] ?? '')
      .trim()
      .split(/[\s,]+/)
      .map(each => Number.parseFloat(each) || 0),
    box: {
      left,
      top,
      right: left + width,
      bottom: top + height,
      width,
      height,
      xstretch: Number(attributes['draw:path-stretchpoint-x']) || 0,
      ystretch: Number(attributes['draw:path-stretchpoint-y']) || 0,
      hasstroke: 1,
      hasfill: 1,
      logwidth: size.width * 35.28,
      logheight: size.height * 35.28,
    },
  }
  const formulas = new Formulas(names)
  const areas = (attributes['draw:text-areas'] ?? '').trim()
  const [textLeft, textTop, textRight, textBottom] = areas
    ? areas.split(/[\s,]+/).map(token => formulas.value(token))
    : []
  const mirroredX = attributes['draw:mirror-horizontal'] === 'true'
  const mirroredY = attributes['draw:mirror-vertical'] === 'true'
  const pieces = outline(path, formulas, left, top, width, height, mirroredX, mirroredY)
  return {
    pieces,
    width,
    height,
    text:
      textBottom === undefined
        ? null
        : { left: textLeft! - left, top: textTop! - top, right: textRight! - left, bottom: textBottom - top },
  }
}

function outline(
  path: string,
  formulas: Formulas,
  left: number,
  top: number,
  width: number,
  height: number,
  mirroredX: boolean,
  mirroredY: boolean,
): { data: string; filled: boolean; stroked: boolean }[] {
  const tokens = (path.match(/[A-Za-z]+|\$\d+|\?[A-Za-z0-9_]+|[-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?/g) ?? []).slice(
    0,
    tokenLimit,
  )
  const pieces: { data: string; filled: boolean; stroked: boolean }[] = []
  let data: string[] = []
  let filled = true
  let stroked = true
  let at = { x: 0, y: 0 }
  let acrossNext = true
  const place = (x: number, y: number) =>
    `${mirroredX ? width - (x - left) : x - left} ${mirroredY ? height - (y - top) : y - top}`
  const move = (x: number, y: number, letter = 'L') => {
    data.push(`${letter}${place(x, y)}`)
    at = { x, y }
  }
  const curve = (a: readonly [number, number], b: readonly [number, number], to: readonly [number, number]) => {
    data.push(`C${place(...a)} ${place(...b)} ${place(...to)}`)
    at = { x: to[0], y: to[1] }
  }
  const finish = () => {
    if (data.length > 0) pieces.push({ data: data.join(' '), filled, stroked })
    data = []
    filled = true
    stroked = true
  }
  /** An arc of an ellipse in at most four curves; angles in radians, growing clockwise since y points down. */
  const arc = (cx: number, cy: number, rx: number, ry: number, start: number, sweep: number) => {
    const steps = Math.max(1, Math.ceil(Math.abs(sweep) / (Math.PI / 2) - 1e-9))
    const each = sweep / steps
    const handle = (4 / 3) * Math.tan(each / 4)
    for (let step = 0; step < steps; step++) {
      const from = start + each * step
      const to = from + each
      curve(
        [cx + rx * (Math.cos(from) - handle * Math.sin(from)), cy + ry * (Math.sin(from) + handle * Math.cos(from))],
        [cx + rx * (Math.cos(to) + handle * Math.sin(to)), cy + ry * (Math.sin(to) - handle * Math.cos(to))],
        [cx + rx * Math.cos(to), cy + ry * Math.sin(to)],
      )
    }
  }
  const boxed = (values: readonly number[], clockwise: boolean, begins: boolean) => {
    const [x1, y1, x2, y2, x3, y3, x4, y4] = values as [number, number, number, number, number, number, number, number]
    const rx = Math.abs(x2 - x1) / 2 || 1e-6
    const ry = Math.abs(y2 - y1) / 2 || 1e-6
    const cx = (x1 + x2) / 2
    const cy = (y1 + y2) / 2
    const start = Math.atan2((y3 - cy) / ry, (x3 - cx) / rx)
    let sweep = Math.atan2((y4 - cy) / ry, (x4 - cx) / rx) - start
    if (clockwise && sweep <= 1e-9) sweep += 2 * Math.PI
    if (!clockwise && sweep >= -1e-9) sweep -= 2 * Math.PI
    move(cx + rx * Math.cos(start), cy + ry * Math.sin(start), begins ? 'M' : 'L')
    arc(cx, cy, rx, ry, start, sweep)
  }
  for (let index = 0; index < tokens.length;) {
    const command = tokens[index++]!
    if (command === 'Z') {
      data.push('Z')
      continue
    }
    if (command === 'N') {
      finish()
      continue
    }
    if (command === 'F') {
      filled = false
      continue
    }
    if (command === 'S') {
      stroked = false
      continue
    }
    const count = argumentsOf[command]
    if (count === undefined) continue
    let first = true
    while (index + count <= tokens.length && !(tokens[index]! in argumentsOf) && !/^[ZNFS]$/.test(tokens[index]!)) {
      const v = tokens.slice(index, index + count).map(token => formulas.value(token))
      index += count
      const [a = 0, b = 0, c = 0, d = 0, e = 0, f = 0] = v
      const radians = Math.PI / 180
      switch (command) {
        case 'M':
          move(a, b, first ? 'M' : 'L')
          break
        case 'L':
          move(a, b)
          break
        case 'C':
          curve([a, b], [c, d], [e, f])
          break
        case 'Q': {
          const from = at
          curve(
            [from.x + ((a - from.x) * 2) / 3, from.y + ((b - from.y) * 2) / 3],
            [c + ((a - c) * 2) / 3, d + ((b - d) * 2) / 3],
            [c, d],
          )
          break
        }
        // A quarter of an ellipse, leaving along one axis and arriving along the other; the next one begins with the other.
        case 'X':
        case 'Y': {
          const across: boolean = first ? command === 'X' : acrossNext
          const kappa = 0.5522847498
          const from = at
          if (across) curve([from.x + (a - from.x) * kappa, from.y], [a, b - (b - from.y) * kappa], [a, b])
          else curve([from.x, from.y + (b - from.y) * kappa], [a - (a - from.x) * kappa, b], [a, b])
          acrossNext = !across
          break
        }
        case 'T':
        case 'U': {
          const sweep = f - e
          const start = e * radians
          move(a + c * Math.cos(start), b + d * Math.sin(start), command === 'U' ? 'M' : 'L')
          arc(a, b, c, d, start, (Math.abs(sweep) < 1e-9 ? 0 : sweep) * radians)
          break
        }
        case 'A':
        case 'B':
          boxed(v, false, command === 'B')
          break
        case 'W':
        case 'V':
          boxed(v, true, command === 'V')
          break
        case 'G': {
          const start = c * radians
          arc(at.x - a * Math.cos(start), at.y - b * Math.sin(start), a, b, start, d * radians)
          break
        }
      }
      first = false
    }
  }
  finish()
  return pieces
}
