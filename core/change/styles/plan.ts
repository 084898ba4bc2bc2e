import type { PlanLine, PlanOutcome } from '../plan'
import type { StyleRequest } from './wishes'

/** A row of a plan for styles: its count is of paragraphs, stretches, frames or styles. */
export interface StyleRow extends PlanLine {
  readonly places: readonly { readonly part: string; readonly node: number }[]
}

/**
 * What wishes about styles would do, as plain data: nothing has changed yet. It is kept as the record of the
 * change.
 */
export interface StylePlan extends PlanOutcome {
  readonly kind: 'style'
  readonly request: StyleRequest
  readonly rows: readonly StyleRow[]
  /** Names of styles that were made, by family. */
  readonly made: readonly { readonly family: string; readonly name: string; readonly displayName: string }[]
}
