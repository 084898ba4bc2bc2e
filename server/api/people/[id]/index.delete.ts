import { getRouterParam } from 'h3'
import { route } from '../../../door'
import { endPerson } from '../../../store/people'
import { lastOwner, notHere } from '../../../work/people-words'
import { refusal } from '../../../work/answer'

/** Lets somebody's access end at once. What they made stays, under their name. */
export default route('people', async (event, acting) => {
  const done = await endPerson(acting, getRouterParam(event, 'id') ?? '')
  if (done === 'gone') throw refusal(404, notHere)
  if (done === 'last owner') throw refusal(422, lastOwner)
  return { done: true }
})
