import type { TypeMeasures } from './measure/type-measures'

/** What a face is, as the trade sorts them. */
export const typeClasses = ['serif', 'slab', 'sans', 'script', 'monospaced', 'display'] as const
export type TypeClass = (typeof typeClasses)[number]

/** The finer kinds of each class. */
export const typeKinds = {
  serif: ['old-style', 'transitional', 'modern'],
  slab: ['bracketed', 'unbracketed'],
  sans: ['grotesque', 'humanist', 'geometric'],
  script: ['joined', 'brush', 'hand'],
  monospaced: ['with serifs', 'without serifs'],
  display: ['rough', 'cut or lined', 'fat', 'condensed', 'capitals', 'fancy'],
} as const satisfies Readonly<Record<TypeClass, readonly string[]>>
export type TypeKind = (typeof typeKinds)[TypeClass][number]

/** A face's class with how sure it is, and what speaks for it in words. */
export interface Classed {
  readonly class: TypeClass
  readonly kind: TypeKind
  /** How far the class lies before the next: 0 is a draw, 1 leaves no doubt. */
  readonly margin: number
  readonly reasons: readonly string[]
}

/** 0 up to one value, 1 from another, and straight between. They may fall, too. */
const rise = (value: number | null, from: number, to: number): number =>
  value === null ? 0 : Math.max(0, Math.min(1, (value - from) / (to - from)))

/** Serif height over stem: what tells slabs. */
const serifShare = ({ serif, stem }: TypeMeasures) => (serif === null || stem === 0 ? 0 : serif / stem)

/** How much speaks for feet with serifs, 0 to 1. */
function serifEvidence(m: TypeMeasures): number {
  // A foot that reaches out on one side alone is the end of a stroke of the pen.
  return Math.max(rise(m.footBothSides, 0.1, 0.3), rise(m.foot, 1.3, 1.7) * rise(m.footBothSides, 0.02, 0.08))
}

/** How much speaks for a hand or a pen, 0 to 1: joined or slanted upright letters, strokes that waver, feet that dance. */
function scriptEvidence(m: TypeMeasures): number {
  const joined = rise(m.joined, 0.35, 0.85) * (m.widthSpread !== null && m.widthSpread < 0.01 ? 0 : 1)
  const waver = rise(m.waver, 0.02, 0.1)
  const slanted = rise(Math.abs(m.slant), 3, 12)
  const jitter = rise(m.jitter, 2, 10)
  const tapering = rise(m.foot, 0.95, 0.8)
  const bare = 1 - serifEvidence(m)
  return Math.min(1, bare * (joined * 0.55 + waver * 0.55 + slanted * 0.25 + jitter * 0.3 + tapering * 0.2))
}

/** How much speaks for a face that is to be looked at rather than read, 0 to 1. */
function displayEvidence(m: TypeMeasures): number {
  return Math.max(
    // Loops of joined letters are contours of their own, and none of them decorates anything.
    rise(m.extraContours, 0.4, 1) * (1 - rise(m.joined, 0.5, 0.8) * 0.8),
    rise(m.roughness, 2.5, 6),
    rise(m.stem, 150, 190) * 0.7,
    rise(m.smallCapitals, 0.6, 0.9) * 0.75,
  )
}

function scores(m: TypeMeasures): Record<TypeClass, number> {
  const monospaced = m.widthSpread !== null && m.widthSpread < 0.01 ? 1 : 0
  const feet = serifEvidence(m)
  // A leaning axis is a pen's, however heavy the serifs are.
  const slab = rise(serifShare(m), 0.42, 0.6) * rise(m.contrast, 1.9, 1.5) * rise(Math.abs(m.stress ?? 0), 14, 6)
  const script = scriptEvidence(m)
  const display = displayEvidence(m)
  const text = (1 - monospaced) * (1 - script * 0.9) * (1 - display * 0.75)
  return {
    monospaced: monospaced * (1 - display * 0.3),
    script: (1 - monospaced) * script * (1 - display * 0.3),
    display: display * (1 - monospaced * 0.5),
    slab: text * feet * slab,
    serif: text * feet * (1 - slab),
    sans: text * (1 - feet),
  }
}

const figure = (value: number, places = 0) => value.toFixed(places)

function serifKind(m: TypeMeasures): TypeKind {
  const contrast = m.contrast ?? 1
  if (contrast >= 3.2 && Math.abs(m.stress ?? 0) < 5) return 'modern'
  return (m.stress ?? 0) >= 5.5 || contrast < 1.75 ? 'old-style' : 'transitional'
}

