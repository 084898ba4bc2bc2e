import { defineEventHandler, isError, setHeader, type EventHandlerRequest, type H3Event } from 'h3'
import type { Right } from '../shared/api'
import { actingAs, deskPerson, type Acting, type Actor } from './store/acting'
import { database } from './store/database'
import { asRefusal, refusal, retryAfter } from './work/answer'

/** Who asks. A desk of one has one person, who may do everything. */
const whoAsks = (_event: H3Event): Actor => deskPerson

const mayNot: Readonly<Record<Right, string>> = {
  look: 'look at this desk',
  take: 'take documents or lists away from this desk',
  change: 'change documents here',
  arrange: 'arrange this desk',
  faces: 'have, add or remove whole font files here',
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
      return await handler(event, actingAs(await database(), actor))
    } catch (error) {
      const refused = asRefusal(error)
      if (isError(refused) && refused.statusCode === 503) setHeader(event, 'Retry-After', retryAfter)
      throw refused
    }
  })
}
