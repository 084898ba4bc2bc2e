import type { Knex } from 'knex'
import type { TrashedDocument } from '../../shared/api'
import { atOnce, ownDocuments, withinReach, type Acting } from './acting'
import { leaveBatches } from './batches'
import { askForSurvey } from './jobs'
import { beginPurge } from './purges'

/*
 * What is thrown away lies in the trash, with all its versions, until its days are over or somebody lets it go for good.
 * It is on no shelf, in no census and in no plan meanwhile.
 */

/** A day in milliseconds. */
export const day = 86_400_000

/** The actor's documents in the trash. */
const ownTrash = (acting: Acting): Knex.QueryBuilder =>
  withinReach(
    acting,
    acting.knex('documents').where({ 'documents.owner': acting.actor.owner }).whereNotNull('documents.trashed'),
  )

/** How many days the trash keeps what is put into it. */
export async function trashDays({ knex, actor }: Acting): Promise<number> {
  const row = await knex('owners').where({ id: actor.owner }).first<{ trash_days: number }>('trash_days')
  return row.trash_days
}

/** Says for how many days the trash keeps what is put into it; what lies in it already, too. */
export async function setTrashDays({ knex, actor }: Acting, days: number): Promise<void> {
  await knex('owners').where({ id: actor.owner }).update({ trash_days: days })
}

/** Puts a document into the trash. False where it is not on the shelf. */
export async function trashDocument(acting: Acting, id: string): Promise<boolean> {
  return atOnce(acting, async within => {
    if (!(await ownDocuments(within).where({ id }).forUpdate().first('id'))) return false
    await within.knex('documents').where({ id }).update({ trashed: new Date() })
    await leaveBatches(within, id)
    await within.knex('jobs').where({ document: id, state: 'queued' }).delete()
    return true
  })
}

/** Puts a document back on the shelf, into the folder it lay in. False where it is not in the trash. */
export async function putBack(acting: Acting, id: string): Promise<boolean> {
  return atOnce(acting, async within => {
    const row = await ownTrash(within)
      .where({ id })
      .forUpdate()
      .first<{ version: number; counted: number | null } | undefined>('version', 'counted')
    if (!row) return false
    // It has come to its folder anew: its days there begin again.
    await within.knex('documents').where({ id }).update({ trashed: null, placed: new Date() })
    if (row.counted !== row.version) await askForSurvey(within.knex, id, row.version)
    return true
  })
}

/** What lies in the trash, what goes first at the top. */
export async function listTrash(acting: Acting): Promise<TrashedDocument[]> {
  const days = await trashDays(acting)
  const rows = await ownTrash(acting)
    .leftJoin('folders', 'folders.id', 'documents.folder')
    .orderBy('documents.trashed')
    .orderBy('documents.id')
    .limit(1000)
    .select<(Omit<TrashedDocument, 'until'> & { trashed: Date })[]>({
      id: 'documents.id',
      fileName: 'documents.file_name',
      versions: 'documents.version',
      folder: 'folders.name',
      trashed: 'documents.trashed',
    })
  return rows.map(row => ({ ...row, until: new Date(row.trashed.getTime() + days * day) }))
}

/** Lets a document in the trash go for good, with all its versions. False where it is not in the trash. */
export async function purgeDocument(acting: Acting, id: string): Promise<boolean> {
  return atOnce(acting, async within => {
    const { knex, actor } = within
    const row = await ownTrash(within)
      .where({ id })
      .forUpdate()
      .first<{ fileName: string; version: number } | undefined>({ fileName: 'file_name', version: 'version' })
    if (!row) return false
    await beginPurge(within, { id, ...row })
    for (const table of ['jobs', 'document_faces', 'carried_fonts', 'document_looks', 'version_pieces', 'versions'])
      await knex(table).where({ document: id }).delete()
    await knex('stand_ins').where({ owner: actor.owner, level: 'document', target: id }).delete()
    await knex('documents').where({ id }).delete()
    return true
  })
}

/** Lets all go that lies in the trash, document by document. Answers how many. */
export async function emptyTrash(acting: Acting): Promise<number> {
  let gone = 0
  for (const { id } of await ownTrash(acting).select<{ id: string }[]>('id'))
    if (await purgeDocument(acting, id)) gone++
  return gone
}

/** A document whose time is over, and whose it is. */
export interface Due {
  readonly id: string
  readonly owner: string
}

/** Documents of all owners whose days in the trash are over. */
export async function dueInTrash(knex: Knex, now: Date): Promise<Due[]> {
  return knex('documents')
    .join('owners', 'owners.id', 'documents.owner')
    .whereNotNull('documents.trashed')
    .whereRaw('documents.trashed + interval owners.trash_days day <= ?', [now])
    .limit(100)
    .select<Due[]>('documents.id', 'documents.owner')
}

/**
 * Documents on the shelf of all owners that their folder keeps no longer: neither changed nor put there, nor had it a rule,
 * within the days that it says.
 */
export async function dueInFolders(knex: Knex, now: Date): Promise<Due[]> {
  return knex('documents')
    .join('folders', 'folders.id', 'documents.folder')
    .whereNull('documents.trashed')
    .whereNotNull('folders.keep_days')
    .whereRaw(
      'greatest(documents.changed, documents.placed, folders.keep_since) + interval folders.keep_days day <= ?',
      [now],
    )
    .limit(100)
    .select<Due[]>('documents.id', 'documents.owner')
}
