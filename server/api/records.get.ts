import { route } from '../door'
import { listRecords } from '../store/versions'

/** Every change of every document that was made by a plan, newest first. */
export default route('look', async (_event, acting) => listRecords(acting))
