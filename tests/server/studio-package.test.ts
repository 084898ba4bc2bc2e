import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { PassThrough, Readable } from 'node:stream'
import { gunzipSync, gzipSync } from 'node:zlib'
import type { Knex } from 'knex'
import { extract, pack } from 'tar-stream'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { noStarts } from '../../core/change/defaults/desk-starts'
import { registry } from '../../core/change/registry'
import { readFace } from '../../core/font/read'
import { houseFromPair } from '../../core/house/make-house'
import { contentHash, projectFolder } from '../../server/library/files'
import { renamedFont } from '../../server/library/font-rename'
import { actingAs, type Acting } from '../../server/store/acting'
import { auditLog } from '../../server/store/audit'
import { addBatch, findBatch, listBatches } from '../../server/store/batches'
import { addDocument } from '../../server/store/documents'
import { addFaces, faceFile, listFaces } from '../../server/store/faces'
import { addFolder, setFolderMembers, startsOf, storeStarts } from '../../server/store/folders'
import { addHouse, issueHouse, linkHouse, listHouses } from '../../server/store/houses'
import { keep, listKept } from '../../server/store/kept'
import { actorOf, invite, listInvitations, listPeople, ownersOf } from '../../server/store/people'
import { addRemark, remarksOf } from '../../server/store/remarks'
import { shelfPage } from '../../server/store/shelf'
import { setStandIn, standInsOf } from '../../server/store/stand-ins'
import { takeStudioIn, StudioPackageError } from '../../server/store/studio-arrival'
import { endStudio } from '../../server/store/studio-end'
import { writeStudio } from '../../server/store/studio-package'
import { studioParts, tablesOfNobody } from '../../server/store/studio-parts'
import { setTrashDays, trashDays, trashDocument } from '../../server/store/trash'
import { verifyStore } from '../../server/store/verify'
import { addVersion, listVersions, versionContent } from '../../server/store/versions'
import { shelfQuerySchema } from '../../shared/api'
import { makeOdt } from '../support/fixtures'
import { dropDatabase, ownDatabase } from './running'

const [here, there] = ['morphene_studio_here', 'morphene_studio_there']
let knex: Knex
let elsewhere: Knex
let ours: Acting
let theirs: Acting
let document = ''
let packed: Buffer
beforeAll(async () => {
  knex = await ownDatabase(here)
  elsewhere = await ownDatabase(there)
  ours = actingAs(knex)
  await fill()
  packed = await packageOf(knex, 'desk')
})
afterAll(async () => {
  await dropDatabase(knex, here)
  await dropDatabase(elsewhere, there)
})

const tolmere = renamedFont(
  new Uint8Array(
    readFileSync(join(projectFolder(), 'node_modules/@expo-google-fonts/karla/400Regular/Karla_400Regular.ttf')),
  ),
  'Tolmere',
  'Regular',
  'Ours',
)
const text = (words: string) => makeOdt({ body: `<text:p>${words}</text:p>` })
const everything = shelfQuerySchema.parse({})

async function packageOf(from: Knex, owner: string): Promise<Buffer> {
  const stream = new PassThrough()
  const written = writeStudio(from, owner, stream)
  const chunks: Buffer[] = []
  for await (const chunk of stream) chunks.push(chunk as Buffer)
  await written
  return Buffer.concat(chunks)
}

/** A studio with something of everything. */
async function fill(): Promise<void> {
  await knex('people').insert({
    id: 'jory',
    owner: 'desk',
    name: 'Jory Penn',
    sign_in: 'jory',
    passphrase: 'a hash of it',
    role: 'designer',
    also: '["sign"]',
    created: new Date(),
  })
  const jory = { knex, actor: actorOf({ id: 'jory', owner: 'desk', role: 'designer', also: '["sign"]' }) }
  await invite(ours, { name: 'Isla Brae', role: 'reader', also: [] })
  const folder = (await addFolder(ours, 'Ferries'))!
  await setFolderMembers(ours, folder, [{ person: 'jory', role: 'reader' }])
  const add = (words: string) =>
    addDocument(ours, { fileName: `${words}.odt`, kind: 'text', signed: false, bytes: text(words), folder })
  document = (await add('Two boats a day')).id
  await addVersion(jory, document, 1, {
    madeBy: 'change',
    title: 'One boat',
    content: { bytes: text('One boat a day'), ids: {} },
    plan: null,
  })
  await trashDocument(ours, (await add('Thrown away')).id)
  const house = (await addHouse(
    ours,
    houseFromPair('Ossay', { heading: 'Jost', body: 'Literata', size: 10, ratio: 1.25 }),
    null,
  ))!
  await issueHouse(ours, house, 1)
  await linkHouse(ours, document, house)
  await storeStarts(ours, folder, noStarts)
  await setStandIn(ours, { level: 'desk' }, { family: 'Brannock', script: 'any', to: 'Karla' })
  await addRemark(jory, document, { text: 'Is it one?', version: 2, place: null, finding: null, to: 'desk' })
  await keep(ours, 'wish', { name: 'To Karla', heading: '', data: swap })
  await addFaces(ours, [{ bytes: tolmere, face: readFace(tolmere, contentHash(tolmere), 'added') }], 'test')
  await addBatch(ours, swap, 'Everywhere', [document])
  await setTrashDays(ours, 12)
}
const swap = registry.schema.parse({ wishes: [{ type: 'swap', from: { family: 'A' }, to: { family: 'B' } }] })

