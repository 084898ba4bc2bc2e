import type { Knex } from 'knex'

/** Work that waits in the database, so that several servers can share it. */
export interface Job { readonly id: string, readonly kind: 'survey', readonly document: string, readonly version: number, readonly state: 'queued' | 'running' | 'done' | 'failed', readonly progress: number, readonly message: string }

const columns = { id: 'id', kind: 'kind', document: 'document', version: 'version', state: 'state', progress: 'progress', message: 'message' }
/** A job whose server has said nothing for so long is given to another. Milliseconds. */
const abandonedAfter = 120_000

/**
 * Claims the oldest waiting job; null where none waits. Rows that another server holds are passed over. The index on
 * state and time lets the database stop at the first free row, so that it locks no other.
 */
export async function claimJob(knex: Knex): Promise<Job | null> {
  return knex.transaction(async (transaction) => {
    const waiting = () => transaction('jobs').orderBy('created').limit(1).forUpdate().skipLocked()
    const row = await waiting().where({ state: 'queued' }).first<Job | undefined>(columns)
      ?? await waiting().where({ state: 'running' }).where('changed', '<', new Date(Date.now() - abandonedAfter)).first<Job | undefined>(columns)
    if (!row) return null
    const now = new Date()
    await transaction('jobs').where({ id: row.id }).update({ state: 'running', claimed: now, changed: now })
    return { ...row, state: 'running' }
  }, { isolationLevel: 'read committed' })
}

export async function reportJob(knex: Knex, id: string, state: Job['state'], progress: number, message = ''): Promise<void> {
  await knex('jobs').where({ id }).update({ state, progress, message: message.slice(0, 1000), changed: new Date() })
}

/** Jobs that changed since some time, for pushing. */
export async function changedJobs(knex: Knex, since: Date): Promise<(Job & { changed: Date })[]> {
  return knex('jobs').where('changed', '>', since).orderBy('changed').limit(200).select<(Job & { changed: Date })[]>({ ...columns, changed: 'changed' })
}

/** Jobs that a server that is gone left running are queued again at start. */
export async function requeueAll(knex: Knex): Promise<void> {
  await knex('jobs').where({ state: 'running' }).update({ state: 'queued', changed: new Date() })
}
