import { sendRedirect } from 'h3'
import type { Knex } from 'knex'
import { wayWithin, type WayFault } from '../../../shared/people'
import { openRoute } from '../../door'
import { actingAs, type Actor } from '../../store/acting'
import { connectIdentity, personByIdentity, type Identity, type WayPurpose } from '../../store/identities'
import { actorOfPerson, isTaken, join } from '../../store/people'
import { cameBack } from '../../work/provider'
import { signIn } from '../../work/signing-in'

/** Whoever the identity is, once what they went for is done; or why it is not. */
async function arrived(knex: Knex, identity: Identity, purpose: WayPurpose): Promise<Actor | WayFault> {
  if (purpose.for === 'join') {
    const actor = await join(knex, purpose.link, purpose.name, identity)
    return actor === 'no link' ? 'no-link' : actor
  }
  if (purpose.for === 'sign-in') {
    const person = await personByIdentity(knex, identity)
    return (person === null ? null : await actorOfPerson(knex, person)) ?? 'unknown'
  }
  const actor = await actorOfPerson(knex, purpose.person)
  if (!actor) return 'lost'
  try {
    await connectIdentity(actingAs(knex, actor), identity)
    return actor
  } catch (error) {
    if (isTaken(error)) return 'taken'
    throw error
  }
}

/** Somebody comes back from the provider, and is signed in as whom it says; else the page to sign in says why not. */
export default openRoute(async (event, knex) => {
  const came = await cameBack(event, knex)
  const outcome = 'fault' in came ? came.fault : await arrived(knex, came.identity, came.purpose)
  const connects = came.purpose?.for === 'connect'
  if (typeof outcome === 'string')
    return sendRedirect(event, `${connects ? '/people' : '/sign-in'}?provider=${outcome}`)
  // Whoever was known by it only now is signed in already, in the browser in which they asked.
  if (!connects) await signIn(event, knex, outcome)
  return sendRedirect(
    event,
    connects ? '/people?provider=done' : came.purpose?.for === 'sign-in' ? wayWithin(came.purpose.to) : '/',
  )
})
