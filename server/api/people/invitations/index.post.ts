import { setResponseStatus } from 'h3'
import { inviteBodySchema } from '../../../../shared/people'
import { route } from '../../../door'
import { isConnected } from '../../../store/identities'
import { invite, ownPassphrase } from '../../../store/people'
import { refusal } from '../../../work/answer'
import { bodyOf } from '../../../work/requests'
import { peopleChanged } from '../../../work/signing-in'

/** Asks somebody to come. From then on nobody is let in without signing in: whoever asks must be able to. */
export default route('people', async (event, acting) => {
  const asked = await bodyOf(event, inviteBodySchema)
  if ((await ownPassphrase(acting)) === null && !(await isConnected(acting)))
    throw refusal(
      422,
      'Choose your own passphrase first: as soon as somebody is asked to come, this desk lets nobody in without one. ' +
        'Nothing was changed.',
    )
  const made = await invite(acting, asked)
  peopleChanged()
  setResponseStatus(event, 201)
  return made
})
