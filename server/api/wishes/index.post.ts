import { readBody, setResponseStatus } from 'h3'
import { z } from 'zod'
import { database } from '../../store/database'
import { keepWish, wishLimit } from '../../store/kept-wishes'
import { answer, refusal } from '../../work/answer'
import { batchWishSchema, whyNotMany } from '../../work/batch-request'

const bodySchema = z.strictObject({ name: z.string().trim().min(1).max(200), wish: batchWishSchema })

/** Keeps a wish under a name, to be run again on this document or on others. */
export default answer(async event => {
  const { name, wish } = bodySchema.parse(await readBody(event))
  const reason = whyNotMany(wish)
  if (reason !== null) throw refusal(422, reason)
  const id = await keepWish(await database(), name, wish)
  if (id === null) throw refusal(422, `${wishLimit} wishes are kept already. Take one away first. Nothing was kept.`)
  setResponseStatus(event, 201)
  return { id }
})
