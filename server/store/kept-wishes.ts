import { randomUUID } from 'node:crypto'
import type { WishList } from '../../core/change/plan'
import type { KeptWish } from '../../shared/api'
import { atOnce, type Acting } from './acting'

/** As many are kept at most. */
export const wishLimit = 500

export async function listWishes({ knex, actor }: Acting): Promise<KeptWish[]> {
  const rows = await knex('kept_wishes')
    .where({ owner: actor.owner })
    .orderBy('name')
    .select<{ id: string; name: string; request: string }[]>('id', 'name', 'request')
  return rows.map(row => ({ ...row, request: JSON.parse(row.request) as WishList }))
}

/** Keeps wishes; those of the same name give way. Null where there are as many as are kept. */
export async function keepWish(acting: Acting, name: string, request: WishList): Promise<string | null> {
  const { owner } = acting.actor
  return atOnce(acting, async ({ knex }) => {
    const [{ count }] = (await knex('kept_wishes')
      .where({ owner })
      .whereNot({ name })
      .count<{ count: number }[]>({ count: 'id' })) as [{ count: number }]
    if (Number(count) >= wishLimit) return null
    await knex('kept_wishes').where({ owner, name }).delete()
    const id = randomUUID()
    await knex('kept_wishes').insert({ id, owner, name, request: JSON.stringify(request), created: new Date() })
    return id
  })
}

export async function removeWish({ knex, actor }: Acting, id: string): Promise<boolean> {
  return (await knex('kept_wishes').where({ id, owner: actor.owner }).delete()) > 0
}
