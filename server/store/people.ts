import { randomUUID } from 'node:crypto'
import type { Knex } from 'knex'
import { rightsOf, type ExtraRight, type Invitation, type Me, type Person, type PersonRole } from '../../shared/people'
import { atOnce, deskPerson, type Acting, type Actor } from './acting'
import { tellAudit } from './audit'
import { addIdentity } from './identities'
import { hashOfKey, newKey } from './keys'

interface PersonRow {
  readonly id: string
  readonly owner: string
  readonly name: string
  readonly sign_in: string | null
  readonly passphrase: string | null
  readonly role: PersonRole
  readonly also: string
  readonly created: Date
}

const also = (text: string) => JSON.parse(text) as ExtraRight[]
const personOf = (row: PersonRow, seen: Date | null): Person => ({
  id: row.id,
  name: row.name,
  signIn: row.sign_in,
  role: row.role,
  also: also(row.also),
  created: row.created,
  seen,
})

/** What somebody's rights hang on. */
export type PersonRights = Pick<PersonRow, 'owner' | 'role' | 'also'>

/** Somebody as the store sees them: whose desk it is, and what they may do. */
export const actorOf = ({ id, owner, role, also: more }: PersonRights & { readonly id: string }): Actor => ({
  owner,
  person: id,
  rights: new Set([...rightsOf[role], ...also(more)]),
})

/** How long a link holds by which somebody joins or comes in again. Milliseconds. */
const linkHolds = 7 * 24 * 3600 * 1000

/**
 * Whether several people share this desk: as soon as there is, or is asked to come, anybody but the one person of a desk of
 * one. Signing in is asked of everybody then.
 */
export async function isShared(knex: Knex): Promise<boolean> {
  const [row] = (await knex.raw(
    'select exists (select 1 from people where ended is null and id <> ?) ' +
      'or exists (select 1 from invitations where person is null and until > ?) as shared',
    [deskPerson.person, new Date()],
  )) as [readonly [{ readonly shared: number }]]
  return Boolean(row[0].shared)
}

/** Those who work here now, in the order in which they came, and when each was last seen. */
export async function listPeople({ knex, actor }: Acting): Promise<Person[]> {
  const rows = await knex('people')
    .where({ owner: actor.owner })
    .whereNull('ended')
    .orderBy(['created', 'id'])
    .select<PersonRow[]>('*')
  const seen = await knex('sessions')
    .whereIn(
      'person',
      rows.map(row => row.id),
    )
    .groupBy('person')
    .select<{ person: string; seen: Date }[]>('person', knex.raw('max(seen) as seen'))
  return rows.map(row => personOf(row, seen.find(each => each.person === row.id)?.seen ?? null))
}

/** Names of everybody who is or was here, by their ids, and who is here now. */
export async function namesOfPeople({ knex, actor }: Acting): Promise<Pick<Me, 'names' | 'here'>> {
  const rows = await knex('people')
    .where({ owner: actor.owner })
    .orderBy('name')
    .select<{ id: string; name: string; ended: Date | null }[]>('id', 'name', 'ended')
  return {
    names: Object.fromEntries(rows.map(row => [row.id, row.name])),
    here: rows.filter(row => row.ended === null).map(row => row.id),
  }
}

/** Whoever asks, as one of the studio's people. */
export async function ownPerson(acting: Acting): Promise<Person | null> {
  const people = await listPeople(acting)
  return people.find(each => each.id === acting.actor.person) ?? null
}

export async function studioName({ knex, actor }: Acting): Promise<string> {
  const row = await knex('owners').where({ id: actor.owner }).first<{ name: string } | undefined>('name')
  return row?.name ?? ''
}

/** Names the studio anew. */
export async function nameStudio({ knex, actor }: Acting, name: string): Promise<void> {
  await knex('owners').where({ id: actor.owner }).update({ name })
}

/** A studio more on this installation, with its first owner, who has no passphrase yet. */
export async function addStudio(
  knex: Knex,
  studio: { readonly id: string; readonly name: string; readonly owner: string },
): Promise<Actor> {
  const person = { id: randomUUID(), owner: studio.id, role: 'owner' as const, also: '[]' }
  await knex.transaction(async transaction => {
    await transaction('owners').insert({ id: studio.id, name: studio.name, created: new Date() })
    await transaction('people').insert({ ...person, name: studio.owner, created: new Date() })
  })
  return actorOf(person)
}

/** The owners of a studio, by whom it is opened to others. */
export async function ownersOf(knex: Knex, owner: string): Promise<{ readonly actor: Actor; readonly name: string }[]> {
  const rows = await knex('people').where({ owner, role: 'owner' }).whereNull('ended').select<PersonRow[]>('*')
  return rows.map(row => ({ actor: actorOf(row), name: row.name }))
}

