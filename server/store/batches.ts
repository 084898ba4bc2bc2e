import { randomUUID } from 'node:crypto'
import type { WishList } from '../../core/change/plan'
import type {
  Batch,
  BatchDocument,
  BatchDocumentState,
  BatchEffects,
  BatchState,
  Job,
  ListedBatch,
} from '../../shared/api'
import { atOnce, foldersClosedTo, ownDocuments, type Acting } from './acting'
import { addVersion, listVersions, type NewVersion } from './versions'

/*
 * One wish over many documents: planned and carried out document by document, as jobs that any server may do. Each
 * document is one version, stored in one transaction together with what the batch knows of it, so that it is wholly old
 * or wholly new whenever a server ends.
 */

interface DocumentRow {
  readonly document: string
  readonly file_name: string
  readonly base: number
  readonly made: number | null
  readonly state: BatchDocumentState
  readonly message: string
  readonly effects: string | null
}
const shaped = (row: DocumentRow): BatchDocument => ({
  document: row.document,
  fileName: row.file_name,
  base: row.base,
  made: row.made,
  state: row.state,
  message: row.message,
  effects: row.effects ? (JSON.parse(row.effects) as BatchEffects) : null,
})

const job = (kind: Job['kind'], batch: string, document: string, version: number, now: Date) => ({
  id: randomUUID(),
  kind,
  document,
  version,
  state: 'queued',
  created: now,
  changed: now,
  batch,
})

/** Begins a batch: every document waits for its plan. */
export async function addBatch(
  acting: Acting,
  request: WishList,
  title: string,
  documents: readonly string[],
): Promise<string> {
  const id = randomUUID()
  const now = new Date()
  await atOnce(acting, async within => {
    const { knex: transaction, actor } = within
    const rows = await ownDocuments(within)
      .whereIn('id', [...documents])
      .select<{ id: string; file_name: string; version: number }[]>('id', 'file_name', 'version')
    await transaction('batches').insert({
      id,
      owner: actor.owner,
      author: actor.person,
      title: title.slice(0, 500),
      request: JSON.stringify(request),
      state: rows.length === 0 ? 'planned' : 'planning',
      created: now,
    })
    for (const row of rows) {
      await transaction('batch_documents').insert({
        batch: id,
        document: row.id,
        file_name: row.file_name,
        base: row.version,
        state: 'waiting',
      })
      await transaction('jobs').insert(job('batch-plan', id, row.id, row.version, now))
    }
  })
  return id
}

export async function findBatch(acting: Acting, id: string): Promise<Batch | undefined> {
  const { knex, actor } = acting
  const row = await knex('batches')
    .where({ id, owner: actor.owner })
    .first<(Omit<Batch, 'request' | 'documents'> & { request: string }) | undefined>(
      'id',
      'title',
      'author',
      'request',
      'state',
      'created',
    )
  if (!row) return undefined
  // Documents that are gone stay in the record; those in folders that the actor does not see are not told.
  const closed = foldersClosedTo(acting)
  const found = knex('batch_documents').where({ batch: id })
  if (closed) void found.whereNotIn('document', knex('documents').whereIn('folder', closed).select('id'))
  const documents = await found.orderBy('file_name').orderBy('document').select<DocumentRow[]>('*')
  return { ...row, request: JSON.parse(row.request) as WishList, documents: documents.map(shaped) }
}

/** Whether all documents of a batch are within reach for what the actor does: else somebody else carries it on. */
export async function batchWithinReach(acting: Acting, id: string): Promise<boolean> {
  const closed = foldersClosedTo(acting)
  if (!closed) return true
  const { knex } = acting
  const hidden = await knex('batch_documents')
    .where({ batch: id })
    .whereIn('document', knex('documents').whereIn('folder', closed).select('id'))
    .first('document')
  return hidden === undefined
}

