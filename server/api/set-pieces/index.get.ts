import { database } from '../../store/database'
import { listPieces } from '../../store/set-pieces'
import { answer } from '../../work/answer'

/** All set pieces, by heading. */
export default answer(async () => listPieces(await database()))
