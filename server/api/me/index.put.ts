import { ownBodySchema } from '../../../shared/people'
import { route } from '../../door'
import { isConnected } from '../../store/identities'
import { ownPassphrase, setOwn } from '../../store/people'
import { refusal } from '../../work/answer'
import { hashPassphrase, isPassphrase, whyNot } from '../../work/passphrases'
import { bodyOf } from '../../work/requests'
import { countTry, signIn } from '../../work/signing-in'

/**
 * One's own name, what one signs in by, and a new passphrase: whoever has one says the old one. All other sessions end with
 * a new one, and this browser is signed in by it. Whoever signs in through the provider needs neither.
 */
export default route('look', async (event, acting, session) => {
  const { name, signIn: by, passphrase, old } = await bodyOf(event, ownBodySchema)
  const kept = await ownPassphrase(acting)
  const byProvider = by === null && passphrase === null && kept === null && (await isConnected(acting))
  if (by === null && !byProvider)
    throw refusal(422, 'Say what you sign in by, besides the passphrase. Nothing was changed.')
  if (passphrase === null && kept === null && !byProvider)
    throw refusal(422, 'Choose a passphrase: without one nobody can sign in by that name. Nothing was changed.')
  if (passphrase !== null) {
    const why = whyNot(passphrase, by ?? '')
    if (why) throw refusal(422, `${why} Nothing was changed.`)
    if (kept !== null) {
      await countTry(event, `own ${acting.actor.person}`)
      if (!(await isPassphrase(old, kept)))
        throw refusal(422, 'The passphrase that you have now is another one. Nothing was changed.')
    }
  }
  const hash = passphrase === null ? null : await hashPassphrase(passphrase)
  if (!(await setOwn(acting, { name, signIn: by, passphrase: hash }, session)))
    throw refusal(409, `Somebody else signs in by “${by}”. Nothing was changed.`)
  if (session === '') await signIn(event, acting.knex, acting.actor)
  return { done: true }
})
