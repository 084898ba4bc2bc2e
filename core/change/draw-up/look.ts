import { fontAttributes, slots, type Slot } from '../../document/font-attributes'
import { points } from '../../document/lengths'
import type { Properties } from '../../document/styles'
import type { Effective } from '../../style/effective'
import { groupOf } from '../../style/groups'
import {
  initialLeading,
  leadingProperties,
  sharedProperties,
  slotAttributes,
  weightValue,
} from '../../style/properties'

/*
 * How text looks, as values that a style can say: what draw-up compares and writes. Every value is absolute, whichever
 * layers it came from; what nobody says has the value that holds then, or none where no style could say it.
 */

/** Attributes with absolute values. A font stands under the name attribute of its slot as one value (`FontValue`). */
export type Look = Readonly<Record<string, string>>

/** Which font a slot takes, as one value. */
export interface FontValue {
  readonly family: string
  readonly face: string
  readonly charset: string
  readonly features: string
}

/** Where the font of a slot was named, for writing it. */
export interface FontSource {
  readonly part: string
  readonly text: Properties
}

export type FontSources = Readonly<Partial<Record<Slot, FontSource>>>

const handled = new Set([
  ...slots.flatMap(slot => Object.values(fontAttributes[slot])),
  ...slots.flatMap(slot => Object.values(slotAttributes[slot])),
  ...Object.keys(sharedProperties),
])

/** What of a paragraph belongs to its place and never to a style (ODF 1.4 part 3, 20.184, 20.185 and 20.330). */
const ofPlace = new Set(['fo:break-before', 'fo:break-after', 'style:page-number'])
export const belongsToPlace = (attribute: string): boolean => ofPlace.has(attribute)

/** Attributes of namespaces that are unknown here stay where they are; marks of revisions are none of a style's. */
export const isForeign = (attribute: string): boolean => attribute.startsWith('{')
const revisionMarks = new Set(groupOf('revision').text)
export const isRevisionMark = (attribute: string): boolean => revisionMarks.has(attribute)

/** What holds where nobody says anything, for attributes of text whose absence can be said. */
const initialText: Look = {
  ...Object.fromEntries(Object.entries(sharedProperties).filter(([, value]) => value !== '')),
  ...Object.fromEntries(
    slots.flatMap(slot => [
      [slotAttributes[slot].weight, 'normal'],
      [slotAttributes[slot].style, 'normal'],
      [slotAttributes[slot].language, ''],
    ]),
  ),
}

const sides = ['top', 'bottom', 'left', 'right']
/** Shorthands and what they stand for (ODF 1.4 part 3, 20.198, 20.214 and 20.183). */
const shorthands = new Map(
  ['fo:margin', 'fo:padding', 'fo:border'].map(name => [name, sides.map(side => `${name}-${side}`)]),
)

/** The same for attributes of paragraphs (ODF 1.4 part 3, 20.173 to 20.216). */
const initialParagraph: Look = {
  ...initialLeading,
  ...Object.fromEntries(
    sides.flatMap(side => [
      [`fo:margin-${side}`, '0pt'],
      [`fo:padding-${side}`, '0pt'],
    ]),
  ),
  ...Object.fromEntries(sides.map(side => [`fo:border-${side}`, 'none'])),
  'fo:text-indent': '0pt',
  'style:auto-text-indent': 'false',
  'fo:text-align': 'start',
  'style:justify-single-word': 'false',
  'fo:keep-with-next': 'auto',
  'fo:keep-together': 'auto',
  'fo:background-color': 'transparent',
  'style:shadow': 'none',
  'style:contextual-spacing': 'false',
  'fo:break-before': 'auto',
  'fo:break-after': 'auto',
  'style:page-number': 'auto',
}

/** In lists with the newer positions a margin that is said counts otherwise than one that is not (17.20). */
const saidInLists = new Set(['fo:margin-left', 'fo:text-indent'])

/** What holds where an attribute of a paragraph is not said; undefined where nothing can be said that comes to it. */
export const unsaid = (attribute: string, inList: boolean): string | undefined =>
  inList && saidInLists.has(attribute) ? undefined : initialParagraph[attribute]

const round = (value: number) => Math.round(value * 1e4) / 1e4

/** A value as it is compared: lengths in points, whatever unit they have in the file. */
export function comparable(value: string | undefined): string | undefined {
  if (value === undefined) return undefined
  const length = points(value)
  return length === null ? value : `${round(length)}pt`
}

const looks = new WeakMap<Effective, Look>()

/** The absolute values of some text, leading included. */
export function lookOf(effective: Effective): Look {
  let look = looks.get(effective)
  if (!look) looks.set(effective, (look = readLook(effective)))
  return look
}

