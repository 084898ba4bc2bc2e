import { styleKey, styleRoles } from '../../census/style-roles'
import { setStyleHead, setStyleValues } from '../../document/style-verbs'
import type { OwnerFamily } from '../../document/rules'
import type { Style } from '../../document/styles'
import { mediumOf, settingFor, type House } from '../../house/house'
import { settingWords } from '../../house/setting-words'
import { levelOf } from '../../house/to-style'
import type { StyleFamily } from '../../style/families'
import { meantGroups, typeGroups } from '../../style/groups'
import { roleTitle } from '../../style/roles'
import { lookOf, paragraphLookOf, type Look } from '../draw-up/look'
import type { Planner } from '../planner'
import { settle } from '../styles/settle'
import type { Dressed } from './dressed'
import { dressCharts } from './dress-charts'
import { dressStarts } from './dress-starts'
import { dressWords } from './dress-words'
import { paragraphValuesToKeep, valuesToKeep } from '../keep-look'
import { lookWords } from './look-words'
import { uniqueTitle } from './titles'
import { saySetting } from './say-setting'
import type { DressWish } from './wish'

const families = new Set(['paragraph', 'graphic', 'presentation', 'table-cell'])

/** The common styles that text goes by, each with its role: as it was said by hand, is kept, or is proposed. */
function stylesToDress(planner: Planner, { house, roles, keep }: DressWish): Dressed[] {
  const medium = mediumOf(planner.document.kind)
  const known = styleRoles(planner.reading)
  // What was drawn up in the same plan is known to the rules as they shall be.
  const kept = planner.currentRules.styles.flatMap(({ style, role }) => (role === undefined ? [] : [{ style, role }]))
  const byHand = new Map([...kept, ...roles].map(each => [styleKey(each.style), each.role]))
  return [...planner.scope.common.values()]
    .filter(
      style =>
        families.has(style.family) && (known.has(styleKey(style)) || byHand.has(styleKey(style)) || isLevel(style)),
    )
    .map((style): Dressed => {
      const said = byHand.get(styleKey(style))
      const role = said === undefined ? roleOf(known, style) : said
      if (role === null)
        return { style, role, setting: null, left: said === null ? 'it is left out' : 'no role is known' }
      const setting = settingFor(house, role, medium, levelOfStyle(style))
      if (!setting || Object.keys(setting).length === 0)
        return { style, role, setting: null, left: `the house leaves ${roleTitle(role)} open` }
      return { style, role, setting, left: keep.includes(role) ? 'its role keeps its look' : null }
    })
}

/** Placeholder styles of deeper levels are dressed with the first, whether or not a slide goes that deep. */
const isLevel = ({ family, name }: Style): boolean => family === 'presentation' && /-outline\d$/.test(name)
const levelOfStyle = (style: Style): number => (isLevel(style) ? levelOf({ list: null }, style.name) : 1)

function roleOf(known: ReturnType<typeof styleRoles>, style: Style): string | null {
  const own = known.get(styleKey(style))
  if (own) return own.role
  return isLevel(style) ? 'body' : null
}

/** How a style is set, to be held against how it is set afterwards. */
interface Was {
  readonly style: Style
  readonly look: Look
  readonly paragraph: Look
}

const wasOf = (planner: Planner, style: Style): Was => {
  const { effective } = planner.reading.cascade.named(style.part, style.family, style.name)
  return { style, look: lookOf(effective), paragraph: paragraphLookOf(mergedParagraph(effective.layers)) }
}
const mergedParagraph = (layers: readonly { readonly paragraph: Look }[]): Look =>
  Object.assign({}, ...layers.map(layer => layer.paragraph)) as Look

/**
 * Styles that were not dressed, and go back to one that was, say for themselves what they took from it: their text keeps
 * its look.
 */
function pinOthers(planner: Planner, before: readonly Was[]): void {
  planner.reread()
  for (const { style, look, paragraph } of before) {
    const now = wasOf(planner, planner.style(style.family as StyleFamily, style.name))
    const { text, paragraph: leading } = valuesToKeep(look, now.look)
    const rest = paragraphValuesToKeep(paragraph, now.paragraph, false)
    setStyleValues(planner.common, style.node, 'text', text)
    setStyleValues(planner.common, style.node, 'paragraph', { ...rest, ...leading })
  }
}

