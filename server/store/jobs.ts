import { randomUUID } from 'node:crypto'
import type { Knex } from 'knex'
import type { Job } from '../../shared/api'

const columns = {
  id: 'jobs.id',
  kind: 'jobs.kind',
  document: 'jobs.document',
  version: 'jobs.version',
  state: 'jobs.state',
  progress: 'jobs.progress',
  message: 'jobs.message',
  batch: 'jobs.batch',
}

/** A job with whom it is done for: the owner of its document, and who asked. */
export interface ClaimedJob extends Job {
  readonly owner: string
  readonly person: string
}

/**
 * Puts the job down that counts a version, within the transaction that makes it. Older versions that wait to be counted
 * wait no more: their figures would be shown to nobody. Answers its id.
 * @param place 0 where somebody waits for it, 1 where it was counted before
 */
export async function askForSurvey(
  transaction: Knex,
  document: string,
  version: number,
  place: 0 | 1 = 0,
): Promise<string> {
  const [id, now] = [randomUUID(), new Date()]
  // By their ids: whoever puts down a job for another document at the same time is not held up.
  const older = await transaction('jobs')
    .where({ document, kind: 'survey', state: 'queued' })
    .where('version', '<', version)
    .select<{ id: string }[]>('id')
  if (older.length > 0)
    await transaction('jobs')
      .where({ state: 'queued' })
      .whereIn(
        'id',
        older.map(each => each.id),
      )
      .update({ state: 'cancelled', message: 'A newer version is counted instead.', changed: now })
  await transaction('jobs').insert({
    id,
    kind: 'survey',
    document,
    version,
    state: 'queued',
    place,
    created: now,
    changed: now,
  })
  return id
}
/** A server that was not seen for so long is gone, and its jobs are given to others. Milliseconds. */
const goneAfter = 8_000

/** Says that a server is at work. */
export async function seeServer(knex: Knex, server: string): Promise<void> {
  await knex('servers').insert({ id: server, seen: new Date() }).onConflict('id').merge()
}

/**
 * Gives back what a server holds: it holds one job at a time, so one that it holds between two is one whose end could not
 * be said, since the database was away.
 */
export async function handBack(knex: Knex, server: string): Promise<void> {
  await knex('jobs').where({ server, state: 'running' }).update({ state: 'queued', server: null, changed: new Date() })
}

/** Says that a server stops: its jobs need not wait until it is missed. */
export async function leaveServer(knex: Knex, server: string): Promise<void> {
  await knex.transaction(async transaction => {
    await handBack(transaction, server)
    await transaction('servers').where({ id: server }).delete()
  })
}

/**
 * Claims a job: what a server held that is gone, before all that came later; else the oldest that somebody waits for, else
 * of the others. Null where none waits. Rows that another server holds are passed over. The index on state, place and time
 * lets the database stop at the first free row, so that it locks no other.
 */
export async function claimJob(knex: Knex, server: string): Promise<ClaimedJob | null> {
  return knex.transaction(
    async transaction => {
      const waiting = () => transaction('jobs').orderBy(['place', 'created']).limit(1).forUpdate().skipLocked()
      const atWork = transaction('servers')
        .where('seen', '>', new Date(Date.now() - goneAfter))
        .select('id')
      const row =
        (await waiting()
          .where({ state: 'running' })
          .where(query => query.whereNull('server').orWhereNotIn('server', atWork))
          .first<Job | undefined>(columns)) ??
        (await waiting().where({ state: 'queued' }).first<Job | undefined>(columns))
      if (!row) return null
      const now = new Date()
      await transaction('jobs').where({ id: row.id }).update({ state: 'running', server, claimed: now, changed: now })
      return { ...row, state: 'running', ...(await whomFor(transaction, row)) }
    },
    { isolationLevel: 'read committed' },
  )
}

async function whomFor(knex: Knex, job: Job): Promise<Pick<ClaimedJob, 'owner' | 'person'>> {
  const document = await knex('documents').where({ id: job.document }).first<{ owner: string }>('owner')
  const batch =
    job.batch === null
      ? undefined
      : await knex('batches').where({ id: job.batch }).first<{ author: string } | undefined>('author')
  return { owner: document.owner, person: batch?.author ?? '' }
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

/** Jobs that changed since some time, each with the owner of its document: for pushing. */
export async function changedJobs(knex: Knex, since: Date): Promise<(Job & { changed: Date; owner: string })[]> {
  return knex('jobs')
    .join('documents', 'documents.id', 'jobs.document')
    .where('jobs.changed', '>', since)
    .orderBy('jobs.changed')
    .limit(500)
    .select<(Job & { changed: Date; owner: string })[]>({
      ...columns,
      changed: 'jobs.changed',
      owner: 'documents.owner',
    })
}
