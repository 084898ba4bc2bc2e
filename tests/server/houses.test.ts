import { randomUUID } from 'node:crypto'
import type { Knex } from 'knex'
import { request } from '../support/planning'
import { carryOut } from '../../server/work/tasks/carry-out'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { emptyHouse, houseSchema } from '../../core/house/house'
import { actingAs, type Acting } from '../../server/store/acting'
import { addDocument, findDocument } from '../../server/store/documents'
import {
  addHouse,
  changeHouse,
  findHouse,
  houseVersion,
  issueHouse,
  linkedDocuments,
  linkHouse,
  listHouses,
  removeHouse,
  sharesByDay,
  storeShare,
} from '../../server/store/houses'
import { addVersion } from '../../server/store/versions'
import { rights } from '../../shared/rights'
import { makeOdt } from '../support/fixtures'
import { dropDatabase, letGo, ownDatabase } from './running'

const database = 'morphene_houses_test'
let knex: Knex
let ours: Acting
let theirs: Acting
beforeAll(async () => {
  knex = await ownDatabase(database)
  await knex('owners').insert({ id: 'other', name: 'Another studio', created: new Date() })
  ours = actingAs(knex)
  theirs = actingAs(knex, { owner: 'other', person: 'someone', rights: new Set(rights) })
})
afterAll(async () => {
  await dropDatabase(knex, database)
})

const bytes = makeOdt({ body: '<text:p>Pier</text:p>' })
const add = async (fileName: string) => (await addDocument(ours, { fileName, kind: 'text', signed: false, bytes })).id
const withBody = (name: string, size: number) =>
  houseSchema.parse({
    ...emptyHouse(name),
    roles: emptyHouse(name).roles.map(role =>
      role.id === 'body' ? { ...role, text: { family: 'Spectral', size } } : role,
    ),
  })
const body = { family: 'paragraph', name: 'Text_20_body' }
const share = (toStyle: number) => ({
  characters: 100,
  toStyle,
  roles: [{ role: 'body', title: 'Body', characters: 100, toStyle }],
  dressed: null,
})

