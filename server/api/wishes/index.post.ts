import { setResponseStatus } from 'h3'
import { route } from '../../door'
import { registry } from '../../../core/change/registry'
import { keepBodySchema } from '../../../shared/api'
import { keepWish, wishLimit } from '../../store/kept-wishes'
import { refusal } from '../../work/answer'
import { bodyOf } from '../../work/requests'

/** Keeps wishes under a name, to be run again on this document or on others. */
export default route('arrange', async (event, acting) => {
  const { name, request } = await bodyOf(event, keepBodySchema)
  const reason = registry.whyNotMany(request)
  if (reason !== null) throw refusal(422, reason)
  const id = await keepWish(acting, name, request)
  if (id === null) throw refusal(422, `${wishLimit} wishes are kept already. Take one away first. Nothing was kept.`)
  setResponseStatus(event, 201)
  return { id }
})