describe('a studio’s package', () => {
  it('comes elsewhere with all that was the studio’s, under its people’s names', async () => {
    const came = await takeStudioIn(elsewhere, Readable.from([packed]))
    expect(came).toMatchObject({ name: 'This desk', documents: 2, versions: 3 })
    const [owner] = await ownersOf(elsewhere, came.owner)
    theirs = actingAs(elsewhere, owner!.actor)
    expect(theirs.actor.person).not.toBe('desk')
    const { cards } = await shelfPage(theirs, everything)
    expect(cards).toMatchObject([{ id: document, fileName: 'Two boats a day.odt' }])
    for (const number of [1, 2])
      expect((await versionContent(theirs, document, number))!.bytes).toEqual(
        (await versionContent(ours, document, number))!.bytes,
      )
    // Who did it is told; the first person of every desk has one id, which is another one here.
    expect((await listVersions(theirs, document)).map(each => each.author)).toEqual([theirs.actor.person, 'jory'])
    expect(await remarksOf(theirs, document)).toMatchObject([
      { text: 'Is it one?', author: 'jory', to: theirs.actor.person },
    ])
    expect(await listHouses(theirs)).toMatchObject([{ name: 'Ossay', issued: 1 }])
    expect(await listKept(theirs, 'wish')).toMatchObject([{ name: 'To Karla', data: swap }])
    expect(await standInsOf(theirs, { level: 'desk' })).toHaveLength(1)
    const hash = contentHash(tolmere)
    expect((await listFaces(theirs)).map(each => each.hash)).toContain(hash)
    expect(await faceFile(theirs, hash)).toEqual(tolmere)
    expect(await startsOf(theirs, cards[0]!.folder!)).toEqual(noStarts)
    expect([await trashDays(theirs), (await auditLog(theirs)).length]).toEqual([12, (await auditLog(ours)).length])
    // What was being planned is not; documents wait to be counted.
    const [batch] = await listBatches(theirs)
    expect(batch).toMatchObject({ title: 'Everywhere', state: 'cancelled' })
    expect((await findBatch(theirs, batch!.id))!.documents).toMatchObject([{ document, state: 'cancelled' }])
    expect(await elsewhere('jobs').where({ document, state: 'queued' })).toHaveLength(1)
    expect((await verifyStore(elsewhere)).faults).toEqual([])
  })

  it('brings nobody’s way in', async () => {
    const people = await elsewhere('people')
      .where({ owner: theirs.actor.owner })
      .select('name', 'sign_in', 'passphrase')
    expect(people).toEqual(expect.arrayContaining([{ name: 'Jory Penn', sign_in: null, passphrase: null }]))
    expect(await listInvitations(theirs)).toEqual([])
    expect(gunzipSync(packed).includes('a hash of it')).toBe(false)
    expect(await listPeople(actingAs(elsewhere))).toHaveLength(1)
  })

  it('does not come where it is already, and nothing is changed by trying', async () => {
    const before = await elsewhere('owners').select('id')
    await expect(takeStudioIn(elsewhere, Readable.from([packed]))).rejects.toThrow('on this installation already')
    expect(await elsewhere('owners').select('id')).toEqual(before)
  })

  it('goes for good with all that is its own, and others keep what they share', async () => {
    // The desk’s own studio there has one document in common with it.
    const shared = await addDocument(actingAs(elsewhere), {
      fileName: 'Shared.odt',
      kind: 'text',
      signed: false,
      bytes: text('Two boats a day'),
    })
    const gone = await endStudio(elsewhere, theirs.actor.owner)
    expect(gone).toMatchObject({ documents: 2, people: 2, left: 0 })
    expect(gone.shared).toBeGreaterThan(0)
    expect(gone.shared).toBeLessThan(gone.pieces)
    for (const { table, by } of studioParts)
      if (by === 'owner')
        expect([table, await elsewhere(table).where({ owner: theirs.actor.owner })]).toEqual([table, []])
    expect(await elsewhere('versions').whereNot({ document: shared.id })).toEqual([])
    expect((await versionContent(actingAs(elsewhere), shared.id, 1))!.bytes).toEqual(text('Two boats a day'))
    await expect(endStudio(elsewhere, theirs.actor.owner)).rejects.toThrow('no such studio')
    await expect(endStudio(elsewhere, 'desk')).rejects.toThrow('first studio of a desk stays')
    // And it comes again.
    const again = await takeStudioIn(elsewhere, Readable.from([packed]))
    expect(again.documents).toBe(2)
    await endStudio(elsewhere, again.owner)
  })

  it('is broken off where nobody reads it any more, and no connection is kept', async () => {
    const stream = new PassThrough()
    const written = writeStudio(knex, 'desk', stream)
    stream.destroy()
    await expect(written).rejects.toThrow()
    await expect(writeStudio(knex, 'nobody', new PassThrough())).rejects.toThrow('no such studio')
    expect(await knex('owners').select('id')).toHaveLength(1)
  })
})

