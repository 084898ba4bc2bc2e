import type { Occurrence } from '../census/occurrence'
import { readRules, type AcceptedKey } from '../document/rules'
import type { House } from '../house/house'
import type { DocumentSession } from '../session'
import { objectSign } from '../style/runs'
import { severities, type Check, type CheckGroup, type Found, type Repair, type Severity } from './check'
import { asListed, usualChecklist, type Checklist } from './checklist'
import { checks } from './registry'
import { Subject } from './subject'

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

/** As many findings of one check are told. */
export const findingLimit = 1_000

const clean = (text: string) => text.replaceAll(objectSign, '').replace(/\s+/g, ' ')

function findingOf(
  own: Check,
  severity: Severity,
  { says, at, page, repair, ...found }: Found,
): Omit<Finding, 'id' | 'accepted'> {
  const words = at ? clean(at.text.text.slice(at.from, at.to)).slice(0, 200) : ''
  return {
    check: own.id,
    group: own.group,
    title: own.title,
    severity: found.severity ?? severity,
    says,
    text: words,
    page: at?.text.page ?? page ?? -1,
    place: at
      ? {
          part: at.text.paragraph.part,
          node: at.text.paragraph.node,
          start: at.from,
          end: at.to,
          page: at.text.page,
          face: '',
          voice: '',
          place: at.text.paragraph.place,
        }
      : null,
    repair: repair ?? null,
    key: { check: own.id, says: says.slice(0, 500), text: words, around: at ? clean(at.text.text).slice(0, 300) : '' },
  }
}

const keyText = ({ check, says, text, around }: AcceptedKey) => JSON.stringify([check, says, text, around])

export interface ProofOptions {
  readonly house?: House | null
  readonly checklist?: Checklist
}

/** Looks a document over by all checks of a list. Nothing is changed. */
export function proofOf(
  session: DocumentSession,
  { house = null, checklist = usualChecklist }: ProofOptions = {},
): Proof {
  const subject = new Subject(session, house)
  const accepted = new Map(readRules(session.document).accepted.map(each => [keyText(each), each.reason]))
  const findings: Finding[] = []
  const more: { check: string; count: number }[] = []
  for (const own of checks) {
    const listed = asListed(own, checklist)
    if (!listed) continue
    let count = 0
    for (const found of own.find(subject, listed.limits)) {
      if (++count > findingLimit) continue
      const finding = findingOf(own, listed.severity, found)
      findings.push({ ...finding, id: findings.length, accepted: accepted.get(keyText(finding.key)) ?? null })
    }
    if (count > findingLimit) more.push({ check: own.id, count: count - findingLimit })
  }
  return { findings, more }
}

/** How many findings there are of each severity, those that are accepted aside. */
export function countsOf(findings: readonly Finding[]): Readonly<Record<Severity, number>> {
  const open = findings.filter(each => each.accepted === null)
  return Object.fromEntries(
    severities.map(severity => [severity, open.filter(each => each.severity === severity).length]),
  ) as Record<Severity, number>
}
