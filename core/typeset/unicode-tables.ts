import { lineBreakClasses, lineBreakRuns, scriptNames, scriptRuns } from './unicode-data'

/** A property of every code point: the index of its value in `names`. */
export interface PropertyTable { readonly names: readonly string[], readonly of: Uint8Array }

function unpacked(names: string, runs: string): PropertyTable {
  const of = new Uint8Array(0x110000)
  let at = 0
  for (const [, letters, length] of runs.matchAll(/([a-zA-Z]+)(\d+)/g)) {
    const index = letters!.length === 1 ? letters!.charCodeAt(0) - 65 : (letters!.charCodeAt(0) - 96) * 26 + letters!.charCodeAt(1) - 65
    const end = at + Number(length)
    of.fill(index, at, end)
    at = end
  }
  return { names: names.split(' '), of }
}

/** ISO 15924 codes of the scripts that the table tells apart, and which of them is Latin. */
export const scriptCodes: readonly string[] = scriptNames.split(' ')
export const latin = scriptCodes.indexOf('Latn')

let lineBreak: PropertyTable | null = null
let script: PropertyTable | null = null

/** Line breaking classes of UAX #14, resolved by its rule LB1 (LineBreak.txt). */
export function lineBreakTable(): PropertyTable { return lineBreak ??= unpacked(lineBreakClasses, lineBreakRuns) }

/** Scripts (Scripts.txt) by their ISO 15924 codes, for instance Latn. */
export function scriptTable(): PropertyTable { return script ??= unpacked(scriptNames, scriptRuns) }
