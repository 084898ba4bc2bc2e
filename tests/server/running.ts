import { spawn, type ChildProcess } from 'node:child_process'
import { join } from 'node:path'
import type { Knex } from 'knex'
import { projectFolder } from '../../server/library/files'
import type { Acting } from '../../server/store/acting'
import { connect, databaseAddress, makeDatabase, migrate } from '../../server/store/database'
import { purgeDocument, trashDocument } from '../../server/store/trash'

/** The database that `npm test` started; tests never make one up. */
export function testDatabase(): { port: number; name: string } {
  const port = Number(process.env.MORPHENE_DB_PORT)
  if (!port || process.env.MORPHENE_DB_NAME !== 'morphene_test')
    throw new Error('these tests need the database that `npm test` starts (MORPHENE_DB_PORT, MORPHENE_DB_NAME)')
  return { port, name: 'morphene_test' }
}

/** A database of a test's own without any tables; it is dropped with `dropDatabase`. */
export async function bareDatabase(name: string): Promise<Knex> {
  testDatabase()
  const address = { ...databaseAddress(), database: name }
  await makeDatabase(address)
  return connect(address)
}

/** A database of a test's own, empty and up to date; it is dropped with `dropDatabase`. */
export async function ownDatabase(name: string): Promise<Knex> {
  const knex = await bareDatabase(name)
  await migrate(knex)
  return knex
}

/** Takes a test's own database away, and ends its connections. */
export async function dropDatabase(knex: Knex, name: string): Promise<void> {
  await knex.raw('drop database ??', [name])
  await knex.destroy()
}

/** Takes a document off the shelf and lets it go for good. */
export async function letGo(acting: Acting, id: string): Promise<void> {
  await trashDocument(acting, id)
  await purgeDocument(acting, id)
}

/** The account that a server reaches the database with: it may do less than tests do. */
export function serverAccount(): Record<string, string> {
  const secret = process.env.MORPHENE_SERVER_SECRET
  if (secret === undefined)
    throw new Error('these tests need the accounts that `npm test` makes (MORPHENE_SERVER_SECRET)')
  return { MORPHENE_DB_USER: 'morphene', MORPHENE_DB_PASSWORD_FILE: secret }
}

/** A server process of the built application on a port of its own. */
export async function startServer(port: number, settings: Record<string, string> = {}): Promise<ChildProcess> {
  const server = spawn(process.execPath, [join(projectFolder(), '.output/server/index.mjs')], {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: {
      ...process.env,
      ...serverAccount(),
      MORPHENE_FOLDER: projectFolder(),
      NITRO_HOST: '127.0.0.1',
      NITRO_PORT: String(port),
      NODE_ENV: 'production',
      ...settings,
    },
  })
  for (let tries = 0; tries < 200; tries++) {
    try {
      if ((await fetch(`http://127.0.0.1:${port}/api/health`)).ok) return server
    } catch {
      /* not yet */
    }
    await new Promise(resolve => setTimeout(resolve, 100))
  }
  throw new Error('the server did not answer')
}

/** Ends a server and waits until it is gone. */
export function endServer(server: ChildProcess, signal: NodeJS.Signals = 'SIGTERM'): Promise<void> {
  return new Promise(resolve => {
    if (server.exitCode !== null || server.signalCode !== null) {
      resolve()
      return
    }
    server.once('exit', () => resolve())
    server.kill(signal)
  })
}
