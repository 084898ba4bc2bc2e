import { route } from '../../../door'
import { listKept } from '../../../store/kept'
import { keptKindOf } from '../../../work/requests'

/** All that is kept of a kind, by heading and name. */
export default route('look', async (event, acting) => listKept(acting, keptKindOf(event)))
