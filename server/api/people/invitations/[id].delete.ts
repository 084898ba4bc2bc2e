import { getRouterParam } from 'h3'
import { route } from '../../../door'
import { withdraw } from '../../../store/people'
import { refusal } from '../../../work/answer'

/** Takes an invitation back: its link holds no longer. */
export default route('people', async (event, acting) => {
  if (!(await withdraw(acting, getRouterParam(event, 'id') ?? '')))
    throw refusal(404, 'There is no such invitation. It may be over, or somebody came by it.')
  return { done: true }
})
