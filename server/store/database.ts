import { readFileSync } from 'node:fs'
import knexFactory, { type Knex } from 'knex'
import { log } from '../work/log'
import { migrations } from './migrations/list'

/** How the database is reached; set by the start and test commands. */
export interface DatabaseAddress {
  readonly host: string
  readonly port: number
  readonly user: string
  readonly password: string
  readonly database: string
}

/** A secret out of its file. */
const secret = (file: string | undefined): string => (file === undefined ? '' : readFileSync(file, 'utf8').trim())

/** The address that settings of the environment say. */
export function databaseAddress(environment: NodeJS.ProcessEnv = process.env): DatabaseAddress {
  return {
    host: environment.MORPHENE_DB_HOST ?? '127.0.0.1',
    port: Number(environment.MORPHENE_DB_PORT ?? 3407),
    user: environment.MORPHENE_DB_USER ?? 'morphene',
    password: environment.MORPHENE_DB_PASSWORD ?? secret(environment.MORPHENE_DB_PASSWORD_FILE),
    database: environment.MORPHENE_DB_NAME ?? 'morphene',
  }
}

/** How long is waited for a connection. Milliseconds. */
const waitFor = 5_000

const clientOf = ({ host, port, user, password }: DatabaseAddress) => ({
  host,
  port,
  user,
  password,
  connectTimeout: waitFor,
})

/** Makes the database if it is not there: for an account that may. Bring it up to date with `migrate`. */
export async function makeDatabase(address: DatabaseAddress = databaseAddress()): Promise<void> {
  const knex = knexFactory({ client: 'mysql2', connection: clientOf(address), pool: { min: 0, max: 1 } })
  try {
    await knex.raw('create database if not exists ?? character set utf8mb4 collate utf8mb4_bin', [address.database])
  } finally {
    await knex.destroy()
  }
}

/** What the database's client says goes where everything goes that a server says. */
const say = (level: 'warn' | 'error') => (what: unknown) =>
  log[level]({ of: 'database', what: String(what).split('\n', 1)[0] }, 'told')
const told = { deprecate: () => undefined, debug: () => undefined }

/** Connects to a database that is there. */
export function connect(address: DatabaseAddress = databaseAddress(), connections = 8): Knex {
  return knexFactory({
    client: 'mysql2',
    connection: { ...clientOf(address), database: address.database, charset: 'utf8mb4' },
    pool: { min: 0, max: connections },
    // Whoever waits is told after a while, and may ask again.
    acquireConnectionTimeout: waitFor,
    log: { ...told, warn: say('warn'), error: say('error') },
  })
}

/** The last step of the schema. */
export const schemaNow: string = migrations.at(-1)!.name

/** Brings the schema up to date. */
export async function migrate(knex: Knex): Promise<void> {
  const migrationSource: Knex.MigrationSource<(typeof migrations)[number]> = {
    getMigrations: () => Promise.resolve(migrations),
    getMigrationName: migration => migration.name,
    getMigration: migration => Promise.resolve(migration),
  }
  await knex.migrate.latest({ migrationSource })
}

let shared: Knex | null = null

/** The server's connections. They are made when they are needed: a database that was away is reached when it is back. */
export function database(): Promise<Knex> {
  return Promise.resolve((shared ??= connect()))
}

let watching: Knex | null = null

/** One connection that nothing else uses: whether the database is there is answered while all others are at work. */
export function watchingDatabase(): Knex {
  return (watching ??= connect(databaseAddress(), 1))
}

/** Codes of errors that say that the database is not reached, or went away in the middle. */
const awayCodes: ReadonlySet<unknown> = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'ETIMEDOUT',
  'EPIPE',
  'EHOSTUNREACH',
  'ENOTFOUND',
  'PROTOCOL_CONNECTION_LOST',
  'ER_SERVER_SHUTDOWN',
  'ER_CON_COUNT_ERROR',
])

/** Whether an error comes of the database being away. */
export function isAway(error: unknown): boolean {
  if (!(error instanceof Error)) return false
  return awayCodes.has((error as Error & { code?: string }).code) || error.name === 'KnexTimeoutError'
}
