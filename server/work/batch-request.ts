import { getRouterParam, type H3Event } from 'h3'
import { z } from 'zod'
import { swapRequestSchema } from '../../core/change/plan'
import { recastRequestSchema } from '../../core/change/recast/request'
import { batchLimit, findBatch, type Batch } from '../store/batches'
import { database } from '../store/database'
import { refusal } from './answer'

/** A wish over many documents. What hangs on the places of a single one cannot be asked of all. */
export const batchWishSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('swap'), request: swapRequestSchema }),
  z.strictObject({ kind: z.literal('recast'), request: recastRequestSchema }),
])
export const batchBodySchema = z.strictObject({
  wish: batchWishSchema,
  documents: z.array(z.uuid()).min(1).max(batchLimit),
})

/** Why a wish cannot be asked of many documents; null where it can. */
export function whyNotMany(wish: z.infer<typeof batchWishSchema>): string | null {
  if (wish.kind === 'swap') {
    if (wish.request.spared.length + wish.request.repairs.length > 0)
      return 'Repairs and spared paragraphs belong to one document. Plan them there. Nothing was changed.'
    return wish.request.wishes.some(each => each.within?.scope.kind === 'ranges' || each.within?.scope.kind === 'story')
      ? 'A selection belongs to one document. Leave it out, or plan it there. Nothing was changed.'
      : null
  }
  const { scope } = wish.request.find
  return scope.kind === 'ranges' || scope.kind === 'story'
    ? 'A selection belongs to one document. Look in whole documents or on pages. Nothing was changed.'
    : null
}

/** The batch a route is about. @throws 404 */
export async function batchOf(event: H3Event): Promise<Batch> {
  const id = z.uuid().safeParse(getRouterParam(event, 'id'))
  const batch = id.success ? await findBatch(await database(), id.data) : undefined
  if (!batch) throw refusal(404, 'There is no such plan over documents.')
  return batch
}
