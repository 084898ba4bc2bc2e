import { database } from '../../store/database'
import { listFaces } from '../../store/faces'
import { answer } from '../../work/answer'

/** All faces of the library, with their measures and coverage. */
export default answer(async () => listFaces(await database()))
