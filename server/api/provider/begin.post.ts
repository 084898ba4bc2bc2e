import { wayBodySchema } from '../../../shared/people'
import { openRoute } from '../../door'
import type { WayPurpose } from '../../store/identities'
import { hashOfKey } from '../../store/keys'
import { linkOf } from '../../store/people'
import { refusal } from '../../work/answer'
import { wayOut } from '../../work/provider'
import { bodyOf } from '../../work/requests'
import { countTry, whoAsks } from '../../work/signing-in'

/** Somebody goes to the provider: to sign in, to join, or to be known by it. Answers the address to go to. */
export default openRoute(async (event, knex): Promise<{ address: string }> => {
  const asked = await bodyOf(event, wayBodySchema)
  let purpose: WayPurpose
  if (asked.for === 'join') {
    await countTry(event, null)
    if (!(await linkOf(knex, asked.key))?.joins)
      throw refusal(404, 'This link does not hold any more. Ask whoever gave it to you for another one.')
    purpose = { for: 'join', link: hashOfKey(asked.key), name: asked.name }
  } else if (asked.for === 'connect') {
    const asking = await whoAsks(event, knex)
    if (!asking || asking.byProgram) throw refusal(401, 'Sign in first. Nothing was changed.', { fault: 'sign-in' })
    purpose = { for: 'connect', person: asking.actor.person }
  } else purpose = asked
  return { address: await wayOut(event, knex, purpose) }
})
