import { readBody } from 'h3'
import { z } from 'zod'
import { steerBatch } from '../../../store/batches'
import { database } from '../../../store/database'
import { answer, refusal } from '../../../work/answer'
import { batchOf } from '../../../work/requests'

const bodySchema = z.strictObject({ how: z.enum(['pause', 'resume', 'cancel']) })

/** Pauses, goes on with, or cancels a plan over documents. Documents that are done stay done. */
export default answer(async event => {
  const batch = await batchOf(event)
  const { how } = bodySchema.parse(await readBody(event))
  if (!(await steerBatch(await database(), batch.id, how)))
    throw refusal(
      409,
      `This plan cannot ${how === 'resume' ? 'go on' : `be ${how === 'pause' ? 'paused' : 'cancelled'}`} now. Nothing was changed.`,
    )
  return { done: true }
})
