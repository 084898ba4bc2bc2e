import type { Matrix } from '../../typeset/matrix'
import type { DisplayPage } from '../../typeset/display'

export const number = (value: number) => String(Math.round(value * 1000) / 1000)

/** A map of page coordinates, y down, as one of PDF's, y up. */
export function flipped([a, b, c, d, e, f]: Matrix, height: number): string {
  return [a, -b, -c, d, e + c * height, height - d * height - f]
    .map(value => String(Math.round(value * 1e6) / 1e6))
    .join(' ')
}

/** Path data as operators of PDF (ISO 32000-2, 8.5.2). */
export function pathOf(data: string, from: { readonly x: number; readonly y: number }, height: number): string[] {
  const out: string[] = []
  for (const [, sign, inside] of data.matchAll(/([MLCZ])([^MLCZ]*)/g)) {
    const values = inside!
      .trim()
      .split(/[\s,]+/)
      .filter(Boolean)
      .map(Number)
    const places = values.map((value, at) => number(at % 2 === 0 ? from.x + value : height - from.y - value)).join(' ')
    out.push(sign === 'Z' ? 'h' : `${places} ${sign === 'M' ? 'm' : sign === 'L' ? 'l' : 'c'}`)
  }
  return out
}

export const clipTo = (data: string, from: { readonly x: number; readonly y: number }, height: number): string[] => [
  ...pathOf(data, from, height),
  'W* n',
]

/** A wavy line from left to right, each half wave four times as long as the line is thick. */
export function wave(x: number, y: number, width: number, thickness: number): string {
  const half = thickness * 4
  const path = [`${number(x)} ${number(y)} m`]
  for (let at = 0, side = 1; at < width; at += half, side = -side) {
    const end = Math.min(at + half, width)
    const swing = number(y + side * thickness * 1.6)
    path.push(
      `${number(x + at + (end - at) / 3)} ${swing} ${number(x + at + ((end - at) * 2) / 3)} ${swing} ${number(x + end)} ${number(y)} c`,
    )
  }
  return path.join(' ')
}

/** How long crop marks are, and how far from what is cut off. */
export const markLength = 14
export const markGap = 5

/** Crop marks at the corners of the trimmed page. @param stroke the operator that gives them their colour */
export function marks(page: DisplayPage, around: number, bleed: number, stroke: string): string[] {
  const out = [`q ${stroke} 0.25 w`]
  const far = around - bleed - markGap
  const line = (x1: number, y1: number, x2: number, y2: number) =>
    out.push(`${number(x1)} ${number(y1)} m ${number(x2)} ${number(y2)} l S`)
  for (const x of [around, around + page.width]) {
    line(x, far, x, far - markLength)
    line(x, around * 2 + page.height - far, x, around * 2 + page.height - far + markLength)
  }
  for (const y of [around, around + page.height]) {
    line(far, y, far - markLength, y)
    line(around * 2 + page.width - far, y, around * 2 + page.width - far + markLength, y)
  }
  return [...out, 'Q']
}
