import { randomUUID } from 'node:crypto'
import type { DocumentRow, ShelfKind } from '../../shared/api'
import type { LicenceUse } from '../../core/font/licence'
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
  uses: 'documents.uses',
  house: 'documents.house',
}

/** A document that is put on the shelf. */
export interface NewDocument {
  readonly fileName: string
  readonly kind: ShelfKind
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
      placed: created,
      folder: document.folder ?? null,
    })
    const job = await addFirstVersion(within, id, document.fileName, document.bytes)
    if (document.fonts) await keepDroppedFonts(within, id, document.fonts)
    return { id, job }
  })
}

export async function findDocument(acting: Acting, id: string): Promise<DocumentRow | undefined> {
  const row = await ownDocuments(acting).where({ id }).first<DocumentRow | undefined>(documentColumns)
  return row && documentOfRow(row)
}

/** A row of documents as it is told: what the database holds as numbers and text is what it means. */
export function documentOfRow<T extends DocumentRow>(row: T): T {
  const { uses } = row as { uses: unknown }
  return {
    ...row,
    signed: Boolean(row.signed),
    uses: typeof uses === 'string' ? (JSON.parse(uses) as LicenceUse[]) : null,
  }
}

/** Says what a document is made for. */
export async function setUses(acting: Acting, id: string, uses: readonly LicenceUse[]): Promise<void> {
  await atOnce(acting, within =>
    ownDocuments(within)
      .clearSelect()
      .where({ id })
      .update({ uses: JSON.stringify(uses) }),
  )
}
