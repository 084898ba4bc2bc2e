import { sameFamily } from '../../document/font-family'
import { slots } from '../../document/font-attributes'
import type { StartKind } from '../../document/rules'
import { mediumOf, settingFor, type House, type Setting } from '../../house/house'
import { familiesOfSetting, paragraphValuesOf, textValuesOf } from '../../house/setting-values'
import { settingWords } from '../../house/setting-words'
import { setStart } from '../defaults/plan-starts'
import { isLive, kindTitles, startKindsOf } from '../defaults/start-kinds'
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

/** Whether the style that new text of a kind begins with says all that already: then it is not said again. */
function isSaid(planner: Planner, kind: StartKind, { fonts, text, paragraph }: StartValues): boolean {
  const name = planner.currentRules.starts[kind]?.paragraph
  const style = name === undefined ? undefined : planner.scope.common.get(`paragraph\n${name}`)
  if (!style || isLive(planner.document.kind, kind)) return false
  const { effective } = planner.reading.cascade.named(style.part, style.family, style.name)
  return (
    Object.entries(text ?? {}).every(([attribute, value]) => style.text[attribute] === value) &&
    Object.entries(paragraph ?? {}).every(([attribute, value]) => style.paragraph[attribute] === value) &&
    slots.every(slot => !fonts?.[slot] || sameFamily(effective.slots[slot].font.family, fonts[slot].family))
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
