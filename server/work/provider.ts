import { readFileSync } from 'node:fs'
import { deleteCookie, getCookie, getRequestURL, setCookie, type H3Event } from 'h3'
import type { Knex } from 'knex'
import {
  allowInsecureRequests,
  AuthorizationResponseError,
  authorizationCodeGrant,
  buildAuthorizationUrl,
  calculatePKCECodeChallenge,
  ClientSecretBasic,
  discovery,
  enableNonRepudiationChecks,
  None,
  randomNonce,
  randomPKCECodeVerifier,
  randomState,
  type Configuration,
} from 'openid-client'
import type { WayFault } from '../../shared/people'
import { beginWay, takeWay, wayHolds, type Identity, type WayPurpose } from '../store/identities'
import { refusal } from './answer'
import { isLoopback } from './loopback'
import { log } from './log'
import { behindTls } from './signing-in'

/*
 * Signing in through a provider: OpenID Connect Core 1.0, the code flow (3.1) with PKCE (RFC 7636). Whoever runs the desk
 * names it; the library checks what comes back: state, nonce, issuer, audience, times, and the signature by the provider's
 * own keys.
 */

interface Named {
  readonly issuer: URL
  readonly client: string
  readonly secret: string | null
  /** What people know it by. */
  readonly name: string
}

/**
 * The provider that the environment names; null where it names none.
 * @throws where what it says cannot be: a desk that is told wrongly does not start
 */
export function namedProvider(environment: NodeJS.ProcessEnv): Named | null {
  const { MORPHENE_OIDC_ISSUER: issuer, MORPHENE_OIDC_CLIENT: client, MORPHENE_OIDC_NAME: name } = environment
  if (!issuer) return null
  if (!client) throw new Error('MORPHENE_OIDC_ISSUER is set: name this desk to it by MORPHENE_OIDC_CLIENT, too.')
  const url = URL.canParse(issuer) ? new URL(issuer) : null
  if (!url || (url.protocol !== 'https:' && !(url.protocol === 'http:' && isLoopback(url.hostname))))
    throw new Error('MORPHENE_OIDC_ISSUER is an address with https; with http only on this machine.')
  const file = environment.MORPHENE_OIDC_SECRET_FILE
  return { issuer: url, client, secret: file ? readFileSync(file, 'utf8').trim() : null, name: name || url.hostname }
}
const named = namedProvider(process.env)
/** What the provider is called through which people sign in here; null where there is none. */
export const providerName = named?.name ?? null

/** Seconds that the provider is waited for. */
const patience = 10
let known: Promise<Configuration> | null = null
/** What the provider says of itself, asked once; where it does not answer, again with the next try. */
function configuration({ issuer, client, secret }: Named): Promise<Configuration> {
  known ??= discovery(issuer, client, undefined, secret === null ? None() : ClientSecretBasic(secret), {
    execute: [enableNonRepudiationChecks, ...(issuer.protocol === 'http:' ? [allowInsecureRequests] : [])],
    timeout: patience,
  }).catch((error: unknown) => {
    known = null
    throw error
  })
  return known
}

const wayCookie = behindTls ? '__Host-morphene-way' : 'morphene-way'
// The provider's page sends the browser back: what other sites link to must carry it (RFC 6265bis, 5.6.7.1).
const wayCookieOptions = { httpOnly: true, sameSite: 'lax', path: '/', secure: behindTls } as const

/** The address that the provider sends people back to. */
function backTo(event: H3Event): URL {
  const { host } = getRequestURL(event)
  return new URL(`${behindTls ? 'https' : 'http'}://${host}/api/provider/back`)
}

/**
 * Begins a way to the provider, tied to the browser that asks.
 * @returns the address that it goes to
 * @throws 404 where there is no provider, 503 where it does not answer
 */
export async function wayOut(event: H3Event, knex: Knex, purpose: WayPurpose): Promise<string> {
  if (!named) throw refusal(404, 'Nobody signs in through a provider here.')
  const provider = await configuration(named).catch(error => {
    log.warn({ error: String(error) }, 'the sign-in provider does not answer')
    throw refusal(503, `${named.name} does not answer just now. Try again, or sign in by your passphrase.`)
  })
  const way = { state: randomState(), nonce: randomNonce(), verifier: randomPKCECodeVerifier(), purpose }
  setCookie(event, wayCookie, await beginWay(knex, way), { ...wayCookieOptions, maxAge: wayHolds / 1000 })
  return buildAuthorizationUrl(provider, {
    redirect_uri: backTo(event).href,
    scope: 'openid',
    state: way.state,
    nonce: way.nonce,
    code_challenge: await calculatePKCECodeChallenge(way.verifier),
    code_challenge_method: 'S256',
  }).href
}

/** Somebody who came back: who the provider says that they are, and what they went for; or why that is not known. */
export type CameBack =
  | { readonly identity: Identity; readonly purpose: WayPurpose }
  | { readonly fault: WayFault; readonly purpose: WayPurpose | null }

function faultOf(error: unknown): WayFault {
  if (error instanceof AuthorizationResponseError) return 'refused'
  const { name, message } = error as Error
  return name === 'TimeoutError' || (error instanceof TypeError && message.includes('fetch failed'))
    ? 'away'
    : 'unproven'
}

/** Who came back. A way is gone once, in the browser in which it began, and within its time. */
export async function cameBack(event: H3Event, knex: Knex): Promise<CameBack> {
  const key = getCookie(event, wayCookie)
  deleteCookie(event, wayCookie, wayCookieOptions)
  const way = named && key ? await takeWay(knex, key) : null
  if (!named || !way) return { fault: 'lost', purpose: null }
  const { purpose } = way
  const at = backTo(event)
  at.search = getRequestURL(event).search
  try {
    const answer = await authorizationCodeGrant(await configuration(named), at, {
      expectedState: way.state,
      expectedNonce: way.nonce,
      pkceCodeVerifier: way.verifier,
    })
    const { iss, sub } = answer.claims()!
    return { identity: { issuer: iss, subject: sub }, purpose }
  } catch (error) {
    const fault = faultOf(error)
    log.warn({ fault, error: String(error) }, 'somebody came back from the sign-in provider and was not let in')
    return { fault, purpose }
  }
}
