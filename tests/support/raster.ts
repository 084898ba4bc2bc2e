import type opentype from 'opentype.js'

/*
 * A second way to measure letters, which shares nothing with the first: another reader of font files, and ink as pixels.
 * One pixel is a thousandth of an em.
 */

/** Ink of a letter: rows from the top down, 1 where there is ink. */
export interface Raster {
  readonly width: number
  readonly height: number
  /** Where the left edge of the picture lies, and its top above the baseline. */
  readonly left: number
  readonly top: number
  readonly ink: Uint8Array
}

const margin = 4

/** Draws a letter at a thousand pixels for an em, pixels by their middles, filled by the non-zero rule. */
export function rasterOf(font: opentype.Font, character: string): Raster {
  const path = font.getPath(character, 0, 0, 1000, { kerning: false, features: { liga: false, rlig: false } })
  const box = path.getBoundingBox()
  const left = Math.floor(box.x1) - margin
  const height = Math.ceil(box.y2 - box.y1) + 2 * margin
  const width = Math.ceil(box.x2 - box.x1) + 2 * margin
  const top = Math.floor(box.y1) - margin
  const lines: [number, number, number, number][] = []
  let [x, y, startX, startY] = [0, 0, 0, 0]
  const lineTo = (toX: number, toY: number) => {
    lines.push([x, y, toX, toY])
    ;[x, y] = [toX, toY]
  }
  for (const each of path.commands) {
    const [fromX, fromY] = [x, y]
    if (each.type === 'M') [x, y, startX, startY] = [each.x, each.y, each.x, each.y]
    else if (each.type === 'L') lineTo(each.x, each.y)
    else if (each.type === 'Z') lineTo(startX, startY)
    else
      for (let t = 0.05; t < 1.001; t += 0.05) {
        const u = 1 - t
        if (each.type === 'Q')
          lineTo(
            u * u * fromX + 2 * u * t * each.x1 + t * t * each.x,
            u * u * fromY + 2 * u * t * each.y1 + t * t * each.y,
          )
        else
          lineTo(
            u ** 3 * fromX + 3 * u * u * t * each.x1 + 3 * u * t * t * each.x2 + t ** 3 * each.x,
            u ** 3 * fromY + 3 * u * u * t * each.y1 + 3 * u * t * t * each.y2 + t ** 3 * each.y,
          )
      }
  }
  const ink = new Uint8Array(width * height)
  for (let row = 0; row < height; row++) {
    const at = top + row + 0.5
    const turns: [number, number][] = []
    for (const [x1, y1, x2, y2] of lines)
      if (y1 <= at !== y2 <= at) turns.push([x1 + ((at - y1) / (y2 - y1)) * (x2 - x1), y1 <= at ? 1 : -1])
    turns.sort((a, b) => a[0] - b[0])
    let winding = 0
    turns.forEach(([place, turn], index) => {
      winding += turn
      const until = turns[index + 1]?.[0]
      if (winding === 0 || until === undefined) return
      for (let column = Math.ceil(place - left - 0.5); column + 0.5 + left < until; column++)
        ink[row * width + column] = 1
    })
  }
  return { width, height, left, top: -top, ink }
}

/** First and last row with ink, above the baseline; first and last column. */
export function inkBox({ width, height, left, top, ink }: Raster) {
  const rows = Array.from({ length: height }, (_, row) => ink.subarray(row * width, (row + 1) * width).includes(1))
  const columns = Array.from({ length: width }, (_, column) => rows.some((_, row) => ink[row * width + column] === 1))
  return {
    top: top - rows.indexOf(true),
    bottom: top - rows.lastIndexOf(true) - 1,
    left: left + columns.indexOf(true),
    right: left + columns.lastIndexOf(true) + 1,
  }
}

/** Lengths of the stretches of ink in the row at a height above the baseline. */
export function runsAt({ width, top, ink }: Raster, height: number): number[] {
  const row = Math.round(top - height)
  const runs: number[] = []
  let length = 0
  for (let column = 0; column <= width; column++) {
    if (column < width && ink[row * width + column] === 1) length++
    else if (length > 0) {
      runs.push(length)
      length = 0
    }
  }
  return runs
}

/**
 * How thick the stroke is at each pixel of the edge: the way straight inward, by the slope of the blurred picture, until
 * there is no ink.
 */
export function thicknessAtEdges({ width, height, ink }: Raster): number[] {
  const at = (x: number, y: number) => (x < 0 || y < 0 || x >= width || y >= height ? 0 : ink[y * width + x]!)
  const found: number[] = []
  const reach = 6
  /** Which way the ink lies at a pixel of the edge, as a vector of length 1. */
  const inward = (x: number, y: number): readonly [number, number] | null => {
    let [dx, dy] = [0, 0]
    for (let j = -reach; j <= reach; j++)
      for (let i = -reach; i <= reach; i++)
        if (i * i + j * j <= reach * reach && at(x + i, y + j)) {
          dx += i
          dy += j
        }
    const length = Math.hypot(dx, dy)
    return length < 1 ? null : [dx / length, dy / length]
  }
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      if (at(x, y) === 0 || (at(x - 1, y) && at(x + 1, y) && at(x, y - 1) && at(x, y + 1))) continue
      const way = inward(x, y)
      if (!way) continue
      let length = 0
      const place = (): readonly [number, number] => [Math.round(x + way[0] * length), Math.round(y + way[1] * length)]
      while (length < 2000 && at(...place())) length += 0.25
      const there = inward(...place())
      // The other side of the stroke, not the next side of a corner.
      if (there && way[0] * there[0] + way[1] * there[1] < -Math.SQRT1_2) found.push(length)
    }
  return found
}
