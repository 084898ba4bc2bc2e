import type { Knex } from 'knex'
import type { MadeBy, RecordedPlan, RecordRow, Step, VersionRow } from '../../shared/api'
import type { DocumentIds } from '../../core/document/open'
import { atOnce, ownDocuments, type Acting } from './acting'
import { keepCount, type AnyCensus } from './document-count'
import { askForSurvey } from './jobs'
import { keepPackage, keptPackage } from './version-pieces'

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
  author: 'author',
  title: 'title',
  created: 'created',
}

export interface NewVersion {
  readonly madeBy: MadeBy
  readonly title: string
  /** The content: new bytes, or for undo and redo the number of an earlier version. */
  readonly content: { readonly bytes: Uint8Array; readonly ids: DocumentIds } | { readonly state: number }
  readonly plan: RecordedPlan | null
}

/** The versions of a document, where it is the actor's. */
const versionsOf = (acting: Acting, document: string): Knex.QueryBuilder =>
  acting.knex('versions').where({ document }).whereIn('document', ownDocuments(acting))

/** Puts the first version of a new document down, within the transaction that makes the document. */
export async function addFirstVersion(
  { knex, actor }: Acting,
  document: string,
  fileName: string,
  bytes: Uint8Array,
): Promise<string> {
  await knex('versions').insert({
    document,
    number: 1,
    state: 1,
    made_by: 'upload',
    author: actor.person,
    title: `Opened ${fileName}`.slice(0, 500),
    ids: '{}',
    created: new Date(),
  })
  await keepPackage(knex, document, 1, bytes)
  return askForSurvey(knex, document, 1)
}

/**
 * Adds a version on top of `base`, with the job that counts it, all or nothing. Within a transaction it is part of
 * that.
 * @throws ConflictError when `base` is no longer the newest
 */
export async function addVersion(acting: Acting, id: string, base: number, version: NewVersion): Promise<VersionRow> {
  return atOnce(acting, async within => {
    const { knex } = within
    const row = await ownDocuments(within).where({ id }).forUpdate().first<{ version: number } | undefined>('version')
    if (!row) throw new RangeError('there is no such document')
    if (row.version !== base) throw new ConflictError(row.version, await versionsSince(within, id, base))
    const number = base + 1
    const created = new Date()
    const { content, madeBy } = version
    const source = 'state' in content ? await contentRow(within, id, content.state) : null
    const state = 'state' in content ? content.state : number
    const [author, title] = [acting.actor.person, version.title.slice(0, 500)]
    await knex('versions').insert({
      document: id,
      number,
      state,
      made_by: madeBy,
      author,
      title,
      ids: 'bytes' in content ? JSON.stringify(content.ids) : source!.ids,
      plan: version.plan && JSON.stringify(version.plan),
      census: source?.census ?? null,
      first_page: source?.first_page ?? null,
      created,
    })
    if ('bytes' in content) await keepPackage(knex, id, number, content.bytes)
    await knex('documents').where({ id }).update({ version: number, changed: created })
    if (source?.census)
      await keepCount(knex, id, number, {
        census: JSON.parse(source.census) as AnyCensus,
        firstPage: source.first_page,
      })
    else await askForSurvey(knex, id, number)
    return { document: id, number, state, madeBy, author, title, created }
  })
}

/** What was made after some version, in order. */
export async function versionsSince(acting: Acting, document: string, base: number): Promise<VersionRow[]> {
  return versionsOf(acting, document).where('number', '>', base).orderBy('number').select<VersionRow[]>(versionColumns)
}

interface ContentRow {
  readonly ids: string
  readonly census: string | null
  readonly first_page: string | null
}

/** What a version that undoes or redoes takes over from the one it points to. */
async function contentRow(acting: Acting, document: string, number: number): Promise<ContentRow> {
  const row = await versionsOf(acting, document)
    .where({ number })
    .first<ContentRow | undefined>('ids', 'census', 'first_page')
  if (!row) throw new RangeError('there is no such version')
  return row
}

/** Keeps what the count of a version found. */
export async function storeSurvey(
  acting: Acting,
  document: string,
  version: number,
  census: AnyCensus,
  firstPage: string,
): Promise<void> {
  await atOnce(acting, async within => {
    await versionsOf(within, document)
      .where({ number: version })
      .update({ census: JSON.stringify(census), first_page: firstPage })
    const current = await ownDocuments(within)
      .where({ id: document })
      .first<{ counted: number | null } | undefined>('counted')
    // Counts may come out of turn: what is shown never goes back.
    if (current && version >= (current.counted ?? 0))
      await keepCount(within.knex, document, version, { census, firstPage })
  })
}

/** All versions of a document, in order. */
export const listVersions = (acting: Acting, document: string): Promise<VersionRow[]> =>
  versionsSince(acting, document, 0)

/** A version's file and the ids of its nodes. */
export async function versionContent(
  acting: Acting,
  document: string,
  number: number,
): Promise<{ bytes: Uint8Array; ids: DocumentIds } | undefined> {
  const row = await versionsOf(acting, document)
    .where({ number })
    .first<{ state: number; ids: string } | undefined>('state', 'ids')
  return (
    row && {
      bytes: await keptPackage(acting.knex, document, row.state),
      ids: JSON.parse(row.ids) as DocumentIds,
    }
  )
}

/** What is kept of a version beside its content: the plan that made it, its census, a picture of its first page. */
export async function versionRecord(
  acting: Acting,
  document: string,
  number: number,
): Promise<{ plan: RecordedPlan | null; census: AnyCensus | null; firstPage: string | null } | undefined> {
  const row = await versionsOf(acting, document)
    .where({ number })
    .first<{ plan: string | null; census: string | null; first_page: string | null } | undefined>(
      'plan',
      'census',
      'first_page',
    )
  return (
    row && {
      plan: row.plan ? (JSON.parse(row.plan) as RecordedPlan) : null,
      census: row.census ? (JSON.parse(row.census) as AnyCensus) : null,
      firstPage: row.first_page,
    }
  )
}

/** The newest version that was counted; null where none was. */
export async function countedVersion(acting: Acting, document: string): Promise<number | null> {
  const row = await versionsOf(acting, document)
    .whereNotNull('census')
    .orderBy('number', 'desc')
    .first<{ number: number } | undefined>('number')
  return row?.number ?? null
}

/** Changes of all documents that were made by plans, newest first; at most 500. */
export async function listRecords(acting: Acting): Promise<RecordRow[]> {
  return acting
    .knex('versions')
    .join('documents', 'documents.id', 'versions.document')
    .whereIn('documents.id', ownDocuments(acting))
    .whereNotNull('versions.plan')
    .orderBy('versions.created', 'desc')
    .limit(500)
    .select<RecordRow[]>({
      ...Object.fromEntries(Object.entries(versionColumns).map(([key, column]) => [key, `versions.${column}`])),
      fileName: 'documents.file_name',
    })
}

/** What undo and redo would go to, read off the versions in order; null where there is nothing to undo or redo. */
export function history(versions: readonly VersionRow[]): { readonly undo: Step | null; readonly redo: Step | null } {
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
