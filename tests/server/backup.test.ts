import { mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { gunzipSync, gzipSync } from 'node:zlib'
import type { Knex } from 'knex'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { contentHash } from '../../server/library/files'
import { actingAs, type Acting } from '../../server/store/acting'
import { restoreBackup, replacedName, writeBackup } from '../../server/store/backup'
import { connect, databaseAddress } from '../../server/store/database'
import { addDocument } from '../../server/store/documents'
import { seeServer } from '../../server/store/jobs'
import { shelfPage } from '../../server/store/shelf'
import { trashDocument } from '../../server/store/trash'
import { verifyStore } from '../../server/store/verify'
import { addVersion, listVersions, versionContent } from '../../server/store/versions'
import { Surveyor } from '../../server/work/surveyor'
import { carryOut } from '../../server/work/tasks/carry-out'
import { shelfQuerySchema } from '../../shared/api'
import { makeOdt } from '../support/fixtures'
import { dropDatabase, ownDatabase } from './running'

const [here, elsewhere] = ['morphene_backup_test', 'morphene_backup_elsewhere']
const folder = mkdtempSync(join(tmpdir(), 'morphene-backup-'))
const file = join(folder, 'desk.sql.gz')
const addressOf = (database: string) => ({ ...databaseAddress(), database })
let knex: Knex

const text = (words: string) => makeOdt({ body: `<text:p>${words}</text:p>` })
const add = (acting: Acting, words: string) =>
  addDocument(acting, { fileName: `${words}.odt`, kind: 'text', signed: false, bytes: text(words) })

/** What every version of every document on the shelf is, by its hash. */
async function contents(acting: Acting): Promise<Record<string, string>> {
  const found: Record<string, string> = {}
  for (const { id } of (await shelfPage(acting, { ...shelfQuerySchema.parse({}), count: 200 })).cards)
    for (const { number } of await listVersions(acting, id))
      found[`${id} ${number}`] = contentHash((await versionContent(acting, id, number))!.bytes)
  return found
}

beforeAll(async () => {
  knex = await ownDatabase(here)
})
afterAll(async () => {
  await dropDatabase(knex, here)
  for (const name of [elsewhere, replacedName(elsewhere)]) {
    const other = connect(addressOf(name), 1)
    await other.raw('drop database if exists ??', [name]).finally(() => other.destroy())
  }
  rmSync(folder, { recursive: true })
})

describe('a backup', { timeout: 120_000 }, () => {
  it('taken from a desk in use is of one moment, and whole where it is read back', async () => {
    const acting = actingAs(knex)
    const first = await add(acting, 'first')
    await addVersion(acting, first.id, 1, {
      madeBy: 'edit',
      title: 't',
      content: { bytes: text('changed'), ids: {} },
      plan: null,
    })
    await trashDocument(acting, (await add(acting, 'thrown away')).id)
    const before = await contents(acting)
    // People work all the while.
    let stop = false
    let made = 0
    const working = (async () => {
      while (!stop) {
        const { id } = await add(acting, `while ${made}`)
        await addVersion(acting, id, 1, {
          madeBy: 'edit',
          title: 't',
          content: { bytes: text(`while ${made++}, later`), ids: {} },
          plan: null,
        })
      }
    })()
    await new Promise(resolve => setTimeout(resolve, 200))
    await writeBackup(addressOf(here), file)
    stop = true
    await working
    expect(made).toBeGreaterThan(0)
    const after = await contents(acting)

    expect(statSync(file).mode & 0o777).toBe(0o600)
    const verified = await restoreBackup(addressOf(elsewhere), file)
    expect(verified.faults).toEqual([])
    const other = connect(addressOf(elsewhere))
    const back = await contents(actingAs(other))
    expect(back).toMatchObject(before)
    expect(after).toMatchObject(back)
    expect(await other('documents').whereNotNull('trashed').select('file_name')).toEqual([
      { file_name: 'thrown away.odt' },
    ])
    // Every document opens, and what waited to be counted is counted.
    const surveyor = new Surveyor(() => Promise.resolve(other), { run: task => carryOut(task) as never })
    expect(await surveyor.one()).toBe(true)
    await surveyor.stop()
    for (const { id } of (await shelfPage(actingAs(other), shelfQuerySchema.parse({}))).cards)
      expect(
        (await carryOut({ kind: 'check', bytes: (await versionContent(actingAs(other), id, 1))!.bytes })).kind,
      ).toBe('text')
    await other.destroy()
  })

  it('takes the place of a desk only where it is asked to, and keeps what was there', async () => {
    await expect(restoreBackup(addressOf(elsewhere), file)).rejects.toThrow(/--replace/)
    const other = connect(addressOf(elsewhere))
    const late = await add(actingAs(other), 'late')
    await seeServer(other, 'a')
    await expect(restoreBackup(addressOf(elsewhere), file, { replace: true })).rejects.toThrow(/server is at work/)
    await other('servers').delete()
    await restoreBackup(addressOf(elsewhere), file, { replace: true })
    expect(await other('documents').where({ id: late.id })).toEqual([])
    const replaced = connect(addressOf(replacedName(elsewhere)))
    expect(await replaced('documents').where({ id: late.id })).toHaveLength(1)
    await Promise.all([other.destroy(), replaced.destroy()])
  })

  it('is not written over a file that is there', async () => {
    const kept = readFileSync(file)
    await expect(writeBackup(addressOf(here), file)).rejects.toThrow(/there already/)
    expect(readFileSync(file).equals(kept)).toBe(true)
  })

  it.each([
    ['that is something else', () => Buffer.from('not a backup at all'), /no backup of a desk/],
    ['that is other text, packed', () => gzipSync('select 1;\n'), /no backup of a desk/],
    ['that is cut off', () => readFileSync(file).subarray(0, statSync(file).size / 2), /cannot be read to its end/],
    [
      'that lacks its end',
      () => {
        const sql = gunzipSync(readFileSync(file))
        return gzipSync(sql.subarray(0, sql.lastIndexOf('-- Dump completed')))
      },
      /ends too early/,
    ],
    [
      'in which content was changed',
      () => {
        const sql = gunzipSync(readFileSync(file)).toString('latin1')
        const at = sql.indexOf('0x504B0304', sql.indexOf('INSERT INTO `blob_chunks`'))
        return gzipSync(Buffer.from(`${sql.slice(0, at)}0x504B0305${sql.slice(at + 10)}`, 'latin1'))
      },
      /not what it was/,
    ],
  ])('%s is refused, and the desk stays as it is', async (_what, made, sentence) => {
    const bad = join(folder, 'bad.sql.gz')
    writeFileSync(bad, made())
    const other = connect(addressOf(elsewhere))
    const before = await contents(actingAs(other))
    await expect(restoreBackup(addressOf(elsewhere), bad, { replace: true })).rejects.toThrow(sentence)
    expect(await contents(actingAs(other))).toEqual(before)
    const [rows] = await other.raw<[unknown[]]>("show databases like 'morphene\\_backup\\_elsewhere\\_restoring'")
    expect(rows).toEqual([])
    await other.destroy()
  })
})

describe('a store', () => {
  it('says what is missing in it', async () => {
    const acting = actingAs(knex)
    const { id } = await add(acting, 'lacks its content')
    expect((await verifyStore(knex)).faults).toEqual([])
    await knex('version_pieces').where({ document: id }).delete()
    await knex('documents').where({ id }).update({ version: 7 })
    expect((await verifyStore(knex)).faults).toEqual([
      '“lacks its content.odt” lacks its newest version',
      `version 1 of the document ${id} has no content`,
    ])
  })
})
