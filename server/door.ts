import { defineEventHandler, getRequestIP, isError, setHeader, type EventHandlerRequest, type H3Event } from 'h3'
import type { Right } from '../shared/api'
import { actingAs, deskPerson, type Acting, type Actor } from './store/acting'
import { database } from './store/database'
import { asRefusal, refusal, retryAfter } from './work/answer'
import { Rate } from './work/rate'

/** Who asks. A desk of one has one person, who may do everything. */
const whoAsks = (_event: H3Event): Actor => deskPerson

const mayNot: Readonly<Record<Right, string>> = {
  look: 'look at this desk',
  take: 'take documents or lists away from this desk',
  change: 'change documents here',
  arrange: 'arrange this desk',
  faces: 'have, add or remove whole font files here',
  purge: 'let documents go for good here, or say how long they are kept',
}

const rate = new Rate()

/** Seconds after which it is worth while to ask again; null where that would not help. */
function retryOf(error: unknown): number | null {
  if (!isError<{ retry?: number }>(error)) return null
  return error.data?.retry ?? (error.statusCode === 503 || error.statusCode === 429 ? retryAfter : null)
}

/**
 * A route: the right it needs, and what it does for whoever asks. Errors come out as sentences. Without the right
 * nothing is done.
 * @throws 403 as a sentence
 */
export function route<T>(right: Right, handler: (event: H3Event<EventHandlerRequest>, acting: Acting) => Promise<T>) {
  return defineEventHandler(async event => {
    try {
      const actor = whoAsks(event)
      if (!actor.rights.has(right)) throw refusal(403, `You may not ${mayNot[right]}. Nothing was changed.`)
      await rate.count(JSON.stringify([actor.owner, actor.person, getRequestIP(event)]), right)
      return await handler(event, actingAs(await database(), actor))
    } catch (error) {
      const refused = asRefusal(error)
      const retry = retryOf(refused)
      if (retry !== null) setHeader(event, 'Retry-After', retry)
      throw refused
    }
  })
}
