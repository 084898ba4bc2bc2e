import { randomUUID } from 'node:crypto'
import type { Knex } from 'knex'
import type { DocumentRow, MadeBy, RecordedPlan, RecordRow, ShelfCard, VersionRow } from '../../shared/api'
import type { Census } from '../../core/census/census'
import type { DocumentIds, DocumentKind } from '../../core/document/open'
import { getPackage, putPackage } from './blobs'
import { keepDroppedFonts } from './dropped-fonts'

/** Somebody changed the document meanwhile; `since` says what. Nothing was stored. */
export class ConflictError extends Error {
  constructor(
    readonly current: number,
    readonly since: readonly VersionRow[],
  ) {
    super('the document has changed meanwhile')
  }
}

const versionColumns = {
  document: 'document',
  number: 'number',
  state: 'state',
  madeBy: 'made_by',
  title: 'title',
  created: 'created',
}
const documentColumns = {
  id: 'id',
  fileName: 'file_name',
  kind: 'kind',
  signed: 'signed',
  version: 'version',
  created: 'created',
  folder: 'folder',
}
const shaped = (row: DocumentRow): DocumentRow => ({ ...row, signed: Boolean(row.signed) })

export interface NewVersion {
  readonly madeBy: MadeBy
  readonly title: string
  /** The content: new bytes, or for undo and redo the number of an earlier version. */
  readonly content: { readonly bytes: Uint8Array; readonly ids: DocumentIds } | { readonly state: number }
  readonly plan: RecordedPlan | null
}

/** Stores a new document with its first version and the job that counts it, all or nothing. */
export async function addDocument(
  knex: Knex,
  document: {
    fileName: string
    kind: DocumentKind
    signed: boolean
    bytes: Uint8Array
    folder?: string | null
    fonts?: readonly { readonly path: string; readonly bytes: Uint8Array }[]
  },
): Promise<{ id: string; job: string }> {
  const id = randomUUID()
  const now = new Date()
  const job = randomUUID()
  await knex.transaction(async transaction => {
    const pieces = await putPackage(transaction, document.bytes)
    await transaction('documents').insert({
      id,
      file_name: document.fileName,
      kind: document.kind,
      signed: document.signed,
      version: 1,
      created: now,
      folder: document.folder ?? null,
    })
    await transaction('versions').insert({
      document: id,
      number: 1,
      state: 1,
      made_by: 'upload',
      title: `Opened ${document.fileName}`.slice(0, 500),
      pieces: JSON.stringify(pieces),
      ids: '{}',
      created: now,
    })
    await transaction('jobs').insert({
      id: job,
      kind: 'survey',
      document: id,
      version: 1,
      state: 'queued',
      created: now,
      changed: now,
    })
    if (document.fonts) await keepDroppedFonts(transaction, id, document.fonts)
  })
  return { id, job }
}

/**
 * Adds a version on top of `base`, with the job that counts it, all or nothing.
 * @throws ConflictError when `base` is no longer the newest
 */
export async function addVersion(knex: Knex, id: string, base: number, version: NewVersion): Promise<VersionRow> {
  return knex.transaction(transaction => addVersionWithin(transaction, id, base, version))
}

