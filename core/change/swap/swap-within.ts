import { pitchOf } from '../../font/face'
import { roleTitle } from '../../style/roles'
import { setStyleValues } from '../../document/style-verbs'
import { objectTitle } from '../../document/font-references'
import { resolutionOf } from '../../census/resolution'
import { matchText, paragraphOwner, type Match } from '../../census/matching'
import { styleKey, styleRoles } from '../../census/style-roles'
import { sameFamily } from '../../document/font-family'
import { fontAttributes, type Slot } from '../../document/font-attributes'
import { paragraphsOf, standingParagraphs } from '../../document/stories'
import type { TextStyle } from '../../style/cascade'
import { slotAttributes, weightValue } from '../../style/properties'
import { objectSign, paragraphRuns } from '../../style/runs'
import { faceAsked, faceKey, voiceOf } from '../../census/voices'
import type { Library } from '../../font/library'
import type { Reading } from '../../style/reading'
import type { Numbered } from '../kind'
import { setLocally, type LocalLook } from '../local-look'
import { keyText, type FaceMapping, type RowKey, type TextGroup } from '../plan'
import type { NewRow, Planner } from '../planner'
import { reachesOthers } from '../reach'
import { fontValues, type FontWish } from '../../document/face-verbs'
import type { SizeFactors } from './optical-size'
import type { LocalSize } from './swap-sizes'
import type { TextUse } from './uses'
import type { SwapWish } from './wish'

/** The named style of its paragraph that text goes by: what tells text apart that merely shares a font. */
export function groupStyle(style: TextStyle): TextStyle['effective']['layers'][number]['style'] | null {
  return (
    style.effective.layers.findLast(layer => !layer.local && layer.from !== 'default' && layer.style.family !== 'text')
      ?.style ?? null
  )
}

/** The key of the group that text belongs to. Text of an object goes as one: its styles have no names that anybody gave. */
export function groupKey({ part, style }: Pick<TextUse, 'part' | 'style'>): RowKey {
  const own = groupStyle(style)
  if (part.includes('/')) return { what: 'group', object: part }
  return own ? { what: 'group', family: own.family, name: own.name } : { what: 'group' }
}

/** Text of the families that go, by role and style, most of it first. */
export function swapGroups(planner: Planner, uses: readonly TextUse[]): TextGroup[] {
  const { document, reading } = planner
  const roles = styleRoles(reading)
  const groups = new Map<string, TextGroup & { characters: number }>()
  for (const use of uses) {
    const key = groupKey(use)
    const style = groupStyle(use.style)
    const known = groups.get(keyText(key))
    if (known) known.characters += use.characters
    else
      groups.set(keyText(key), {
        key,
        style: use.part.includes('/') ? objectTitle(document, use.part) : (style?.displayName ?? 'no style'),
        role: style && !use.part.includes('/') ? (roles.get(styleKey(style))?.role ?? null) : null,
        characters: use.characters,
        kept: planner.leaves(key),
      })
  }
  return [...groups.values()].sort((a, b) => b.characters - a.characters || a.style.localeCompare(b.style))
}

/** Whether a use belongs to a group that keeps the old font. */
export const isKept = (planner: Planner, use: TextUse): boolean => planner.leaves(groupKey(use))

const asWish = (style: TextStyle, slot: Slot): FontWish => {
  const { family, generic, pitch } = style.effective.slots[slot].font
  return { family, generic: generic || undefined, pitch: pitch || undefined }
}

/** Gives text that keeps the old font that font outright, where a style that changed had the say. */
export function pinKept(planner: Planner, uses: readonly TextUse[], kept: readonly TextUse[]): LocalSize[] {
  const wanted = new Set(kept)
  const done = new Set<string>()
  const locals: LocalSize[] = []
  for (const use of kept) {
    const { effective } = use.style
    const at = Math.max(effective.slots[use.slot].font.layer, 0)
    const attribute = fontAttributes[use.slot].name
    const holder = effective.layers.slice(at).find(layer => !reachesOthers(layer, use, wanted, uses, attribute))
    if (!holder) {
      locals.push({ style: use.style, slot: use.slot, text: {}, setting: {} })
      continue
    }
    const key = `${holder.style.part}#${holder.style.node}#${use.slot}`
    if (done.has(key)) continue
    done.add(key)
    const { family } = effective.slots[use.slot].font
    const draft = planner.change.on(holder.style.part)
    setStyleValues(draft, holder.style.node, 'text', fontValues(draft, use.slot, asWish(use.style, use.slot)))
    planner.row({
      key: { what: 'kept', part: holder.style.part, node: holder.style.node, slot: use.slot },
      stage: 'kept',
      title: `Keeps its font: ${holder.style.displayName}`,
      characters: use.characters,
      before: family,
      after: family,
      places: [{ part: holder.style.part, node: holder.style.node, attribute }],
    })
  }
  return locals
}

