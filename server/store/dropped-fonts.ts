import { ownDocuments, type Acting } from './acting'
import { getBlob, putBlob } from './blobs'

/** A font file that came with a document in its zip. */
export interface DroppedFont {
  readonly hash: string
  readonly path: string
  readonly bytes: Uint8Array
}

/**
 * Keeps font files beside the documents of a zip: they are offered, and not in the library until somebody takes
 * them.
 */
export async function keepDroppedFonts(
  { knex }: Acting,
  document: string,
  fonts: readonly { readonly path: string; readonly bytes: Uint8Array }[],
): Promise<void> {
  for (const { path, bytes } of fonts) {
    const hash = await putBlob(knex, bytes)
    await knex('carried_fonts')
      .insert({ document, hash, path: path.slice(0, 500) })
      .onConflict(['document', 'hash'])
      .ignore()
  }
}

export async function droppedFonts(acting: Acting, document: string): Promise<DroppedFont[]> {
  const { knex } = acting
  const rows = await knex('carried_fonts')
    .where({ document })
    .whereIn('document', ownDocuments(acting))
    .orderBy('path')
    .select<{ hash: string; path: string }[]>('hash', 'path')
  return Promise.all(rows.map(async row => ({ ...row, bytes: (await getBlob(knex, row.hash))! })))
}
