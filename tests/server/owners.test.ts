import { readFileSync, readdirSync } from 'node:fs'
import { join } from 'node:path'
import type { Knex } from 'knex'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { noStarts } from '../../core/change/defaults/desk-starts'
import { registry } from '../../core/change/registry'
import { takePiece } from '../../core/change/kept-frame/set-piece'
import { readFace } from '../../core/font/read'
import { contentHash, projectFolder } from '../../server/library/files'
import { renamedFont } from '../../server/library/font-rename'
import { actingAs, type Acting } from '../../server/store/acting'
import { addBatch, findBatch, listBatches, startBatch, steerBatch, undoBatch } from '../../server/store/batches'
import { addDocument, findDocument } from '../../server/store/documents'
import { droppedFonts } from '../../server/store/dropped-fonts'
import { addedFaces, addFaces, faceFile, libraryState, listFaces, removeFace } from '../../server/store/faces'
import {
  addFolder,
  findFolder,
  listFolders,
  moveToFolder,
  removeFolder,
  renameFolder,
  startsOf,
  storeStarts,
} from '../../server/store/folders'
import { claimJob } from '../../server/store/jobs'
import { changeKept, dropKept, keep, listKept } from '../../server/store/kept'
import { shelfPage } from '../../server/store/shelf'
import { shelfCensus } from '../../server/store/shelf-census'
import { setStandIn, standInsFor, standInsOf } from '../../server/store/stand-ins'
import {
  addVersion,
  listRecords,
  listVersions,
  storeSurvey,
  versionContent,
  versionRecord,
} from '../../server/store/versions'
import { JobFeed } from '../../server/work/job-feed'
import { rights } from '../../shared/rights'
import { shelfQuerySchema, type Job } from '../../shared/api'
import { makeOdt, sessionOf, textFrame } from '../support/fixtures'
import { dropDatabase, letGo, ownDatabase } from './running'

const database = 'morphene_owners_test'
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
const add = async (acting: Acting, fileName = 'Pier.odt', folder: string | null = null) =>
  (await addDocument(acting, { fileName, kind: 'text', signed: false, bytes, folder })).id
/** What somebody is told of jobs within a moment. */
async function jobsTold(owner: string): Promise<Job[]> {
  const feed = new JobFeed(() => Promise.resolve(knex))
  const told: Job[] = []
  const stop = feed.listen(owner, job => told.push(job))
  await new Promise(resolve => setTimeout(resolve, 900))
  stop()
  return told
}
const everything = shelfQuerySchema.parse({})
const swap = registry.schema.parse({ wishes: [{ type: 'swap', from: { family: 'A' }, to: { family: 'B' } }] })
const plan = { madeBy: 'change' as const, title: 't', content: { bytes, ids: {} }, plan: null }

