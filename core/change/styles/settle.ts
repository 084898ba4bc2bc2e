import type { Draft } from '../../document/draft'
import { assignStyle } from '../../document/paragraph-verbs'
import { openParagraph } from '../../document/paragraph-spots'
import { extentOf, isSpan, saysOnly, styledWithin, styleNameAt } from '../../document/span-places'
import { splitSpansAt, unwrapSpan, wrapRange } from '../../document/spans'
import {
  cellStyleAt,
  contentReferences,
  frameStylesAt,
  referencesIn,
  setReference,
} from '../../document/style-references'
import { findStyle, type Style } from '../../document/styles'
import { describeValues } from '../../style/describe'
import { looksSame } from '../../style/effective'
import { attributesOf, groupOf, type GroupId } from '../../style/groups'
import { isFixedPitch } from '../../style/fixed-pitch'
import type { Layer } from '../../style/layers'
import { keyText, type RowKey } from '../plan'
import { grouped } from '../words'
import { emphasisName, emphasisOf, emphasisStyle } from './emphasis'
import { portedFonts } from './fonts'
import type { Planner, StyleUsers } from '../planner'
import type { Stretch } from '../scope'

/** Of what text looked like, as much goes into the key of its row. */
const toldLength = 1_500

/** What of local formatting goes. */
export interface Settling {
  readonly groups: readonly GroupId[]
  readonly keep: readonly GroupId[]
  readonly idleOnly: boolean
  /** Frames whose own formatting of text goes, too: all of their text is meant. */
  readonly frames?: readonly { readonly part: string; readonly node: number }[]
}

/** An element that bears an automatic style. */
interface Bearer {
  readonly part: string
  readonly node: number
  readonly attribute: string
}

/** What bears a style, with the style's family and name. */
interface NamedBearer extends Bearer {
  readonly family: string
  readonly name: string
}

/** An automatic style with those of its bearers that are in the scope. */
interface Stray {
  readonly style: Style
  readonly bearers: Bearer[]
}

/**
 * What has been found to change nothing where it goes, so far: whether more may go is asked of the text as it would be without
 * that. Two styles that say the same on top of one another change nothing each, and both together do.
 */
class Idle {
  private readonly dropped = new Map<string, ReadonlySet<string>>()

  private key = ({ part, node }: Pick<Style, 'part' | 'node'>): string => `${part}#${node}`

  private without(layer: Layer, more: ReadonlyMap<string, ReadonlySet<string>>): Layer {
    const key = this.key(layer.style)
    const names = more.get(key) ?? this.dropped.get(key)
    if (!names) return layer
    const drop = (values: Layer['text']) =>
      Object.fromEntries(Object.entries(values).filter(([name]) => !names.has(name)))
    return { ...layer, text: drop(layer.text), paragraph: drop(layer.paragraph) }
  }

  /** Whether all text that goes through a style looks the same without some of its values, and without what went before. */
  changesNothing(users: StyleUsers | undefined, style: Style, names: readonly string[]): boolean {
    if (!users) return true
    const more = new Map([[this.key(style), new Set(names)]])
    for (const [text, slots] of users.styles) {
      const after = text.resolvedWith(layer => this.without(layer, more))
      for (const slot of slots) if (!looksSame(text.effective, after, slot)) return false
    }
    return true
  }

  drop(style: Style, names: readonly string[]): void {
    this.dropped.set(this.key(style), new Set(names))
  }
}

/** Words go before their paragraphs, and these before what holds them. */
const innermostFirst = ['text', 'paragraph', 'table-cell', 'graphic', 'presentation']
const depthOf = ({ style }: Stray): number => innermostFirst.indexOf(style.family)

