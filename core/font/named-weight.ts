import { sameFamily } from '../document/font-family'

/** Weights that families carry in their names (CSS Fonts 4, 2.2.1: common weight names). */
const namedWeights: readonly (readonly [RegExp, number])[] = [
  [/^thin$/i, 100],
  [/^(extra|ultra) ?light$/i, 200],
  [/^light$/i, 300],
  [/^(regular|book|roman)$/i, 400],
  [/^medium$/i, 500],
  [/^(semi|demi) ?bold$/i, 600],
  [/^bold$/i, 700],
  [/^(extra|ultra) ?bold$/i, 800],
  [/^(black|heavy)$/i, 900],
]

/**
 * The weight that a family's name says beyond another's: of “Spectral SemiBold” beside “Spectral” it is 600, of a family
 * itself 400; null where it is another family.
 */
export function weightBeyond(family: string, base: string): number | null {
  if (sameFamily(family, base)) return 400
  if (!family.toLowerCase().startsWith(`${base.toLowerCase()} `)) return null
  const rest = family.slice(base.length + 1).trim()
  return namedWeights.find(([name]) => name.test(rest))?.[1] ?? null
}
