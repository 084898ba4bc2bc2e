import { setResponseStatus } from 'h3'
import { joinBodySchema } from '../../shared/people'
import { openRoute } from '../door'
import { hashOfKey } from '../store/keys'
import { join } from '../store/people'
import { refusal } from '../work/answer'
import { hashPassphrase, whyNot } from '../work/passphrases'
import { bodyOf } from '../work/requests'
import { countTry, signIn } from '../work/signing-in'

/** Somebody comes by an invitation: says who they are, chooses a passphrase, and is signed in. */
export default openRoute(async (event, knex) => {
  const { key, name, signIn: by, passphrase } = await bodyOf(event, joinBodySchema)
  await countTry(event, null)
  const why = whyNot(passphrase, by)
  if (why) throw refusal(422, `${why} Nothing was changed.`)
  const actor = await join(knex, hashOfKey(key), name, { signIn: by, passphrase: await hashPassphrase(passphrase) })
  if (actor === 'no link')
    throw refusal(404, 'This link does not hold any more. Ask whoever gave it to you for another one.')
  if (actor === 'taken') throw refusal(409, `Somebody else signs in by “${by}”. Choose another name.`)
  await signIn(event, knex, actor)
  setResponseStatus(event, 201)
  return { done: true }
})
