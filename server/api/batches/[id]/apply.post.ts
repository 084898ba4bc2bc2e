import { z } from 'zod'
import { route } from '../../../door'
import { startBatch } from '../../../store/batches'
import { refusal } from '../../../work/answer'
import { batchOf, bodyOf } from '../../../work/requests'

const bodySchema = z.strictObject({ leftOut: z.array(z.uuid()).max(5000).default([]) })

/** Begins to carry a plan out, document by document; those left out stay as they are. */
export default route('change', async (event, acting) => {
  const batch = await batchOf(event, acting)
  const { leftOut } = await bodyOf(event, bodySchema)
  if (!(await startBatch(acting, batch.id, leftOut)))
    throw refusal(409, 'This plan is still being made, or was carried out already. Nothing was changed.')
  return { started: true }
})
