import type { Values } from '../../document/automatic-styles'
import { declareFont } from '../../document/face-verbs'
import { fontAttributes, slots, type Slot } from '../../document/font-attributes'
import { assignParagraph, assignStyle, setOutlineLevel } from '../../document/paragraph-verbs'
import { extentOf, isSpan, isWithin, saysOnly, styledWithin } from '../../document/span-places'
import { unwrapSpan, wrapRange } from '../../document/spans'
import { encodeStyleName } from '../../document/style-names'
import { addStyle, setStyleHead } from '../../document/style-verbs'
import { findStyle, type Style } from '../../document/styles'
import { readLevel } from '../../typeset/numbering'
import type { Planner } from '../planner'
import { portedFonts } from '../styles/fonts'
import type { Departure, DrawnWords } from './draw-words'
import type { DrawnParagraph } from './gather'
import { isForeign, isLeading, isRevisionMark, type FontSources, type FontValue, type Look } from './look'
import { attributesOfLook, languageOrPlain, staysLocal, type DrawnStyle, type Home } from './model'
import type { Named } from './names'
import type { Dropped, Proposal } from './propose'
import type { DrawUpWish } from './wish'

/** Values as a common style takes them: their fonts are declared where common styles stand. */
export function written(
  planner: Planner,
  look: Look,
  fonts: FontSources,
): Record<'text' | 'paragraph', Record<string, string>> {
  const text: Record<string, string> = {}
  const paragraph: Record<string, string> = {}
  for (const [name, value] of Object.entries(look)) {
    const slot = slots.find(each => fontAttributes[each].name === name)
    if (slot) Object.assign(text, writtenFont(planner, slot, JSON.parse(value) as FontValue, fonts))
    else if (isLeading(name)) paragraph[name] = value
    else Object.assign(text, languageOrPlain(name, value))
  }
  return { text, paragraph }
}

function writtenFont(
  planner: Planner,
  slot: Slot,
  { family, face }: FontValue,
  fonts: FontSources,
): Record<string, string> {
  const own = fontAttributes[slot]
  const source = fonts[slot]
  const named = source && portedFonts(planner, source.part, source.text)[own.name]
  const said = source?.text ?? {}
  const loose = {
    'svg:font-family': said[own.family],
    'style:font-family-generic': said[own.generic],
    'style:font-pitch': said[own.pitch],
    'style:font-charset': said[own.charset],
  }
  const attributes = Object.fromEntries(
    Object.entries(loose).filter((each): each is [string, string] => each[1] !== undefined),
  )
  return {
    [own.name]: named ?? declareFont(planner.common, { family }, attributes),
    ...(face ? { [own.styleName]: face } : {}),
  }
}

/** What of a style set by hand goes, since its named style says it now: all but attributes that are unknown here. */
export const spent = (values: Readonly<Record<string, string>>): Values =>
  Object.fromEntries(
    Object.keys(values)
      .filter(name => !isForeign(name) || isRevisionMark(name))
      .map(name => [name, null]),
  )

/** Makes the styles of a proposal, gives them to their text, and lets headings be headings. */
export function carryOut(planner: Planner, proposal: Proposal, wish: DrawUpWish, dropped: Dropped): void {
  const names = new Map<DrawnStyle | DrawnWords, string>()
  const made = proposal.paragraphs.filter(style => !dropped(style.voice, 'paragraph'))
  const place = (style: DrawnStyle & Named): void => {
    if (names.has(style)) return
    if (style.parent) place(style.parent as DrawnStyle & Named)
    names.set(style, makeParagraphStyle(planner, style, style.parent ? names.get(style.parent)! : style.base))
  }
  for (const style of made) place(style)
  for (const words of proposal.words)
    if (!dropped(words.voice, 'text')) names.set(words, makeWordsStyle(planner, words))
  for (const [member, home] of proposal.homes) {
    const name = home.style ? names.get(home.style) : home.base
    if (name != null) giveStyle(planner, proposal, member, home, name)
  }
  for (const member of proposal.gathered.paragraphs)
    if (proposal.homes.has(member) || proposal.departures.has(member))
      rewriteWords(planner, member, proposal.departures.get(member) ?? [], names)
  for (const style of made)
    if (style.purpose.kind === 'heading')
      makeHeadings(planner, style, names.get(style)!, style.purpose.level, wish.headings)
  planner.sweep()
}

function makeParagraphStyle(planner: Planner, style: DrawnStyle & Named, parent: string | null): string {
  const { displayName, says, fonts } = style
  const name = encodeStyleName(displayName)
  const { text, paragraph } = written(planner, says.text, fonts)
  addStyle(
    planner.common,
    'paragraph',
    { name, displayName },
    { parent, text, paragraph: { ...says.paragraph, ...paragraph } },
  )
  planner.made.push({ family: 'paragraph', name, displayName })
  return name
}

