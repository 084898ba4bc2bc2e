import { fontValues } from '../../document/face-verbs'
import { slots } from '../../document/font-attributes'
import { setStyleValues } from '../../document/style-verbs'
import type { Values } from '../../document/automatic-styles'
import { colorOf, type House, type Setting } from '../../house/house'
import { slotAttributes, weightValue } from '../../style/properties'
import type { Planner } from '../planner'

const points = (value: number): string => `${Math.round(value * 1000) / 1000}pt`

/** The values of text that a setting asks for; fonts are declared where common styles stand. */
function textValues(planner: Planner, house: House, setting: Setting): Values {
  const { family, weight, italic, size, tracking, color, hyphenate, scripts } = setting
  const values: Record<string, string | null> = {}
  for (const slot of slots) {
    const own =
      slot === 'western'
        ? { family, factor: 1 }
        : { family: scripts?.[slot]?.family, factor: scripts?.[slot]?.factor ?? 1 }
    const names = slotAttributes[slot]
    if (own.family !== undefined) Object.assign(values, fontValues(planner.common, slot, { family: own.family }))
    if (size !== undefined)
      Object.assign(values, { [names.size]: points(size * own.factor), [names.sizeRelative]: null })
    if (weight !== undefined) values[names.weight] = weightValue(weight)
    if (italic !== undefined) values[names.style] = italic ? 'italic' : 'normal'
  }
  if (tracking !== undefined && size !== undefined)
    values['fo:letter-spacing'] = tracking === 0 ? 'normal' : points((tracking / 1000) * size)
  if (setting.case !== undefined) {
    values['fo:text-transform'] = setting.case === 'small-caps' ? 'none' : setting.case
    values['fo:font-variant'] = setting.case === 'small-caps' ? 'small-caps' : 'normal'
  }
  const ink = colorOf(house, color)
  if (ink !== null) Object.assign(values, { 'fo:color': ink, 'style:use-window-font-color': null })
  if (hyphenate !== undefined) values['fo:hyphenate'] = String(hyphenate)
  return values
}

/**
 * Leading as the file takes it (ODF 1.4 part 3, 20.197): a percentage there is one of the face's own line height, so that
 * percent of a size are written as a length. Without a size the face's own has to stand for it.
 */
function leadingMarkup({ value, unit }: NonNullable<Setting['leading']>, size: number | undefined): string {
  if (unit === 'points') return points(value)
  return unit === 'percent' && size !== undefined ? points((value * size) / 100) : `${value}%`
}

/** The values of paragraphs that a setting asks for. */
function paragraphValues({ leading, size, before, after, align }: Setting): Values {
  return {
    ...(leading === undefined
      ? {}
      : {
          'fo:line-height': leadingMarkup(leading, size),
          'style:line-height-at-least': null,
          'style:line-spacing': null,
        }),
    ...(before === undefined ? {} : { 'fo:margin-top': points(before) }),
    ...(after === undefined ? {} : { 'fo:margin-bottom': points(after) }),
    ...(align === undefined ? {} : { 'fo:text-align': align }),
  }
}

/** Sets a style as a house says: what the house leaves open stays. */
export function saySetting(planner: Planner, house: House, node: number, setting: Setting): void {
  setStyleValues(planner.common, node, 'text', textValues(planner, house, setting))
  setStyleValues(planner.common, node, 'paragraph', paragraphValues(setting))
}
