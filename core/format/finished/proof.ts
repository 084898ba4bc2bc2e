import { usualChecklist, asListed, type Checklist } from '../../proof/checklist'
import type { CheckGroup } from '../../proof/check'
import { severities, type Severity } from '../../house/checks'
import type { FinishedSubject } from './check'
import { finishedChecks } from './checks'
import type { FinishedPlace } from './reader'
import type { WishedChange } from './wish'

/** Something that a proof of a finished PDF found. */
export interface FinishedFinding {
  readonly id: number
  readonly check: string
  readonly group: CheckGroup
  readonly title: string
  readonly severity: Severity
  readonly says: string
  readonly place: FinishedPlace | null
  readonly repair: WishedChange | null
}

/** As many findings of one check are told. */
const findingLimit = 500

/** Looks a finished PDF over by all checks of a list that its pages can answer. */
export function proofOfFinished(subject: FinishedSubject, checklist: Checklist = usualChecklist): FinishedFinding[] {
  const findings: FinishedFinding[] = []
  for (const { description, find } of finishedChecks) {
    const listed = asListed(description, checklist)
    if (!listed) continue
    let count = 0
    for (const { says, severity, place, repair } of find(subject, listed.limits)) {
      if (++count > findingLimit) break
      findings.push({
        id: findings.length,
        check: description.id,
        group: description.group,
        title: description.title,
        severity: severity ?? listed.severity,
        says,
        place: place ?? null,
        repair: repair ?? null,
      })
    }
  }
  return findings
}

/** How many findings there are of each severity. */
export const finishedCounts = (findings: readonly FinishedFinding[]): Readonly<Record<Severity, number>> =>
  Object.fromEntries(
    severities.map(severity => [severity, findings.filter(each => each.severity === severity).length]),
  ) as Record<Severity, number>
