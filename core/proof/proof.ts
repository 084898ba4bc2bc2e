import { readRules, type AcceptedKey } from '../document/rules'
import type { MadeFor } from '../font/held-licence'
import type { House } from '../house/house'
import type { DocumentSession } from '../session'
import { objectSign } from '../style/runs'
import type { Check, Found } from './check'
import type { Severity } from '../house/checks'
import { asListed, usualChecklist, type Checklist } from './checklist'
import type { Finding, Proof } from './finding'
import { checks } from './registry'
import { Subject, type ProofText } from './subject'

/** As many findings of one check are told. */
export const findingLimit = 1_000

/** So many findings are made in a slice. */
const findingsAtOnce = 200

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

/** What stands in text that takes no changes is told, and put right where that text comes from. */
function mendable(subject: Subject, { repair, ...found }: Found): Found {
  const { looks = [], settle = [], mends = [] } = repair ?? {}
  const local = looks.length + settle.length + mends.length > 0
  const { at } = found
  const isFixed =
    at !== undefined &&
    local &&
    (subject.isFixed(at.text) || mends.some(mend => mend.kind === 'words' && isWorkedOut(at.text, mend.from, mend.to)))
  return repair && !isFixed ? { ...found, repair } : found
}

/** Whether words stand in a field: the document works them out from elsewhere. */
const isWorkedOut = ({ runs }: ProofText, from: number, to: number): boolean =>
  runs.some(({ start, end, inline }) => start < to && end > from && inline.kind === 'text' && inline.field !== null)

const keyText = ({ check, says, text, around }: AcceptedKey) => JSON.stringify([check, says, text, around])

export interface ProofOptions {
  readonly house?: House | null
  readonly checklist?: Checklist
  /** What its faces are licensed for, and for what it is made; nothing where it is not said. */
  readonly madeFor?: MadeFor
}

/** Looks a document over by all checks of a list. Nothing is changed. */
export function proofOf(session: DocumentSession, options: ProofOptions = {}): Proof {
  const proofing = proofInSlices(session, options)
  for (;;) {
    const { done, value } = proofing.next()
    if (done) return value
  }
}

/** The same, a slice at a time: between two whoever waits may go first. */
export function* proofInSlices(
  session: DocumentSession,
  { house = null, checklist = usualChecklist, madeFor }: ProofOptions = {},
): Generator<void, Proof> {
  const subject = new Subject(session, house, madeFor)
  const accepted = new Map(readRules(session.document).accepted.map(each => [keyText(each), each.reason]))
  const findings: Finding[] = []
  const more: { check: string; count: number }[] = []
  for (const own of checks) {
    const listed = asListed(own, checklist)
    if (!listed) continue
    let count = 0
    for (const found of own.find(subject, listed.limits)) {
      if (found === null) {
        yield
        continue
      }
      if (++count % findingsAtOnce === 0) yield
      if (count > findingLimit) continue
      const finding = findingOf(own, listed.severity, mendable(subject, found))
      const reason = accepted.size === 0 ? null : (accepted.get(keyText(finding.key)) ?? null)
      findings.push({ ...finding, id: findings.length, accepted: reason })
    }
    if (count > findingLimit) more.push({ check: own.id, count: count - findingLimit })
    yield
  }
  return { findings, more }
}
