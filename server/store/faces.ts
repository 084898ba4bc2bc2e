import type { Knex } from 'knex'
import type { FaceRecord } from '../../core/font/face'
import { readFontFile } from '../library/files'
import type { ShippedFace } from '../library/shipped'
import { atOnce, ownDocuments, type Acting } from './acting'
import { getBlob, putBlob } from './blobs'
import { askForSurvey } from './jobs'

/*
 * Faces that ship are everybody's; faces that people add are their owner's, each with what that owner was told of
 * it (where it came from, what its licence says). The files are content like any other, kept once.
 */

/** As many faces are stored in one transaction: each of them waits for the disk. */
const facesAtOnce = 32

/**
 * Puts the shipped faces into the store. The files of those that are there already are passed over; what is known of
 * them is brought to what was measured now.
 */
export async function storeShippedFaces(
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
      await knex('faces').where({ hash: face.hash }).update({ record })
  }
  for (let start = 0; start < fresh.length; start += facesAtOnce) {
    const some = fresh.slice(start, start + facesAtOnce)
    await knex.transaction(async transaction => {
      for (const { face, path } of some) await putBlob(transaction, readFontFile(path), face.hash)
      await transaction('faces').insert(
        some.map(({ face }) => ({
          hash: face.hash,
          family: face.family,
          style: face.style,
          weight: face.weight,
          slant: face.slant,
          source: face.source,
          record: JSON.stringify(face),
        })),
      )
    })
    report(start + some.length, fresh.length)
  }
}

const records = (rows: readonly { record: string }[]) => rows.map(row => JSON.parse(row.record) as FaceRecord)

/** All faces of the library: those that ship and those that were added for the actor's owner. */
export async function listFaces({ knex, actor }: Acting): Promise<FaceRecord[]> {
  const shipped = await knex('faces').select<{ record: string }[]>('record')
  const added = await knex('added_faces')
    .where({ owner: actor.owner })
    .whereNotIn('hash', knex('faces').select('hash'))
    .select<{ record: string }[]>('record')
  return [...records(shipped), ...records(added)].sort(
    (a, b) =>
      a.family.localeCompare(b.family) ||
      a.weight - b.weight ||
      a.style.localeCompare(b.style) ||
      (a.hash < b.hash ? -1 : 1),
  )
}

/** Those of some faces that are in the library, in the order of their hashes as given. */
export async function facesByHash({ knex, actor }: Acting, hashes: readonly string[]): Promise<FaceRecord[]> {
  const shipped = await knex('faces').whereIn('hash', hashes).select<{ record: string }[]>('record')
  const added = await knex('added_faces')
    .where({ owner: actor.owner })
    .whereIn('hash', hashes)
    .select<{ record: string }[]>('record')
  const byHash = new Map(records([...added, ...shipped]).map(face => [face.hash, face]))
  return hashes.flatMap(hash => byHash.get(hash) ?? [])
}

/** A face's file, where the actor's library has the face. */
export async function faceFile({ knex, actor }: Acting, hash: string): Promise<Uint8Array | undefined> {
  const known =
    (await knex('faces').where({ hash }).first('hash')) ??
    (await knex('added_faces').where({ owner: actor.owner, hash }).first('hash'))
  return known ? getBlob(knex, hash) : undefined
}

/** Faces that were added for the actor's owner, in the order of their coming. */
export async function addedFaces({ knex, actor }: Acting): Promise<FaceRecord[]> {
  return records(
    await knex('added_faces')
      .where({ owner: actor.owner })
      .orderBy(['added', 'hash'])
      .select<{ record: string }[]>('record'),
  )
}

/** How often faces were added or taken away for the actor's owner: as long as it is the same, so are the faces. */
export async function libraryState({ knex, actor }: Acting): Promise<number> {
  const row = await knex('owners').where({ id: actor.owner }).first<{ library: number } | undefined>('library')
  return row?.library ?? 0
}

/**
 * Adds faces to the library, all or none; those that are there already stay as they are. `origin` says where they
 * came from.
 */
export async function addFaces(
  acting: Acting,
  fonts: readonly { readonly bytes: Uint8Array; readonly face: FaceRecord }[],
  origin: string,
): Promise<number> {
  const { owner } = acting.actor
  return atOnce(acting, async within => {
    const { knex } = within
    let count = 0
    for (const { bytes, face } of fonts) {
      const { hash } = face
      if (await knex('faces').where({ hash }).first('hash')) continue
      if (await knex('added_faces').where({ owner, hash }).first('hash')) continue
      await putBlob(knex, bytes, hash)
      await knex('added_faces').insert({
        owner,
        hash,
        family: face.family.slice(0, 200),
        style: face.style.slice(0, 200),
        record: JSON.stringify({ ...face, source: 'added' }),
        origin: origin.slice(0, 300),
        added: new Date(),
      })
      count++
    }
    if (count > 0) await libraryChanged(within, [...new Set(fonts.map(({ face }) => face.family))])
    return count
  })
}

/** Takes an added face out of the library again. False where it was not added by hand. */
export async function removeFace(acting: Acting, hash: string): Promise<boolean> {
  const { owner } = acting.actor
  return atOnce(acting, async within => {
    const face = await within.knex('added_faces').where({ owner, hash }).first<{ family: string } | undefined>('family')
    if (!face) return false
    await within.knex('added_faces').where({ owner, hash }).delete()
    await libraryChanged(within, [face.family])
    return true
  })
}

/** Some families have other faces now: what is absent has changed where they are named. */
async function libraryChanged(within: Acting, families: readonly string[]): Promise<void> {
  await within.knex('owners').where({ id: within.actor.owner }).increment('library', 1)
  await countNaming(within, families)
}

/**
 * Has those documents counted anew that name some families, or faces of them as if they were families (“Jost Medium”),
 * and those in which anything is absent or shown by an alias: the new face may be what they ask for under another name.
 */
async function countNaming(within: Acting, families: readonly string[]): Promise<void> {
  const named = await within
    .knex('document_faces')
    .whereIn('document', ownDocuments(within))
    .where(query => {
      void query.whereIn('status', ['absent', 'alias'])
      for (const family of families)
        void query
          .orWhereRaw('lower(family) = ?', [family.toLowerCase()])
          .orWhereRaw('lower(family) like ?', [`${family.toLowerCase().replace(/[\\%_]/g, sign => `\\${sign}`)} %`])
    })
    .distinct<{ document: string }[]>('document')
  for (const { document } of named) await countAnew(within, { id: document })
}

/** Has documents counted anew: all of the actor's, or those that are named by their id, folder or house. */
export async function countAnew(
  within: Acting,
  which: { readonly id?: string; readonly folder?: string; readonly house?: string } = {},
): Promise<void> {
  const { knex } = within
  const waiting = new Set(
    (await knex('jobs').where({ kind: 'survey', state: 'queued' }).select<{ document: string }[]>('document')).map(
      row => row.document,
    ),
  )
  for (const { id, version } of await ownDocuments(within)
    .where(which)
    .select<{ id: string; version: number }[]>('id', 'version'))
    if (!waiting.has(id)) await askForSurvey(knex, id, version, 1)
}
