import { setResponseStatus } from 'h3'
import { route } from '../../door'
import { registry } from '../../../core/change/registry'
import { batchBodySchema } from '../../../shared/api'
import { addBatch } from '../../store/batches'
import { refusal } from '../../work/answer'
import { bodyOf } from '../../work/requests'

/** Begins one plan over many documents: each is planned by itself, as a job. Nothing changes until it is carried out. */
export default route('change', async (event, acting) => {
  const { request, documents } = await bodyOf(event, batchBodySchema)
  const reason = registry.whyNotMany(request)
  if (reason !== null) throw refusal(422, reason)
  const id = await addBatch(acting, request, registry.sentences(request).join(' '), documents)
  setResponseStatus(event, 201)
  return { id }
})
