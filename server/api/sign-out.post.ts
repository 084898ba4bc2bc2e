import { route } from '../door'
import { endSession } from '../store/sessions'
import { forgetKey } from '../work/signing-in'

/** Whoever asks leaves: the key of this browser holds no longer. */
export default route('look', async (event, acting, session) => {
  if (session !== '') await endSession(acting, session)
  forgetKey(event)
  return { done: true }
})
