import { styleKey, styleRoles } from '../census/style-roles'
import { points } from '../document/lengths'
import { standingParagraphs } from '../document/stories'
import { stepsOf, type KeptPair } from '../pairing/kept-pair'
import { percent } from '../style/properties'
import { roleByName } from '../style/roles'
import type { TextStyle } from '../style/cascade'
import type { Reading } from '../style/reading'
import { paragraphRuns } from '../style/runs'
import {
  emptyHouse,
  houseSchema,
  media,
  mediumOf,
  rolesWithout,
  type House,
  type HouseColor,
  type Medium,
  type Setting,
} from './house'
import { colorOfText, levelOf, paragraphOwner } from './to-style'

/** The roles of a pair’s steps as houses have them. */
const roleOfStep: Readonly<Record<string, string>> = { intro: 'lead' }

/** A house from a pair of faces and its scale: figures and notes go with the caption. */
export function houseFromPair(name: string, pair: KeptPair, palette: readonly HouseColor[] = []): House {
  const house = emptyHouse(name)
  const steps = stepsOf(pair)
  const ink = palette.find(color => color.does === 'text')?.id
  const settingOf = (role: string): Setting => {
    const own = role === 'data' || role === 'note' ? 'caption' : role
    const step = steps.find(each => (roleOfStep[each.role] ?? each.role) === own)
    return step
      ? {
          family: step.family,
          weight: 400,
          italic: false,
          size: step.size,
          leading: { value: Math.round(step.leading * 100), unit: 'percent' },
          tracking: 0,
          ...(ink === undefined ? {} : { color: ink }),
        }
      : {}
  }
  // Slides are read from afar: sizes are twice those of a page, as far apart as they are there.
  return houseSchema.parse({
    ...house,
    palette,
    roles: house.roles.map(role => {
      const text = settingOf(role.id)
      return { ...role, text, ...(text.size === undefined ? {} : { deck: { size: Math.round(text.size * 2) } }) }
    }),
    faces: [...new Set([pair.heading, pair.body, ...(pair.label === undefined ? [] : [pair.label])])].map(family => ({
      family,
      uses: [],
    })),
  })
}

/** What is counted of the text of one role in one medium. */
type Tally = Map<string, { readonly setting: Setting; readonly color: string; characters: number }>

/** The setting that some text has, all of it said, but for its colour. */
function settingOf(text: TextStyle, properties: Readonly<Record<string, string>>): Setting {
  const { slots, shared, leading } = text.effective
  const { font, size, weight, posture } = slots.western
  const stated = leading['fo:line-height']
  const factor = percent(stated)
  const absolute = points(stated)
  const round = (value: number) => Math.round(value * 100) / 100
  const tracked = points(shared['fo:letter-spacing']) ?? 0
  const align = {
    left: 'start',
    start: 'start',
    right: 'end',
    end: 'end',
    center: 'center',
    justify: 'justify',
  } as const
  return {
    ...(font.family ? { family: font.family } : {}),
    weight,
    italic: posture !== 'normal',
    size: round(size),
    ...(factor !== null
      ? { leading: { value: round(factor * 100), unit: 'own' as const } }
      : absolute !== null
        ? { leading: { value: round(absolute), unit: 'points' as const } }
        : {}),
    tracking: round((tracked / size) * 1000),
    case: shared['fo:font-variant'] === 'small-caps' ? 'small-caps' : caseOf(shared['fo:text-transform']),
    before: round(points(properties['fo:margin-top'] ?? properties['fo:margin']) ?? 0),
    after: round(points(properties['fo:margin-bottom'] ?? properties['fo:margin']) ?? 0),
    align: align[(properties['fo:text-align'] ?? 'start') as keyof typeof align] ?? 'start',
    hyphenate: shared['fo:hyphenate'] === 'true',
  }
}
const caseOf = (value: string) => (value === 'uppercase' || value === 'lowercase' ? value : 'none')

/**
 * A house drawn up from documents: each role is set as most of its text is. Roles are those of the documents’ styles, as
 * they were confirmed or are proposed.
 */
export function houseFromDocuments(name: string, readings: readonly Reading[]): House {
  const tallies = new Map<string, Tally>()
  const keyOf = (role: string, medium: Medium, level: number) => JSON.stringify([role, medium, level])
  for (const reading of readings) {
    const medium = mediumOf(reading.document.kind)
    const roles = styleRoles(reading)
    for (const { paragraph, story } of standingParagraphs(reading)) {
      const style = reading.cascade.paragraph(paragraph, story.role)
      const owner = paragraphOwner(style.text)
      const role = owner ? (roles.get(styleKey(owner))?.role ?? null) : null
      if (role === null) continue
      const characters = paragraphRuns(paragraph, reading.cascade, story.role)
        .runs.filter(run => run.style === style.text)
        .reduce((sum, run) => sum + run.end - run.start, 0)
      if (characters === 0) continue
      const key = keyOf(role, medium, medium === 'deck' ? levelOf(paragraph, owner!.name) : 1)
      const tally: Tally = tallies.get(key) ?? new Map()
      tallies.set(key, tally)
      const setting = settingOf(style.text, style.properties)
      const color = colorOfText(style.text) || '#000000'
      const own = JSON.stringify([setting, color])
      const known = tally.get(own)
      if (known) known.characters += characters
      else tally.set(own, { setting, color, characters })
    }
  }
  return built(name, (role, medium, level) => {
    const [best] = [...(tallies.get(keyOf(role, medium, level))?.values() ?? [])].sort(
      (a, b) => b.characters - a.characters,
    )
    return best ?? null
  })
}

