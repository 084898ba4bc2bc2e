import { parseFontFamilies } from '../document/font-family'
import type { FaceDeclaration, StyleScope } from '../document/styles'
import type { Layer } from './layers'
import { fontAttributes, slots, type Slot } from '../document/font-attributes'
import { points } from '../document/lengths'
import {
  initialLeading,
  leadingProperties,
  percent,
  sharedNames,
  sharedProperties,
  slotAttributes,
  weightNumber,
  type LeadingProperty,
  type SharedProperty,
} from './properties'

/** The font a slot ends up with, as the document names it. */
export interface EffectiveFont {
  /** Family as parsed from the declaration or attribute; '' where nothing names one. */
  readonly family: string
  /** Name of a single face (style:font-style-name), '' where weight and posture choose it. */
  readonly styleName: string
  readonly generic: string
  readonly pitch: string
  /** style:font-charset; x-symbol marks a font of signs (ODF 1.4 part 3, 20.263). */
  readonly charset: string
  /** OpenType features behind a colon in the font's name, as written: “smcp&onum”. */
  readonly features: string
  /** Which layer named it; -1 for none. */
  readonly layer: number
}

/** Type values of one slot. */
export interface SlotValues {
  readonly font: EffectiveFont
  /** Points. */
  readonly size: number
  /** 1 to 1000. */
  readonly weight: number
  readonly posture: 'normal' | 'italic' | 'oblique'
  readonly language: string
}

/** What text looks like, and why: every value with the layer that won. */
export interface Effective {
  readonly slots: Readonly<Record<Slot, SlotValues>>
  readonly shared: Readonly<Record<SharedProperty, string>>
  readonly leading: Readonly<Partial<Record<LeadingProperty, string>>>
  readonly layers: readonly Layer[]
  /** Attribute name to the index in `layers` of the winner. A font is under the name attribute of its slot. */
  readonly winners: Readonly<Record<string, number>>
}

/** Size where no style says one: ODF leaves it open; 12 pt is CSS's medium at its usual 16 px. */
const initialSize = 12

export type FaceLookup = (part: string, name: string) => FaceDeclaration | undefined

/** Declarations of font faces by the part whose styles name them. */
export function faceLookup(scopes: Iterable<StyleScope>): FaceLookup {
  const byPart = new Map<string, StyleScope>()
  for (const scope of scopes) byPart.set(scope.part.path, scope)
  return (part, name) => byPart.get(part)?.faces.get(name)
}

function fontOf(layer: Layer, slot: Slot, find: FaceLookup, index: number): EffectiveFont | null {
  const attributes = fontAttributes[slot]
  const { text } = layer
  const name = text[attributes.name]
  if (name !== undefined) {
    // Where a declared name and a loose family stand together the declared one is taken: it says more.
    const face = find(layer.style.part, name)
    return {
      family: face ? (face.families[0] ?? name) : name,
      styleName: text[attributes.styleName] ?? '',
      layer: index,
      features: featuresIn(face?.attributes['svg:font-family']),
      generic: face?.attributes['style:font-family-generic'] ?? '',
      pitch: face?.attributes['style:font-pitch'] ?? '',
      charset: face?.attributes['style:font-charset'] ?? '',
    }
  }
  const loose = text[attributes.family]
  if (loose === undefined) return null
  return {
    family: parseFontFamilies(loose)[0]?.name ?? '',
    styleName: text[attributes.styleName] ?? '',
    layer: index,
    features: featuresIn(loose),
    generic: text[attributes.generic] ?? '',
    pitch: text[attributes.pitch] ?? '',
    charset: text[attributes.charset] ?? '',
  }
}

const featuresIn = (families: string | undefined): string =>
  families?.includes(':') ? (parseFontFamilies(families)[0]?.features ?? '') : ''

const nothing: EffectiveFont = {
  family: '',
  styleName: '',
  generic: '',
  pitch: '',
  charset: '',
  features: '',
  layer: -1,
}

/**
 * Resolves a list of layers, outermost first: the last one that says something wins; percentages multiply what is
 * below.
 */
