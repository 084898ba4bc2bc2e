import type { ChildProcess } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Knex } from 'knex'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { startSignInProvider, type RunningProvider, type Spoiled } from '../../demo/sign-in-provider'
import { beginWay, takeWay } from '../../server/store/identities'
import { namedProvider } from '../../server/work/provider'
import type { Me } from '../../shared/people'
import { until } from '../support/desk-process'
import { beginServer, dropDatabase, endServer, ownDatabase, testDatabase } from './running'
import { Browser } from './studio'

const database = 'morphene_provider_test'
testDatabase()
const port = Number(process.env.MORPHENE_TEST_PORT ?? 3411) + 78
const base = `http://127.0.0.1:${port}`
let provider: RunningProvider
let server: ChildProcess
let knex: Knex
let folder = ''
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'morphene-provider-'))
  writeFileSync(join(folder, 'secret'), 'salt and tar\n')
  provider = await startSignInProvider({
    port: 0,
    client: 'the-desk',
    secret: 'salt and tar',
    people: { quay: 'Mira Quay', ferry: 'Ned Ferry', tarn: 'Olu Tarn' },
  })
  knex = await ownDatabase(database)
  server = beginServer(port, {
    MORPHENE_DB_NAME: database,
    MORPHENE_OIDC_ISSUER: provider.issuer,
    MORPHENE_OIDC_CLIENT: 'the-desk',
    MORPHENE_OIDC_SECRET_FILE: join(folder, 'secret'),
    MORPHENE_OIDC_NAME: 'Harbour office',
  })
  expect(await until(async () => (await fetch(`${base}/api/health`)).ok, 30_000)).toBe(true)
})
afterAll(async () => {
  await endServer(server)
  await dropDatabase(knex, database)
  await provider.end()
  rmSync(folder, { recursive: true, force: true })
})

/** A browser that goes through the provider: it has a jar for each cookie that it is given. */
class Traveller extends Browser {
  private readonly jar = new Map<string, string>()
  flagsOf = ''

  /** Begins a way; where to. */
  async begins(body: object): Promise<URL> {
    const response = await this.sends('POST', '/api/provider/begin', body)
    expect([response.status, response.ok ? '' : await response.text()]).toEqual([200, ''])
    this.flagsOf = response.headers.getSetCookie().join()
    return new URL(((await response.json()) as { address: string }).address)
  }
  async sends(method: string, path: string, body?: object): Promise<Response> {
    const response = await fetch(`${base}${path}`, {
      method,
      redirect: 'manual',
      headers: {
        ...(body ? { 'content-type': 'application/json' } : {}),
        cookie: [this.cookie, ...[...this.jar].map(([name, value]) => `${name}=${value}`)].filter(Boolean).join('; '),
      },
      ...(body ? { body: JSON.stringify(body) } : {}),
    })
    for (const given of response.headers.getSetCookie()) {
      const [name, value] = given.split(';', 1)[0]!.split('=') as [string, string]
      if (name === 'morphene') this.cookie = `${name}=${value}`
      else if (value === '') this.jar.delete(name)
      else this.jar.set(name, value)
    }
    return response
  }
  /** Comes back to the desk by an address that the provider gave; where the desk sends it then. */
  async comesBack(address: URL): Promise<string> {
    expect(`${address.origin}${address.pathname}`).toBe(`${base}/api/provider/back`)
    return (await this.sends('GET', address.pathname + address.search)).headers.get('location')!
  }
  async goes(body: object, as: string): Promise<string> {
    return this.comesBack(await saysWho(await this.begins(body), as))
  }
}
/** At the provider: says who they are. @returns where it sends the browser */
async function saysWho(address: URL, as: string): Promise<URL> {
  expect(address.origin).toBe(provider.issuer)
  address.searchParams.set('as', as)
  return new URL((await fetch(address, { redirect: 'manual' })).headers.get('location')!)
}
const traveller = () => new Traveller(base)
const signIn = { for: 'sign-in', to: '/library' }
const owner = traveller()
const ferry = traveller()
const whoIs = async (browser: Browser) => (await browser.get<Me>('/api/me')).person?.name ?? null