/** Somebody by what they sign in by: with the hash of their passphrase, and who they are to the store. */
export async function personBySignIn(
  knex: Knex,
  signIn: string,
): Promise<{ readonly actor: Actor; readonly passphrase: string | null } | null> {
  const row = await knex('people').where({ sign_in: signIn }).whereNull('ended').first<PersonRow | undefined>('*')
  return row ? { actor: actorOf(row), passphrase: row.passphrase } : null
}

/** The actor of somebody who is here; null where they are not any more. */
export async function actorOfPerson(knex: Knex, person: string): Promise<Actor | null> {
  const row = await knex('people').where({ id: person }).whereNull('ended').first<PersonRow | undefined>('*')
  return row ? actorOf(row) : null
}

/** The hash of one's own passphrase; null where there is none yet. */
export async function ownPassphrase({ knex, actor }: Acting): Promise<string | null> {
  const row = await knex('people')
    .where({ id: actor.person, owner: actor.owner })
    .first<{ passphrase: string | null } | undefined>('passphrase')
  return row?.passphrase ?? null
}

/** What two people cannot both sign in by. */
export const isTaken = (error: unknown) => (error as { code?: unknown }).code === 'ER_DUP_ENTRY'

/**
 * Keeps one's own name, what one signs in by and, where there is a new one, the passphrase's hash; all other sessions end
 * then. False where somebody else signs in by that.
 */
export async function setOwn(
  acting: Acting,
  own: { readonly name: string; readonly signIn: string | null; readonly passphrase: string | null },
  keptSession: string,
): Promise<boolean> {
  const { owner, person } = acting.actor
  try {
    await atOnce(acting, async within => {
      await within
        .knex('people')
        .where({ id: person, owner })
        .update({
          name: own.name,
          sign_in: own.signIn,
          ...(own.passphrase === null ? {} : { passphrase: own.passphrase }),
        })
      if (own.passphrase !== null)
        await within.knex('sessions').where({ person }).whereNot({ id: keptSession }).delete()
      await tellAudit(within, 'sign-in changed')
    })
    return true
  } catch (error) {
    if (isTaken(error)) return false
    throw error
  }
}

/** Asks somebody to come. @returns the key of the link, which is told once */
export async function invite(
  acting: Acting,
  asked: { readonly name: string; readonly role: PersonRole; readonly also: readonly ExtraRight[] },
): Promise<{ readonly id: string; readonly key: string }> {
  const { key, hash } = newKey()
  const id = randomUUID()
  await atOnce(acting, async within => {
    await within.knex('invitations').insert({
      key_hash: hash,
      id,
      owner: acting.actor.owner,
      person: null,
      name: asked.name,
      role: asked.role,
      also: JSON.stringify(asked.also),
      made_by: acting.actor.person,
      until: new Date(Date.now() + linkHolds),
    })
    await tellAudit(within, 'invited', `${asked.name}, ${asked.role}`)
  })
  return { id, key }
}

/** Those who are asked to come and have not yet. */
export async function listInvitations({ knex, actor }: Acting): Promise<Invitation[]> {
  const rows = await knex('invitations')
    .where({ owner: actor.owner })
    .whereNull('person')
    .where('until', '>', new Date())
    .orderBy('until')
    .select<(Omit<Invitation, 'also'> & { also: string })[]>('id', 'name', 'role', 'also', 'until')
  return rows.map(row => ({ ...row, also: also(row.also) }))
}

/** Takes an invitation back; false where there is none. */
export async function withdraw(acting: Acting, id: string): Promise<boolean> {
  return atOnce(acting, async within => {
    const gone: number = await within.knex('invitations').where({ owner: acting.actor.owner, id }).delete()
    if (gone > 0) await tellAudit(within, 'invitation withdrawn')
    return gone > 0
  })
}

interface LinkRow {
  readonly owner: string
  readonly person: string | null
  readonly name: string
  readonly role: PersonRole
  readonly also: string
}

/** What a link is for that still holds; null for all others. */
export async function linkOf(
  knex: Knex,
  key: string,
): Promise<{ readonly name: string; readonly studio: string; readonly joins: boolean } | null> {
  const row = await knex('invitations')
    .join('owners', 'owners.id', 'invitations.owner')
    .where({ key_hash: hashOfKey(key) })
    .where('until', '>', new Date())
    .first<(LinkRow & { studio: string }) | undefined>('invitations.*', 'owners.name as studio')
  return row ? { name: row.name, studio: row.studio, joins: row.person === null } : null
}

