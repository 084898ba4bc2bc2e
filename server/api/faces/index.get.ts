import { route } from '../../door'
import { listFaces } from '../../store/faces'

/** All faces of the library, with their measures and coverage. */
export default route('look', async (_event, acting) => listFaces(acting))
