import { route } from '../../door'
import { disconnect } from '../../store/identities'
import { ownPassphrase } from '../../store/people'
import { refusal } from '../../work/answer'

/** Whoever asks comes in through the provider no more: by their passphrase alone, which they must have. */
export default route('look', async (_event, acting) => {
  if ((await ownPassphrase(acting)) === null)
    throw refusal(422, 'Choose a passphrase first: nothing else would let you in any more. Nothing was changed.')
  if (!(await disconnect(acting))) throw refusal(404, 'You do not sign in through a provider.')
  return { done: true }
})
