import { route } from '../../door'
import { emptyTrash } from '../../store/trash'

/** Lets everything in the trash go for good. */
export default route('purge', async (_event, acting) => ({ purged: await emptyTrash(acting) }))
