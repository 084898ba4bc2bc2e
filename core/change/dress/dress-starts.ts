import { sameFamily } from '../../document/font-family'
import type { Values } from '../../document/automatic-styles'
import { slots } from '../../document/font-attributes'
import type { StartKind } from '../../document/rules'
import { mediumOf, settingFor, type House, type Setting } from '../../house/house'
import { familiesOfSetting, paragraphValuesOf, textValuesOf } from '../../house/setting-values'
import { settingWords } from '../../house/setting-words'
import { setStart } from '../defaults/plan-starts'
import { placeholderStyles } from '../defaults/placeholders'
import { isLive, isPlaceholder, startKindsOf } from '../defaults/start-kinds'
import { kindTitles } from '../../style/start-titles'
import { startStyle } from '../defaults/start-list'
import type { StartValues } from '../defaults/wishes'
import type { Planner } from '../planner'
import type { DressWish } from './wish'

const startValuesOf = (house: House, setting: Setting): StartValues => {
  const families = familiesOfSetting(setting)
  return {
    fonts: Object.fromEntries(
      slots.flatMap(slot => (families[slot] === undefined ? [] : [[slot, { family: families[slot] }]])),
    ),
    text: textValuesOf(house, setting),
    paragraph: paragraphValuesOf(setting),
  }
}

/** Whether new text of a kind begins so already, from whatever says it: then it is not said again. */
function isSaid({ reading, scope }: Planner, kind: StartKind, { fonts, text, paragraph }: StartValues): boolean {
  const style = startStyle(reading, scope, kind)
  // Without a style of its own a kind begins as the document does, which the next change of that would take along.
  if (style.name === '' && !isLive(reading.document.kind, kind)) return false
  const { layers, slots: own } = reading.cascade.named(scope.part.path, style.family, style.name).effective
  const says = (of: 'text' | 'paragraph', values: Values = {}) =>
    Object.entries(values).every(
      ([attribute, value]) => layers.findLast(layer => layer[of][attribute] !== undefined)?.[of][attribute] === value,
    )
  return (
    says('text', text) &&
    says('paragraph', paragraph) &&
    slots.every(slot => !fonts?.[slot] || sameFamily(own[slot].font.family, fonts[slot].family))
  )
}

/**
 * Sets what new text begins with, by the kind of thing it stands in, where the house says so for the role; text that is
 * there keeps its look.
 */
export function dressStarts(planner: Planner, { house, keep }: DressWish): void {
  const { kind: documentKind } = planner.document
  const medium = mediumOf(documentKind)
  for (const kind of startKindsOf(documentKind)) {
    const role = house.defaults[kind]
    const setting = role === undefined || keep.includes(role) ? null : settingFor(house, role, medium)
    if (!setting || Object.keys(setting).length === 0) continue
    if (isPlaceholder(kind) && placeholderStyles(planner.scope, kind).size === 0) {
      planner.note('what new text in placeholders begins with', 'the masters have no styles for it')
      continue
    }
    const values = startValuesOf(house, setting)
    if (isSaid(planner, kind, values)) continue
    const included = planner.row({
      key: { what: 'dressed default', kind },
      stage: 'default',
      optional: true,
      title: `What new text begins with: ${kindTitles[kind].toLowerCase()}`,
      before: 'as the document has it',
      after: settingWords(house, setting),
    })
    if (!included) continue
    // What the change of the default would list is told by this row.
    planner.quietly(() => setStart(planner, kind, values))
    planner.reread()
  }
}