describe('a desk with a provider', () => {
  it('says what it is called, and knows nobody at first', async () => {
    expect(await owner.get<Me>('/api/me')).toMatchObject({ provider: 'Harbour office', connected: false })
    expect(await traveller().goes(signIn, 'quay')).toBe('/sign-in?provider=unknown')
  })

  it('knows whoever was signed in and went there, and lets them in from then on', async () => {
    const own = { name: 'M. Aldous', signIn: 'aldous', passphrase: 'nets drying on the north quay' }
    expect(await owner.status('PUT', '/api/me', own)).toBe(200)
    expect(await owner.goes({ for: 'connect' }, 'quay')).toBe('/people?provider=done')
    expect(await owner.get<Me>('/api/me')).toMatchObject({ connected: true })
    const other = traveller()
    expect(await other.goes(signIn, 'quay')).toBe('/library')
    expect([await whoIs(other), other.cookie === owner.cookie]).toEqual(['M. Aldous', false])
    // Of whom it is, only what the standard calls somebody is kept: no name, no address.
    expect(await knex('identities').select('issuer', 'subject')).toEqual([{ issuer: provider.issuer, subject: 'quay' }])
  })

  it('is joined by an invitation, without a passphrase of its own, once', async () => {
    const invitation = { name: 'N. Ferry', role: 'designer', also: [] }
    const { key } = (await (await owner.ask('POST', '/api/people/invitations', invitation)).json()) as { key: string }
    const joining = { for: 'join', key, name: 'Ned Ferry' }
    // Somebody who is here already cannot be two; the invitation is not used up by that.
    expect(await traveller().goes(joining, 'quay')).toBe('/sign-in?provider=taken')
    const late = traveller()
    const way = await late.begins(joining)
    expect(await ferry.goes(joining, 'ferry')).toBe('/')
    expect(await ferry.get<Me>('/api/me')).toMatchObject({
      person: { name: 'Ned Ferry', role: 'designer', signIn: null },
      connected: true,
    })
    expect(await late.comesBack(await saysWho(way, 'tarn'))).toBe('/sign-in?provider=no-link')
    expect(await traveller().says('POST', '/api/provider/begin', joining)).toEqual([
      404,
      expect.stringContaining('does not hold'),
    ])
    // A name is changed without a passphrase; the way in cannot be let go of without one.
    expect(await ferry.status('PUT', '/api/me', { name: 'Ned F.', signIn: null })).toBe(200)
    expect(await whoIs(ferry)).toBe('Ned F.')
    expect(await ferry.says('DELETE', '/api/me/identity', undefined)).toEqual([
      422,
      expect.stringContaining('Choose a passphrase first'),
    ])
    expect(await ferry.goes({ for: 'connect' }, 'quay')).toBe('/people?provider=taken')
  })

  it('lets nobody in whose access has ended, and no one who went without being signed in', async () => {
    const nobody = traveller()
    expect((await nobody.sends('POST', '/api/provider/begin', { for: 'connect' })).status).toBe(401)
    const { id } = (await ferry.get<Me>('/api/me')).person!
    expect(await owner.status('DELETE', `/api/people/${id}`)).toBe(200)
    expect(await traveller().goes(signIn, 'ferry')).toBe('/sign-in?provider=unknown')
    // With nobody else to come, the desk would be one of one again, which whoever is at the machine may open.
    const invitation = { name: 'O. Tarn', role: 'reader', also: [] }
    expect(await owner.status('POST', '/api/people/invitations', invitation)).toBe(201)
  })
})

