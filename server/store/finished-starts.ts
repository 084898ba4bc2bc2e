import {
  finishedStartOfHouse,
  finishedStartsSchema,
  type FinishedStartLevel,
  type FinishedStartLevels,
  type FinishedStarts,
} from '../../core/change/defaults/finished-starts'
import type { House } from '../../core/house/house'
import { atOnce, ownDocuments, type Acting } from './acting'
import { startsOf, storeStarts } from './folders'

/** The document that is asked about, and where it lies. */
interface Lying {
  readonly id: string
  readonly folder: string | null
}

/** What added text begins with, by who says it; of the house that it is linked to, where there is one. */
export async function finishedStartsFor(
  acting: Acting,
  { id, folder }: Lying,
  house: House | null,
): Promise<FinishedStartLevels> {
  const row = await ownDocuments(acting)
    .clearSelect()
    .where({ id })
    .first<{ finished_starts: string | null } | undefined>('finished_starts')
  return {
    document: finishedStartsSchema.parse(JSON.parse(row?.finished_starts ?? '{}')),
    folder: folder === null ? {} : (await startsOf(acting, folder)).finished,
    desk: (await startsOf(acting, null)).finished,
    house: house ? finishedStartOfHouse(house) : {},
  }
}

/** Says it anew for one of the levels; all else that the folder or the desk begins with stays. */
export async function storeFinishedStarts(
  acting: Acting,
  { id, folder }: Lying,
  level: FinishedStartLevel,
  starts: FinishedStarts,
): Promise<void> {
  if (level === 'document') {
    await atOnce(acting, within =>
      ownDocuments(within)
        .clearSelect()
        .where({ id })
        .update({ finished_starts: JSON.stringify(starts) }),
    )
    return
  }
  const of = level === 'folder' ? folder : null
  await atOnce(acting, async within => {
    await storeStarts(within, of, { ...(await startsOf(within, of)), finished: starts })
  })
}
