import type { Knex } from 'knex'
import type { DocumentRow, ShelfCard, ShelfPage, ShelfQuery } from '../../shared/api'
import type { ShelfSort } from '../../shared/shelf'
import { ownDocuments, type Acting } from './acting'
import { documentColumns, documentOfRow } from './documents'

/** What cards are ordered by; what is equal stays in the order of its ids, so that pages never overlap. */
const orders: Readonly<Record<ShelfSort, string>> = {
  changed: 'documents.changed desc, documents.id',
  name: 'lower(documents.file_name), documents.id',
  pages: 'documents.pages is null, documents.pages desc, documents.id',
  // What is settled least has most to be done.
  settled: 'documents.settled is null, documents.settled, documents.id',
}

/** Each word must stand in the name, the title, the folder or a face's family, whatever its case. */
function withWords(query: Knex.QueryBuilder, knex: Knex, find: string): void {
  for (const word of find.toLowerCase().split(/\s+/).filter(Boolean).slice(0, 10)) {
    const like = `%${word.replace(/[\\%_]/g, sign => `\\${sign}`)}%`
    void query.where(either =>
      either
        .whereRaw('lower(documents.file_name) like ?', [like])
        .orWhereRaw('lower(documents.title) like ?', [like])
        .orWhereIn('documents.folder', knex('folders').whereRaw('lower(name) like ?', [like]).select('id'))
        .orWhereIn('documents.id', knex('document_faces').whereRaw('lower(family) like ?', [like]).select('document')),
    )
  }
}

/** A page of the shelf: the cards that are asked for in their order, and how many there are in all. */
export async function shelfPage(acting: Acting, query: ShelfQuery): Promise<ShelfPage> {
  const { knex } = acting
  const asked = (): Knex.QueryBuilder => {
    const found = ownDocuments(acting).clearSelect()
    if (query.ids) void found.whereIn('documents.id', query.ids)
    if (query.folder) void found.where('documents.folder', query.folder)
    withWords(found, knex, query.find)
    return found
  }
  const counted = (await asked().count({ n: 'documents.id' }).first()) as { n: number | string }
  const rows = await asked()
    .orderByRaw(orders[query.sort])
    .offset(query.start)
    .limit(query.count)
    .select<(DocumentRow & Omit<ShelfCard, 'faces'>)[]>({
      ...documentColumns,
      title: 'documents.title',
      changed: 'documents.changed',
      pages: 'documents.pages',
      characters: 'documents.characters',
      settled: 'documents.settled',
      counted: 'documents.counted',
      picture: 'documents.picture',
    })
  const faces = await knex('document_faces')
    .whereIn(
      'document',
      rows.map(row => row.id),
    )
    .orderBy('characters', 'desc')
    .select<(ShelfCard['faces'][number] & { document: string })[]>(
      'document',
      'family',
      'style',
      'status',
      'characters',
    )
  return {
    total: Number(counted.n),
    cards: rows.map(row => ({
      ...documentOfRow(row),
      characters: row.characters === null ? null : Number(row.characters),
      faces: faces
        .filter(face => face.document === row.id)
        .map(({ family, style, status, characters }) => ({ family, style, status, characters })),
    })),
  }
}