/** Looks for stretches of text, wherever it is, by its style and slot. Text of objects cannot be set by hand. */
export function looksFor(
  reading: Reading,
  locals: readonly LocalSize[],
  fonts: (style: TextStyle, slot: Slot) => FontWish | null,
): LocalLook[] {
  if (locals.length === 0) return []
  const looks: LocalLook[] = []
  for (const { paragraph, story } of standingParagraphs(reading)) {
    const { text, runs } = paragraphRuns(paragraph, reading.cascade, story.role)
    for (const run of runs) {
      if (text.slice(run.start, run.end) === objectSign) continue
      for (const local of locals) {
        if (local.style !== run.style || local.slot !== run.slot) continue
        const font = fonts(run.style, run.slot)
        looks.push({
          paragraph,
          from: run.start,
          to: run.end,
          text: local.text,
          fonts: font ? { [run.slot]: font } : {},
          setting: local.setting,
        })
      }
    }
  }
  return looks
}

/** What paragraphs that are spared looked like before: their fonts as they were, to be written by hand. */
export function sparedLooks(
  reading: Reading,
  spared: readonly { readonly part: string; readonly node: number }[],
  families: readonly string[],
): LocalLook[] {
  const wanted = new Set(spared.map(each => `${each.part}#${each.node}`))
  if (wanted.size === 0) return []
  return reading.stories.flatMap(story =>
    paragraphsOf(story.blocks)
      .filter(paragraph => wanted.has(`${paragraph.part}#${paragraph.node}`))
      .flatMap(paragraph => {
        const { runs } = paragraphRuns(paragraph, reading.cascade, story.role)
        return runs
          .filter(run => families.some(family => sameFamily(family, run.style.effective.slots[run.slot].font.family)))
          .map((run): LocalLook => ({
            paragraph,
            from: run.start,
            to: run.end,
            fonts: { [run.slot]: asWish(run.style, run.slot) },
            setting: {},
            text: { [slotAttributes[run.slot].size]: `${run.style.effective.slots[run.slot].size}pt` },
          }))
      }),
  )
}

/** The text that a wish within limits is about. */
export function withinMatches({ session, library }: Planner, wish: SwapWish): Match[] {
  const { look = {}, scope = { kind: 'document' as const } } = wish.within ?? {}
  // Pages are set only where the wish is about some.
  const composition = scope.kind === 'pages' ? session.composition : null
  return matchText(session.reading, library, composition, {
    look: { ...look, family: wish.from.family, ...(wish.from.style === undefined ? {} : { face: wish.from.style }) },
    scope,
  })
}

/**
 * Carries out a wish within limits: on styles that speak for nothing else where the limits are of style, role, place or
 * language; else by hand on the text itself. Rows are by style, and those left out keep their font.
 */
export function swapWithin(
  planner: Planner,
  numbered: Numbered<SwapWish>,
  matches: readonly Match[],
  mappings: readonly FaceMapping[],
  uses: readonly TextUse[],
  factors: SizeFactors,
): { readonly places: number; readonly characters: number } {
  const change: WithinChange = { wish: numbered.wish, mappings, factors }
  const { rows, inside, included } = sortMatches(planner, numbered, matches)
  const { within } = numbered.wish
  const byStyle = within === undefined || within.scope.kind === 'document'
  // Text that is wholly meant can be changed where its style says so.
  const whole =
    byStyle && included.length === matches.length
      ? uses.filter(use => inside.get(use.style)?.get(use.slot) === use.characters)
      : []
  const onStyle = setOnStyles(planner, change, whole, uses)
  setLocally(
    planner,
    included.flatMap(({ paragraph, pieces }) =>
      pieces
        .filter(piece => !onStyle.get(piece.style)?.has(piece.slot))
        .map(({ from, to, style, slot }): LocalLook => ({
          paragraph,
          from,
          to,
          text: valuesFor(planner, change, style, slot, paragraph.part),
          fonts: {},
          setting: {},
        })),
    ),
  )
  const own = planner.rows.length
  for (const row of [...rows].sort((a, b) => b.characters - a.characters)) planner.row(row)
  return planner.totals(own)
}

/** A wish within limits, with the faces it comes to and by how much sizes change. */
interface WithinChange {
  readonly wish: SwapWish
  readonly mappings: readonly FaceMapping[]
  readonly factors: SizeFactors
}

type WithinRow = NewRow & { characters: number; count: number }

