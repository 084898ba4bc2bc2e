import { points } from '../document/lengths'
import { plainNumber } from './describe'
import { percent } from './properties'

/** A length that was typed, in points: with any unit, or in the one said without one; null where it is none. */
export function typedLength(text: string, bare: 'mm' | 'pt' = 'mm'): number | null {
  const trimmed = text.trim().replace(',', '.')
  return /^-?\d+(\.\d+)?$/.test(trimmed) ? points(`${trimmed}${bare}`) : points(trimmed.replace(/\s+/g, ''))
}

/** Points as millimetres, to a hundredth. */
export const saidMillimetres = (value: number): string => `${Math.round(((value * 25.4) / 72) * 100) / 100} mm`

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
