import { z } from 'zod'
import { severities, type CheckDescription, type Severity } from './check'

/**
 * Which checks run, how much they matter and by which limits. A check that is not named runs as it usually does, so that
 * new ones are not missed by old lists.
 */
export const checklistSchema = z.strictObject({
  name: z.string().trim().min(1).max(120).default('Checklist'),
  checks: z
    .record(
      z.string().min(1).max(60),
      z.strictObject({
        runs: z.boolean().default(true),
        severity: z.enum(severities).optional(),
        limits: z.record(z.string().max(40), z.number().min(-10_000).max(100_000)).default({}),
      }),
    )
    .refine(checks => Object.keys(checks).length <= 200, { error: 'a checklist names 200 checks at most' })
    .default({}),
})
export type Checklist = z.infer<typeof checklistSchema>

export const usualChecklist: Checklist = checklistSchema.parse({})

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
