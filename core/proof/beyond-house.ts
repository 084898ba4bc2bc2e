import type { Occurrence } from '../census/occurrence'
import { contrast } from '../colour/contrast'
import type { House } from '../house/house'
import { beyondLimits, placeLimit, type BeyondLimit } from '../house/limits'
import type { DocumentSession } from '../session'
import { plainNumber } from '../style/describe'
import { groundsOf } from './grounds'
import { Subject, visibleCount } from './subject'

/** A colour as the palette calls it, else its value. */
const named = (house: House, color: string): string =>
  house.palette.find(each => each.color === color.toLowerCase())?.title ?? color

/** Text whose contrast on what it stands on is less than the house asks for; what stands on pictures is not told. */
function beyondContrast(session: DocumentSession, house: House): BeyondLimit[] {
  const wanted = house.limits.contrast
  if (wanted === undefined) return []
  const entries = new Map<string, BeyondLimit & { characters: number; places: Occurrence[] }>()
  for (const { text, from, to, color, ground } of groundsOf(new Subject(session, house))) {
    if (ground === null) continue
    const ratio = contrast(color, ground)
    if (ratio >= wanted - 1e-6) continue
    const says = `${named(house, color)} on ${named(house, ground)}, ${Math.floor(ratio * 10) / 10} : 1`
    const entry = entries.get(says) ?? {
      limit: 'contrast',
      title: `Contrast below ${plainNumber(wanted)} : 1`,
      says,
      characters: 0,
      places: [],
    }
    entries.set(says, entry)
    entry.characters += visibleCount(text.text.slice(from, to))
    const { part, node, place } = text.paragraph
    if (entry.places.length < placeLimit)
      entry.places.push({ part, node, place, start: from, end: to, page: text.page, face: '', voice: '' })
  }
  return [...entries.values()].sort((a, b) => b.characters - a.characters)
}

/** All that goes beyond the limits of a house: of what is set, and of what it stands on. */
export const beyondHouse = (session: DocumentSession, house: House): BeyondLimit[] => [
  ...beyondLimits(session.reading, session.typesetter.library, session.composition, house),
  ...beyondContrast(session, house),
]
