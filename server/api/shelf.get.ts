import { getQuery } from 'h3'
import { shelfQuerySchema } from '../../shared/api'
import { route } from '../door'
import { shelfPage } from '../store/shelf'

/** A page of the shelf: what answers to the query, in the order it asks for. */
export default route('look', async (event, acting) => shelfPage(acting, shelfQuerySchema.parse(getQuery(event))))
