import type { Role, RoleId } from '../document/rules'
import { standingParagraphs } from '../document/stories'
import { ownOutlineLevel, type Style } from '../document/styles'
import type { Cascade } from '../style/cascade'
import { isFixedPitch } from '../style/fixed-pitch'
import { contentsEntry, proposeRole } from '../style/roles'
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

/** What is counted of the text of a style. */
interface Use {
  readonly style: Style
  readonly size: number
  readonly bold: boolean
  paragraphs: number
  characters: number
  /** Characters that are set in a face of one width. */
  fixed: number
  entries: number
  places: Map<string, number>
  level: number | null
  /** Its first paragraph with text and its last, of all that have some. */
  first: number
  last: number
}

/** So far from the beginning a title stands at most, and in so many pieces. */
const titlePlace = 8
const titlePieces = 3

const kept = new WeakMap<Reading, Map<string, StyleRole>>()

function usesOf(reading: Reading): Map<string, Use> {
  const { cascade } = reading
  const uses = new Map<string, Use>()
  let at = 0
  for (const { paragraph, story } of standingParagraphs(reading)) {
    const owner = cascade.paragraph(paragraph, story.role).text.owner?.style
    if (!owner) continue
    const key = styleKey(owner)
    const use = uses.get(key) ?? newUse(owner, cascade)
    uses.set(key, use)
    use.paragraphs++
    if (paragraph.heading !== null) use.level = Math.min(use.level ?? 10, paragraph.heading)
    const { runs, text } = paragraphRuns(paragraph, cascade, story.role)
    let count = 0
    for (const { start, end, slot, style } of runs) {
      count += end - start
      if (isFixedPitch(style.effective.slots[slot].font)) use.fixed += end - start
    }
    use.characters += count
    use.places.set(paragraph.place, (use.places.get(paragraph.place) ?? 0) + count)
    if (contentsEntry.test(text)) use.entries++
    if (text.trim() === '') continue
    use.first = Math.min(use.first, at)
    use.last = at++
  }
  return uses
}

function newUse(style: Style, cascade: Cascade): Use {
  const { size, weight } = cascade.named(style.part, style.family, style.name).effective.slots.western
  return {
    style,
    size,
    bold: weight >= 600,
    paragraphs: 0,
    characters: 0,
    fixed: 0,
    entries: 0,
    places: new Map(),
    level: ownOutlineLevel(style),
    first: Infinity,
    last: -1,
  }
}

/** From this share of its text on, a style is one of text of one width. */
const mostlyFixed = 0.8
const isFixed = ({ fixed, characters }: Use): boolean => characters > 0 && fixed >= characters * mostlyFixed
const placeOf = ({ places }: Use): string => [...places].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 'body'
const mostOf = (uses: readonly Use[]): Use | undefined =>
  uses.reduce<Use | undefined>((best, each) => (each.characters > (best?.characters ?? 0) ? each : best), undefined)

/** The title, where it is headings that stand once in front of all others. */
function titleOf(uses: readonly Use[]): Use | null {
  const headings = uses.filter(({ level, characters }) => level !== null && characters > 0)
  const [first] = headings.toSorted((a, b) => a.first - b.first)
  const begins = first && first.first < titlePlace && first.paragraphs <= titlePieces && first.size > 0
  const others = headings.filter(each => each !== first)
  return begins &&
    others.some(each => each.level! > first.level! && each.paragraphs >= 3) &&
    others.every(each => each.level! > first.level! && each.first > first.last)
    ? first
    : null
}

/** Roles of the named styles that paragraphs go by (paragraph, graphic and presentation styles), by `styleKey`. */
export function styleRoles(reading: Reading): ReadonlyMap<string, StyleRole> {
  const known = kept.get(reading)
  if (known) return known
  const uses = usesOf(reading)
  const all = [...uses.values()]
  // What is read: not what stands in tables, nor what programs say.
  const most = mostOf(all.filter(each => !isFixed(each) && /^(body|frame)$/.test(placeOf(each)))) ?? mostOf(all)
  const characters = all.reduce((sum, each) => sum + each.characters, 0)
  const title = titleOf(all)
  const topLevel = Math.min(...all.flatMap(each => (each.level === null || each === title ? [] : [each.level])), 10)
  const result = new Map<string, StyleRole>()
  for (const [key, use] of uses) {
    const { family, name, displayName } = use.style
    const { styles } = reading.cascade.rules
    const confirmed = styles.find(each => each.style.family === family && each.style.name === name)?.role
    const role =
      confirmed ??
      roleByFamily(family, name) ??
      proposeRole({
        name: displayName,
        size: use.size,
        bodySize: most?.size ?? 12,
        bold: use.bold,
        characters: use.characters,
        paragraphs: use.paragraphs,
        most: use === most,
        share: use.characters / Math.max(characters, 1),
        fixed: isFixed(use),
        level: use.level,
        topLevel,
        opens: use === title,
        entries: use.entries / use.paragraphs,
        place: placeOf(use),
      })
    result.set(key, { role, proposed: confirmed === undefined })
  }
  kept.set(reading, result)
  return result
}

/** What a style does, its role or what is proposed; where nothing has it yet, by its family or its level as a heading. */
export const roleOfStyle = (reading: Reading, style: Style): RoleId | null => {
  const used = styleRoles(reading).get(styleKey(style))?.role
  const level = ownOutlineLevel(style)
  const byLevel = level === null ? null : level === 1 ? 'heading' : 'subheading'
  return used ?? roleByFamily(style.family, style.name) ?? byLevel
}
