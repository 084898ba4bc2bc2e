import { deleteCookie, getCookie, getRequestHeader, getRequestIP, setCookie, type H3Event } from 'h3'
import type { Knex } from 'knex'
import { RateLimiterMemory, RateLimiterRes } from 'rate-limiter-flexible'
import { deskPerson, type Actor } from '../store/acting'
import { isShared } from '../store/people'
import { actorOfProgramKey } from '../store/program-keys'
import { actorOfKey, beginSession } from '../store/sessions'
import { refusal } from './answer'
import { isLoopback } from './loopback'

/* Who asks: by the key that their browser holds, or, on a desk of one, whoever is at the machine. */

/** Behind a proxy with TLS the cookie goes over that alone, and to no other name (RFC 6265bis, 4.1.3.2). */
export const behindTls = process.env.MORPHENE_TLS === '1'
const cookie = behindTls ? '__Host-morphene' : 'morphene'
const cookieOptions = { httpOnly: true, sameSite: 'strict', path: '/', secure: behindTls } as const
/** As long as a session holds at the most, in seconds. */
const cookieHolds = 30 * 24 * 3600

/** How long it is taken for granted that a desk has one person, milliseconds: another server may have been told otherwise. */
const soloHolds = 500
let soloUntil = 0

/** It is asked for by whoever started the desk, or the desk is reached from other machines. */
const alwaysNeeded = process.env.MORPHENE_SIGN_IN === '1' || !isLoopback(process.env.NITRO_HOST ?? '127.0.0.1')

/** Whether signing in is asked of everybody here. */
export async function signInNeeded(knex: Knex): Promise<boolean> {
  if (alwaysNeeded) return true
  if (Date.now() < soloUntil) return false
  const shared = await isShared(knex)
  soloUntil = shared ? 0 : Date.now() + soloHolds
  return shared
}

/** Somebody was asked to come: from now on it is asked who is there. */
export function peopleChanged(): void {
  soloUntil = 0
}

export interface Asking {
  readonly actor: Actor
  /** The id of their session, or of the key of a program; '' on a desk of one. */
  readonly session: string
  /** A program asks by a key: it does nothing to the person it asks for. */
  readonly byProgram: boolean
}

/** Whoever asks; null where they have to sign in first. A key that is sent and holds no longer lets nobody in. */
export async function whoAsks(event: H3Event, knex: Knex): Promise<Asking | null> {
  // RFC 6750, 2.1. What a browser would send along by itself is no part of it.
  const [, sent] = /^Bearer +(\S{1,200})$/i.exec(getRequestHeader(event, 'authorization') ?? '') ?? []
  if (sent !== undefined) {
    const program = await actorOfProgramKey(knex, sent)
    return program && { actor: program.actor, session: program.program, byProgram: true }
  }
  const key = getCookie(event, cookie)
  const known = key === undefined ? null : await actorOfKey(knex, key)
  if (known) return { ...known, byProgram: false }
  return (await signInNeeded(knex)) ? null : { actor: deskPerson, session: '', byProgram: false }
}

/**
 * Signs somebody in: a new key for their browser, in place of whatever key it had, which holds no longer.
 * @returns the id of the session
 */
export async function signIn(event: H3Event, knex: Knex, actor: Actor): Promise<string> {
  const before = getCookie(event, cookie)
  const old = before === undefined ? null : await actorOfKey(knex, before)
  if (old) await knex('sessions').where({ id: old.session }).delete()
  const { key, id } = await beginSession(knex, actor, getRequestHeader(event, 'user-agent') ?? '')
  setCookie(event, cookie, key, { ...cookieOptions, maxAge: cookieHolds })
  return id
}

export function forgetKey(event: H3Event): void {
  deleteCookie(event, cookie, cookieOptions)
}

/**
 * So many tries to come in are let through in a quarter of an hour: for one name from one address, for that name from
 * anywhere, and from one address for any name.
 */
const tries = {
  here: new RateLimiterMemory({ points: 10, duration: 900 }),
  name: new RateLimiterMemory({ points: 100, duration: 900 }),
  address: new RateLimiterMemory({ points: 60, duration: 900 }),
}
const addressOf = (event: H3Event) => getRequestIP(event, { xForwardedFor: behindTls }) ?? ''

/**
 * Counts a try to come in, before it is looked at.
 * @param name that is tried; null for a link, whose key nobody guesses
 * @throws 429 as a sentence
 */
export async function countTry(event: H3Event, name: string | null): Promise<void> {
  const address = addressOf(event)
  try {
    await tries.address.consume(address)
    if (name !== null) await Promise.all([tries.here.consume(`${address} ${name}`), tries.name.consume(name)])
  } catch (error) {
    if (!(error instanceof RateLimiterRes)) throw error
    const retry = Math.max(1, Math.ceil(error.msBeforeNext / 1000))
    throw refusal(
      429,
      `This was tried too often. Wait ${Math.ceil(retry / 60)} min, or have an owner make a link by which you come in.`,
      { retry },
    )
  }
}

/** They came in: what was tried before counts no more. */
export const forgetTries = (event: H3Event, name: string): Promise<boolean> =>
  tries.here.delete(`${addressOf(event)} ${name}`)