/** The package with a file of it changed: by its name, to other words, or away with null. */
async function changed(
  change: (name: string, text: Buffer) => Buffer | null,
  called: (name: string) => string = name => name,
): Promise<Readable> {
  const [archive, out] = [extract(), pack()]
  archive.end(gunzipSync(packed))
  for await (const entry of archive) {
    const chunks: Buffer[] = []
    for await (const chunk of entry) chunks.push(chunk as Buffer)
    const made = change(entry.header.name, Buffer.concat(chunks))
    if (made) out.entry({ name: called(entry.header.name) }, made)
  }
  out.finalize()
  const chunks: Buffer[] = []
  for await (const chunk of out) chunks.push(chunk as Buffer)
  return Readable.from([gzipSync(Buffer.concat(chunks))])
}
const replaced = (file: string, from: string | RegExp, to: string) =>
  changed((name, text) => (name.startsWith(file) ? Buffer.from(text.toString().replace(from, to)) : text))

describe('what is no sound package', () => {
  const refused: readonly (readonly [string, () => Promise<Readable>, string])[] = [
    ['something else', () => Promise.resolve(Readable.from([Buffer.from('words')])), 'damaged or no package'],
    ['another archive', async () => Readable.from([gzipSync(Buffer.alloc(1024))]), 'no package of a studio'],
    ['one that is cut off', async () => Readable.from([packed.subarray(0, packed.length / 2)]), 'Nothing was changed'],
    [
      'one of another version',
      () => replaced('studio.json', /"schema": "[^"]+"/, '"schema": "003"'),
      'another version',
    ],
    ['content that is not what it says', () => replaced('content/', /^./s, '!'), 'is damaged'],
    [
      'content that is missing',
      () => changed((name, text) => (name.startsWith('content/') ? null : text)),
      'is missing',
    ],
    ['a row of somebody else’s document', () => replaced('rows/versions', document, 'elsewhere'), 'hangs on something'],
    [
      'a row with an owner',
      () => replaced('rows/folders', '{', '{"owner":"desk",'),
      'has a field that “folders” has not',
    ],
    ['a row with a passphrase', () => replaced('rows/people', '{', '{"passphrase":"x",'), 'has a field that “people”'],
    ['a row that is none', () => replaced('rows/kept', '{', '['), 'cannot be read'],
    [
      'rows of what travels in none',
      () =>
        changed(
          (_, text) => text,
          name => name.replace('rows/kept', 'rows/sessions'),
        ),
      'belongs in no package',
    ],
    [
      'one without an owner',
      () => replaced('rows/people', '"role":"owner"', '"role":"reader"'),
      'Nobody in the package is an owner',
    ],
  ]
  it.each(refused)('%s: a sentence, and nothing comes', async (_, made, says) => {
    const before = await elsewhere('owners').select('id')
    const error = await takeStudioIn(elsewhere, await made()).catch((failed: unknown) => failed)
    expect(error).toBeInstanceOf(StudioPackageError)
    expect((error as Error).message).toContain(says)
    expect((error as Error).message).toContain('Nothing was changed.')
    expect(await elsewhere('owners').select('id')).toEqual(before)
  })
})

it('every table of the schema belongs to a studio, or to nobody', async () => {
  const [rows] = (await knex.raw('show tables')) as [Record<string, string>[]]
  const tables = rows.map(row => Object.values(row)[0]!).filter(name => !name.startsWith('knex_'))
  const known = [...studioParts.map(part => part.table), ...tablesOfNobody]
  expect(tables.filter(name => !known.includes(name as (typeof known)[number]))).toEqual([])
  expect(known.filter(name => !tables.includes(name))).toEqual([])
})
