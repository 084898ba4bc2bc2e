import { describe, expect, it } from 'vitest'
import type { Census } from '../../core/census/census'
import { houseFromPair } from '../../core/house/make-house'
import { harbourNotice } from '../../demo/harbour-notice'
import { actingAs, deskPerson, type Acting } from '../../server/store/acting'
import { addDocument } from '../../server/store/documents'
import { setStandIn, standInsFor } from '../../server/store/stand-ins'
import type { ProofCounts } from '../../shared/api'
import { until } from '../support/desk-process'
import { face, makeOdt, paragraphStyle } from '../support/fixtures'
import { runStudio } from './studio'

const studio = runStudio(76, 'morphene_looking_test')
const desk = studio.browser()

describe('a proof', () => {
  it('runs the checks of the desk, and those of the house from the version on that says so', async () => {
    const { id } = await addDocument(actingAs(studio.knex()), {
      fileName: 'Notice.odt',
      kind: 'text',
      signed: false,
      bytes: harbourNotice(),
    })
    const empty = async () => {
      const { checks } = await desk.get<ProofCounts>(`/api/documents/${id}/proof`)
      return checks.find(each => each.check === 'empty-paragraph')?.count ?? 0
    }
    expect((await desk.get<{ id: string }[]>('/api/checks')).map(each => each.id)).toContain('empty-paragraph')
    expect(await empty()).toBe(1)
    const house = houseFromPair('Checked', { heading: 'Jost', body: 'Literata', size: 10, ratio: 1.25 })
    const made = await desk.ask('POST', '/api/houses', { house, trialUntil: null })
    const { id: houseId } = (await made.json()) as { id: string }
    const issue = async () => {
      const { revision } = await desk.get<{ revision: number }>(`/api/houses/${houseId}`)
      expect(await desk.status('POST', `/api/houses/${houseId}/issue`, { revision })).toBe(200)
    }
    await issue()
    expect(await desk.status('PUT', `/api/documents/${id}/house`, { house: houseId })).toBe(200)
    expect(await empty()).toBe(1)
    const { revision } = await desk.get<{ revision: number }>(`/api/houses/${houseId}`)
    const checks = { 'empty-paragraph': { runs: false, limits: {} } }
    const kept = { house: { ...house, checks }, trialUntil: null, revision }
    expect(await desk.status('PUT', `/api/houses/${houseId}`, kept)).toBe(200)
    expect(await empty()).toBe(1)
    await issue()
    expect(await empty()).toBe(0)
    await desk.status('PUT', `/api/documents/${id}/house`, { house: null })
    expect(await desk.status('DELETE', `/api/houses/${houseId}`)).toBe(200)
  })

  it('and a comparison go out as PDF, and nobody compares with what they do not see', async () => {
    const knex = studio.knex()
    const add = (acting: Acting, words: string) =>
      addDocument(acting, {
        fileName: `${words}.odt`,
        kind: 'text',
        signed: false,
        bytes: makeOdt({ body: `<text:p>"${words}"</text:p>` }),
      })
    const [one, two] = [await add(actingAs(knex), 'Two boats'), await add(actingAs(knex), 'Three boats')]
    await knex('owners').insert({ id: 'other', name: 'Another studio', created: new Date() })
    const theirs = await add(actingAs(knex, { ...deskPerson, owner: 'other' }), 'Theirs')
    const proof = await desk.ask('GET', `/api/documents/${one.id}/proof-pdf`)
    expect([proof.status, proof.headers.get('content-type')]).toEqual([200, 'application/pdf'])
    expect(proof.headers.get('content-disposition')).toContain("UTF-8''Two%20boats%2C%20proof.pdf")
    expect(
      Buffer.from(await proof.arrayBuffer())
        .subarray(0, 5)
        .toString(),
    ).toBe('%PDF-')
    const against = (id: string, version = 1) =>
      desk.says('GET', `/api/documents/${one.id}/comparison-pdf?against=${id}&version=${version}`, undefined)
    expect((await against(two.id))[1].slice(0, 5)).toBe('%PDF-')
    expect(await against(theirs.id)).toEqual([404, expect.stringContaining('is not on the shelf')])
    expect((await against(two.id, 9))[0]).toBe(404)
    expect((await against('elsewhere'))[0]).toBe(400)
  })

  it('holds faces against what the document is made for, and looks again when that is said', async () => {
    const { id } = await addDocument(actingAs(studio.knex()), {
      fileName: 'Slab.odt',
      kind: 'text',
      signed: false,
      bytes: makeOdt({
        body: '<text:p text:style-name="P">Wait and see</text:p>',
        faces: face('Monoton'),
        automatic: paragraphStyle('P', 'style:font-name="Monoton"'),
      }),
    })
    const unlicensed = async () =>
      (await desk.get<ProofCounts>(`/api/documents/${id}/proof`)).checks.find(each => each.check === 'unlicensed')
    expect(await unlicensed()).toBeUndefined()
    expect(await desk.status('PUT', `/api/documents/${id}/uses`, { uses: ['print', 'web page'] })).toBe(200)
    expect(await unlicensed()).toMatchObject({ count: 2, severity: 'warning' })
    const licence = { families: ['Monoton'], uses: ['print'], seats: null, until: '2020-01-01', holder: '' }
    const kept = { heading: '', name: 'Old set', data: licence }
    expect(await desk.status('POST', '/api/kept/licence', kept)).toBe(201)
    expect(await unlicensed()).toMatchObject({ count: 1, severity: 'error' })
  })
})

