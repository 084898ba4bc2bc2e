import { points } from '~~/core/document/lengths'

/** A length that was typed, in points: with any unit, or in millimetres without one; null where it is none. */
export function readLength(text: string): number | null {
  const trimmed = text.trim().replace(',', '.')
  if (/^-?\d+(\.\d+)?$/.test(trimmed)) return points(`${trimmed}mm`)
  return points(trimmed.replace(/\s+/g, ''))
}

/** Points as millimetres, to a hundredth. */
export function writeLength(value: number): string {
  return `${Math.round(((value * 25.4) / 72) * 100) / 100} mm`
}