/** Batches, newest first, without their documents. */
export async function listBatches({ knex, actor }: Acting): Promise<ListedBatch[]> {
  const rows = await knex('batches')
    .where({ owner: actor.owner })
    .orderBy('created', 'desc')
    .limit(200)
    .select<Omit<ListedBatch, 'count' | 'done'>[]>('id', 'title', 'author', 'state', 'created')
  const counts = await knex('batch_documents')
    .whereIn(
      'batch',
      rows.map(row => row.id),
    )
    .groupBy('batch', 'state')
    .select<{ batch: string; state: BatchDocumentState; n: number }[]>('batch', 'state', knex.raw('count(*) as n'))
  const sum = (batch: string, state?: BatchDocumentState) =>
    counts
      .filter(each => each.batch === batch && (state === undefined || each.state === state))
      .reduce((total, each) => total + Number(each.n), 0)
  return rows.map(row => ({ ...row, count: sum(row.id), done: sum(row.id, 'done') }))
}

async function batchForUpdate({ knex, actor }: Acting, id: string): Promise<BatchState | undefined> {
  const row = await knex('batches')
    .where({ id, owner: actor.owner })
    .forUpdate()
    .first<{ state: BatchState } | undefined>('state')
  return row?.state
}

/**
 * Whether all jobs of a kind are done: then the batch goes on to its next state. Called in the transaction that
 * ends a job.
 */
async function settleBatch(within: Acting, batch: string): Promise<void> {
  const transaction = within.knex
  const open = await transaction('batch_documents').where({ batch, state: 'waiting' }).first('document')
  const state = await batchForUpdate(within, batch)
  if (!open && state === 'planning') await transaction('batches').where({ id: batch }).update({ state: 'planned' })
  const planned =
    state === 'running' || state === 'paused'
      ? await transaction('batch_documents').where({ batch, state: 'planned' }).first('document')
      : true
  if (!planned) await transaction('batches').where({ id: batch }).update({ state: 'done' })
}

/** Keeps what the plan of one document came to, and ends its job. A job that was done already changes nothing. */
export async function storeBatchPlan(
  acting: Acting,
  { id, batch, document }: Job,
  found: {
    readonly state: 'planned' | 'nothing' | 'failed'
    readonly message: string
    readonly effects: BatchEffects | null
  },
): Promise<void> {
  await atOnce(acting, async within => {
    const transaction = within.knex
    await batchForUpdate(within, batch!)
    await transaction('batch_documents')
      .where({ batch, document, state: 'waiting' })
      .update({
        state: found.state,
        message: found.message.slice(0, 1000),
        effects: found.effects && JSON.stringify(found.effects),
      })
    await transaction('jobs').where({ id }).update({ state: 'done', progress: 1, changed: new Date() })
    await settleBatch(within, batch!)
  })
}

/** Begins to carry a planned batch out; documents that are left out stay as they are. False where it is not planned. */
export async function startBatch(acting: Acting, id: string, leftOut: readonly string[]): Promise<boolean> {
  return atOnce(acting, async within => {
    const transaction = within.knex
    if ((await batchForUpdate(within, id)) !== 'planned') return false
    const now = new Date()
    if (leftOut.length > 0)
      await transaction('batch_documents')
        .where({ batch: id, state: 'planned' })
        .whereIn('document', [...leftOut])
        .update({ state: 'left-out' })
    const rows = await transaction('batch_documents')
      .where({ batch: id, state: 'planned' })
      .select<{ document: string; base: number }[]>('document', 'base')
    for (const row of rows) await transaction('jobs').insert(job('batch-apply', id, row.document, row.base, now))
    await transaction('batches')
      .where({ id })
      .update({ state: rows.length === 0 ? 'done' : 'running' })
    return true
  })
}

/** Stores one document's new version with what the batch knows of it, and ends its job: all or nothing. */
export async function storeBatchVersion(
  acting: Acting,
  { id, batch, document, version }: Job,
  made: NewVersion,
): Promise<void> {
  await atOnce(acting, async within => {
    const transaction = within.knex
    // The batch first, then the document: all take them in one order.
    await batchForUpdate(within, batch!)
    const row = await transaction('batch_documents')
      .where({ batch, document })
      .forUpdate()
      .first<{ state: BatchDocumentState } | undefined>('state')
    if (row?.state === 'planned') {
      const stored = await addVersion(within, document, version, made)
      await transaction('batch_documents')
        .where({ batch, document })
        .update({ state: 'done', made: stored.number, message: '' })
    }
    await transaction('jobs').where({ id }).update({ state: 'done', progress: 1, changed: new Date() })
    await settleBatch(within, batch!)
  })
}

