import type { Knex } from 'knex'
import { contentHash } from '../library/files'
import { getBlob } from './blobs'

/** What a store holds, and what is wrong with it. */
export interface Verified {
  readonly documents: number
  readonly versions: number
  readonly pieces: number
  /** Sentences; none where everything is whole. At most a hundred. */
  readonly faults: readonly string[]
}

const mostFaults = 100
const countOf = async (knex: Knex, table: string): Promise<number> =>
  Number(((await knex(table).count({ n: '*' }).first()) as { n: number | string }).n)

/**
 * Looks whether a store is whole: every piece of content is what its hash says (SHA-256), every version has all its pieces,
 * every document its newest version. One piece is held at a time.
 */
export async function verifyStore(knex: Knex): Promise<Verified> {
  const faults: string[] = []
  let last = ''
  for (;;) {
    const rows = await knex('blobs')
      .where('hash', '>', last)
      .orderBy('hash')
      .limit(500)
      .select<{ hash: string }[]>('hash')
    if (rows.length === 0) break
    for (const { hash } of rows) {
      const bytes = await getBlob(knex, hash)
      if (!bytes) faults.push(`the piece ${hash} is empty`)
      else if (contentHash(bytes) !== hash) faults.push(`the piece ${hash} is not what it was`)
    }
    last = rows.at(-1)!.hash
  }
  const missing = await knex('version_pieces')
    .whereNotIn('hash', knex('blobs').select('hash'))
    .limit(mostFaults)
    .select<{ document: string; version: number }[]>('document', 'version')
  for (const { document, version } of missing)
    faults.push(`version ${version} of the document ${document} lacks a piece`)
  const headless = await knex('documents')
    .leftJoin('versions', join =>
      join.on('versions.document', 'documents.id').andOn('versions.number', 'documents.version'),
    )
    .whereNull('versions.number')
    .limit(mostFaults)
    .select<{ name: string }[]>({ name: 'documents.file_name' })
  for (const { name } of headless) faults.push(`“${name}” lacks its newest version`)
  const bare = await knex('versions')
    .whereRaw('state = number')
    .whereNotExists(pieces =>
      pieces
        .select(knex.raw('1'))
        .from('version_pieces')
        .whereRaw('version_pieces.document = versions.document and version_pieces.version = versions.number'),
    )
    .limit(mostFaults)
    .select<{ document: string; number: number }[]>('document', 'number')
  for (const { document, number } of bare) faults.push(`version ${number} of the document ${document} has no content`)
  return {
    documents: await countOf(knex, 'documents'),
    versions: await countOf(knex, 'versions'),
    pieces: await countOf(knex, 'blobs'),
    faults: faults.slice(0, mostFaults),
  }
}
