import { distanceOf, lchOf } from '../colour/oklch'
import type { NamedColor, Painted } from '../document/colours'
import type { House, HouseColor } from './house'

/** A colour that a document names, with what it is on and in how many places. */
export interface UsedColor {
  readonly color: string
  readonly on: readonly { readonly on: Painted; readonly places: number }[]
  readonly places: number
}

/** Colours that are named, those in most places first; what text alone has is left to the roles of the text. */
export function usedColors(named: Iterable<NamedColor>): UsedColor[] {
  const counts = new Map<string, Map<Painted, number>>()
  for (const { color, on } of named) {
    const own = counts.get(color) ?? new Map<Painted, number>()
    counts.set(color, own.set(on, (own.get(on) ?? 0) + 1))
  }
  return [...counts]
    .map(([color, own]) => ({
      color,
      on: [...own].filter(([on]) => on !== 'text').map(([on, places]) => ({ on, places })),
    }))
    .map(each => ({ ...each, places: each.on.reduce((sum, { places }) => sum + places, 0) }))
    .filter(each => each.places > 0)
    .sort((one, other) => other.places - one.places || (one.color < other.color ? -1 : 1))
}

/** What of a document could be painted as a house has it: a colour, what it is on, and what takes its place; null: it stays. */
export interface ProposedPaint extends UsedColor {
  readonly to: string | null
  /** Why it is proposed so, in words. */
  readonly why: string
}

/** Below this chroma a colour is grey to most eyes; it is held against greys first. */
const grey = 0.03
/** Further apart than this two colours are not each other’s next: about a third of the way from black to white. */
const furthest = 0.3

const isGrey = (color: string) => (lchOf(color)?.chroma ?? 0) < grey

/**
 * What a document’s colours become in a house. A colour of the palette stays. One of the house that the document was in
 * before becomes the one that does the same there, by its name or else by its place among those. All others become the
 * nearest of the palette by their distance in OKLab, greys among greys; white and black, and what is far from all, stay.
 */
export function proposePaints(used: readonly UsedColor[], house: House, before: House | null): ProposedPaint[] {
  const palette = house.palette
  return used.map(each => {
    if (palette.some(({ color }) => color === each.color)) return { ...each, to: null, why: 'it is of the palette' }
    const known = before && inOther(each.color, before, house)
    if (known) return { ...each, to: known.color, why: `${before.name} has it for what ${known.title} does here` }
    if (each.color === '#ffffff' || each.color === '#000000') return { ...each, to: null, why: 'white and black stay' }
    const likes = palette.filter(({ color }) => isGrey(color) === isGrey(each.color))
    const [nearest] = likes
      .map(color => ({ color, apart: distanceOf(each.color, color.color) }))
      .filter(({ apart }) => apart <= furthest)
      .sort((one, other) => one.apart - other.apart)
    return nearest
      ? { ...each, to: nearest.color.color, why: `${nearest.color.title} is nearest` }
      : { ...each, to: null, why: 'no colour of the palette is near' }
  })
}

/** What is painted of what was proposed, as a wish takes it; `to` says otherwise for some: null or '' where a colour stays. */
export const paintsOf = (
  proposed: readonly ProposedPaint[],
  to: (each: ProposedPaint) => string | null = each => each.to,
): { readonly from: string; readonly to: string; readonly on: Painted[] }[] =>
  proposed.flatMap(each => {
    const next = to(each)
    return next && next !== each.color ? [{ from: each.color, to: next, on: each.on.map(({ on }) => on) }] : []
  })

/** The colour of a house that does what a colour of another does: of the same name, else at the same place among its like. */
function inOther(color: string, from: House, to: House): HouseColor | null {
  const own = from.palette.find(each => each.color === color)
  if (!own) return null
  const named = to.palette.find(each => each.title === own.title && each.does === own.does)
  if (named) return named
  const at = from.palette.filter(each => each.does === own.does).indexOf(own)
  return to.palette.filter(each => each.does === own.does)[at] ?? null
}
