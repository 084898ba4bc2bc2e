import { route } from '../door'
import { shelfCensus } from '../store/shelf-census'

/** The census over all documents: which use a face, a size, a colour. */
export default route('look', async (_event, acting) => shelfCensus(acting))
