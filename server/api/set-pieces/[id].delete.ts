import { getRouterParam } from 'h3'
import { z } from 'zod'
import { route } from '../../door'
import { removePiece } from '../../store/set-pieces'
import { refusal } from '../../work/answer'

/** Removes a kept frame; documents that it was put into keep what they have. */
export default route('arrange', async (event, acting) => {
  const id = z.uuid().parse(getRouterParam(event, 'id'))
  if (!(await removePiece(acting, id))) throw refusal(404, 'this kept frame is not kept any more.')
  return { removed: id }
})
