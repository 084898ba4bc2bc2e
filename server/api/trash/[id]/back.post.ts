import { getRouterParam } from 'h3'
import { route } from '../../../door'
import { putBack } from '../../../store/trash'
import { refusal } from '../../../work/answer'

/** Puts a document in the trash back on the shelf. */
export default route('arrange', async (event, acting) => {
  const id = getRouterParam(event, 'id') ?? ''
  if (!(await putBack(acting, id)))
    throw refusal(404, 'This document is not in the trash. It may be back on the shelf, or gone already.')
  return { back: id }
})
