import type { OdfDocument } from './open'
import { readSetting } from './settings'

/*
 * Settings of a document that change how it is composed (config:config-item, OpenDocument 1.4 part 3, 3.10.3). The standard
 * leaves their names to those who write files; these are the ones that real files carry, in one table: what each does, and
 * what holds where a file does not have it.
 */
const table = {
  AddExternalLeading: { unset: true, does: 'lines have the gap that their fonts ask for' },
  UnxForceZeroExtLeading: { unset: false, does: 'lines have no such gap, whatever else is said' },
  AddParaTableSpacing: { unset: false, does: 'the spaces below and above neighbours add up; else the larger counts' },
  AddParaTableSpacingAtStart: { unset: true, does: 'space above is kept where a page begins by a break' },
  AddParaSpacingToTableCells: { unset: true, does: 'the last paragraph of a cell keeps its space below' },
  TabsRelativeToIndent: { unset: true, does: 'tab stops count from the indent; else from the edge of the column' },
  IgnoreFirstLineIndentInNumbering: { unset: false, does: 'items of lists have no first-line indent of their own' },
  DoNotJustifyLinesWithManualBreak: { unset: true, does: 'a line that ends by a break is not justified' },
  PropLineSpacingShrinksFirstLine: { unset: true, does: 'leading below 100 % narrows the first line, too' },
  AllowPaddingWithoutBorders: { unset: true, does: 'padding narrows lines on a side without a border, too' },
  PrinterIndependentLayout: {
    unset: false,
    said: 'high-resolution',
    does: 'heights of lines are rounded as wholes; else what is above and what is below the baseline, each on its own',
  },
} as const satisfies Record<string, { unset: boolean; said?: string; does: string }>

export type CompositionSetting = keyof typeof table
export type CompositionSettings = Readonly<Record<CompositionSetting, boolean>>

/** What a document says of each, or what holds where it says nothing. */
export function readCompositionSettings(document: OdfDocument): CompositionSettings {
  const said = Object.entries(table).map(([name, each]) => {
    const value = readSetting(document, name)
    return [name, value === null ? each.unset : value === ('said' in each ? each.said : 'true')]
  })
  return Object.fromEntries(said) as CompositionSettings
}

/** Whether lines have the gap that their fonts ask for. */
export const externalLeading = (settings: CompositionSettings): boolean =>
  settings.AddExternalLeading && !settings.UnxForceZeroExtLeading