/** The same within a transaction that stores more than the version. @throws ConflictError */
export async function addVersionWithin(
  transaction: Knex,
  id: string,
  base: number,
  version: NewVersion,
): Promise<VersionRow> {
  const row = await transaction('documents').where({ id }).forUpdate().first<{ version: number } | undefined>('version')
  if (!row) throw new RangeError('there is no such document')
  if (row.version !== base) {
    const since = await transaction('versions')
      .where({ document: id })
      .where('number', '>', base)
      .orderBy('number')
      .select<VersionRow[]>(versionColumns)
    throw new ConflictError(row.version, since)
  }
  const number = base + 1
  const now = new Date()
  const { content } = version
  const source =
    'state' in content
      ? await transaction('versions')
          .where({ document: id, number: content.state })
          .first<{ pieces: string; ids: string; census: string | null; first_page: string | null }>(
            'pieces',
            'ids',
            'census',
            'first_page',
          )
      : null
  const pieces = 'bytes' in content ? JSON.stringify(await putPackage(transaction, content.bytes)) : source!.pieces
  const state = 'state' in content ? content.state : number
  await transaction('versions').insert({
    document: id,
    number,
    state,
    made_by: version.madeBy,
    title: version.title.slice(0, 500),
    pieces,
    ids: 'bytes' in content ? JSON.stringify(content.ids) : source!.ids,
    plan: version.plan && JSON.stringify(version.plan),
    census: source?.census ?? null,
    first_page: source?.first_page ?? null,
    created: now,
  })
  await transaction('documents').where({ id }).update({ version: number })
  if (source?.census) await storeFaces(transaction, id, JSON.parse(source.census) as Census)
  else
    await transaction('jobs').insert({
      id: randomUUID(),
      kind: 'survey',
      document: id,
      version: number,
      state: 'queued',
      created: now,
      changed: now,
    })
  return { document: id, number, state, madeBy: version.madeBy, title: version.title, created: now }
}

async function storeFaces(knex: Knex, document: string, census: Census): Promise<void> {
  await knex('document_faces').where({ document }).delete()
  // Names that differ by spaces at their end alone are one name to the database.
  const rows = new Map<
    string,
    { document: string; family: string; style: string; slot: string; status: string; characters: number }
  >()
  for (const face of census.faces) {
    const [family, style] = [face.family.slice(0, 200).trimEnd(), face.style.slice(0, 200).trimEnd()]
    const key = `${family}|${style}|${face.slot}`
    rows.set(key, {
      document,
      family,
      style,
      slot: face.slot,
      status: rows.get(key)?.status ?? face.status,
      characters: (rows.get(key)?.characters ?? 0) + face.characters,
    })
  }
  if (rows.size > 0) await knex('document_faces').insert([...rows.values()])
  await storeLooks(knex, document, census)
}

/** Sizes of text by their characters, and colours by how often they are named: what documents are looked for by. */
async function storeLooks(knex: Knex, document: string, census: Census): Promise<void> {
  await knex('document_looks').where({ document }).delete()
  const sizes = new Map<string, number>()
  for (const voice of census.voices)
    sizes.set(String(voice.size), (sizes.get(String(voice.size)) ?? 0) + voice.characters)
  const rows = [
    ...[...sizes].map(([value, count]) => ({ document, kind: 'size', value, count })),
    ...(census.colors ?? []).map(({ color, count }) => ({ document, kind: 'color', value: color, count })),
  ]
  if (rows.length > 0) await knex('document_looks').insert(rows)
}

/** Keeps what the count of a version found. */
export async function storeSurvey(
  knex: Knex,
  document: string,
  version: number,
  census: Census,
  firstPage: string,
): Promise<void> {
  await knex.transaction(async transaction => {
    await transaction('versions')
      .where({ document, number: version })
      .update({ census: JSON.stringify(census), first_page: firstPage })
    const current = await transaction('documents')
      .where({ id: document })
      .first<{ version: number } | undefined>('version')
    if (current?.version === version) await storeFaces(transaction, document, census)
  })
}

export async function findDocument(knex: Knex, id: string): Promise<DocumentRow | undefined> {
  const row = await knex('documents').where({ id }).first<DocumentRow | undefined>(documentColumns)
  return row && shaped(row)
}

/** Everything on the shelf, newest change first. */
export async function listShelf(knex: Knex): Promise<ShelfCard[]> {
  const documents = (await knex('documents').select<DocumentRow[]>(documentColumns)).map(shaped)
  const faces = await knex('document_faces')
    .orderBy('characters', 'desc')
    .select<{ document: string; family: string; style: string; status: string; characters: number }[]>(
      'document',
      'family',
      'style',
      'status',
      'characters',
    )
  const cards = await Promise.all(
    documents.map(async (document): Promise<ShelfCard> => {
      const version = await knex('versions')
        .where({ document: document.id, number: document.version })
        .first<{ created: Date; census: string | null; first_page: string | null } | undefined>(
          'created',
          'census',
          'first_page',
        )
      const census = version?.census ? (JSON.parse(version.census) as Census) : null
      return {
        ...document,
        title: census?.document.title ?? '',
        changed: version?.created ?? document.created,
        pages: census?.document.pages ?? null,
        characters: census?.characters ?? null,
        settled: census?.settled ?? null,
        faces: faces
          .filter(face => face.document === document.id)
          .map(({ family, style, status, characters }) => ({ family, style, status, characters })),
        hasPicture: version?.first_page != null,
      }
    }),
  )
  return cards.sort((a, b) => b.changed.getTime() - a.changed.getTime())
}

