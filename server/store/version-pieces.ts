import type { Knex } from 'knex'
import { getPackage, putPackage } from './blobs'

/*
 * Which pieces of content a version is joined from, in a table of their own: whatever no row names is used by nothing.
 * Versions that undo or redo have the pieces of the version that they point to.
 */

/** As many rows go into one statement: it stays far below any packet limit. */
const rowsAtOnce = 500

/** Keeps the pieces of a version, in order. */
export async function keepPieces(
  transaction: Knex,
  document: string,
  version: number,
  hashes: readonly string[],
): Promise<void> {
  for (let start = 0; start < hashes.length; start += rowsAtOnce)
    await transaction('version_pieces').insert(
      hashes
        .slice(start, start + rowsAtOnce)
        .map((hash, index) => ({ document, version, position: start + index, hash })),
    )
}

/** Cuts a package into pieces and keeps them as those of a version. */
export async function keepPackage(
  transaction: Knex,
  document: string,
  version: number,
  bytes: Uint8Array,
): Promise<void> {
  await keepPieces(transaction, document, version, await putPackage(transaction, bytes))
}

/** The file of a version whose content is its own. */
export async function keptPackage(knex: Knex, document: string, version: number): Promise<Uint8Array> {
  const rows = await knex('version_pieces')
    .where({ document, version })
    .orderBy('position')
    .select<{ hash: string }[]>('hash')
  return getPackage(
    knex,
    rows.map(row => row.hash),
  )
}
