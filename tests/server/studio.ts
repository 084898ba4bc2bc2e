import type { ChildProcess } from 'node:child_process'
import type { Knex } from 'knex'
import { afterAll, beforeAll, expect } from 'vitest'
import { actorOf } from '../../server/store/people'
import { beginSession } from '../../server/store/sessions'
import type { Right } from '../../shared/rights'
import type { PersonRole } from '../../shared/people'
import { until } from '../support/desk-process'
import { beginServer, dropDatabase, endServer, ownDatabase, testDatabase } from './running'

/** The address of something that nobody has. */
export const anyId = '00000000-0000-4000-8000-000000000000'

/** A browser: it holds the key that it was given, and sends it with what it asks. */
export class Browser {
  cookie = ''
  flags = ''

  constructor(private readonly base: string) {}

  async ask(method: string, path: string, body?: unknown): Promise<Response> {
    const response = await fetch(`${this.base}${path}`, {
      method,
      headers: {
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
        ...(this.cookie === '' ? {} : { cookie: this.cookie }),
      },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    })
    const given = response.headers.get('set-cookie')
    if (given) {
      this.cookie = given.split(';', 1)[0]!
      this.flags = given
    }
    return response
  }
  async status(method: string, path: string, body?: unknown): Promise<number> {
    return (await this.ask(method, path, body)).status
  }
  async get<T>(path: string): Promise<T> {
    return (await (await this.ask('GET', path)).json()) as T
  }
  async says(method: string, path: string, body: unknown): Promise<[number, string]> {
    const response = await this.ask(method, path, body)
    return [response.status, await response.text()]
  }
}

/** Somebody of a studio: the desk's own where no other is named. */
export interface Comer {
  readonly id: string
  readonly name: string
  readonly role: PersonRole
  readonly also?: readonly Right[]
  readonly studio?: string
}

/** A server over an empty database of its own, for the tests of one file, and browsers before it. */
export interface Studio {
  readonly port: number
  readonly base: string
  /** Its database; there from the first test on. */
  readonly knex: () => Knex
  readonly browser: () => Browser
  /** Somebody comes to work here and signs in; with `--sign-in` or not. */
  comes(browser: Browser, who: Comer): Promise<void>
  /** Somebody who is here already signs in. */
  signsIn(browser: Browser, who: Comer): Promise<void>
}

/** `offset`: by how much its port lies behind the first one of tests; each file has its own. */
export function runStudio(offset: number, database: string): Studio {
  testDatabase()
  const port = Number(process.env.MORPHENE_TEST_PORT ?? 3411) + offset
  const base = `http://127.0.0.1:${port}`
  let server: ChildProcess
  let knex: Knex
  beforeAll(async () => {
    knex = await ownDatabase(database)
    server = beginServer(port, { MORPHENE_DB_NAME: database })
    expect(await until(async () => (await fetch(`${base}/api/health`)).ok, 30_000)).toBe(true)
  })
  afterAll(async () => {
    await endServer(server)
    await dropDatabase(knex, database)
  })
  const row = ({ id, role, also = [], studio = 'desk' }: Comer) => ({
    id,
    owner: studio,
    role,
    also: JSON.stringify(also),
  })
  const signsIn = async (browser: Browser, who: Comer) => {
    browser.cookie = `morphene=${(await beginSession(knex, actorOf(row(who)), 'test')).key}`
  }
  return {
    port,
    base,
    knex: () => knex,
    browser: () => new Browser(base),
    comes: async (browser, who) => {
      await knex('people').insert({ ...row(who), name: who.name, created: new Date() })
      await signsIn(browser, who)
    },
    signsIn,
  }
}
