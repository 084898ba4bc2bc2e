import { compareDocuments } from '../../../core/compare/compare'
import { openPdf } from '../../../core/format/finished/open'
import { proofOfFinished } from '../../../core/format/finished/proof'
import { finishedProofPdf } from '../../../core/format/finished/proof-report'
import { FinishedReader } from '../../../core/format/finished/reader'
import { isPdf } from '../../../core/format/finished/sections'
import { comparisonPdf } from '../../../core/format/pdf/comparison-report'
import { proofPdf } from '../../../core/format/pdf/proof-report'
import type { Severity } from '../../../core/house/checks'
import type { Finding } from '../../../core/proof/finding'
import { proofOf } from '../../../core/proof/proof'
import type { ProofCounts } from '../../../shared/api'
import { begin } from './begin'
import { reportWorks, theTypesetter } from './kept'
import type { Carriers, TaskOf } from './task'

/** A proof as the shelf tells it: how much was found, check by check. */
function proofCounts(
  findings: readonly (Pick<Finding, 'check' | 'title' | 'severity'> & {
    readonly repair: unknown
    readonly accepted?: string | null
  })[],
): ProofCounts {
  const checks = new Map<string, ProofCounts['checks'][number]>()
  const open = findings.filter(each => (each.accepted ?? null) === null)
  for (const { check, title, severity, repair } of open) {
    const known = checks.get(check) ?? { check, title, severity, count: 0, mendable: 0 }
    checks.set(check, { ...known, count: known.count + 1, mendable: known.mendable + (repair ? 1 : 0) })
  }
  const of = (severity: Severity) => open.filter(each => each.severity === severity).length
  return {
    error: of('error'),
    warning: of('warning'),
    note: of('note'),
    accepted: findings.length - open.length,
    checks: [...checks.values()],
  }
}

/** What a proof of a finished PDF finds, and its pages. @throws FinishedPdfError */
async function proofFinished(task: TaskOf<'proof' | 'proofReport'>) {
  const reader = new FinishedReader(await openPdf(task.bytes))
  const { library } = theTypesetter(task.setting)
  const findings = proofOfFinished({ reader, library, house: task.house, madeFor: task.madeFor }, task.checklist)
  return { reader, findings }
}

/** Documents looked over, and two held against each other. */
export const proofTasks: Carriers<'proof' | 'proofReport' | 'comparison'> = {
  async proof(task) {
    if (isPdf(task.bytes)) return proofCounts((await proofFinished(task)).findings)
    return proofCounts(proofOf(await begin(task), task).findings)
  },
  async proofReport(task) {
    if (isPdf(task.bytes)) {
      const { reader, findings } = await proofFinished(task)
      return finishedProofPdf(findings, task.of, { bytes: task.bytes, reader }, reportWorks(task.made))
    }
    const session = await begin(task)
    return proofPdf(proofOf(session, task), task.of, session, reportWorks(task.made))
  },
  async comparison(task) {
    const [before, after] = [await begin(task.before), await begin(task.after)]
    return comparisonPdf(compareDocuments(before, after), task.names, before, after, reportWorks(task.made))
  },
}
