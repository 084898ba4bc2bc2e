import type { FaceRecord } from '~~/core/font/face'
import type { FinishedCensus } from '~~/core/format/finished/census'
import type { MadeFor } from '~~/core/font/held-licence'
import type { FinishedFinding } from '~~/core/format/finished/proof'
import type { FinishedPlace, ShownLine } from '~~/core/format/finished/reader'
import type { House } from '~~/core/house/house'
import type { Checklist } from '~~/core/proof/checklist'

/** A page as it lies on the sheets, in points. */
export interface FinishedSheet {
  readonly width: number
  readonly height: number
}

/** What can be asked of the worker that holds a finished PDF. Pages count from 1. */
export interface FinishedAsks {
  open: {
    ask: { bytes: Uint8Array; faces: readonly FaceRecord[] }
    answer: { looks: readonly FinishedSheet[]; language: string }
  }
  census: { ask: object; answer: FinishedCensus }
  lines: { ask: { page: number }; answer: readonly ShownLine[] }
  find: { ask: { words: string; matchCase: boolean }; answer: readonly FinishedPlace[] }
  placesOf: { ask: { font: number }; answer: readonly FinishedPlace[] }
  proof: { ask: { house: House | null; checklist: Checklist; madeFor: MadeFor }; answer: readonly FinishedFinding[] }
}
