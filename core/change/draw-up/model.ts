import { fontAttributes, slots } from '../../document/font-attributes'
import { writeFontFamily } from '../../document/font-family'
import type { Properties, Style } from '../../document/styles'
import type { Layer } from '../../style/layers'
import { slotAttributes } from '../../style/properties'
import type { DrawnParagraph, Gathered } from './gather'
import {
  belongsToPlace,
  comparable,
  differing,
  isLeading,
  lookOf,
  neededOn,
  paragraphLookOf,
  unsaid,
  type FontSources,
  type FontValue,
  type Look,
} from './look'

/** A paragraph style in the making: a voice, and the paragraphs that speak in it. */
export interface DrawnStyle {
  readonly voice: string
  readonly look: Look
  readonly fonts: FontSources
  /** The named style that it goes back to where it has no drawn parent, and above those where it has. */
  readonly base: string | null
  readonly members: readonly DrawnParagraph[]
  readonly characters: number
  parent: DrawnStyle | null
  /** What it says itself: values of text and of paragraphs. */
  says: Said
}

/** The style that a paragraph gets: a drawn one, or a named one that is there. */
export interface Home {
  readonly base: string | null
  readonly style: DrawnStyle | null
}
export type Homes = ReadonlyMap<DrawnParagraph, Home>

/** Values that a style says, as looks have them. */
export interface Said {
  readonly text: Look
  readonly paragraph: Look
}

/** A look's values as attributes of a style: fonts by family, languages in their two halves. */
export function attributesOfLook(look: Look): { readonly text: Properties; readonly paragraph: Properties } {
  const text: Record<string, string> = {}
  const paragraph: Record<string, string> = {}
  for (const [name, value] of Object.entries(look)) {
    const slot = slots.find(each => fontAttributes[each].name === name)
    if (slot) {
      const { family, face, charset, features } = JSON.parse(value) as FontValue
      const own = fontAttributes[slot]
      text[own.family] = writeFontFamily(features ? `${family}:${features}` : family)
      if (face) text[own.styleName] = face
      if (charset) text[own.charset] = charset
    } else if (isLeading(name)) paragraph[name] = value
    else Object.assign(text, languageOrPlain(name, value))
  }
  return { text, paragraph }
}

/** A value as its attributes: a language is written with its country (ODF 1.4 part 3, 20.202 and 20.189). */
export function languageOrPlain(name: string, value: string): Properties {
  const slot = slots.find(each => slotAttributes[each].language === name)
  if (!slot) return { [name]: value }
  const { language, country } = slotAttributes[slot]
  const [own, ...rest] = value.split('-')
  return { [language]: own || 'none', [country]: rest.join('-') || 'none' }
}

/** A layer that a style in the making would be. */
export function drawnLayer({ voice, says }: Pick<DrawnStyle, 'voice' | 'says'>, part: string): Layer {
  const { text, paragraph: leading } = attributesOfLook(says.text)
  const paragraph = { ...says.paragraph, ...leading }
  const style: Style = {
    part,
    node: -1,
    family: 'paragraph',
    name: voice,
    displayName: voice,
    parentName: null,
    origin: 'common',
    text,
    paragraph,
    graphic: {},
    cell: {},
    propertyNodes: {},
    attributes: {},
    maps: [],
  }
  return { from: 'paragraph', style, local: false, text, paragraph }
}

/** The layers of a drawn style and all it goes back to, where a paragraph stands. */
export function layersOf(
  gathered: Gathered,
  at: DrawnParagraph,
  base: string | null,
  style: DrawnStyle | null,
): Layer[] {
  const drawn: Layer[] = []
  for (let each = style; each; each = each.parent) drawn.unshift(drawnLayer(each, at.paragraph.part))
  return [...at.ground.layers, ...gathered.chain(at, base), ...drawn]
}

/** One sort of place that members stand in: what is under a style there. */
interface Place {
  readonly looks: readonly Look[]
  readonly paragraph: Look
}

/** What is under a style of a base and parent at all places of some members, each sort of place once. */
function placesOf(
  gathered: Gathered,
  members: readonly DrawnParagraph[],
  base: string | null,
  parent: DrawnStyle | null,
) {
  const places = new Map<string, Place>()
  for (const member of members) {
    const { paragraph, role, ground } = member
    const key = `${paragraph.part}|${role}|${paragraph.place}|${paragraph.list?.level ?? ''}|${paragraph.heading ?? ''}|${ground.key}`
    if (places.has(key)) continue
    const layers = layersOf(gathered, member, base, parent)
    // With and without what holds it being set by hand: the style shall say enough either way.
    const named = layers.filter(layer => !layer.local)
    places.set(key, {
      looks: (named.length < layers.length ? [layers, named] : [layers]).map(each => lookOf(gathered.resolve(each))),
      paragraph: paragraphLookOf(Object.assign({}, ...layers.map(layer => layer.paragraph)) as Properties),
    })
  }
  return [...places.values()]
}