function sansKind(m: TypeMeasures): TypeKind {
  const roundO = m.widthO !== null && m.widthN !== null && m.widthN > 0 ? m.widthO / m.widthN : 1
  const circle = Math.abs((m.roundness ?? 1) - 0.79) < 0.02
  if (
    circle &&
    roundO > 1.12 &&
    (m.contrast ?? 1) < (m.storeysA === 1 ? 1.45 : 1.3) &&
    (m.storeysA === 1 || roundO > 1.18)
  )
    return 'geometric'
  return (m.aperture ?? 0) > 0.33 || (m.contrast ?? 1) > 1.4 ? 'humanist' : 'grotesque'
}

function displayKind(m: TypeMeasures): TypeKind {
  if ((m.roughness ?? 0) > 3) return 'rough'
  if ((m.extraContours ?? 0) >= 0.5) return 'cut or lined'
  if (m.stem > 150) return 'fat'
  return m.smallCapitals > 0.6 ? 'capitals' : 'fancy'
}

function kindOf(typeClass: TypeClass, m: TypeMeasures): TypeKind {
  switch (typeClass) {
    case 'serif':
      return serifKind(m)
    case 'slab':
      return (m.bracket ?? 0) > 0.2 ? 'bracketed' : 'unbracketed'
    case 'sans':
      return sansKind(m)
    case 'script':
      if ((m.joined ?? 0) > 0.6) return 'joined'
      return m.stem > 85 && (m.contrast ?? 1) > 1.25 ? 'brush' : 'hand'
    case 'monospaced':
      return serifEvidence(m) > 0.5 ? 'with serifs' : 'without serifs'
    case 'display':
      return displayKind(m)
  }
}

function reasonsOf(typeClass: TypeClass, m: TypeMeasures): string[] {
  const feet = `feet ${figure(m.foot, 1)} times as wide as the stems`
  const contrast = m.contrast === null ? [] : [`thick to thin ${figure(m.contrast, 1)}`]
  switch (typeClass) {
    case 'serif':
      return [feet, ...contrast, ...(m.stress === null ? [] : [`stress ${figure(m.stress)}°`])]
    case 'slab':
      return [feet, `serifs ${figure(serifShare(m) * 100)} % as high as the stems are wide`, ...contrast]
    case 'sans':
      return ['feet as wide as the stems', ...contrast]
    case 'monospaced':
      return ['all letters of one width']
    case 'script':
      return [
        ...((m.joined ?? 0) > 0.5 ? [`${figure(m.joined! * 100)} % of the letters reach the next`] : []),
        ...(Math.abs(m.slant) > 3 ? [`stems lean ${figure(m.slant)}°`] : []),
        ...((m.waver ?? 0) > 0.03 ? [`edges of stems stray by ${figure(m.waver! * 100)} % of their width`] : []),
        ...(m.jitter > 3 ? [`letters stand unevenly by ${figure(m.jitter)}`] : []),
      ]
    case 'display':
      return [
        ...((m.extraContours ?? 0) >= 0.5 ? ['letters of more parts than their form asks for'] : []),
        ...((m.roughness ?? 0) > 2.5 ? [`outlines rough by ${figure(m.roughness!, 1)}`] : []),
        ...(m.stem > 150 ? [`stems ${figure(m.stem)} wide`] : []),
        ...(m.smallCapitals > 0.6 ? ['lower case drawn as capitals'] : []),
      ]
  }
}

/**
 * What a face is, from its measures. The limits were tuned on one half of families that others had labelled; how it does on
 * the other half, and what outlines cannot tell, stands in `docs/type.md`.
 */
export function classify(measures: TypeMeasures): Classed {
  const own = known.get(measures) ?? classified(measures)
  known.set(measures, own)
  return own
}

const known = new WeakMap<TypeMeasures, Classed>()

function classified(measures: TypeMeasures): Classed {
  const ranked = Object.entries(scores(measures)).sort(([, one], [, other]) => other - one) as [TypeClass, number][]
  const [[first, most], [, next]] = ranked as [[TypeClass, number], [TypeClass, number]]
  return {
    class: first,
    kind: kindOf(first, measures),
    margin: Math.round((most === 0 ? 0 : (most - next) / most) * 100) / 100,
    reasons: reasonsOf(first, measures),
  }
}
