import type { Knex } from 'knex'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { sailingGuide } from '../../demo/sailing-guide'
import { getBlob, getPackage, putBlob, putPackage } from '../../server/store/blobs'
import { actingAs } from '../../server/store/acting'
import { addDocument } from '../../server/store/documents'
import {
  addVersion,
  ConflictError,
  history,
  listVersions,
  storeSurvey,
  versionContent,
} from '../../server/store/versions'
import type { MadeBy, VersionRow } from '../../shared/api'
import { claimJob, leaveServer, reportJob, seeServer } from '../../server/store/jobs'
import { paragraphStyle, sessionOf } from '../support/fixtures'
import { dropDatabase, ownDatabase } from './running'

let knex: Knex
const acting = () => actingAs(knex)
beforeAll(async () => {
  // A database of its own: jobs put here are nobody else's.
  knex = await ownDatabase('morphene_store_test')
})
afterAll(async () => {
  await dropDatabase(knex, 'morphene_store_test')
})
const guide = sailingGuide()
const row = (number: number, state: number, madeBy: MadeBy): VersionRow => ({
  document: 'd',
  number,
  state,
  madeBy,
  author: 'desk',
  title: `v${number}`,
  created: new Date(),
})

describe('content', () => {
  it('is kept in chunks below the packet limit, and once', async () => {
    const large = new Uint8Array(3 * 1024 * 1024 + 17).map((_, index) => index * 7)
    const hash = await putBlob(knex, large)
    expect(await putBlob(knex, large)).toBe(hash)
    expect(Buffer.compare((await getBlob(knex, hash))!, large)).toBe(0)
    expect(await getBlob(knex, await putBlob(knex, new Uint8Array(0)))).toEqual(new Uint8Array(0))
    expect(await getBlob(knex, 'f'.repeat(64))).toBeUndefined()
  })

  it('of a package is shared part by part, and joins to the file', async () => {
    const pieces = await putPackage(knex, guide)
    expect(pieces.length).toBeGreaterThan(5)
    expect(await getPackage(knex, pieces)).toEqual(guide)
    const before = Number((await knex('blobs').count({ n: '*' }).first())!.n)
    await putPackage(knex, guide)
    expect(Number((await knex('blobs').count({ n: '*' }).first())!.n)).toBe(before)
  })
})

describe('versions', () => {
  it('are added on top of the newest only, all or nothing', async () => {
    const { id } = await addDocument(acting(), { fileName: 'a.odt', kind: 'text', signed: false, bytes: guide })
    const next = {
      madeBy: 'change' as const,
      title: 't',
      content: { bytes: guide, ids: { 'content.xml': [[0, 0, 5]] as const } },
      plan: null,
    }
    await addVersion(acting(), id, 1, next)
    await expect(addVersion(acting(), id, 1, next)).rejects.toThrow(ConflictError)
    await expect(addVersion(acting(), '00000000-0000-4000-8000-000000000000', 1, next)).rejects.toThrow(RangeError)
    const broken = { ...next, content: { bytes: new Uint8Array([1, 2, 3]), ids: {} } }
    await expect(addVersion(acting(), id, 2, broken)).rejects.toThrow()
    expect((await listVersions(acting(), id)).map(version => version.number)).toEqual([1, 2])
    expect((await versionContent(acting(), id, 2))!.ids).toEqual({ 'content.xml': [[0, 0, 5]] })
  })

  it('keep the count of faces whose names the database cannot tell apart', async () => {
    const { id } = await addDocument(acting(), { fileName: 'b.odt', kind: 'text', signed: false, bytes: guide })
    const { census } = sessionOf({
      styles: paragraphStyle('A', 'fo:font-family="\'Arial \'"') + paragraphStyle('B', 'fo:font-family="Arial"'),
      body: '<text:p text:style-name="A">one</text:p><text:p text:style-name="B">two</text:p>',
    }).detail
    const faces = [census.faces[0]!, { ...census.faces[0]!, family: `${census.faces[0]!.family} ` }]
    await storeSurvey(acting(), id, 1, { ...census, faces }, '<svg/>')
    const rows = await knex('document_faces').where({ document: id }).select<{ characters: number }[]>('characters')
    expect(rows.map(each => each.characters)).toEqual([faces[0]!.characters * 2])
  })

  it('tell what undo and redo go to', () => {
    const list = [row(1, 1, 'upload'), row(2, 2, 'change'), row(3, 3, 'change')]
    expect(history(list)).toMatchObject({ undo: { state: 2, title: 'v3' }, redo: null })
    list.push(row(4, 2, 'undo'))
    expect(history(list)).toMatchObject({ undo: { state: 1, title: 'v2' }, redo: { state: 3, title: 'v3' } })
    list.push(row(5, 1, 'undo'))
    expect(history(list)).toMatchObject({ undo: null, redo: { state: 2, title: 'v2' } })
    list.push(row(6, 2, 'redo'))
    expect(history(list)).toMatchObject({ undo: { state: 1, title: 'v2' }, redo: { state: 3, title: 'v3' } })
    list.push(row(7, 7, 'change'))
    expect(history(list)).toMatchObject({ undo: { state: 2, title: 'v7' }, redo: null })
  })
})

describe('jobs', () => {
  it('are claimed once, however many servers ask', async () => {
    await knex('jobs').delete()
    for (let count = 0; count < 3; count++)
      await addDocument(acting(), { fileName: `${count}.odt`, kind: 'text', signed: false, bytes: guide })
    await seeServer(knex, 'one')
    const claimed = await Promise.all(Array.from({ length: 6 }, () => claimJob(knex, 'one')))
    const ids = claimed.filter(job => job !== null).map(job => job.id)
    expect(ids).toHaveLength(3)
    expect(new Set(ids).size).toBe(3)
    await reportJob(knex, ids[0]!, 'done', 1)
    // A server that is seen keeps its jobs; what one held that is gone is given out again.
    await seeServer(knex, 'one')
    expect(await claimJob(knex, 'two')).toBeNull()
    await knex('servers')
      .where({ id: 'one' })
      .update({ seen: new Date(Date.now() - 60_000) })
    // Which of the two first is nobody's to say: they came within one moment.
    expect(ids.slice(1)).toContain((await claimJob(knex, 'two'))!.id)
    await seeServer(knex, 'two')
    await leaveServer(knex, 'two')
    expect(await claimJob(knex, 'three')).not.toBeNull()
  })
})
