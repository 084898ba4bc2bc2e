import { parentPort } from 'node:worker_threads'
import { PackageError } from '../../core/package/errors'
import { EditRefusal } from '../../core/document/refusals'
import { PdfError } from '../../core/format/pdf/write'
import { NothingToPlan, PlanError } from '../../core/change/plan'
import { carryOut, type Task, type TaskFailure } from './tasks'

const port = parentPort!

port.on('message', async ({ id, task }: { id: number; task: Task }) => {
  try {
    port.postMessage({ id, result: await carryOut(task as never) })
  } catch (error) {
    const failure: TaskFailure =
      error instanceof PackageError
        ? { name: 'PackageError', fault: error.fault, message: error.message }
        : {
            name:
              error instanceof NothingToPlan
                ? 'NothingToPlan'
                : error instanceof PlanError
                  ? 'PlanError'
                  : error instanceof PdfError
                    ? 'PdfError'
                    : error instanceof EditRefusal
                      ? 'EditRefusal'
                      : 'Error',
            fault: null,
            message: error instanceof Error ? error.message : String(error),
          }
    port.postMessage({ id, failure })
  }
})
port.postMessage({ ready: true })
