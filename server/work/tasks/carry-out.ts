import { registry, type Registry } from '../../../core/change/registry'
import { changeTasks } from './changes'
import { fileTasks } from './files'
import { fontTasks } from './fonts'
import { handingTasks } from './handing'
import { lookTasks } from './looks'
import { proofTasks } from './proofs'
import type { Carriers, Results, Task, TaskOf } from './task'

const carriers: Carriers<Task['kind']> = {
  ...fontTasks,
  ...fileTasks,
  ...changeTasks,
  ...lookTasks,
  ...proofTasks,
  ...handingTasks,
}

/** Carries a task out; wishes of a request are those of `kinds`. @throws PackageError, PlanError */
export async function carryOut<K extends Task['kind']>(
  task: TaskOf<K>,
  kinds: Registry = registry,
): Promise<Results[K]> {
  const carrier: (task: TaskOf<K>, kinds: Registry) => Results[K] | Promise<Results[K]> = carriers[task.kind as K]
  return carrier(task, kinds)
}
