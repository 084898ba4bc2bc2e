import { getRouterParam } from 'h3'
import { route } from '../../../door'
import { endProgramKey } from '../../../store/program-keys'
import { refusal } from '../../../work/answer'

/** Ends one of one's own keys: the program that has it is let in no more. */
export default route('look', async (event, acting) => {
  if (!(await endProgramKey(acting, getRouterParam(event, 'id') ?? '')))
    throw refusal(404, 'There is no such key of yours. It may have ended already.')
  return { done: true }
})
