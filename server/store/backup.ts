import { spawn, type ChildProcess } from 'node:child_process'
import {
  createReadStream,
  createWriteStream,
  existsSync,
  mkdtempSync,
  renameSync,
  rmSync,
  writeFileSync,
} from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Transform, type TransformCallback } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { createGunzip, createGzip } from 'node:zlib'
import type { Knex } from 'knex'
import { connect, makeDatabase, migrate, type DatabaseAddress } from './database'
import { verifyStore, type Verified } from './verify'

/*
 * A backup is what the database's own tool writes of one moment, as SQL text, packed with gzip (RFC 1952): any MariaDB
 * reads it. It is taken while people work, and read back beside what is there before it takes its place.
 */

/** A backup or its reading failed; nothing was changed. The message is a sentence. */
export class BackupError extends Error {}

const mark = '-- Morphene backup 1\n'
/** The last line of what the database's tool writes: without it something is missing. */
const end = '-- Dump completed'
/** A server that was seen within this time is at work. Milliseconds. */
const atWork = 8_000

/** Runs one of the database's own tools on a database. Its secret stands in a file that nobody else reads. */
async function withTool<T>(
  tool: string,
  args: readonly string[],
  address: DatabaseAddress,
  work: (child: ChildProcess) => Promise<T>,
): Promise<T> {
  const folder = mkdtempSync(join(tmpdir(), 'morphene-'))
  const settings = join(folder, 'client.cnf')
  writeFileSync(
    settings,
    `[client]\nhost=${address.host}\nport=${address.port}\nprotocol=tcp\nuser=${address.user}\npassword="${address.password}"\n`,
    { mode: 0o600 },
  )
  const child = spawn(tool, [`--defaults-file=${settings}`, ...args], { stdio: ['pipe', 'pipe', 'pipe'] })
  let said = ''
  child.stderr!.on('data', (chunk: Buffer) => {
    said = (said + chunk.toString()).slice(-2000)
  })
  const ended = new Promise<number | null>((resolve, reject) => {
    child.once('error', reject)
    child.once('close', resolve)
  })
  // Whoever feeds the tool may fail first: then that is told, and not that nobody waited for the end.
  ended.catch(() => undefined)
  try {
    const result = await work(child)
    const code = await ended
    if (code !== 0) throw new BackupError(`${tool} failed: ${said.trim() || `code ${code}`}`)
    return result
  } catch (error) {
    if (error instanceof BackupError) throw error
    const code = await ended.catch((failed: Error) => failed.message)
    throw new BackupError(said.trim() === '' ? `${tool} failed: ${String(code)}` : `${tool} failed: ${said.trim()}`)
  } finally {
    child.kill()
    rmSync(folder, { recursive: true, force: true })
  }
}

/** Passes text on, and answers its first and last letters. */
class Ends extends Transform {
  first = ''
  last = ''

  override _transform(chunk: Buffer, _encoding: string, done: TransformCallback): void {
    if (this.first.length < mark.length) this.first = (this.first + chunk.toString('latin1')).slice(0, mark.length)
    this.last = (this.last + chunk.subarray(-200).toString('latin1')).slice(-200)
    done(null, chunk)
  }
}

/**
 * Writes a backup of one moment of a database to a new file that its owner alone may read. It appears under its name when it
 * is whole.
 * @throws BackupError where the file is there already, or the database's tool fails: no file is left
 */
export async function writeBackup(address: DatabaseAddress, file: string): Promise<void> {
  if (existsSync(file)) throw new BackupError(`${file} is there already. It was not touched: name another file.`)
  const part = `${file}.part`
  const ends = new Ends()
  const args = ['--single-transaction', '--quick', '--hex-blob', '--skip-lock-tables', '--no-tablespaces']
  try {
    await withTool('mariadb-dump', [...args, '--default-character-set=utf8mb4', address.database], address, child => {
      child.stdin!.end()
      const marked = async function* () {
        yield Buffer.from(mark)
        yield* child.stdout as AsyncIterable<Buffer>
      }
      return pipeline(marked, ends, createGzip({ level: 6 }), createWriteStream(part, { mode: 0o600 }))
    })
    if (!ends.last.includes(end)) throw new BackupError('The backup did not come to its end. No file was kept.')
    renameSync(part, file)
  } catch (error) {
    rmSync(part, { force: true })
    throw error
  }
}

