import { getQuery } from 'h3'
import { z } from 'zod'
import { route } from '../door'
import { startsOf } from '../store/folders'

/** What new documents begin with: of the folder of the query, or of the whole desk. */
export default route('look', async (event, acting) =>
  startsOf(acting, z.uuid().nullable().default(null).parse(getQuery(event).folder)),
)