describe('a way to the provider', () => {
  it('carries a state, a nonce and a challenge of its own, in a cookie that no script reads', async () => {
    const browser = traveller()
    const [one, two] = [await browser.begins(signIn), await traveller().begins(signIn)]
    for (const name of ['state', 'nonce', 'code_challenge']) {
      expect(one.searchParams.get(name)!.length).toBeGreaterThan(30)
      expect(one.searchParams.get(name)).not.toBe(two.searchParams.get(name))
    }
    expect(Object.fromEntries(one.searchParams)).toMatchObject({
      response_type: 'code',
      scope: 'openid',
      client_id: 'the-desk',
      code_challenge_method: 'S256',
      redirect_uri: `${base}/api/provider/back`,
    })
    expect(browser.flagsOf).toMatch(/^morphene-way=[\w-]{43};.*HttpOnly; SameSite=Lax$/)
  })

  it('is come back by in the browser in which it began alone, and once', async () => {
    const began = traveller()
    const back = await saysWho(await began.begins(signIn), 'quay')
    // Somebody else’s browser is sent there: it would be signed in as another.
    const lured = traveller()
    expect(await lured.comesBack(back)).toBe('/sign-in?provider=lost')
    await lured.begins(signIn)
    expect(await lured.comesBack(back)).toBe('/sign-in?provider=unproven')
    expect(await whoIs(lured)).toBeNull()
    expect(await began.comesBack(back)).toBe('/library')
    expect(await began.comesBack(back)).toBe('/sign-in?provider=lost')
  })

  it('ends with its time', async () => {
    const key = await beginWay(knex, { state: 's', nonce: 'n', verifier: 'v', purpose: { for: 'sign-in', to: '/' } })
    await knex('sign_in_ways').update({ until: new Date(Date.now() - 1) })
    expect(await takeWay(knex, key)).toBeNull()
    expect(await knex('sign_in_ways').where({ state: 's' }).first()).toBeUndefined()
  })

  it('goes to no other site when it is done', async () => {
    for (const to of ['//elsewhere.example', '/\\elsewhere.example', 'https://elsewhere.example'])
      expect(await traveller().goes({ for: 'sign-in', to }, 'quay')).toBe('/')
  })

  it('says that the provider said nobody', async () => {
    expect(await traveller().goes(signIn, '')).toBe('/sign-in?provider=refused')
  })

  it.each<Spoiled>(['nonce', 'audience', 'issuer', 'expired', 'signature', 'subject'])(
    'lets nobody in by a token with another %s',
    async what => {
      provider.spoil(what)
      const browser = traveller()
      expect(await browser.goes(signIn, 'quay')).toBe('/sign-in?provider=unproven')
      provider.spoil(null)
      expect([await whoIs(browser), browser.cookie]).toEqual([null, ''])
    },
  )

  it('gives the browser a new key, and the one that it had holds no longer', async () => {
    const browser = traveller()
    await browser.goes(signIn, 'quay')
    const before = browser.cookie
    await browser.goes(signIn, 'quay')
    const thief = traveller()
    thief.cookie = before
    expect([before === browser.cookie, await whoIs(browser), await whoIs(thief)]).toEqual([false, 'M. Aldous', null])
  })
})

describe('without a provider', () => {
  it('is a sentence where it does not answer any more', async () => {
    const before = provider.issuer
    await provider.end()
    const browser = traveller()
    const back = new URL(`${base}/api/provider/back?code=x&iss=${encodeURIComponent(before)}`)
    back.searchParams.set('state', (await browser.begins(signIn)).searchParams.get('state')!)
    expect(await browser.comesBack(back)).toBe('/sign-in?provider=away')
  })

  it('the environment says all of it, or nothing', () => {
    expect(namedProvider({})).toBeNull()
    const named = { MORPHENE_OIDC_ISSUER: 'https://office.example', MORPHENE_OIDC_CLIENT: 'desk' }
    expect(namedProvider(named)).toMatchObject({ client: 'desk', secret: null, name: 'office.example' })
    expect(() => namedProvider({ ...named, MORPHENE_OIDC_CLIENT: '' })).toThrow('MORPHENE_OIDC_CLIENT')
    expect(() => namedProvider({ ...named, MORPHENE_OIDC_ISSUER: 'http://office.example' })).toThrow('https')
    expect(() => namedProvider({ ...named, MORPHENE_OIDC_ISSUER: 'office' })).toThrow('https')
  })
})
