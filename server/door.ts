import { defineEventHandler, getRequestIP, isError, setHeader, type EventHandlerRequest, type H3Event } from 'h3'
import type { Knex } from 'knex'
import { rightsOfWork } from '../shared/people'
import type { Right } from '../shared/rights'
import { actingAs, foldersWorkedOn, type Acting } from './store/acting'
import { tellAudit, type AuditKind } from './store/audit'
import { database } from './store/database'
import { isShared, namesOfPeople } from './store/people'
import { ConflictError } from './store/versions'
import { asRefusal, changedMeanwhile, refusal, retryAfter } from './work/answer'
import { Rate } from './work/rate'
import { whoAsks } from './work/signing-in'

const mayNot: Readonly<Record<Right, string>> = {
  look: 'look at this desk',
  remark: 'write remarks here',
  take: 'take documents or lists away from this desk',
  change: 'change documents here',
  arrange: 'arrange this desk',
  fonts: 'have whole font files here',
  faces: 'add or remove faces here',
  purge: 'let documents go for good here, or say how long they are kept',
  sign: 'sign versions off here',
  issue: 'issue houses here',
  people: 'see or change who works here',
}

/**
 * Whether whoever asks may do so for a document in a folder that they work on, though they may not at the desk: what it then
 * reaches is those folders alone (`withinReach`). Faces are had by whoever works on any.
 */
async function mayByWork(event: H3Event, acting: Acting): Promise<boolean> {
  const { right = 'look' } = acting
  const { matchedRoute } = event.context as { matchedRoute?: { path?: string } }
  const isAbout = right === 'fonts' || (matchedRoute?.path ?? '').startsWith('/api/documents/:id')
  return isAbout && rightsOfWork.includes(right) && (await foldersWorkedOn(acting).first()) !== undefined
}

const rate = new Rate()

/** Seconds after which it is worth while to ask again; null where that would not help. */
function retryOf(error: unknown): number | null {
  if (!isError<{ retry?: number }>(error)) return null
  return error.data?.retry ?? (error.statusCode === 503 || error.statusCode === 429 ? retryAfter : null)
}

/** Answers by a handler; errors come out as sentences, with when to ask again. */
async function answered<T>(event: H3Event, work: () => Promise<T>): Promise<T> {
  try {
    return await work()
  } catch (error) {
    const refused = asRefusal(error)
    const retry = retryOf(refused)
    if (retry !== null) setHeader(event, 'Retry-After', retry)
    throw refused
  }
}

/** What was taken away or let go for good is told in the log of people. */
const audited: Partial<Record<Right, AuditKind>> = { take: 'taken', purge: 'purged' }

/** Whoever is told that a document was changed meanwhile is told by whom. @throws what came, with names */
async function withNames(acting: Acting, error: unknown): Promise<never> {
  if (!(error instanceof ConflictError) || !(await isShared(acting.knex))) throw error
  const { names } = await namesOfPeople(acting)
  const authors = [...new Set(error.since.map(version => version.author))]
  const told = authors.map(each => (each === acting.actor.person ? 'You' : (names[each] ?? 'Somebody')))
  throw told.length === 0 ? error : changedMeanwhile(error, told.join(' and '))
}

/**
 * A route: the right it needs, and what it does for whoever asks. Errors come out as sentences. Without a session where one
 * is needed, or without the right, nothing is done.
 * @throws 401 and 403 as sentences
 */
export function route<T>(
  right: Right,
  handler: (event: H3Event<EventHandlerRequest>, acting: Acting, session: string) => Promise<T>,
) {
  return defineEventHandler(event =>
    answered(event, async () => {
      const knex = await database()
      const asking = await whoAsks(event, knex)
      if (!asking) throw refusal(401, 'Sign in first. Nothing was changed.', { fault: 'sign-in' })
      const { actor, session, byProgram } = asking
      if (byProgram && /^\/api\/(me|sign-out)\b/.test(event.path))
        throw refusal(403, 'A program does nothing to the person it asks for. Nothing was changed.')
      const acting = actingAs(knex, actor, right)
      if (!actor.rights.has(right) && (byProgram || !(await mayByWork(event, acting))))
        throw refusal(403, `You may not ${mayNot[right]}. Nothing was changed.`)
      await rate.count(JSON.stringify([actor.owner, actor.person, getRequestIP(event)]), right)
      const answer = await handler(event, acting, session).catch(error => withNames(acting, error))
      const kind = session === '' || event.context.untold === true ? undefined : audited[right]
      if (kind) await tellAudit(acting, kind, event.path.split('?', 1)[0])
      return answer
    }),
  )
}

/** A route that anybody may ask who reaches the desk: the ways in. Errors come out as sentences. */
export function openRoute<T>(handler: (event: H3Event<EventHandlerRequest>, knex: Knex) => Promise<T>) {
  return defineEventHandler(event =>
    answered(event, async () => {
      await rate.count(JSON.stringify(['', '', getRequestIP(event)]), 'look')
      return handler(event, await database())
    }),
  )
}
