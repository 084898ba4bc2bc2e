import { database } from '../store/database'
import { listShelf } from '../store/documents'
import { answer } from '../work/answer'

/** All cards of the shelf. */
export default answer(async () => listShelf(await database()))
