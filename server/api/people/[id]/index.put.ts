import { getRouterParam } from 'h3'
import { personRightsSchema } from '../../../../shared/people'
import { route } from '../../../door'
import { setRights } from '../../../store/people'
import { lastOwner, notHere } from '../../../work/people-words'
import { refusal } from '../../../work/answer'
import { bodyOf } from '../../../work/requests'

/** Gives somebody another role and other rights. They hold from their next request on. */
export default route('people', async (event, acting) => {
  const done = await setRights(acting, getRouterParam(event, 'id') ?? '', await bodyOf(event, personRightsSchema))
  if (done === 'gone') throw refusal(404, notHere)
  if (done === 'last owner') throw refusal(422, lastOwner)
  return { done: true }
})
