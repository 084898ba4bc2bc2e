import { getRouterParam } from 'h3'
import { route } from '../../../door'
import { endSession } from '../../../store/sessions'
import { refusal } from '../../../work/answer'

/** Ends one of one's own sessions: that browser is signed in no more. */
export default route('look', async (event, acting) => {
  if (!(await endSession(acting, getRouterParam(event, 'id') ?? '')))
    throw refusal(404, 'There is no such session of yours. It may have ended already.')
  return { done: true }
})
