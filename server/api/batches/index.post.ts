import { readBody, setResponseStatus } from 'h3'
import { registry } from '../../../core/change/registry'
import { batchBodySchema } from '../../../shared/api'
import { addBatch } from '../../store/batches'
import { database } from '../../store/database'
import { answer, refusal } from '../../work/answer'

/** Begins one plan over many documents: each is planned by itself, as a job. Nothing changes until it is carried out. */
export default answer(async event => {
  const { request, documents } = batchBodySchema.parse(await readBody(event))
  const reason = registry.whyNotMany(request)
  if (reason !== null) throw refusal(422, reason)
  const id = await addBatch(await database(), request, registry.sentences(request).join(' '), documents)
  setResponseStatus(event, 201)
  return { id }
})
