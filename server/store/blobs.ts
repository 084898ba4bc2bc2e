import type { Knex } from 'knex'
import { isPdf, sectionEnds } from '../../core/format/finished/sections'
import { readContainer } from '../../core/package/container'
import { contentHash } from '../library/files'

const chunkSize = 512 * 1024

/**
 * Stores content under its hash, once, within the transaction that also says what names it. Content that is there
 * already is held until that transaction ends, so that nobody lets it go as unused meanwhile.
 */
export async function putBlob(knex: Knex, bytes: Uint8Array, hash: string = contentHash(bytes)): Promise<string> {
  if (await knex('blobs').where({ hash }).forShare().first('hash')) return hash
  const count = Math.max(1, Math.ceil(bytes.length / chunkSize))
  // Two uploads of one part may meet here: the second insert is ignored, the content is the same.
  await knex('blobs').insert({ hash, size: bytes.length, chunks: count }).onConflict('hash').ignore()
  for (let position = 0; position < count; position++) {
    const part = bytes.subarray(position * chunkSize, (position + 1) * chunkSize)
    await knex('blob_chunks')
      .insert({ hash, position, bytes: Buffer.from(part.buffer, part.byteOffset, part.byteLength) })
      .onConflict(['hash', 'position'])
      .ignore()
  }
  return hash
}

/** Content by hash; undefined where there is none. */
export async function getBlob(knex: Knex, hash: string): Promise<Uint8Array | undefined> {
  const rows = await knex('blob_chunks').where({ hash }).orderBy('position').select<{ bytes: Buffer }[]>('bytes')
  if (rows.length === 0) return undefined
  return new Uint8Array(Buffer.concat(rows.map(row => row.bytes)))
}

/** Where content is cut: a package at its zip records, a PDF where each of its updates ends. */
function cutsOf(bytes: Uint8Array): number[] {
  if (isPdf(bytes)) return [0, ...sectionEnds(bytes)]
  const { entries } = readContainer(bytes)
  return [
    ...new Set([0, ...entries.map(entry => entry.localStart), ...entries.map(entry => entry.localEnd), bytes.length]),
  ].sort((a, b) => a - b)
}

/**
 * Stores a file part by part: each zip record of a package and each update of a PDF is content of its own, so that
 * versions share what they have in common, and joining the pieces gives the file byte for byte.
 */
export async function putPackage(knex: Knex, bytes: Uint8Array): Promise<string[]> {
  const cuts = cutsOf(bytes)
  const pieces: string[] = []
  for (let index = 1; index < cuts.length; index++)
    pieces.push(await putBlob(knex, bytes.subarray(cuts[index - 1], cuts[index])))
  return pieces
}

/** A package from its pieces. */
export async function getPackage(knex: Knex, pieces: readonly string[]): Promise<Uint8Array> {
  const found = new Map<string, Uint8Array>()
  for (const hash of new Set(pieces)) {
    const bytes = await getBlob(knex, hash)
    if (!bytes) throw new Error(`a piece of the document is missing from the store: ${hash}`)
    found.set(hash, bytes)
  }
  return new Uint8Array(Buffer.concat(pieces.map(hash => found.get(hash)!)))
}
