import { fontValues } from '../../document/face-verbs'
import type { Draft } from '../../document/draft'
import { slots } from '../../document/font-attributes'
import { setStyleValues } from '../../document/style-verbs'
import type { Values } from '../../document/automatic-styles'
import type { House, Setting } from '../../house/house'
import { familiesOfSetting, paragraphValuesOf, textValuesOf } from '../../house/setting-values'
import { slotAttributes } from '../../style/properties'
import type { Planner } from '../planner'

/** The values of text that a setting asks for; fonts are declared in the part of the draft. */
export function textValues(draft: Draft, house: House, setting: Setting): Values {
  const own = textValuesOf(house, setting)
  const values: Record<string, string | null> = { ...own }
  const families = familiesOfSetting(setting)
  for (const slot of slots) {
    const family = families[slot]
    if (family !== undefined) Object.assign(values, fontValues(draft, slot, { family }))
    if (setting.size !== undefined) values[slotAttributes[slot].sizeRelative] = null
  }
  if (own['fo:color'] !== undefined) values['style:use-window-font-color'] = null
  return values
}

/** Sets a style as a house says: what the house leaves open stays. */
export function saySetting(planner: Planner, house: House, node: number, setting: Setting): void {
  setStyleValues(planner.common, node, 'text', textValues(planner.common, house, setting))
  const values: Record<string, string | null> = { ...paragraphValuesOf(setting) }
  if (setting.leading !== undefined) {
    values['style:line-height-at-least'] = null
    values['style:line-spacing'] = null
  }
  setStyleValues(planner.common, node, 'paragraph', values)
}