describe('houses', () => {
  it('are worked on until they are issued, and keep each version with what changed', async () => {
    const id = (await addHouse(ours, withBody('Saltmere Line', 10), null))!
    expect(await findHouse(ours, id)).toMatchObject({
      name: 'Saltmere Line',
      issued: 0,
      revision: 1,
      pending: ['The first version.'],
      versions: [],
    })
    expect(await issueHouse(ours, id, 1)).toEqual({ number: 1 })
    expect(await issueHouse(ours, id, 1)).toBe('same')
    expect(
      await changeHouse(ours, id, { house: withBody('Saltmere Line', 11), trialUntil: '2027-01-31', revision: 1 }),
    ).toBe('changed')
    // Whoever had the older one is told, and changes nothing.
    expect(await changeHouse(ours, id, { house: withBody('Lost', 9), trialUntil: null, revision: 1 })).toBe('behind')
    expect(await issueHouse(ours, id, 1)).toBe('behind')
    const info = (await findHouse(ours, id))!
    expect(info).toMatchObject({
      revision: 2,
      trialUntil: '2027-01-31',
      pending: ['Body in texts: Spectral, 10 becomes Spectral, 11.'],
    })
    expect(await issueHouse(ours, id, 2)).toEqual({ number: 2 })
    const { versions, pending } = (await findHouse(ours, id))!
    expect(versions.map(each => [each.number, each.author, each.changes])).toEqual([
      [2, 'desk', ['Body in texts: Spectral, 10 becomes Spectral, 11.']],
      [1, 'desk', ['The first version.']],
    ])
    expect(pending).toEqual([])
    expect((await houseVersion(ours, id, 1))!.roles.find(role => role.id === 'body')!.text.size).toBe(10)
    expect(await houseVersion(ours, id, 3)).toBeUndefined()
  })

  it('know their documents, how much of each is to style as it is now, and how that went', async () => {
    const id = (await addHouse(ours, withBody('Winter Service', 10), null))!
    await issueHouse(ours, id, 1)
    const [pier, mast] = [await add('Pier.odt'), await add('Mast.odt')]
    expect(await linkHouse(ours, pier, id)).toBe(true)
    expect(await linkHouse(ours, mast, id)).toBe(true)
    expect((await findDocument(ours, pier))!.house).toBe(id)
    expect(await linkedDocuments(ours, id, 1)).toMatchObject([
      { fileName: 'Mast.odt', share: null },
      { fileName: 'Pier.odt', share: null },
    ])
    await storeShare(ours, { document: pier, version: 1, house: id, number: 1 }, share(40))
    await storeShare(ours, { document: pier, version: 1, house: id, number: 1 }, share(50))
    await storeShare(ours, { document: mast, version: 1, house: id, number: 1 }, share(100))
    expect((await linkedDocuments(ours, id, 1)).map(each => each.share?.toStyle)).toEqual([100, 50])
    expect(await sharesByDay(ours, id)).toEqual([
      { day: new Date().toISOString().slice(0, 10), characters: 200, toStyle: 150 },
    ])
    // A new version of the document, or of the house, was not measured yet.
    await addVersion(ours, pier, 1, { madeBy: 'change', title: 't', content: { bytes, ids: {} }, plan: null })
    expect((await linkedDocuments(ours, id, 1)).map(each => each.share?.toStyle)).toEqual([100, undefined])
    expect((await linkedDocuments(ours, id, 2)).map(each => each.share)).toEqual([null, null])
    expect((await listHouses(ours)).find(each => each.id === id)).toMatchObject({ documents: 2, issued: 1 })
    await letGo(ours, pier)
    expect(await linkedDocuments(ours, id, 1)).toHaveLength(1)
    expect(await removeHouse(ours, id)).toBe(true)
    expect((await findDocument(ours, mast))!.house).toBeNull()
    expect(await knex('style_shares').select()).toEqual([])
  })

  it('count as the dress of a document only where they are the one it was dressed in', async () => {
    const house = withBody('Saltmere Line', 10)
    const [own, other] = [randomUUID(), randomUUID()]
    const styled = makeOdt({
      styles: '<style:style style:name="Text_20_body" style:display-name="Text body" style:family="paragraph"/>',
      body: '<text:p text:style-name="Text_20_body">Pier and quay, from Monday on, in all weathers.</text:p>',
    })
    const asked = request([
      { type: 'dress', house, of: { house: own, version: 3 }, roles: [{ style: body, role: 'body' }] },
    ])
    const dressed = await carryOut({ kind: 'change', bytes: styled, ids: {}, request: asked })
    const measured = (of: string) => carryOut({ kind: 'toStyle', bytes: dressed.bytes, ids: {}, house, of })
    expect(await measured(own)).toMatchObject({ dressed: 3, characters: 47, toStyle: 47 })
    expect(await measured(other)).toMatchObject({ dressed: null, toStyle: 47 })
  })

  it('are nothing to another owner', async () => {
    const id = (await addHouse(ours, withBody('Ours', 10), null))!
    await issueHouse(ours, id, 1)
    const document = await add('Own.odt')
    expect(await findHouse(theirs, id)).toBeUndefined()
    expect(await houseVersion(theirs, id, 1)).toBeUndefined()
    expect(await listHouses(theirs)).toEqual([])
    expect(await changeHouse(theirs, id, { house: withBody('Theirs', 9), trialUntil: null, revision: 1 })).toBe('gone')
    expect(await issueHouse(theirs, id, 1)).toBe('gone')
    expect(await removeHouse(theirs, id)).toBe(false)
    await linkHouse(ours, document, id)
    expect(await linkHouse(theirs, document, null)).toBe(true)
    expect((await findDocument(ours, document))!.house).toBe(id)
    expect(await linkedDocuments(theirs, id, 1)).toEqual([])
  })
})
