import type { RowKey, WishList } from '../../core/change/plan'
import type { Planned, PlanOptions } from '../../core/change/plan-change'
import { registry } from '../../core/change/registry'
import type { DocumentSession } from '../../core/session'

/** A request as it comes in at the door: read by its schema, what is not said filled in. */
export const request = (wishes: readonly object[], leftOut: readonly RowKey[] = []): WishList =>
  registry.schema.parse({ wishes, leftOut })

/** A plan of wishes, with what it does to the pages. */
export const planned = (
  of: DocumentSession,
  wishes: readonly object[],
  leftOut: readonly RowKey[] = [],
  options: PlanOptions = {},
): Planned => registry.plan(of, request(wishes, leftOut), options)

/** A plan of wishes, without what it does to the pages. */
export const quickly = (of: DocumentSession, ...wishes: readonly object[]): Planned =>
  planned(of, wishes, [], { effects: false })

/** A family that gives way to another. */
export const swap = (from: string, to: string, more: object = {}): object => ({
  type: 'swap',
  from: { family: from },
  to: { family: to },
  ...more,
})