/** The automatic styles in a scope, with what bears them there. */
function straysIn(planner: Planner, stretches: readonly Stretch[] | null, frames: Settling['frames'] = []): Stray[] {
  const found = new Map<Style, Stray>()
  const listed = new Set<string>()
  const bearers =
    stretches === null
      ? allBearers(planner)
      : [
          ...stretches.flatMap(stretch => bearersIn(planner, stretch)),
          ...frames.flatMap(({ part, node }) =>
            frameStylesAt(planner.change.part(part), node).map(each => ({ part, node, ...each })),
          ),
        ]
  for (const { family, name, ...bearer } of bearers) {
    const style = planner.reading.cascade.scope(bearer.part).automatic.get(`${family}\n${name}`)
    if (!style) continue
    let stray = found.get(style)
    if (!stray) found.set(style, (stray = { style, bearers: [] }))
    const place = `${bearer.part}#${bearer.node} ${bearer.attribute}`
    if (!listed.has(place)) stray.bearers.push(bearer)
    listed.add(place)
  }
  return [...found.values()]
}

/** All that bears a style by hand in the text and the masters of a document; what was deleted is no text. */
function allBearers(planner: Planner): NamedBearer[] {
  return [...planner.reading.cascade.scopes.keys()].flatMap(path =>
    contentReferences(planner.change.part(path)).flatMap(({ part, node, attribute, family, names }) =>
      names.map(name => ({ part, node, attribute, family, name })),
    ),
  )
}

/** What bears a style in a stretch: its words, and of a whole paragraph this itself and the cell that it stands in. */
function bearersIn(planner: Planner, { paragraph, whole, from, to }: Stretch): NamedBearer[] {
  const part = planner.change.part(paragraph.part)
  const at = { part: paragraph.part, attribute: 'text:style-name' }
  const own = styleNameAt(part, paragraph.node)
  const { holder } = paragraph
  return [
    ...(whole && own ? [{ ...at, node: paragraph.node, family: 'paragraph', name: own }] : []),
    ...styledWithin(part, paragraph.node, from, to).map(each => ({ ...at, ...each, family: 'text' })),
    ...(whole && holder?.kind === 'cell' && holder.styleName
      ? cellStyleAt(part, holder.node).map(name => ({
          part: paragraph.part,
          node: holder.node,
          attribute: 'table:style-name',
          family: 'table-cell',
          name,
        }))
      : []),
  ]
}

/** How many elements of a part name each automatic style. */
function countBearers(planner: Planner): Map<string, number> {
  const counts = new Map<string, number>()
  for (const path of planner.reading.cascade.scopes.keys()) {
    for (const reference of referencesIn(planner.change.part(path)))
      for (const name of reference.names) {
        const key = `${path}\n${reference.family}\n${name}`
        counts.set(key, (counts.get(key) ?? 0) + 1)
      }
  }
  return counts
}

/**
 * Takes local formatting out of a scope. Styles that only speak for text of the scope are changed where they stand, so
 * that little is touched; others are departed from. What is meant (`keep`) goes on in character styles.
 */
export function settle(planner: Planner, stretches: readonly Stretch[] | null, settling: Settling): void {
  const parts = stretches?.filter(stretch => !stretch.whole) ?? []
  // The spans that reach over the ends are cut in two: only what is inside is settled.
  for (const { paragraph, from, to } of parts) {
    splitSpansAt(planner.change.on(paragraph.part), paragraph.node, from)
    splitSpansAt(planner.change.on(paragraph.part), paragraph.node, to)
  }
  const counts = countBearers(planner)
  const rows = new Map<string, StrayRow>()
  const idle = new Idle()
  const strays = straysIn(planner, stretches, settling.frames)
  if (settling.idleOnly) strays.sort((a, b) => depthOf(a) - depthOf(b))
  for (const stray of strays) {
    const taken = takenFrom(planner, stray, settling, idle)
    if (!taken) continue
    const key = list(planner, rows, taken)
    if (!planner.leaves(key)) idle.drop(stray.style, [...taken.text, ...taken.paragraph])
  }
  for (const { strays: own, ...row } of rows.values())
    if (planner.row({ ...row, stage: 'text', optional: true })) for (const each of own) remove(planner, each, counts)
  const local = parts.filter(stretch => isLocal(planner, stretch))
  if (local.length > 0) planner.note('formatting of whole paragraphs', 'only part of each is selected', local.length)
  planner.sweep()
}

