import { randomUUID } from 'node:crypto'
import type { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { createGunzip } from 'node:zlib'
import type { Knex } from 'knex'
import { extract, type Header } from 'tar-stream'
import { z } from 'zod'
import { contentHash } from '../library/files'
import { putBlob } from './blobs'
import { schemaNow } from './database'
import { askForSurvey } from './jobs'
import { studioParts, tableOf, type StudioPart } from './studio-parts'

/*
 * A studio comes by its package, in one transaction: wholly, or not at all. Nothing of the package is believed: content is
 * held against its hash, and rows name nothing but what came with them.
 */

/** A package is none, is not whole, or cannot come here. The message is a sentence. */
export class StudioPackageError extends Error {}

const none = 'This is no package of a studio. Nothing was changed.'
function refuse(what: string): never {
  throw new StudioPackageError(`${what} Nothing was changed.`)
}

/** The largest piece of content, and the largest file of rows. Bytes. */
const most = { content: 512 * 1024 * 1024, rows: 256 * 1024 * 1024, entries: 5_000_000 } as const
/** As many rows go into one statement. */
const rowsAtOnce = 50

const labelSchema = z.object({
  morphene: z.literal('studio'),
  format: z.literal(1),
  schema: z.string().max(100),
  name: z.string().min(1).max(120),
  trashDays: z.int().min(1).max(3650),
})
const rowSchema = z.record(z.string(), z.union([z.string(), z.number(), z.boolean(), z.null()]))
type Row = z.infer<typeof rowSchema>

/** What came. */
export interface CameStudio {
  readonly owner: string
  readonly name: string
  readonly documents: number
  readonly versions: number
  readonly pieces: number
}

/** A file of the archive. */
type Entry = AsyncIterable<unknown> & { readonly header: Header }

async function bytesOf(entry: Entry, limit: number): Promise<Buffer> {
  if (entry.header.size > limit) refuse(`“${entry.header.name}” in the package is larger than any that a desk makes.`)
  const chunks: Buffer[] = []
  for await (const chunk of entry) chunks.push(chunk as Buffer)
  return Buffer.concat(chunks)
}

function labelOf(bytes: Buffer): z.infer<typeof labelSchema> {
  let label
  try {
    label = labelSchema.parse(JSON.parse(bytes.toString()))
  } catch {
    throw new StudioPackageError(none)
  }
  if (label.schema !== schemaNow)
    refuse('This package was made by another version of Morphene. Bring both desks to the same one first.')
  return label
}

/** Which columns a table has, and which of them hold times. */
async function columnsOf(knex: Knex, table: string): Promise<ReadonlyMap<string, boolean>> {
  const info = await knex(table).columnInfo()
  return new Map(Object.entries(info).map(([name, { type }]) => [name, type === 'datetime']))
}

/** Takes the rows of a package in, table by table. */
class Arrival {
  private readonly ids = new Map<string, Set<string>>(Object.values(tableOf).map(table => [table, new Set()]))
  /** People who go by another id here: the first one of every desk has the same. */
  private readonly renamed = new Map<string, string>()
  readonly owner = randomUUID()
  readonly content = new Set<string>()
  readonly counts = new Map<string, number>()

  constructor(private readonly knex: Knex) {}

  async takeContent(hash: string, bytes: Buffer): Promise<void> {
    if (contentHash(bytes) !== hash) refuse('A piece of content in the package is damaged.')
    await putBlob(this.knex, bytes, hash)
    this.content.add(hash)
  }

  async takeRows(part: StudioPart, bytes: Buffer): Promise<void> {
    const columns = await columnsOf(this.knex, part.table)
    let some: Record<string, unknown>[] = []
    const flush = async () => {
      if (some.length > 0) await this.knex(part.table).insert(some)
      some = []
    }
    for (const line of bytes.toString().split('\n')) {
      if (line === '') continue
      some.push(this.rowOf(part, columns, line))
      if (some.length === rowsAtOnce) await flush()
    }
    await flush()
  }

  private rowOf(part: StudioPart, columns: ReadonlyMap<string, boolean>, line: string): Record<string, unknown> {
    const { table, by, people = [], names = {}, without = [] } = part
    let row: Row
    try {
      row = rowSchema.parse(JSON.parse(line))
    } catch {
      throw new StudioPackageError('A row in the package cannot be read. Nothing was changed.')
    }
    const made: Record<string, unknown> = {}
    for (const [name, value] of Object.entries(row)) {
      const isTime = columns.get(name)
      if (isTime === undefined || name === 'owner' || without.includes(name))
        refuse(`A row in the package has a field that “${table}” has not.`)
      made[name] = isTime && value !== null ? new Date(String(value)) : value
    }
    if (by === 'owner') made.owner = this.owner
    else this.mustHave(tableOf[by], row[by])
    for (const [column, what] of Object.entries(names))
      if (row[column] !== null) this.mustHave(tableOf[what], row[column])
    if (typeof row.hash === 'string' && !this.content.has(row.hash))
      refuse('A piece of content is missing in the package.')
    for (const column of people) if (row[column] !== null) made[column] = this.personOf(String(row[column]))
    if (typeof row.id === 'string') this.ids.get(table)?.add(table === 'people' ? String(made.id) : row.id)
    this.counts.set(table, (this.counts.get(table) ?? 0) + 1)
    return made
  }

  private mustHave(table: string, id: unknown): void {
    if (!this.ids.get(table)!.has(String(id))) refuse('A row in the package hangs on something that is not in it.')
  }

  private personOf(id: string): string {
    if (id !== 'desk') return id
    if (!this.renamed.has(id)) this.renamed.set(id, randomUUID())
    return this.renamed.get(id)!
  }

  /** What was being done elsewhere is done no more; what is not counted is counted here. */
  async settle(): Promise<void> {
    const { knex, owner } = this
    const open = knex('batches').where({ owner }).whereIn('state', ['planning', 'planned', 'running', 'paused'])
    await knex('batch_documents')
      .whereIn('state', ['waiting', 'planned'])
      .whereIn('batch', open.clone().select('id'))
      .update({ state: 'cancelled' })
    await open.update({ state: 'cancelled' })
    for (const { id, version } of await knex('documents')
      .where({ owner })
      .where(query => query.whereNull('counted').orWhereRaw('counted <> version'))
      .select<{ id: string; version: number }[]>('id', 'version'))
      await askForSurvey(knex, id, version)
  }
}

/** Reads a package, entry by entry, within a transaction. */
async function takeAll(knex: Knex, from: Readable): Promise<CameStudio> {
  const archive = extract()
  const read = pipeline(from, createGunzip(), archive)
  read.catch(() => undefined)
  const arrival = new Arrival(knex)
  let label: z.infer<typeof labelSchema> | null = null
  let entries = 0
  for await (const entry of archive) {
    const { name } = entry.header
    if (++entries > most.entries) refuse('The package has more in it than any that a desk makes.')
    const [folder, of] = name.split('/') as [string, string | undefined]
    if (label === null) {
      if (name !== 'studio.json') refuse('This is no package of a studio.')
      label = labelOf(await bytesOf(entry, 10_000))
      await knex('owners').insert({
        id: arrival.owner,
        name: label.name,
        trash_days: label.trashDays,
        library: 1,
        created: new Date(),
      })
    } else if (folder === 'content') await arrival.takeContent(of ?? '', await bytesOf(entry, most.content))
    else {
      const part = studioParts.find(each => each.travels && each.table === of)
      if (folder !== 'rows' || !part)
        throw new StudioPackageError(`“${name}” belongs in no package. Nothing was changed.`)
      await arrival.takeRows(part, await bytesOf(entry, most.rows))
    }
  }
  await read
  if (label === null) throw new StudioPackageError(none)
  if (!(await knex('people').where({ owner: arrival.owner, role: 'owner' }).whereNull('ended').first('id')))
    refuse('Nobody in the package is an owner of the studio.')
  await arrival.settle()
  const count = (table: string) => arrival.counts.get(table) ?? 0
  return {
    owner: arrival.owner,
    name: label.name,
    documents: count('documents'),
    versions: count('versions'),
    pieces: arrival.content.size,
  }
}

/**
 * A studio comes to this installation by its package, beside those that are here. Nobody's way in comes along: its owners
 * come in by links that are made for them.
 * @throws StudioPackageError with a sentence; nothing was changed
 */
export async function takeStudioIn(knex: Knex, from: Readable): Promise<CameStudio> {
  try {
    return await knex.transaction(transaction => takeAll(transaction, from))
  } catch (error) {
    from.destroy()
    if (error instanceof StudioPackageError) throw error
    const { code, message } = error as { code?: string; message: string }
    if (code === 'ER_DUP_ENTRY')
      throw new StudioPackageError(
        'This studio, or a part of it, is on this installation already. Nothing was changed.',
      )
    if (code?.startsWith('Z_'))
      throw new StudioPackageError(`The package is damaged or no package (${code}). Nothing was changed.`)
    throw new StudioPackageError(`The package could not be taken in: ${message}. Nothing was changed.`)
  }
}
