import { fontAttributes, type Slot } from '../document/font-attributes'
import { describeValues, plainNumber } from './describe'
import type { TextStyle } from './cascade'
import { propertyGroups, type GroupId } from './groups'
import type { Layer } from './layers'
import { slotAttributes } from './properties'

/** A layer that has a say: a style by name, or what was set by hand. */
export interface TraceLayer {
  readonly from: Layer['from']
  readonly family: string
  readonly name: string
  readonly displayName: string
  readonly local: boolean
  readonly words: string
}

/** One type property of some text: its value, the layer that set it, and those it beat, innermost first. */
export interface TraceRow {
  readonly group: GroupId
  readonly title: string
  readonly value: string
  readonly winner: TraceLayer | null
  readonly beaten: readonly TraceLayer[]
}

const untold: Partial<Record<GroupId, string>> = {
  face: 'no font named',
  size: '12 pt',
  weight: 'regular weight',
  posture: 'upright',
  color: 'the reader’s own',
  tracking: 'not tracked',
  kerning: 'not kerned',
  scale: '100 %',
  case: 'as written',
  position: 'on the baseline',
  background: 'none',
  lines: 'none',
  effects: 'none',
  language: 'none',
  hyphenation: 'not hyphenated',
  leading: 'of the face',
  hidden: 'shown',
}

/** Attributes of a group that speak of a slot. */
function attributesFor(
  group: (typeof propertyGroups)[number],
  slot: Slot,
): { readonly text: readonly string[]; readonly paragraph: readonly string[] } {
  const own = new Set<string>([...Object.values(fontAttributes[slot]), ...Object.values(slotAttributes[slot])])
  const others = new Set(
    (['western', 'asian', 'complex'] as const)
      .filter(each => each !== slot)
      .flatMap(each => [...Object.values(fontAttributes[each]), ...Object.values(slotAttributes[each])]),
  )
  return { text: group.text.filter(name => own.has(name) || !others.has(name)), paragraph: group.paragraph }
}

/** Attributes as those of western text, so that one vocabulary says them all. */
function asWestern(text: Readonly<Record<string, string>>, slot: Slot): Record<string, string> {
  const names = new Map<string, string>()
  for (const key of Object.keys(fontAttributes.western) as (keyof typeof fontAttributes.western)[])
    names.set(fontAttributes[slot][key], fontAttributes.western[key])
  for (const key of Object.keys(slotAttributes.western) as (keyof typeof slotAttributes.western)[])
    names.set(slotAttributes[slot][key], slotAttributes.western[key])
  return Object.fromEntries(Object.entries(text).map(([name, value]) => [names.get(name) ?? name, value]))
}

/** Every type property of text of a style and slot, with why it is so. */
export function traceText(style: TextStyle, slot: Slot): TraceRow[] {
  const { effective } = style
  return propertyGroups
    .filter(group => group.id !== 'revision' && group.id !== 'setting')
    .map((group): TraceRow => {
      const names = attributesFor(group, slot)
      const saying = effective.layers
        .map((layer, index) => {
          const text = Object.fromEntries(
            names.text.flatMap(name => (layer.text[name] === undefined ? [] : [[name, layer.text[name]]])),
          )
          const paragraph = Object.fromEntries(
            names.paragraph.flatMap(name =>
              layer.paragraph[name] === undefined ? [] : [[name, layer.paragraph[name]]],
            ),
          )
          const words = describeValues(asWestern(text, slot), paragraph, style.scope).join(', ')
          return { index, layer, said: Object.keys(text).length + Object.keys(paragraph).length > 0, words }
        })
        .filter(each => each.said)
      const told = saying.map(({ layer, words }): TraceLayer => ({
        from: layer.from,
        family: layer.style.family,
        name: layer.style.name,
        displayName: layer.style.displayName,
        local: layer.local,
        words: words || Object.values(layer.text).slice(0, 1).join(''),
      }))
      const winner = told.at(-1) ?? null
      const values = effective.slots[slot]
      const value =
        group.id === 'size'
          ? `${plainNumber(values.size)} pt`
          : group.id === 'face'
            ? [values.font.family || untold.face!, values.font.styleName].filter(Boolean).join(' ')
            : group.id === 'language'
              ? values.language || 'none'
              : winner?.words || untold[group.id] || ''
      return { group: group.id, title: group.title, value, winner, beaten: told.slice(0, -1).reverse() }
    })
}