describe('stand-ins of a house', () => {
  it('hold for its documents from the version on that says so, behind those of the document', async () => {
    const { id } = await addDocument(actingAs(studio.knex()), {
      fileName: 'Absent.odt',
      kind: 'text',
      signed: false,
      bytes: makeOdt({
        body: '<text:p text:style-name="P">Wait and see</text:p>',
        faces: face('Brannock'),
        automatic: paragraphStyle('P', 'style:font-name="Brannock"'),
      }),
    })
    const shown = async () => {
      const answer = await desk.ask('GET', `/api/documents/${id}/census?version=1`)
      const census = answer.ok ? ((await answer.json()) as Census) : null
      return census?.faces.find(each => each.family === 'Brannock')?.standIn ?? null
    }
    const house = {
      ...houseFromPair('Standing in', { heading: 'Jost', body: 'Literata', size: 10, ratio: 1.25 }),
      standIns: [{ family: 'Brannock', script: 'any' as const, to: 'Jost' }],
    }
    const made = await desk.ask('POST', '/api/houses', { house, trialUntil: null })
    const { id: houseId } = (await made.json()) as { id: string }
    expect(await desk.status('PUT', `/api/documents/${id}/house`, { house: houseId })).toBe(200)
    expect(await desk.get(`/api/documents/${id}/stand-ins`)).toMatchObject({ house: [] })
    const { revision } = await desk.get<{ revision: number }>(`/api/houses/${houseId}`)
    expect(await desk.status('POST', `/api/houses/${houseId}/issue`, { revision })).toBe(200)
    expect(await desk.get(`/api/documents/${id}/stand-ins`)).toEqual({
      document: [],
      folder: [],
      house: house.standIns,
      desk: [],
    })
    expect(await until(async () => (await shown()) === 'Jost Regular', 30_000)).toBe(true)
    const ours = actingAs(studio.knex())
    await setStandIn(ours, { level: 'desk' }, { family: '', script: 'any', to: 'Work Sans' })
    await setStandIn(ours, { level: 'document', id }, { family: 'Brannock', script: 'any', to: 'Inter' })
    const all = await standInsFor(ours, { id, folder: null, house: houseId })
    expect(all.map(each => each.to)).toEqual(['Inter', 'Jost', 'Work Sans'])
    await setStandIn(ours, { level: 'document', id }, { family: 'Brannock', script: 'any', to: null })
    await setStandIn(ours, { level: 'desk' }, { family: '', script: 'any', to: null })
    // A house sets none through a document, and goes with its stand-ins.
    const wrong = { level: 'house', family: 'Brannock', script: 'any', to: null }
    expect(await desk.status('PUT', `/api/documents/${id}/stand-ins`, wrong)).toBe(400)
    expect(await desk.status('DELETE', `/api/houses/${houseId}`)).toBe(200)
    expect(await until(async () => (await shown()) !== 'Jost Regular', 30_000)).toBe(true)
  })
})
