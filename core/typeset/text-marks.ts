import { points } from '../document/lengths'
import type { LineHeights } from '../font/line-heights'
import { percent } from '../style/properties'

/**
 * A line beside the text: where its middle is above the baseline (underlines are below: negative) and how thick, in
 * points.
 */
export interface TextLineMark {
  readonly middle: number
  readonly thickness: number
  readonly color: string
  readonly pattern: 'solid' | 'double' | 'dotted' | 'dashed' | 'wave'
}

/**
 * A line under or through text (ODF 1.4 part 3, 20.385 to 20.393): places and thickness are the font's own unless
 * the file says more.
 */
export function lineMark(
  style: string,
  type: string,
  color: string,
  width: string,
  textColor: string,
  middle: number,
  thickness: number,
  size: number,
): TextLineMark | null {
  if (style === 'none' || style === '') return null
  const thick =
    points(width) ??
    (percent(width) !== null
      ? percent(width)! * size
      : ((thickness * size) / 1000) * (width === 'bold' || width === 'thick' ? 2 : width === 'thin' ? 0.5 : 1))
  const pattern =
    type === 'double'
      ? 'double'
      : style === 'dotted'
        ? 'dotted'
        : /dash/.test(style)
          ? 'dashed'
          : style === 'wave'
            ? 'wave'
            : 'solid'
  return {
    middle: (middle * size) / 1000,
    thickness: Math.max(thick, 0.2),
    color: /^#[0-9a-f]{6}$/i.test(color) ? color : textColor,
    pattern,
  }
}

/**
 * style:text-position (20.410): a rise as a percentage of the size, or super or sub, and the size of raised text
 * (58 % where unsaid). Without a figure it stays within the line: raised to its top, lowered to its foot.
 */
export function textPosition(value: string, size: number, lines: LineHeights): { rise: number; scale: number } {
  const [where, scaled] = value.trim().split(/\s+/)
  if (!where) return { rise: 0, scale: 1 }
  const small = percent(scaled) ?? 0.58
  if (where === 'super') return { rise: ((lines.above * size) / 1000) * (1 - small), scale: small }
  if (where === 'sub') return { rise: ((-lines.below * size) / 1000) * (1 - small), scale: small }
  const rise = percent(where) ?? 0
  return { rise: rise * size, scale: rise === 0 ? 1 : small }
}
