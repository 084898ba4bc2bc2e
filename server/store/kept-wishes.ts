import { randomUUID } from 'node:crypto'
import type { Knex } from 'knex'
import type { BatchWish } from './batches'

/** A wish that is kept under a name. */
export type KeptWish = BatchWish & { readonly id: string; readonly name: string }

/** As many are kept at most. */
export const wishLimit = 500

export async function listWishes(knex: Knex): Promise<KeptWish[]> {
  const rows = await knex('kept_wishes')
    .orderBy('name')
    .select<{ id: string; kind: BatchWish['kind']; name: string; request: string }[]>('id', 'kind', 'name', 'request')
  return rows.map(row => ({ ...row, request: JSON.parse(row.request) as never }))
}

/** Keeps a wish; one of the same name and kind gives way. Null where there are as many as are kept. */
export async function keepWish(knex: Knex, name: string, wish: BatchWish): Promise<string | null> {
  return knex.transaction(async transaction => {
    await transaction('kept_wishes').where({ name, kind: wish.kind }).delete()
    const [{ count }] = (await transaction('kept_wishes').count<{ count: number }[]>({ count: 'id' })) as [
      { count: number },
    ]
    if (Number(count) >= wishLimit) return null
    const id = randomUUID()
    await transaction('kept_wishes').insert({
      id,
      kind: wish.kind,
      name,
      request: JSON.stringify(wish.request),
      created: new Date(),
    })
    return id
  })
}

export async function removeWish(knex: Knex, id: string): Promise<boolean> {
  return (await knex('kept_wishes').where({ id }).delete()) > 0
}
