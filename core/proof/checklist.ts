import { z } from 'zod'
import { checksSchema, type ListedChecks, type Severity } from '../house/checks'
import type { CheckDescription } from './check'

/** A checklist under its name. */
export const checklistSchema = z.strictObject({
  name: z.string().trim().min(1).max(120).default('Checklist'),
  checks: checksSchema.default({}),
})
export type Checklist = z.infer<typeof checklistSchema>

export const usualChecklist: Checklist = checklistSchema.parse({})

/** The checklist that a document goes by: its house's where that has one, else the desk's. */
export const checklistFor = (
  house: { readonly name: string; readonly checks?: ListedChecks | undefined } | null,
  desk: Checklist = usualChecklist,
): Checklist => (house?.checks ? { name: house.name, checks: house.checks } : desk)

/** A check as a checklist has it; null where it does not run. */
export function asListed(
  { id, severity, limits }: CheckDescription,
  checklist: Checklist,
): { readonly severity: Severity; readonly limits: Readonly<Record<string, number>> } | null {
  const own = checklist.checks[id]
  if (own?.runs === false) return null
  const numbers = Object.entries(limits ?? {}).map(([name, limit]): [string, number] => [
    name,
    Math.min(limit.most, Math.max(limit.least, own?.limits[name] ?? limit.usual)),
  ])
  return { severity: own?.severity ?? severity, limits: Object.fromEntries(numbers) }
}
