import type { ChildProcess } from 'node:child_process'
import { setTimeout as pause } from 'node:timers/promises'
import type { Knex } from 'knex'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { saveDocument, openDocument } from '../../core/document/open'
import { connect } from '../../server/store/database'
import type { Batch } from '../../shared/api'
import { actingAs } from '../../server/store/acting'
import { addDocument } from '../../server/store/documents'
import { versionContent } from '../../server/store/versions'
import { longDocument } from '../support/long-document'
import { familiesIn, parts, xmlParts } from '../support/independent'
import { endServer, startServer, testDatabase } from './running'

testDatabase()
const port = Number(process.env.MORPHENE_TEST_PORT ?? 3411) + 4
const base = `http://127.0.0.1:${port}`
/** How many documents the long test takes: 30, or as many as are asked for. */
const many = Number(process.env.MORPHENE_BATCH_DOCUMENTS ?? 30)
let server: ChildProcess
let knex: Knex
const acting = () => actingAs(knex)
beforeAll(async () => {
  knex = connect()
  server = await startServer(port)
})
afterAll(async () => {
  await endServer(server)
  // What waits for nobody would keep the other tests' servers busy.
  await knex('jobs').whereIn('state', ['queued', 'running', 'paused']).update({ state: 'cancelled' })
  await knex.destroy()
})

const post = (path: string, body: unknown = {}) =>
  fetch(`${base}${path}`, {
    method: 'POST',
    body: JSON.stringify(body),
    headers: { 'content-type': 'application/json' },
  })
const get = async <T>(path: string): Promise<T> => (await (await fetch(`${base}${path}`)).json()) as T
const batchNow = (id: string) => get<Batch>(`/api/batches/${id}`)
const swapped = (from: string, to: string) => ({
  wishes: [{ type: 'swap', from: { family: from }, to: { family: to } }],
})
const swap = swapped('Skerrow', 'Work Sans')

/** Waits until a batch is as asked. */
async function until(id: string, what: (batch: Batch) => boolean, seconds = 600): Promise<Batch> {
  for (let tries = 0; tries < seconds * 10; tries++) {
    try {
      const batch = await batchNow(id)
      if (what(batch)) return batch
    } catch {
      /* The server may just be away. */
    }
    await pause(100)
  }
  throw new Error(
    `the batch never came so far: ${JSON.stringify((await batchNow(id)).documents.map(each => [each.state, each.message]))}`,
  )
}

async function documents(count: number, pages: number, word = 'Notice'): Promise<string[]> {
  const ids: string[] = []
  for (let index = 0; index < count; index++) {
    const { id } = await addDocument(acting(), {
      fileName: `${word} ${index}.odt`,
      kind: 'text',
      signed: false,
      bytes: longDocument(pages, `${word} ${index}`),
    })
    ids.push(id)
  }
  // Counting is not what is tried here.
  await knex('jobs').whereIn('document', ids).where({ kind: 'survey' }).update({ state: 'cancelled' })
  return ids
}
async function planned(ids: readonly string[], request: object = swap): Promise<Batch> {
  const response = await post('/api/batches', { request, documents: ids })
  expect(response.status).toBe(201)
  return until(((await response.json()) as { id: string }).id, batch => batch.state === 'planned')
}
const has = (bytes: Uint8Array, family: string): boolean => {
  const files = parts(bytes)
  return xmlParts(files).some(path => familiesIn(files[path]!).has(family))
}
const versionOf = async (id: string) => Number((await knex('documents').where({ id }).first('version'))!.version)

