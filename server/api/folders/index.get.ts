import { database } from '../../store/database'
import { listFolders } from '../../store/folders'
import { answer } from '../../work/answer'

/** The folders of the shelf. */
export default answer(async () => listFolders(await database()))
