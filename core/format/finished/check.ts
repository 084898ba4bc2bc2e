import type { Library } from '../../font/library'
import type { MadeFor } from '../../font/held-licence'
import type { Severity } from '../../house/checks'
import type { House } from '../../house/house'
import type { CheckDescription } from '../../proof/check'
import type { WishedChange } from './wish'
import type { FinishedPlace, FinishedReader } from './reader'

/** What finished PDFs are held against. */
export interface FinishedSubject {
  readonly reader: FinishedReader
  readonly library: Library
  readonly house: House | null
  /** What it is made for, beyond being a PDF, and the licences that hold. */
  readonly madeFor?: MadeFor
}

/** What a check of a finished PDF found. Without a place it is about the file as a whole. */
export interface FinishedFound {
  readonly says: string
  /** Where it matters more or less than its check does by itself. */
  readonly severity?: Severity
  readonly place?: FinishedPlace
  /** What puts it right. */
  readonly repair?: WishedChange
}

/** One thing that a proof of a finished PDF looks for: by what its pages show, since nothing of it is composed here. */
export interface FinishedCheck {
  readonly description: CheckDescription
  find(subject: FinishedSubject, limits: Readonly<Record<string, number>>): Iterable<FinishedFound>
}