export function resolve(layers: readonly Layer[], find: FaceLookup): Effective {
  const winners: Record<string, number> = {}
  const resolved = {} as Record<Slot, SlotValues>
  for (const slot of slots) {
    const names = slotAttributes[slot]
    let font = nothing
    let size = initialSize
    let weight = 400
    let posture: SlotValues['posture'] = 'normal'
    let language = ''
    layers.forEach((layer, index) => {
      const { text } = layer
      const named = fontOf(layer, slot, find, index)
      if (named) {
        font = named
        winners[fontAttributes[slot].name] = index
      } else if (text[fontAttributes[slot].styleName] !== undefined) {
        font = { ...font, styleName: text[fontAttributes[slot].styleName]! }
        winners[fontAttributes[slot].styleName] = index
      }
      const stated = text[names.size]
      if (stated !== undefined) {
        const factor = percent(stated)
        const absolute = points(stated)
        if (factor !== null || absolute !== null) {
          size = absolute ?? size * factor!
          winners[names.size] = index
        }
      }
      const relative = points(text[names.sizeRelative])
      if (relative !== null) {
        size += relative
        winners[names.size] = index
      }
      if (text[names.weight] !== undefined) {
        weight = weightNumber(text[names.weight])
        winners[names.weight] = index
      }
      const stance = text[names.style]
      if (stance === 'normal' || stance === 'italic' || stance === 'oblique') {
        posture = stance
        winners[names.style] = index
      }
      if (text[names.language] !== undefined) {
        const country = text[names.country]
        language =
          text[names.language] === 'none'
            ? ''
            : country && country !== 'none'
              ? `${text[names.language]}-${country}`
              : text[names.language]!
        winners[names.language] = index
      }
    })
    resolved[slot] = { font, size: Math.max(size, 0.1), weight, posture, language }
  }
  const shared = { ...sharedProperties } as Record<SharedProperty, string>
  const leading: Partial<Record<LeadingProperty, string>> = {}
  layers.forEach((layer, index) => {
    for (const name of sharedNames) {
      const value = layer.text[name]
      if (value !== undefined) {
        shared[name] = value
        winners[name] = index
      }
    }
    // A colour of an inner layer stands over the automatic one of an outer: readers hold both for one property.
    if (layer.text['fo:color'] !== undefined && layer.text['style:use-window-font-color'] === undefined)
      shared['style:use-window-font-color'] = sharedProperties['style:use-window-font-color']
    for (const name of leadingProperties) {
      const value = layer.paragraph[name]
      if (value !== undefined) {
        leading[name] = value
        winners[name] = index
      }
    }
  })
  return { slots: resolved, shared, leading, layers, winners }
}

/** One step of a trace: what a layer says about a property. */
export interface TraceStep {
  readonly layer: Layer
  readonly value: string
  readonly wins: boolean
}

/** Every layer that had a say about a property, outermost first, and which one won. */
export function trace(effective: Effective, attribute: string): TraceStep[] {
  const steps: TraceStep[] = []
  effective.layers.forEach((layer, index) => {
    const value = layer.text[attribute] ?? layer.paragraph[attribute]
    if (value !== undefined) steps.push({ layer, value, wins: effective.winners[attribute] === index })
  })
  return steps
}

/** Whether two values of leading come to the same: what is not said is as it is at first. */
function sameLeading(name: LeadingProperty, one = initialLeading[name], other = initialLeading[name]): boolean {
  if (one === other) return true
  const [a, b] = [points(one), points(other)]
  return a !== null && a === b
}

/** Whether two sets of values look the same in a slot; layers are not compared. */
export function looksSame(a: Effective, b: Effective, slot: Slot): boolean {
  const one = a.slots[slot]
  const other = b.slots[slot]
  return (
    one.size === other.size &&
    one.weight === other.weight &&
    one.posture === other.posture &&
    one.language === other.language &&
    one.font.family === other.font.family &&
    one.font.styleName === other.font.styleName &&
    one.font.charset === other.font.charset &&
    one.font.features === other.font.features &&
    sharedNames.every(name => a.shared[name] === b.shared[name]) &&
    leadingProperties.every(name => sameLeading(name, a.leading[name], b.leading[name]))
  )
}
