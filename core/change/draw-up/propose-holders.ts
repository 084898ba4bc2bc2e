import type { DrawnHolder, HolderFamily, HolderGround } from './gather-holders'
import { gatherHolders, groundOf, groundsOf, holderFamilies } from './gather-holders'
import { Gathered, type DrawnParagraph } from './gather'
import { belongsToPlace, comparable, neededOn, unsaid, type Look } from './look'
import type { DrawnStyle, Said } from './model'
import { nameStyles, type Named } from './names'
import { foldedVoices, fontsOf, type ProposalOptions, type Voice } from './propose'
import { purposesOf, type Purpose } from './purposes'
import { findStyle, type Style, type StyleScope } from '../../document/styles'
import type { Reading } from '../../style/reading'

/** A style in the making whose frames or cells are known, before it has a name. */
interface InTheMaking extends DrawnStyle {
  readonly family: HolderFamily
  readonly holders: readonly DrawnHolder[]
  /** What they stand on where they have nothing but its base. */
  readonly grounds: ReadonlySet<HolderGround>
}

/** A graphic or cell style in the making: a voice, and the frames or cells whose text speaks in it. */
export interface DrawnHolderStyle extends InTheMaking, Named {
  readonly purpose: Purpose
}

/** A style that is there and that some frames or cells take: one that says just how their text looks, or one chosen by hand. */
export interface TakenHolderStyle {
  readonly family: HolderFamily
  readonly voice: string
  readonly name: string
  readonly holders: readonly DrawnHolder[]
  /** It was chosen by hand, and their text looks otherwise until then. */
  readonly folded: boolean
}

/** What draw-up would make of the loose frames and the cells of a deck or drawing. */
export interface HolderProposal {
  readonly gathered: Gathered
  readonly styles: readonly DrawnHolderStyle[]
  readonly taken: readonly TakenHolderStyle[]
  /** Frames and cells that no style could be made for. */
  readonly left: number
}

/** Frames or cells of one voice that go back to one named style. */
interface Bucket extends Voice {
  readonly family: HolderFamily
  readonly base: string | null
  readonly holders: DrawnHolder[]
}

/** Draws frames and cells of a deck or drawing up: which styles their voices would be. Nothing is changed. */
export function proposeHolders(reading: Reading, options: ProposalOptions): HolderProposal {
  const { choices, dropped } = options
  const gathered = new Gathered(reading)
  const drawn: InTheMaking[] = []
  const taken: TakenHolderStyle[] = []
  const { buckets, left } = bucketsOf(gathered, options)
  for (const bucket of buckets) {
    const { family, voice, look, base, holders } = bucket
    const into = choices.find(each => each.family === family && each.voice === voice)?.into
    const name = into?.kind === 'style' ? into.name : existing(gathered, bucket)
    if (name !== null && !dropped(voice, family)) {
      taken.push({ family, voice, name, holders, folded: into?.kind === 'style' })
      continue
    }
    drawn.push({
      family,
      voice,
      look,
      base,
      holders,
      grounds: groundsOf(gathered, holders, base),
      says: saidOf(gathered, bucket),
      fonts: fontsOf(holders, bucket),
      members: holders.flatMap(each => each.members),
      characters: holders.reduce((sum, each) => sum + each.characters, 0),
      parent: null,
    })
  }
  plantHolders(drawn.filter(style => !dropped(style.voice, style.family)))
  return { gathered, styles: withNames(gathered, drawn, options), taken, left }
}

/** Those of some frames or cells that are not empty: what is told, and what all of them share. */
export const withText = (holders: readonly DrawnHolder[]): readonly DrawnHolder[] =>
  holders.filter(each => each.characters > 0)

/**
 * Frames by themselves, and cells by themselves: no style is for both. `left`: how many stand on what says of their text what
 * no style can take back.
 */
function bucketsOf(gathered: Gathered, { tolerance, choices }: ProposalOptions) {
  const all = gatherHolders(gathered)
  const buckets = new Map<string, Bucket>()
  let left = 0
  for (const family of holderFamilies) {
    const own = all.filter(each => each.family === family)
    const voices = foldedVoices(own, tolerance, choices, family)
    // What holds text comes first: an empty cell takes the style of its look where there is one, and needs none by itself.
    const ordered = [...voices].sort(([one], [other]) => Math.sign(other.characters) - Math.sign(one.characters))
    for (const [holder, { voice, look, spoken }] of ordered) {
      if (neededOn(look, [groundOf(gathered, holder, holder.base).text]) === null) {
        if (holder.characters > 0) left++
        continue
      }
      const key = JSON.stringify([family, voice, holder.base])
      const bucket = buckets.get(key) ?? { family, voice, look, spoken, base: holder.base, holders: [] }
      if (holder.characters === 0 && bucket.holders.length === 0) continue
      bucket.holders.push(holder)
      buckets.set(key, bucket)
    }
  }
  return { buckets: [...buckets.values()], left }
}

