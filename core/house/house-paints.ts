import { distanceOf, lchOf, shownAt } from '../colour/oklch'
import type { NamedColor, Painted } from '../document/colours'
import type { Rules } from '../document/rules'
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

/** The colours of a house. */
export type HousePalette = Pick<House, 'palette'>

/** The colours that a house had, as documents that were dressed in it know them. */
export interface HouseBefore {
  readonly name: string
  readonly palette: readonly ColorBefore[]
}
type ColorBefore = Pick<HouseColor, 'title' | 'color'> & { readonly does: string }

/** The house that a document was dressed in last, where the document knows its palette. */
export const houseBefore = ({ house }: Pick<Rules, 'house'>): HouseBefore | null =>
  house?.palette ? { name: house.name, palette: house.palette } : null

/** As many colours of a document are painted at a time, those in most places first. */
export const mostPaints = 200

/** Below this chroma a colour is grey to most eyes; it is held against greys alone. */
const grey = 0.03
/** Further apart than this in OKLab two colours are not meant to be the same one. */
const furthest = 0.12
/** Hues so far apart are told apart where lightness and chroma differ, too: a tint has the hue of its colour. Degrees. */
const sameHue = 15

const isGrey = (color: string) => (lchOf(color)?.chroma ?? 0) < grey

/** What takes a colour's place, and why. */
type Next = Pick<ProposedPaint, 'to' | 'why'>

/**
 * What a document's colours become in a house. A colour of the palette stays. One of the house that the document was in
 * before becomes the one that does the same there, by its name or else by its place among those; its tints and shades become
 * those of that one. All others become the nearest of the palette where that is near, greys among greys; white and black
 * stay. Colours of chart series stay apart: where two would become one, the second keeps what it has.
 */
export function proposePaints(
  used: readonly UsedColor[],
  house: HousePalette,
  before: HouseBefore | null,
): ProposedPaint[] {
  const ofSeries = new Set<string>()
  return used.map(each => {
    const next = nextOf(each.color, house, before)
    if (!each.on.some(({ on }) => on === 'series')) return { ...each, ...next }
    const seen = next.to ?? each.color
    if (ofSeries.has(seen)) return { ...each, to: null, why: 'two series would look alike' }
    ofSeries.add(seen)
    return { ...each, ...next }
  })
}

function nextOf(color: string, house: HousePalette, before: HouseBefore | null): Next {
  if (house.palette.some(each => each.color === color)) return { to: null, why: 'it is of the palette' }
  const own = before?.palette.find(each => each.color === color)
  const known = own && inOther(own, before!, house)
  if (known) return { to: known.color, why: `${known.title} does here what ${own.title} did in ${before!.name}` }
  if (color === '#ffffff' || color === '#000000') return { to: null, why: 'white and black stay' }
  const [nearest] = house.palette
    .filter(each => isGrey(each.color) === isGrey(color))
    .map(each => ({ ...each, apart: distanceOf(color, each.color) }))
    .filter(({ apart }) => apart <= furthest)
    .sort((one, other) => one.apart - other.apart)
  if (nearest) return { to: nearest.color, why: `${nearest.title} is nearest` }
  return (before && tintOf(color, before, house)) ?? { to: null, why: 'no colour of the palette is near' }
}

/** A tint or shade of a colour of the house before: as light as it was, in the hue of what took that colour's place. */
function tintOf(color: string, before: HouseBefore, house: HousePalette): Next | null {
  const own = lchOf(color)!
  if (own.chroma < grey / 3) return null
  const apart = (hue: number) => Math.abs(((hue - own.hue + 540) % 360) - 180)
  const [from] = before.palette
    .filter(each => !isGrey(each.color))
    .map(each => ({ ...each, lch: lchOf(each.color)! }))
    .filter(({ lch }) => apart(lch.hue) <= sameHue)
    .sort((one, other) => apart(one.lch.hue) - apart(other.lch.hue))
  const to = from && inOther(from, before, house)
  if (!to) return null
  const next = lchOf(to.color)!
  const { color: made } = shownAt({
    lightness: own.lightness,
    chroma: next.chroma * (own.chroma / from.lch.chroma),
    hue: next.hue,
  })
  return made === color ? null : { to: made, why: `as ${color} was of ${from.title}, of ${to.title}` }
}

/** What is painted of what was proposed, as a wish takes it; `to` says otherwise for some: null or '' where a colour stays. */
export const paintsOf = (
  proposed: readonly ProposedPaint[],
  to: (each: ProposedPaint) => string | null = each => each.to,
): { readonly from: string; readonly to: string; readonly on: Painted[] }[] =>
  proposed
    .flatMap(each => {
      const next = to(each)
      return next && next !== each.color ? [{ from: each.color, to: next, on: each.on.map(({ on }) => on) }] : []
    })
    .slice(0, mostPaints)

/** The colour of a house that does what a colour of another does: of the same name, else at the same place among its like. */
function inOther(own: ColorBefore, from: HouseBefore, to: HousePalette): HouseColor | null {
  const named = to.palette.find(each => each.title === own.title && each.does === own.does)
  if (named) return named
  const at = from.palette
    .filter(each => each.does === own.does)
    .findIndex(each => each.title === own.title && each.color === own.color)
  return to.palette.filter(each => each.does === own.does)[at] ?? null
}