/** The rows of all matches, those that are not left out, and how much text of each style and slot these hold. */
function sortMatches(planner: Planner, { wish, index }: Numbered<SwapWish>, matches: readonly Match[]) {
  const { reading } = planner
  const roles = styleRoles(reading)
  const rows = new Map<string, WithinRow>()
  const inside = new Map<TextStyle, Map<Slot, number>>()
  const included: Match[] = []
  for (const match of matches) {
    const owner = paragraphOwner(reading, match.paragraph, match.story)
    const key: RowKey = { what: 'within', wish: index, ...(owner ? { family: owner.family, name: owner.name } : {}) }
    const isIn = !planner.leaves(key)
    if (isIn) included.push(match)
    const role = owner ? roles.get(styleKey(owner))?.role : null
    const title = `${owner?.displayName ?? 'No style'}${role ? `, ${roleTitle(role)}` : ''}`
    const row: WithinRow = rows.get(keyText(key)) ?? {
      key,
      stage: 'within',
      optional: true,
      title,
      count: 0,
      characters: 0,
      before: wish.from.family,
      after: wish.to.family,
    }
    rows.set(keyText(key), row)
    row.count++
    for (const piece of match.pieces) {
      const count = [...match.text.slice(piece.from - match.from, piece.to - match.from)].length
      row.characters += count
      if (!isIn) continue
      const own = inside.get(piece.style) ?? new Map<Slot, number>()
      inside.set(piece.style, own.set(piece.slot, (own.get(piece.slot) ?? 0) + count))
    }
  }
  return { rows: [...rows.values()], inside, included }
}

/** What text of a style and slot must say for its new face, in a part. */
function valuesFor(
  planner: Planner,
  { wish, mappings, factors }: WithinChange,
  style: TextStyle,
  slot: Slot,
  path: string,
): Record<string, string | null> {
  const mapping = mappings.find(each => each.key === faceKey(voiceOf(style, slot)))
  const names = slotAttributes[slot]
  const face = planner.library.family(wish.to.family)[0]!
  const factor = factors[slot]
  const size = style.effective.slots[slot].size * factor
  return {
    ...fontValues(planner.change.on(path), slot, { family: face.family, pitch: pitchOf(face) }),
    ...(mapping && mapping.to.weight !== mapping.from.weight ? { [names.weight]: weightValue(mapping.to.weight) } : {}),
    ...(mapping && mapping.to.italic !== mapping.from.italic
      ? { [names.style]: mapping.to.italic ? 'italic' : 'normal' }
      : {}),
    ...(factor === 1 ? {} : { [names.size]: `${Math.round(size * 10) / 10}pt` }),
  }
}

/** Sets the new face where styles say it that speak for nothing else. Returns the text that was reached so. */
function setOnStyles(
  planner: Planner,
  change: WithinChange,
  whole: readonly TextUse[],
  uses: readonly TextUse[],
): Map<TextStyle, Set<Slot>> {
  const wanted = new Set(whole)
  const reached = new Map<TextStyle, Set<Slot>>()
  const set = new Set<string>()
  for (const use of whole) {
    const holder = styleThatSays(use, wanted, uses, change.factors[use.slot])
    if (!holder) continue
    reached.set(use.style, (reached.get(use.style) ?? new Set()).add(use.slot))
    const key = `${holder.part}#${holder.node}#${use.slot}`
    if (set.has(key)) continue
    set.add(key)
    const values = valuesFor(planner, change, use.style, use.slot, holder.part)
    setStyleValues(planner.change.on(holder.part), holder.node, 'text', values)
  }
  return reached
}

/** The style on which font and size of a use can be set without reaching other text; null where there is none. */
function styleThatSays(use: TextUse, wanted: ReadonlySet<TextUse>, uses: readonly TextUse[], factor: number) {
  const { layers: all, slots: values } = use.style.effective
  const { size } = slotAttributes[use.slot]
  const layers = all.slice(Math.max(values[use.slot].font.layer, 0))
  const at = layers.findIndex(
    layer =>
      !reachesOthers(layer, use, wanted, uses, fontAttributes[use.slot].name) &&
      (factor === 1 || !reachesOthers(layer, use, wanted, uses, size)),
  )
  // Styles that say different sizes must not be made one: the size goes where it stands.
  const sized = factor === 1 ? -1 : layers.findLastIndex(layer => layer.text[size] !== undefined)
  return at < 0 || at < sized ? null : layers[at]!.style
}

/** The face that shows most text of a family now: what sizes are measured on. */
export function shownFace(
  library: Library,
  uses: readonly TextUse[],
): { readonly hash: string; readonly absent: boolean; readonly name: string } | null {
  const use = [...uses].sort((a, b) => b.characters - a.characters)[0]
  if (!use) return null
  const { face, status } = resolutionOf(library, use.style, use.slot)
  return {
    hash: face.hash,
    absent: status === 'absent',
    name: `${face.family} ${faceAsked(use.style, use.slot).style}`,
  }
}
