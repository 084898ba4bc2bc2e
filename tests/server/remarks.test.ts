import type { Knex } from 'knex'
import { beforeAll, describe, expect, it } from 'vitest'
import { openDocument } from '../../core/document/open'
import { actingAs } from '../../server/store/acting'
import { addDocument } from '../../server/store/documents'
import { presentFor } from '../../server/store/presence'
import { actOnRemark, addRemark, answerLimit, remarkLimit, remarksOf } from '../../server/store/remarks'
import { purgeDocument, trashDocument } from '../../server/store/trash'
import type { GivenRemark, Remark } from '../../shared/remarks'
import { makeOdt } from '../support/fixtures'
import { anyId, runStudio, type Browser } from './studio'

const studio = runStudio(75, 'morphene_remarks_test')
let knex: Knex
beforeAll(() => {
  knex = studio.knex()
})
const owner = studio.browser()
beforeAll(() => studio.signsIn(owner, { id: 'desk', name: 'M. Aldous', role: 'owner' }))
/** Somebody of another studio on the same installation. */
beforeAll(async () => {
  await knex('owners').insert({ id: 'other', name: 'Another studio', created: new Date() })
  await studio.comes(studio.browser(), { id: 'someone', name: 'Some One', role: 'owner', studio: 'other' })
})

describe('two people at one document', () => {
  const [one, other] = [studio.browser(), studio.browser()]
  let id = ''
  beforeAll(async () => {
    for (const [browser, name] of [
      [one, 'Jory Penn'],
      [other, 'Isla Brae'],
    ] as const) {
      await studio.comes(browser, { id: name.slice(0, 4), name, role: 'designer' })
    }
    const bytes = makeOdt({ body: '<text:p>Two boats a day</text:p>' })
    id = (await addDocument(actingAs(knex), { fileName: 'Shared.odt', kind: 'text', signed: false, bytes })).id
  })
  const at = async (browser: Browser, more: object = {}) =>
    (await (await browser.ask('PUT', '/api/me/at', { document: id, ...more })).json()) as string[]

  it('see each other while they are there, and no longer', async () => {
    expect(await at(one)).toEqual([])
    expect(await at(other)).toEqual(['Jory'])
    expect(await at(one)).toEqual(['Isla'])
    expect(await at(other, { left: true })).toEqual([])
    expect(await at(one)).toEqual([])
    // Whoever said nothing for a while is not there, though they never said that they left.
    await at(other)
    await knex('presence')
      .where({ person: 'Isla' })
      .update({ seen: new Date(Date.now() - presentFor - 1000) })
    expect(await at(one)).toEqual([])
    expect((await one.says('PUT', '/api/me/at', { document: anyId }))[0]).toBe(404)
  })

  it('are told who changed what, and neither overwrites the other', async () => {
    const node = [
      ...openDocument(makeOdt({ body: '<text:p>Two boats a day</text:p>' }))
        .parts.get('content.xml')!
        .descendants(),
    ].find(each => each.name === 'text:p')!.id
    const write = (text: string) => ({
      base: 1,
      edits: [{ edit: { type: 'text', part: 'content.xml', node, from: 0, to: 0, text }, firstId: 500 }],
    })
    expect(await one.status('POST', `/api/documents/${id}/edit`, write('Mostly '))).toBe(200)
    const [status, said] = await other.says('POST', `/api/documents/${id}/edit`, write('Rarely '))
    expect(status).toBe(409)
    expect(said).toContain('Jory Penn changed this document meanwhile: “Wrote “Mostly ””')
    const [, own] = await one.says('POST', `/api/documents/${id}/edit`, write('Again '))
    expect(own).toContain('You changed this document meanwhile')
    // A remark stays through change and undo.
    const place = { kind: 'text', part: 'content.xml', node, from: 11, to: 16, text: 'boats' }
    expect(await other.status('POST', `/api/documents/${id}/remarks`, { version: 2, place, text: 'Two?' })).toBe(200)
    expect(await one.status('POST', `/api/documents/${id}/step`, { base: 2, direction: 'undo' })).toBe(200)
    expect(await one.get(`/api/documents/${id}/remarks`)).toMatchObject([{ text: 'Two?', author: 'Isla', version: 2 }])
  })
})

