import { database } from '../store/database'
import { shelfCensus } from '../store/shelf-census'
import { answer } from '../work/answer'

/** The census over all documents: which use a face, a size, a colour. */
export default answer(async () => shelfCensus(await database()))
