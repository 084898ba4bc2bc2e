import { z } from 'zod'
import { finishedStartLevels, finishedStartsSchema } from '../core/change/defaults/finished-starts'
import type { AddedLook } from '../core/format/finished/add-text'
import type { CorrectionPlan } from '../core/format/finished/put-right'
import { finishedChangesSchema } from '../core/format/finished/wish'
import type { VersionRow } from './api'

/* What server and browser say to each other of finished PDFs. */

/** Changes of a finished PDF on version `base`; to be looked at first, or to be kept. */
export const finishedBodySchema = z.strictObject({
  base: z.int().min(1),
  changes: finishedChangesSchema,
  look: z.boolean().default(false),
})

/** How changes of a finished PDF come out. */
export interface FinishedTrial {
  readonly title: string
  readonly said: readonly string[]
  readonly added: readonly AddedLook[]
  readonly corrected: readonly CorrectionPlan[]
  /** What could not be made, a sentence each. */
  readonly refused: readonly string[]
  /** What stands behind the bytes that were there, in base64: with them, the file as it would be. */
  readonly behind: string
}

/** What came of it when it was kept. */
export interface FinishedChanged extends Omit<FinishedTrial, 'behind'> {
  readonly version: VersionRow
}

/** Defaults for finished PDFs, said for one of them, for its folder or for the desk. */
export const finishedStartsBodySchema = z.strictObject({
  level: z.enum(finishedStartLevels),
  starts: finishedStartsSchema,
})
