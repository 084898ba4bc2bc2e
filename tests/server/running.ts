import { spawn, type ChildProcess } from 'node:child_process'
import { join } from 'node:path'
import type { Knex } from 'knex'
import { projectFolder } from '../../server/library/files'
import type { Acting } from '../../server/store/acting'
import { connect, databaseAddress, makeDatabase, migrate } from '../../server/store/database'
import { until } from '../support/desk-process'
import { purgeDocument, trashDocument } from '../../server/store/trash'

/** The database that `npm test` started; tests never make one up. */
export function testDatabase(): { port: number; name: string } {
  const port = Number(process.env.MORPHENE_DB_PORT)
  const name = process.env.MORPHENE_DB_NAME ?? ''
  if (!port || !/^morphene_(\w+_)?test$/.test(name))
    throw new Error('these tests need the database that `npm test` starts (MORPHENE_DB_PORT, MORPHENE_DB_NAME)')
  return { port, name }
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

/** Starts a server of the built application, and waits for nothing. What it says is handed on where it is asked for. */
export function beginServer(
  port: number,
  settings: Record<string, string> = {},
  told?: (text: string) => void,
): ChildProcess {
  const server = spawn(process.execPath, [join(projectFolder(), '.output/server/index.mjs')], {
    stdio: told ? ['ignore', 'pipe', 'pipe'] : ['ignore', 'ignore', 'inherit'],
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
  for (const stream of [server.stdout, server.stderr]) stream?.on('data', (chunk: Buffer) => told!(chunk.toString()))
  return server
}

/** A server process of the built application on a port of its own, once it answers. */
export async function startServer(port: number): Promise<ChildProcess> {
  const server = beginServer(port)
  if (await until(async () => (await fetch(`http://127.0.0.1:${port}/api/health`)).ok, 30_000)) return server
  throw new Error('the server did not answer')
}

/** Listens to what a server tells of jobs; answers what was heard so far, and how to stop. */
export async function listenTo(
  base: string,
): Promise<{ readonly heard: () => string; readonly stop: () => Promise<void> }> {
  const listening = new AbortController()
  const stream = await fetch(`${base}/api/events`, { signal: listening.signal })
  let heard = ''
  const reader = stream.body!.getReader()
  const reading = (async () => {
    for (let next = await reader.read(); !next.done; next = await reader.read())
      heard += Buffer.from(next.value).toString()
  })().catch(() => {})
  return {
    heard: () => heard,
    stop: () => {
      listening.abort()
      return reading
    },
  }
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