/** Reads a backup into a database, which is made anew. @throws BackupError where it is none, or is not whole */
async function readInto(address: DatabaseAddress, file: string): Promise<void> {
  await dropDatabase(address)
  await makeDatabase(address)
  const ends = new Ends()
  let broken = ''
  await withTool('mariadb', ['--default-character-set=utf8mb4', '--batch', address.database], address, async child => {
    child.stdout!.resume()
    try {
      await pipeline(createReadStream(file), createGunzip(), ends, child.stdin!)
    } catch (error) {
      broken = error instanceof Error ? error.message : String(error)
      child.stdin!.destroy()
      throw error
    }
  }).catch((error: unknown) => {
    const { code } = (error ?? {}) as { code?: string }
    if (ends.first !== mark) throw new BackupError(`${file} is no backup of a desk. Nothing was changed.`)
    throw new BackupError(
      `${file} cannot be read to its end (${code ?? (broken || (error as Error).message)}). Nothing was changed.`,
    )
  })
  if (ends.first !== mark) throw new BackupError(`${file} is no backup of a desk. Nothing was changed.`)
  if (!ends.last.includes(end)) throw new BackupError(`${file} ends too early. Nothing was changed.`)
}

async function dropDatabase(address: DatabaseAddress): Promise<void> {
  await makeDatabase(address)
  const knex = connect(address, 1)
  await knex.raw('drop database ??', [address.database]).finally(() => knex.destroy())
}

async function tablesOf(knex: Knex): Promise<string[]> {
  const [rows] = (await knex.raw('show tables')) as [Record<string, string>[]]
  return rows.map(row => Object.values(row)[0]!)
}

/** Why nothing may take the place of what a database holds; null where it may. */
async function whyNot(knex: Knex, replace: boolean): Promise<string | null> {
  const tables = await tablesOf(knex)
  if (!tables.includes('documents')) return null
  if (
    tables.includes('servers') &&
    (await knex('servers')
      .where('seen', '>', new Date(Date.now() - atWork))
      .first('id'))
  )
    return 'A server is at work on this desk. End it first (npm start ends with Ctrl+C). Nothing was changed.'
  if (!replace && (await knex('documents').first('id')))
    return 'There are documents on this desk. With --replace they give way, and are kept in a database beside it. Nothing was changed.'
  return null
}

/** Where what gave way is kept until the next time. */
export const replacedName = (database: string) => `${database}_replaced`

/**
 * Reads a backup back: into a database beside the desk's, where every piece of content is held against its hash and the
 * tables are brought up to date; then all tables change places in one statement.
 * @throws BackupError where it is no whole backup, or a server is at work: nothing was changed
 */
export async function restoreBackup(
  address: DatabaseAddress,
  file: string,
  { replace = false }: { readonly replace?: boolean } = {},
): Promise<Verified> {
  if (!existsSync(file)) throw new BackupError(`There is no file ${file}. Nothing was changed.`)
  await makeDatabase(address)
  const knex = connect(address, 1)
  const beside = { ...address, database: `${address.database}_restoring` }
  const fresh = connect(beside, 1)
  try {
    const reason = await whyNot(knex, replace)
    if (reason !== null) throw new BackupError(reason)
    await readInto(beside, file)
    await migrate(fresh).catch((error: Error) => {
      throw new BackupError(`This backup was made by a newer Morphene, or is damaged: ${error.message}`)
    })
    const verified = await verifyStore(fresh)
    if (verified.faults.length > 0)
      throw new BackupError(`This backup is not whole: ${verified.faults.slice(0, 3).join('; ')}. Nothing was changed.`)
    const replaced = { ...address, database: replacedName(address.database) }
    await dropDatabase(replaced)
    await makeDatabase(replaced)
    const moves = [
      ...(await tablesOf(knex)).map(name => [address.database, name, replaced.database, name]),
      ...(await tablesOf(fresh)).map(name => [beside.database, name, address.database, name]),
    ]
    await knex.raw(`rename table ${moves.map(() => '??.?? to ??.??').join(', ')}`, moves.flat())
    return verified
  } finally {
    await Promise.all([knex.destroy(), fresh.destroy()])
    await dropDatabase(beside)
  }
}
