import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Knex } from 'knex'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { request, swap } from '../support/planning'
import { sailingGuide } from '../../demo/sailing-guide'
import { projectFolder } from '../../server/library/files'
import { shelfQuerySchema } from '../../shared/api'
import { actingAs } from '../../server/store/acting'
import { addDocument } from '../../server/store/documents'
import { shelfPage } from '../../server/store/shelf'
import { versionRecord } from '../../server/store/versions'
import { ThreadPool, TaskError, type ThreadLimits } from '../../server/work/pool'
import { Surveyor } from '../../server/work/surveyor'
import { carryOut } from '../../server/work/tasks/carry-out'
import { badFiles } from '../support/bad-files'
import { dropDatabase, ownDatabase } from './running'

const guide = sailingGuide()
const script = join(projectFolder(), '.morphene/build/thread.mjs')
const folder = mkdtempSync(join(tmpdir(), 'morphene-work-'))
let knex: Knex
const acting = () => actingAs(knex)
const everything = shelfQuerySchema.parse({})
let pool: ThreadPool
beforeAll(async () => {
  knex = await ownDatabase('morphene_work_test')
  pool = new ThreadPool(script, 2)
})
afterAll(async () => {
  await pool.close()
  await dropDatabase(knex, 'morphene_work_test')
  rmSync(folder, { recursive: true })
})

describe('threads', () => {
  it('do side by side what one call does', async () => {
    const asked = request([swap('Skerrow', 'Work Sans')])
    const [check, survey, change] = await Promise.all([
      pool.run({ kind: 'check', bytes: guide }),
      pool.run({ kind: 'survey', bytes: guide, ids: {} }),
      pool.run({ kind: 'change', bytes: guide, ids: {}, request: asked }),
    ])
    expect(check).toEqual({ kind: 'text', signed: false, title: 'Sailing guide' })
    expect(survey.census.document.pages).toBe(24)
    const here = await carryOut({ kind: 'change', bytes: guide, ids: {}, request: asked })
    expect(Buffer.compare(change.bytes, here.bytes)).toBe(0)
    expect(change.plan).toEqual(here.plan)
  })

  it('pass refusals on with their reason', async () => {
    const [, make, word] = badFiles[1]!
    const refused = pool.run({ kind: 'check', bytes: make() })
    await expect(refused).rejects.toThrow(TaskError)
    await expect(refused).rejects.toThrow(word)
    await expect(refused).rejects.toMatchObject({ failure: { name: 'PackageError', fault: 'not-zip' } })
  })

  /** A pool whose threads run a script of a test's own. */
  const poolOf = (name: string, source: string, limits: ThreadLimits = {}) => {
    const path = join(folder, `${name}.mjs`)
    writeFileSync(path, source)
    return new ThreadPool(path, 1, limits)
  }
  const nothing = new Uint8Array(0)

  it('that die end their task with a word, and others go on', async () => {
    // An error that no task waits for ends a thread, as running out of memory does.
    const fragile = poolOf(
      'dying',
      "const die = () => new Promise(() => setImmediate(() => { throw new Error('gone') }))\n" +
        "export default task => (task.kind === 'check' ? die() : { result: 'alive' })",
    )
    const first = fragile.run({ kind: 'check', bytes: nothing })
    const second = fragile.run({ kind: 'font', bytes: nothing })
    await expect(first).rejects.toThrow(/Looking into this file .*was ended. Nothing was changed/)
    await expect(second).resolves.toBe('alive')
    await fragile.close()
  })

  it('that need more memory than a thread may have are ended, and the server lives', { timeout: 60_000 }, async () => {
    const hungry = poolOf(
      'hungry',
      "export default task => { if (task.kind === 'font') return { result: 'alive' }; const kept = []\n" +
        'for (;;) kept.push(new Array(1e5).fill(1.5)) }',
      { memory: 64 },
    )
    await expect(hungry.run({ kind: 'check', bytes: nothing })).rejects.toThrow(/too much memory/)
    await expect(hungry.run({ kind: 'font', bytes: nothing })).resolves.toBe('alive')
    await hungry.close()
  })

  it('serve who waits though counting fills the rest', async () => {
    const busy = poolOf(
      'counting',
      "export default task => task.kind === 'survey' ? new Promise(() => {}) : { result: 'served' }",
    )
    const counting = Array.from({ length: 20 }, () =>
      busy.background.run({ kind: 'survey', bytes: guide, ids: {} }).catch(() => 'ended'),
    )
    await expect(busy.run({ kind: 'check', bytes: nothing })).resolves.toBe('served')
    await busy.close()
    expect(new Set(await Promise.all(counting))).toEqual(new Set(['ended']))
  })

  it('serve each in turn: who asks for much does not hold up who asks for little', async () => {
    const shared = poolOf(
      'turns',
      "export default task => new Promise(done => setTimeout(() => done({ result: 'served' }), 20))",
    )
    const order: string[] = []
    const ask = (who: string) =>
      shared
        .for(who)
        .run({ kind: 'check', bytes: nothing })
        .then(() => order.push(who))
    const much = Array.from({ length: 12 }, () => ask('much'))
    await Promise.all([...much, ask('little'), ask('little')])
    expect(order.filter(who => who === 'much')).toHaveLength(12)
    // One was at work already, and each of the two stands behind as many of the other's.
    expect(order.indexOf('little')).toBeLessThanOrEqual(2)
    expect(order.lastIndexOf('little')).toBeLessThanOrEqual(4)
    await shared.close()
  })

  it('draw a page though plans without end fill what is there for plans', async () => {
    const busy = poolOf(
      'planning',
      "export default task => { if (task.kind === 'change') for (;;); return { result: 'drawn' } }",
    )
    const asked = request([swap('Skerrow', 'Work Sans')])
    const plans = Array.from({ length: 5 }, () =>
      busy.run({ kind: 'change', bytes: guide, ids: {}, request: asked }).catch((error: Error) => error.message),
    )
    const began = Date.now()
    await expect(busy.run({ kind: 'pagePicture', bytes: guide, ids: {}, page: 0 })).resolves.toBe('drawn')
    expect(Date.now() - began).toBeLessThan(2000)
    await busy.close()
    expect((await Promise.all(plans)).every(each => /was ended/.test(String(each)))).toBe(true)
  })

  it('end a task that takes longer than its kind may, and say which; waiting in line is no work', async () => {
    const slow = poolOf(
      'too-slow',
      "export default async task => { if (task.kind === 'edit') for (;;);\n" +
        "await new Promise(done => setTimeout(done, 600)); return { result: 'done' } }",
      { seconds: 1 },
    )
    const endless = slow.run({ kind: 'edit', bytes: nothing, ids: {}, edits: [] })
    // Three of them take longer together than each may.
    const others = Array.from({ length: 3 }, () => slow.run({ kind: 'check', bytes: nothing }))
    await expect(endless).rejects.toThrow('Writing this change took longer than 1 seconds and was ended.')
    await expect(Promise.all(others)).resolves.toEqual(['done', 'done', 'done'])
    await slow.close()
  })

  it('end a task that is given up, and the thread with it', async () => {
    const given = poolOf(
      'endless',
      "export default task => { if (task.kind === 'edit') for (;;); return { result: 'alive' } }",
    )
    const signal = AbortSignal.timeout(300)
    const endless = given.run({ kind: 'edit', bytes: nothing, ids: {}, edits: [] }, signal)
    const behind = given.run({ kind: 'check', bytes: nothing })
    await expect(endless).rejects.toThrow('was given up')
    await expect(behind).resolves.toBe('alive')
    await given.close()
  })

  it('refuse work when too much waits; what waits when they end is told so', async () => {
    const full = poolOf('slow', 'export default () => new Promise(() => {})')
    const waiting = Array.from({ length: 401 }, () =>
      full.run({ kind: 'check', bytes: nothing }).catch((error: Error) => error.message),
    )
    await expect(full.run({ kind: 'check', bytes: nothing })).rejects.toThrow(/too much to do/)
    await full.close()
    expect((await Promise.all(waiting)).every(each => /was ended/.test(String(each)))).toBe(true)
  })

  it('refuse somebody who asks for very much while there is room for others', async () => {
    const busy = poolOf('much', 'export default () => new Promise(() => {})')
    const ask = (who: string) =>
      busy
        .for(who)
        .run({ kind: 'check', bytes: nothing })
        .catch((error: Error) => error.message)
    const waiting = Array.from({ length: 200 }, () => ask('one'))
    expect(await ask('one')).toMatch(/too much to do/)
    const other = ask('another')
    await busy.close()
    expect((await Promise.all([...waiting, other])).every(each => /was ended/.test(String(each)))).toBe(true)
  })
})

