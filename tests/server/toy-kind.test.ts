import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Knex } from 'knex'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { recordCsv } from '../../core/change/record-csv'
import { addBatch, findBatch, startBatch, undoBatch } from '../../server/store/batches'
import { actingAs } from '../../server/store/acting'
import { addDocument } from '../../server/store/documents'
import { addVersion, versionContent, versionRecord } from '../../server/store/versions'
import { keep, listKept } from '../../server/store/kept'
import { failureOf } from '../../server/work/thread'
import { TaskError, type Workers } from '../../server/work/pool'
import { Surveyor } from '../../server/work/surveyor'
import { carryOut } from '../../server/work/tasks/carry-out'
import type { Results, Task } from '../../server/work/tasks/task'
import { makeOdt } from '../support/fixtures'
import { parts } from '../support/independent'
import { toyRegistry } from '../support/toy-kind'
import { dropDatabase, ownDatabase } from './running'

const folder = mkdtempSync(join(tmpdir(), 'morphene-toy-'))
const bytes = (word: string) => makeOdt({ body: `<text:p>${word}</text:p><text:p>harbour</text:p>` })
const request = toyRegistry.schema.parse({ wishes: [{ type: 'shout', sign: '!' }] })
let knex: Knex
const acting = () => actingAs(knex)
beforeAll(async () => {
  knex = await ownDatabase('morphene_toy_test')
})
afterAll(async () => {
  await dropDatabase(knex, 'morphene_toy_test')
  rmSync(folder, { recursive: true })
})

/** Threads that know the kind; a refusal comes out of them as it does out of real ones. */
const workers: Workers = {
  async run<K extends Task['kind']>(task: Extract<Task, { kind: K }>): Promise<Results[K]> {
    try {
      return await carryOut(task, toyRegistry)
    } catch (error) {
      throw new TaskError(failureOf(error))
    }
  },
}
const add = async (word: string) =>
  (await addDocument(acting(), { fileName: `${word}.odt`, kind: 'text', signed: false, bytes: bytes(word) })).id
const textOf = async (id: string, version: number) =>
  new TextDecoder().decode(parts((await versionContent(acting(), id, version))!.bytes)['content.xml'])

describe('a kind that is registered in a test alone', () => {
  it('is carried out and recorded as any other', async () => {
    const id = await add('Pier')
    const content = (await versionContent(acting(), id, 1))!
    const { plan, changes, ...made } = await workers.run({ kind: 'change', ...content, request })
    expect(changes).toBe(true)
    await addVersion(acting(), id, 1, { madeBy: 'change', title: plan.title, content: made, plan })
    expect(await textOf(id, 2)).toContain('Pier!')
    const record = (await versionRecord(acting(), id, 2))!.plan!
    expect(record).toEqual(plan)
    const csv = recordCsv(record, { fileName: 'Pier.odt', version: 2, made: new Date(0) })
    expect(csv).toContain('Put “!” behind every paragraph.')
    expect(csv.split('\r\n').filter(line => line.startsWith('place,'))).toHaveLength(2)
  })

  it('is kept by name, and read again as it was', async () => {
    await keep(acting(), 'wish', { heading: '', name: 'Louder', data: request })
    expect((await listKept(acting(), 'wish')).find(each => each.name === 'Louder')!.data).toEqual(request)
  })

  it('is planned and carried out over many documents, and taken back', async () => {
    const ids = [await add('Quay'), await add('Mole')]
    await knex('jobs').where({ kind: 'survey' }).delete()
    const batch = await addBatch(acting(), request, toyRegistry.sentences(request).join(' '), ids)
    const surveyor = new Surveyor(() => Promise.resolve(knex), workers)
    while (await surveyor.one());
    const planned = (await findBatch(acting(), batch))!
    expect([planned.title, planned.state]).toEqual(['Put “!” behind every paragraph.', 'planned'])
    expect(planned.documents.map(each => each.effects?.places)).toEqual([2, 2])
    expect(await startBatch(acting(), batch, [])).toBe(true)
    while (await surveyor.one());
    expect((await findBatch(acting(), batch))!.state).toBe('done')
    for (const id of ids) expect(await textOf(id, 2)).toContain('harbour!')
    expect(await undoBatch(acting(), batch)).toBe(true)
    for (const id of ids)
      expect((await versionContent(acting(), id, 3))!.bytes).toEqual((await versionContent(acting(), id, 1))!.bytes)
    await surveyor.stop()
  })
})
