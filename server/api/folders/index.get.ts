import { route } from '../../door'
import { listFolders } from '../../store/folders'

/** The folders of the shelf. */
export default route('look', async (_event, acting) => listFolders(acting))
