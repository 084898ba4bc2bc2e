import { database } from '../store/database'
import { listRecords } from '../store/documents'
import { answer } from '../work/answer'

/** Every change of every document that was made by a plan, newest first. */
export default answer(async () => listRecords(await database()))