function makeWordsStyle(planner: Planner, { displayName, says, fonts }: DrawnWords & Named): string {
  const name = encodeStyleName(displayName)
  addStyle(planner.common, 'text', { name, displayName }, { text: written(planner, says, fonts).text })
  planner.made.push({ family: 'text', name, displayName })
  return name
}

/** Gives a paragraph its style; what of it is not as the style says stays by hand. */
function giveStyle(planner: Planner, { gathered }: Proposal, member: DrawnParagraph, home: Home, name: string): void {
  const { paragraph, local } = member
  const stays = staysLocal(gathered, member, home.base, home.style)
  const automatic = planner.automatic(paragraph.part)
  const style = local
    ? automatic.derive('paragraph', local.name, {
        text: spent(local.text),
        paragraph: { ...spent(local.paragraph), ...stays },
        parent: name,
      })
    : automatic.derive('paragraph', name, { paragraph: stays })
  assignParagraph(planner.change.on(paragraph.part), paragraph.node, style)
}

/** A span or link that goes by a style set by hand. */
interface Bearer {
  readonly node: number
  readonly style: Style
}

/** Lets words go by their character styles in place of what was set on them by hand. */
function rewriteWords(
  planner: Planner,
  member: DrawnParagraph,
  departures: readonly Departure[],
  names: ReadonlyMap<DrawnStyle | DrawnWords, string>,
): void {
  const { paragraph } = member
  const draft = planner.change.on(paragraph.part)
  const automatic = planner.automatic(paragraph.part)
  const bearers = bearersOf(planner, member)
  const wanted = joined(departures, departure => {
    const name = departure.style && names.get(departure.style)
    return name ?? automatic.derive('text', null, { text: attributesOfLook(departure.says).text })!
  })
  if (bearers.length === 0 && wanted.length === 0) return
  const done = new Set<Wanted>()
  const nested = bearers.some(one => bearers.some(other => other !== one && isWithin(draft.part, one.node, other.node)))
  for (const { node, style } of bearers) {
    automatic.release('text', style.name)
    const rest = automatic.derive('text', style.name, { text: spent(style.text) })
    const extent = extentOf(draft.part, node)
    const own = extent ? wanted.filter(each => each.from < extent.to && each.to > extent.from) : []
    const [only] = own
    if (rest === null && !nested && only && own.length === 1 && only.from === extent!.from && only.to === extent!.to) {
      assignStyle(draft, node, only.name)
      done.add(only)
    } else if (rest === null && isSpan(draft.part, node) && saysOnly(draft.part, node, 'text:style-name'))
      unwrapSpan(draft, node)
    else assignStyle(draft, node, rest)
  }
  for (const each of wanted.filter(one => !done.has(one)).reverse())
    wrapRange(draft, paragraph.node, each.from, each.to, each.name)
}

/** Elements of a paragraph whose text style was set by hand, the innermost first. */
function bearersOf(planner: Planner, { paragraph, text }: DrawnParagraph): Bearer[] {
  const scope = planner.reading.cascade.scope(paragraph.part)
  return styledWithin(planner.change.part(paragraph.part), paragraph.node, 0, text.length).flatMap(({ node, name }) => {
    const style = findStyle(scope, 'text', name)
    return style?.origin === 'automatic' ? [{ node, style }] : []
  })
}

/** A stretch of a paragraph and the name of the character style it shall have. */
interface Wanted {
  readonly from: number
  to: number
  readonly name: string
}

/** Stretches with the names of their styles, neighbours of one style as one. */
function joined(departures: readonly Departure[], nameOf: (departure: Departure) => string): Wanted[] {
  const wanted: Wanted[] = []
  for (const departure of departures) {
    const { from, to } = departure.run
    if (to === from) continue
    const name = nameOf(departure)
    const last = wanted.at(-1)
    if (last?.to === from && last.name === name) last.to = to
    else wanted.push({ from, to, name })
  }
  return wanted
}

/** Lets paragraphs that are headings by their look be headings in the file; their style has the level from then on. */
function makeHeadings(
  planner: Planner,
  style: DrawnStyle,
  name: string,
  level: number,
  which: DrawUpWish['headings'],
): void {
  if (
    which === 'none' ||
    style.members.some(({ paragraph }) => paragraph.heading !== null && paragraph.heading !== level)
  )
    return
  const { outline } = planner.scope
  const numbers = outline && readLevel(outline.part, outline.element, level)
  if (which === 'unlabelled' && numbers?.kind === 'number') {
    if (style.members.some(({ paragraph }) => paragraph.heading === null))
      planner.note('paragraphs that look like headings', 'as headings they would be numbered', style.members.length)
    return
  }
  for (const { paragraph } of style.members)
    if (paragraph.heading === null) setOutlineLevel(planner.change.on(paragraph.part), paragraph.node, level)
  const { part } = planner.common
  const styles = part.first(part.rootElement, 'office:styles')!
  const element = [...part.elements(styles, 'style:style')].find(
    each => each.attributes['style:name'] === name && each.attributes['style:family'] === 'paragraph',
  )!
  setStyleHead(planner.common, element.id, { outlineLevel: level })
}
