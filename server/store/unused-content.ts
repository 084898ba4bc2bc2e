import type { Knex } from 'knex'

/** Tables whose rows name content by its hash. Another one that comes must stand here: a test reads the schema. */
export const namingTables = ['version_pieces', 'faces', 'added_faces', 'carried_fonts'] as const

/** As much is let go in one transaction: others wait for it at the most so long. */
const atOnce = 200

/** Content that no row of the naming tables names, of all there is or of some. */
function unnamed(transaction: Knex): Knex.QueryBuilder<{ hash: string }, { hash: string }[]> {
  const query = transaction<{ hash: string }>('blobs').select('hash').limit(atOnce)
  for (const table of namingTables)
    query.whereNotExists(naming => {
      void naming.select(transaction.raw('1')).from(table).where(`${table}.hash`, transaction.ref('blobs.hash'))
    })
  return query
}

/**
 * Lets go of content that nothing names: what was part of documents, versions or faces that are gone. Content that
 * somebody is about to name again is passed over. Answers how many pieces went; there may be more where it is `atOnce`.
 */
export async function dropUnusedContent(knex: Knex): Promise<{ readonly pieces: number; readonly more: boolean }> {
  return knex.transaction(
    async transaction => {
      const held = (await unnamed(transaction).forUpdate().skipLocked()).map(({ hash }) => hash)
      // Somebody may have named one between the look and the lock; now that they are held, nobody can.
      const hashes = held.length === 0 ? [] : (await unnamed(transaction).whereIn('hash', held)).map(({ hash }) => hash)
      if (hashes.length > 0) {
        await transaction('blob_chunks').whereIn('hash', hashes).delete()
        await transaction('blobs').whereIn('hash', hashes).delete()
      }
      return { pieces: hashes.length, more: held.length === atOnce }
    },
    { isolationLevel: 'read committed' },
  )
}
