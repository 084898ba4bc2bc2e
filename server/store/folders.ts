import type { Knex } from 'knex'
import type { Folder } from '../../shared/api'
import { deskStartsSchema, noStarts, type DeskStarts } from '../../core/change/defaults/desk-starts'

export async function listFolders(knex: Knex): Promise<Folder[]> {
  const rows = await knex('folders')
    .leftJoin('documents', 'documents.folder', 'folders.name')
    .groupBy('folders.name')
    .orderBy('folders.name')
    .select<{ name: string; documents: number | string }[]>(
      'folders.name as name',
      knex.raw('count(documents.id) as documents'),
    )
  return rows.map(row => ({ name: row.name, documents: Number(row.documents) }))
}

/** Makes a folder; false where there is one of that name. */
export async function addFolder(knex: Knex, name: string): Promise<boolean> {
  return knex.transaction(async transaction => {
    if (await transaction('folders').where({ name }).first('name')) return false
    await transaction('folders').insert({ name, created: new Date() })
    return true
  })
}

/** Takes a folder away; its documents stay on the shelf, outside of any folder. */
export async function removeFolder(knex: Knex, name: string): Promise<void> {
  await knex.transaction(async transaction => {
    await transaction('documents').where({ folder: name }).update({ folder: null })
    await transaction('starts').where({ folder: name }).delete()
    await transaction('folders').where({ name }).delete()
  })
}

/** Puts a document into a folder, or with null out of any; false where there is no such folder. */
export async function moveToFolder(knex: Knex, document: string, folder: string | null): Promise<boolean> {
  return knex.transaction(async transaction => {
    if (folder !== null && !(await transaction('folders').where({ name: folder }).first('name'))) return false
    await transaction('documents').where({ id: document }).update({ folder })
    return true
  })
}

/** What new documents begin with: of a folder, or under '' of the whole desk. */
export async function startsOf(knex: Knex, folder: string): Promise<DeskStarts> {
  const row = await knex('starts').where({ folder }).first<{ starts: string } | undefined>('starts')
  return row ? deskStartsSchema.parse(JSON.parse(row.starts)) : noStarts
}

export async function storeStarts(knex: Knex, folder: string, starts: DeskStarts): Promise<void> {
  await knex('starts')
    .insert({ folder, starts: JSON.stringify(starts), changed: new Date() })
    .onConflict('folder')
    .merge()
}
