import { route } from '../../door'
import { listWishes } from '../../store/kept-wishes'

/** Wishes that are kept, by name. */
export default route('look', async (_event, acting) => listWishes(acting))
