import { getRouterParam } from 'h3'
import { z } from 'zod'
import { database } from '../../store/database'
import { removePiece } from '../../store/set-pieces'
import { answer, refusal } from '../../work/answer'

/** Removes a kept frame; documents that it was put into keep what they have. */
export default answer(async event => {
  const id = z.uuid().parse(getRouterParam(event, 'id'))
  if (!(await removePiece(await database(), id))) throw refusal(404, 'this kept frame is not kept any more.')
  return { removed: id }
})
