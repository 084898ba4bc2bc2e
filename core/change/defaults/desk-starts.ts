import { z } from 'zod'
import type { DocumentKind } from '../../document/open'
import { startKinds } from '../../document/rules'
import { finishedStartsSchema } from './finished-starts'
import { startKindsOf } from './start-kinds'
import { startValuesSchema, type StartWish } from './wishes'

const millimetres = z.number().min(0).max(5000)

/** What new documents begin with, for the whole desk or for a folder of the shelf. */
export const deskStartsSchema = z.strictObject({
  kinds: z.partialRecord(z.enum(startKinds), startValuesSchema).default({}),
  /** Page and margins, in millimetres. */
  page: z
    .strictObject({
      width: millimetres.min(10),
      height: millimetres.min(10),
      margins: z.strictObject({ top: millimetres, bottom: millimetres, left: millimetres, right: millimetres }),
    })
    .nullable()
    .default(null),
  /** Text that is added to finished PDFs. */
  finished: finishedStartsSchema.default({}),
})
export type DeskStarts = z.infer<typeof deskStartsSchema>

export const noStarts: DeskStarts = { kinds: {}, page: null, finished: {} }

/** Starts of a folder over those of the desk: kind by kind, value by value. */
export function mergedStarts(desk: DeskStarts, folder: DeskStarts | null): DeskStarts {
  if (!folder) return desk
  const kinds: DeskStarts['kinds'] = { ...desk.kinds }
  for (const kind of startKinds) {
    const own = folder.kinds[kind]
    if (!own) continue
    const under = kinds[kind]
    kinds[kind] = {
      ...under,
      ...own,
      fonts: { ...under?.fonts, ...own.fonts },
      text: { ...under?.text, ...own.text },
      paragraph: { ...under?.paragraph, ...own.paragraph },
    }
  }
  return { kinds, page: folder.page ?? desk.page, finished: { ...desk.finished, ...folder.finished } }
}

/** The wishes by which a new document of a kind takes its starts. */
export function startWishes(starts: DeskStarts, kind: DocumentKind): StartWish[] {
  return startKindsOf(kind).flatMap((each): StartWish[] => {
    const values = starts.kinds[each]
    return values ? [{ type: 'start', kind: each, values }] : []
  })
}