/** The value that most members have for an attribute; undefined where most say nothing that could be said. */
function mostHave(members: readonly DrawnParagraph[], name: string): { value: string | undefined; all: boolean } {
  const counts = new Map<string | undefined, { count: number; value: string | undefined }>()
  let speechless = 0
  for (const { paragraphLook, paragraph } of members) {
    const value = paragraphLook[name] ?? unsaid(name, paragraph.list !== null)
    if (value === undefined) speechless++
    const key = comparable(value)
    const known = counts.get(key)
    if (known) known.count++
    else counts.set(key, { count: 1, value })
  }
  const [best] = [...counts.values()].sort((a, b) => b.count - a.count)
  return { value: best?.value, all: speechless === 0 }
}

/**
 * What a style of some members has to say on top of a base and a parent; null where those say what cannot be taken back.
 * Of paragraph values it says what most members have; what departs from that stays local.
 */
export function saidBy(
  gathered: Gathered,
  look: Look,
  members: readonly DrawnParagraph[],
  base: string | null,
  parent: DrawnStyle | null,
): Said | null {
  const places = placesOf(gathered, members, base, parent)
  const text = neededOn(
    look,
    places.flatMap(place => place.looks),
  )
  if (text === null) return null
  const paragraph: Record<string, string> = {}
  const names = new Set(
    [...members, ...places.map(place => ({ paragraphLook: place.paragraph }))].flatMap(each =>
      Object.keys(each.paragraphLook),
    ),
  )
  for (const name of names) {
    const inList = members.some(member => member.paragraph.list !== null)
    const under = places.map(place => place.paragraph[name] ?? unsaid(name, inList))
    const { value, all } = mostHave(members, name)
    const says = value !== undefined && all && !belongsToPlace(name)
    if (says && under.some(each => comparable(each) !== comparable(value))) paragraph[name] = value
    // What is under it and some member cannot take back: it may not go back to that.
    if (
      !says &&
      places.some(place => place.paragraph[name] !== undefined) &&
      members.some(member => cannotSay(member, name))
    )
      return null
  }
  return { text, paragraph }
}

const cannotSay = ({ paragraphLook, paragraph }: DrawnParagraph, name: string): boolean =>
  paragraphLook[name] === undefined && unsaid(name, paragraph.list !== null) === undefined

/** Values of a paragraph that its new style does not say: they stay by hand. */
export function staysLocal(
  gathered: Gathered,
  member: DrawnParagraph,
  base: string | null,
  style: DrawnStyle | null,
): Record<string, string> {
  const layers = layersOf(gathered, member, base, style)
  const said = paragraphLookOf(Object.assign({}, ...layers.map(layer => layer.paragraph)) as Properties)
  const local: Record<string, string> = {}
  for (const name of differing(member.paragraphLook, said)) {
    const inList = member.paragraph.list !== null
    const value = member.paragraphLook[name] ?? unsaid(name, inList)
    if (value !== undefined && comparable(value) !== comparable(said[name] ?? unsaid(name, inList))) local[name] = value
  }
  return local
}

/** How much a style says. */
const amount = ({ text, paragraph }: Said): number => Object.keys(text).length + Object.keys(paragraph).length

/** As many styles are tried as a parent of each other one. */
const candidates = 24

/**
 * Gives each style the parent on top of which it has least to say, so that the tree says each value once. The style with
 * most text stands at the root.
 */
export function plantTree(gathered: Gathered, styles: readonly DrawnStyle[]): void {
  const placed: DrawnStyle[] = []
  for (const style of [...styles].sort((a, b) => b.characters - a.characters)) {
    const { look, members, base } = style
    let best: { parent: DrawnStyle | null; says: Said } = {
      parent: null,
      says: saidBy(gathered, look, members, base, null)!,
    }
    for (const parent of placed.filter(each => each.base === base).slice(0, candidates)) {
      const says = saidBy(gathered, look, members, base, parent)
      if (says && amount(says) < amount(best.says)) best = { parent, says }
    }
    style.parent = best.parent
    style.says = best.says
    placed.push(style)
  }
}
