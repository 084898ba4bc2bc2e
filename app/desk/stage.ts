import type { Component } from 'vue'
import type { ChangeId } from '../change/use-change'

/** A stage of the work on a document: a tab of the thumb index and its tray. The desk knows it by this alone. */
export interface Stage {
  readonly id: string
  /** On the thumb index. */
  readonly title: string
  /** Where it stands on the thumb index, from the top. */
  readonly place: number
  readonly tray: Component
  /** The tray scrolls by itself, since its foot stays in sight. */
  readonly ownScroll?: boolean
  /** Whose plan is walked on the sheets while the stage is open; null where none is. */
  walks?(): ChangeId | null
  /** What stands in place of the sheets while the stage is open; null for the sheets. */
  aside?(): Component | null
  /** A document comes onto the desk. */
  begin?(): void
  /** Another stage is opened, or the document is left. */
  leave?(): void
  /** A key with Alt that means this stage wherever one is; whether it was taken. */
  altKey?(event: KeyboardEvent): boolean
}
