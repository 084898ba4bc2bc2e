import type { Trash } from '../../../shared/api'
import { route } from '../../door'
import { listPurges } from '../../store/purges'
import { listTrash, trashDays } from '../../store/trash'

/** What lies in the trash and for how long, and what was let go for good. */
export default route('look', async (_event, acting): Promise<Trash> => ({
  days: await trashDays(acting),
  documents: await listTrash(acting),
  purges: await listPurges(acting),
}))
