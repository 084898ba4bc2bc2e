import type { Knex } from 'knex'
import { beforeAll, describe, expect, it } from 'vitest'
import { actingAs } from '../../server/store/acting'
import { addDocument } from '../../server/store/documents'
import { purgeDocument, trashDocument } from '../../server/store/trash'
import { pinsOf, setPins } from '../../server/store/ways'
import type { Me } from '../../shared/people'
import { usualWays, type Pins } from '../../shared/ways'
import { makeOdt } from '../support/fixtures'
import { anyId, runStudio } from './studio'

const studio = runStudio(79, 'morphene_ways_test')
let knex: Knex
const [owner, jory, other] = [studio.browser(), studio.browser(), studio.browser()]
beforeAll(async () => {
  knex = studio.knex()
  await knex('owners').insert({ id: 'other', name: 'Another studio', created: new Date() })
  await studio.signsIn(owner, { id: 'desk', name: 'M. Aldous', role: 'owner' })
  await studio.comes(jory, { id: 'jory', name: 'Jory Penn', role: 'reader' })
  await studio.comes(other, { id: 'someone', name: 'Some One', role: 'owner', studio: 'other' })
})

describe('ways of one’s own', () => {
  it('are somebody’s alone, whatever they may do else, and go with them', async () => {
    expect((await jory.get<Me>('/api/me')).ways).toEqual(usualWays)
    const inches = { ...usualWays, units: 'in', grid: true }
    expect(await jory.status('PUT', '/api/me/ways', inches)).toBe(200)
    const elsewhere = studio.browser()
    await studio.signsIn(elsewhere, { id: 'jory', name: 'Jory Penn', role: 'reader' })
    expect((await elsewhere.get<Me>('/api/me')).ways).toEqual(inches)
    expect((await owner.get<Me>('/api/me')).ways).toEqual(usualWays)
  })

  it('are refused where they are none, and nothing is changed', async () => {
    const before = (await jory.get<Me>('/api/me')).ways
    for (const wrong of [{ units: 'ell' }, { marks: 'yes' }, { more: 1 }])
      expect(await jory.status('PUT', '/api/me/ways', { ...usualWays, ...wrong })).toBe(400)
    expect((await jory.get<Me>('/api/me')).ways).toEqual(before)
  })
})

describe('keys of one’s own', () => {
  it('are given to styles of a document by each for themselves, and go with the document', async () => {
    const bytes = makeOdt({ body: '<text:p>Two boats</text:p>' })
    const { id } = await addDocument(actingAs(knex), { fileName: 'Boats.odt', kind: 'text', signed: false, bytes })
    const address = `/api/me/pins/${id}`
    const pins: Pins = { '1': { family: 'paragraph', name: 'Standard' } }
    expect(await owner.get<Pins>(address)).toEqual({})
    expect(await owner.status('PUT', address, pins)).toBe(200)
    expect([await owner.get<Pins>(address), await jory.get<Pins>(address)]).toEqual([pins, {}])
    expect(await owner.status('PUT', address, {})).toBe(200)
    expect(await owner.get<Pins>(address)).toEqual({})
    expect(await owner.status('PUT', address, { eleven: pins['1'] })).toBe(400)
    // Of another studio’s documents nothing is told, and nothing is kept.
    expect([await other.status('GET', address), await other.status('PUT', address, pins)]).toEqual([404, 404])
    await owner.status('PUT', address, pins)
    await trashDocument(actingAs(knex), id)
    expect(await pinsOf(actingAs(knex), id)).toBeNull()
    expect(await setPins(actingAs(knex), id, pins)).toBe(false)
    await purgeDocument(actingAs(knex), id)
    expect(await knex('pins').select('*')).toEqual([])
    expect(await owner.status('GET', `/api/me/pins/${anyId}`)).toBe(404)
  })
})
