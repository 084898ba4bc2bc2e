import { route } from '../../../door'
import { batchOf } from '../../../work/requests'

/** A plan over documents, with what it does to each and how far it is. */
export default route('look', (event, acting) => batchOf(event, acting))
