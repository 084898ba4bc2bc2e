import type { Knex } from 'knex'
import type { Job } from '../../shared/api'

const columns = {
  id: 'id',
  kind: 'kind',
  document: 'document',
  version: 'version',
  state: 'state',
  progress: 'progress',
  message: 'message',
  batch: 'batch',
}
/** A server that was not seen for so long is gone, and its jobs are given to others. Milliseconds. */
const goneAfter = 8_000

/** Says that a server is at work. */
export async function seeServer(knex: Knex, server: string): Promise<void> {
  await knex('servers').insert({ id: server, seen: new Date() }).onConflict('id').merge()
}

/** Says that a server stops: its jobs need not wait until it is missed. */
export async function leaveServer(knex: Knex, server: string): Promise<void> {
  await knex.transaction(async transaction => {
    await transaction('jobs')
      .where({ server, state: 'running' })
      .update({ state: 'queued', server: null, changed: new Date() })
    await transaction('servers').where({ id: server }).delete()
  })
}

/**
 * Claims the oldest waiting job; null where none waits. Rows that another server holds are passed over. The index on
 * state and time lets the database stop at the first free row, so that it locks no other.
 */
export async function claimJob(knex: Knex, server: string): Promise<Job | null> {
  return knex.transaction(
    async transaction => {
      const waiting = () => transaction('jobs').orderBy('created').limit(1).forUpdate().skipLocked()
      const atWork = transaction('servers')
        .where('seen', '>', new Date(Date.now() - goneAfter))
        .select('id')
      const row =
        (await waiting().where({ state: 'queued' }).first<Job | undefined>(columns)) ??
        (await waiting()
          .where({ state: 'running' })
          .where(query => query.whereNull('server').orWhereNotIn('server', atWork))
          .first<Job | undefined>(columns))
      if (!row) return null
      const now = new Date()
      await transaction('jobs').where({ id: row.id }).update({ state: 'running', server, claimed: now, changed: now })
      return { ...row, state: 'running' }
    },
    { isolationLevel: 'read committed' },
  )
}

export async function reportJob(
  knex: Knex,
  id: string,
  state: Job['state'],
  progress: number,
  message = '',
): Promise<void> {
  await knex('jobs')
    .where({ id })
    .update({ state, progress, message: message.slice(0, 1000), changed: new Date() })
}

/** Jobs that changed since some time, for pushing. */
export async function changedJobs(knex: Knex, since: Date): Promise<(Job & { changed: Date })[]> {
  return knex('jobs')
    .where('changed', '>', since)
    .orderBy('changed')
    .limit(200)
    .select<(Job & { changed: Date })[]>({ ...columns, changed: 'changed' })
}
