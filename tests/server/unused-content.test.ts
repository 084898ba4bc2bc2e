import type { Knex } from 'knex'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { contentHash } from '../../server/library/files'
import { actingAs, atOnce } from '../../server/store/acting'
import { putBlob, putPackage } from '../../server/store/blobs'
import { addDocument } from '../../server/store/documents'
import { keepDroppedFonts } from '../../server/store/dropped-fonts'
import { dropUnusedContent, namingTables } from '../../server/store/unused-content'
import { addVersion, versionContent } from '../../server/store/versions'
import { LettingGo } from '../../server/work/letting-go'
import { makeOdt } from '../support/fixtures'
import { dropDatabase, letGo, ownDatabase } from './running'

const database = 'morphene_unused_test'
let knex: Knex
const acting = () => actingAs(knex)
const lettingGo = new LettingGo(() => Promise.resolve(knex))
beforeAll(async () => {
  knex = await ownDatabase(database)
})
afterAll(async () => {
  await dropDatabase(knex, database)
})
beforeEach(() => lettingGo.round())

const text = (words: string) => makeOdt({ body: `<text:p>${words}</text:p>` })
const add = (bytes: Uint8Array) => addDocument(acting(), { fileName: 'A.odt', kind: 'text', signed: false, bytes })
const hashes = async () => (await knex('blobs').select<{ hash: string }[]>('hash')).map(({ hash }) => hash)
/** Where a hash stands, in any column of any table: nothing is left of what was purged. */
async function placesOf(hash: string): Promise<string[]> {
  const columns = await knex('information_schema.columns')
    .where({ table_schema: database })
    .whereIn('data_type', ['varchar', 'longtext', 'text', 'char'])
    .select<{ TABLE_NAME: string; COLUMN_NAME: string }[]>({ TABLE_NAME: 'table_name', COLUMN_NAME: 'column_name' })
  const found: string[] = []
  for (const { TABLE_NAME: table, COLUMN_NAME: column } of columns)
    if (await knex(table).where(column, 'like', `%${hash}%`).first(column)) found.push(`${table}.${column}`)
  return found
}

describe('content that nothing names', () => {
  it('goes with its document, and what others share stays', async () => {
    const [one, other] = [text('one and the same'), text('another')]
    const first = await add(one)
    const before = await hashes()
    const second = await add(other)
    const own = (await hashes()).filter(hash => !before.includes(hash))
    expect(own.length).toBeGreaterThan(0)
    expect(own.length).toBeLessThan(before.length)
    await lettingGo.round()
    expect((await hashes()).length).toBe(before.length + own.length)
    await letGo(acting(), second.id)
    await lettingGo.round()
    expect((await hashes()).sort()).toEqual([...before].sort())
    for (const hash of own) expect(await placesOf(hash)).toEqual([])
    expect((await versionContent(acting(), first.id, 1))!.bytes).toEqual(one)
  })

  it('of every version goes, and of font files that came along', async () => {
    const { id } = await add(text('before'))
    await addVersion(acting(), id, 1, {
      madeBy: 'change',
      title: 't',
      content: { bytes: text('after'), ids: {} },
      plan: null,
    })
    await keepDroppedFonts(acting(), id, [{ path: 'a.ttf', bytes: new Uint8Array([1, 2, 3]) }])
    const font = contentHash(new Uint8Array([1, 2, 3]))
    expect(await hashes()).toContain(font)
    await lettingGo.round()
    expect((await versionContent(acting(), id, 2))!.bytes).toEqual(text('after'))
    expect(await hashes()).toContain(font)
    const all = await hashes()
    await letGo(acting(), id)
    await lettingGo.round()
    for (const hash of all) if (!(await hashes()).includes(hash)) expect(await placesOf(hash)).toEqual([])
    expect(await hashes()).not.toContain(font)
    expect(await knex('blob_chunks').where({ hash: font })).toEqual([])
  })

  it('goes a few at a time, so that nobody waits long', async () => {
    await knex.transaction(async transaction => {
      for (let at = 0; at < 450; at++) await putBlob(transaction, new Uint8Array([at & 255, at >> 8, 7]))
    })
    const before = (await hashes()).length
    expect(await dropUnusedContent(knex)).toEqual({ pieces: 200, more: true })
    expect((await hashes()).length).toBe(before - 200)
    await lettingGo.round()
    expect(await dropUnusedContent(knex)).toEqual({ pieces: 0, more: false })
  })

  it('that somebody is about to name again is passed over', async () => {
    const bytes = new Uint8Array([9, 9, 9, 9])
    await putBlob(knex, bytes)
    const hash = contentHash(bytes)
    await atOnce(acting(), async within => {
      await putBlob(within.knex, bytes)
      await lettingGo.round()
      expect(await hashes()).toContain(hash)
    })
    await lettingGo.round()
    expect(await hashes()).not.toContain(hash)
  })

  it('is never lost to documents that come while it is let go', { timeout: 60_000 }, async () => {
    const bytes = text('comes and goes')
    let stop = false
    const collecting = (async () => {
      while (!stop) await lettingGo.round()
    })()
    for (let round = 0; round < 60; round++) {
      const { id } = await add(bytes)
      expect((await versionContent(acting(), id, 1))!.bytes).toEqual(bytes)
      await letGo(acting(), id)
    }
    const { id } = await add(bytes)
    stop = true
    await collecting
    await lettingGo.round()
    expect((await versionContent(acting(), id, 1))!.bytes).toEqual(bytes)
    expect((await putPackage(knex, bytes)).length).toBeGreaterThan(0)
  })

  it('is looked for in every table that names content', async () => {
    const naming = await knex('information_schema.key_column_usage')
      .where({ table_schema: database, referenced_table_name: 'blobs' })
      .select<{ name: string }[]>({ name: 'table_name' })
    expect(
      naming
        .map(({ name }) => name)
        .filter(name => name !== 'blob_chunks')
        .sort(),
    ).toEqual([...namingTables].sort())
  })
})
