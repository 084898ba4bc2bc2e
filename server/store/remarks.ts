import { randomUUID } from 'node:crypto'
import type { GivenRemark, Remark, RemarkAct, RemarkAnswer, RemarkBody } from '../../shared/remarks'
import { atOnce, ownDocuments, type Acting } from './acting'

/** So many remarks are kept of a document, and answers of a remark. */
export const remarkLimit = 2_000
export const answerLimit = 200
/** So many are told to whoever they are given to. */
const givenLimit = 200

interface RemarkRow {
  readonly id: string
  readonly document: string
  readonly version: number
  readonly place: string | null
  readonly text: string
  readonly finding: string | null
  readonly author: string
  readonly given_to: string | null
  readonly created: Date
  readonly settled_by: string | null
  readonly settled_at: Date | null
}

const remarkOf = (row: RemarkRow, answers: readonly RemarkAnswer[]): Remark => ({
  id: row.id,
  version: row.version,
  place: row.place === null ? null : (JSON.parse(row.place) as Remark['place']),
  text: row.text,
  finding: row.finding === null ? null : (JSON.parse(row.finding) as Remark['finding']),
  author: row.author,
  to: row.given_to,
  created: row.created,
  settled: row.settled_by === null ? null : { person: row.settled_by, at: row.settled_at! },
  answers,
})

/** The remarks of a document, oldest first, with their answers. */
export async function remarksOf(acting: Acting, document: string): Promise<Remark[]> {
  const rows = await acting
    .knex('remarks')
    .where({ document })
    .whereIn('document', ownDocuments(acting))
    .orderBy(['created', 'id'])
    .select<RemarkRow[]>()
  const answers = await acting
    .knex('remark_answers')
    .whereIn(
      'remark',
      rows.map(row => row.id),
    )
    .orderBy(['created', 'id'])
    .select<(RemarkAnswer & { remark: string })[]>('id', 'remark', 'author', 'text', 'created')
  const byRemark = new Map<string, RemarkAnswer[]>()
  for (const { remark, ...answer } of answers) byRemark.set(remark, [...(byRemark.get(remark) ?? []), answer])
  return rows.map(row => remarkOf(row, byRemark.get(row.id) ?? []))
}

/** Whether somebody works at the actor's studio now, and sees a document: owners see all, others what is not closed to them. */
async function sees({ knex, actor }: Acting, document: string, person: string): Promise<boolean> {
  const row = await knex('people')
    .where({ id: person, owner: actor.owner })
    .whereNull('ended')
    .first<{ role: string } | undefined>('role')
  if (!row || row.role === 'owner') return row !== undefined
  const members = await knex('folder_members')
    .join('documents', 'documents.folder', 'folder_members.folder')
    .where({ 'documents.id': document })
    .select<{ person: string }[]>('folder_members.person')
  return members.length === 0 || members.some(each => each.person === person)
}

/** A remark of a document on the actor's shelf, held until the transaction ends. */
const heldRemark = (within: Acting, document: string, remark: string): Promise<RemarkRow | undefined> =>
  within
    .knex('remarks')
    .where({ id: remark, document })
    .whereIn('document', ownDocuments(within))
    .forUpdate()
    .first<RemarkRow | undefined>()

/** What came of an act: `nobody` where it is given to somebody who does not work here, or does not see the document. */
export type RemarkOutcome = 'done' | 'gone' | 'not yours' | 'nobody' | 'full'

/** Keeps a remark. */
export async function addRemark(acting: Acting, document: string, body: RemarkBody): Promise<RemarkOutcome> {
  return atOnce(acting, async within => {
    const { knex, actor } = within
    // Of two who write at once the second counts what the first wrote.
    if (!(await ownDocuments(within).where({ id: document }).forUpdate().first())) return 'gone'
    if (body.to !== null && !(await sees(within, document, body.to))) return 'nobody'
    const { n } = (await knex('remarks').where({ document }).count({ n: '*' }).first()) as { n: number }
    if (Number(n) >= remarkLimit) return 'full'
    await knex('remarks').insert({
      id: randomUUID(),
      document,
      version: body.version,
      place: body.place === null ? null : JSON.stringify(body.place),
      text: body.text,
      finding: body.finding === null ? null : JSON.stringify(body.finding),
      author: actor.person,
      given_to: body.to,
      created: new Date(),
    })
    return 'done'
  })
}

/**
 * Does something with a remark. Anybody who may write remarks answers; it is settled, opened again and given on by who wrote
 * it, whom it is given to, and those who may change documents.
 */
export async function actOnRemark(
  acting: Acting,
  document: string,
  remark: string,
  act: RemarkAct,
): Promise<RemarkOutcome> {
  return atOnce(acting, async within => {
    const { knex, actor } = within
    const row = await heldRemark(within, document, remark)
    if (!row) return 'gone'
    if (act.act === 'answer') {
      const { n } = (await knex('remark_answers').where({ remark }).count({ n: '*' }).first()) as { n: number }
      if (Number(n) >= answerLimit) return 'full'
      const answer = { id: randomUUID(), remark, author: actor.person, text: act.text, created: new Date() }
      await knex('remark_answers').insert(answer)
      return 'done'
    }
    const mayChange = async () =>
      actor.rights.has('change') &&
      (await ownDocuments({ ...within, right: 'change' })
        .where({ id: document })
        .first('id')) !== undefined
    const isTheirs = row.author === actor.person || row.given_to === actor.person || (await mayChange())
    if (!isTheirs) return 'not yours'
    if (act.act === 'give') {
      if (act.to !== null && !(await sees(within, document, act.to))) return 'nobody'
      await knex('remarks').where({ id: remark }).update({ given_to: act.to })
    } else
      await knex('remarks')
        .where({ id: remark })
        .update(
          act.act === 'settle'
            ? { settled_by: actor.person, settled_at: new Date() }
            : { settled_by: null, settled_at: null },
        )
    return 'done'
  })
}

/** Takes a remark away: one's own that nobody else answered, or any by whoever sees to people. */
export async function removeRemark(acting: Acting, document: string, remark: string): Promise<RemarkOutcome> {
  return atOnce(acting, async within => {
    const { knex, actor } = within
    const row = await heldRemark(within, document, remark)
    if (!row) return 'gone'
    const others = await knex('remark_answers').where({ remark }).whereNot({ author: actor.person }).first('id')
    if (!actor.rights.has('people') && (row.author !== actor.person || others)) return 'not yours'
    await knex('remarks').where({ id: remark }).delete()
    return 'done'
  })
}

/** Open remarks that are given to whoever asks, over all documents, oldest first. */
export async function remarksForMe(acting: Acting): Promise<GivenRemark[]> {
  const { knex, actor } = acting
  return knex('remarks')
    .join('documents', 'documents.id', 'remarks.document')
    .where({ 'remarks.given_to': actor.person })
    .whereIn('documents.id', ownDocuments(acting))
    .whereNull('remarks.settled_by')
    .orderBy(['remarks.created', 'remarks.id'])
    .limit(givenLimit)
    .select<GivenRemark[]>(
      'remarks.id',
      'remarks.document',
      'documents.file_name as fileName',
      'remarks.author',
      'remarks.text',
      'remarks.created',
    )
}
