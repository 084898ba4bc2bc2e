import { database } from '../../store/database'
import { listPieces } from '../../store/set-pieces'
import { answer } from '../../work/answer'

/** All kept frames, by heading. */
export default answer(async () => listPieces(await database()))
