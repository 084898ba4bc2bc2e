import type { Box } from './formula-box'
import { shifted, type Fragment } from './fragments'

/* How the boxes of a formula stand to one another. Lengths in points. */

/** What arranging asks of the place in the formula. */
export interface Measures {
  readonly size: number
  readonly display: boolean
  /** “#rrggbb”; '' for black. */
  readonly color: string
  /** How high above the baseline bars and signs have their middle. */
  readonly axis: number
  /** Of bars. */
  readonly thickness: number
}

const plainPath = { kind: 'path', fillOpacity: 1, strokeOpacity: 1, dash: [] } as const

function rule(x: number, y: number, width: number, { thickness: high, color }: Measures): Fragment {
  return {
    ...plainPath,
    data: `M0 0 L${width} 0 L${width} ${high} L0 ${high} Z`,
    fill: color || '#000000',
    stroke: '',
    strokeWidth: 0,
    x,
    y: y - high / 2,
    width,
    height: high,
  }
}

/** Moved so that its middle is that of signs. */
export function onAxis(box: Box, axis: number): Box {
  const half = (box.ascent + box.descent) / 2
  const up = axis + half - box.ascent
  return { ...box, ascent: box.ascent + up, descent: box.descent - up, fragments: shifted(box.fragments, 0, -up) }
}

/** One over the other, with a bar between them or none. */
export function fractionBox(upper: Box, lower: Box, ruled: boolean, measures: Measures): Box {
  const { size, display, axis, thickness } = measures
  const gap = size * (display ? 0.18 : 0.1)
  const pad = size * 0.12
  const width = Math.max(upper.width, lower.width) + pad * 2
  const up = axis + thickness / 2 + gap + upper.descent
  const down = lower.ascent + gap + thickness / 2 - axis
  return {
    width,
    ascent: up + upper.ascent,
    descent: down + lower.descent,
    fragments: [
      ...shifted(upper.fragments, (width - upper.width) / 2, -up),
      ...(ruled ? [rule(pad / 2, -axis, width - pad, measures)] : []),
      ...shifted(lower.fragments, (width - lower.width) / 2, down),
    ],
  }
}

/** A root: its sign is drawn around what it is of, whatever its height. */
export function rootBox(inside: Box, degree: Box | null, { size, thickness, color }: Measures): Box {
  const gap = size * 0.12
  const top = Math.max(inside.ascent, size * 0.5) + gap + thickness
  const bottom = inside.descent + size * 0.06
  const sign = size * 0.55
  const lead = degree ? Math.max(degree.width - sign * 0.3, 0) : 0
  const number = (value: number) => String(Math.round(value * 100) / 100)
  const height = top + bottom
  const width = sign + inside.width + gap
  const at = (x: number, y: number) => `${number(x)} ${number(y)}`
  const data =
    `M${at(0, height * 0.6)} L${at(sign * 0.2, height * 0.52)} L${at(sign * 0.5, height)} ` +
    `L${at(sign, thickness / 2)} L${at(width, thickness / 2)}`
  const drawn: Fragment = {
    ...plainPath,
    data,
    fill: '',
    stroke: color || '#000000',
    strokeWidth: thickness,
    x: lead,
    y: -top,
    width,
    height,
  }
  return {
    width: lead + width,
    ascent: Math.max(top, degree ? degree.ascent + degree.descent + height * 0.45 - bottom : 0),
    descent: bottom,
    fragments: [
      drawn,
      ...shifted(inside.fragments, lead + sign, 0),
      ...(degree
        ? shifted(degree.fragments, Math.max(sign * 0.3 - degree.width, 0), bottom - height * 0.5 - degree.descent)
        : []),
    ],
  }
}

/** Scripts behind a base, of the size `inner`. */
export function scriptsBox(base: Box, lower: Box | null, upper: Box | null, size: number, inner: number): Box {
  let up = upper ? Math.max(size * 0.38, base.ascent - inner * 0.35, upper.descent + size * 0.12) : 0
  const down = lower ? Math.max(size * 0.18, base.descent + inner * 0.12) : 0
  // Both keep clear of one another.
  if (upper && lower) up = Math.max(up, lower.ascent - down + upper.descent + size * 0.12)
  const x = base.width + size * 0.04
  return {
    width: x + Math.max(lower?.width ?? 0, upper?.width ?? 0),
    ascent: Math.max(base.ascent, upper ? up + upper.ascent : 0),
    descent: Math.max(base.descent, lower ? down + lower.descent : 0),
    fragments: [
      ...base.fragments,
      ...(upper ? shifted(upper.fragments, x, -up) : []),
      ...(lower ? shifted(lower.fragments, x, down) : []),
    ],
    ...(base.operator ? { operator: base.operator } : {}),
  }
}

/** What stands below and above a base, each in its middle. */
export function limitsBox(base: Box, lower: Box | null, upper: Box | null, gap: number): Box {
  const width = Math.max(base.width, lower?.width ?? 0, upper?.width ?? 0)
  const up = upper ? base.ascent + gap + upper.descent : 0
  const down = lower ? base.descent + gap + lower.ascent : 0
  const middle = (box: Box) => (width - box.width) / 2
  return {
    width,
    ascent: upper ? up + upper.ascent : base.ascent,
    descent: lower ? down + lower.descent : base.descent,
    fragments: [
      ...shifted(base.fragments, middle(base), 0),
      ...(upper ? shifted(upper.fragments, middle(upper), -up) : []),
      ...(lower ? shifted(lower.fragments, middle(lower), down) : []),
    ],
    ...(base.operator ? { operator: base.operator } : {}),
  }
}

/** Cells in rows and columns, each in the middle of its column. */
export function tableBox(cells: readonly (readonly Box[])[], { size, axis }: Measures): Box {
  const columns = Math.max(0, ...cells.map(row => row.length))
  const widths = Array.from({ length: columns }, (_, at) => Math.max(0, ...cells.map(row => row[at]?.width ?? 0)))
  const between = size * 0.6
  const fragments: Fragment[] = []
  let y = 0
  for (const row of cells) {
    const ascent = Math.max(size * 0.7, ...row.map(cell => cell.ascent))
    const descent = Math.max(size * 0.2, ...row.map(cell => cell.descent))
    let x = 0
    row.forEach((cell, at) => {
      fragments.push(...shifted(cell.fragments, x + (widths[at]! - cell.width) / 2, y + ascent))
      x += widths[at]! + between
    })
    y += ascent + descent + size * 0.3
  }
  const height = Math.max(y - size * 0.3, 0)
  const ascent = height / 2 + axis
  return {
    width: widths.reduce((sum, each) => sum + each, 0) + between * Math.max(columns - 1, 0),
    ascent,
    descent: height - ascent,
    fragments: shifted(fragments, 0, -ascent),
  }
}
