import { styleKey, styleRoles } from '../census/style-roles'
import type { Slot } from '../document/font-attributes'
import { points } from '../document/lengths'
import { paragraphsOf, standingParagraphs } from '../document/stories'
import type { Paragraph, Story } from '../document/story-model'
import { weightBeyond } from '../font/named-weight'
import { percent } from '../style/properties'
import { plainNumber } from '../style/describe'
import { isFixedPitch } from '../style/fixed-pitch'
import type { Cascade, TextStyle } from '../style/cascade'
import { chartVoices } from '../style/chart-voices'
import { chartsOf, type Reading } from '../style/reading'
import { objectSign, paragraphRuns, type TextRun } from '../style/runs'
import { colorOf, mediumOf, settingFor, type House, type Setting } from './house'
import { settingOfCharts } from './setting-values'

/** Text that is not as its house says, with why. */
export interface OffPlace {
  readonly part: string
  readonly node: number
  readonly from: number
  readonly to: number
  /** null where no role is known. */
  readonly role: string | null
  /** What differs, in words: “9.8 pt, not 10”. */
  readonly why: readonly string[]
  readonly characters: number
}

/** How much text of a role is to style. */
export interface RoleShare {
  /** null for text of no known role, or of a role that the house does not have. */
  readonly role: string | null
  readonly title: string
  readonly characters: number
  readonly toStyle: number
}

/** How far a document is from a house. */
export interface ToStyle {
  readonly characters: number
  readonly toStyle: number
  readonly roles: readonly RoleShare[]
  /** At most `placeLimit`, in reading order; neighbours that differ alike are one. */
  readonly places: readonly OffPlace[]
  readonly morePlaces: number
}

const placeLimit = 2_000

/** Percent by which leadings may differ and still be the same. */
const sameShare = 0.05
/** Points by which sizes may differ and still be the same: what two decimals in a file come to. */
const sameSize = 0.05

/** The outline level that a paragraph of a deck stands on: of its list, or of its placeholder style's name. */
export function levelOf(paragraph: Pick<Paragraph, 'list'>, styleName: string): number {
  const named = /-outline(\d)$/.exec(styleName)?.[1]
  return Math.max(paragraph.list?.level ?? 1, named === undefined ? 1 : Number(named))
}

/** The named style that a paragraph goes by, whichever family it has; null for none. */
export const paragraphOwner = (text: TextStyle) => text.owner?.style ?? null

/** Whether words are set apart inside their paragraph: then weight, slope and the like are meant. */
const isEmphasis = (run: TextRun, own: TextStyle): boolean =>
  run.style !== own && run.style.effective.layers.slice(own.effective.layers.length).length > 0

function leadingDiffers(setting: Setting, style: TextStyle, size: number): boolean {
  if (!setting.leading) return false
  const stated = style.effective.leading['fo:line-height']
  const factor = percent(stated)
  const absolute = points(stated)
  const { value, unit } = setting.leading
  // A share of the file is no whole number of percent to a machine: 115 % is read as 114.99999999999999.
  if (unit === 'own')
    return Math.abs((factor === null && absolute === null ? 100 : (factor ?? 0) * 100) - value) > sameShare
  const wanted = unit === 'percent' ? (value * size) / 100 : value
  return absolute === null || Math.abs(absolute - wanted) > 0.1
}

/** The case that text is shown in. */
const caseOf = (style: TextStyle): string =>
  style.effective.shared['fo:font-variant'] === 'small-caps'
    ? 'small-caps'
    : style.effective.shared['fo:text-transform']

/** The colour of text as the file says it; '' for that of the window. */
export const colorOfText = ({ effective: { shared } }: TextStyle): string =>
  shared['style:use-window-font-color'] === 'true' || !/^#[0-9a-f]{6}$/i.test(shared['fo:color'])
    ? ''
    : shared['fo:color'].toLowerCase()

/** The family that a house sets code in; undefined where it leaves that open, and words in a face of one width keep theirs. */
const codeFamily = (house: House): string | undefined => house.roles.find(role => role.id === 'code')?.text.family