/** What is taken out of an automatic style: attributes by kind, and what of it goes on as emphasis. */
interface Taken {
  readonly stray: Stray
  readonly text: readonly string[]
  readonly paragraph: readonly string[]
  readonly kept: Record<string, string>
}

/** One row of the plan: strays that say the same on top of the same style. */
interface StrayRow {
  readonly key: RowKey
  readonly title: string
  readonly before: string
  readonly after: string
  count: number
  characters: number
  readonly places: { part: string; node: number }[]
  readonly strays: Taken[]
}

const bearsParagraphs = (family: string) => family === 'paragraph' || family === 'graphic' || family === 'presentation'

/** What of a style settling takes, and what it keeps as emphasis; null where there is nothing to take. */
function takenFrom(planner: Planner, stray: Stray, { groups, keep, idleOnly }: Settling, idle: Idle): Taken | null {
  const attributes = attributesOf(groups)
  const { style } = stray
  const users = planner.usersOf(style)
  let text = Object.keys(style.text).filter(name => attributes.text.has(name))
  let paragraph = bearsParagraphs(style.family)
    ? Object.keys(style.paragraph).filter(name => attributes.paragraph.has(name))
    : []
  if (idleOnly) {
    text = text.filter(name => idle.changesNothing(users, style, [name]))
    paragraph = paragraph.filter(name => idle.changesNothing(users, style, [name]))
    if (!idle.changesNothing(users, style, [...text, ...paragraph])) return null
  }
  const inline = style.family === 'text' || style.family === 'paragraph'
  const isMeant = (group: GroupId) => (group === 'face' ? inline && setsCode(users, style) : says(users, style, group))
  const meant = idleOnly ? [] : keep.filter(group => groups.includes(group) && isMeant(group))
  if (!inline) text = withoutMeant(planner, stray, text, meant)
  if (text.length === 0 && paragraph.length === 0) return null
  return { stray, text, paragraph, kept: inline ? emphasisOf(style.text, meant) : {} }
}

/** Whether a style sets text in a face of one width that goes in another kind without it: that says what the text is. */
function setsCode(users: StyleUsers | undefined, style: Style): boolean {
  const ofFace = new Set<string>(groupOf('face').text)
  if (!users || !Object.keys(style.text).some(name => ofFace.has(name))) return false
  const without = (layer: Layer): Layer =>
    layer.style === style
      ? { ...layer, text: Object.fromEntries(Object.entries(layer.text).filter(([name]) => !ofFace.has(name))) }
      : layer
  return [...users.styles.keys()].every(
    text =>
      isFixedPitch(text.effective.slots.western.font) && !isFixedPitch(text.resolvedWith(without).slots.western.font),
  )
}

/** Whether a style says something of a group that is seen. */
function says(users: StyleUsers | undefined, style: Style, group: GroupId): boolean {
  const names = groupOf(group).text.filter(name => style.text[name] !== undefined)
  return names.length > 0 && !new Idle().changesNothing(users, style, names)
}

/** The emphasis of a whole frame or cell has no character style it could go to: it stays, which is said. */
function withoutMeant(
  planner: Planner,
  { style, bearers }: Stray,
  text: string[],
  meant: readonly GroupId[],
): string[] {
  const stays = new Set(meant.flatMap(group => groupOf(group).text))
  if (text.some(name => stays.has(name)))
    planner.note(
      `${meant.map(group => groupOf(group).title).join(' and ')} of a whole ${style.family === 'table-cell' ? 'cell' : 'frame'}`,
      'it is kept as it is, since it belongs to no words',
      bearers.length,
    )
  return text.filter(name => !stays.has(name))
}

