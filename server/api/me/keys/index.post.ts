import { setResponseStatus } from 'h3'
import { keyForBodySchema } from '../../../../shared/people'
import { route } from '../../../door'
import { addProgramKey, mostKeys } from '../../../store/program-keys'
import { refusal } from '../../../work/answer'
import { bodyOf } from '../../../work/requests'

/** Makes a key for a program. It is told in this answer, and never again. */
export default route('look', async (event, acting): Promise<{ key: string }> => {
  const key = await addProgramKey(acting, await bodyOf(event, keyForBodySchema))
  if (key === null)
    throw refusal(422, `You have ${mostKeys} keys, the most that one has: end one first. None was made.`)
  setResponseStatus(event, 201)
  return { key }
})
