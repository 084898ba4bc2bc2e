import { readBody, setResponseStatus } from 'h3'
import { registry } from '../../../core/change/registry'
import { keepBodySchema } from '../../../shared/api'
import { database } from '../../store/database'
import { keepWish, wishLimit } from '../../store/kept-wishes'
import { answer, refusal } from '../../work/answer'

/** Keeps wishes under a name, to be run again on this document or on others. */
export default answer(async event => {
  const { name, request } = keepBodySchema.parse(await readBody(event))
  const reason = registry.whyNotMany(request)
  if (reason !== null) throw refusal(422, reason)
  const id = await keepWish(await database(), name, request)
  if (id === null) throw refusal(422, `${wishLimit} wishes are kept already. Take one away first. Nothing was kept.`)
  setResponseStatus(event, 201)
  return { id }
})
