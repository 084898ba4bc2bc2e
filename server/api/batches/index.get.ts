import { route } from '../../door'
import { listBatches } from '../../store/batches'

/** All plans over many documents, newest first. */
export default route('look', async (_event, acting) => listBatches(acting))
