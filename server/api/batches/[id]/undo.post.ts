import { route } from '../../../door'
import { undoBatch } from '../../../store/batches'
import { refusal } from '../../../work/answer'
import { batchOf } from '../../../work/requests'

/** Takes a plan over documents back, wherever nobody has changed a document since. */
export default route('change', async (event, acting) => {
  const batch = await batchOf(event, acting)
  if (!(await undoBatch(acting, batch.id))) throw refusal(409, 'There is nothing to take back. Nothing was changed.')
  return { undone: true }
})
