import type { Cascade } from '../style/cascade'
import type { Fragment } from './fragments'
import type { PageGeometry } from './geometry'

/** A page with everything on it, in points from its top left. */
export interface Page {
  readonly index: number
  /** The number as the page bears it. */
  readonly number: string
  /** What it is called, where pages have names; and the element that it is, -1 where pages come of the flow of text. */
  readonly name: string
  readonly node: number
  readonly geometry: PageGeometry
  readonly fragments: readonly Fragment[]
  /** What styles its text. */
  readonly cascade: Cascade
}
