import type { Knex } from 'knex'
import type { FaceRecord } from '../../core/font/face'
import { readFontFile } from '../library/files'
import type { ShippedFace } from '../library/shipped'
import { getBlob, putBlob } from './blobs'

/** Puts the shipped faces into the store; those that are there already are passed over. */
export async function storeFaces(knex: Knex, faces: readonly ShippedFace[], report: (done: number, all: number) => void = () => {}): Promise<void> {
  const known = new Set((await knex('faces').select<{ hash: string }[]>('hash')).map(row => row.hash))
  const fresh = faces.filter(each => !known.has(each.face.hash))
  for (const [index, { face, path }] of fresh.entries()) {
    await knex.transaction(async (transaction) => {
      await putBlob(transaction, readFontFile(path), face.hash)
      await transaction('faces').insert({ hash: face.hash, family: face.family, style: face.style, weight: face.weight, slant: face.slant, source: face.source, record: JSON.stringify(face) })
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
  return await knex('faces').where({ hash }).first('hash') ? getBlob(knex, hash) : undefined
}
