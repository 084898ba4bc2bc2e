import { z } from 'zod'
import { route } from '../../../door'
import { steerBatch } from '../../../store/batches'
import { refusal } from '../../../work/answer'
import { batchOf, bodyOf } from '../../../work/requests'

const bodySchema = z.strictObject({ how: z.enum(['pause', 'resume', 'cancel']) })

/** Pauses, goes on with, or cancels a plan over documents. Documents that are done stay done. */
export default route('change', async (event, acting) => {
  const batch = await batchOf(event, acting)
  const { how } = await bodyOf(event, bodySchema)
  if (!(await steerBatch(acting, batch.id, how)))
    throw refusal(
      409,
      `This plan cannot ${how === 'resume' ? 'go on' : `be ${how === 'pause' ? 'paused' : 'cancelled'}`} now. Nothing was changed.`,
    )
  return { done: true }
})
