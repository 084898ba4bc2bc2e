import { signInBodySchema } from '../../shared/people'
import { openRoute } from '../door'
import { actingAs } from '../store/acting'
import { tellAudit } from '../store/audit'
import { personBySignIn } from '../store/people'
import { refusal } from '../work/answer'
import { isPassphrase } from '../work/passphrases'
import { bodyOf } from '../work/requests'
import { countTry, forgetTries, signIn } from '../work/signing-in'

/** Somebody comes in by name and passphrase. What is wrong is not told, so that nobody learns who is here. */
export default openRoute(async (event, knex) => {
  const { signIn: by, passphrase } = await bodyOf(event, signInBodySchema)
  const name = by.trim().toLowerCase()
  await countTry(event, name)
  const person = await personBySignIn(knex, name)
  if (!(await isPassphrase(passphrase, person?.passphrase ?? null)) || !person) {
    if (person) await tellAudit(actingAs(knex, person.actor), 'sign-in refused')
    throw refusal(401, 'There is nobody here of that name and passphrase. Try again, or ask an owner for a link.')
  }
  await forgetTries(event, name)
  await signIn(event, knex, person.actor)
  return { done: true }
})
