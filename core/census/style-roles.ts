import type { Role, RoleId } from '../document/rules'
import { paragraphsOf } from '../document/stories'
import type { Style } from '../document/styles'
import { proposeRole } from '../style/roles'
import { paragraphRuns } from '../style/runs'
import type { Reading } from '../style/reading'

/** What text of a style does: as somebody confirmed it, or as it is proposed. */
export interface StyleRole {
  readonly role: RoleId | null
  readonly proposed: boolean
}

export const styleKey = (style: Pick<Style, 'family' | 'name'>): string => `${style.family}\n${style.name}`

/** What placeholders of presentations are for says it outright (presentation:class, ODF 1.4 part 3, 19.391). */
const placeholderRoles: readonly (readonly [RegExp, Role])[] = [
  [/subtitle$/i, 'lead'],
  [/title$/i, 'display'],
  [/outline\d?$/i, 'body'],
  [/notes$/i, 'note'],
]

/** What a style is for where its family says it: placeholders, and cells of tables. */
const roleByFamily = (family: string, name: string): Role | undefined =>
  family === 'presentation'
    ? placeholderRoles.find(([pattern]) => pattern.test(name))?.[1]
    : family === 'table-cell'
      ? 'data'
      : undefined

interface Use {
  paragraphs: number
  characters: number
  size: number
  bold: boolean
  places: Map<string, number>
  level: number | null
  title: string
}

const kept = new WeakMap<Reading, Map<string, StyleRole>>()

/** Roles of the named styles that paragraphs go by (paragraph, graphic and presentation styles), by `styleKey`. */
export function styleRoles(reading: Reading): ReadonlyMap<string, StyleRole> {
  const known = kept.get(reading)
  if (known) return known
  const { cascade } = reading
  const uses = new Map<string, Use>()
  for (const story of reading.stories) {
    if (story.role === 'deletions') continue
    for (const paragraph of paragraphsOf(story.blocks)) {
      const { text } = cascade.paragraph(paragraph, story.role)
      const owner = text.owner?.style
      if (!owner) continue
      const key = styleKey(owner)
      let use = uses.get(key)
      if (!use) {
        const { size, weight } = cascade.named(owner.part, owner.family, owner.name).effective.slots.western
        uses.set(
          key,
          (use = {
            paragraphs: 0,
            characters: 0,
            size,
            bold: weight >= 600,
            places: new Map(),
            level: null,
            title: owner.displayName,
          }),
        )
      }
      use.paragraphs++
      if (paragraph.heading !== null) use.level = Math.min(use.level ?? 10, paragraph.heading)
      let count = 0
      for (const run of paragraphRuns(paragraph, cascade, story.role).runs) count += run.end - run.start
      use.characters += count
      use.places.set(paragraph.place, (use.places.get(paragraph.place) ?? 0) + count)
    }
  }
  const most = [...uses].reduce<readonly [string, Use] | null>(
    (best, each) => (each[1].characters > (best ? best[1].characters : 0) ? each : best),
    null,
  )
  const result = new Map<string, StyleRole>()
  for (const [key, use] of uses) {
    const [family, name] = key.split('\n') as [string, string]
    const confirmed = cascade.rules.styles.find(each => each.style.family === family && each.style.name === name)?.role
    const role =
      confirmed ??
      roleByFamily(family, name) ??
      proposeRole({
        name: use.title,
        size: use.size,
        bodySize: most?.[1].size ?? 12,
        bold: use.bold,
        characters: use.characters,
        paragraphs: use.paragraphs,
        most: key === most?.[0],
        level: use.level,
        place: [...use.places].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 'body',
      })
    result.set(key, { role, proposed: confirmed === undefined })
  }
  kept.set(reading, result)
  return result
}
