import { getRouterParam } from 'h3'
import { z } from 'zod'
import { route } from '../../../door'
import { dropKept } from '../../../store/kept'
import { refusal } from '../../../work/answer'
import { keptKindOf } from '../../../work/requests'

/** Lets go of something that is kept; documents that it was used in keep what they have. */
export default route('arrange', async (event, acting) => {
  const id = z.uuid().parse(getRouterParam(event, 'id'))
  if (!(await dropKept(acting, keptKindOf(event), id))) throw refusal(404, 'this is not kept any more.')
  return { removed: id }
})