/** In what text departs from a setting, in words; empty where it is to style. */
export function departures(house: House, setting: Setting, style: TextStyle, slot: Slot, emphasis: boolean): string[] {
  const own = style.effective.slots[slot]
  const script = slot === 'western' ? undefined : setting.scripts?.[slot]
  const isCode = emphasis && isFixedPitch(own.font)
  const family = isCode ? codeFamily(house) : slot === 'western' ? setting.family : script?.family
  const why: string[] = []
  // A family may carry a weight in its name: “Jost Medium” is Jost at 500.
  const beyond = family === undefined ? null : weightBeyond(own.font.family, family)
  if (family !== undefined && beyond === null) why.push(`${own.font.family || 'no font'}, not ${family}`)
  const weight = beyond !== null && beyond !== 400 && own.weight === 400 ? beyond : own.weight
  const size = setting.size === undefined ? undefined : setting.size * (script?.factor ?? 1)
  if (size !== undefined && Math.abs(own.size - size) > sameSize)
    why.push(`${plainNumber(own.size)} pt, not ${plainNumber(size)}`)
  if (!emphasis) {
    if (setting.weight !== undefined && weight !== setting.weight) why.push(`weight ${weight}, not ${setting.weight}`)
    if (setting.italic !== undefined && (own.posture !== 'normal') !== setting.italic)
      why.push(setting.italic ? 'upright, not italic' : 'italic, not upright')
    if (setting.case !== undefined && caseOf(style) !== setting.case) why.push('another case')
  }
  if (leadingDiffers(setting, style, own.size)) why.push('another leading')
  if (setting.tracking !== undefined) {
    const tracked = points(style.effective.shared['fo:letter-spacing']) ?? 0
    if (Math.abs(tracked - (setting.tracking * own.size) / 1000) > 0.03)
      why.push(`tracked ${plainNumber((tracked / own.size) * 1000)}, not ${plainNumber(setting.tracking)}`)
  }
  const color = colorOf(house, setting.color)
  const is = colorOfText(style)
  if (color !== null && is !== color && !(is === '' && color === '#000000')) {
    const known = emphasis && house.palette.some(each => each.color === is)
    if (!known) why.push(`${is || 'black'}, not ${house.palette.find(each => each.color === color)?.title ?? color}`)
  }
  return why
}

/** Counts text by role as it is gone through, and keeps the places that are not to style. */
class Tally {
  private readonly counts = new Map<string | null, { characters: number; toStyle: number }>()
  private readonly places: OffPlace[] = []
  private morePlaces = 0

  constructor(private readonly house: House) {}

  private addPlace(place: OffPlace): void {
    const last = this.places.at(-1)
    if (
      last?.node === place.node &&
      last.part === place.part &&
      last.to === place.from &&
      last.why.join() === place.why.join()
    )
      this.places[this.places.length - 1] = {
        ...last,
        to: place.to,
        characters: last.characters + place.characters,
      }
    else if (this.places.length < placeLimit) this.places.push(place)
    else this.morePlaces++
  }

  /** @param known the role of a paragraph; null where none is known. @param setting how its house sets it; null for not at all */
  add(paragraph: Paragraph, cascade: Cascade, story: Story['role'], known: string | null, setting: Setting | null) {
    const own = cascade.paragraph(paragraph, story).text
    const role = setting === null ? null : known
    const count = this.counts.get(role) ?? { characters: 0, toStyle: 0 }
    this.counts.set(role, count)
    const { text, runs } = paragraphRuns(paragraph, cascade, story)
    for (const run of runs) {
      const characters = [...text.slice(run.start, run.end).replaceAll(objectSign, '')].length
      if (characters === 0) continue
      count.characters += characters
      const why =
        setting === null
          ? [known === null ? 'no role is known' : `the house has no ${known}`]
          : departures(this.house, setting, run.style.pair?.apart ?? run.style, run.slot, isEmphasis(run, own))
      if (why.length === 0) count.toStyle += characters
      else
        this.addPlace({
          part: paragraph.part,
          node: paragraph.node,
          from: run.start,
          to: run.end,
          role,
          why,
          characters,
        })
    }
  }

  result(): ToStyle {
    const titleOf = (role: string | null) => this.house.roles.find(each => each.id === role)?.title ?? 'No role'
    const roles = [...this.counts]
      .filter(([, { characters }]) => characters > 0)
      .map(([role, count]) => ({ role, title: titleOf(role), ...count }))
      .sort((a, b) => b.characters - a.characters)
    return {
      characters: roles.reduce((sum, each) => sum + each.characters, 0),
      toStyle: roles.reduce((sum, each) => sum + each.toStyle, 0),
      roles,
      places: this.places,
      morePlaces: this.morePlaces,
    }
  }
}

/** Measures how much of a document’s text is as a house says, charts included, and where it is not. */
export function measureToStyle(reading: Reading, house: House): ToStyle {
  const medium = mediumOf(reading.document.kind)
  const roles = styleRoles(reading)
  const { cascade } = reading
  const tally = new Tally(house)
  for (const { paragraph, story } of standingParagraphs(reading)) {
    const owner = paragraphOwner(cascade.paragraph(paragraph, story.role).text)
    const known = owner ? (roles.get(styleKey(owner))?.role ?? null) : null
    const setting = known === null ? null : settingFor(house, known, medium, levelOf(paragraph, owner!.name))
    tally.add(paragraph, cascade, story.role, known, setting)
  }
  for (const { chart, object } of chartsOf(reading))
    for (const { role, blocks } of chartVoices(chart, cascade.rules.charts)) {
      const setting = settingFor(house, role, medium)
      for (const paragraph of paragraphsOf(blocks))
        tally.add(paragraph, object.cascade, 'chart', role, setting && settingOfCharts(setting))
    }
  return tally.result()
}
