import { z } from 'zod'

/** How much a finding matters: errors are wrong, warnings deserve a look, notes are told. */
export const severities = ['error', 'warning', 'note'] as const
export type Severity = (typeof severities)[number]

/**
 * Which checks run, how much they matter and by which limits. A check that is not named runs as it usually does, so that
 * new ones are not missed by old lists.
 */
export const checksSchema = z
  .record(
    z.string().min(1).max(60),
    z.strictObject({
      runs: z.boolean().default(true),
      severity: z.enum(severities).optional(),
      limits: z.record(z.string().max(40), z.number().min(-10_000).max(100_000)).default({}),
    }),
  )
  .refine(checks => Object.keys(checks).length <= 200, { error: 'a checklist names 200 checks at most' })
/** Checks by their ids, as a list has them. */
export type ListedChecks = z.infer<typeof checksSchema>

/** In what a list differs from what is usual: “3 do not run, 1 matters otherwise, 2 go by other limits”; '' where in nothing. */
export function checksWords(checks: ListedChecks): string {
  const own = Object.values(checks)
  const counted = (count: number, one: string, more: string) =>
    count === 0 ? [] : [`${count} ${count === 1 ? one : more}`]
  return [
    ...counted(own.filter(each => !each.runs).length, 'does not run', 'do not run'),
    ...counted(own.filter(each => each.runs && each.severity).length, 'matters otherwise', 'matter otherwise'),
    ...counted(
      own.filter(each => each.runs && Object.keys(each.limits).length > 0).length,
      'goes by other limits',
      'go by other limits',
    ),
  ].join(', ')
}
