import { PackageError } from '../../core/package/errors'
import { EditRefusal } from '../../core/document/refusals'
import { FinishedPdfError } from '../../core/format/finished/open'
import { HandoffError } from '../../core/format/handoff/hand-off'
import { MayNotEmbed, PdfError } from '../../core/format/pdf/write'
import { NothingToPlan, PlanError } from '../../core/change/plan'
import type { ThreadAnswer } from './pool'
import { carryOut } from './tasks/carry-out'
import type { Task, TaskFailure } from './tasks/task'

/** The first of these that an error is gives its name to the failure. */
const named = [
  ['NothingToPlan', NothingToPlan],
  ['PlanError', PlanError],
  ['MayNotEmbed', MayNotEmbed],
  ['PdfError', PdfError],
  ['HandoffError', HandoffError],
  ['EditRefusal', EditRefusal],
  ['FinishedPdfError', FinishedPdfError],
] as const

/** An error as plain data: its class is lost on the way out of a thread. */
export function failureOf(error: unknown): TaskFailure {
  const message = error instanceof Error ? error.message : String(error)
  if (error instanceof PackageError) return { name: 'PackageError', fault: error.fault, message }
  const name = named.find(([, type]) => error instanceof type)?.[0] ?? 'Error'
  return { name, fault: null, message }
}

/** What a thread of the pool does with a task. */
export default async function work(task: Task): Promise<ThreadAnswer> {
  try {
    return { result: await carryOut(task as never) }
  } catch (error) {
    return { failure: failureOf(error) }
  }
}
