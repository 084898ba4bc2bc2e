import { randomUUID } from 'node:crypto'
import type { Knex } from 'knex'
import type { KeptPiece } from '../../shared/api'
import type { SetPiece } from '../../core/change/kept-frame/set-piece'

/** As many are kept at most: a shelf of pieces, not a store of everything. */
export const pieceLimit = 1000

export async function listPieces(knex: Knex): Promise<KeptPiece[]> {
  const rows = await knex('set_pieces')
    .orderBy('heading')
    .orderBy('name')
    .select<{ id: string; heading: string; name: string; piece: string }[]>('id', 'heading', 'name', 'piece')
  return rows.map(row => ({ ...row, piece: JSON.parse(row.piece) as SetPiece }))
}

/** Keeps a piece; null where there are as many as are kept. */
export async function addPiece(knex: Knex, heading: string, name: string, piece: SetPiece): Promise<string | null> {
  return knex.transaction(async transaction => {
    const [{ count }] = (await transaction('set_pieces').count<{ count: number }[]>({ count: 'id' })) as [
      { count: number },
    ]
    if (Number(count) >= pieceLimit) return null
    const id = randomUUID()
    await transaction('set_pieces').insert({ id, heading, name, piece: JSON.stringify(piece), created: new Date() })
    return id
  })
}

export async function removePiece(knex: Knex, id: string): Promise<boolean> {
  return (await knex('set_pieces').where({ id }).delete()) > 0
}
