import { randomUUID } from 'node:crypto'
import type { Knex } from 'knex'
import type { Session } from '../../shared/people'
import type { Acting, Actor } from './acting'
import { tellAudit } from './audit'
import { hashOfKey, newKey } from './keys'
import { actorOf, type PersonRights } from './people'

/** A session ends so long after it began, and so long after it was last used. Milliseconds. */
const holds = { whole: 30 * 24 * 3600 * 1000, idle: 7 * 24 * 3600 * 1000 } as const
/** When it was used is written down so often at most: not with every request. Milliseconds. */
const seenEvery = 60_000
/** As many sessions has one person; older ones end. */
const mostSessions = 20

interface SessionRow {
  readonly id: string
  readonly person: string
  readonly agent: string
  readonly created: Date
  readonly seen: Date
  readonly until: Date
}

/** Begins a session. @returns the key that the browser is given */
export async function beginSession(knex: Knex, actor: Actor, agent: string): Promise<{ key: string; id: string }> {
  const { key, hash } = newKey()
  const id = randomUUID()
  const now = new Date()
  await knex.transaction(async transaction => {
    await transaction('sessions').where('until', '<', now).delete()
    await transaction('sessions').insert({
      key_hash: hash,
      id,
      person: actor.person,
      agent: agent.slice(0, 200),
      created: now,
      seen: now,
      until: new Date(now.getTime() + holds.whole),
    })
    const old = await transaction('sessions')
      .where({ person: actor.person })
      .orderBy('created', 'desc')
      .offset(mostSessions)
      .limit(1_000)
      .select<{ id: string }[]>('id')
    if (old.length > 0)
      await transaction('sessions')
        .whereIn(
          'id',
          old.map(each => each.id),
        )
        .delete()
    await tellAudit({ knex: transaction, actor }, 'signed in')
  })
  return { key, id }
}

/** Whoever a key is of, while its session holds; null for all other keys. */
export async function actorOfKey(knex: Knex, key: string): Promise<{ actor: Actor; session: string } | null> {
  const where = { key_hash: hashOfKey(key) }
  const row = await knex('sessions')
    .join('people', 'people.id', 'sessions.person')
    .where(where)
    .whereNull('people.ended')
    .first<(SessionRow & PersonRights) | undefined>('sessions.*', 'people.owner', 'people.role', 'people.also')
  if (!row) return null
  const now = Date.now()
  if (row.until.getTime() <= now || row.seen.getTime() + holds.idle <= now) {
    await knex('sessions').where(where).delete()
    return null
  }
  if (row.seen.getTime() + seenEvery < now)
    await knex('sessions')
      .where(where)
      .update({ seen: new Date(now) })
  return { actor: actorOf({ ...row, id: row.person }), session: row.id }
}

/** One's own sessions, the newest first. */
export async function listSessions({ knex, actor }: Acting, own: string): Promise<Session[]> {
  const rows = await knex('sessions')
    .where({ person: actor.person })
    .where('until', '>', new Date())
    .orderBy('seen', 'desc')
    .select<Omit<SessionRow, 'person'>[]>('id', 'agent', 'created', 'seen', 'until')
  return rows.map(row => ({ ...row, own: row.id === own }))
}

/** Ends one of one's own sessions; false where there is none. */
export async function endSession(acting: Acting, id: string): Promise<boolean> {
  const gone: number = await acting.knex('sessions').where({ person: acting.actor.person, id }).delete()
  if (gone > 0) await tellAudit(acting, 'signed out')
  return gone > 0
}
