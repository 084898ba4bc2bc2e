import { readBody } from 'h3'
import { z } from 'zod'
import { startBatch } from '../../../store/batches'
import { database } from '../../../store/database'
import { answer, refusal } from '../../../work/answer'
import { batchOf } from '../../../work/requests'

const bodySchema = z.strictObject({ leftOut: z.array(z.uuid()).max(5000).default([]) })

/** Begins to carry a plan out, document by document; those left out stay as they are. */
export default answer(async event => {
  const batch = await batchOf(event)
  const { leftOut } = bodySchema.parse((await readBody(event)) ?? {})
  if (!(await startBatch(await database(), batch.id, leftOut)))
    throw refusal(409, 'This plan is still being made, or was carried out already. Nothing was changed.')
  return { started: true }
})
