import { heightOf, lettersIn, meet, widthOf, type Letter, type Letters } from './letters'
import { boxOf, deviation, median, percentile, signedArea, type Polygon } from './outline'

/*
 * How often letters occur in lower-case text with its spaces, per thousand: the weights by which OS/2 version 0 to 2
 * defined xAvgCharWidth (OpenType 1.9, OS/2, appendix to the field).
 */
export const frequencies: Readonly<Record<string, number>> = {
  a: 64,
  b: 14,
  c: 27,
  d: 35,
  e: 100,
  f: 20,
  g: 14,
  h: 42,
  i: 63,
  j: 3,
  k: 6,
  l: 35,
  m: 20,
  n: 56,
  o: 56,
  p: 17,
  q: 4,
  r: 49,
  s: 56,
  t: 71,
  u: 31,
  v: 10,
  w: 18,
  x: 3,
  y: 18,
  z: 2,
  ' ': 166,
}

/**
 * The grey of a line: how much of the band between baseline and x-height the ink of lower-case text would fill, letters
 * weighted by their frequency. The ink of ascenders and descenders counts, too, as the eye sees it.
 */
export function greyOf(letters: Letters, xHeight: number, averageWidth: number): number | null {
  let ink = 0
  let weight = 0
  for (const [character, share] of Object.entries(frequencies)) {
    const letter = letters(character)
    if (!letter && character !== ' ') continue
    ink += (letter?.ink ?? 0) * share
    weight += share
  }
  return weight <= frequencies[' ']! || xHeight <= 0 || averageWidth <= 0
    ? null
    : ink / weight / (xHeight * averageWidth)
}

/** The contour at places a step apart. */
function resampled(polygon: Polygon, step: number): number[] {
  const points: number[] = []
  let until = 0
  let x = polygon[polygon.length - 2]!
  let y = polygon[polygon.length - 1]!
  for (let index = 0; index < polygon.length; index += 2) {
    const [dx, dy] = [polygon[index]! - x, polygon[index + 1]! - y]
    const length = Math.hypot(dx, dy)
    for (; until < length; until += step) points.push(x + (dx * until) / length, y + (dy * until) / length)
    until -= length
    x = polygon[index]!
    y = polygon[index + 1]!
  }
  return points
}

/** How much a closed line turns, one way and the other. Radians. */
function turning(points: readonly number[]): number {
  const count = points.length
  const direction = (from: number, to: number) =>
    Math.atan2(points[to + 1]! - points[from + 1]!, points[to]! - points[from]!)
  let sum = 0
  let before = direction(count - 2, 0)
  for (let index = 0; index < count; index += 2) {
    const after = direction(index, (index + 2) % count)
    const turn = Math.abs(after - before)
    sum += turn > Math.PI ? 2 * Math.PI - turn : turn
    before = after
  }
  return sum
}

/** Every point the mean of it and the three on either side. */
function smoothed(points: readonly number[]): number[] {
  const reach = 3
  const count = points.length
  return points.map((_, index) => {
    let sum = 0
    for (let by = -reach; by <= reach; by++) sum += points[(index + 2 * by + 2 * count) % count]!
    return sum / (2 * reach + 1)
  })
}

/**
 * Roughness: how much more outlines turn than the same outlines smoothed, in radians for every em of their length.
 * Corners turn as much in both; what wobbles, is torn or sketched turns more. Looked at in steps of 8 thousandths.
 */
export function roughnessOf(letters: Letters, unitsPerEm: number): number | null {
  return median(
    lettersIn(letters, 'Hnea').flatMap(letter => {
      let more = 0
      let length = 0
      for (const polygon of letter.polygons) {
        const points = resampled(polygon, unitsPerEm * 0.008)
        if (points.length < 16) continue
        more += Math.max(0, turning(points) - turning(smoothed(points)))
        length += (points.length / 2) * 0.008
      }
      return length === 0 ? [] : [more / length]
    }),
  )
}

/** How unevenly letters stand: the spread of the feet of letters that end at the baseline in type. Font units. */
export function jitterOf(letters: Letters): number {
  const flat = (characters: string) => deviation(lettersIn(letters, characters).map(each => each.box.bottom))
  return Math.min(flat('nmhirk'), flat('HTEFIN'))
}

/** The share of lower-case letters whose strokes reach the next letter: near 1 where they are joined. */
export function joinedOf(letters: Letters, unitsPerEm: number): number | null {
  const found = lettersIn(letters, 'aehilmnu')
  if (found.length < 5) return null
  const reaches = ({ box, advance }: Letter) => box.right >= advance - unitsPerEm * 0.006
  return found.filter(reaches).length / found.length
}

/**
 * How many contours letters have beyond those that their form asks for: 0 in plain faces, 1 and more where letters are
 * outlined, inlined, cut by a stencil or sketched.
 */
export function extraContoursOf(letters: Letters): number | null {
  const asked: Readonly<Record<string, number>> = { H: 1, E: 1, T: 1, n: 1, o: 2, e: 2, a: 2, O: 2, D: 2, s: 1, R: 2 }
  return percentile(
    Object.entries(asked).flatMap(([character, count]) => {
      const letter = letters(character)
      if (!letter) return []
      // Contours of the same direction that overlap (a variable face's bar over its stems) are no extra part.
      const own = letter.polygons.filter(polygon => Math.abs(signedArea(polygon)) > 0)
      const holes = own.filter(polygon => signedArea(polygon) * letter.inkSide < 0).length
      const parts = separateParts(own.filter(polygon => signedArea(polygon) * letter.inkSide > 0))
      return [Math.max(0, parts + holes - count)]
    }),
    0.65,
  )
}

/** Contours that do not meet one another, by their boxes. */
function separateParts(polygons: readonly Polygon[]): number {
  const boxes = polygons.flatMap(polygon => boxOf([polygon]) ?? [])
  const group = boxes.map((_, index) => index)
  const find = (index: number): number => (group[index] === index ? index : find(group[index]!))
  boxes.forEach((one, i) =>
    boxes.slice(0, i).forEach((other, j) => {
      if (meet(one, other)) group[find(i)] = find(j)
    }),
  )
  return group.filter((parent, index) => parent === index).length
}

/** Whether lower case is drawn as capitals: the share of letters that are as high as their capital and as wide, within a few hundredths. */
export function smallCapitalsOf(letters: Letters): number {
  const pairs = ['aA', 'eE', 'gG', 'nN', 'rR', 'bB'].flatMap(([small, large]) => {
    const [one, other] = [letters(small!), letters(large!)]
    return one && other ? [[one, other] as const] : []
  })
  if (pairs.length === 0) return 0
  const alike = pairs.filter(([one, other]) => {
    const proportion = widthOf(one) / heightOf(one) / (widthOf(other) / heightOf(other))
    return (
      Math.abs(proportion - 1) < 0.08 &&
      Math.abs(one.ink / one.box.top ** 2 / (other.ink / other.box.top ** 2) - 1) < 0.25
    )
  })
  return alike.length / pairs.length
}

/** Spread of the widths of lower-case letters over their mean: 0 where all are alike. */
export function widthSpreadOf(letters: Letters): number | null {
  const widths = lettersIn(letters, 'abcdefghijklmnopqrstuvwxyz').map(each => each.advance)
  if (widths.length < 10) return null
  return deviation(widths) / (widths.reduce((sum, width) => sum + width, 0) / widths.length)
}
