import { randomUUID } from 'node:crypto'
import type { Knex } from 'knex'
import type { FaceRecord } from '../../core/font/face'
import { readFontFile } from '../library/files'
import type { ShippedFace } from '../library/shipped'
import { getBlob, putBlob } from './blobs'

/**
 * Puts the shipped faces into the store. The files of those that are there already are passed over; what is known of
 * them is brought to what was measured now.
 */
export async function storeFaces(
  knex: Knex,
  faces: readonly ShippedFace[],
  report: (done: number, all: number) => void = () => {},
): Promise<void> {
  const rows = await knex('faces').select<{ hash: string; record: string }[]>('hash', 'record')
  const known = new Map(rows.map(row => [row.hash, row.record]))
  const fresh = faces.filter(each => !known.has(each.face.hash))
  for (const { face } of faces) {
    const record = JSON.stringify(face)
    if (known.has(face.hash) && known.get(face.hash) !== record)
      await knex('faces').where({ hash: face.hash }).whereNot({ source: 'added' }).update({ record })
  }
  for (const [index, { face, path }] of fresh.entries()) {
    await knex.transaction(async transaction => {
      await putBlob(transaction, readFontFile(path), face.hash)
      await transaction('faces').insert({
        hash: face.hash,
        family: face.family,
        style: face.style,
        weight: face.weight,
        slant: face.slant,
        source: face.source,
        record: JSON.stringify(face),
      })
    })
    report(index + 1, fresh.length)
  }
}

/** All faces of the library. */
export async function listFaces(knex: Knex): Promise<FaceRecord[]> {
  const rows = await knex('faces').orderBy(['family', 'weight', 'style']).select<{ record: string }[]>('record')
  return rows.map(row => JSON.parse(row.record) as FaceRecord)
}

/** A face's file. */
export async function faceFile(knex: Knex, hash: string): Promise<Uint8Array | undefined> {
  return (await knex('faces').where({ hash }).first('hash')) ? getBlob(knex, hash) : undefined
}

/** Faces that people added, in the order of their coming. */
export async function addedFaces(knex: Knex): Promise<FaceRecord[]> {
  const rows = await knex('faces')
    .where({ source: 'added' })
    .orderBy(['added', 'hash'])
    .select<{ record: string }[]>('record')
  return rows.map(row => JSON.parse(row.record) as FaceRecord)
}

/**
 * Adds faces to the library, all or none; those that are there already stay as they are. `origin` says where they
 * came from.
 */
export async function addFaces(
  knex: Knex,
  fonts: readonly { readonly bytes: Uint8Array; readonly face: FaceRecord }[],
  origin: string,
): Promise<number> {
  return knex.transaction(async transaction => {
    let count = 0
    for (const { bytes, face } of fonts) {
      if (await transaction('faces').where({ hash: face.hash }).first('hash')) continue
      await putBlob(transaction, bytes, face.hash)
      await transaction('faces').insert({
        hash: face.hash,
        family: face.family.slice(0, 200),
        style: face.style.slice(0, 200),
        weight: face.weight,
        slant: face.slant,
        source: 'added',
        record: JSON.stringify({ ...face, source: 'added' }),
        origin: origin.slice(0, 300),
        added: new Date(),
      })
      count++
    }
    // What is absent has changed where these families are named.
    if (count > 0) await countNaming(transaction, [...new Set(fonts.map(({ face }) => face.family))])
    return count
  })
}

/** Takes an added face out of the library again. False where it was not added by hand. */
export async function removeFace(knex: Knex, hash: string): Promise<boolean> {
  return knex.transaction(async transaction => {
    const face = await transaction('faces')
      .where({ hash, source: 'added' })
      .first<{ family: string } | undefined>('family')
    if (!face) return false
    await transaction('faces').where({ hash, source: 'added' }).delete()
    await countNaming(transaction, [face.family])
    return true
  })
}

/**
 * Has those documents counted anew that name some families, or faces of them as if they were families (“Jost Medium”),
 * and those in which anything is absent or shown by an alias: the new face may be what they ask for under another name.
 */
async function countNaming(transaction: Knex, families: readonly string[]): Promise<void> {
  const named = await transaction('document_faces')
    .whereIn('status', ['absent', 'alias'])
    .orWhere(query => {
      for (const family of families)
        void query
          .orWhereRaw('lower(family) = ?', [family.toLowerCase()])
          .orWhereRaw('lower(family) like ?', [`${family.toLowerCase().replace(/[\\%_]/g, sign => `\\${sign}`)} %`])
    })
    .distinct<{ document: string }[]>('document')
  for (const { document } of named) await countAnew(transaction, { id: document })
}

/** Has documents counted anew, all of them or those that are named by their id or folder. */
export async function countAnew(
  transaction: Knex,
  which: { readonly id?: string; readonly folder?: string } = {},
): Promise<void> {
  const now = new Date()
  const waiting = new Set(
    (
      await transaction('jobs').where({ kind: 'survey', state: 'queued' }).select<{ document: string }[]>('document')
    ).map(row => row.document),
  )
  for (const { id, version } of await transaction('documents')
    .where(which)
    .select<{ id: string; version: number }[]>('id', 'version')) {
    if (!waiting.has(id))
      await transaction('jobs').insert({
        id: randomUUID(),
        kind: 'survey',
        document: id,
        version,
        state: 'queued',
        created: now,
        changed: now,
      })
  }
}