export async function listVersions(knex: Knex, document: string): Promise<VersionRow[]> {
  return knex('versions').where({ document }).orderBy('number').select<VersionRow[]>(versionColumns)
}

/** A version's file and the ids of its nodes. */
export async function versionContent(
  knex: Knex,
  document: string,
  number: number,
): Promise<{ bytes: Uint8Array; ids: DocumentIds } | undefined> {
  const row = await knex('versions')
    .where({ document, number })
    .first<{ pieces: string; ids: string } | undefined>('pieces', 'ids')
  return (
    row && {
      bytes: await getPackage(knex, JSON.parse(row.pieces) as string[]),
      ids: JSON.parse(row.ids) as DocumentIds,
    }
  )
}

export async function versionRecord(
  knex: Knex,
  document: string,
  number: number,
): Promise<{ plan: RecordedPlan | null; census: Census | null; firstPage: string | null } | undefined> {
  const row = await knex('versions')
    .where({ document, number })
    .first<{ plan: string | null; census: string | null; first_page: string | null } | undefined>(
      'plan',
      'census',
      'first_page',
    )
  return (
    row && {
      plan: row.plan ? (JSON.parse(row.plan) as RecordedPlan) : null,
      census: row.census ? (JSON.parse(row.census) as Census) : null,
      firstPage: row.first_page,
    }
  )
}

/** Changes of all documents that were made by plans, newest first; at most 500. */
export async function listRecords(knex: Knex): Promise<RecordRow[]> {
  return knex('versions')
    .join('documents', 'documents.id', 'versions.document')
    .whereNotNull('versions.plan')
    .orderBy('versions.created', 'desc')
    .limit(500)
    .select<RecordRow[]>({
      ...Object.fromEntries(Object.entries(versionColumns).map(([key, column]) => [key, `versions.${column}`])),
      fileName: 'documents.file_name',
    })
}

/** What undo and redo would go to, read off the versions in order; null where there is nothing to undo or redo. */
export function history(versions: readonly VersionRow[]): {
  readonly undo: { state: number; title: string } | null
  readonly redo: { state: number; title: string } | null
} {
  const undo: number[] = []
  const redo: number[] = []
  let state = 0
  for (const version of versions) {
    if (version.madeBy === 'undo') {
      redo.push(state)
      undo.pop()
    } else if (version.madeBy === 'redo') {
      undo.push(state)
      redo.pop()
    } else if (state > 0) {
      undo.push(state)
      redo.length = 0
    }
    state = version.state
  }
  const titleOf = (number: number) => versions.find(version => version.number === number)?.title ?? ''
  const back = undo.at(-1)
  const forth = redo.at(-1)
  return {
    undo: back === undefined ? null : { state: back, title: titleOf(state) },
    redo: forth === undefined ? null : { state: forth, title: titleOf(forth) },
  }
}

/** Takes a document with all its versions off the shelf. Content that others share stays. */
export async function removeDocument(knex: Knex, id: string): Promise<void> {
  await knex.transaction(async transaction => {
    for (const table of ['jobs', 'document_faces', 'carried_fonts', 'document_looks', 'versions'])
      await transaction(table).where({ document: id }).delete()
    await transaction('stand_ins').where({ level: 'document', owner: id }).delete()
    await transaction('batch_documents')
      .where({ document: id })
      .whereIn('state', ['waiting', 'planned'])
      .update({ state: 'failed', message: 'It was taken off the shelf.' })
    await transaction('documents').where({ id }).delete()
  })
}
