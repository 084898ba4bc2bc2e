import { createHash, randomUUID } from 'node:crypto'
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http'
import type { AddressInfo } from 'node:net'
import { exportJWK, generateKeyPair, SignJWT, type JWTPayload } from 'jose'
import { escapeHtml } from '../core/format/html/write'

/*
 * A simulated provider to sign in through, so that a desk can be tried with one: OpenID Connect Core 1.0, the code flow
 * with PKCE, on this machine alone. It asks nobody for a passphrase: whoever comes says who of its people they are.
 */

/** What it puts into a token that a desk must not believe. */
export type Spoiled = 'nonce' | 'audience' | 'issuer' | 'expired' | 'signature' | 'subject'

export interface ProviderOptions {
  readonly port: number
  readonly client: string
  /** What the desk proves itself by; null where it has none. */
  readonly secret: string | null
  /** Names of its people, by their subjects. */
  readonly people: Readonly<Record<string, string>>
}

export interface RunningProvider {
  readonly issuer: string
  /** From now on its tokens have this fault; null: none. */
  spoil(what: Spoiled | null): void
  end(): Promise<void>
}

interface Code {
  readonly subject: string
  readonly redirect: string
  readonly nonce: string
  readonly challenge: string
}

const answer = (response: ServerResponse, status: number, body: unknown) =>
  response.writeHead(status, { 'content-type': 'application/json' }).end(JSON.stringify(body))

async function formOf(request: IncomingMessage): Promise<URLSearchParams> {
  let text = ''
  for await (const chunk of request) {
    text += String(chunk)
    if (text.length > 10_000) break
  }
  return new URLSearchParams(text)
}

/** Whether a desk proved itself: name and secret are encoded as in forms before they are joined (RFC 6749, 2.3.1). */
function isProof(header: string, client: string, secret: string): boolean {
  const [name = '', proof = ''] = Buffer.from(header.replace(/^Basic /, ''), 'base64')
    .toString()
    .split(':')
  const plain = (text: string) => new URLSearchParams(`text=${text}`).get('text')
  return plain(name) === client && plain(proof) === secret
}

/** The page on which somebody says who they are. */
function page(people: ProviderOptions['people'], query: URLSearchParams): string {
  const carried = [...query].map(
    ([name, value]) => `<input type="hidden" name="${escapeHtml(name)}" value="${escapeHtml(value)}">`,
  )
  const choices = Object.entries(people).map(
    ([subject, name]) => `<p><button name="as" value="${escapeHtml(subject)}">${escapeHtml(name)}</button></p>`,
  )
  return (
    '<!doctype html><html lang="en"><meta charset="utf-8"><title>Harbour office</title><h1>Harbour office</h1>' +
    `<p>A provider for trials: say who you are.</p><form>${carried.join('')}${choices.join('')}` +
    '<p><button name="as" value="">Nobody: go back</button></p></form></html>'
  )
}

/** Starts it. @throws where the port is taken */
export async function startSignInProvider(options: ProviderOptions): Promise<RunningProvider> {
  const { publicKey, privateKey } = await generateKeyPair('RS256')
  const other = await generateKeyPair('RS256')
  const key = { ...(await exportJWK(publicKey)), kid: 'one', use: 'sig', alg: 'RS256' }
  const codes = new Map<string, Code>()
  let spoiled: Spoiled | null = null
  let issuer = ''

  /** Somebody chose: back to the desk with a code, or without. */
  function decided(query: URLSearchParams, response: ServerResponse): void {
    const redirect = query.get('redirect_uri') ?? ''
    const back = new URL(redirect)
    back.searchParams.set('state', query.get('state') ?? '')
    back.searchParams.set('iss', issuer)
    const subject = query.get('as') ?? ''
    if (subject in options.people) {
      const code = randomUUID()
      codes.set(code, {
        subject,
        redirect,
        nonce: query.get('nonce') ?? '',
        challenge: query.get('code_challenge') ?? '',
      })
      back.searchParams.set('code', code)
    } else back.searchParams.set('error', 'access_denied')
    response.writeHead(302, { location: back.href }).end()
  }

  /** What the desk is told for a code, which holds once and for whoever began the way (RFC 6749, 4.1.3; RFC 7636, 4.6). */
  async function token(request: IncomingMessage, response: ServerResponse): Promise<void> {
    const form = await formOf(request)
    const proven =
      options.secret === null || isProof(request.headers.authorization ?? '', options.client, options.secret)
    const code = codes.get(form.get('code') ?? '')
    codes.delete(form.get('code') ?? '')
    const challenge = createHash('sha256')
      .update(form.get('code_verifier') ?? '')
      .digest('base64url')
    if (!proven) return void answer(response, 401, { error: 'invalid_client' })
    if (!code || code.redirect !== form.get('redirect_uri') || code.challenge !== challenge)
      return void answer(response, 400, { error: 'invalid_grant' })
    const claims: JWTPayload = { nonce: spoiled === 'nonce' ? 'of somebody else' : code.nonce }
    const signed = new SignJWT(claims)
      .setProtectedHeader({ alg: 'RS256', kid: 'one' })
      .setIssuer(spoiled === 'issuer' ? 'https://elsewhere.example' : issuer)
      .setAudience(spoiled === 'audience' ? 'another-desk' : options.client)
      .setIssuedAt()
      .setExpirationTime(spoiled === 'expired' ? '-10 min' : '5 min')
    if (spoiled !== 'subject') signed.setSubject(code.subject)
    answer(response, 200, {
      access_token: randomUUID(),
      token_type: 'Bearer',
      expires_in: 300,
      id_token: await signed.sign(spoiled === 'signature' ? other.privateKey : privateKey),
    })
  }

  async function respond(request: IncomingMessage, response: ServerResponse): Promise<void> {
    const { pathname, searchParams } = new URL(request.url ?? '/', issuer)
    if (pathname === '/.well-known/openid-configuration')
      answer(response, 200, {
        issuer,
        authorization_endpoint: `${issuer}/authorize`,
        token_endpoint: `${issuer}/token`,
        jwks_uri: `${issuer}/keys`,
        response_types_supported: ['code'],
        subject_types_supported: ['public'],
        id_token_signing_alg_values_supported: ['RS256'],
        code_challenge_methods_supported: ['S256'],
        authorization_response_iss_parameter_supported: true,
      })
    else if (pathname === '/keys') answer(response, 200, { keys: [key] })
    else if (pathname === '/token') await token(request, response)
    else if (pathname !== '/authorize' || !URL.canParse(searchParams.get('redirect_uri') ?? ''))
      answer(response, 404, { error: 'not_found' })
    else if (searchParams.has('as')) decided(searchParams, response)
    else response.writeHead(200, { 'content-type': 'text/html; charset=utf-8' }).end(page(options.people, searchParams))
  }

  const server: Server = createServer((request, response) => {
    respond(request, response).catch(() => answer(response, 500, { error: 'server_error' }))
  })
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject)
    server.listen(options.port, '127.0.0.1', resolve)
  })
  // Another site than the desk’s to a browser, as any provider is.
  issuer = `http://localhost:${(server.address() as AddressInfo).port}`
  return {
    issuer,
    spoil: what => void (spoiled = what),
    end: () => new Promise(resolve => server.close(() => resolve())),
  }
}
