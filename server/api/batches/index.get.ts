import { database } from '../../store/database'
import { listBatches } from '../../store/batches'
import { answer } from '../../work/answer'

/** All plans over many documents, newest first. */
export default answer(async () => listBatches(await database()))
