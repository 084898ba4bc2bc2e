import { keyBodySchema } from '../../shared/people'
import { openRoute } from '../door'
import { linkOf } from '../store/people'
import { refusal } from '../work/answer'
import { bodyOf } from '../work/requests'
import { countTry } from '../work/signing-in'

/** What a link is for: to join a studio, or to come in again. The key goes in the body, so that no log has it. */
export default openRoute(async (event, knex) => {
  const { key } = await bodyOf(event, keyBodySchema)
  await countTry(event, null)
  const link = await linkOf(knex, key)
  if (!link) throw refusal(404, 'This link does not hold any more. Ask whoever gave it to you for another one.')
  return link
})
