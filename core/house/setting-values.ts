import { slots } from '../document/font-attributes'
import { slotAttributes, weightValue } from '../style/properties'
import { colorOf, type House, type Setting } from './house'

/* A setting as attributes of OpenDocument, for a style that is changed as for one that is new. What is open is not there. */

const points = (value: number): string => `${Math.round(value * 1000) / 1000}pt`

/** How text is set, but for its fonts: those are named in a document's own way. */
export function textValuesOf(house: House, setting: Setting): Record<string, string> {
  const { weight, italic, size, tracking, color, hyphenate, scripts } = setting
  const values: Record<string, string> = {}
  for (const slot of slots) {
    const names = slotAttributes[slot]
    const factor = slot === 'western' ? 1 : (scripts?.[slot]?.factor ?? 1)
    if (size !== undefined) values[names.size] = points(size * factor)
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
  if (ink !== null) values['fo:color'] = ink
  if (hyphenate !== undefined) values['fo:hyphenate'] = String(hyphenate)
  return values
}

/**
 * Leading as the file takes it (ODF 1.4 part 3, 20.197): a percentage there is one of the face's own line height, so that
 * percent of a size are written as a length. Without a size the face's own has to stand for it.
 */
function leadingValue({ value, unit }: NonNullable<Setting['leading']>, size: number | undefined): string {
  if (unit === 'points') return points(value)
  return unit === 'percent' && size !== undefined ? points((value * size) / 100) : `${value}%`
}

/** How paragraphs are set. */
export function paragraphValuesOf({ leading, size, before, after, align }: Setting): Record<string, string> {
  return {
    ...(leading === undefined ? {} : { 'fo:line-height': leadingValue(leading, size) }),
    ...(before === undefined ? {} : { 'fo:margin-top': points(before) }),
    ...(after === undefined ? {} : { 'fo:margin-bottom': points(after) }),
    ...(align === undefined ? {} : { 'fo:text-align': align }),
  }
}

/** What of a setting holds for text of charts: it stands in no paragraphs that have leading or spaces of their own. */
export function settingOfCharts(setting: Setting): Setting {
  const { leading: _leading, before: _before, after: _after, align: _align, hyphenate: _hyphenate, ...rest } = setting
  return rest
}

/** The family that a setting asks for in each slot; undefined where it is open. */
export const familiesOfSetting = ({ family, scripts }: Setting) => ({
  western: family,
  asian: scripts?.asian?.family,
  complex: scripts?.complex?.family,
})