describe('what belongs to one owner', () => {
  it('a document with all that hangs on it is nothing to another', async () => {
    const id = await add(ours)
    const { census } = sessionOf({ body: '<text:p>Pier</text:p>' }).detail
    await storeSurvey(ours, id, 1, census, '<svg/>')
    expect(await findDocument(theirs, id)).toBeUndefined()
    expect(await listVersions(theirs, id)).toEqual([])
    expect(await versionContent(theirs, id, 1)).toBeUndefined()
    expect(await versionRecord(theirs, id, 1)).toBeUndefined()
    expect(await droppedFonts(theirs, id)).toEqual([])
    expect(await shelfPage(theirs, everything)).toEqual({ cards: [], total: 0 })
    expect((await shelfPage(theirs, { ...everything, ids: [id] })).total).toBe(0)
    expect((await shelfCensus(theirs)).families).toEqual([])
    expect((await shelfCensus(ours)).families.length).toBeGreaterThan(0)
    expect((await jobsTold(ours.actor.owner)).map(job => job.document)).toContain(id)
    expect(await jobsTold(theirs.actor.owner)).toEqual([])
    await expect(addVersion(theirs, id, 1, plan)).rejects.toThrow(RangeError)
    await storeSurvey(theirs, id, 1, census, '<svg>theirs</svg>')
    expect((await versionRecord(ours, id, 1))!.firstPage).toBe('<svg/>')
    await letGo(theirs, id)
    expect((await versionContent(ours, id, 1))!.bytes).toEqual(bytes)
  })

  it('versions and records name who made them, jobs for whom they are done', async () => {
    const id = await add(theirs)
    const made = await addVersion(theirs, id, 1, { ...plan, plan: { title: 't' } as never })
    expect([made.author, ...(await listVersions(theirs, id)).map(each => each.author)]).toEqual([
      'someone',
      'someone',
      'someone',
    ])
    expect((await listRecords(theirs)).map(each => [each.document, each.author])).toEqual([[id, 'someone']])
    expect(await listRecords(ours)).toEqual([])
    await knex('jobs').delete()
    const batch = await addBatch(theirs, swap, 'Theirs', [id, await add(ours)])
    expect((await findBatch(theirs, batch))!.documents.map(each => each.document)).toEqual([id])
    await knex('jobs').where({ kind: 'survey' }).delete()
    expect(await claimJob(knex, 'one')).toMatchObject({ batch, owner: 'other', person: 'someone' })
    expect(await findBatch(ours, batch)).toBeUndefined()
    expect(await listBatches(ours)).toEqual([])
    expect((await listBatches(theirs)).map(each => each.author)).toEqual(['someone'])
    expect(await steerBatch(ours, batch, 'cancel')).toBe(false)
    expect(await startBatch(ours, batch, [])).toBe(false)
    expect(await undoBatch(ours, batch)).toBe(false)
  })

  it('folders of one name lie side by side, and neither is the other’s', async () => {
    const [mine, yours] = [(await addFolder(ours, 'Winter'))!, (await addFolder(theirs, 'Winter'))!]
    expect(await addFolder(ours, 'Winter')).toBeNull()
    const id = await add(ours, 'In winter.odt', mine)
    expect(await moveToFolder(ours, id, yours)).toBe(false)
    expect(await findFolder(theirs, mine)).toBeUndefined()
    expect(await renameFolder(theirs, mine, 'Spring')).toBe('gone')
    expect(await removeFolder(theirs, mine)).toBe(false)
    expect(await listFolders(ours)).toMatchObject([{ id: mine, name: 'Winter', documents: 1, members: [] }])
    expect(await listFolders(theirs)).toMatchObject([{ id: yours, name: 'Winter', documents: 0, members: [] }])
    const starts = { ...noStarts, kinds: { body: { text: { 'fo:font-size': '12pt' } } } }
    await storeStarts(ours, null, starts)
    expect([await startsOf(ours, null), await startsOf(theirs, null)]).toEqual([starts, noStarts])
  })

  it('faces that one added are not in the library of another, though the file is kept once', async () => {
    const font = renamedFont(
      new Uint8Array(
        readFileSync(join(projectFolder(), 'node_modules/@expo-google-fonts/karla/400Regular/Karla_400Regular.ttf')),
      ),
      'Tolmere',
      'Regular',
      'Ours',
    )
    const face = readFace(font, contentHash(font), 'added')
    expect(await addFaces(ours, [{ bytes: font, face: { ...face, licence: 'Ours' } }], 'file')).toBe(1)
    expect(await addedFaces(theirs)).toEqual([])
    expect(await faceFile(theirs, face.hash)).toBeUndefined()
    expect(await removeFace(theirs, face.hash)).toBe(false)
    expect(await addFaces(theirs, [{ bytes: font, face: { ...face, licence: 'Theirs' } }], 'file')).toBe(1)
    expect((await listFaces(ours)).map(each => each.licence)).toEqual(['Ours'])
    expect((await listFaces(theirs)).map(each => each.licence)).toEqual(['Theirs'])
    const before = await libraryState(theirs)
    expect(await removeFace(ours, face.hash)).toBe(true)
    expect([await libraryState(theirs), (await faceFile(theirs, face.hash))!.length]).toEqual([before, font.length])
    expect(await listFaces(ours)).toEqual([])
  })

  it('stand-ins, kept wishes and kept frames are their owner’s', async () => {
    const id = await add(ours)
    await setStandIn(ours, { level: 'desk' }, { family: '', script: 'any', to: 'Inter' })
    await setStandIn(ours, { level: 'document', id }, { family: 'A', script: 'any', to: 'Jost' })
    expect(await standInsOf(theirs, { level: 'desk' })).toEqual([])
    expect(await standInsFor(theirs, { id, folder: null, house: null })).toEqual([])
    expect((await standInsFor(ours, { id, folder: null, house: null })).map(each => each.to)).toEqual(['Jost', 'Inter'])
    const wish = (await keep(ours, 'wish', { heading: '', name: 'Quiet', data: swap }))!
    await keep(theirs, 'wish', { heading: '', name: 'Quiet', data: swap })
    expect([(await listKept(ours, 'wish')).length, (await listKept(theirs, 'wish')).length]).toEqual([1, 1])
    expect(await dropKept(theirs, 'wish', wish)).toBe(false)
    const open = sessionOf({ body: `<text:p>${textFrame('', '<text:p>boxed</text:p>')}</text:p>` })
    const frame = [...open.document.parts.get('content.xml')!.descendants()].find(each => each.name === 'draw:frame')!
    const piece = (await keep(ours, 'frame', {
      heading: 'Boxes',
      name: 'Box',
      data: takePiece(open.reading, 'content.xml', frame.id),
    }))!
    expect(await listKept(theirs, 'frame')).toEqual([])
    expect(await changeKept(theirs, 'frame', piece, { name: 'Mine' })).toBe('gone')
    expect(await dropKept(theirs, 'frame', piece)).toBe(false)
    expect(await dropKept(ours, 'frame', piece)).toBe(true)
  })

  it('whatever is on the shelf can be taken off again, with all its rows', async () => {
    const id = await add(ours)
    await addVersion(ours, id, 1, plan)
    await letGo(ours, id)
    for (const table of ['versions', 'version_pieces', 'jobs', 'document_faces'])
      expect(await knex(table).where({ document: id })).toEqual([])
  })
})

describe('every route', () => {
  const folder = join(projectFolder(), 'server/api')
  const waysIn = [
    'me/index.get.ts',
    'sign-in.post.ts',
    'link.post.ts',
    'join.post.ts',
    'come-in.post.ts',
    'provider/begin.post.ts',
    'provider/back.get.ts',
  ]
  const routes = readdirSync(folder, { recursive: true, encoding: 'utf8' }).filter(path => path.endsWith('.ts'))

  it.each(routes)('%s says the right it needs', path => {
    const right = /^export default route\(\s*'(\w+)'/m.exec(readFileSync(join(folder, path), 'utf8'))?.[1]
    // Whether the server is there is told to anybody, and that there is nothing; the ways in are open to all.
    if (path === 'health.get.ts' || path === '[...].ts' || waysIn.includes(path)) expect(right).toBeUndefined()
    else expect(rights).toContain(right)
    // What is one's own is changed by whoever may look at all.
    if (right !== undefined && !path.endsWith('.get.ts') && !/^(me\/|sign-out)/.test(path))
      expect(right).not.toBe('look')
  })
})