describe('remarks', () => {
  const sand = studio.browser()
  beforeAll(async () => {
    await studio.comes(sand, { id: 'sand', name: 'R. Sand', role: 'reader' })
  })

  it('are written by whoever may read, answered, given to somebody, and settled by those they concern', async () => {
    const { id } = await addDocument(actingAs(knex), {
      fileName: 'Remarked.odt',
      kind: 'text',
      signed: false,
      bytes: makeOdt({ body: '<text:p>Two boats a day</text:p>' }),
    })
    const path = `/api/documents/${id}/remarks`
    const place = { kind: 'text', part: 'content.xml', node: 9, from: 4, to: 9, text: 'boats' }
    const list = async (response: Promise<Response>) => (await (await response).json()) as Remark[]
    // A reader changes nothing, and may say something.
    expect(await sand.status('POST', `/api/documents/${id}/edit`, {})).toBe(403)
    const [made] = await list(sand.ask('POST', path, { version: 1, place, text: ' Which boats? ', to: 'desk' }))
    expect(made).toMatchObject({ version: 1, place, text: 'Which boats?', to: 'desk', settled: null, answers: [] })
    expect(await owner.get<GivenRemark[]>('/api/remarks')).toMatchObject([
      { id: made!.id, document: id, fileName: 'Remarked.odt', text: 'Which boats?', author: made!.author },
    ])
    expect(await sand.get('/api/remarks')).toEqual([])
    const [answered] = await list(owner.ask('POST', `${path}/${made!.id}`, { act: 'answer', text: 'All of them.' }))
    expect(answered!.answers).toMatchObject([{ author: 'desk', text: 'All of them.' }])
    // Somebody has answered: what was asked stays.
    expect(await sand.says('DELETE', `${path}/${made!.id}`, undefined)).toEqual([
      403,
      expect.stringContaining('as long as nobody else answered'),
    ])
    const [given] = await list(sand.ask('POST', `${path}/${made!.id}`, { act: 'give', to: made!.author }))
    expect(given!.to).toBe(made!.author)
    const [settled] = await list(sand.ask('POST', `${path}/${made!.id}`, { act: 'settle' }))
    expect(settled!.settled).toMatchObject({ person: made!.author })
    expect(await sand.get('/api/remarks')).toEqual([])
    const [open] = await list(owner.ask('POST', `${path}/${made!.id}`, { act: 'reopen' }))
    expect(open!.settled).toBeNull()
    expect(await owner.status('DELETE', `${path}/${made!.id}`)).toBe(200)
    expect(await owner.get(path)).toEqual([])
  })

  it('of somebody else are not a reader’s to settle, and nobody gets them who is not here', async () => {
    const { id } = await addDocument(actingAs(knex), {
      fileName: 'Remarked too.odt',
      kind: 'text',
      signed: false,
      bytes: makeOdt({ body: '<text:p>Pier</text:p>' }),
    })
    const path = `/api/documents/${id}/remarks`
    const body = { version: 1, place: { kind: 'page', page: 0, x: 0.3, y: 0.405 }, text: 'Of the page' }
    const finding = { check: 'faces.absent', says: 'Skerrow is absent' }
    const made = (await (await owner.ask('POST', path, { ...body, finding })).json()) as Remark[]
    expect(made[0]).toMatchObject({ place: body.place, finding })
    for (const act of [{ act: 'settle' }, { act: 'give', to: null }])
      expect(await sand.says('POST', `${path}/${made[0]!.id}`, act)).toEqual([403, expect.stringContaining('settled')])
    expect(await sand.status('DELETE', `${path}/${made[0]!.id}`)).toBe(403)
    for (const to of ['someone', anyId])
      expect(await owner.says('POST', `${path}/${made[0]!.id}`, { act: 'give', to })).toEqual([
        422,
        expect.stringContaining('does not work at this studio'),
      ])
    expect(await owner.status('POST', path, { ...body, to: 'someone' })).toBe(422)
    expect(await owner.says('POST', path, { ...body, version: 2 })).toEqual([
      400,
      expect.stringContaining('versions 1 to 1'),
    ])
    expect(await owner.status('POST', path, { ...body, text: '  ' })).toBe(400)
    expect(await owner.status('POST', path, { ...body, text: 'x'.repeat(4001) })).toBe(400)
    expect(await owner.status('POST', `${path}/${anyId}`, { act: 'settle' })).toBe(404)
    expect(await owner.status('POST', `${path}/nothing`, { act: 'settle' })).toBe(404)
    // What lies in the trash asks nobody, and goes with the document.
    expect(await owner.status('POST', `${path}/${made[0]!.id}`, { act: 'give', to: 'desk' })).toBe(200)
    expect((await owner.get<GivenRemark[]>('/api/remarks')).map(each => each.document)).toEqual([id])
    await trashDocument(actingAs(knex), id)
    expect(await owner.get('/api/remarks')).toEqual([])
    await purgeDocument(actingAs(knex), id)
    expect(await knex('remarks').where({ document: id })).toEqual([])
  })

  it('are bounded: of a document, and of the answers of one', async () => {
    const ours = actingAs(knex)
    const file = { fileName: 'Full.odt', kind: 'text' as const, signed: false, bytes: makeOdt({ body: '<text:p/>' }) }
    const { id } = await addDocument(ours, file)
    const row = (table: string, number: number) => ({
      id: `${table}-${String(number).padStart(6, '0')}`,
      author: 'desk',
      text: 'x',
      created: new Date(),
    })
    const many = (count: number, make: (number: number) => object) => Array.from({ length: count }, (_, at) => make(at))
    await knex.batchInsert(
      'remarks',
      many(remarkLimit, at => ({ ...row('r', at), document: id, version: 1 })) as never,
      500,
    )
    await knex.batchInsert(
      'remark_answers',
      many(answerLimit, at => ({ ...row('a', at), remark: 'r-000000' })) as never,
      500,
    )
    const said = { version: 1, place: null, finding: null, to: null }
    expect(await addRemark(ours, id, { ...said, text: 'One more' })).toBe('full')
    expect(await actOnRemark(ours, id, 'r-000000', { act: 'answer', text: 'One more' })).toBe('full')
    expect(await actOnRemark(ours, id, 'r-000001', { act: 'answer', text: 'The first' })).toBe('done')
    const found = await remarksOf(ours, id)
    expect([found.length, found.flatMap(each => each.answers).length]).toEqual([remarkLimit, answerLimit + 1])
  })
})
