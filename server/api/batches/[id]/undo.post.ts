import { undoBatch } from '../../../store/batches'
import { database } from '../../../store/database'
import { answer, refusal } from '../../../work/answer'
import { batchOf } from '../../../work/requests'

/** Takes a plan over documents back, wherever nobody has changed a document since. */
export default answer(async event => {
  const batch = await batchOf(event)
  if (!(await undoBatch(await database(), batch.id)))
    throw refusal(409, 'There is nothing to take back. Nothing was changed.')
  return { undone: true }
})
