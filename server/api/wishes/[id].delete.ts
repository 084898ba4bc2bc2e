import { getRouterParam } from 'h3'
import { database } from '../../store/database'
import { removeWish } from '../../store/kept-wishes'
import { answer, refusal } from '../../work/answer'

/** Takes a kept wish away. What it did stays done. */
export default answer(async event => {
  if (!(await removeWish(await database(), getRouterParam(event, 'id') ?? '')))
    throw refusal(404, 'This wish is not kept any more.')
  return { removed: true }
})
