import { randomUUID } from 'node:crypto'
import type { Knex } from 'knex'
import { keyRights, type KeyRight, type ProgramKey } from '../../shared/people'
import type { Right } from '../../shared/rights'
import { atOnce, type Acting, type Actor } from './acting'
import { tellAudit } from './audit'
import { hashOfKey, newKey } from './keys'
import { actorOf, type PersonRights } from './people'

/** So many keys has one person at the most. */
export const mostKeys = 20
const day = 86_400_000
/** When a key was used is written down so often at most: not with every request. Milliseconds. */
const seenEvery = 60_000

interface KeyRow extends ProgramKey {
  readonly person: string
}

/** Makes a key for a program of the actor's; null where they have as many as one has. The key is told here, and never again. */
export async function addProgramKey(
  acting: Acting,
  { name, may, days }: { readonly name: string; readonly may: KeyRight; readonly days: number },
): Promise<string | null> {
  return atOnce(acting, async within => {
    const { knex, actor } = within
    const now = new Date()
    await knex('program_keys').where({ person: actor.person }).where('until', '<', now).delete()
    // Of two that are made at once the second counts the first.
    await knex('people').where({ id: actor.person }).forUpdate().first('id')
    const { n } = (await knex('program_keys').where({ person: actor.person }).count({ n: '*' }).first()) as {
      n: number
    }
    if (Number(n) >= mostKeys) return null
    const { key, hash } = newKey()
    await knex('program_keys').insert({
      key_hash: hash,
      id: randomUUID(),
      person: actor.person,
      name,
      may,
      created: now,
      until: new Date(now.getTime() + days * day),
    })
    await tellAudit(within, 'key made', `${name}: ${may}`)
    return key
  })
}

/** The actor's keys for programs that hold, newest first. */
export async function listProgramKeys({ knex, actor }: Acting): Promise<ProgramKey[]> {
  return knex('program_keys')
    .where({ person: actor.person })
    .where('until', '>', new Date())
    .orderBy('created', 'desc')
    .select<ProgramKey[]>('id', 'name', 'may', 'created', 'seen', 'until')
}

/** Ends one of the actor's keys; false where there is none such. */
export async function endProgramKey(acting: Acting, id: string): Promise<boolean> {
  return atOnce(acting, async within => {
    const own = within.knex('program_keys').where({ person: within.actor.person, id })
    const row = await own.clone().first<{ name: string } | undefined>('name')
    if (!row) return false
    await own.delete()
    await tellAudit(within, 'key ended', row.name)
    return true
  })
}

/** Whom a program asks for, with no more rights than its key has; null for what is no key, or holds no longer. */
export async function actorOfProgramKey(knex: Knex, key: string): Promise<{ actor: Actor; program: string } | null> {
  const where = { key_hash: hashOfKey(key) }
  const now = new Date()
  const row = await knex('program_keys')
    .join('people', 'people.id', 'program_keys.person')
    .where(where)
    .whereNull('people.ended')
    .where('program_keys.until', '>', now)
    .first<(KeyRow & PersonRights) | undefined>('program_keys.*', 'people.owner', 'people.role', 'people.also')
  if (!row) return null
  if (row.seen === null || row.seen.getTime() + seenEvery < now.getTime())
    await knex('program_keys').where(where).update({ seen: now })
  const actor = actorOf({ ...row, id: row.person })
  const may: readonly Right[] = keyRights[row.may]
  return { actor: { ...actor, rights: new Set(may.filter(right => actor.rights.has(right))) }, program: row.id }
}