describe('one plan over many documents', () => {
  it(
    `${many} of 20 pages: progress, pause, and the server killed at random moments: ` +
      `each wholly old or wholly new, and the job goes on`,
    async () => {
      const ids = await documents(many, 20)
      const olds = new Map(
        await Promise.all(ids.map(async id => [id, (await versionContent(acting(), id, 1))!.bytes] as const)),
      )
      const batch = await planned(ids)
      expect(batch.documents).toHaveLength(many)
      for (const each of batch.documents)
        expect(each).toMatchObject({ state: 'planned', base: 1, effects: { pagesBefore: 20, missingGlyphs: 0 } })
      expect((await post(`/api/batches/${batch.id}/apply`)).status).toBe(200)
      await until(batch.id, now => now.documents.filter(each => each.state === 'done').length >= 2)
      expect((await post(`/api/batches/${batch.id}/steer`, { how: 'pause' })).status).toBe(200)
      // What was being done is finished; then it rests.
      await pause(1500)
      const rests = (await batchNow(batch.id)).documents.filter(each => each.state === 'done').length
      await pause(1200)
      expect((await batchNow(batch.id)).documents.filter(each => each.state === 'done').length).toBe(rests)
      expect(rests).toBeLessThan(many)
      expect((await post(`/api/batches/${batch.id}/steer`, { how: 'resume' })).status).toBe(200)
      for (let kills = 0; kills < 3; kills++) {
        await pause(300 + Math.random() * 900)
        await endServer(server, 'SIGKILL')
        for (const id of ids) {
          const version = await versionOf(id)
          const { bytes } = (await versionContent(acting(), id, version))!
          if (version === 1) expect(Buffer.compare(bytes, olds.get(id)!)).toBe(0)
          else expect(has(bytes, 'skerrow')).toBe(false)
          const known = await knex('batch_documents')
            .where({ batch: batch.id, document: id })
            .first<{ state: string; made: number | null }>('state', 'made')
          expect([known!.state, known!.made], id).toEqual(version === 1 ? ['planned', null] : ['done', version])
        }
        server = await startServer(port)
      }
      const done = await until(batch.id, now => now.state === 'done')
      expect(done.documents.every(each => each.state === 'done' && each.made === 2)).toBe(true)
      for (const id of ids) {
        const { bytes } = (await versionContent(acting(), id, 2))!
        expect(has(bytes, 'skerrow')).toBe(false)
        expect(has(bytes, 'work sans')).toBe(true)
        expect(saveDocument(openDocument(bytes))).toEqual(bytes)
      }
      expect(
        (await get<{ id: string; done: number; count: number }[]>('/api/batches')).find(each => each.id === batch.id),
      ).toMatchObject({ done: many, count: many })
    },
    900_000,
  )

  it('is taken back where nobody changed a document since', async () => {
    const ids = await documents(3, 2, 'Back')
    const batch = await planned(ids)
    await post(`/api/batches/${batch.id}/apply`)
    await until(batch.id, now => now.state === 'done')
    // One goes on meanwhile.
    const changed = await post(`/api/documents/${ids[1]}/changes`, {
      base: 2,
      request: swapped('Work Sans', 'Inter'),
    })
    expect(changed.status).toBe(200)
    expect((await post(`/api/batches/${batch.id}/undo`)).status).toBe(200)
    const undone = await batchNow(batch.id)
    expect(undone.documents.map(each => each.state)).toEqual(['undone', 'done', 'undone'])
    expect(undone.documents[1]!.message).toContain('changed since')
    expect(await versionOf(ids[0]!)).toBe(3)
    expect(
      Buffer.compare(
        (await versionContent(acting(), ids[0]!, 3))!.bytes,
        (await versionContent(acting(), ids[0]!, 1))!.bytes,
      ),
    ).toBe(0)
    expect(has((await versionContent(acting(), ids[1]!, 3))!.bytes, 'inter')).toBe(true)
    expect((await post(`/api/batches/${batch.id}/undo`)).status).toBe(409)
  }, 60_000)

  it(
    'a failure in one leaves the others done and says why; documents without the font have ' +
      'nothing to do; those left out stay',
    async () => {
      const ids = await documents(4, 1, 'Some')
      const { id: other } = await addDocument(acting(), {
        fileName: 'Other.odt',
        kind: 'text',
        signed: false,
        bytes: longDocument(1, 'Other', 'Spectral'),
      })
      const batch = await planned([...ids, other])
      expect(batch.documents.find(each => each.document === other)).toMatchObject({ state: 'nothing' })
      expect((await post(`/api/documents/${ids[0]}/changes`, { base: 1, request: swap })).status).toBe(200)
      await post(`/api/batches/${batch.id}/apply`, { leftOut: [ids[1]] })
      const done = await until(batch.id, now => now.state === 'done')
      expect(Object.fromEntries(done.documents.map(each => [each.fileName, each.state]))).toEqual({
        'Some 0.odt': 'failed',
        'Some 1.odt': 'left-out',
        'Some 2.odt': 'done',
        'Some 3.odt': 'done',
        'Other.odt': 'nothing',
      })
      expect(done.documents.find(each => each.state === 'failed')!.message).toContain('changed since it was planned')
      expect(await versionOf(ids[1]!)).toBe(1)
    },
    60_000,
  )

  it('is cancelled, with what is done kept', async () => {
    const ids = await documents(12, 10, 'Stop')
    const batch = await planned(ids)
    await post(`/api/batches/${batch.id}/apply`)
    await until(batch.id, now => now.documents.some(each => each.state === 'done'))
    expect((await post(`/api/batches/${batch.id}/steer`, { how: 'cancel' })).status).toBe(200)
    await pause(1500)
    const after = await batchNow(batch.id)
    expect(after.state).toBe('cancelled')
    for (const each of after.documents) expect(await versionOf(each.document)).toBe(each.state === 'done' ? 2 : 1)
    expect(after.documents.some(each => each.state === 'cancelled')).toBe(true)
    expect((await post(`/api/batches/${batch.id}/steer`, { how: 'resume' })).status).toBe(409)
  }, 60_000)

  it('recasts as well, and refuses what hangs on one document', async () => {
    const ids = await documents(2, 1, 'Words')
    const request = {
      wishes: [{ type: 'recast', find: { words: { text: 'launch' } }, change: { words: 'boat' } }],
    }
    const batch = await planned(ids, request)
    expect(batch.title).toBe('Find “launch” in the whole document, and write “boat”.')
    await post(`/api/batches/${batch.id}/apply`)
    await until(batch.id, now => now.state === 'done')
    const text = new TextDecoder().decode(parts((await versionContent(acting(), ids[0]!, 2))!.bytes)['content.xml'])
    expect(text).toContain('The boat leaves')
    expect(text).not.toContain('launch')
    const refused = await post('/api/batches', {
      documents: ids,
      request: { ...swap, leftOut: [{ what: 'paragraph', part: 'content.xml', node: 1 }] },
    })
    expect(refused.status).toBe(422)
    expect(((await refused.json()) as { message: string }).message).toContain('belong to one document')
    expect((await post('/api/batches', { documents: [], request: swap })).status).toBe(400)
    expect((await fetch(`${base}/api/batches/none`)).status).toBe(404)
  }, 60_000)
})
