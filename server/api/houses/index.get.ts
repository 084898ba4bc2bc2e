import { route } from '../../door'
import { listHouses } from '../../store/houses'

/** All houses of the desk. */
export default route('look', (_event, acting) => listHouses(acting))
