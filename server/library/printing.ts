import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { PrintModel, readCharacterisation } from '../../core/format/icc/characterisation'
import { outputProfile } from '../../core/format/icc/output-profile'
import type { PrintOptions } from '../../core/format/pdf/write'

/** Where Debian's package icc-profiles-free puts profiles and measurements. */
const folder = '/usr/share/color/icc'

/** What a printing condition is called, and what it is. */
export interface PrintingCondition {
  readonly id: string
  readonly title: string
}

/** Conditions that measurements are at hand for, in the order in which they are asked for most. */
const conditions: readonly PrintingCondition[] = [
  { id: 'FOGRA39L', title: 'Offset, coated paper (FOGRA39L)' },
  { id: 'FOGRA29L', title: 'Offset, uncoated white paper (FOGRA29L)' },
  { id: 'FOGRA30L', title: 'Offset, uncoated yellowish paper (FOGRA30L)' },
  { id: 'FOGRA28L', title: 'Web offset, light coated paper (FOGRA28L)' },
  { id: 'FOGRA40L', title: 'Web offset, supercalendered paper (FOGRA40L)' },
  { id: 'TR006', title: 'Sheet-fed offset, coated paper (TR006)' },
  { id: 'TR003', title: 'Web offset, coated paper, grade 3 (TR003)' },
  { id: 'TR005', title: 'Web offset, coated paper, grade 5 (TR005)' },
]

/** The printing conditions that a PDF can be made for here. */
export function printingConditions(): readonly PrintingCondition[] {
  const files = existsSync(folder) ? new Set(readdirSync(folder)) : new Set<string>()
  return conditions.filter(({ id }) => files.has(`${id}.ti3`))
}

const made = new Map<string, Uint8Array>()

/** The profile of a printing condition, made from its measurements the first time; null for one that is not at hand. */
export function printingIntent(id: string): PrintOptions['intent'] | null {
  const condition = printingConditions().find(each => each.id === id)
  if (!condition) return null
  let profile = made.get(id)
  if (!profile) {
    const model = new PrintModel(readCharacterisation(readFileSync(join(folder, `${id}.ti3`), 'latin1')))
    made.set(id, (profile = outputProfile(model, condition.title)))
  }
  return { condition: id.replace(/L$/, ''), description: condition.title, profile }
}

/** What colours mean that are given for a screen. */
export function screenProfile(): Uint8Array {
  return new Uint8Array(readFileSync(join(folder, 'sRGB.icc')))
}
