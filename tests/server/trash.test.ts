import type { Knex } from 'knex'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { contentHash } from '../../server/library/files'
import { actingAs, type Acting } from '../../server/store/acting'
import { addBatch, findBatch } from '../../server/store/batches'
import { addDocument, findDocument } from '../../server/store/documents'
import { keepDroppedFonts } from '../../server/store/dropped-fonts'
import { addFolder, keepInFolder, listFolders, moveToFolder, removeFolder } from '../../server/store/folders'
import { listPurges, provePurges } from '../../server/store/purges'
import { shelfPage } from '../../server/store/shelf'
import { shelfCensus } from '../../server/store/shelf-census'
import {
  day,
  emptyTrash,
  listTrash,
  purgeDocument,
  putBack,
  setTrashDays,
  trashDocument,
} from '../../server/store/trash'
import { addVersion, listRecords, storeSurvey, versionContent } from '../../server/store/versions'
import { LettingGo } from '../../server/work/letting-go'
import { registry } from '../../core/change/registry'
import { rights } from '../../shared/rights'
import { shelfQuerySchema } from '../../shared/api'
import { makeOdt, sessionOf } from '../support/fixtures'
import { dropDatabase, ownDatabase } from './running'

const database = 'morphene_trash_test'
let knex: Knex
let ours: Acting
let theirs: Acting
let lettingGo: LettingGo
beforeAll(async () => {
  knex = await ownDatabase(database)
  await knex('owners').insert({ id: 'other', name: 'Another studio', created: new Date() })
  ours = actingAs(knex)
  theirs = actingAs(knex, { owner: 'other', person: 'someone', rights: new Set(rights) })
  lettingGo = new LettingGo(() => Promise.resolve(knex))
})
afterAll(() => dropDatabase(knex, database))
beforeEach(async () => {
  for (const { id } of (await shelfPage(ours, everything)).cards) await trashDocument(ours, id)
  await emptyTrash(ours)
  await lettingGo.round()
})

const everything = shelfQuerySchema.parse({})
const text = (words: string) => makeOdt({ body: `<text:p>${words}</text:p>` })
const add = async (words: string, folder: string | null = null) =>
  (await addDocument(ours, { fileName: `${words}.odt`, kind: 'text', signed: false, bytes: text(words), folder })).id
const onShelf = async () => (await shelfPage(ours, everything)).cards.map(card => card.fileName)
const inTrash = async () => (await listTrash(ours)).map(each => each.fileName)
const after = (days: number) => new Date(Date.now() + days * day)
const pieces = async (id: string) =>
  (await knex('version_pieces').where({ document: id }).select<{ hash: string }[]>('hash')).map(({ hash }) => hash)

describe('the trash', () => {
  it('takes a document off the shelf with all that is said of it, and puts it back as it was', async () => {
    const folder = (await addFolder(ours, 'Harbour'))!
    const id = await add('Pier', folder)
    const { census } = sessionOf({ body: '<text:p>Pier</text:p>' }).detail
    await addVersion(ours, id, 1, {
      madeBy: 'change',
      title: 't',
      content: { bytes: text('Pier, later'), ids: {} },
      plan: { title: 't' } as never,
    })
    await storeSurvey(ours, id, 2, census, '<svg/>')
    const before = await shelfPage(ours, everything)
    expect(await trashDocument(ours, id)).toBe(true)
    expect([await onShelf(), await inTrash()]).toEqual([[], ['Pier.odt']])
    expect(await findDocument(ours, id)).toBeUndefined()
    expect(await versionContent(ours, id, 2)).toBeUndefined()
    expect(await listRecords(ours)).toEqual([])
    expect((await shelfCensus(ours)).families).toEqual([])
    expect((await listFolders(ours))[0]).toMatchObject({ documents: 0 })
    const [row] = await listTrash(ours)
    expect(row).toMatchObject({ versions: 2, folder: 'Harbour' })
    expect(row!.until.getTime() - row!.trashed.getTime()).toBe(30 * day)
    await expect(
      addVersion(ours, id, 2, { madeBy: 'edit', title: 't', content: { state: 1 }, plan: null }),
    ).rejects.toThrow(RangeError)

    expect(await trashDocument(ours, id)).toBe(false)
    expect(await putBack(ours, id)).toBe(true)
    expect(await putBack(ours, id)).toBe(false)
    expect(await shelfPage(ours, everything)).toEqual(before)
    expect((await versionContent(ours, id, 2))!.bytes).toEqual(text('Pier, later'))
    await removeFolder(ours, folder)
  })

  it('has what was not counted counted when it comes back, outside a folder that is gone', async () => {
    const folder = (await addFolder(ours, 'Gone soon'))!
    const id = await add('Pier', folder)
    await trashDocument(ours, id)
    expect(await knex('jobs').where({ document: id })).toEqual([])
    await removeFolder(ours, folder)
    await putBack(ours, id)
    expect(await knex('jobs').where({ document: id, kind: 'survey', state: 'queued' })).toHaveLength(1)
    expect((await findDocument(ours, id))!.folder).toBeNull()
  })

  it('is each owner’s own', async () => {
    const id = await add('Pier')
    expect(await trashDocument(theirs, id)).toBe(false)
    await trashDocument(ours, id)
    expect(await listTrash(theirs)).toEqual([])
    expect([await putBack(theirs, id), await purgeDocument(theirs, id), await emptyTrash(theirs)]).toEqual([
      false,
      false,
      0,
    ])
    expect(await inTrash()).toEqual(['Pier.odt'])
  })

  it('leaves no plan over documents waiting for what lies in it', async () => {
    const [stays, goes] = [await add('Pier'), await add('Quay')]
    const wish = registry.schema.parse({ wishes: [{ type: 'swap', from: { family: 'A' }, to: { family: 'B' } }] })
    const batch = await addBatch(ours, wish, 't', [goes])
    const other = await addBatch(ours, wish, 't', [stays, goes])
    await trashDocument(ours, goes)
    expect(await findBatch(ours, batch)).toMatchObject({
      state: 'planned',
      documents: [{ state: 'failed', message: 'It was taken off the shelf.' }],
    })
    expect((await findBatch(ours, other))!.state).toBe('planning')
  })

  it('lets go by itself of what lay in it for its days, and of nothing before', async () => {
    const [long, short] = [await add('long'), await add('short')]
    await setTrashDays(ours, 10)
    await trashDocument(ours, long)
    await knex('documents')
      .where({ id: long })
      .update({ trashed: after(-6) })
    await trashDocument(ours, short)
    await lettingGo.round(after(3.9))
    expect(await inTrash()).toEqual(['long.odt', 'short.odt'])
    await lettingGo.round(after(4.1))
    expect(await inTrash()).toEqual(['short.odt'])
    expect((await listPurges(ours))[0]).toMatchObject({ fileName: 'long.odt', person: '' })
    await setTrashDays(ours, 30)
    await lettingGo.round(after(11))
    expect(await inTrash()).toEqual(['short.odt'])
  })
})

