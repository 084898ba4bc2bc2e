import { randomUUID } from 'node:crypto'
import type { KeptPiece } from '../../shared/api'
import type { SetPiece } from '../../core/change/kept-frame/set-piece'
import { atOnce, type Acting } from './acting'

/** As many are kept at most: a shelf of pieces, not a store of everything. */
export const pieceLimit = 1000

export async function listPieces({ knex, actor }: Acting): Promise<KeptPiece[]> {
  const rows = await knex('set_pieces')
    .where({ owner: actor.owner })
    .orderBy('heading')
    .orderBy('name')
    .select<{ id: string; heading: string; name: string; piece: string }[]>('id', 'heading', 'name', 'piece')
  return rows.map(row => ({ ...row, piece: JSON.parse(row.piece) as SetPiece }))
}

/** Keeps a piece; null where there are as many as are kept. */
export async function addPiece(acting: Acting, heading: string, name: string, piece: SetPiece): Promise<string | null> {
  const { owner } = acting.actor
  return atOnce(acting, async ({ knex }) => {
    const [{ count }] = (await knex('set_pieces').where({ owner }).count<{ count: number }[]>({ count: 'id' })) as [
      { count: number },
    ]
    if (Number(count) >= pieceLimit) return null
    const id = randomUUID()
    await knex('set_pieces').insert({ id, owner, heading, name, piece: JSON.stringify(piece), created: new Date() })
    return id
  })
}

export async function removePiece({ knex, actor }: Acting, id: string): Promise<boolean> {
  return (await knex('set_pieces').where({ id, owner: actor.owner }).delete()) > 0
}
