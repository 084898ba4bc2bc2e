import { readBody, setResponseStatus } from 'h3'
import { recastSentence } from '../../../core/change/recast/request'
import { addBatch } from '../../store/batches'
import { database } from '../../store/database'
import { answer, refusal } from '../../work/answer'
import { batchBodySchema, whyNotMany } from '../../work/batch-request'

/**
 * Begins one plan over many documents: each is planned by itself, as a job. Nothing changes until it is carried
 * out.
 */
export default answer(async event => {
  const { wish, documents } = batchBodySchema.parse(await readBody(event))
  const reason = whyNotMany(wish)
  if (reason !== null) throw refusal(422, reason)
  const title =
    wish.kind === 'recast'
      ? recastSentence(wish.request)
      : wish.request.wishes.map(each => `${each.from.family} gives way to ${each.to.family}`).join('; ')
  const id = await addBatch(await database(), wish, title, documents)
  setResponseStatus(event, 201)
  return { id }
})
