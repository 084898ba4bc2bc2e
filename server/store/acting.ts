import type { Knex } from 'knex'
import { rightsOf } from '../../shared/people'
import { rights, type Right } from '../../shared/rights'

/** Whoever does something: a person, the owner of what they see and change, and what they may do. */
export interface Actor {
  /** Whose everything is: the id of a row of `owners`. */
  readonly owner: string
  /** Who it is; versions, plans over documents and all else that tells its author keep it. */
  readonly person: string
  readonly rights: ReadonlySet<Right>
}

/**
 * A way to the database for somebody. Every function of the store that touches what is owned takes one, and sees and
 * changes nothing of other owners.
 */
export interface Acting {
  readonly knex: Knex
  readonly actor: Actor
  /** What it is done by: where members of a folder may not do that there, nothing in it is within reach. */
  readonly right?: Right
}

/** The owner of everything on a desk of one, made by the migration that brought owners. */
export const deskOwner = 'desk'

/** The one person of a desk of one: it is theirs. */
export const deskPerson: Actor = { owner: deskOwner, person: 'desk', rights: new Set(rights) }

/** Somebody's way to the database, the whole of it or a transaction. */
export const actingAs = (knex: Knex, actor: Actor = deskPerson, right: Right = 'look'): Acting => ({
  knex,
  actor,
  right,
})

/** So often is done again what the database gave up because two got in each other's way. */
const mostTries = 4

/**
 * Does several things at once: all of them or none. Within a transaction it is part of that. Where two get in each other's
 * way the database gives one of them up; that one is done again, so `work` must do nothing that is not the database's.
 */
export async function atOnce<T>(acting: Acting, work: (within: Acting) => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries++) {
    try {
      return await acting.knex.transaction(transaction => work({ ...acting, knex: transaction }))
    } catch (error) {
      const again = (error as { code?: unknown }).code === 'ER_LOCK_DEADLOCK' && !acting.knex.isTransaction
      if (!again || tries >= mostTries) throw error
    }
  }
}

/**
 * Folders that the actor does not reach: they have members, and the actor is none, or a reader there who asks for more than
 * readers may. Whoever sees to people reaches all. Null where there can be none.
 */
export function foldersClosedTo({ knex, actor, right = 'look' }: Acting): Knex.QueryBuilder | null {
  if (actor.rights.has('people')) return null
  const folders = knex('folder_members').groupBy('folder').select('folder')
  return rightsOf.reader.includes(right)
    ? folders.havingRaw('sum(person = ?) = 0', [actor.person])
    : folders.havingRaw("sum(person = ? and role <> 'reader') = 0", [actor.person])
}

/** Folders on which the actor works: as a designer or an owner there, whatever they are at the desk. */
export const foldersWorkedOn = ({ knex, actor }: Acting): Knex.QueryBuilder =>
  knex('folder_members').where({ person: actor.person }).whereNot({ role: 'reader' }).select('folder')

/**
 * Leaves out of a query what lies in folders that the actor does not reach; `column` holds the folder, or null. What they may
 * do in folders that they work on, and nowhere else, reaches nothing beyond those.
 */
export function withinReach(acting: Acting, query: Knex.QueryBuilder, column = 'documents.folder'): Knex.QueryBuilder {
  const { actor, right = 'look' } = acting
  if (!actor.rights.has(right) && !actor.rights.has('people')) return query.whereIn(column, foldersWorkedOn(acting))
  const closed = foldersClosedTo(acting)
  return closed ? query.where(either => void either.whereNull(column).orWhereNotIn(column, closed)) : query
}

/** The ids of all documents on the actor's shelf that they reach: what rows that hang on documents are limited by. */
export function ownDocuments(acting: Acting): Knex.QueryBuilder {
  const { knex, actor } = acting
  return withinReach(
    acting,
    knex('documents').where({ 'documents.owner': actor.owner }).whereNull('documents.trashed').select('id'),
  )
}
