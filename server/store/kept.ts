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
    // Where one gave way there is room for one: nothing is let go of for what is then not kept.
    if (Number(counted[0]!.n) >= most) return null
    const id = randomUUID()
    await knex('kept').insert({ id, owner, kind, heading, name, data: JSON.stringify(data), created: new Date() })
    return id
  })
}

/** Gives something another heading, name or content: done, not there any more, or another has that name already. */
export async function changeKept<K extends KeptKind>(
  acting: Acting,
  kind: K,
  id: string,
  { data, ...words }: Partial<Omit<Kept<K>, 'id'>>,
): Promise<'changed' | 'gone' | 'taken'> {
  const { owner } = acting.actor
  const change = { ...words, ...(data === undefined ? {} : { data: JSON.stringify(data) }) }
  return atOnce(acting, async ({ knex }) => {
    const own = () => knex('kept').where({ id, kind, owner })
    if (!(await own().first('id'))) return 'gone'
    if (keptSorts[kind].oneOfName && words.name !== undefined) {
      const other = await knex('kept').where({ kind, owner, name: words.name }).whereNot({ id }).first('id')
      if (other) return 'taken'
    }
    if (Object.keys(change).length > 0) await own().update(change)
    return 'changed'
  })
}

/** Lets go of something; whether it was there. */
export async function dropKept({ knex, actor }: Acting, kind: KeptKind, id: string): Promise<boolean> {
  return (await knex('kept').where({ id, kind, owner: actor.owner }).delete()) > 0
}
