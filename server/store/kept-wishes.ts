import { randomUUID } from 'node:crypto'
import type { Knex } from 'knex'
import type { WishList } from '../../core/change/plan'
import type { KeptWish } from '../../shared/api'

/** As many are kept at most. */
export const wishLimit = 500

export async function listWishes(knex: Knex): Promise<KeptWish[]> {
  const rows = await knex('kept_wishes')
    .orderBy('name')
    .select<{ id: string; name: string; request: string }[]>('id', 'name', 'request')
  return rows.map(row => ({ ...row, request: JSON.parse(row.request) as WishList }))
}

/** Keeps wishes; those of the same name give way. Null where there are as many as are kept. */
export async function keepWish(knex: Knex, name: string, request: WishList): Promise<string | null> {
  return knex.transaction(async transaction => {
    await transaction('kept_wishes').where({ name }).delete()
    const [{ count }] = (await transaction('kept_wishes').count<{ count: number }[]>({ count: 'id' })) as [
      { count: number },
    ]
    if (Number(count) >= wishLimit) return null
    const id = randomUUID()
    await transaction('kept_wishes').insert({ id, name, request: JSON.stringify(request), created: new Date() })
    return id
  })
}

export async function removeWish(knex: Knex, id: string): Promise<boolean> {
  return (await knex('kept_wishes').where({ id }).delete()) > 0
}