function withNames(gathered: Gathered, drawn: readonly InTheMaking[], { choices }: ProposalOptions) {
  const purposes = purposesOf(gathered, drawn)
  return holderFamilies.flatMap(family => {
    const own = drawn.filter(style => style.family === family)
    const named = nameStyles(gathered, own, [], purposes, choices, family).paragraphs
    return own.map(style => Object.assign(style, named.get(style)!, { purpose: purposes.get(style)! }))
  })
}

/** In a cell these are about the cell itself, not about the paragraphs in it (ODF 1.4 part 3, 17.18). */
const ofCells = /^(fo:(border|padding|background-color)|style:(border-line-width|shadow|writing-mode|vertical-align))/

/** What a style of some frames or cells says on top of their base. */
function saidOf(gathered: Gathered, { family, look, base, holders }: Bucket): Said {
  const grounds = [...groundsOf(gathered, holders, base)]
  const text = neededOn(
    look,
    grounds.map(each => each.text),
  )!
  const paragraph: Record<string, string> = {}
  const paragraphs = withText(holders).flatMap(each => each.paragraphs)
  for (const name of new Set(paragraphs.flatMap(each => Object.keys(each.paragraphLook)))) {
    if (belongsToPlace(name) || (family === 'table-cell' && ofCells.test(name))) continue
    const [value, ...others] = new Map(
      paragraphs.map(each => {
        const own = valueOf(each, name)
        return [comparable(own), own] as const
      }),
    ).values()
    // All paragraphs of all of them have it: then it is the style's. What differs stays by hand.
    if (others.length > 0 || value === undefined) continue
    const under = grounds.map(ground => comparable(ground.paragraph[name] ?? unsaid(name, false)))
    if (under.some(each => each !== comparable(value))) paragraph[name] = value
  }
  return { text, paragraph }
}

const valueOf = ({ paragraphLook, paragraph }: DrawnParagraph, name: string): string | undefined =>
  paragraphLook[name] ?? unsaid(name, paragraph.list !== null)

/** A style says something of the frame or cell itself, beside its text. */
const saysOfItself = ({ graphic, cell }: Style): boolean => Object.keys(graphic).length + Object.keys(cell).length > 0

/** A style made of the same base before, that says nothing of shapes or cells and looks just so; null for none. */
function existing(gathered: Gathered, bucket: Bucket): string | null {
  const { family, look, base, holders } = bucket
  const said = saidOf(gathered, bucket)
  const scope = gathered.cascade.scope(holders[0]!.part)
  // Of each ground, one that stands on it.
  const ones = [...new Map(holders.map(each => [groundOf(gathered, each, base), each])).entries()]
  for (const style of scope.common.values()) {
    if (style.family !== family || style.name === base || saysOfItself(style)) continue
    if (!goesBackTo(scope, style, base)) continue
    const fits = ones.every(([ground, holder]) => {
      const chain = groundOf(gathered, holder, style.name)
      return same(chain.text, look) && same(chain.paragraph, { ...ground.paragraph, ...said.paragraph })
    })
    if (fits) return style.name
  }
  return null
}

/** Whether a chain of parents that say nothing of shapes or cells ends at a base. */
function goesBackTo(scope: StyleScope, { family, parentName }: Style, base: string | null): boolean {
  for (let at = parentName, steps = 0; steps < 50; steps++) {
    if (at === base) return true
    const style = at === null ? undefined : findStyle(scope, family, at)
    if (!style || saysOfItself(style)) return false
    at = style.parentName
  }
  return false
}

const same = (one: Look, other: Look): boolean =>
  [...new Set([...Object.keys(one), ...Object.keys(other)])].every(
    name => comparable(one[name]) === comparable(other[name]),
  )

/** Gives each style the parent of the same base on top of which it has least to say; the one with most text is the root. */
function plantHolders(styles: readonly InTheMaking[]): void {
  const placed: InTheMaking[] = []
  for (const style of [...styles].sort((a, b) => b.characters - a.characters)) {
    const { paragraph } = style.says
    for (const parent of placed) {
      if (parent.family !== style.family || parent.base !== style.base) continue
      // What a parent says it says for the grounds that its own stand on.
      if (![...style.grounds].every(ground => parent.grounds.has(ground))) continue
      const text = neededOn(style.look, [parent.look])
      // What a parent says of paragraphs, and this one does not, it would take over.
      const clear = Object.keys(allOf(parent)).every(name => paragraph[name] !== undefined)
      if (text === null || !clear || Object.keys(text).length >= Object.keys(style.says.text).length) continue
      const differs = Object.entries(paragraph).filter(([name, value]) => allOf(parent)[name] !== value)
      style.parent = parent
      style.says = { text, paragraph: Object.fromEntries(differs) }
    }
    placed.push(style)
  }
}

/** What a style and those it goes back to say of paragraphs. */
export const allOf = ({ parent, says }: DrawnStyle): Look => ({ ...(parent ? allOf(parent) : {}), ...says.paragraph })
