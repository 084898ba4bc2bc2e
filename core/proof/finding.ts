import type { Occurrence } from '../census/occurrence'
import type { AcceptedKey } from '../document/rules'
import type { CheckGroup, Repair } from './check'
import { severities, type Severity } from '../house/checks'

/** Something that a proof found. */
export interface Finding {
  /** Its number in the proof, from 0. */
  readonly id: number
  readonly check: string
  readonly group: CheckGroup
  readonly title: string
  readonly severity: Severity
  readonly says: string
  /** The words it is about; '' where it is about the document. */
  readonly text: string
  /** Index of the page, from 0; -1 where it is about the document. */
  readonly page: number
  readonly place: Occurrence | null
  readonly repair: Repair | null
  /** What it is known by when the document is proofed again. */
  readonly key: AcceptedKey
  /** Why somebody accepted it; null where nobody did. */
  readonly accepted: string | null
}

/** All that a proof found. */
export interface Proof {
  /** In the order of the checks, each in reading order. */
  readonly findings: readonly Finding[]
  /** Checks that found more than is told, with how many more. */
  readonly more: readonly { readonly check: string; readonly count: number }[]
}

/** How many findings there are of each severity, those that are accepted aside. */
export function countsOf(
  findings: readonly Pick<Finding, 'severity' | 'accepted'>[],
): Readonly<Record<Severity, number>> {
  const open = findings.filter(each => each.accepted === null)
  return Object.fromEntries(
    severities.map(severity => [severity, open.filter(each => each.severity === severity).length]),
  ) as Record<Severity, number>
}
