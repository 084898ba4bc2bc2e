import type { SharedUse, ShelfCensus } from '../../shared/api'
import { ownDocuments, type Acting } from './acting'

interface Row {
  readonly document: string
  readonly value: string
  readonly status?: string
  readonly count: number | string
}

function gathered(rows: readonly Row[]): SharedUse[] {
  const uses = new Map<
    string,
    { value: string; status: string; count: number; documents: { id: string; count: number }[] }
  >()
  for (const row of rows) {
    const own = uses.get(row.value) ?? { value: row.value, status: row.status ?? '', count: 0, documents: [] }
    own.count += Number(row.count)
    own.documents.push({ id: row.document, count: Number(row.count) })
    uses.set(row.value, own)
  }
  return [...uses.values()].sort(
    (a, b) => b.documents.length - a.documents.length || b.count - a.count || a.value.localeCompare(b.value),
  )
}

export async function shelfCensus(acting: Acting): Promise<ShelfCensus> {
  const { knex } = acting
  const families = await knex('document_faces')
    .whereIn('document', ownDocuments(acting))
    .groupBy('document', 'family')
    .select<Row[]>(
      'document',
      { value: 'family' },
      knex.raw('min(status) as status'),
      knex.raw('sum(characters) as count'),
    )
  const looks = await knex('document_looks')
    .whereIn('document', ownDocuments(acting))
    .select<(Row & { kind: string })[]>('document', 'kind', 'value', 'count')
  return {
    families: gathered(families),
    sizes: gathered(looks.filter(row => row.kind === 'size')),
    colors: gathered(looks.filter(row => row.kind === 'color')),
  }
}