describe('the surveyor', () => {
  it('counts what waits, and puts it on the shelf', async () => {
    const { id } = await addDocument(acting(), { fileName: 'Guide.odt', kind: 'text', signed: false, bytes: guide })
    expect((await shelfPage(acting(), everything)).cards[0]).toMatchObject({
      settled: null,
      counted: null,
      picture: null,
      faces: [],
    })
    const surveyor = new Surveyor(() => Promise.resolve(knex), pool)
    expect(await surveyor.one()).toBe(true)
    expect(await surveyor.one()).toBe(false)
    const [card] = (await shelfPage(acting(), everything)).cards
    expect(card).toMatchObject({ id, title: 'Sailing guide', pages: 24, counted: 1 })
    expect(card!.picture).toMatch(/^[0-9a-f]{16}$/)
    expect(card!.faces.map(face => face.family)).toContain('Skerrow')
    expect((await versionRecord(acting(), id, 1))!.firstPage).toMatch(/^<svg/)
  })

  it('says when a document cannot be counted, and goes on', async () => {
    const { id, job } = await addDocument(acting(), {
      fileName: 'Broken.odt',
      kind: 'text',
      signed: false,
      bytes: guide,
    })
    const { hash } = await knex('version_pieces')
      .where({ document: id })
      .orderBy('position')
      .first<{ hash: string }>('hash')
    await knex('blob_chunks').where({ hash }).delete()
    expect(await new Surveyor(() => Promise.resolve(knex), pool).one()).toBe(true)
    expect(await knex('jobs').where({ id: job }).first('state', 'message')).toMatchObject({
      state: 'failed',
      message: expect.stringContaining('missing from the store'),
    })
  })
})
