import { points } from '../document/lengths'
import { plainNumber } from './describe'
import { percent } from './properties'

/** Units in which lengths are told; a point is 1/72 in (CSS Values 3, 6.2). */
export const lengthUnits = ['mm', 'cm', 'in', 'pt'] as const
export type LengthUnit = (typeof lengthUnits)[number]
/** How long each is in points, and to how many decimals it is told: to a hundredth of a millimetre or finer. */
const told: Readonly<Record<LengthUnit, { readonly points: number; readonly decimals: number }>> = {
  mm: { points: 72 / 25.4, decimals: 2 },
  cm: { points: 72 / 2.54, decimals: 3 },
  in: { points: 72, decimals: 4 },
  pt: { points: 1, decimals: 2 },
}

/** A length that was typed, in points: with any unit, or in the one said without one; null where it is none. */
export function typedLength(text: string, bare: LengthUnit = 'mm'): number | null {
  const trimmed = text.trim().replace(',', '.')
  return /^-?\d+(\.\d+)?$/.test(trimmed) ? points(`${trimmed}${bare}`) : points(trimmed.replace(/\s+/g, ''))
}

/** A length in points, told in a unit. */
export function saidLength(value: number, unit: LengthUnit = 'mm'): string {
  const { points: one, decimals } = told[unit]
  // Adding zero tells no “-0”.
  return `${Number((value / one).toFixed(decimals)) + 0} ${unit}`
}

/** A tab stop, its position in points. */
export interface TabStopValue {
  readonly position: number
  readonly type: 'left' | 'center' | 'right' | 'char'
  readonly char?: string | undefined
  readonly leader?: string | undefined
}

/** Tab stops as they are typed and shown: “36 pt; 4 cm right .; 6 cm at ,”. */
export const saidTabs = (tabs: readonly TabStopValue[]): string =>
  tabs
    .map(tab =>
      [
        `${plainNumber(tab.position)} pt`,
        ...(tab.type === 'left' ? [] : [tab.type === 'char' ? `at ${tab.char ?? '.'}` : tab.type]),
        ...(tab.leader ? [tab.leader] : []),
      ].join(' '),
    )
    .join('; ')

const oneTab = /^\s*(-?[\d.,]+\s*(?:mm|cm|in|pt|pc|px)?)\s*(left|right|center|centre|centred|at \S)?\s*([^\s\w;])?\s*$/

/** The tab stops that somebody typed, points without a unit; or the part that is none. Null where nothing stands. */
export function typedTabs(text: string): { readonly tabs: TabStopValue[] | null } | { readonly wrong: string } {
  if (text.trim() === '') return { tabs: null }
  const tabs: TabStopValue[] = []
  for (const each of text.split(';')) {
    const match = oneTab.exec(each)
    const position = match && typedLength(match[1]!, 'pt')
    if (!match || position === null) return { wrong: each.trim() }
    const kind = match[2] ?? 'left'
    tabs.push({
      position,
      type: kind.startsWith('at') ? 'char' : kind.startsWith('cent') ? 'center' : (kind as 'left' | 'right'),
      ...(kind.startsWith('at') ? { char: kind.slice(3) } : {}),
      ...(match[3] ? { leader: match[3] } : {}),
    })
  }
  return { tabs }
}

/** How leading is said: by the face, as high as the size, as a share of it, or in points. */
export type LeadingKind = 'face' | 'solid' | 'percent' | 'points'

export function leadingKind(value: string): LeadingKind {
  if (value === 'normal') return 'face'
  if (value === '100%') return 'solid'
  return percent(value) === null ? 'points' : 'percent'
}

/** A leading in points at a size; that of a face, which only the face knows, as a fifth more than the size. */
export const leadingPoints = (value: string, size: number): number => points(value) ?? (percent(value) ?? 1.2) * size

/** The same leading said another way, to a hundredth of a point or a percent. */
export function leadingAs(kind: LeadingKind, value: string, size: number): string {
  if (kind === 'face') return 'normal'
  if (kind === 'solid') return '100%'
  const now = leadingPoints(value, size)
  return kind === 'percent' ? `${Math.round((now / size) * 100)}%` : `${plainNumber(now)}pt`
}

/** A leading that somebody typed where it is said in some way; null where it is none. */
export function typedLeading(text: string, kind: LeadingKind): string | null {
  if (kind === 'percent') {
    const number = Number.parseFloat(text.replace(',', '.'))
    return number > 0 ? `${plainNumber(number)}%` : null
  }
  const length = typedLength(text, 'pt')
  return length !== null && length > 0 ? `${plainNumber(length)}pt` : null
}
