import { PNG } from 'pngjs'

const size = { width: 540, height: 400 } as const
/** White, as the sheet that it stands on. */
const paper = [255, 255, 255] as const
const ink = [0x1b, 0x24, 0x30] as const

type Point = readonly [number, number]

/** How far a place is from a curve of three points (a quadratic Bézier), by steps along it. */
function distance(
  [x, y]: Point,
  [from, over, to]: readonly [Point, Point, Point],
): { readonly away: number; readonly along: number } {
  let best = { away: Infinity, along: 0 }
  for (let step = 0; step <= 60; step++) {
    const t = step / 60
    const at = (axis: 0 | 1) => (1 - t) ** 2 * from[axis] + 2 * t * (1 - t) * over[axis] + t * t * to[axis]
    const away = Math.hypot(at(0) - x, at(1) - y)
    if (away < best.away) best = { away, along: t }
  }
  return best
}

const wings: readonly (readonly [Point, Point, Point])[] = [
  [
    [270, 225],
    [170, 60],
    [40, 150],
  ],
  [
    [270, 225],
    [370, 60],
    [500, 150],
  ],
]

/** The gull on the cover of the galley menu, as a brush would draw it: two strokes that get thinner towards their tips. */
export function gull(): Uint8Array {
  return (drawn ??= draw())
}

let drawn: Uint8Array | null = null

function draw(): Uint8Array {
  const png = new PNG({ width: size.width, height: size.height })
  for (let y = 0; y < size.height; y++)
    for (let x = 0; x < size.width; x++) {
      let cover = 0
      for (const wing of wings) {
        const { away, along } = distance([x, y], wing)
        cover = Math.max(cover, Math.min(Math.max(2 + 15 * (1 - along) - away + 0.5, 0), 1))
      }
      const at = (y * size.width + x) * 4
      for (let channel = 0; channel < 3; channel++)
        png.data[at + channel] = Math.round(paper[channel]! + (ink[channel]! - paper[channel]!) * cover)
      png.data[at + 3] = 255
    }
  return new Uint8Array(PNG.sync.write(png))
}
