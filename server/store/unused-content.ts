import type { Knex } from 'knex'

/** Tables whose rows name content by its hash. Another one that comes must stand here: a test reads the schema. */
export const namingTables = ['version_pieces', 'faces', 'added_faces', 'carried_fonts'] as const

/** As much is let go in one transaction: others wait for it at the most so long. */
const atOnce = 200

/**
 * Lets go of content that nothing names: what was part of documents, versions or faces that are gone. Content that
 * somebody is about to name again is passed over. Answers how many pieces went; there may be more where it is `atOnce`.
 */
export async function dropUnusedContent(knex: Knex): Promise<{ readonly pieces: number; readonly more: boolean }> {
  return knex.transaction(
    async transaction => {
      const unused = transaction('blobs').select('hash').limit(atOnce).forUpdate().skipLocked()
      for (const table of namingTables)
        unused.whereNotExists(query => {
          void query.select(transaction.raw('1')).from(table).where(`${table}.hash`, transaction.ref('blobs.hash'))
        })
      const hashes = (await unused).map(({ hash }: { hash: string }) => hash)
      if (hashes.length === 0) return { pieces: 0, more: false }
      await transaction('blob_chunks').whereIn('hash', hashes).delete()
      await transaction('blobs').whereIn('hash', hashes).delete()
      return { pieces: hashes.length, more: hashes.length === atOnce }
    },
    { isolationLevel: 'read committed' },
  )
}
