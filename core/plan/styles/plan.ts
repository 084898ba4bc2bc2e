import type { Operation } from '../../document/operations'
import type { Effects } from '../effects'
import type { PlanLine } from '../plan'
import type { StyleRequest } from './wishes'

/** A row of a plan for styles: its count is of paragraphs, stretches, frames or styles. */
export interface StyleRow extends PlanLine {
  readonly places: readonly { readonly part: string, readonly node: number }[]
}

/** What wishes about styles would do, as plain data: nothing has changed yet. It is kept as the record of the change. */
export interface StylePlan {
  readonly kind: 'style'
  readonly request: StyleRequest
  readonly title: string
  readonly rows: readonly StyleRow[]
  /** What stays as it is, and why. */
  readonly left: readonly { readonly what: string, readonly reason: string, readonly count: number }[]
  readonly stale: readonly string[]
  readonly places: number
  readonly characters: number
  readonly operations: readonly Operation[]
  readonly effects: Effects | null
  /** Names of styles that were made, by family. */
  readonly made: readonly { readonly family: string, readonly name: string, readonly displayName: string }[]
}