/** Keeps in the document what its styles do, so that the next time nobody has to say it again. */
function rememberRoles(planner: Planner, dressed: readonly Dressed[]): void {
  const rules = planner.currentRules
  const known = new Map(rules.styles.map(each => [styleKey(each.style), each]))
  for (const { style, role } of dressed) {
    if (role === null) continue
    const key = { family: style.family as OwnerFamily, name: style.name }
    known.set(styleKey(key), { ...known.get(styleKey(key)), style: key, role })
  }
  planner.rules = { ...rules, styles: [...known.values()] }
}

/** Sets the styles of a document as a house says, role by role, and lets text follow. */
export function dress(planner: Planner, wish: DressWish): void {
  const { house } = wish
  const all = stylesToDress(planner, wish)
  const chosen: Dressed[] = []
  for (const each of all) if (listed(planner, house, each)) chosen.push(each)
  const nodes = new Set(chosen.map(({ style }) => style.node))
  const others = [...planner.scope.common.values()]
    .filter(style => families.has(style.family) && !nodes.has(style.node) && planner.usersOf(style) !== undefined)
    .map(style => wasOf(planner, style))
  dressWords(planner, chosen)
  for (const { style, setting } of chosen) saySetting(planner, house, style.node, setting!)
  pinOthers(planner, others)
  if (wish.names === 'house') nameStyles(planner, house, chosen)
  rememberRoles(planner, chosen)
  if (wish.of) {
    const { house: id, version } = wish.of
    const palette = house.palette.map(({ title, does, color }) => ({ title, does, color }))
    planner.rules = { ...planner.currentRules, house: { id, name: house.name, version, palette } }
  }
  if (wish.strays === 'settle') settleDressed(planner, chosen)
  dressCharts(planner, wish)
  dressStarts(planner, wish)
}

/** Lists a style; whether it is dressed. */
function listed(planner: Planner, house: House, { style, role, setting, left }: Dressed): boolean {
  const users = planner.counts ? planner.usersOf(style) : undefined
  return planner.row({
    key: { what: 'dressed style', family: style.family, name: style.name },
    stage: 'style',
    optional: true,
    title: `${style.displayName}${role === null ? '' : `, ${roleTitle(role)}`}`,
    characters: users?.characters ?? 0,
    before: lookWords(wasOf(planner, style).look),
    after: setting ? settingWords(house, setting) : 'as it is',
    reason: left,
    places: [{ part: style.part, node: style.node }],
  })
}

/** Styles of a role take the house’s name for it: several of one role with a number. */
function nameStyles(planner: Planner, house: House, chosen: readonly Dressed[]): void {
  for (const { style, role } of chosen) {
    const title = house.roles.find(each => each.id === role)?.title
    if (title === undefined || style.family !== 'paragraph' || style.displayName === title) continue
    setStyleHead(planner.common, style.node, { displayName: uniqueTitle(planner, style, title) })
  }
}

/** Takes what was set by hand from text of dressed styles; emphasis goes on as character styles. */
function settleDressed(planner: Planner, chosen: readonly Dressed[]): void {
  planner.reread()
  const names = new Set(chosen.map(({ style }) => styleKey(style)))
  const ranges: { part: string; node: number; from: number; to: number }[] = []
  /** Frames by where they are: whether all text in them is dressed. */
  const frames = new Map<string, { part: string; node: number; whole: boolean }>()
  for (const { paragraph, story } of planner.paragraphs()) {
    const { part, node, holder } = paragraph
    const owner = planner.reading.cascade.paragraph(paragraph, story.role).text.owner?.style
    const dressed = owner !== undefined && names.has(styleKey(owner))
    if (dressed) ranges.push({ part, node, from: 0, to: 10_000_000 })
    if (holder?.kind !== 'frame') continue
    const key = `${part}#${holder.node}`
    frames.set(key, { part, node: holder.node, whole: dressed && (frames.get(key)?.whole ?? true) })
  }
  if (ranges.length === 0) return
  settle(planner, planner.stretches({ kind: 'ranges', ranges }), {
    groups: typeGroups.filter(group => group !== 'language' && group !== 'revision'),
    keep: meantGroups.filter(group => group !== 'language'),
    idleOnly: false,
    frames: [...frames.values()].filter(each => each.whole),
  })
}
