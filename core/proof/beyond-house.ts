import type { Occurrence } from '../census/occurrence'
import { contrast } from '../colour/contrast'
import type { House } from '../house/house'
import { beyondLimits, placeLimit, type BeyondLimit } from '../house/limits'
import type { DocumentSession } from '../session'
import { plainNumber } from '../style/describe'
import { groundsOf, type OnGround } from './grounds'
import { Subject, visibleCount } from './subject'

/** A colour as the palette calls it, else its value. */
const named = (house: House, color: string): string =>
  house.palette.find(each => each.color === color.toLowerCase())?.title ?? color

/** Text whose contrast on what it stands on is less than the house asks for; on pictures and gradients by its worst place. */
function beyondContrast(session: DocumentSession, house: House): BeyondLimit[] {
  const wanted = house.limits.contrast
  if (wanted === undefined) return []
  const entries = new Map<string, { found: OnGround; ratio: number; characters: number; places: Occurrence[] }>()
  for (const found of groundsOf(new Subject(session, house))) {
    const { text, from, to, color, on, ground } = found
    if (ground === null) continue
    const ratio = contrast(color, ground)
    if (ratio >= wanted - 1e-6) continue
    const key = `${color} ${on === 'plain' ? ground : on}`
    const entry = entries.get(key) ?? { found, ratio, characters: 0, places: [] }
    if (ratio < entry.ratio) Object.assign(entry, { found, ratio })
    entries.set(key, entry)
    entry.characters += visibleCount(text.text.slice(from, to))
    const { part, node, place } = text.paragraph
    if (entry.places.length < placeLimit)
      entry.places.push({ part, node, place, start: from, end: to, page: text.page, face: '', voice: '' })
  }
  return [...entries.values()]
    .map(({ found: { color, on, ground }, ratio, characters, places }): BeyondLimit => {
      const under = on === 'plain' ? named(house, ground!) : `a ${on}`
      const says = `${named(house, color)} on ${under}, ${Math.floor(ratio * 10) / 10} : 1`
      return { limit: 'contrast', title: `Contrast below ${plainNumber(wanted)} : 1`, says, characters, places }
    })
    .sort((a, b) => b.characters - a.characters)
}

/** All that goes beyond the limits of a house: of what is set, and of what it stands on. */
export const beyondHouse = (session: DocumentSession, house: House): BeyondLimit[] => [
  ...beyondLimits(session.reading, session.typesetter.library, session.composition, house),
  ...beyondContrast(session, house),
]
