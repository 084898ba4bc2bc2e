import type { Operation } from '../../document/operations'
import type { Effects } from '../effects'
import type { StyleRequest } from './wishes'

/** A row of a plan for styles: places of one kind. */
export interface StyleRow {
  readonly id: string
  readonly title: string
  /** Paragraphs, stretches, frames or styles it is about. */
  readonly count: number
  readonly characters: number
  readonly before: string
  readonly after: string
  readonly included: boolean
  /** Why it cannot be included; null where it can. */
  readonly leftOut: string | null
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
