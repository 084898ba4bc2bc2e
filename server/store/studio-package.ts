import { once } from 'node:events'
import type { Readable, Writable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { createGzip } from 'node:zlib'
import type { Knex } from 'knex'
import { pack } from 'tar-stream'
import { schemaNow } from './database'
import { rowsOf, studioParts, type StudioPart } from './studio-parts'
import { namingTables } from './unused-content'

/*
 * A studio's data as one package: a tar archive (POSIX.1-2001, pax) packed with gzip (RFC 1952), of what it is, of content
 * under its SHA-256, and of rows as JSON, one a line. It is of one moment, and holds nobody's way in.
 */

/** What a package says of itself. */
export interface StudioLabel {
  readonly morphene: 'studio'
  readonly format: 1
  /** The last step of the schema that its rows follow. */
  readonly schema: string
  readonly name: string
  readonly trashDays: number
  readonly made: string
}

/** As much of rows is one file of the archive. Bytes. */
const rowsAtOnce = 1024 * 1024

/** The archive as it is written; it is broken off when nobody reads it any more. */
class Archive {
  private readonly files = pack()
  private readonly read: Promise<void>
  /** Never comes to an end but by breaking off. */
  private readonly broken: Promise<never>

  constructor(into: Writable) {
    this.read = pipeline(this.files as unknown as Readable, createGzip({ level: 6 }), into)
    this.broken = this.read.then(() => new Promise<never>(() => undefined))
    this.broken.catch(() => undefined)
  }

  /** A file of the archive, part by part: a piece may be large, and others wait behind whoever holds much. */
  async put(name: string, size: number, parts: AsyncIterable<Buffer> | readonly Buffer[]): Promise<void> {
    const file = this.files.entry({ name, size })
    const written = new Promise<void>((resolve, reject) => {
      file.once('close', resolve)
      file.once('error', reject)
    })
    for await (const part of parts)
      if (!file.write(part)) await Promise.race([once(file as unknown as Writable, 'drain'), this.broken])
    file.end(null)
    await Promise.race([written, this.broken])
  }

  putText(name: string, text: string): Promise<void> {
    const bytes = Buffer.from(text)
    return this.put(name, bytes.length, [bytes])
  }

  async end(): Promise<void> {
    this.files.finalize()
    await this.read
  }

  async breakOff(error: Error): Promise<void> {
    this.files.destroy(error)
    await this.read.catch(() => undefined)
  }
}

/** Content that a studio names: pieces of its versions, faces that it added, fonts that came with its documents. */
async function contentOf(knex: Knex, owner: string): Promise<Set<string>> {
  const hashes = new Set<string>()
  for (const part of studioParts.filter(each => (namingTables as readonly string[]).includes(each.table)))
    for await (const { hash } of rowsOf(knex, part, owner).distinct('hash').stream() as AsyncIterable<{ hash: string }>)
      hashes.add(hash)
  return hashes
}

async function* chunksOf(knex: Knex, hash: string, count: number): AsyncGenerator<Buffer> {
  for (let position = 0; position < count; position++)
    yield (await knex('blob_chunks').where({ hash, position }).first<{ bytes: Buffer }>('bytes')).bytes
}

async function putContent(knex: Knex, archive: Archive, hash: string): Promise<void> {
  const { size, chunks } = await knex('blobs').where({ hash }).first<{ size: number; chunks: number }>('size', 'chunks')
  await archive.put(`content/${hash}`, Number(size), chunksOf(knex, hash, chunks))
}

async function putRows(knex: Knex, archive: Archive, part: StudioPart, owner: string): Promise<void> {
  let lines = ''
  let files = 0
  const flush = async () => {
    if (lines !== '') await archive.putText(`rows/${part.table}/${++files}.jsonl`, lines)
    lines = ''
  }
  const rows = rowsOf(knex, part, owner).select('*').stream() as AsyncIterable<Record<string, unknown>>
  for await (const row of rows) {
    for (const column of ['owner', ...(part.without ?? [])]) delete row[column]
    lines += `${JSON.stringify(row)}\n`
    if (lines.length > rowsAtOnce) await flush()
  }
  await flush()
}

/**
 * Writes a studio's data into a stream, as it is at one moment, while people work.
 * @throws where there is no such studio, or nobody reads the stream any more
 */
export async function writeStudio(knex: Knex, owner: string, into: Writable): Promise<void> {
  const archive = new Archive(into)
  try {
    await knex.transaction(
      async transaction => {
        const row = await transaction('owners')
          .where({ id: owner })
          .first<{ name: string; trash_days: number } | undefined>('name', 'trash_days')
        if (!row) throw new Error('There is no such studio.')
        const label: StudioLabel = {
          morphene: 'studio',
          format: 1,
          schema: schemaNow,
          name: row.name,
          trashDays: row.trash_days,
          made: new Date().toISOString(),
        }
        await archive.putText('studio.json', JSON.stringify(label, null, 2))
        for (const hash of await contentOf(transaction, owner)) await putContent(transaction, archive, hash)
        for (const part of studioParts.filter(each => each.travels)) await putRows(transaction, archive, part, owner)
      },
      { isolationLevel: 'repeatable read' },
    )
    await archive.end()
  } catch (error) {
    await archive.breakOff(error as Error)
    throw error
  }
}
