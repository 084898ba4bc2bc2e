import type { Me } from '../../../shared/people'
import { openRoute } from '../../door'
import { actingAs } from '../../store/acting'
import { isConnected } from '../../store/identities'
import { namesOfPeople, ownPerson, studioName } from '../../store/people'
import { waysOf } from '../../store/ways'
import { providerName } from '../../work/provider'
import { signInNeeded, whoAsks } from '../../work/signing-in'

/** Who asks, and whether anybody has to say so: what a page asks first. Of a studio nothing is told to nobody. */
export default openRoute(async (event, knex): Promise<Me> => {
  const needed = await signInNeeded(knex)
  const asking = await whoAsks(event, knex)
  if (!asking)
    return {
      signInNeeded: needed,
      person: null,
      rights: [],
      ways: null,
      studio: '',
      provider: providerName,
      connected: false,
      names: {},
      here: [],
    }
  const acting = actingAs(knex, asking.actor)
  return {
    signInNeeded: needed,
    person: await ownPerson(acting),
    rights: [...asking.actor.rights],
    ways: await waysOf(acting),
    studio: await studioName(acting),
    provider: providerName,
    connected: await isConnected(acting),
    ...(await namesOfPeople(acting)),
  }
})