function readLook({ slots: bySlot, shared, leading, layers, winners }: Effective): Look {
  const look: Record<string, string> = {}
  for (const { text } of layers)
    for (const [name, value] of Object.entries(text)) if (!handled.has(name) && !isForeign(name)) look[name] = value
  for (const slot of slots) {
    const own = bySlot[slot]
    const names = slotAttributes[slot]
    const { family, styleName, charset, features, layer } = own.font
    if (layer >= 0) {
      const value: FontValue = { family, face: styleName, charset, features }
      look[fontAttributes[slot].name] = JSON.stringify(value)
    }
    look[names.size] = `${round(own.size)}pt`
    look[names.weight] = weightValue(own.weight)
    look[names.style] = own.posture
    if (winners[names.language] !== undefined) look[names.language] = own.language
  }
  for (const [name, value] of Object.entries(shared)) if (value !== '') look[name] = value
  for (const name of leadingProperties) {
    const value = comparable(leading[name]) ?? initialParagraph[name]!
    look[name] = value
  }
  for (const [name, value] of Object.entries(initialText)) look[name] ??= value
  return look
}

/** Where the fonts of some text were named. */
export function fontSourcesOf({ slots: bySlot, layers }: Effective): FontSources {
  return Object.fromEntries(
    slots.flatMap(slot => {
      const layer = layers[bySlot[slot].font.layer]
      return layer ? [[slot, { part: layer.style.part, text: layer.text }]] : []
    }),
  )
}

/** The values of a paragraph but its leading, which is part of how its text looks; shorthands are taken apart. */
export function paragraphLookOf(properties: Properties): Look {
  const look: Record<string, string> = {}
  for (const [name, value] of Object.entries(properties)) {
    if (isForeign(name) || leading.has(name)) continue
    const parts = shorthands.get(name)
    if (!parts) look[name] = value
    else for (const part of parts) if (properties[part] === undefined) look[part] = value
  }
  return look
}
const leading: ReadonlySet<string> = new Set(leadingProperties)

/** Whether an attribute of a look is a paragraph's: leading. */
export const isLeading = (attribute: string): boolean => leading.has(attribute)

/** Whether a value is what holds anyhow where nobody says anything. */
export const isInitial = (attribute: string, value: string): boolean =>
  (initialText[attribute] ?? initialParagraph[attribute]) === value

const languages: ReadonlySet<string> = new Set(slots.map(slot => slotAttributes[slot].language))
/** Whether an attribute of a look is a language, with its country. */
export const isLanguage = (attribute: string): boolean => languages.has(attribute)

/** Attributes in which two looks differ. */
export function differing(one: Look, other: Look): string[] {
  const names: string[] = []
  for (const name in one) if (comparable(one[name]) !== comparable(other[name])) names.push(name)
  for (const name in other) if (one[name] === undefined) names.push(name)
  return names
}

/**
 * What has to be said on top of some grounds so that text looks as it shall on all of them: null where one of them says
 * what cannot be taken back.
 */
export function neededOn(look: Look, grounds: Iterable<Look>): Record<string, string> | null {
  const needed: Record<string, string> = {}
  for (const ground of grounds)
    for (const name of differing(look, ground)) {
      const value = look[name]
      if (value === undefined) return null
      needed[name] = value
    }
  return needed
}

/** All attributes of some slots. */
export const attributesOfSlots = (of: readonly Slot[]): ReadonlySet<string> =>
  new Set(of.flatMap(slot => [...Object.values(fontAttributes[slot]), ...Object.values(slotAttributes[slot])]))

const twinLengths = new Set([
  ...slots.map(slot => slotAttributes[slot].size),
  'fo:line-height',
  'style:line-height-at-least',
  'style:line-spacing',
])

/** Whether two looks differ in nothing that is seen but lengths, and in those by no more than a tolerance in points. */
export function areTwins(one: Look, other: Look, tolerance: number, unseen: ReadonlySet<string>): boolean {
  return differing(one, other).every(name => {
    if (unseen.has(name)) return true
    if (!twinLengths.has(name)) return false
    const [a, b] = [points(one[name]), points(other[name])]
    return a !== null && b !== null && Math.abs(a - b) <= tolerance + 1e-6
  })
}

/** A look as one short word, by which a voice is known from one document to another: equal for equal looks. */
export function voiceWord(look: Look, more: readonly string[] = []): string {
  const text = JSON.stringify([
    Object.keys(look)
      .sort()
      .map(name => [name, comparable(look[name])]),
    ...more,
  ])
  // Two 32-bit FNV-1a hashes (draft-eastlake-fnv) with different offsets: a name, no proof.
  let one = 0x811c9dc5
  let other = 0x1b873593
  for (let at = 0; at < text.length; at++) {
    const code = text.charCodeAt(at)
    one = Math.imul(one ^ code, 0x01000193)
    other = Math.imul(other ^ code, 0x01000193) ^ (other >>> 15)
  }
  return [one, other].map(each => (each >>> 0).toString(16).padStart(8, '0')).join('')
}
