import { heightOf, lettersIn, widthOf, type Letter, type Letters } from './letters'
import { boxOf, gapsBetween, inkAlong, lengthOf, median, percentile, signedArea } from './outline'
import { thicknessesOf, type Thickness } from './thickness'

/** Letters whose strokes go through every direction: what is thin in a face is thin there. */
const round = 'oecs'

/**
 * The thin of a face: a low percentile of thickness around o, e, c and s, or around a script's letters like them. Not the
 * middle of o alone, which says nothing of hands and of pens held at an angle.
 */
export function hairlineOf(letters: Letters, around = round): number | null {
  return median(
    lettersIn(letters, around).flatMap(
      letter =>
        percentile(
          thicknessesOf(letter).map(each => each.thick),
          0.15,
        ) ?? [],
    ),
  )
}

/** The thick of the round letters, for faces whose stems are not found: a high percentile around o, e, c and s. */
export function thickOf(letters: Letters, around = round): number | null {
  return median(
    lettersIn(letters, around).flatMap(
      letter =>
        percentile(
          thicknessesOf(letter).map(each => each.thick),
          0.8,
        ) ?? [],
    ),
  )
}

/**
 * Stress: the angle of the axis through the thinnest parts of o, in degrees to the left of upright, as old-style faces
 * lean; null where the stroke is so even that it has no axis.
 */
export function stressOf(letters: Letters): number | null {
  const letter = letters('o')
  if (!letter) return null
  const found = thicknessesOf(letter)
  const [thin, thick] = [
    percentile(
      found.map(each => each.thick),
      0.08,
    ),
    percentile(
      found.map(each => each.thick),
      0.85,
    ),
  ]
  if (thin === null || thick === null || thin <= 0 || thick / thin < 1.18) return null
  const middle = (letter.box.top + letter.box.bottom) / 2
  const limit = thin + (thick - thin) * 0.2
  const thinnest = (above: boolean): { x: number; y: number } | null => {
    const own = found.filter(each => each.thick <= limit && each.at.y > middle === above)
    const weight = (each: Thickness) => limit - each.thick + 1
    const sum = own.reduce((total, each) => total + weight(each), 0)
    if (sum === 0) return null
    return {
      x: own.reduce((total, each) => total + each.at.x * weight(each), 0) / sum,
      y: own.reduce((total, each) => total + each.at.y * weight(each), 0) / sum,
    }
  }
  const [above, below] = [thinnest(true), thinnest(false)]
  if (!above || !below || above.y <= below.y) return null
  return (Math.atan2(below.x - above.x, above.y - below.y) * 180) / Math.PI
}

/** How squarish o is: its outer area over that of its box. An ellipse has 0.785 (a quarter of pi), a rectangle 1. */
export function roundnessOf(letters: Letters): number | null {
  const letter = letters('o')
  if (!letter) return null
  const outer = Math.max(...letter.polygons.map(polygon => Math.abs(signedArea(polygon))))
  const largest = letter.polygons.find(polygon => Math.abs(signedArea(polygon)) === outer)!
  const box = boxOf([largest])
  return box ? outer / ((box.right - box.left) * (box.top - box.bottom)) : null
}

/** The white that a straight line upright meets in a letter, from the side that is open. */
function opening(letter: Letter, part: number): number | null {
  const x = letter.box.left + widthOf(letter) * part
  const spans = inkAlong(letter.edges, 'y', x)
  const gap = gapsBetween(spans)[0]
  if (gap) return lengthOf(gap)
  // The line passes beside the lower end of the stroke: the letter is open to its foot.
  return spans[0] ? spans[0].from - letter.box.bottom : null
}

/**
 * Aperture: how far e and c are open at the right, and a of two storeys at the left, as a share of the x-height: near
 * 0.1 in closed faces, above 0.25 in open ones. The median of what there is.
 */
export function apertureOf(letters: Letters, xHeight: number): number | null {
  if (xHeight <= 0) return null
  const [a, c, e] = [letters('a'), letters('c'), letters('e')]
  const found = [
    c ? opening(c, 0.92) : null,
    e ? opening(e, 0.92) : null,
    a && storeysOfA(letters) === 2 ? opening({ ...a }, 0.1) : null,
  ].flatMap(each => (each === null ? [] : [each / xHeight]))
  return median(found)
}

/** Height of the eye of e: the smallest white that text has. Font units; null where there is none. */
export function eyeOf(letters: Letters): number | null {
  const e = letters('e')
  if (!e) return null
  const heights = [0.4, 0.5, 0.6].flatMap(part => {
    const gaps = gapsBetween(inkAlong(e.edges, 'y', e.box.left + widthOf(e) * part))
    // Above the bar: the highest white there is.
    return gaps.length >= 2 ? [lengthOf(gaps.at(-1)!)] : []
  })
  return median(heights)
}

const mostSpans = (letter: Letter, parts: readonly number[]): number =>
  Math.max(...parts.map(part => inkAlong(letter.edges, 'y', letter.box.left + widthOf(letter) * part).length))

/** Whether a has a roof over its bowl (2) or is a bowl with a stem (1). Known by the strokes one above the other. */
export function storeysOfA(letters: Letters): 1 | 2 | null {
  const a = letters('a')
  if (!a) return null
  return mostSpans(a, [0.4, 0.48, 0.55]) >= 3 ? 2 : 1
}

/** Whether g has a loop under its bowl (2) or a tail (1). */
export function storeysOfG(letters: Letters): 1 | 2 | null {
  const g = letters('g')
  if (!g) return null
  const holes = g.polygons.filter(polygon => signedArea(polygon) * g.inkSide < 0)
  const low = holes.some(hole => {
    const box = boxOf([hole])
    return box !== null && box.top < g.box.bottom + heightOf(g) * 0.5
  })
  return low || mostSpans(g, [0.4, 0.5]) >= 4 ? 2 : 1
}
