import { randomUUID } from 'node:crypto'
import type { Knex } from 'knex'
import type { Purge } from '../../shared/api'
import type { Acting } from './acting'
import { namingTables } from './unused-content'

/*
 * The proof that a document is gone: what it was, when and by whom it was let go, and how much of it was searched for by its
 * hashes and found nowhere. The hashes are kept until then and no longer.
 */

/** Puts down what a document is made of, within the transaction that lets it go. */
export async function beginPurge(
  { knex, actor }: Acting,
  document: { readonly id: string; readonly fileName: string; readonly version: number },
): Promise<void> {
  const purge = randomUUID()
  await knex('purges').insert({
    id: purge,
    owner: actor.owner,
    file_name: document.fileName,
    versions: document.version,
    pieces: 0,
    person: actor.person,
    purged: new Date(),
  })
  for (const table of ['version_pieces', 'carried_fonts'])
    await knex.raw('insert ignore into purge_pieces (??, hash) select ?, hash from ?? where document = ?', [
      'purge',
      purge,
      table,
      document.id,
    ])
  const counted = (await knex('purge_pieces').where({ purge }).count({ n: '*' }).first()) as { n: number | string }
  await knex('purges')
    .where({ id: purge })
    .update({ pieces: Number(counted.n) })
}

/** Pieces of a purge that are in the store still: those that something names, or those that wait to be let go. */
function piecesLeft(knex: Knex, purge: string): Knex.QueryBuilder {
  return knex('purge_pieces')
    .where({ purge })
    .where(still =>
      still.whereIn('hash', knex('blobs').select('hash')).orWhereIn('hash', knex('blob_chunks').select('hash')),
    )
}

/**
 * Looks for what was let go, in all that content is kept in: where nothing is found but what others name, it is proven.
 * Answers how many purges are proven now. Several servers may look side by side.
 */
export async function provePurges(knex: Knex): Promise<number> {
  return knex.transaction(async transaction => {
    const open = await transaction('purges')
      .whereNull('proven')
      .forUpdate()
      .skipLocked()
      .limit(100)
      .select<{ id: string }[]>('id')
    let proven = 0
    for (const { id } of open) {
      const unnamed = piecesLeft(transaction, id)
      for (const table of namingTables) void unnamed.whereNotIn('hash', transaction(table).select('hash'))
      if (await unnamed.first('hash')) continue
      const shared = (await piecesLeft(transaction, id).count({ n: '*' }).first()) as { n: number | string }
      await transaction('purge_pieces').where({ purge: id }).delete()
      await transaction('purges')
        .where({ id })
        .update({ proven: new Date(), shared: Number(shared.n) })
      proven++
    }
    return proven
  })
}

/** What was let go for good, newest first; at most 500. */
export async function listPurges({ knex, actor }: Acting): Promise<Purge[]> {
  return knex('purges')
    .where({ owner: actor.owner })
    .orderBy('purged', 'desc')
    .orderBy('id')
    .limit(500)
    .select<Purge[]>({
      id: 'id',
      fileName: 'file_name',
      versions: 'versions',
      pieces: 'pieces',
      shared: 'shared',
      person: 'person',
      purged: 'purged',
      proven: 'proven',
    })
}
