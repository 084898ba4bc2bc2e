import { randomUUID } from 'node:crypto'
import type { DocumentRow } from '../../shared/api'
import type { DocumentKind } from '../../core/document/open'
import { atOnce, ownDocuments, type Acting } from './acting'
import { keepDroppedFonts } from './dropped-fonts'
import { addFirstVersion } from './versions'

export const documentColumns = {
  id: 'documents.id',
  fileName: 'documents.file_name',
  kind: 'documents.kind',
  signed: 'documents.signed',
  version: 'documents.version',
  created: 'documents.created',
  folder: 'documents.folder',
}

/** A document that is put on the shelf. */
export interface NewDocument {
  readonly fileName: string
  readonly kind: DocumentKind
  readonly signed: boolean
  readonly bytes: Uint8Array
  /** The id of a folder of the actor's; null for none. */
  readonly folder?: string | null
  /** Font files that came along in its zip. */
  readonly fonts?: readonly { readonly path: string; readonly bytes: Uint8Array }[]
}

/** Stores a new document with its first version and the job that counts it, all or nothing. */
export async function addDocument(acting: Acting, document: NewDocument): Promise<{ id: string; job: string }> {
  const id = randomUUID()
  return atOnce(acting, async within => {
    const created = new Date()
    await within.knex('documents').insert({
      id,
      owner: acting.actor.owner,
      file_name: document.fileName,
      kind: document.kind,
      signed: document.signed,
      version: 1,
      created,
      changed: created,
      folder: document.folder ?? null,
    })
    const job = await addFirstVersion(within, id, document.fileName, document.bytes)
    if (document.fonts) await keepDroppedFonts(within, id, document.fonts)
    return { id, job }
  })
}

export async function findDocument(acting: Acting, id: string): Promise<DocumentRow | undefined> {
  const row = await ownDocuments(acting).where({ id }).first<DocumentRow | undefined>(documentColumns)
  return row && { ...row, signed: Boolean(row.signed) }
}

/** Takes a document with all its versions off the shelf. Content that others share stays. */
export async function removeDocument(acting: Acting, id: string): Promise<void> {
  await atOnce(acting, async within => {
    const { knex } = within
    if (!(await ownDocuments(within).where({ id }).forUpdate().first('id'))) return
    for (const table of ['jobs', 'document_faces', 'carried_fonts', 'document_looks', 'version_pieces', 'versions'])
      await knex(table).where({ document: id }).delete()
    await knex('stand_ins').where({ owner: acting.actor.owner, level: 'document', target: id }).delete()
    await knex('batch_documents')
      .where({ document: id })
      .whereIn('state', ['waiting', 'planned'])
      .update({ state: 'failed', message: 'It was taken off the shelf.' })
    await knex('documents').where({ id }).delete()
  })
}
