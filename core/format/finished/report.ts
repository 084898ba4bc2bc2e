import type { ProofedFile } from '../../proof/report'
import type { FinishedFinding } from './proof'

/** What was found in a finished PDF as it is reported. Its pages are told by their place, from 1. */
export const finishedProofed = (file: string, findings: readonly FinishedFinding[]): ProofedFile => ({
  file,
  findings: findings.map(({ check, title, severity, says, place, repair }) => ({
    check,
    title,
    severity,
    page: place === null ? null : String(place.page),
    text: place?.text ?? '',
    says,
    repairable: repair !== null,
    accepted: null,
  })),
  more: [],
})
