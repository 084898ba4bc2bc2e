import { randomUUID } from 'node:crypto'
import { keptSorts, type Kept, type KeptData, type KeptKind } from '../../shared/kept'
import { atOnce, type Acting } from './acting'

/*
 * Things that are kept under a name: wishes, frames, pairs, licences, judgements, lists. What each holds is read with its
 * sort's schema at the door; here it is text.
 */

type Row = Omit<Kept, 'data'> & { readonly data: string }

/** All of a kind, by heading and name. */
export async function listKept<K extends KeptKind>({ knex, actor }: Acting, kind: K): Promise<Kept<K>[]> {
  const rows = await knex('kept')
    .where({ owner: actor.owner, kind })
    .orderBy([{ column: 'heading' }, { column: 'name' }, { column: 'id' }])
    .select<Row[]>('id', 'heading', 'name', 'data')
  return rows.map(row => ({ ...row, data: JSON.parse(row.data) as KeptData<K> }))
}

/** Keeps something; null where there are as many as are kept. */
export async function keep<K extends KeptKind>(
  acting: Acting,
  kind: K,
  { heading, name, data }: Omit<Kept<K>, 'id'>,
): Promise<string | null> {
  const { owner } = acting.actor
  const { most, oneOfName } = keptSorts[kind]
  return atOnce(acting, async ({ knex }) => {
    if (oneOfName) await knex('kept').where({ owner, kind, name }).delete()
    const counted = await knex('kept').where({ owner, kind }).count<{ n: number }[]>({ n: 'id' })
    // What was to give way is not lost either: all of it is one transaction.
    if (Number(counted[0]!.n) >= most) return null
    const id = randomUUID()
    await knex('kept').insert({ id, owner, kind, heading, name, data: JSON.stringify(data), created: new Date() })
    return id
  })
}

/** Gives something another heading, name or content; whether it is there. */
export async function changeKept<K extends KeptKind>(
  { knex, actor }: Acting,
  kind: K,
  id: string,
  { data, ...words }: Partial<Omit<Kept<K>, 'id'>>,
): Promise<boolean> {
  const own = knex('kept').where({ id, kind, owner: actor.owner })
  const change = { ...words, ...(data === undefined ? {} : { data: JSON.stringify(data) }) }
  if (Object.keys(change).length === 0) return (await own.first('id')) !== undefined
  return (await own.update(change)) > 0
}

/** Lets go of something; whether it was there. */
export async function dropKept({ knex, actor }: Acting, kind: KeptKind, id: string): Promise<boolean> {
  return (await knex('kept').where({ id, kind, owner: actor.owner }).delete()) > 0
}
