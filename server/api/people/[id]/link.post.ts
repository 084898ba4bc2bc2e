import { getRouterParam } from 'h3'
import { route } from '../../../door'
import { makeLink } from '../../../store/people'
import { notHere } from '../../../work/people-words'
import { refusal } from '../../../work/answer'

/** Makes a link by which somebody who forgot their passphrase comes in once. */
export default route('people', async (event, acting) => {
  const key = await makeLink(acting, getRouterParam(event, 'id') ?? '')
  if (key === null) throw refusal(404, notHere)
  return { key }
})
