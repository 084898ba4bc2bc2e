import { getRouterParam } from 'h3'
import { route } from '../../../door'
import { purgeDocument } from '../../../store/trash'
import { refusal } from '../../../work/answer'

/** Lets a document in the trash go for good, with all its versions. */
export default route('purge', async (event, acting) => {
  const id = getRouterParam(event, 'id') ?? ''
  if (!(await purgeDocument(acting, id)))
    throw refusal(404, 'This document is not in the trash. It may be back on the shelf, or gone already.')
  return { purged: id }
})
