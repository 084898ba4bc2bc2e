import type { Knex } from 'knex'

/*
 * What belongs to a studio, table by table: what its package holds, and what goes when the studio goes. A test reads the
 * schema, so that a table that comes must stand here.
 */

/** By what a row belongs to a studio: its owner, or a row of another table that does. */
export type BelongsBy = 'owner' | 'document' | 'house' | 'folder' | 'batch' | 'remark' | 'person' | 'purge'

/** The tables whose ids rows of others name, by what that is called there. */
export const tableOf = {
  document: 'documents',
  house: 'houses',
  folder: 'folders',
  batch: 'batches',
  remark: 'remarks',
  person: 'people',
  purge: 'purges',
} as const satisfies Readonly<Record<Exclude<BelongsBy, 'owner'>, string>>

export interface StudioPart {
  readonly table: string
  readonly by: BelongsBy
  /** It travels. What does not hangs on this installation: keys, what is being done, what can be worked out again. */
  readonly travels: boolean
  /** Columns that name people. */
  readonly people?: readonly string[]
  /** Columns that name something else of the studio, where they say anything. */
  readonly names?: Readonly<Record<string, keyof typeof tableOf>>
  /** Columns that stay behind. */
  readonly without?: readonly string[]
}

/** In this order rows find what they name; they go in the other one. */
export const studioParts: readonly StudioPart[] = [
  // Nobody's way in travels: an owner makes links at the other end.
  { table: 'people', by: 'owner', travels: true, people: ['id'], without: ['sign_in', 'passphrase'] },
  { table: 'folders', by: 'owner', travels: true },
  { table: 'folder_members', by: 'folder', travels: true, people: ['person'] },
  { table: 'houses', by: 'owner', travels: true },
  { table: 'house_versions', by: 'house', travels: true, people: ['author'] },
  { table: 'documents', by: 'owner', travels: true, names: { folder: 'folder', house: 'house' } },
  { table: 'versions', by: 'document', travels: true, people: ['author'] },
  { table: 'version_pieces', by: 'document', travels: true },
  { table: 'document_faces', by: 'document', travels: true },
  { table: 'document_looks', by: 'document', travels: true },
  { table: 'carried_fonts', by: 'document', travels: true },
  { table: 'style_shares', by: 'document', travels: true, names: { house: 'house' } },
  { table: 'sign_offs', by: 'document', travels: true, people: ['person'] },
  { table: 'pins', by: 'document', travels: true, people: ['person'] },
  { table: 'remarks', by: 'document', travels: true, people: ['author', 'given_to', 'settled_by'] },
  { table: 'remark_answers', by: 'remark', travels: true, people: ['author'] },
  { table: 'starts', by: 'owner', travels: true },
  { table: 'stand_ins', by: 'owner', travels: true },
  { table: 'kept', by: 'owner', travels: true },
  { table: 'added_faces', by: 'owner', travels: true },
  { table: 'batches', by: 'owner', travels: true, people: ['author'] },
  // Documents that are gone stay in the record of a batch.
  { table: 'batch_documents', by: 'batch', travels: true },
  { table: 'audit', by: 'owner', travels: true, people: ['person'], without: ['id'] },
  { table: 'purges', by: 'owner', travels: true, people: ['person'] },
  { table: 'purge_pieces', by: 'purge', travels: false },
  { table: 'proofs', by: 'document', travels: false },
  { table: 'presence', by: 'document', travels: false },
  { table: 'jobs', by: 'document', travels: false },
  { table: 'invitations', by: 'owner', travels: false },
  { table: 'sessions', by: 'person', travels: false },
  { table: 'program_keys', by: 'person', travels: false },
  { table: 'identities', by: 'person', travels: false },
]

/** Tables that hold what belongs to no studio: content by its hash, faces that ship, servers at work, ways that began. */
export const tablesOfNobody = ['blobs', 'blob_chunks', 'faces', 'servers', 'owners', 'sign_in_ways'] as const

/** The rows of a part that are a studio's. */
export function rowsOf(knex: Knex, { table, by }: StudioPart, owner: string): Knex.QueryBuilder {
  const rows = knex(table)
  if (by === 'owner') return rows.where({ owner })
  const above = studioParts.find(part => part.table === tableOf[by])!
  return rows.whereIn(by, rowsOf(knex, above, owner).select('id'))
}
