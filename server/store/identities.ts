import { createHash } from 'node:crypto'
import type { Knex } from 'knex'
import { z } from 'zod'
import { atOnce, type Acting } from './acting'
import { tellAudit } from './audit'
import { hashOfKey, newKey } from './keys'

/*
 * Whom a provider knows of the people here. Issuer and subject together are somebody; a name or an address of mail is none,
 * since it may be somebody else's tomorrow (OpenID Connect Core 1.0, 5.7).
 */

export interface Identity {
  readonly issuer: string
  readonly subject: string
}

const hashOf = ({ issuer, subject }: Identity) =>
  createHash('sha256')
    .update(JSON.stringify([issuer, subject]))
    .digest('hex')

/** The id of whoever an identity is of and who works here; null for all others. */
export async function personByIdentity(knex: Knex, identity: Identity): Promise<string | null> {
  const row = await knex('identities')
    .join('people', 'people.id', 'identities.person')
    .where({ hash: hashOf(identity) })
    .whereNull('people.ended')
    .first<{ person: string } | undefined>('identities.person')
  return row?.person ?? null
}

/** @throws the database's error where it is somebody else's already */
export async function addIdentity(knex: Knex, person: string, identity: Identity): Promise<void> {
  await knex('identities').insert({ hash: hashOf(identity), person, ...identity, created: new Date() })
}

/** Whether the actor signs in through a provider. */
export async function isConnected({ knex, actor }: Acting): Promise<boolean> {
  return (await knex('identities').where({ person: actor.person }).first('hash')) !== undefined
}

/** From now on the actor comes in as this identity, and as no other that was theirs. */
export async function connectIdentity(acting: Acting, identity: Identity): Promise<void> {
  await atOnce(acting, async within => {
    await within.knex('identities').where({ person: acting.actor.person }).delete()
    await addIdentity(within.knex, acting.actor.person, identity)
    await tellAudit(within, 'connected')
  })
}

/** The actor comes in through no provider any more; false where they did not. */
export async function disconnect(acting: Acting): Promise<boolean> {
  return atOnce(acting, async within => {
    const gone: number = await within.knex('identities').where({ person: acting.actor.person }).delete()
    if (gone > 0) await tellAudit(within, 'disconnected')
    return gone > 0
  })
}

/** So long does a way to the provider hold: signing in there with a second factor included. Milliseconds. */
export const wayHolds = 10 * 60 * 1000

const purposeSchema = z.discriminatedUnion('for', [
  z.strictObject({ for: z.literal('sign-in'), to: z.string() }),
  z.strictObject({ for: z.literal('join'), link: z.string(), name: z.string() }),
  z.strictObject({ for: z.literal('connect'), person: z.string() }),
])
/** What is done when somebody comes back: by the hash of a link, or for whoever asked. */
export type WayPurpose = z.infer<typeof purposeSchema>

export interface Way {
  readonly state: string
  readonly nonce: string
  readonly verifier: string
  readonly purpose: WayPurpose
}

/** Begins a way. @returns the key that ties it to its browser */
export async function beginWay(knex: Knex, { purpose, ...way }: Way): Promise<string> {
  const { key, hash } = newKey()
  const now = Date.now()
  await knex.transaction(async transaction => {
    await transaction('sign_in_ways').where('until', '<', new Date(now)).delete()
    await transaction('sign_in_ways').insert({
      key_hash: hash,
      ...way,
      purpose: JSON.stringify(purpose),
      until: new Date(now + wayHolds),
    })
  })
  return key
}

/** Takes a way that still holds, so that nobody comes back by it twice; null for all others. */
export async function takeWay(knex: Knex, key: string): Promise<Way | null> {
  const where = { key_hash: hashOfKey(key) }
  return knex.transaction(async transaction => {
    const row = await transaction('sign_in_ways')
      .where(where)
      .where('until', '>', new Date())
      .forUpdate()
      .first<(Omit<Way, 'purpose'> & { purpose: string }) | undefined>('state', 'nonce', 'verifier', 'purpose')
    await transaction('sign_in_ways').where(where).delete()
    return row ? { ...row, purpose: purposeSchema.parse(JSON.parse(row.purpose)) } : null
  })
}
