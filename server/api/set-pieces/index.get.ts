import { route } from '../../door'
import { listPieces } from '../../store/set-pieces'

/** All kept frames, by heading. */
export default route('look', async (_event, acting) => listPieces(acting))
