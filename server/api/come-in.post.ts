import { keyBodySchema } from '../../shared/people'
import { openRoute } from '../door'
import { comeIn } from '../store/people'
import { refusal } from '../work/answer'
import { bodyOf } from '../work/requests'
import { countTry, signIn } from '../work/signing-in'

/** Somebody comes in by a link that was made for them: once. */
export default openRoute(async (event, knex) => {
  const { key } = await bodyOf(event, keyBodySchema)
  await countTry(event, null)
  const actor = await comeIn(knex, key)
  if (!actor) throw refusal(404, 'This link does not hold any more. Ask whoever gave it to you for another one.')
  await signIn(event, knex, actor)
  return { done: true }
})
