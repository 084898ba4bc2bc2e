import { fontAttributes, slots } from '../../document/font-attributes'
import { textStylesIn } from '../../document/style-contents'
import { uniqueName } from '../../document/style-names'
import { addStyle } from '../../document/style-verbs'
import type { Properties } from '../../document/styles'
import type { GroupId } from '../../style/groups'
import { groupOf } from '../../style/groups'
import { slotAttributes, weightNumber } from '../../style/properties'
import type { Planner } from '../planner'

/** The values of some groups that a style sets, for all slots where one says enough for all. */
export function emphasisOf(text: Properties, groups: readonly GroupId[]): Record<string, string> {
  const kept: Record<string, string> = {}
  for (const group of groups) {
    for (const name of groupOf(group).text) if (text[name] !== undefined) kept[name] = text[name]
    if (group !== 'posture' && group !== 'weight') continue
    const pick = (slot: (typeof slots)[number]) =>
      group === 'posture' ? slotAttributes[slot].style : slotAttributes[slot].weight
    const said = slots.map(slot => text[pick(slot)]).find(value => value !== undefined)
    if (said !== undefined) for (const slot of slots) kept[pick(slot)] = text[pick(slot)] ?? said
  }
  return kept
}

/** What emphasis is called, after what it does. */
export function emphasisName(kept: Properties): string {
  // Of faces those of one width alone are kept: code.
  const words = slots.some(slot => kept[fontAttributes[slot].name] ?? kept[fontAttributes[slot].family]) ? ['Code'] : []
  const posture = kept['fo:font-style']
  const weight = kept['fo:font-weight'] === undefined ? null : weightNumber(kept['fo:font-weight'])
  const position = kept['style:text-position']
  if (weight !== null && weight >= 600) words.push(posture && posture !== 'normal' ? 'Strong emphasis' : 'Strong')
  else if (weight !== null) words.push(weight === 400 ? 'Regular weight' : `Weight ${weight}`)
  if (posture && !words.includes('Strong emphasis')) words.push(posture === 'normal' ? 'Upright' : 'Emphasis')
  if (position)
    words.push(
      /^(super|[1-9])/.test(position) ? 'Superior' : /^(sub|-)/.test(position) ? 'Inferior' : 'On the baseline',
    )
  const language = kept['fo:language'] ?? kept['style:language-asian'] ?? kept['style:language-complex']
  if (language !== undefined)
    words.push(
      language === 'none'
        ? 'No language'
        : `Language ${language}${kept['fo:country'] && kept['fo:country'] !== 'none' ? `-${kept['fo:country']}` : ''}`,
    )
  return words.join(', ') || 'Emphasis'
}

const same = (one: Properties, other: Properties) =>
  Object.keys(one).length === Object.keys(other).length &&
  Object.entries(one).every(([name, value]) => other[name] === value)

/** The character style that says an emphasis: one of that name that says just this, or a new one. */
export function emphasisStyle(planner: Planner, kept: Record<string, string>): string {
  const title = emphasisName(kept)
  for (const style of textStylesIn(planner.common)) {
    const called = style.displayName === title || style.displayName.startsWith(`${title} `)
    if (called && style.parent === null && style.text && same(style.text, kept)) return style.name
  }
  const name = uniqueName(planner.common.part, 'text', title)
  addStyle(planner.common, 'text', name, { text: kept })
  return name.name
}