/** Takes a link to join or to come in again, so that nobody comes by it a second time; null where it does not hold. */
async function takeLink(knex: Knex, hash: string, joins: boolean): Promise<LinkRow | null> {
  const where = { key_hash: hash }
  const row = await knex('invitations')
    .where(where)
    .where('until', '>', new Date())
    .forUpdate()
    .first<LinkRow | undefined>('*')
  if (!row || (row.person === null) !== joins) return null
  await knex('invitations').where(where).delete()
  return row
}

/** What somebody who joins comes in by from then on. */
export type ComesBy =
  { readonly signIn: string; readonly passphrase: string } | { readonly issuer: string; readonly subject: string }

/**
 * Somebody comes by an invitation: one person more. Says what stands in the way where they do not.
 * @param hash of the link's key
 */
export async function join(knex: Knex, hash: string, name: string, by: ComesBy): Promise<Actor | 'no link' | 'taken'> {
  try {
    return await knex.transaction(async transaction => {
      const link = await takeLink(transaction, hash, true)
      if (!link) return 'no link'
      const person = { id: randomUUID(), owner: link.owner, role: link.role, also: link.also }
      await transaction('people').insert({
        ...person,
        name,
        ...('signIn' in by ? { sign_in: by.signIn, passphrase: by.passphrase } : {}),
        created: new Date(),
      })
      if ('issuer' in by) await addIdentity(transaction, person.id, by)
      const actor = actorOf(person)
      await tellAudit({ knex: transaction, actor }, 'joined', name)
      return actor
    })
  } catch (error) {
    if (isTaken(error)) return 'taken'
    throw error
  }
}

/** Makes a link by which somebody of the studio comes in once; null where they are not here. */
export async function makeLink(acting: Acting, person: string): Promise<string | null> {
  const { owner } = acting.actor
  return atOnce(acting, async within => {
    const { knex } = within
    const row = await knex('people').where({ id: person, owner }).whereNull('ended').first<PersonRow | undefined>('*')
    if (!row) return null
    const { key, hash } = newKey()
    // An older link of theirs holds no longer.
    await knex('invitations').where({ person }).delete()
    await knex('invitations').insert({
      key_hash: hash,
      id: randomUUID(),
      owner,
      person,
      name: row.name,
      role: row.role,
      also: row.also,
      made_by: acting.actor.person,
      until: new Date(Date.now() + linkHolds),
    })
    await tellAudit(within, 'link made', row.name)
    return key
  })
}

/** Somebody of the studio comes in by a link that was made for them; null where it does not hold. */
export async function comeIn(knex: Knex, key: string): Promise<Actor | null> {
  return knex.transaction(async transaction => {
    const link = await takeLink(transaction, hashOfKey(key), false)
    return link && actorOfPerson(transaction, link.person!)
  })
}

/** The last owner of a studio stays its owner. */
async function isLastOwner(acting: Acting, person: string): Promise<boolean> {
  const owners = await acting
    .knex('people')
    .where({ owner: acting.actor.owner, role: 'owner' })
    .whereNull('ended')
    .forUpdate()
    .select<{ id: string }[]>('id')
  return owners.length === 1 && owners[0]!.id === person
}

/** Gives somebody another role and other rights. */
export async function setRights(
  acting: Acting,
  person: string,
  to: { readonly role: PersonRole; readonly also: readonly ExtraRight[] },
): Promise<'done' | 'gone' | 'last owner'> {
  return atOnce(acting, async within => {
    const where = { id: person, owner: acting.actor.owner }
    const row = await within.knex('people').where(where).whereNull('ended').first<PersonRow | undefined>('*')
    if (!row) return 'gone'
    if (to.role !== 'owner' && (await isLastOwner(within, person))) return 'last owner'
    await within
      .knex('people')
      .where(where)
      .update({ role: to.role, also: JSON.stringify(to.also) })
    await tellAudit(within, 'rights changed', `${row.name}: ${[to.role, ...to.also].join(', ')}`)
    return 'done'
  })
}

/** Lets somebody's access end, with all their sessions and links; what they made keeps their name. */
export async function endPerson(acting: Acting, person: string): Promise<'done' | 'gone' | 'last owner'> {
  return atOnce(acting, async within => {
    const where = { id: person, owner: acting.actor.owner }
    const row = await within.knex('people').where(where).whereNull('ended').first<PersonRow | undefined>('*')
    if (!row) return 'gone'
    if (await isLastOwner(within, person)) return 'last owner'
    await within.knex('people').where(where).update({ ended: new Date(), sign_in: null, passphrase: null })
    await within.knex('sessions').where({ person }).delete()
    await within.knex('invitations').where({ person }).delete()
    await within.knex('identities').where({ person }).delete()
    await tellAudit(within, 'person ended', row.name)
    return 'done'
  })
}