describe('a purge', () => {
  it('leaves nothing of its own, keeps what others share, and proves both', async () => {
    const kept = await add('kept')
    const id = await add('let go')
    await addVersion(ours, id, 1, {
      madeBy: 'edit',
      title: 't',
      content: { bytes: text('let go, later'), ids: {} },
      plan: null,
    })
    await keepDroppedFonts(ours, id, [{ path: 'a.ttf', bytes: new Uint8Array([1, 2, 3, 5]) }])
    const all = new Set([...(await pieces(id)), contentHash(new Uint8Array([1, 2, 3, 5]))])
    const shared = new Set((await pieces(kept)).filter(hash => all.has(hash)))
    expect(shared.size).toBeGreaterThan(0)
    await trashDocument(ours, id)
    await purgeDocument(ours, id)
    expect((await listPurges(ours))[0]).toMatchObject({
      fileName: 'let go.odt',
      versions: 2,
      pieces: all.size,
      shared: null,
      proven: null,
      person: 'desk',
    })
    // While content of its own is there still, nothing is proven.
    expect(await provePurges(knex)).toBe(0)
    await lettingGo.round()
    const [purge] = await listPurges(ours)
    expect(purge!.proven).toBeInstanceOf(Date)
    expect(purge!.shared).toBe(shared.size)
    for (const hash of all)
      expect([hash, (await knex('blob_chunks').where({ hash }).first('hash')) !== undefined]).toEqual([
        hash,
        shared.has(hash),
      ])
    expect(await knex('purge_pieces')).toEqual([])
    expect(await listPurges(theirs)).toEqual([])
  })

  it('is for what lies in the trash alone', async () => {
    const id = await add('Pier')
    expect(await purgeDocument(ours, id)).toBe(false)
    expect(await onShelf()).toEqual(['Pier.odt'])
  })
})

describe('a folder', () => {
  it('throws away what was not changed for as long as it keeps documents, from when that was said', async () => {
    const folder = (await addFolder(ours, 'Fair'))!
    const [old, fresh, outside] = [await add('old', folder), await add('fresh', folder), await add('outside')]
    for (const id of [old, outside])
      await knex('documents')
        .where({ id })
        .update({ changed: after(-100), placed: after(-100) })
    expect(await keepInFolder(theirs, folder, 20)).toBe(false)
    expect(await keepInFolder(ours, folder, 20)).toBe(true)
    expect((await listFolders(ours)).find(each => each.id === folder)!.keepDays).toBe(20)
    // However old they are, they have the days that were said.
    await lettingGo.round(after(19))
    expect((await onShelf()).sort()).toEqual(['fresh.odt', 'old.odt', 'outside.odt'])
    await knex('folders')
      .where({ id: folder })
      .update({ keep_since: after(-90) })
    await lettingGo.round(after(1))
    expect((await onShelf()).sort()).toEqual(['fresh.odt', 'outside.odt'])
    expect(await inTrash()).toEqual(['old.odt'])
    // What comes to the folder has its days from then on, and so has what is put back.
    await moveToFolder(ours, outside, folder)
    await putBack(ours, old)
    await lettingGo.round(after(19))
    expect((await onShelf()).sort()).toEqual(['fresh.odt', 'old.odt', 'outside.odt'])
    await keepInFolder(ours, folder, null)
    await lettingGo.round(after(1000))
    expect((await onShelf()).length).toBe(3)
    expect(await versionContent(ours, fresh, 1)).toBeDefined()
    await removeFolder(ours, folder)
  })
})
