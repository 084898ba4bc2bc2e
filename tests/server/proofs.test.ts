import type { Knex } from 'knex'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { checklistSchema, usualChecklist } from '../../core/proof/checklist'
import { houseFromPair } from '../../core/house/make-house'
import { actingAs, type Acting } from '../../server/store/acting'
import { addDocument } from '../../server/store/documents'
import { knownProof, storeProof } from '../../server/store/proofs'
import { madeForNothing } from '../../core/font/held-licence'
import { carryOut } from '../../server/work/tasks/carry-out'
import { rights } from '../../shared/rights'
import { harbourNotice } from '../../demo/harbour-notice'
import { dropDatabase, letGo, ownDatabase } from './running'

const database = 'morphene_proofs_test'
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

const bytes = harbourNotice()
const look = (checklist = usualChecklist) =>
  carryOut({ kind: 'proof', bytes, ids: {}, house: null, checklist, madeFor: madeForNothing })

describe('proofs over the shelf', () => {
  it('count what is found, check by check, by the list and the house that they are given', async () => {
    const counts = await look()
    expect(counts.checks.find(each => each.check === 'empty-paragraph')).toMatchObject({
      severity: 'warning',
      count: 1,
      mendable: 1,
    })
    const warnings = counts.checks.filter(each => each.severity === 'warning')
    expect(warnings.reduce((sum, each) => sum + each.count, 0)).toBe(counts.warning)
    const less = await look(checklistSchema.parse({ checks: { 'empty-paragraph': { runs: false } } }))
    expect(less.warning).toBe(counts.warning - 1)
    const house = houseFromPair('Quay', { heading: 'Jost', body: 'Literata', size: 10, ratio: 1.25 })
    const held = await carryOut({
      kind: 'proof',
      bytes,
      ids: {},
      house,
      checklist: usualChecklist,
      madeFor: madeForNothing,
    })
    expect(held.checks.some(each => each.check === 'outside-house')).toBe(true)
  })

  it('are kept for a version and what it was looked over by, and for its owner alone', async () => {
    const { id } = await addDocument(ours, { fileName: 'Notice.odt', kind: 'text', signed: false, bytes })
    const of = { document: id, version: 1, basis: 'a'.repeat(64) }
    expect(await knownProof(ours, of)).toBeUndefined()
    const counts = await look()
    expect(await storeProof(theirs, of, counts)).toBe(false)
    expect(await storeProof(ours, of, counts)).toBe(true)
    expect(await knownProof(ours, of)).toEqual(counts)
    expect(await knownProof(theirs, of)).toBeUndefined()
    expect(await knownProof(ours, { ...of, version: 2 })).toBeUndefined()
    // Another list takes its place: what older ones gave is not kept.
    const other = { ...of, basis: 'b'.repeat(64) }
    await storeProof(ours, other, counts)
    expect(await knownProof(ours, of)).toBeUndefined()
    expect(await knownProof(ours, other)).toEqual(counts)
    // Several people may look at once: the last one's stays, and nobody's is refused.
    const many = Array.from({ length: 12 }, (_, at) => ({ ...of, basis: String(at % 10).repeat(64) }))
    expect(await Promise.all(many.map(each => storeProof(ours, each, counts)))).toEqual(many.map(() => true))
    await storeProof(ours, other, counts)
    await letGo(ours, id)
    expect(await knownProof(ours, other)).toBeUndefined()
  })
})