/** Puts what is taken out of a style into its row, whose key it answers. */
function list(planner: Planner, rows: Map<string, StrayRow>, taken: Taken): RowKey {
  const { style, bearers } = taken.stray
  const home = planner.reading.cascade.scope(style.part)
  const pick = (values: Style['text'], names: readonly string[]) =>
    Object.fromEntries(names.map(name => [name, values[name]!]))
  const words = describeValues(pick(style.text, taken.text), pick(style.paragraph, taken.paragraph), home)
  const owner =
    style.parentName !== null
      ? planner.titleOf(home, style.family, style.parentName)
      : style.family === 'paragraph'
        ? 'no style'
        : ''
  const before = words.join(', ') || 'marks that are not seen'
  const after =
    Object.keys(taken.kept).length > 0
      ? `character style ${emphasisName(taken.kept)}`
      : owner
        ? `as ${owner} says`
        : 'as its styles say'
  const key: RowKey = { what: 'strays', family: style.family, owner, before: before.slice(0, toldLength), after }
  const named = keyText(key)
  let row = rows.get(named)
  if (!row) {
    row = { key, title: rowTitle(style.family, owner), before, after, count: 0, characters: 0, places: [], strays: [] }
    rows.set(named, row)
  }
  row.count += bearers.length
  row.characters += planner.usersOf(style)?.characters ?? 0
  if (row.places.length < 500) row.places.push(...bearers.slice(0, 500).map(({ part, node }) => ({ part, node })))
  row.strays.push(taken)
  return row.key
}

function rowTitle(family: string, owner: string): string {
  if (family === 'text') return `Words set by hand${owner ? ` in ${owner}` : ''}`
  if (family === 'paragraph') return `Paragraphs of ${owner}`
  return family === 'table-cell' ? 'Cells' : 'Frames and shapes'
}

const isLocal = (planner: Planner, { paragraph }: Stretch): boolean =>
  paragraph.styleName !== null &&
  findStyle(planner.reading.cascade.scope(paragraph.part), 'paragraph', paragraph.styleName)?.origin === 'automatic'

/** Takes values out of a style where all that bears it is meant, else lets what is meant depart from it. */
function remove(
  planner: Planner,
  { stray: { style, bearers }, text, paragraph, kept }: Taken,
  counts: ReadonlyMap<string, number>,
): void {
  const draft = planner.change.on(style.part)
  const automatic = planner.automatic(style.part)
  const nothing = (names: readonly string[]) => Object.fromEntries(names.map(name => [name, null]))
  const difference = {
    ...(text.length > 0 ? { text: nothing(text) } : {}),
    ...(paragraph.length > 0 ? { paragraph: nothing(paragraph) } : {}),
  }
  const all = counts.get(`${style.part}\n${style.family}\n${style.name}`) === bearers.length
  const hollow = all && automatic.strip(style.family, style.name, difference)
  const emphasis = Object.keys(kept).length > 0 ? emphasisStyle(planner, portedFonts(planner, style.part, kept)) : null
  for (const { node, attribute } of bearers) {
    if (!draft.part.find(node)) continue
    const name = !all ? automatic.derive(style.family, style.name, difference) : hollow ? style.parentName : style.name
    const span = isSpan(draft.part, node)
    if (emphasis !== null && style.family !== 'paragraph' && name === null && span) {
      assignStyle(draft, node, emphasis)
      continue
    }
    if (emphasis !== null) emphasise(draft, node, style.family, emphasis)
    if (name === null && span && saysOnly(draft.part, node, attribute)) unwrapSpan(draft, node)
    else setReference(draft, { node, attribute }, name)
  }
}

/** Puts a character style around all words of a paragraph, or inside a span around all that it holds. */
function emphasise(draft: Draft, node: number, family: string, style: string): void {
  if (family === 'paragraph') {
    const { length } = openParagraph(draft.part, node).text
    if (length > 0) wrapRange(draft, node, 0, length, style, true)
    return
  }
  const extent = extentOf(draft.part, node)
  if (extent) wrapRange(draft, extent.paragraph, extent.from, extent.to, style)
}

/** What settling is called. */
export function settleTitle(groups: readonly GroupId[], idleOnly: boolean, places: number): string {
  const what = groups.length > 6 ? 'local formatting' : groups.map(group => groupOf(group).title).join(', ')
  return idleOnly
    ? `Sweep out ${what} that changes nothing`
    : `Settle ${what} in ${grouped(places)} ${places === 1 ? 'place' : 'places'}`
}