/** One document could not be done: the others go on. */
export async function failBatchDocument(acting: Acting, { id, batch, document }: Job, message: string): Promise<void> {
  await atOnce(acting, async within => {
    const transaction = within.knex
    await batchForUpdate(within, batch!)
    await transaction('batch_documents')
      .where({ batch, document })
      .whereIn('state', ['waiting', 'planned'])
      .update({ state: 'failed', message: message.slice(0, 1000) })
    await transaction('jobs')
      .where({ id })
      .update({ state: 'failed', message: message.slice(0, 1000), changed: new Date() })
    await settleBatch(within, batch!)
  })
}

/** A document is taken off the shelf: whatever waits for it goes on without it. */
export async function leaveBatches(within: Acting, document: string): Promise<void> {
  const transaction = within.knex
  const rows = await transaction('batch_documents')
    .join('batches', 'batches.id', 'batch_documents.batch')
    .where({ document })
    .whereIn('batch_documents.state', ['waiting', 'planned'])
    .select<{ batch: string }[]>('batch')
  for (const { batch } of rows) {
    await batchForUpdate(within, batch)
    await transaction('batch_documents')
      .where({ batch, document })
      .whereIn('state', ['waiting', 'planned'])
      .update({ state: 'failed', message: 'It was taken off the shelf.' })
    await settleBatch(within, batch)
  }
}

/**
 * Pauses, goes on with, or cancels a batch. What is done stays done; what is being done just now is finished. False
 * where it is in no state for that.
 */
export async function steerBatch(acting: Acting, id: string, how: 'pause' | 'resume' | 'cancel'): Promise<boolean> {
  return atOnce(acting, async within => {
    const transaction = within.knex
    const state = await batchForUpdate(within, id)
    const changed = new Date()
    if (how === 'pause' && state === 'running') {
      await transaction('jobs').where({ batch: id, state: 'queued' }).update({ state: 'paused', changed })
      await transaction('batches').where({ id }).update({ state: 'paused' })
      return true
    }
    if (how === 'resume' && state === 'paused') {
      await transaction('jobs').where({ batch: id, state: 'paused' }).update({ state: 'queued', changed })
      await transaction('batches').where({ id }).update({ state: 'running' })
      return true
    }
    if (
      how === 'cancel' &&
      (state === 'running' || state === 'paused' || state === 'planning' || state === 'planned')
    ) {
      await transaction('jobs')
        .where({ batch: id })
        .whereIn('state', ['queued', 'paused'])
        .update({ state: 'cancelled', changed })
      // What is being done just now is finished or found cancelled; nothing of it is half.
      await transaction('batch_documents')
        .where({ batch: id })
        .whereIn('state', ['waiting', 'planned'])
        .update({ state: 'cancelled' })
      await transaction('batches').where({ id }).update({ state: 'cancelled' })
      return true
    }
    return false
  })
}

/**
 * Takes a batch back where nobody has changed a document since; the others are told and stay. False where there is
 * nothing to take back.
 */
export async function undoBatch(acting: Acting, id: string): Promise<boolean> {
  const batch = await findBatch(acting, id)
  if (!batch || (batch.state !== 'done' && batch.state !== 'cancelled')) return false
  const done = batch.documents.filter(each => each.state === 'done')
  if (done.length === 0) return false
  for (const each of done) {
    await atOnce(acting, async within => {
      const transaction = within.knex
      const current = await ownDocuments(within)
        .where({ id: each.document })
        .forUpdate()
        .first<{ version: number } | undefined>('version')
      const say = (message: string) =>
        transaction('batch_documents').where({ batch: id, document: each.document }).update({ message })
      if (!current) {
        await say('It is no longer on the shelf.')
        return
      }
      if (current.version !== each.made) {
        await say('It was changed since: taking the batch back would take that, too. It stays as it is.')
        return
      }
      const before = (await listVersions(within, each.document)).find(version => version.number === each.base)!
      await addVersion(within, each.document, each.made, {
        madeBy: 'undo',
        title: `Undid: ${batch.title}`,
        content: { state: before.state },
        plan: null,
      })
      await transaction('batch_documents')
        .where({ batch: id, document: each.document })
        .update({ state: 'undone', message: '' })
    })
  }
  await acting.knex('batches').where({ id, owner: acting.actor.owner }).update({ state: 'undone' })
  return true
}