/**
 * A house out of the named styles of a document or template, whether or not text goes by them: each role as the first style
 * of it says. Roles are those that are kept there, or that names say.
 */
export function houseFromStyles(name: string, reading: Reading): House {
  const { cascade } = reading
  const medium = mediumOf(reading.document.kind)
  const kept = new Map(cascade.rules.styles.map(each => [styleKey(each.style), each.role]))
  const used = styleRoles(reading)
  const found = new Map<string, { setting: Setting; color: string }>()
  const titles = new Map<string, string>()
  for (const style of [...cascade.scopes.values()].at(-1)?.common.values() ?? []) {
    if (style.family !== 'paragraph') continue
    const role = kept.get(styleKey(style)) ?? used.get(styleKey(style))?.role ?? roleByName(style.displayName)
    if (!role || found.has(role)) continue
    const text = cascade.named(style.part, style.family, style.name)
    const properties = Object.assign({}, ...text.effective.layers.map(layer => layer.paragraph)) as Record<
      string,
      string
    >
    found.set(role, { setting: settingOf(text, properties), color: colorOfText(text) || '#000000' })
    titles.set(role, style.displayName)
  }
  const house = built(name, (role, of, level) => (of === medium && level === 1 ? (found.get(role) ?? null) : null), [
    ...found.keys(),
  ])
  return houseSchema.parse({
    ...house,
    roles: house.roles.map(role => ({ ...role, title: (titles.get(role.id) ?? role.title).slice(0, 100) })),
  })
}

/** Figures stand as their columns want them, labels as their places do: how they are aligned is left open. */
const freeAlignment: ReadonlySet<string> = new Set(['data', 'label'])

/** What differs between a setting and what it goes on. */
function beyond(ground: Setting, setting: Setting): Setting {
  return Object.fromEntries(
    Object.entries(setting).filter(
      ([name, value]) => JSON.stringify(value) !== JSON.stringify(ground[name as keyof Setting]),
    ),
  ) as Setting
}

function built(
  name: string,
  find: (role: string, medium: Medium, level: number) => { setting: Setting; color: string } | null,
  own: readonly string[] = [],
): House {
  const empty = emptyHouse(name)
  // Roles that nobody but the house knows come behind those that every desk has, and those that only some houses need.
  const seldom = rolesWithout(empty).filter(({ id }) => media.some(medium => find(id, medium, 1) !== null))
  const usual = [...empty.roles, ...seldom]
  const added = own
    .filter(id => !usual.some(role => role.id === id))
    .map(id => ({ id, title: id, text: {}, deck: {}, sheet: {}, levels: [] }))
  const house: House = { ...empty, roles: [...usual, ...added] }
  const colors = new Map<string, HouseColor>()
  const colorId = (color: string, role: string): string => {
    const known = colors.get(color)
    if (known) return known.id
    const id = `colour-${colors.size + 1}`
    const does =
      role === 'body' || colors.size === 0 ? 'text' : role === 'caption' || role === 'note' ? 'quiet' : 'accent'
    colors.set(color, { id, title: color, does, color })
    return id
  }
  // Body first: its colour is that of text.
  const order = [...house.roles].sort((a, b) => Number(b.id === 'body') - Number(a.id === 'body'))
  const roles = order.map(role => {
    const said = (medium: Medium, level = 1): Setting | null => {
      const found = find(role.id, medium, level)
      if (!found) return null
      const { align, ...setting } = found.setting
      return {
        ...setting,
        ...(align === undefined || freeAlignment.has(role.id) ? {} : { align }),
        color: colorId(found.color, role.id),
      }
    }
    const text = said('text') ?? {}
    const deck = said('deck')
    const sheet = said('sheet')
    const levels: Setting[] = []
    let ground: Setting = { ...text, ...(deck ?? {}) }
    for (let level = 2; level <= 9; level++) {
      const own = said('deck', level)
      if (!own) break
      levels.push(beyond(ground, own))
      ground = { ...ground, ...own }
    }
    return { ...role, text, deck: deck ? beyond(text, deck) : {}, sheet: sheet ? beyond(text, sheet) : {}, levels }
  })
  const families = [
    ...new Set(roles.flatMap(role => [role.text, role.deck, role.sheet].flatMap(each => each.family ?? []))),
  ]
  return houseSchema.parse({
    ...house,
    roles: house.roles.map(role => roles.find(each => each.id === role.id)),
    palette: [...colors.values()],
    faces: families.map(family => ({ family })),
  })
}
