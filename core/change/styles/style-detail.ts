import { fontAttributes, slots, type Slot } from '../../document/font-attributes'
import { parseFontFamilies } from '../../document/font-family'
import type { LeadInRule, PatternRule, RoleId } from '../../document/rules'
import { readDropCap, readLabelStyle, readTabStops } from '../../document/style-contents'
import {
  findStyle,
  listStyleOf,
  nextStyle,
  ownListStyle,
  ownOutlineLevel,
  withParents,
  type Properties,
  type Style,
  type StyleScope,
} from '../../document/styles'
import { points } from '../../document/lengths'
import { percent } from '../../style/properties'
import type { Reading } from '../../style/reading'
import type { StyleFamily, TextFamily } from '../../style/families'
import type { StyleChanges } from '../../style/style-changes'

/** A value that a style has from a parent or a default, and from which. */
export interface Inherited {
  readonly value: string
  readonly from: string
}

/** Everything a form needs to show of a style: what it sets itself, and what it has from its parents. */
export interface StyleDetail<F extends StyleFamily = TextFamily> {
  readonly family: F
  readonly name: string
  readonly displayName: string
  readonly parent: string | null
  readonly next: string | null
  readonly outlineLevel: number | null
  readonly listStyle: string | null
  readonly text: Properties
  readonly paragraph: Properties
  /** Of the frame, shape or cell that holds the text. */
  readonly holder: Properties
  readonly inheritedText: Readonly<Record<string, Inherited>>
  readonly inheritedParagraph: Readonly<Record<string, Inherited>>
  readonly inheritedHolder: Readonly<Record<string, Inherited>>
  /** Families by slot: the style's own, or null, and what it has otherwise. */
  readonly fonts: Readonly<Record<Slot, { readonly own: string | null; readonly inherited: Inherited | null }>>
  readonly tabs: StyleChanges['tabs']
  readonly dropCap: StyleChanges['dropCap']
  readonly features: Readonly<Record<string, number>>
  readonly role: RoleId | null
  readonly author: string
  readonly patterns: readonly PatternRule[]
  readonly leadIns: readonly LeadInRule[]
  /** Names of the document's lists. */
  readonly lists: readonly string[]
  /** The character style of the labels of its list; null where it has no list, or none is named. */
  readonly listLabel: string | null
  /** Points, percentages resolved. */
  readonly size: number
}

function familyIn(scope: StyleScope, text: Properties, slot: Slot): string | null {
  const name = text[fontAttributes[slot].name]
  if (name !== undefined) return scope.faces.get(name)?.families[0] ?? name
  const loose = text[fontAttributes[slot].family]
  return loose === undefined ? null : (parseFontFamilies(loose)[0]?.name ?? null)
}

/** What a style says of what holds the text: of a frame or of a cell. */
const holderOf = ({ family, graphic, cell }: Style): Properties => (family === 'table-cell' ? cell : graphic)

/** What a style has from its parents and from what text starts with, layer by layer: the last that says something. */
function inheritedBy(scope: StyleScope, style: Style) {
  const above = withParents(scope, style).slice(0, -1)
  const held = style.family === 'graphic' || style.family === 'presentation'
  const fallback = held
    ? scope.defaults.get('graphic')
    : (scope.defaults.get('paragraph') ?? scope.defaults.get('graphic'))
  const layers = [
    ...(fallback && style.family !== 'text'
      ? [
          {
            text: fallback.text,
            paragraph: fallback.paragraph,
            holder: held ? fallback.graphic : {},
            displayName: 'what text starts with',
          },
        ]
      : []),
    ...above.map(each => ({ ...each, holder: holderOf(each) })),
  ]
  const inheritedText: Record<string, Inherited> = {}
  const inheritedParagraph: Record<string, Inherited> = {}
  const inheritedHolder: Record<string, Inherited> = {}
  const fonts = {} as Record<Slot, { own: string | null; inherited: Inherited | null }>
  for (const slot of slots) fonts[slot] = { own: familyIn(scope, style.text, slot), inherited: null }
  for (const layer of layers) {
    for (const [key, value] of Object.entries(layer.text))
      inheritedText[key] = {
        value:
          key === 'fo:font-size' && percent(value) !== null
            ? `${(points(inheritedText[key]?.value) ?? 12) * percent(value)!}pt`
            : value,
        from: layer.displayName,
      }
    for (const [key, value] of Object.entries(layer.paragraph))
      inheritedParagraph[key] = { value, from: layer.displayName }
    for (const [key, value] of Object.entries(layer.holder)) inheritedHolder[key] = { value, from: layer.displayName }
    for (const slot of slots) {
      const named = familyIn(scope, layer.text, slot)
      if (named !== null) fonts[slot].inherited = { value: named, from: layer.displayName }
    }
  }
  return { text: inheritedText, paragraph: inheritedParagraph, holder: inheritedHolder, fonts }
}

/** A style laid open; null where there is none of that name. */
export function styleDetail<F extends StyleFamily>(reading: Reading, family: F, name: string): StyleDetail<F> | null {
  const scope = [...reading.cascade.scopes.values()].at(-1)
  const style = scope && findStyle(scope, family, name)
  if (!scope || !style) return null
  const { rules } = reading.cascade
  const {
    text: inheritedText,
    paragraph: inheritedParagraph,
    holder: inheritedHolder,
    fonts,
  } = inheritedBy(scope, style)
  const home = reading.cascade.scope(style.part)
  const tabs = readTabStops(home, style)
  const dropCap = readDropCap(home, style)
  const kept = rules.styles.find(each => each.style.family === family && each.style.name === name)
  const list = listStyleOf(scope, style)
  return {
    family,
    name,
    displayName: style.displayName,
    parent: style.parentName,
    next: nextStyle(style),
    outlineLevel: ownOutlineLevel(style),
    listStyle: ownListStyle(style),
    text: style.text,
    paragraph: style.paragraph,
    holder: holderOf(style),
    inheritedText,
    inheritedParagraph,
    inheritedHolder,
    fonts,
    tabs: tabs && tabs.map(stop => ({ ...stop, position: points(stop.position) ?? 0 })),
    dropCap: dropCap && { ...dropCap, distance: points(dropCap.distance) ?? 0 },
    features: rules.features.find(each => each.style.family === family && each.style.name === name)?.features ?? {},
    role: kept?.role ?? null,
    author: kept?.author ?? '',
    patterns: rules.patterns.filter(rule => family === 'paragraph' && rule.style === name),
    leadIns: rules.leadIns.filter(rule => family === 'paragraph' && rule.style === name),
    listLabel: list === null ? null : readLabelStyle(scope, list),
    lists: [...scope.lists.keys()].filter(each => !each.startsWith('of ')),
    size: reading.cascade.named(style.part, family, name).effective.slots.western.size,
  }
}
