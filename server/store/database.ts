import knexFactory, { type Knex } from 'knex'
import { migrations } from './migrations/list'

/** How the database is reached; set by the start and test commands. */
export interface DatabaseAddress {
  readonly host: string
  readonly port: number
  readonly user: string
  readonly password: string
  readonly database: string
}

export function databaseAddress(): DatabaseAddress {
  return {
    host: process.env.MORPHENE_DB_HOST ?? '127.0.0.1',
    port: Number(process.env.MORPHENE_DB_PORT ?? 3407),
    user: process.env.MORPHENE_DB_USER ?? 'root',
    password: process.env.MORPHENE_DB_PASSWORD ?? '',
    database: process.env.MORPHENE_DB_NAME ?? 'morphene',
  }
}

/** How long is waited for a connection. Milliseconds. */
const waitFor = 5_000

/** Connects, and makes the database if it is not there. Bring it up to date with `migrate`. */
export async function connect(address: DatabaseAddress = databaseAddress()): Promise<Knex> {
  const settings = {
    host: address.host,
    port: address.port,
    user: address.user,
    password: address.password,
    connectTimeout: waitFor,
  }
  const first = knexFactory({ client: 'mysql2', connection: settings, pool: { min: 0, max: 1 } })
  try {
    await first.raw('create database if not exists ?? character set utf8mb4 collate utf8mb4_bin', [address.database])
  } finally {
    await first.destroy()
  }
  return knexFactory({
    client: 'mysql2',
    connection: { ...settings, database: address.database, charset: 'utf8mb4' },
    pool: { min: 0, max: 8 },
    // Whoever waits is told after a while, and may ask again.
    acquireConnectionTimeout: waitFor,
  })
}

/** Brings the schema up to date. */
export async function migrate(knex: Knex): Promise<void> {
  const migrationSource: Knex.MigrationSource<(typeof migrations)[number]> = {
    getMigrations: () => Promise.resolve(migrations),
    getMigrationName: migration => migration.name,
    getMigration: migration => Promise.resolve(migration),
  }
  await knex.migrate.latest({ migrationSource })
}

let shared: Promise<Knex> | null = null

/** The server's connection pool. A server that starts while the database is away finds it when it is back. */
export function database(): Promise<Knex> {
  shared ??= connect().catch((error: unknown) => {
    shared = null
    throw error
  })
  return shared
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
